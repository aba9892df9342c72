/** The database as repositories see it, and the times every row carries. */
import type { Kysely } from 'kysely';
import type { Schema } from './schema';

export type Db = Kysely<Schema>;

export function now(): string {
  return new Date().toISOString();
}

/** The two columns of a new row. */
export function stamps(): { created_at: string; updated_at: string } {
  const time = now();
  return { created_at: time, updated_at: time };
}
