/**
 * Whether this machine's clock can be believed. What goes on a day – films whose consent ends, what
 * was put away, old backups – must not go because a battery was empty. The last time seen is kept in
 * a file beside the database, so that it outlives both a lost and a restored database.
 */
import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { sql } from 'kysely';
import { z } from 'zod';
import { DAY_MS } from '../database/today';
import type { Db } from '../database/db';
import { writeWhole } from '../database/writeWhole';

/** A longer jump, forwards or back, has to be confirmed. */
const LONGEST_JUMP = 2 * DAY_MS;
/** Clocks are set by seconds and minutes all the time. */
const SLACK = 10 * 60_000;
const FILE = 'last-seen.json';

const seenSchema = z.object({
  at: z.iso.datetime(),
  /** The newest row when the coach confirmed the date; rows up to it may be dated in the future. */
  newestConfirmed: z.iso.datetime().nullable(),
});
type Seen = z.infer<typeof seenSchema>;

export type Clock =
  | { readonly isBelieved: true }
  /** `since`: the last time that was believed, ISO 8601. */
  | { readonly isBelieved: false; readonly since: string };

/** Judge the clock; a believed time becomes the last time seen. */
export async function readClock(db: Db, folder: string, at: Date): Promise<Clock> {
  const [seen, newest] = await Promise.all([lastSeen(folder), newestRow(db)]);
  const since = seen?.at ?? newest ?? at.toISOString();
  const isBehindRows =
    newest !== null &&
    newest > (seen?.newestConfirmed ?? '') &&
    Date.parse(newest) - at.getTime() > SLACK;
  if (isBehindRows || Math.abs(at.getTime() - Date.parse(since)) > LONGEST_JUMP) {
    return { isBelieved: false, since };
  }
  await remember(folder, { at: at.toISOString(), newestConfirmed: seen?.newestConfirmed ?? null });
  return { isBelieved: true };
}

/** The coach says that the date is right. */
export async function confirmClock(db: Db, folder: string, at: Date): Promise<void> {
  await remember(folder, { at: at.toISOString(), newestConfirmed: await newestRow(db) });
}

async function lastSeen(folder: string): Promise<Seen | null> {
  try {
    return seenSchema.parse(JSON.parse(await readFile(join(folder, FILE), 'utf8')));
  } catch {
    // Missing or damaged: the newest row says when Sinew was last used.
    return null;
  }
}

const remember = (folder: string, seen: Seen) =>
  writeWhole(join(folder, FILE), `${JSON.stringify(seen)}\n`);

/** What a coach does leaves its time in one of these. */
const WRITTEN = ['student', 'clip', 'strike', 'cue', 'drill_log', 'note'] as const;

async function newestRow(db: Db): Promise<string | null> {
  const each = WRITTEN.map((table) => sql`select max(updated_at) as time from ${sql.table(table)}`);
  const { rows } = await sql<{ time: string | null }>`
    select max(time) as time from (${sql.join(each, sql` union all `)})`.execute(db);
  return rows[0]?.time ?? null;
}
