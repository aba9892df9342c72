/**
 * Consent that a film leaves this machine, in a card or a review that is sent home. It is asked for apart
 * from the consent to be filmed: what has been sent cannot be called back.
 */
import { z } from 'zod';
import { now, stamps, type Db } from '../database/db';
import { today } from '../database/today';

interface Whose {
  readonly id: string;
  /** Under 18. */
  readonly isMinor: boolean;
}

export interface Sharing {
  readonly id: string;
  readonly givenBy: 'student' | 'guardian';
  readonly name: string;
  readonly givenOn: string;
}

export const sharingInput = z.object({
  /** Made by the page, so that what is sent twice is kept once. */
  id: z.string().regex(/^[\w-]{8,40}$/),
  name: z.string().trim().min(1, 'Who gave it? Write the name.').max(80),
});

/**
 * The consent in force: none without the consent to be filmed, and of a minor only a guardian's.
 */
export async function sharingOf(
  db: Db,
  { id, isMinor, consent }: Whose & { readonly consent: object | null },
): Promise<Sharing | null> {
  if (!consent) return null;
  const row = await db
    .selectFrom('sharing')
    .selectAll()
    .where('student_id', '=', id)
    .where('withdrawn_at', 'is', null)
    .$if(isMinor, (query) => query.where('given_by', '=', 'guardian'))
    .orderBy('created_at', 'desc')
    .executeTakeFirst();
  return row ? { id: row.id, givenBy: row.given_by, name: row.name, givenOn: row.given_on } : null;
}

export async function allowSharing(
  db: Db,
  student: Whose,
  { id, name }: z.infer<typeof sharingInput>,
): Promise<void> {
  await db
    .insertInto('sharing')
    .values({
      id,
      student_id: student.id,
      given_by: student.isMinor ? 'guardian' : 'student',
      name,
      given_on: today(),
      withdrawn_at: null,
      ...stamps(),
    })
    .onConflict((on) => on.column('id').doNothing())
    .execute();
}

/** Nothing more is sent from now on. */
export async function endSharing(db: Db, studentId: string): Promise<void> {
  await db
    .updateTable('sharing')
    .set({ withdrawn_at: now(), updated_at: now() })
    .where('student_id', '=', studentId)
    .where('withdrawn_at', 'is', null)
    .execute();
}
