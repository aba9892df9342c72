/** What is planned on which day, for the class or for one student. */
import ical, { ICalCalendarMethod } from 'ical-generator';
import { nanoid } from 'nanoid';
import { z } from 'zod';
import { daySchema, dayNumber, plusDays, type Day } from '@sinew/core/foundation/calendar/day';
import { blockOf } from '@sinew/core/train/work/plan';
import { sessionSchema } from '@sinew/core/train/work/session';
import { now, stamps, type Db } from '../database/db';
import { dayIn } from '../database/today';
import { gymForWriting, theGym } from '../gym/gym';

export interface PlanItem {
  readonly id: string;
  readonly day: Day;
  readonly kind: 'session' | 'retest' | 'note';
  readonly session: string | null;
  readonly title: string;
  readonly studentId: string | null;
  readonly student: string | null;
  readonly isDone: boolean;
  /** Planned to be filmed again, and filmed on that day. */
  readonly isFilmed: boolean;
  readonly block: string | null;
}

export const itemInput = z.object({
  day: daySchema,
  kind: z.enum(['session', 'retest', 'note']),
  session: sessionSchema.shape.id.nullable(),
  title: z.string().trim().min(1, 'What is planned? Write it.').max(120),
  studentId: z.string().min(1).max(60).nullable(),
});

export const blockInput = z.object({
  name: z.string().trim().min(1, 'What is it for? Give it a name.').max(60),
  from: daySchema,
  target: daySchema,
  weekdays: z.array(z.number().int().min(0).max(6)).max(7),
});

/** @param to the first day not asked for */
export async function planBetween(db: Db, from: Day, to: Day): Promise<PlanItem[]> {
  const rows = await db
    .selectFrom('plan_item')
    .leftJoin('student', 'student.id', 'plan_item.student_id')
    .selectAll('plan_item')
    .select(['student.name as student', 'student.deleted_at'])
    .where('day', '>=', from)
    .where('day', '<', to)
    .where('student.deleted_at', 'is', null)
    .orderBy('day')
    .orderBy('position')
    .execute();
  const filmed = await filmedOn(
    db,
    rows.filter(({ kind }) => kind === 'retest').flatMap(({ student_id }) => student_id ?? []),
    from,
  );
  return rows.map((row) => ({
    id: row.id,
    day: row.day,
    kind: row.kind,
    session: row.session,
    title: row.title,
    studentId: row.student_id,
    student: row.student,
    block: row.block,
    isDone: row.done_at !== null,
    isFilmed: row.kind === 'retest' && filmed.has(`${row.student_id} ${row.day}`),
  }));
}

/** Student and day, of every film since. */
async function filmedOn(db: Db, studentIds: readonly string[], from: Day) {
  if (studentIds.length === 0) return new Set<string>();
  // The day before, as the clock has it in Greenwich: which day it is here is told from the instant.
  const rows = await db
    .selectFrom('clip')
    .select(['student_id', 'created_at'])
    .where('student_id', 'in', studentIds)
    .where('deleted_at', 'is', null)
    .where('created_at', '>=', plusDays(from, -1))
    .execute();
  return new Set(
    rows.map(({ student_id, created_at }) => `${student_id} ${dayIn(new Date(created_at))}`),
  );
}

async function lastPosition(db: Db, day: Day): Promise<number> {
  const row = await db
    .selectFrom('plan_item')
    .select(({ fn }) => fn.max('position').as('last'))
    .where('day', '=', day)
    .executeTakeFirst();
  return row?.last ?? 0;
}

export async function addItem(db: Db, input: z.infer<typeof itemInput>): Promise<string> {
  const id = nanoid();
  const gym = await gymForWriting(db);
  const { day, kind, session, title, studentId } = input;
  await db
    .insertInto('plan_item')
    .values({
      id,
      gym_id: gym.id,
      student_id: studentId,
      day,
      kind,
      session,
      title,
      position: (await lastPosition(db, day)) + 1,
      block: null,
      done_at: null,
      ...stamps(),
    })
    .execute();
  return id;
}

/**
 * Plan a block: all of its days, or none.
 *
 * @throws Problem
 */
export async function planBlock(db: Db, input: z.infer<typeof blockInput>): Promise<number> {
  const planned = blockOf(input);
  const block = nanoid();
  const gym = await gymForWriting(db);
  const target = { day: input.target, kind: 'note' as const, session: null, title: input.name };
  await db.transaction().execute(async (trx) => {
    for (const [i, { day, kind, session, title }] of [...planned, target].entries()) {
      await trx
        .insertInto('plan_item')
        .values({
          id: nanoid(),
          gym_id: gym.id,
          student_id: null,
          day,
          kind,
          session,
          title,
          block,
          position: 1000 + i,
          done_at: null,
          ...stamps(),
        })
        .execute();
    }
  });
  return planned.length;
}

/** Move to a day, before another item of that day, or to its end. */
export async function moveItem(
  db: Db,
  id: string,
  day: Day,
  beforeId: string | null,
): Promise<void> {
  await db.transaction().execute(async (trx) => {
    const others = await trx
      .selectFrom('plan_item')
      .select(['id', 'position'])
      .where('day', '=', day)
      .where('id', '!=', id)
      .orderBy('position')
      .execute();
    const at = beforeId === null ? -1 : others.findIndex((one) => one.id === beforeId);
    const next = at < 0 ? null : others[at]!.position;
    const previous = (at < 0 ? others[others.length - 1] : others[at - 1])?.position ?? null;
    const position =
      next === null ? (previous ?? 0) + 1 : previous === null ? next - 1 : (previous + next) / 2;
    await trx
      .updateTable('plan_item')
      .set({ day, position, updated_at: now() })
      .where('id', '=', id)
      .execute();
  });
}

export async function setDone(db: Db, id: string, isDone: boolean): Promise<void> {
  await db
    .updateTable('plan_item')
    .set({ done_at: isDone ? now() : null, updated_at: now() })
    .where('id', '=', id)
    .execute();
}

/** @returns what was removed, so that it can be put back */
export async function removeItem(db: Db, id: string): Promise<void> {
  await db.deleteFrom('plan_item').where('id', '=', id).execute();
}

/** Everything of a block that is not done. */
export async function removeBlock(db: Db, block: string): Promise<void> {
  await db
    .deleteFrom('plan_item')
    .where('block', '=', block)
    .where('done_at', 'is', null)
    .execute();
}

/**
 * The plan and the days on which work is looked at again, as a calendar (RFC 5545). All are whole
 * days, which no change of clocks and no time zone can shift.
 */
export async function calendarOf(db: Db, from: Day): Promise<string> {
  const gym = await theGym(db);
  const [items, checks] = await Promise.all([
    planBetween(db, from, plusDays(from, 366)),
    db
      .selectFrom('prescription')
      .innerJoin('student', 'student.id', 'prescription.student_id')
      .select(['prescription.id', 'prescription.next_check', 'prescription.name'])
      .select('student.name as student')
      .where('prescription.status', '=', 'active')
      .where('student.deleted_at', 'is', null)
      .where('student.archived_at', 'is', null)
      .where('next_check', '>=', from)
      .orderBy('next_check')
      .execute(),
  ]);
  return calendarFile(gym.name, [
    ...items.map(({ id, day, title, student }) => ({
      id,
      day,
      summary: student ? `${student}: ${title}` : title,
    })),
    ...checks.map(({ id, next_check, student, name }) => ({
      id,
      day: next_check,
      summary: `${student}: film again (${name})`,
    })),
  ]);
}

/** The days on which a student's work is looked at again, for the student's own calendar. */
export function calendarOfWork(gymName: string, work: readonly Checked[]): string {
  return calendarFile(
    gymName,
    work.map(({ id, nextCheck, name }) => ({
      id,
      day: nextCheck,
      summary: `To be filmed again: ${name}`,
    })),
  );
}

interface Checked {
  readonly id: string;
  readonly name: string;
  readonly nextCheck: Day;
}

function calendarFile(
  gymName: string,
  entries: readonly { readonly id: string; readonly day: Day; readonly summary: string }[],
): string {
  const calendar = ical({
    name: gymName,
    prodId: { company: 'sinew', product: 'plan' },
    method: ICalCalendarMethod.PUBLISH,
  });
  for (const { id, day, summary } of entries) {
    calendar.createEvent({
      id: `${id}@sinew`,
      summary,
      allDay: true,
      // As a number of days, so that it is midnight UTC of that very day.
      start: new Date(dayNumber(day) * 86_400_000),
      end: new Date((dayNumber(day) + 1) * 86_400_000),
      timezone: 'UTC',
    });
  }
  // Every line of a calendar ends like this, the last one too (RFC 5545, 3.1).
  return `${calendar.toString()}\r\n`;
}
