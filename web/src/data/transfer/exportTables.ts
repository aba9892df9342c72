/** The tables of a gym written as files, a line of JSON a row. Runs on a thread. */
import { createHash } from 'node:crypto';
import { createWriteStream } from 'node:fs';
import { join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import type { Db } from '../database/db';
import { theGym } from '../gym/gym';
import { inScope, type Scope } from './exportScope';
import { streamed, TABLES, toLine, type Row, type TableName } from './gymTables';

interface WrittenTable {
  readonly table: TableName;
  readonly rows: number;
  readonly bytes: number;
  readonly sha256: string;
}

export interface WrittenTables {
  readonly tables: readonly WrittenTable[];
  /** The hashes of the films that clips name. */
  readonly films: readonly string[];
  /** What the gym is called. */
  readonly gym: string;
}

/** @param folder in which a file a table is made, of the table's name */
export async function writeTables(db: Db, folder: string, scope: Scope): Promise<WrittenTables> {
  // One view of the database: nothing can change between one table and the next.
  return db
    .transaction()
    .setAccessMode('read only')
    .execute(async (trx) => {
      const tables: WrittenTable[] = [];
      const cues = new Set<unknown>();
      // Work outlives a cue that does not come along.
      const whole = (table: TableName) => (row: Row) => {
        if (table === 'cue') cues.add(row.id);
        // How a gym judges is not one student's.
        if (table === 'gym' && scope.kind === 'student') {
          return { ...row, library: null, settings: null };
        }
        return table === 'prescription' && !cues.has(row.cue_id) ? { ...row, cue_id: null } : row;
      };
      for (const table of TABLES) {
        const rows = streamed(trx, table, inScope(table, scope));
        tables.push({ table, ...(await written(rows, whole(table), join(folder, table))) });
      }
      const films = await trx
        .selectFrom('clip')
        .select('sha256')
        .distinct()
        .where('purged_at', 'is', null)
        .where(inScope('clip', scope))
        .execute();
      const { name: gym } = await theGym(trx);
      return { tables, films: films.map(({ sha256 }) => sha256), gym };
    });
}

/** Write rows as lines of JSON. */
async function written(
  rows: AsyncIterable<Row>,
  whole: (row: Row) => Row,
  place: string,
): Promise<{ rows: number; bytes: number; sha256: string }> {
  const hash = createHash('sha256');
  let [count, bytes] = [0, 0];
  async function* lines() {
    for await (const row of rows) {
      const line = Buffer.from(`${toLine(whole(row))}\n`);
      hash.update(line);
      count += 1;
      bytes += line.length;
      yield line;
    }
  }
  await pipeline(lines, createWriteStream(place, { mode: 0o600 }));
  return { rows: count, bytes, sha256: hash.digest('hex') };
}
