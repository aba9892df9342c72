/** Where a landmark stands at an instant: as it was seen, or between the points around it. */
import { interpolate, lowerBound } from '../../foundation/signal/interpolate';
import type { Points } from './track';

/**
 * @param frameTimes real time of every frame, seconds
 * @param time seconds
 * @param longest a gap between two points, seconds, over which nothing is said
 * @returns in the units of the points; null outside them
 */
export function placeAt(
  { frames, x, y }: Points,
  frameTimes: readonly number[],
  time: number,
  longest = Infinity,
): { readonly x: number; readonly y: number } | null {
  const times = frames.map((frame) => frameTimes[frame]!);
  const after = lowerBound(times, time);
  const next = times[after];
  if (next === undefined) return null;
  if (next > time) {
    const before = times[after - 1];
    if (before === undefined || next - before > longest) return null;
  }
  return { x: interpolate(times, x, time), y: interpolate(times, y, time) };
}
