/**
 * Films that no clip names, put aside for thirty days before they go for good:
 * `set-aside/2026-11-28/abcd….bin`. Nothing is deleted for good by a guess.
 */
import { mkdir, readdir, rm } from 'node:fs/promises';
import { join } from 'node:path';
import { dayIn, DAY_MS } from '../database/today';
import type { ClipFiles } from '../film/clipFiles';

export const SET_ASIDE_DAYS = 30;
const NAME = /^([0-9a-f]{64})\.bin$/;

const asideFolder = (data: string) => join(data, 'set-aside');

interface Aside {
  readonly sha256: string;
  /** The day on which it was put aside. */
  readonly day: string;
  readonly path: string;
}

export async function filmsAside(data: string): Promise<Aside[]> {
  const folder = asideFolder(data);
  const days = (await readdir(folder).catch(() => [])).filter((day) =>
    /^\d{4}-\d\d-\d\d$/.test(day),
  );
  const found = days.map(async (day) =>
    (await readdir(join(folder, day)).catch(() => [])).flatMap((name) => {
      const sha256 = NAME.exec(name)?.[1];
      return sha256 === undefined ? [] : [{ sha256, day, path: join(folder, day, name) }];
    }),
  );
  return (await Promise.all(found)).flat();
}

/** Databases that were put aside, whole or damaged. */
export async function databasesAside(data: string): Promise<string[]> {
  const folder = asideFolder(data);
  const names = await readdir(folder, { recursive: true }).catch(() => []);
  return names.filter((name) => name.endsWith('.db')).map((name) => join(folder, name));
}

export async function putAside(
  { folder: data, shelf }: ClipFiles,
  sha256: string,
  at: Date,
): Promise<void> {
  const folder = join(asideFolder(data), dayIn(at));
  await mkdir(folder, { recursive: true, mode: 0o700 });
  await shelf.takeOut(sha256, join(folder, `${sha256}.bin`));
}

/** Bring films back that a clip names again. @returns those that came */
export async function bringBack(
  { folder: data, shelf }: ClipFiles,
  wanted: ReadonlySet<string>,
): Promise<ReadonlySet<string>> {
  const came = new Set<string>();
  for (const { sha256, path } of await filmsAside(data)) {
    if (!wanted.has(sha256) || came.has(sha256)) continue;
    await shelf.put(path, sha256);
    came.add(sha256);
  }
  return came;
}

/** Those put aside thirty days ago go for good. Only when the clock is believed. */
export async function emptySetAside(data: string, at: Date): Promise<void> {
  const last = dayIn(new Date(at.getTime() - SET_ASIDE_DAYS * DAY_MS));
  const days = await readdir(asideFolder(data)).catch(() => []);
  for (const day of days.filter((one) => one < last)) {
    await rm(join(asideFolder(data), day), { recursive: true, force: true });
  }
}

/** Films that must not be kept any longer, because their consent has ended. */
export async function forgetAside(data: string, films: readonly string[]): Promise<void> {
  const gone = new Set(films);
  for (const { sha256, path } of await filmsAside(data)) {
    if (gone.has(sha256)) await rm(path, { force: true });
  }
}
