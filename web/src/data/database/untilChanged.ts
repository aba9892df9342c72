/** What was worked out from the database, kept until anything in it, or the day, changes. */
import { sql } from 'kysely';
import type { Db } from './db';
import { today } from './today';

/** A page of each student of a large gym, some 60 KB each; then the oldest goes. */
const MOST = 300;

interface Kept {
  readonly as: string;
  readonly value: Promise<unknown>;
}

const kept = new WeakMap<Db, Map<string, Kept>>();

/**
 * @param name of what is asked; a question of its own for each
 * @param work is done again where something was written since, by whichever connection
 */
export async function untilChanged<Value>(
  db: Db,
  name: string,
  work: () => Promise<Value>,
): Promise<Value> {
  const as = `${await versionOf(db)} ${today()}`;
  const all = kept.get(db) ?? new Map<string, Kept>();
  kept.set(db, all);
  const known = all.get(name);
  if (known?.as === as) return known.value as Promise<Value>;
  const value = work();
  all.delete(name);
  all.set(name, { as, value });
  if (all.size > MOST) all.delete(all.keys().next().value!);
  // What has failed is tried again by whoever asks next.
  value.catch(() => {
    if (all.get(name)?.value === value) all.delete(name);
  });
  return value;
}

/** Another number whenever another connection has written (sqlite.org, pragma data_version). */
async function versionOf(db: Db): Promise<number> {
  const { rows } = await sql<{ data_version: number }>`pragma data_version`.execute(db);
  return rows[0]!.data_version;
}
