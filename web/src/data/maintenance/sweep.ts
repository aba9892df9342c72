/**
 * Films that no clip names, and transfers that broke off: left by a machine that stopped half-way –
 * or all that is left of a lost database. So a sweep only ever puts aside, and asks when it is more
 * than a few.
 */
import { readdir, rm, stat } from 'node:fs/promises';
import { join } from 'node:path';
import type { Db } from '../database/db';
import type { ClipFiles } from '../film/clipFiles';
import { isUnanswered } from '../film/filmShelf';
import { DAY_MS } from '../database/today';
import { putAside } from './setAside';

const HOUR = 3_600_000;
/** A larger share of all films is not put aside without being asked. */
const FEW = 0.03;

export interface Strays {
  /** Films that no clip names, and films in all. */
  readonly strays: number;
  readonly films: number;
  /** There is no clip at all: the database is new, or another one. */
  readonly isEmpty: boolean;
}

/**
 * @param strays those that are old enough not to be on their way to their row
 * @returns null when there are no more strays than a broken transfer leaves
 */
export function doubtfulStrays(films: number, strays: number, clips: number): Strays | null {
  if (clips === 0 && films > 0) return { strays: films, films, isEmpty: true };
  return strays > FEW * films ? { strays, films, isEmpty: false } : null;
}

export interface KeptFilms {
  readonly films: number;
  readonly clips: number;
  /** By their hashes. */
  readonly strays: readonly string[];
  /** Films that were erased with their consent and lie there all the same: their removal was cut off. */
  readonly erased: readonly string[];
  /** Films that clips name and that are not there. */
  readonly missing: ReadonlySet<string>;
}

/** What is on the shelf of films, held against the clips. */
export async function keptFilms(db: Db, { shelf }: ClipFiles, at: Date): Promise<KeptFilms> {
  const rows = await db.selectFrom('clip').select(['sha256', 'purged_at']).execute();
  const named = new Set(rows.flatMap(({ sha256, purged_at }) => (purged_at ? [] : [sha256])));
  const purged = new Set(rows.flatMap(({ sha256, purged_at }) => (purged_at ? [sha256] : [])));
  const missing = new Set(named);
  const [strays, erased]: [string[], string[]] = [[], []];
  let films = 0;
  for await (const film of shelf.list()) {
    films += 1;
    missing.delete(film.sha256);
    // A young one is on its way to its row.
    const isOld = at.getTime() - film.at.getTime() > HOUR;
    if (named.has(film.sha256) || !isOld) continue;
    (purged.has(film.sha256) ? erased : strays).push(film.sha256);
  }
  return { films, clips: rows.length, strays, erased, missing };
}

/** The same; null while the store in which they are does not answer: silence is no film that is gone. */
export async function keptFilmsIfTold(
  db: Db,
  files: ClipFiles,
  at: Date,
): Promise<KeptFilms | null> {
  return keptFilms(db, files, at).catch((error: unknown) => {
    if (isUnanswered(error)) return null;
    throw error;
  });
}

export async function putStraysAside(
  files: ClipFiles,
  strays: readonly string[],
  at: Date,
): Promise<void> {
  for (const sha256 of strays) await putAside(files, sha256, at);
}

/** A database that was about to be put in place, and a small file that was about to be renamed. */
const HALF_DONE = /^restoring-|\.json\.[\w-]{21}$/;
/** A film that was being copied from a backup. */
const HALF_COPIED = /\.bin\.[\w-]{21}$/;

/** A film that was being made readable. */
const HALF_MADE = /\.mp4\.[\w-]{21}\.mp4$/;

/** What was broken off has left behind: nobody has been told that it was kept. */
export async function clearTransfers({ folder: data, shelf }: ClipFiles, at: Date): Promise<void> {
  const clear = async (folder: string, isLeft: (name: string) => boolean, patience = HOUR) => {
    for (const name of (await list(folder)).filter(isLeft)) {
      const path = join(folder, name);
      if (await isOld(path, at, patience)) await rm(path, { recursive: true, force: true });
    }
  };
  await clear(join(data, 'incoming'), () => true);
  // A phone may go on with them tomorrow; it still has the film.
  await clear(join(data, 'uploads'), () => true, 7 * DAY_MS);
  await clear(data, (name) => HALF_DONE.test(name));
  // What was made of a film goes with it, and can be made again.
  const films = new Set<string>();
  for await (const { sha256 } of shelf.list()) films.add(sha256);
  for (const part of await list(join(data, 'readable'))) {
    await clear(
      join(data, 'readable', part),
      (name) => !films.has(name.split('.')[0]!) || HALF_MADE.test(name),
    );
  }
  for (const part of await list(join(data, 'clips'))) {
    await clear(join(data, 'clips', part), (name) => HALF_COPIED.test(name));
  }
}

const list = (path: string) => readdir(path).catch(() => []);

async function isOld(path: string, at: Date, patience = HOUR): Promise<boolean> {
  const modified = await stat(path).then(
    (found) => found.mtimeMs,
    () => Infinity,
  );
  return at.getTime() - modified > patience;
}
