/** A whole copy of a database, checked. Runs on a thread: a large one takes seconds. */
import { open } from 'node:fs/promises';
import Database from 'better-sqlite3';
import { damageAmong } from '../database/databaseProblem';
import { MIGRATIONS } from '../database/migrations';

/** @returns what is wrong with the copy, or null when it is sound and on the disk */
export async function copyDatabase(from: string, to: string): Promise<string | null> {
  const database = new Database(from, { readonly: true, fileMustExist: true });
  try {
    database.prepare('vacuum into ?').run(to);
  } finally {
    database.close();
  }
  const problem = problemOf(to);
  if (!problem) await flushed(to);
  return problem;
}

/** @returns what is wrong with a database file, or null */
export function problemOf(path: string): string | null {
  let database: Database.Database | null = null;
  try {
    database = new Database(path, { readonly: true, fileMustExist: true });
    const found = database.pragma('integrity_check(20)') as { integrity_check: string }[];
    const damage = damageAmong(found.map(({ integrity_check }) => integrity_check));
    if (damage) return damage;
    const rows = database.prepare('select name from kysely_migration').all() as { name: string }[];
    const unknown = rows.find(({ name }) => !(name in MIGRATIONS));
    return unknown ? `it is of a newer Sinew (${unknown.name}).` : null;
  } catch (error) {
    return error instanceof Error ? error.message : String(error);
  } finally {
    database?.close();
  }
}

/** What was written is on the disk, not only on its way. */
export async function flushed(path: string): Promise<void> {
  const file = await open(path, 'r');
  await file.sync().finally(() => file.close());
}
