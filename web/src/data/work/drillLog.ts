/** Sets as they were done: how many, how hard, how clean. */
import { z } from 'zod';
import { daySchema } from '@sinew/core/foundation/calendar/day';
import { TECHNIQUES } from '@sinew/core/foundation/technique/techniques';
import { INTENTS } from '@sinew/core/foundation/drill/intent';
import { now, stamps, type Db } from '../database/db';
import { studentById } from '../student/students';

const id = z.string().min(1).max(60);

export const logInput = z.object({
  id,
  studentId: id,
  prescriptionId: id.nullable(),
  technique: z.enum(TECHNIQUES.map((one) => one.id)).nullable(),
  name: z.string().trim().min(1).max(120),
  day: daySchema,
  intent: z.enum(INTENTS),
  strikes: z.number().int().min(0).max(10_000),
  seconds: z.number().int().min(0).max(86_400),
  clean: z.number().int().min(0).nullable(),
  countedBy: z.enum(['tap', 'clap', 'timer', 'typed']),
});
export type LogInput = z.infer<typeof logInput>;

export interface Log extends Omit<LogInput, 'studentId'> {
  readonly at: string;
}

/** All logs of a student, newest first. */
export async function logsOf(db: Db, studentId: string): Promise<Log[]> {
  const rows = await db
    .selectFrom('drill_log')
    .selectAll()
    .where('student_id', '=', studentId)
    .where('deleted_at', 'is', null)
    .orderBy('at', 'desc')
    .execute();
  return rows.map((row) => ({
    id: row.id,
    prescriptionId: row.prescription_id,
    technique: row.technique,
    name: row.name,
    day: row.day,
    at: row.at,
    intent: row.intent,
    strikes: row.strikes,
    seconds: row.seconds,
    clean: row.clean,
    countedBy: row.counted_by,
  }));
}

/** @returns what is wrong, or null when it is kept; the same log sent twice is kept once */
export async function logWork(db: Db, input: LogInput): Promise<string | null> {
  const { studentId, prescriptionId, clean, strikes } = input;
  if (clean !== null && clean > strikes) return 'No more strikes can be clean than were thrown.';
  if (strikes === 0 && input.seconds === 0) return 'Nothing was counted yet.';
  if (!(await studentById(db, studentId))) return 'This student is not in the list any more.';
  await db
    .insertInto('drill_log')
    .values({
      id: input.id,
      student_id: studentId,
      prescription_id: prescriptionId,
      technique: input.technique,
      name: input.name,
      day: input.day,
      at: now(),
      intent: input.intent,
      strikes,
      seconds: input.seconds,
      clean,
      counted_by: input.countedBy,
      deleted_at: null,
      ...stamps(),
    })
    .onConflict((conflict) => conflict.column('id').doNothing())
    .execute();
  return null;
}
