/** Sets as they were done: how many, how hard, how clean. */
import { z } from 'zod';
import { rollup } from 'd3-array';
import { daySchema, type Day } from '@sinew/core/foundation/calendar/day';
import { TECHNIQUES } from '@sinew/core/foundation/technique/techniques';
import { COUNTED_BY, INTENTS, type Intent } from '@sinew/core/foundation/drill/intent';
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
  countedBy: z.enum(COUNTED_BY),
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

interface WorkAtHome {
  readonly id: string;
  readonly technique: string | null;
  readonly name: string;
  readonly intent: Intent;
}

/** A day of work that a student ticks, or takes back, on their own phone. */
export async function tickedAtHome(
  db: Db,
  studentId: string,
  { id: workId, technique, name, intent }: WorkAtHome,
  day: Day,
  isDone: boolean,
): Promise<void> {
  const id = `home-${workId}-${day}`;
  if (!isDone) {
    await db.deleteFrom('drill_log').where('id', '=', id).execute();
    return;
  }
  await db
    .insertInto('drill_log')
    .values({
      id,
      student_id: studentId,
      prescription_id: workId,
      technique,
      name,
      day,
      at: now(),
      intent,
      strikes: 0,
      seconds: 0,
      clean: null,
      counted_by: 'home',
      deleted_at: null,
      ...stamps(),
    })
    .onConflict((conflict) => conflict.column('id').doNothing())
    .execute();
}

/** The days that a student has ticked at home, by the work they belong to. */
export async function daysAtHome(db: Db, studentId: string): Promise<ReadonlyMap<string, Day[]>> {
  const rows = await db
    .selectFrom('drill_log')
    .select(['prescription_id', 'day'])
    .where('student_id', '=', studentId)
    .where('counted_by', '=', 'home')
    .where('deleted_at', 'is', null)
    .execute();
  return rollup(
    rows,
    (own) => own.map(({ day }) => day),
    ({ prescription_id }) => prescription_id ?? '',
  );
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
