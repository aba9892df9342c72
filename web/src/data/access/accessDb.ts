/**
 * Who may come in is kept in a small database of its own beside the gym's: going back to a backup must
 * not bring back a phone that was lost since, a gym's file that is taken in must not say who comes in,
 * and when the gym's database is damaged its owner must still be let in to mend it.
 */
import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import Database from 'better-sqlite3';
import { Kysely, sql, SqliteDialect } from 'kysely';
import { dataFolder } from '../database/dataFolder';
import type { Role } from './roles';

interface PersonTable {
  id: string;
  name: string;
  role: Role;
  /** Argon2id, as its own text. */
  passcode: string;
  created_at: string;
  /** Nobody comes in by it any more. */
  ended_at: string | null;
}

interface SignInTable {
  id: string;
  person_id: string;
  /** SHA-256 of what the browser keeps, hexadecimal. */
  token: string;
  kind: 'passcode' | 'phone';
  /** What it says of itself. */
  device: string;
  created_at: string;
  used_at: string;
  ends_at: string;
  ended_at: string | null;
}

interface PairingTable {
  /** SHA-256 of the code, hexadecimal. */
  code: string;
  person_id: string;
  ends_at: string;
  used_at: string | null;
}

interface WrongCodeTable {
  /** Whose codes, and by which way. */
  key: string;
  count: number;
  /** Nothing is tried before. */
  waits_until: string;
}

/** See `lessons.ts`. */
interface LessonTable {
  id: string;
  /** SHA-256 of what stands in the address, hexadecimal. */
  token: string;
  student_id: string;
  clip_id: string | null;
  made_by: string;
  made_on: string;
  /** The last day on which it works. */
  ends_on: string;
  opened_at: string | null;
}

interface SaidTable {
  key: 'coach at the machine';
  value: string;
}

export interface AccessSchema {
  said: SaidTable;
  person: PersonTable;
  sign_in: SignInTable;
  pairing: PairingTable;
  wrong_code: WrongCodeTable;
  lesson: LessonTable;
}

export type AccessDb = Kysely<AccessSchema>;

export const accessPath = (folder: string) => join(folder, 'access.db');

/** Changed by adding to it: what is there is left as it is. */
const TABLES = [
  `create table if not exists person (id text primary key, name text not null, role text not null,
    passcode text not null, created_at text not null, ended_at text) strict`,
  `create unique index if not exists person_name on person (name collate nocase)
    where ended_at is null`,
  `create table if not exists sign_in (id text primary key,
    person_id text not null references person (id), token text not null unique, kind text not null,
    device text not null, created_at text not null, used_at text not null, ends_at text not null,
    ended_at text) strict`,
  `create table if not exists pairing (code text primary key,
    person_id text not null references person (id), ends_at text not null, used_at text) strict`,
  `create table if not exists said (key text primary key, value text not null) strict`,
  `create table if not exists lesson (id text primary key, token text not null unique,
    student_id text not null, clip_id text, made_by text not null, made_on text not null,
    ends_on text not null, opened_at text) strict`,
  `create table if not exists wrong_code (key text primary key, count integer not null,
    waits_until text not null) strict`,
];

/**
 * @param folder the data folder; made when missing
 * @throws what SQLite says when it cannot be opened
 */
export async function openAccess(folder: string): Promise<AccessDb> {
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  const database = new Database(accessPath(folder), { timeout: 5000 });
  database.pragma('journal_mode = WAL');
  database.pragma('foreign_keys = ON');
  database.pragma('secure_delete = ON');
  const db: AccessDb = new Kysely({ dialect: new SqliteDialect({ database }) });
  for (const table of TABLES) await sql.raw(table).execute(db);
  return db;
}

const shared = globalThis as {
  sinewAccess?: { readonly folder: string; readonly db: Promise<AccessDb> };
};

/** The one connection of this server. */
export function accessDb(): Promise<AccessDb> {
  const folder = dataFolder();
  if (shared.sinewAccess?.folder !== folder) {
    const db = openAccess(folder);
    shared.sinewAccess = { folder, db };
    db.catch(() => (shared.sinewAccess = undefined));
  }
  return shared.sinewAccess!.db;
}

export async function closeAccess(): Promise<void> {
  const open = shared.sinewAccess;
  shared.sinewAccess = undefined;
  await (await open?.db.catch(() => undefined))?.destroy();
}
