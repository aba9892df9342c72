/**
 * Wrong codes slow down and lock. Counted by name and by where they came from, so that who tries names
 * on the network does not lock out anybody else; and by name alone with more patience, so that who has
 * many addresses gains nothing by it.
 */
import { sql } from 'kysely';
import { Problem } from '@sinew/core/foundation/problem/problem';
import type { AccessDb } from './accessDb';

/** Milliseconds after the first one too many; twice as long after each further one. */
const FIRST_WAIT = 15_000;
const LONGEST_WAIT = 3_600_000;

export interface Try {
  readonly key: string;
  /** So many may be wrong before anybody has to wait; four when left out. */
  readonly free?: number;
}

/** Milliseconds until the next try, after so many wrong codes in a row. */
export const waitAfter = (count: number, free = 4): number =>
  count <= free ? 0 : Math.min(LONGEST_WAIT, FIRST_WAIT * 2 ** (count - free - 1));

/**
 * A try is counted before it is made, so that many at once are not one; `wasRight` takes it back.
 *
 * @throws Problem `busy` while one of them has to wait; none is counted then
 */
export async function countTries(
  db: AccessDb,
  tries: readonly Try[],
  at = new Date(),
): Promise<void> {
  await db.transaction().execute(async (trx) => {
    const rows = await trx
      .selectFrom('wrong_code')
      .selectAll()
      .where(
        'key',
        'in',
        tries.map(({ key }) => key),
      )
      .execute();
    // A clock that was set back must not lock for longer than a lock lasts.
    const waits = rows
      .map((row) => Date.parse(row.waits_until) - at.getTime())
      .filter((left) => left > 0 && left <= LONGEST_WAIT);
    if (waits.length > 0) throw tooMany(Math.max(...waits));
    for (const { key, free } of tries) {
      const count = (rows.find((row) => row.key === key)?.count ?? 0) + 1;
      const waits_until = new Date(at.getTime() + waitAfter(count, free)).toISOString();
      await trx
        .insertInto('wrong_code')
        .values({ key, count, waits_until })
        .onConflict((on) => on.column('key').doUpdateSet({ count, waits_until }))
        .execute();
    }
    await forgetOld(trx, at);
  });
}

export async function wasRight(db: AccessDb, tries: readonly Try[]): Promise<void> {
  await db
    .deleteFrom('wrong_code')
    .where(
      'key',
      'in',
      tries.map(({ key }) => key),
    )
    .execute();
}

/** Nobody has to wait any longer: the owner stands at the machine. */
export async function endWaits(db: AccessDb): Promise<void> {
  await db.deleteFrom('wrong_code').execute();
}

/** Names that nobody has do not fill the disk. */
async function forgetOld(db: AccessDb, at: Date): Promise<void> {
  const old = new Date(at.getTime() - 24 * LONGEST_WAIT).toISOString();
  await db.deleteFrom('wrong_code').where('waits_until', '<', old).execute();
  await sql`delete from wrong_code where key not in
    (select key from wrong_code order by waits_until desc limit 2000)`.execute(db);
}

function tooMany(left: number): Problem {
  const seconds = Math.ceil(left / 1000);
  const long = seconds < 90 ? `${seconds} seconds` : `${Math.ceil(seconds / 60)} minutes`;
  return new Problem('busy', {
    happened: `Too many wrong codes: the next try is in ${long}.`,
    safe: 'Nobody came in by them.',
    todo: 'Wait, or ask the owner for a new passcode.',
  });
}
