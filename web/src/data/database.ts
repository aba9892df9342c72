/** Opens the gym's database in the data folder and brings it up to date. Server only. */
import { mkdirSync } from 'node:fs';
import { homedir } from 'node:os';
import { join } from 'node:path';
import Database from 'better-sqlite3';
import { Kysely, Migrator, SqliteDialect, type Migration } from 'kysely';
import * as firstSlice from './migrations/0001-first-slice';
import * as capture from './migrations/0002-capture';
import * as tracking from './migrations/0003-tracking';
import * as judge from './migrations/0004-judge';
import * as work from './migrations/0005-work';
import type { Schema } from './schema';

export type Db = Kysely<Schema>;

export const MIGRATIONS: Record<string, Migration> = {
  '0001-first-slice': firstSlice,
  '0002-capture': capture,
  '0003-tracking': tracking,
  '0004-judge': judge,
  '0005-work': work,
};

/** Where database and clips live: `SINEW_DATA`, else a folder in the user's home. */
export function dataFolder(): string {
  return process.env.SINEW_DATA ?? join(homedir(), '.sinew');
}

/**
 * Open (and create or migrate) a database.
 *
 * @param folder the data folder; made when missing, readable by its owner only
 * @throws when a migration fails; the database is then as it was before
 */
export async function openDatabase(folder: string): Promise<Db> {
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  const sqlite = new Database(join(folder, 'sinew.db'));
  sqlite.pragma('journal_mode = WAL');
  sqlite.pragma('foreign_keys = ON');
  sqlite.pragma('synchronous = FULL');
  sqlite.pragma('busy_timeout = 5000');
  const db = new Kysely<Schema>({ dialect: new SqliteDialect({ database: sqlite }) });
  const migrator = new Migrator({ db, provider: { getMigrations: async () => MIGRATIONS } });
  const { error } = await migrator.migrateToLatest();
  if (error) {
    await db.destroy();
    throw new Error(`The gym's database could not be brought up to date: ${String(error)}`, {
      cause: error,
    });
  }
  return db;
}

const shared = globalThis as { sinewDatabase?: Promise<Db> };

/** The one connection of this server. */
export function database(): Promise<Db> {
  shared.sinewDatabase ??= openDatabase(dataFolder()).catch((error: unknown) => {
    shared.sinewDatabase = undefined;
    throw error;
  });
  return shared.sinewDatabase;
}

/** Close it; whoever asks next opens it anew. */
export async function closeDatabase(): Promise<void> {
  const open = shared.sinewDatabase;
  shared.sinewDatabase = undefined;
  await (await open?.catch(() => undefined))?.destroy();
}

export function now(): string {
  return new Date().toISOString();
}

/** The two columns of a new row. */
export function stamps(): { created_at: string; updated_at: string } {
  const time = now();
  return { created_at: time, updated_at: time };
}
