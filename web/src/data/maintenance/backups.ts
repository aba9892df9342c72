/**
 * Copies of the database beside the data, one a day, and of every film once. A film stays as long as
 * a backup names it; one whose consent has ended goes at once.
 */
import { Problem } from '@sinew/core/foundation/problem/problem';
import { copyFile, link, mkdir, readdir, rename, rm, stat } from 'node:fs/promises';
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import Database from 'better-sqlite3';
import { nanoid } from 'nanoid';
import type { ClipFiles } from '../film/clipFiles';
import { isFilmHash, shelfPlace } from '../film/filmShelf';
import { databasePath } from '../database/dataFolder';
import { DAY_MS } from '../database/today';
import { have } from '../threads/threads';
import { flushed } from './copyDatabase';

const NAME = /^\d{4}-\d{2}-\d{2}T\d{6}\.\d{3}Z\.db$/;
/** So many days can be gone back. */
export const KEPT = 14;

export interface Backup {
  readonly name: string;
  readonly at: string;
  readonly bytes: number;
}

export class BackupError extends Problem {
  constructor(happened: string, safe = 'Nothing was changed.') {
    super('refused', { happened, safe });
  }
}

/** Where backups go: `SINEW_BACKUP`, best on another disk, else beside the data. */
export function backupFolder(data: string): string {
  return process.env.SINEW_BACKUP ?? join(data, 'backups');
}

const nameFor = (at: Date) => `${at.toISOString().replaceAll(':', '')}.db`;

function timeOf(name: string): string {
  return name.replace(/T(\d{2})(\d{2})(\d{2})/, 'T$1:$2:$3').replace(/\.db$/, '');
}

/** Newest first. */
export async function backups(folder: string): Promise<Backup[]> {
  const names = await readdir(folder).catch(() => []);
  const found = names
    .filter((name) => NAME.test(name))
    .map(async (name) => ({
      name,
      at: timeOf(name),
      bytes: (await stat(join(folder, name))).size,
    }));
  return (await Promise.all(found)).sort((a, b) => b.name.localeCompare(a.name));
}

/** Whether the last backup is a day old; one that is dated in the future is none of yesterday's. */
export function isDue(kept: readonly Backup[], at: Date): boolean {
  const ages = kept.map((one) => at.getTime() - Date.parse(one.at));
  return !ages.some((age) => age >= 0 && age < DAY_MS);
}

/**
 * Make a backup: under a temporary name, checked, flushed, renamed.
 *
 * @param data the data folder
 * @param folder where backups go
 * @param isRotated older ones than the newest `KEPT` go, and films that none names any more; not
 *   while the clock or the database is in doubt
 * @param spared a backup that stays however old it is: the one that is about to be gone back to
 */
export async function backUp(
  data: string,
  folder: string,
  at: Date,
  { isRotated, spared = null }: { isRotated: boolean; spared?: string | null },
): Promise<Backup> {
  await mkdir(folder, { recursive: true, mode: 0o700 });
  const making = join(folder, `making-${nanoid()}`);
  try {
    const problem = await have('copyDatabase', databasePath(data), making);
    if (problem)
      throw new BackupError(
        `The backup is not sound and was not kept: ${problem}`,
        'The gym’s data itself is as it was.',
      );
    const name = nameFor(at);
    await rename(making, join(folder, name));
    await flushed(folder);
    await addFilms(join(data, 'clips'), join(folder, 'clips'));
    if (isRotated) await rotate(folder, at, spared);
    return (await backups(folder)).find((one) => one.name === name)!;
  } finally {
    await rm(making, { force: true });
    // What a killed backup has left.
    for (const name of await readdir(folder)) {
      if (name.startsWith('making-')) await rm(join(folder, name), { force: true });
    }
  }
}

/** Only what is dated up to now counts: a clock that once ran ahead pushes nothing out. */
async function rotate(folder: string, at: Date, spared: string | null): Promise<void> {
  const past = (await backups(folder)).filter((one) => Date.parse(one.at) <= at.getTime());
  for (const { name } of past.slice(KEPT)) {
    if (name !== spared) await rm(join(folder, name));
  }
  await dropFilms(folder);
}

async function addFilms(from: string, to: string): Promise<void> {
  const there = await filmsIn(to);
  for (const name of await filmsIn(from)) {
    if (!there.has(name)) await placeFilm(join(from, name), join(to, name));
  }
}

/** Films that no backup names any more go. */
async function dropFilms(folder: string): Promise<void> {
  const named = new Set<string>();
  for (const { name } of await backups(folder)) {
    const database = new Database(join(folder, name), { readonly: true });
    const rows = database.prepare('select sha256 from clip').all() as { sha256: string }[];
    database.close();
    for (const { sha256 } of rows) named.add(shelfPlace(sha256));
  }
  for (const film of await filmsIn(join(folder, 'clips'))) {
    if (!named.has(film)) await rm(join(folder, 'clips', film), { force: true });
  }
}

/** A film that must not be kept any longer goes from the backups too. */
export async function forgetFilms(folder: string, films: readonly string[]): Promise<void> {
  for (const sha256 of films.filter(isFilmHash)) {
    await rm(join(folder, 'clips', shelfPlace(sha256)), { force: true });
  }
}

/** Films that are missing are taken back from the backups. */
export async function missingFilmsBack(
  folder: string,
  { folder: data, shelf }: ClipFiles,
  missing: readonly string[],
): Promise<void> {
  for (const sha256 of missing.filter(isFilmHash)) {
    const from = join(folder, 'clips', shelfPlace(sha256));
    if (!existsSync(from)) continue;
    const waiting = join(data, 'incoming', nanoid());
    await placeFilm(from, waiting);
    await shelf.put(waiting, sha256);
  }
}

/** Paths below a clip store, as `ab/abcd….bin`. */
async function filmsIn(folder: string): Promise<ReadonlySet<string>> {
  const shelves = await readdir(folder).catch(() => []);
  const all = shelves.map(async (shelf) =>
    (await readdir(join(folder, shelf)).catch(() => [])).map((name) => join(shelf, name)),
  );
  const names = (await Promise.all(all)).flat();
  return new Set(names.filter((name) => name.endsWith('.bin')));
}

/** A film never changes, so a second name for the same file is a copy on the same disk. */
async function placeFilm(from: string, to: string): Promise<void> {
  await mkdir(join(to, '..'), { recursive: true, mode: 0o700 });
  try {
    await link(from, to);
  } catch {
    const making = `${to}.${nanoid()}`;
    await copyFile(from, making);
    await flushed(making);
    await rename(making, to);
  }
}

/**
 * Go back to a backup: checked first, then put in the place of the database at one stroke. Films
 * that are missing come back from the backup.
 *
 * @param close closes every connection to the database
 * @param isOpened false when the database that is there cannot be opened: it is put aside then
 * @throws BackupError; the database is then as it was
 */
export async function restore(
  data: string,
  folder: string,
  name: string,
  close: () => Promise<void>,
  isOpened = true,
): Promise<void> {
  const from = join(folder, name);
  if (!NAME.test(name) || !existsSync(from)) {
    throw new BackupError('This backup is not there any more.');
  }
  const problem = await have('problemOf', from);
  if (problem) throw new BackupError(`This backup is damaged: ${problem}`);
  const place = databasePath(data);
  const making = join(data, `restoring-${nanoid()}`);
  try {
    await copyFile(from, making);
    await flushed(making);
    await close();
    if (isOpened) await settle(place);
    else await putDatabaseAside(data);
    await rename(making, place);
    await flushed(data);
  } finally {
    await rm(making, { force: true });
  }
  const films = await filmsIn(join(folder, 'clips'));
  const here = await filmsIn(join(data, 'clips'));
  for (const film of films) {
    if (!here.has(film)) await placeFilm(join(folder, 'clips', film), join(data, 'clips', film));
  }
}

/** The files of a database: the journal first, which must never be played into another one. */
export const DATABASE_FILES = ['sinew.db-wal', 'sinew.db-shm', 'sinew.db'] as const;

/**
 * Move a database that cannot be opened out of the way, and keep it.
 *
 * @returns the folder in which it is now
 */
export async function putDatabaseAside(data: string): Promise<string> {
  const aside = join(data, 'set-aside', `database-${nanoid()}`);
  await mkdir(aside, { recursive: true, mode: 0o700 });
  for (const name of DATABASE_FILES) {
    const there = join(/* turbopackIgnore: true */ data, name);
    if (await isThere(there)) await rename(there, join(aside, name));
  }
  return aside;
}

const isThere = (path: string) =>
  stat(path).then(
    () => true,
    () => false,
  );

/** No journal may be left of the database that is replaced: it would be played into the new one. */
async function settle(place: string): Promise<void> {
  if (!existsSync(place)) return;
  const database = new Database(place);
  database.pragma('journal_mode = DELETE');
  database.close();
  if (existsSync(`${place}-wal`)) {
    throw new BackupError('The database is in use.', 'Nothing was changed; try again.');
  }
}
