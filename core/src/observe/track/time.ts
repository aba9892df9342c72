/** The true times of a film's frames, which are not always the times at which it plays. */
import { lowerBound } from '../../foundation/signal/interpolate';

/** Mean frames a second over the whole film. */
export function meanRate(frameTimes: readonly number[]): number {
  const span = frameTimes[frameTimes.length - 1]! - frameTimes[0]!;
  return span > 0 ? (frameTimes.length - 1) / span : 0;
}

/**
 * Real time of each frame, from 0. A slow-motion file plays slower than it was shot: its times are
 * shrunk by playback rate ÷ capture rate, which keeps uneven spacing uneven.
 *
 * @param fileTimes the file's presentation times, seconds, ascending; the first need not be 0
 * @param captureRate frames a second at which it was shot; null when it plays at true speed
 */
export function realFrameTimes(fileTimes: readonly number[], captureRate: number | null): number[] {
  return fileTimes.map(realClock(fileTimes, captureRate));
}

/** From any time of the file, its sound's for one, to real time; as `realFrameTimes`. */
export function realClock(
  fileTimes: readonly number[],
  captureRate: number | null,
): (fileTime: number) => number {
  const first = fileTimes[0] ?? 0;
  const playback = meanRate(fileTimes);
  const factor = captureRate === null || playback === 0 ? 1 : playback / captureRate;
  return (fileTime) => (fileTime - first) * factor;
}

/** The frame whose time is nearest. */
export function nearestFrame(frameTimes: readonly number[], time: number): number {
  const right = lowerBound(frameTimes, time);
  if (right === 0) return 0;
  if (right >= frameTimes.length) return frameTimes.length - 1;
  return time - frameTimes[right - 1]! <= frameTimes[right]! - time ? right - 1 : right;
}
