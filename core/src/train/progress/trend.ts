/** A reading over the weeks: where it stood, the band that is noise, which way it goes. */
import { daysBetween, type Day } from '../../foundation/calendar/day';
import { slopeOf } from '../../foundation/uncertainty/slope';

export interface DatedValue {
  readonly day: Day;
  readonly value: number;
  /** One standard deviation. */
  readonly sigma: number;
}

export interface Trend {
  /** Change in a week, in the reading's unit, and its 95 % half-width. */
  readonly perWeek: number;
  readonly halfWidth: number;
  /** It goes somewhere, beyond what scatter explains. */
  readonly isReal: boolean;
}

/** @returns null with fewer than three values, or all of one day */
export function trendOf(values: readonly DatedValue[]): Trend | null {
  const first = values[0]?.day;
  if (first === undefined) return null;
  const line = slopeOf(
    values.map(({ day, value, sigma }) => ({ x: daysBetween(first, day) / 7, value, sigma })),
  );
  if (!line) return null;
  const { slope, halfWidth } = line;
  return { perWeek: slope, halfWidth, isReal: Math.abs(slope) > halfWidth };
}

/**
 * Values round the first one that may be no change at all.
 *
 * @param typicalError of marking, when known
 */
export function noiseBand(
  first: DatedValue,
  typicalError: number | null,
): { readonly from: number; readonly to: number } {
  const half = 1.96 * Math.SQRT2 * Math.max(first.sigma, typicalError ?? 0);
  return { from: first.value - half, to: first.value + half };
}
