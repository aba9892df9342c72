import { interpolate } from './interpolate';

export interface Uniform {
  readonly times: number[];
  readonly values: number[];
  /** Samples per second. */
  readonly rate: number;
}

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
  return { times: grid, values: grid.map((t) => interpolate(times, values, t)), rate: 1 / step };
}
