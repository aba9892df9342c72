import { interpolate } from './interpolate';

export interface Uniform {
  readonly times: number[];
  readonly values: number[];
  /** Samples per second. */
  readonly rate: number;
}

/** Times off the grid by less than this share of a step are on it. */
const NOTHING = 1e-6;

/**
 * Samples on an even grid with as many points as came in, first and last time kept.
 *
 * @param times seconds, strictly ascending, at least 2
 */
export function resampleEvenly(times: readonly number[], values: readonly number[]): Uniform {
  const n = times.length;
  if (n < 2) throw new RangeError('an even grid needs at least two samples');
  const start = times[0]!;
  const step = (times[n - 1]! - start) / (n - 1);
  const grid = times.map((_, i) => start + i * step);
  const isEven = times.every((time, i) => Math.abs(time - grid[i]!) < NOTHING * step);
  if (isEven) return { times: grid, values: [...values], rate: 1 / step };
  return { times: grid, values: grid.map((t) => interpolate(times, values, t)), rate: 1 / step };
}
