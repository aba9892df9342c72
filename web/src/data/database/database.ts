/** Opens the gym's database in the data folder and brings it up to date. Server only. */
import { mkdirSync } from 'node:fs';
import Database from 'better-sqlite3';
import { Kysely, Migrator, sql } from 'kysely';
import { Problem } from '@sinew/core/foundation/problem/problem';
import { writeInItsManner } from '../gym/gym';
import { backupFolder, backUp } from '../maintenance/backups';
import { asProblem, damageAmong, DatabaseProblem } from './databaseProblem';
import { MIGRATIONS } from './migrations';
import { databasePath, dataFolder } from './dataFolder';
import { hold, holderInWords } from './hold';
import { endThreads } from '../threads/threads';
import { OneWriterDialect, patiently } from './oneWriter';
import type { Db } from './db';
import type { Schema } from './schema';

/**
 * Open (and create or migrate) a database. Before an older one is brought up to date, a backup is made.
 *
 * @param folder the data folder; made when missing, readable by its owner only
 * @param mayWrite throws a `Problem` while nothing may be written
 * @throws DatabaseProblem; the database is then as it was before
 */
export async function openDatabase(
  folder: string,
  mayWrite: () => void = () => undefined,
): Promise<Db> {
  const open: Database.Database[] = [];
  try {
    mkdirSync(folder, { recursive: true, mode: 0o700 });
    const writer = new Database(databasePath(folder), { timeout: 0 });
    open.push(writer);
    const applied = await patiently(() => {
      const found = appliedMigrations(writer);
      writer.pragma('journal_mode = WAL');
      return found;
    });
    const reader = new Database(databasePath(folder), { readonly: true, timeout: 0 });
    open.push(reader);
    writer.pragma('foreign_keys = ON');
    writer.pragma('synchronous = FULL');
    // What is deleted for good does not stay in the bytes.
    writer.pragma('secure_delete = ON');
    const dialect = new OneWriterDialect({ writer, reader, mayWrite });
    const db: Db = new Kysely<Schema>({ dialect });
    await bringUpToDate(db, folder, applied);
    // Kysely closes only what it has used once.
    await sql`select 1`.execute(db);
    return db;
  } catch (error) {
    for (const one of open) one.close();
    throw asProblem(error);
  }
}

/**
 * @returns the changes of the tables that have been made, none in a new database
 * @throws DatabaseProblem when the database is damaged or of a newer Sinew
 */
function appliedMigrations(sqlite: Database.Database): string[] {
  const found = sqlite.pragma('quick_check(20)') as { quick_check: string }[];
  const damage = damageAmong(found.map(({ quick_check }) => quick_check));
  if (damage) throw new DatabaseProblem('damaged', damage);
  const isNew = !sqlite
    .prepare("select 1 from sqlite_master where type = 'table' and name = 'kysely_migration'")
    .get();
  if (isNew) return [];
  const rows = sqlite.prepare('select name from kysely_migration').all() as { name: string }[];
  const unknown = rows.find(({ name }) => !(name in MIGRATIONS));
  if (unknown) throw new DatabaseProblem('newer', unknown.name);
  return rows.map(({ name }) => name);
}

async function bringUpToDate(db: Db, folder: string, applied: readonly string[]): Promise<void> {
  if (applied.length === Object.keys(MIGRATIONS).length) return;
  try {
    if (applied.length > 0) {
      await backUp(folder, backupFolder(folder), new Date(), { isRotated: false });
    }
    const migrator = new Migrator({ db, provider: { getMigrations: async () => MIGRATIONS } });
    const { error } = await migrator.migrateToLatest();
    if (error) throw error;
  } catch (error) {
    const reason = error instanceof Error ? error.message : String(error);
    throw new DatabaseProblem('not brought up to date', reason, { cause: error });
  }
}

const shared = globalThis as {
  sinewDatabase?: Promise<Db>;
  sinewHold?: { readonly folder: string; release(): void };
  /** While another database is put into the place of this one. */
  sinewIsReplaced?: boolean;
};

/**
 * The one connection of this server, which holds the folder from then on.
 *
 * @throws DatabaseProblem; whoever asks next tries again
 */
export function database(): Promise<Db> {
  shared.sinewDatabase ??= openAnew();
  return shared.sinewDatabase;
}

const openAnew = () =>
  openHeld(dataFolder()).catch((error: unknown) => {
    shared.sinewDatabase = undefined;
    throw error;
  });

async function openHeld(folder: string): Promise<Db> {
  if (shared.sinewHold?.folder !== folder) {
    const address = process.env.SINEW_ADDRESS ?? null;
    const held = await hold(folder, { pid: process.pid, address }).catch((error: unknown) => {
      throw asProblem(error);
    });
    if (!held.isHeld) throw new DatabaseProblem('in use', holderInWords(held.by));
    shared.sinewHold?.release();
    shared.sinewHold = { folder, release: held.release };
  }
  const db = await openDatabase(folder, mustNotBeReplaced);
  await writeInItsManner(db);
  return db;
}

function mustNotBeReplaced(): void {
  if (!shared.sinewIsReplaced) return;
  throw new Problem('busy', {
    happened: 'The gym goes back to a backup just now.',
    safe: 'This was not kept.',
    todo: 'Wait a moment, look at what is there now, and do it again if it is still wanted.',
  });
}

/**
 * Nothing is written while this work puts another database into the place of this one: what would be
 * written would be in neither. What has begun to be written is waited for, and whoever asks for the
 * database meanwhile gets the new one.
 *
 * @param work is given what closes every connection; it is called before the file is touched
 */
export async function replacingDatabase(
  work: (close: () => Promise<void>) => Promise<void>,
): Promise<void> {
  const open = await database();
  let over = () => {};
  const replaced = new Promise<void>((resolve) => (over = resolve));
  shared.sinewIsReplaced = true;
  try {
    // Its turn comes when those before it have written.
    await open
      .transaction()
      .setAccessMode('read only')
      .execute(async () => undefined);
    await work(async () => {
      shared.sinewDatabase = replaced.then(() => openAnew());
      await endThreads();
      await open.destroy();
    });
  } finally {
    shared.sinewIsReplaced = false;
    over();
  }
}

/** @returns why the database cannot be opened, or null when it is open */
export async function databaseProblem(): Promise<DatabaseProblem | null> {
  return database().then(() => null, asProblem);
}

/**
 * The same, when a screen has failed: an open database may have been damaged since, and the
 * connection that is open remembers it as it was.
 */
export async function recheckDatabase(): Promise<DatabaseProblem | null> {
  let second: Database.Database | null = null;
  try {
    second = new Database(databasePath(dataFolder()), { readonly: true, fileMustExist: true });
    appliedMigrations(second);
  } catch {
    // Opened anew, it says what is wrong with it.
    await closeDatabase();
  } finally {
    second?.close();
  }
  return databaseProblem();
}

/** Close it, on the threads too; whoever asks next opens it anew. */
export async function closeDatabase(): Promise<void> {
  const open = shared.sinewDatabase;
  shared.sinewDatabase = undefined;
  await endThreads();
  await (await open?.catch(() => undefined))?.destroy();
}
