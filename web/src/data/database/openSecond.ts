/** Further connections to the gym's database, for threads: it is open, and up to date, elsewhere. */
import Database from 'better-sqlite3';
import { Kysely } from 'kysely';
import { databasePath } from './dataFolder';
import type { Db } from './db';
import { OneWriterDialect } from './oneWriter';
import type { Schema } from './schema';

const among = (reader: Database.Database, writer: Database.Database): Db =>
  new Kysely<Schema>({
    dialect: new OneWriterDialect({ reader, writer, mayWrite: () => undefined }),
  });

/** One that only reads. */
export function openToRead(folder: string): Db {
  const reader = new Database(databasePath(folder), { readonly: true, timeout: 0 });
  return among(reader, reader);
}

/** One that writes; whoever else wants to write waits. */
export function openSecond(folder: string): Db {
  const writer = new Database(databasePath(folder), { fileMustExist: true, timeout: 0 });
  writer.pragma('foreign_keys = ON');
  writer.pragma('synchronous = FULL');
  writer.pragma('secure_delete = ON');
  return among(writer, writer);
}
