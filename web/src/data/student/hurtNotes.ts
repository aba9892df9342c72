/** What hurt during work, and the coach's word that it is over. */
import { group } from 'd3-array';
import { z } from 'zod';
import { daySchema } from '@sinew/core/foundation/calendar/day';
import { HURT_PLACES, type HurtNote } from '@sinew/core/train/work/condition';
import { now, stamps, type Db } from '../database/db';

const id = z.string().min(1).max(60);

export const hurtInput = z.object({
  /** Made by who asks, so that a note sent twice is kept once. */
  id,
  studentId: id,
  day: daySchema,
  place: z.enum(HURT_PLACES),
  words: z.string().trim().max(300),
});
export type HurtInput = z.infer<typeof hurtInput>;

export interface OpenHurt extends HurtNote {
  readonly id: string;
  readonly studentId: string;
  readonly words: string;
}

/** Notes that nobody has ended, newest first; one student's or everybody's. */
export async function openHurts(db: Db, studentId?: string): Promise<OpenHurt[]> {
  const rows = await db
    .selectFrom('hurt_note')
    .selectAll()
    .where('ended_at', 'is', null)
    .$if(studentId !== undefined, (query) => query.where('student_id', '=', studentId!))
    .orderBy('created_at', 'desc')
    .execute();
  return rows.map(({ id, student_id, day, place, words }) => ({
    id,
    studentId: student_id,
    day,
    place,
    words,
  }));
}

/** By student. */
export async function hurtsByStudent(db: Db): Promise<ReadonlyMap<string, OpenHurt[]>> {
  return group(await openHurts(db), ({ studentId }) => studentId);
}

export async function noteHurt(db: Db, input: HurtInput): Promise<void> {
  const { id, studentId, day, place, words } = input;
  await db
    .insertInto('hurt_note')
    .values({
      id,
      student_id: studentId,
      day,
      place,
      words,
      ended_at: null,
      ended_because: null,
      ...stamps(),
    })
    .onConflict((on) => on.column('id').doNothing())
    .execute();
}

/** @returns whose it was; null when it is not there, or over already */
export async function endHurt(db: Db, id: string, because: string): Promise<string | null> {
  const row = await db
    .updateTable('hurt_note')
    .set({ ended_at: now(), ended_because: because, updated_at: now() })
    .where('id', '=', id)
    .where('ended_at', 'is', null)
    .returning('student_id')
    .executeTakeFirst();
  return row?.student_id ?? null;
}
