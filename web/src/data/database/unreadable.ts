/** What is kept and cannot be read, cell by cell, so that the coach is told and can set it anew. */
import { sql } from 'kysely';
import { COLUMNS } from './columns';
import type { Db } from './db';
import type { JsonColumn } from './jsonColumn';
import type { Schema } from './schema';

export interface Unreadable {
  /** As in "the scale of a clip". */
  readonly what: string;
  /** Whose it is, where a page shows it. */
  readonly of: { readonly name: string; readonly href: string } | null;
}

type Table = keyof typeof COLUMNS & keyof Schema;

/** Where the row of a table is seen: a name, and the page. */
const SEEN: Partial<Record<Table, { name: string; href: string; join: string }>> = {
  gym: { name: 'gym.name', href: "'/gym'", join: '' },
  student: { name: 'student.name', href: "'/students/' || student.id", join: '' },
  clip: { name: 'clip.file_name', href: "'/bench/' || clip.id", join: '' },
  strike: {
    name: 'clip.file_name',
    href: "'/bench/' || clip.id || '?strike=' || strike.id",
    join: 'join clip on clip.id = strike.clip_id',
  },
  field_test: {
    name: 'student.name',
    href: "'/students/' || student.id || '/ledger'",
    join: 'join student on student.id = field_test.student_id',
  },
};

/** Of tables with few rows or few such cells; what was measured is measured again. */
const LOOKED_AT: readonly Table[] = [
  'gym',
  'student',
  'camera_setup',
  'clip',
  'strike',
  'field_test',
];

export async function unreadableCells(db: Db): Promise<Unreadable[]> {
  const found: Unreadable[] = [];
  for (const table of LOOKED_AT) {
    for (const [name, column] of Object.entries(COLUMNS[table])) {
      found.push(...(await unreadableIn(db, table, name, column as JsonColumn<unknown>)));
    }
  }
  return found;
}

async function unreadableIn(
  db: Db,
  table: Table,
  name: string,
  column: JsonColumn<unknown>,
): Promise<Unreadable[]> {
  const { name: said, href, join } = SEEN[table] ?? { name: 'null', href: 'null', join: '' };
  const cell = sql.ref(`${table}.${name}`);
  const { rows } = await sql<{ text: string; name: string | null; href: string | null }>`
    select ${cell} as text, ${sql.raw(said)} as name, ${sql.raw(href)} as href
    from ${sql.table(table)} ${sql.raw(join)} where ${cell} is not null`.execute(db);
  return rows
    .filter(({ text }) => !column.isReadable(text))
    .map((row) => ({
      what: column.what,
      of: row.name !== null && row.href !== null ? { name: row.name, href: row.href } : null,
    }));
}
