/** Pairing a phone: a code that works once and for some minutes, shown by who is signed in. */
import { Problem } from '@sinew/core/foundation/problem/problem';
import { now } from '../database/db';
import type { AccessDb } from './accessDb';
import { hashOf, newCode, typedCode } from './secrets';
import { begin, type Begun } from './signIns';
import { countTries, wasRight } from './wrongCodes';

/** Milliseconds that a code works. */
export const CODE_LASTS = 5 * 60_000;

/** Wrong codes of all phones together: of 2⁵⁰ codes one is right, and for minutes only. */
const FREE_FOR_ALL = 200;

/** @param personId in whose name the phone will film. @returns the code, to be shown and not kept */
export async function newPairing(db: AccessDb, personId: string): Promise<string> {
  const code = newCode();
  await db.deleteFrom('pairing').where('ends_at', '<', now()).execute();
  await db
    .insertInto('pairing')
    .values({
      code: hashOf(code),
      person_id: personId,
      ends_at: new Date(Date.now() + CODE_LASTS).toISOString(),
      used_at: null,
    })
    .execute();
  return code;
}

/** Whether a code has been used: the page that shows it says so. */
export async function isUsed(db: AccessDb, code: string): Promise<boolean> {
  const row = await db
    .selectFrom('pairing')
    .select('used_at')
    .where('code', '=', hashOf(code))
    .executeTakeFirst();
  return typeof row?.used_at === 'string';
}

/**
 * @throws Problem `foreign` when the code is wrong, used or too old, `busy` while nobody may try
 */
export async function pair(
  db: AccessDb,
  typed: string,
  from: string | null,
  device: string,
): Promise<Begun> {
  const tries = [{ key: `${from ?? 'machine'} pairing` }, { key: 'pairing', free: FREE_FOR_ALL }];
  await countTries(db, tries);
  const { numUpdatedRows } = await db
    .updateTable('pairing')
    .set({ used_at: now() })
    .where('code', '=', hashOf(typedCode(typed)))
    .where('used_at', 'is', null)
    .where('ends_at', '>', now())
    .executeTakeFirst();
  const row =
    numUpdatedRows > 0n
      ? await db
          .selectFrom('pairing')
          .innerJoin('person', 'person.id', 'pairing.person_id')
          .select('person_id')
          .where('code', '=', hashOf(typedCode(typed)))
          .where('person.ended_at', 'is', null)
          .executeTakeFirst()
      : undefined;
  if (!row) {
    throw new Problem('foreign', {
      happened: 'This code does not work, or does not work any more.',
      todo: 'A coach shows a new one under Gym, Pair a phone.',
    });
  }
  await wasRight(db, tries);
  return begin(db, row.person_id, 'phone', device);
}
