/** Strikes marked again without sight of the first marks: how far two markings of one differ. */
import { nanoid } from 'nanoid';
import { group } from 'd3-array';
import { z } from 'zod';
import {
  MEASURE_IDS,
  MEASURE_NAMES,
  type MeasureId,
  type Readings,
} from '@sinew/core/measure/measures/allMeasures';
import { unitOf } from '@sinew/core/measure/measures/units';
import type { TypicalErrors } from '@sinew/core/train/progress/compare';
import { reliabilityOf, type Reliability } from '@sinew/core/train/progress/reliability';
import { isAbsent, type Unit } from '@sinew/core/foundation/reading/reading';
import { measureInClip } from '@sinew/core/analysis/analyzeClip';
import { strikeSchema } from '@sinew/core/analysis/clipDocument';
import { stamps, type Db } from '../database/db';
import { clipInputOf } from '../clip/clipInput';
import { COLUMNS } from '../database/columns';

/** Fewer strikes marked twice say nothing about the next one. */
export const FEWEST_MARKED_AGAIN = 5;

export interface StrikeToMark {
  readonly strikeId: string;
  readonly clipId: string;
  readonly studentId: string;
  readonly student: string;
  readonly technique: string;
  readonly fileName: string;
  /** How often it has been marked again. */
  readonly times: number;
}

/** The exercise takes its strikes from so many of the newest films. */
const NEWEST = 60;

/** Strikes marked from ready to home, those least often marked again first. */
export async function strikesToMarkAgain(db: Db): Promise<StrikeToMark[]> {
  return db
    .selectFrom('strike')
    .innerJoin('clip', 'clip.id', 'strike.clip_id')
    .innerJoin('student', 'student.id', 'clip.student_id')
    .leftJoin('repeat_marking', 'repeat_marking.strike_id', 'strike.id')
    .select([
      'strike.id as strikeId',
      'clip.id as clipId',
      'student.id as studentId',
      'student.name as student',
    ])
    .select(['strike.technique', 'clip.file_name as fileName'])
    .select(({ fn }) => fn.count<number>('repeat_marking.id').as('times'))
    .where('strike.removed_at', 'is', null)
    .where('strike.marks_left', '=', 0)
    .where('clip.id', 'in', (eb) =>
      eb
        .selectFrom('clip')
        .select('id')
        .where('deleted_at', 'is', null)
        .where('purged_at', 'is', null)
        .orderBy('created_at', 'desc')
        .limit(NEWEST),
    )
    .where('student.deleted_at', 'is', null)
    .groupBy('strike.id')
    .orderBy('times')
    .orderBy('clip.created_at', 'desc')
    .limit(60)
    .execute();
}

const marksSchema = strikeSchema.shape.marks;

export const repeatMarkingInput = z.object({
  by: z.string().trim().min(1).max(60),
  marks: marksSchema,
});

/** @returns false when the strike is gone */
export async function keepRepeatMarking(
  db: Db,
  strikeId: string,
  { by, marks }: z.infer<typeof repeatMarkingInput>,
): Promise<boolean> {
  const strike = await db
    .selectFrom('strike')
    .select('id')
    .where('id', '=', strikeId)
    .executeTakeFirst();
  if (!strike) return false;
  await db
    .insertInto('repeat_marking')
    .values({
      id: nanoid(),
      strike_id: strikeId,
      by,
      marks: COLUMNS.repeat_marking.marks.write(marks),
      ...stamps(),
    })
    .execute();
  return true;
}

export interface MarkingError extends Reliability {
  readonly id: MeasureId;
  readonly name: string;
  readonly unit: Unit;
}

/** Each strike's readings as first marked and as marked again, in the order of marking. */
async function trials(db: Db): Promise<Readings[][]> {
  const markings = await db
    .selectFrom('repeat_marking')
    .innerJoin('strike', 'strike.id', 'repeat_marking.strike_id')
    .innerJoin('clip', 'clip.id', 'strike.clip_id')
    .select(['repeat_marking.strike_id', 'strike.clip_id', 'repeat_marking.marks'])
    .where('strike.removed_at', 'is', null)
    .where('clip.deleted_at', 'is', null)
    .where('clip.purged_at', 'is', null)
    .orderBy('repeat_marking.created_at')
    .execute();
  const found: Readings[][] = [];
  for (const [clipId, ofClip] of group(markings, ({ clip_id }) => clip_id)) {
    const clip = (await clipInputOf(db, clipId))?.clip;
    if (!clip) continue;
    for (const [strikeId, again] of group(ofClip, ({ strike_id }) => strike_id)) {
      const strike = clip.document.strikes.find((one) => one.id === strikeId);
      if (!strike) continue;
      const all = [
        strike.marks,
        ...again.flatMap(({ marks }) => COLUMNS.repeat_marking.marks.read(marks) ?? []),
      ];
      found.push(all.map((marks) => measureInClip(clip, { ...strike, marks }).readings));
    }
  }
  return found;
}

/** Readings whose marking error is known; those whose repeats never differ are left out. */
export async function markingErrors(db: Db): Promise<MarkingError[]> {
  const all = await trials(db);
  return MEASURE_IDS.flatMap((id): MarkingError[] => {
    // The first two markings of every strike that has the reading in both.
    const table = all.flatMap((readings) => {
      const values = readings.slice(0, 2).map((one) => one[id]);
      const known = values.flatMap((one) => (isAbsent(one) ? [] : [one.value]));
      return known.length === 2 ? [known] : [];
    });
    const found = table.length >= FEWEST_MARKED_AGAIN ? reliabilityOf(table) : null;
    if (!found || found.typicalError === 0) return [];
    return [{ id, name: MEASURE_NAMES[id], unit: unitOf(id), ...found }];
  });
}

export function typicalErrors(errors: readonly MarkingError[]): TypicalErrors {
  return Object.fromEntries(errors.map(({ id, typicalError }) => [id, typicalError]));
}
