/**
 * Then and now, by one rule wherever two strikes or sets are held against each other: the comparison,
 * the card, the ledger. What a gym has measured of its own marking error counts everywhere.
 */
import { medianReadings } from '@sinew/core/measure/measures/set';
import { differencesOf, type Compared, type Difference } from '@sinew/core/train/progress/compare';
import type { Db } from '../database/db';
import type { MeasuredStrike } from '../finding/measured';
import { libraryOf } from '../gym/library';
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

/** Loads what every comparison rests on, once for however many. */
export async function comparer(db: Db): Promise<Comparer> {
  const [{ catalogue }, errors] = await Promise.all([libraryOf(db), markingErrors(db)]);
  const typical = typicalErrors(errors);
  return (then, now) => {
    const areSets = then.set.length > 1 && now.set.length > 1;
    return {
      ofStrikes: differencesOf(alone(then), alone(now), catalogue, typical),
      ofSets: areSets ? differencesOf(asSet(then), asSet(now), catalogue, typical) : null,
    };
  };
}
