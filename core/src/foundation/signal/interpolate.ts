/**
 * Piecewise cubic Hermite interpolation with the slopes of `derivative`: smooth, through every
 * sample, and free of the wild swings of a global polynomial.
 *
 * @param times seconds, strictly ascending
 * @param values one number a time
 * @param at seconds; outside the samples the nearest sample is returned
 * @throws RangeError when there is no sample
 */
import { derivative } from './derivative';

export function interpolate(
  times: readonly number[],
  values: readonly number[],
  at: number,
): number {
  const n = times.length;
  if (n === 0) throw new RangeError('nothing to interpolate');
  if (n === 1 || at <= times[0]!) return values[0]!;
  if (at >= times[n - 1]!) return values[n - 1]!;
  const right = lowerBound(times, at);
  const left = right - 1;
  const from = Math.max(0, left - 1);
  const near = derivative(values.slice(from, right + 2), times.slice(from, right + 2));
  const h = times[right]! - times[left]!;
  const u = (at - times[left]!) / h;
  const m0 = near[left - from]! * h;
  const m1 = near[right - from]! * h;
  return (
    (1 + 2 * u) * (1 - u) ** 2 * values[left]! +
    u * (1 - u) ** 2 * m0 +
    u * u * (3 - 2 * u) * values[right]! +
    u * u * (u - 1) * m1
  );
}

/** Index of the first entry of an ascending list that is not below `target` (its length if none). */
export function lowerBound(ascending: readonly number[], target: number): number {
  let low = 0;
  let high = ascending.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if (ascending[middle]! < target) low = middle + 1;
    else high = middle;
  }
  return low;
}
