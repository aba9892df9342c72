/** A student's record: sets over time, faults, notes, tests, and how far markings can be trusted. */
import { nanoid } from 'nanoid';
import { z } from 'zod';
import { daySchema, type Day } from '@sinew/core/foundation/calendar/day';
import {
  fieldTestProblem,
  fieldTestSchema,
  resultsOf,
  type FieldTest,
  type Result,
} from '@sinew/core/train/progress/fieldTest';
import { halfWidth, isAbsent } from '@sinew/core/foundation/reading/reading';
import { stamps, type Db } from '../database/db';
import type { MeasuredSet } from '../finding/measuredSets';
import { COLUMNS } from '../database/columns';

/** In how many of a set's strikes a fault shows, of those that tell. */
export interface Shown {
  readonly day: Day;
  readonly clipId: string;
  readonly found: number;
  readonly told: number;
}

/** A fault over the sets that tell of it, oldest first. */
export function shownOver(sets: readonly MeasuredSet[], fault: string): Shown[] {
  return sets
    .map(({ day, clipId, strikes }): Shown => {
      const count = (how: 'found' | 'clear') =>
        strikes.filter(({ shows }) => shows[how].includes(fault)).length;
      const found = count('found');
      return { day, clipId, found, told: found + count('clear') };
    })
    .filter(({ told }) => told > 0);
}

/** A fault that most strikes of a set show, and on which the coach has not said a word. */
export interface Unsaid extends Shown {
  readonly fault: string;
  readonly strikeId: string;
}

export async function unsaidIn(db: Db, set: MeasuredSet): Promise<Unsaid[]> {
  const ids = set.strikes.map(({ id }) => id);
  const said = await db
    .selectFrom('finding')
    .select('fault')
    .where('strike_id', 'in', ids)
    .execute();
  const isSaid = new Set(said.map(({ fault }) => fault));
  const faults = new Set(set.strikes.flatMap(({ shows }) => shows.found));
  return [...faults]
    .filter((fault) => !isSaid.has(fault))
    .flatMap((fault) => {
      const [shown] = shownOver([set], fault);
      const first = set.strikes.find(({ shows }) => shows.found.includes(fault));
      if (!shown || !first || 2 * shown.found <= shown.told) return [];
      return [{ ...shown, fault, strikeId: first.id }];
    });
}

/** How fast a set was: what a reach ladder asks. */
export interface SetSpeed {
  readonly clipId: string;
  readonly technique: string;
  readonly day: Day;
  readonly strikes: number;
  /** Metres a second at contact, the median, and its 95 % half-width. */
  readonly value: number;
  readonly plusMinus: number;
}

/** Newest first; sets whose speed cannot be measured are left out. */
export function speedsOf(sets: readonly MeasuredSet[]): SetSpeed[] {
  return sets
    .flatMap(({ clipId, technique, day, strikes, readings }) => {
      const speed = readings['speed.contact'];
      if (isAbsent(speed)) return [];
      const plusMinus = halfWidth(speed);
      return [{ clipId, technique, day, strikes: strikes.length, value: speed.value, plusMinus }];
    })
    .reverse();
}

export interface Note {
  readonly id: string;
  readonly day: Day;
  readonly technique: string | null;
  readonly text: string;
}

export const noteInput = z.object({
  studentId: z.string().min(1).max(60),
  technique: z.string().max(60).nullable(),
  day: daySchema,
  text: z.string().trim().min(1, 'Write something.').max(2000),
});

export async function addNote(db: Db, input: z.infer<typeof noteInput>): Promise<string> {
  const id = nanoid();
  const { studentId, technique, day, text } = input;
  await db
    .insertInto('note')
    .values({ id, student_id: studentId, technique, day, text, deleted_at: null, ...stamps() })
    .execute();
  return id;
}

/** Newest first. */
export async function notesOf(db: Db, studentId: string): Promise<Note[]> {
  return db
    .selectFrom('note')
    .select(['id', 'day', 'technique', 'text'])
    .where('student_id', '=', studentId)
    .where('deleted_at', 'is', null)
    .orderBy('day', 'desc')
    .orderBy('created_at', 'desc')
    .execute();
}

export interface KeptTest {
  readonly id: string;
  readonly day: Day;
  readonly given: FieldTest;
  readonly results: readonly Result[];
}

export const testInput = z.object({
  studentId: z.string().min(1).max(60),
  day: daySchema,
  given: fieldTestSchema.superRefine((test, context) => {
    const problem = fieldTestProblem(test);
    if (problem !== null) context.addIssue({ code: 'custom', message: problem });
  }),
});

export async function addTest(db: Db, input: z.infer<typeof testInput>): Promise<string> {
  const id = nanoid();
  const { studentId, day, given } = input;
  await db
    .insertInto('field_test')
    .values({
      id,
      student_id: studentId,
      kind: given.kind,
      day,
      deleted_at: null,
      given: COLUMNS.field_test.given.write(given),
      result: JSON.stringify(resultsOf(given)),
      ...stamps(),
    })
    .execute();
  return id;
}

/** Newest first; what follows is worked out anew. */
export async function testsOf(db: Db, studentId: string): Promise<KeptTest[]> {
  const rows = await db
    .selectFrom('field_test')
    .select(['id', 'day', 'given'])
    .where('student_id', '=', studentId)
    .where('deleted_at', 'is', null)
    .orderBy('day', 'desc')
    .orderBy('created_at', 'desc')
    .execute();
  return rows.flatMap(({ id, day, given: json }) => {
    const given = COLUMNS.field_test.given.read(json);
    return given ? [{ id, day, given, results: resultsOf(given) }] : [];
  });
}
