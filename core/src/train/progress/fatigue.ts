/** What rounds do to a strike: each reading round by round, and whether it goes. */
import { medianReadings } from '../../measure/measures/set';
import type { MeasureId, Readings } from '../../measure/measures/allMeasures';
import { isAbsent, type Reading } from '../../foundation/reading/reading';
import { slopeOf } from '../../foundation/uncertainty/slope';

/** What tires: how low the stance is, the coil, the speed, the guard. */
export const TIRES = [
  'stance.height',
  'separation.max',
  'speed.contact',
  'guard.off',
  'guard.drop',
] as const satisfies readonly MeasureId[];

export interface RoundOfStrikes {
  readonly round: number;
  readonly strikes: readonly Readings[];
}

export type Fading =
  | {
      readonly id: MeasureId;
      readonly rounds: readonly { readonly round: number; readonly reading: Reading }[];
      /** Change a round with its 95 % half-width, in the reading's unit. */
      readonly slope: number;
      readonly halfWidth: number;
      readonly isReal: boolean;
    }
  | { readonly id: MeasureId; readonly absent: string };

/** Fewer rounds tell no trend. */
const FEWEST_ROUNDS = 3;

/**
 * A line through the single strikes over their rounds, by least squares; how sure it is follows from
 * how they scatter about it. The ± of each strike does not enter: what is wrong with the scale or the
 * target line of one evening's set-up is wrong in every round alike.
 *
 * @param rounds any order; each with the strikes filmed in it
 */
export function fatigueOf(rounds: readonly RoundOfStrikes[]): Fading[] {
  const sorted = [...rounds]
    .filter(({ strikes }) => strikes.length > 0)
    .sort((a, b) => a.round - b.round);
  const medians = sorted.map(({ round, strikes }) => ({
    round,
    readings: medianReadings(strikes),
  }));
  return TIRES.map((id): Fading => {
    const known = medians.flatMap(({ round, readings }) => {
      const reading = readings[id];
      return isAbsent(reading) ? [] : [{ round, reading }];
    });
    const points = sorted.flatMap(({ round, strikes }) =>
      strikes.flatMap((strike) => {
        const reading = strike[id];
        return isAbsent(reading) ? [] : [{ x: round, value: reading.value, sigma: 0 }];
      }),
    );
    const line = known.length >= FEWEST_ROUNDS ? slopeOf(points) : null;
    if (!line) {
      const why = medians.map(({ readings }) => readings[id]).find(isAbsent)?.absent;
      return { id, absent: why ?? 'Three rounds or more tell a trend.' };
    }
    const { slope, halfWidth } = line;
    return { id, rounds: known, slope, halfWidth, isReal: Math.abs(slope) > halfWidth };
  });
}
