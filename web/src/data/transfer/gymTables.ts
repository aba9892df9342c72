/** The tables of a gym as rows of JSON, in an order in which each finds what it refers to. */
import { sql, type RawBuilder } from 'kysely';
import { z } from 'zod';
import type { Db } from '../database/db';
import type { Schema } from '../database/schema';

/** Every table; the linter of types says when one is forgotten. */
const ORDER: Record<TableName, number> = {
  gym: 0,
  library_change: 1,
  camera_setup: 1,
  student: 1,
  consent: 2,
  sharing: 2,
  clip: 2,
  track: 3,
  survey: 3,
  band_turn: 3,
  tracking: 3,
  detection: 3,
  series: 3,
  view_pair: 3,
  strike: 3,
  mark: 4,
  measured: 4,
  repeat_marking: 4,
  finding: 4,
  cue: 5,
  prescription: 6,
  drill_log: 7,
  gate_step: 7,
  deed: 7,
  plan_item: 7,
  note: 7,
  field_test: 7,
  hurt_note: 7,
};

/** Medians of what is measured, and what films are found by, can be worked out again, and stay. */
export type TableName = Exclude<keyof Schema, 'measured_set' | 'film_text'>;

export const TABLES = (Object.keys(ORDER) as TableName[]).sort((a, b) => ORDER[a] - ORDER[b]);

/** Its name in a gym's file. */
export const tableFile = (table: TableName) => `tables/${table}.jsonl`;

export type Cell = string | number | null | Buffer;
export type Row = Record<string, Cell>;

/** Bytes travel as base64. */
const bytesSchema = z
  .object({ base64: z.base64() })
  .transform(({ base64 }): Buffer => Buffer.from(base64, 'base64'));

const CELLS: Readonly<Record<string, z.ZodType<Cell>>> = {
  TEXT: z.string(),
  INTEGER: z.number().int(),
  REAL: z.number(),
  BLOB: bytesSchema,
};

/** What a row of a table may hold, read from the database itself; null when it has no such table. */
export async function rowSchema(db: Db, table: TableName): Promise<z.ZodType<Row> | null> {
  const { rows } = await sql<{ name: string; type: string; notnull: 0 | 1 }>`
    select name, type, "notnull" from pragma_table_info(${table})`.execute(db);
  if (rows.length === 0) return null;
  return z.strictObject(
    Object.fromEntries(
      rows.map(({ name, type, notnull }) => {
        const cell = CELLS[type.toUpperCase()]!;
        return [name, notnull === 1 ? cell : cell.nullable()];
      }),
    ),
  );
}

export async function rowsOf(db: Db, table: TableName): Promise<Row[]> {
  const { rows } = await sql<Row>`select * from ${sql.table(table)} order by rowid`.execute(db);
  return rows;
}

/**
 * The rows that travel, one after the other. What was measured can be measured again, and stays, but
 * for films that are gone.
 */
export function streamed(
  db: Db,
  table: TableName,
  among: RawBuilder<boolean> = sql`true`,
): AsyncIterable<Row> {
  if (table !== 'measured') {
    return db
      .selectFrom(table)
      .selectAll()
      .where(among)
      .stream() as AsyncIterable<unknown> as AsyncIterable<Row>;
  }
  const kept = db
    .selectFrom('measured')
    .innerJoin('strike', 'strike.id', 'measured.strike_id')
    .innerJoin('clip', 'clip.id', 'strike.clip_id')
    .selectAll('measured')
    .where('clip.purged_at', 'is not', null)
    .where(among)
    .stream();
  return kept as AsyncIterable<unknown> as AsyncIterable<Row>;
}

export function toLine(row: Row): string {
  return JSON.stringify(
    Object.fromEntries(
      Object.entries(row).map(([name, cell]) => [
        name,
        Buffer.isBuffer(cell) ? { base64: cell.toString('base64') } : cell,
      ]),
    ),
  );
}

export async function insertRow(db: Db, table: TableName, row: Row): Promise<void> {
  const names = Object.keys(row);
  await sql`insert into ${sql.table(table)} (${sql.join(names.map((name) => sql.ref(name)))})
    values (${sql.join(names.map((name) => row[name]))})`.execute(db);
}
