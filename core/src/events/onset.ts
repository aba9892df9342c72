/**
 * When a link starts: backwards from its peak speed to the last time the speed was under a tenth
 * of that peak, or under three standard deviations of its quiet start if that is more.
 */
import { lowerBound } from '../signal/interpolate';

const SHARE_OF_PEAK = 0.1;
const QUIET_SIGMAS = 3;

export interface Onset {
  /** Seconds, between samples by linear interpolation. */
  readonly time: number;
  /**
   * Standard deviation from noise alone, seconds: how far the noise at rest, and a threshold it
   * has lifted above a tenth of the peak, move the crossing.
   */
  readonly sigma: number;
}

/**
 * @param times seconds, ascending
 * @param speed toward the target, any unit; noise may make it negative
 * @param until seconds; only the part up to here is looked at (contact)
 * @param quietUntil seconds; the part up to here shows the noise at rest
 * @returns null when the speed never rises above the threshold or is above it from the start
 */
export function onset(
  times: readonly number[],
  speed: readonly number[],
  until: number,
  quietUntil: number,
): Onset | null {
  const end = lowerBound(times, until + 1e-9);
  let peak = 0;
  for (let i = 1; i < end; i++) if (speed[i]! > speed[peak]!) peak = i;
  const quiet = speed.slice(0, lowerBound(times, quietUntil));
  const noise =
    quiet.length < 3 ? 0 : Math.sqrt(quiet.reduce((sum, v) => sum + v * v, 0) / quiet.length);
  const wanted = SHARE_OF_PEAK * speed[peak]!;
  const threshold = Math.max(wanted, QUIET_SIGMAS * noise);
  if (!(speed[peak]! > threshold)) return null;
  let i = peak;
  while (i >= 0 && speed[i]! >= threshold) i--;
  if (i < 0) return null;
  const share = (threshold - speed[i]!) / (speed[i + 1]! - speed[i]!);
  const time = times[i]! + share * (times[i + 1]! - times[i]!);
  const meanRise = (speed[peak]! - threshold) / (times[peak]! - time);
  return { time, sigma: Math.hypot(noise, threshold - wanted) / meanRise };
}
