/** Opens the gym's database in the data folder and brings it up to date. Server only. */
import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import Database from 'better-sqlite3';
import { Kysely, Migrator, sql, SqliteDialect } from 'kysely';
import { backupFolder, backUp } from '../maintenance/backups';
import { asProblem, damageAmong, DatabaseProblem } from './databaseProblem';
import { MIGRATIONS } from './migrations';
import { dataFolder } from './dataFolder';
import type { Db } from './db';
import type { Schema } from './schema';

export const databasePath = (folder: string) => join(folder, 'sinew.db');

/**
 * Open (and create or migrate) a database. Before an older one is brought up to date, a backup is made.
 *
 * @param folder the data folder; made when missing, readable by its owner only
 * @throws DatabaseProblem; the database is then as it was before
 */
export async function openDatabase(folder: string): Promise<Db> {
  let sqlite: Database.Database | null = null;
  try {
    mkdirSync(folder, { recursive: true, mode: 0o700 });
    sqlite = new Database(databasePath(folder));
    const db: Db = new Kysely<Schema>({ dialect: new SqliteDialect({ database: sqlite }) });
    const applied = appliedMigrations(sqlite);
    sqlite.pragma('journal_mode = WAL');
    sqlite.pragma('foreign_keys = ON');
    sqlite.pragma('synchronous = FULL');
    sqlite.pragma('busy_timeout = 5000');
    // What is deleted for good does not stay in the bytes.
    sqlite.pragma('secure_delete = ON');
    await bringUpToDate(db, folder, applied);
    // Kysely closes only what it has used once.
    await sql`select 1`.execute(db);
    return db;
  } catch (error) {
    sqlite?.close();
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
      const [to, clips] = [backupFolder(folder), join(folder, 'clips')];
      await backUp(db, to, clips, new Date(), { isRotated: false });
    }
    const migrator = new Migrator({ db, provider: { getMigrations: async () => MIGRATIONS } });
    const { error } = await migrator.migrateToLatest();
    if (error) throw error;
  } catch (error) {
    const reason = error instanceof Error ? error.message : String(error);
    throw new DatabaseProblem('not brought up to date', reason, { cause: error });
  }
}

const shared = globalThis as { sinewDatabase?: Promise<Db> };

/**
 * The one connection of this server.
 *
 * @throws DatabaseProblem; whoever asks next tries again
 */
export function database(): Promise<Db> {
  shared.sinewDatabase ??= openDatabase(dataFolder()).catch((error: unknown) => {
    shared.sinewDatabase = undefined;
    throw error;
  });
  return shared.sinewDatabase;
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

/** Close it; whoever asks next opens it anew. */
export async function closeDatabase(): Promise<void> {
  const open = shared.sinewDatabase;
  shared.sinewDatabase = undefined;
  await (await open?.catch(() => undefined))?.destroy();
}
