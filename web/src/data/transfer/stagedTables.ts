/**
 * The rows of a gym's file in a database of their own, on the disk and not in memory, before any of them
 * comes to the gym: as they were when the file was made, then brought up to date, then looked at one by one.
 */
import { join } from 'node:path';
import { Writable } from 'node:stream';
import { StringDecoder } from 'node:string_decoder';
import Database from 'better-sqlite3';
import { Kysely, Migrator, SqliteDialect } from 'kysely';
import { traceOf } from '../log/log';
import type { Db } from '../database/db';
import { MIGRATIONS } from '../database/migrations';
import { parsedAs } from './flatJson';
import { MANIFEST, manifestSchema, SCHEMA, type Manifest } from './gymManifest';
import { rowSchema, tableFile, TABLES, type Row, type TableName } from './gymTables';
import { checkParts, collected, hashed, wrong, type Zip } from './gymZip';
import { wrongWithRow } from './rowMeaning';

const LARGEST_MANIFEST = 16 * 1024 * 1024;
/** A row with the landmarks of ten minutes in it has fewer letters. */
const LONGEST_LINE = 64 * 1024 * 1024;

const FILE = 'tables.db';

/** The rows of a table one after the other, in the order of the file; nothing else is asked meanwhile. */
export type RowsOf = (table: TableName) => Iterable<Row>;

const rowsIn =
  (database: Database.Database): RowsOf =>
  (table) =>
    database.prepare(`select * from "${table}" order by rowid`).iterate() as Iterable<Row>;

/** What `stage` has put into a folder. */
export function openStaged(folder: string): { readonly rows: RowsOf; close(): void } {
  const database = new Database(join(folder, FILE), { readonly: true });
  return { rows: rowsIn(database), close: () => database.close() };
}

/**
 * @param folder where the database waits; its keeper removes it
 * @throws GymFileError when a part, a row or what refers to what is not as it can be
 */
export async function stage(zip: Zip, folder: string): Promise<Manifest> {
  const text = await collected(zip, MANIFEST, LARGEST_MANIFEST);
  const manifest = parsedAs(manifestSchema, text.toString(), { where: MANIFEST, deepest: 3 });
  if (!(manifest.schema in MIGRATIONS)) {
    throw wrong(`This file was made by a newer Sinew (${manifest.schema}, here ${SCHEMA}).`);
  }
  await checkParts(zip, manifest, MANIFEST, folder);
  const database = new Database(join(folder, FILE));
  // It lives as long as this import.
  database.pragma('journal_mode = off');
  database.pragma('synchronous = off');
  database.pragma('foreign_keys = on');
  const tables: Db = new Kysely({ dialect: new SqliteDialect({ database }) });
  try {
    await migrated(tables, manifest.schema);
    for (const table of TABLES) await load(database, tables, zip, manifest, table);
    await migrated(tables, SCHEMA);
    for (const table of TABLES) lookThrough(rowsIn(database), manifest, table);
    return manifest;
  } finally {
    await tables.destroy();
  }
}

async function migrated(tables: Db, schema: string): Promise<void> {
  const provider = { getMigrations: async () => ({ ...MIGRATIONS }) };
  const { error } = await new Migrator({ db: tables, provider }).migrateTo(schema);
  if (!error) return;
  if (isOfRows(error)) throw wrong('Its rows do not fit together.');
  throw error;
}

/** SQLite says that rows break a rule of the tables; anything else is a fault of ours or of the disk. */
export const isOfRows = (error: unknown) =>
  /^SQLITE_(CONSTRAINT|MISMATCH|TOOBIG)/.test(String((traceOf(error) as { code?: string }).code));

async function load(
  database: Database.Database,
  tables: Db,
  zip: Zip,
  manifest: Manifest,
  table: TableName,
): Promise<void> {
  const schema = await rowSchema(tables, table);
  // A table that came later.
  if (schema === null) return;
  const name = tableFile(table);
  if (!manifest.files[name]) throw wrong(`The file lacks ${name}.`);
  const insert = inserting(database, table);
  let rows = 0;
  let problem: unknown = null;
  const take = (line: string) => {
    if (line === '' || problem !== null) return;
    rows += 1;
    const where = `${name}, line ${rows}`;
    try {
      const row = parsedAs(schema, line, { where, deepest: 2 });
      insert(row);
    } catch (error) {
      problem = isOfRows(error) ? wrong(`${where} does not fit the rows before it.`) : error;
    }
  };
  database.exec('begin');
  await hashed(zip, name, manifest.files[name]!, () => linesTo(take, name));
  database.exec('commit');
  // A row that is none is told only when the file is what it says it is.
  if (problem !== null) throw problem;
  if (rows !== manifest.counts[table]) throw wrong(`${name} has not as many rows as it says.`);
}

function inserting(database: Database.Database, table: TableName): (row: Row) => void {
  let statement: Database.Statement | null = null;
  let names: readonly string[] = [];
  return (row) => {
    if (statement === null) {
      names = Object.keys(row);
      const columns = names.map((name) => `"${name}"`).join(', ');
      const places = names.map(() => '?').join(', ');
      statement = database.prepare(`insert into "${table}" (${columns}) values (${places})`);
    }
    statement.run(names.map((name) => row[name]));
  };
}

function lookThrough(rows: RowsOf, manifest: Manifest, table: TableName): void {
  let at = 0;
  for (const row of rows(table)) {
    at += 1;
    const why = wrongWithRow(table, row) ?? wrongWithFilm(table, row, manifest);
    if (why) throw wrong(`${tableFile(table)}, row ${at}: ${why}`);
  }
}

/**
 * A clip has its film in the file, or the file says that it was missing and there are frames to show, or
 * the film is gone for good.
 */
function wrongWithFilm(table: TableName, row: Row, { files, missing }: Manifest): string | null {
  if (table !== 'clip' || row.purged_at !== null) return null;
  if ((row.frame_times as Buffer).length === 0) return 'it has no frames.';
  const film = String(row.sha256);
  return files[`clips/${film}.bin`] || missing.includes(film)
    ? null
    : 'its film is not in the file.';
}

/** Cuts what is written to it into lines; the last one has an end too. */
function linesTo(take: (line: string) => void, name: string): Writable {
  const decoder = new StringDecoder('utf8');
  let rest = '';
  return new Writable({
    write(chunk: Buffer, _, done) {
      // Only what is new is looked through: a line of megabytes comes in hundreds of chunks.
      const [end, ...begun] = decoder.write(chunk).split('\n');
      rest += end!;
      for (const line of begun) {
        take(rest);
        rest = line;
      }
      done(
        rest.length > LONGEST_LINE ? wrong(`${name} has a longer line than any row has.`) : null,
      );
    },
    final(done) {
      take(rest + decoder.end());
      done();
    },
  });
}
