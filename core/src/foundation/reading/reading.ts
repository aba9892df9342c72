/**
 * What a measure returns: a number that knows its unit, its uncertainty and where it came from,
 * or the reason why there is none. There is no third way: no null, no NaN.
 */
import type { Landmark } from '../body/landmarks';

/** How a number was come by, from the strongest to the weakest. */
export const SOURCES = [
  'measured-3d',
  'measured-2d',
  'measured-band',
  'estimated-3d',
  'eye',
] as const;
export type Source = (typeof SOURCES)[number];

/** SI units; an angle is in radians, a share or a quotient is a `ratio`. */
export const UNITS = ['s', 'm', 'm/s', 'm/s²', 'rad', 'ratio', 'N·s', 'N', 'J'] as const;
export type Unit = (typeof UNITS)[number];

/** How a unit is written on a screen: a value times `factor`, with so many digits and `suffix`. */
export interface Shown {
  readonly factor: number;
  readonly suffix: string;
  readonly digits: number;
}

export interface Reading {
  readonly value: number;
  readonly unit: Unit;
  /** One standard deviation, in `unit`. */
  readonly sigma: number;
  readonly source: Source;
  /** Frames the number rests on, ascending. */
  readonly frames: readonly number[];
  /** What a limit on it is multiplied by for a body of this size: 1 is an ordinary adult's, and missing. */
  readonly size?: number;
  /** So many blind looks of the coach are in it; none when missing. */
  readonly looks?: number;
  /** Read in another film of the same take; `frames` are the nearest ones of the film in hand. */
  readonly isElsewhere?: true;
}

/** Points that would have to be placed for a reading to exist. */
export interface Missing {
  readonly landmarks: readonly Landmark[];
  readonly frame: number;
}

export interface Absent {
  /** Why there is no reading, as a sentence to the coach. */
  readonly absent: string;
  /** The film that would show it, as in "film from above". */
  readonly advice?: string;
  /** The first thing that could be placed to get one. */
  readonly missing?: Missing;
  /** The strike is not of a kind that has this reading, whatever was filmed. */
  readonly isNotApplicable?: true;
}

export type Measured = Reading | Absent;

/** True for the reason why something is not there, whatever it would have been. */
export function isAbsent(value: object): value is Absent {
  return 'absent' in value;
}

/** The opposite, for filtering a list down to what is there. */
export function isPresent<T extends object>(value: T | Absent): value is Exclude<T, Absent> {
  return !isAbsent(value);
}

export function absent(why: string, missing?: Missing): Absent {
  return missing === undefined ? { absent: why } : { absent: why, missing };
}

/**
 * Half-width of the interval that holds the true value in 95 of 100 cases, for an error close to
 * normal. Every "±" on a screen and every judgement uses this one number.
 */
export function halfWidth(reading: { readonly sigma: number }): number {
  return 1.96 * reading.sigma;
}

/**
 * Make a reading; a value that is not a finite number becomes absent instead of travelling on.
 *
 * @param frames any order, repeats allowed
 */
export function reading(
  value: number,
  unit: Unit,
  sigma: number,
  source: Source,
  frames: readonly number[],
): Measured {
  if (!Number.isFinite(value) || !Number.isFinite(sigma)) {
    return absent('The points placed here do not give a number; check that they do not coincide.');
  }
  return { value, unit, sigma, source, frames: [...new Set(frames)].sort((a, b) => a - b) };
}
