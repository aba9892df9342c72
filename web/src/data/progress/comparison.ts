/**
 * Then and now, by one rule wherever two strikes or sets are held against each other: the comparison,
 * the card, the ledger. What a gym has measured of its own marking error counts everywhere.
 */
import { medianReadings } from '@sinew/core/measure/measures/set';
import { NO_SCHOOL, resolve } from '@sinew/core/judge/school/resolve';
import type { Judging } from '@sinew/core/train/progress/change';
import { differencesOf, type Compared, type Difference } from '@sinew/core/train/progress/compare';
import type { Db } from '../database/db';
import type { MeasuredStrike } from '../finding/measured';
import { libraryOf } from '../gym/library';
import { studentById } from '../student/students';
import { markingErrors, typicalErrors } from './repeatMarkings';

/** A strike and the strikes of its kind in the same film, itself among them. */
export interface Side {
  readonly strike: MeasuredStrike;
  readonly set: readonly MeasuredStrike[];
}

export interface Comparison {
  readonly ofStrikes: readonly Difference[];
  /** Null where one of them stands alone. */
  readonly ofSets: readonly Difference[] | null;
}

const alone = ({ strike }: Side): Compared => ({ ...strike, strikes: 1 });
const asSet = ({ strike, set }: Side): Compared => ({
  ...strike,
  readings: medianReadings(set.map(({ readings }) => readings)),
  strikes: set.length,
});

/** What is compared first: sets where there are two, else the strikes. */
export function sidesOf(then: Side, now: Side): readonly [Compared, Compared] {
  const areSets = then.set.length > 1 && now.set.length > 1;
  return areSets ? [asSet(then), asSet(now)] : [alone(then), alone(now)];
}

export type Comparer = (then: Side, now: Side) => Comparison;

/** By what a student's strikes are better or worse: the gym's library and school, and the student's own. */
export async function judgingOf(db: Db, studentId: string): Promise<Judging> {
  const [{ catalogue, school }, student] = await Promise.all([
    libraryOf(db),
    studentById(db, studentId),
  ]);
  return {
    catalogue,
    school: resolve({ ...NO_SCHOOL, gym: school, student: student?.school ?? {} }),
  };
}

/** Loads what every comparison of a student rests on, once for however many. */
export async function comparer(db: Db, studentId: string): Promise<Comparer> {
  const [judging, errors] = await Promise.all([judgingOf(db, studentId), markingErrors(db)]);
  const typical = typicalErrors(errors);
  return (then, now) => {
    const areSets = then.set.length > 1 && now.set.length > 1;
    return {
      ofStrikes: differencesOf(alone(then), alone(now), judging, typical),
      ofSets: areSets ? differencesOf(asSet(then), asSet(now), judging, typical) : null,
    };
  };
}
