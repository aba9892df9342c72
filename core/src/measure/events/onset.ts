/**
 * About when a link starts: backwards from its peak speed to the last time the speed was under a tenth of that
 * peak, or under three standard deviations of its noise if that is more. `changePoint` makes it exact.
 */
import { lowerBound } from '../../foundation/signal/interpolate';

const SHARE_OF_PEAK = 0.1;
const NOISE_SIGMAS = 3;
/**
 * A peak that does not stand this many σ out of the noise may be noise itself: between four and five, all of seven
 * starts of another generator's uppercuts were 38 to 77 ms late, beyond their ±.
 */
const CLEAR = 5;

/** Out of noise so far, a peak is the highest whatever the noise. */
const BEYOND_NOISE = 8;
/** The last samples of a smoothed speed are so many times as noisy as the others. */
const AT_EDGE = 2;
const EDGE = 3;

function peakOf(speed: readonly number[], end: number): number {
  let peak = 0;
  for (let i = 1; i < end; i++) if (speed[i]! > speed[peak]!) peak = i;
  return peak;
}

/** Whether another rise, with a start of its own, is as high but for noise: which of them it is, nobody can tell. */
function isRivalled(
  speed: readonly number[],
  end: number,
  peak: number,
  noise: number,
  threshold: number,
): boolean {
  if (speed[peak]! > BEYOND_NOISE * noise) return false;
  const asHigh = Math.max(threshold, speed[peak]! - NOISE_SIGMAS * noise);
  let [from, to] = [peak, peak];
  while (from > 0 && speed[from]! > threshold) from -= 1;
  while (to < end && speed[to]! > threshold) to += 1;
  return speed.some((value, i) => value > asHigh && (i < from || (i > to && i < end)));
}

/**
 * @param times seconds, ascending
 * @param speed toward the target, any unit; noise may make it negative
 * @param until seconds; only the part up to here is looked at (contact)
 * @param noise standard deviation of `speed`
 * @param isAlone whether it must be the only rise that is so high
 * @returns seconds; null when the speed never rises clearly above its noise, is above it from the start, or
 *   is to be alone and is not
 */
export function onset(
  times: readonly number[],
  speed: readonly number[],
  until: number,
  noise: number,
  isAlone = false,
): number | null {
  const end = lowerBound(times, until + 1e-9);
  const within = speed[peakOf(speed, end)]! > CLEAR * EDGE * noise ? end : end - AT_EDGE;
  const peak = peakOf(speed, within);
  const wanted = SHARE_OF_PEAK * speed[peak]!;
  const threshold = Math.max(wanted, NOISE_SIGMAS * noise);
  if (!(speed[peak]! > threshold && speed[peak]! > CLEAR * noise)) return null;
  if (isAlone && isRivalled(speed, within, peak, noise, threshold)) return null;
  const crossing = (level: number): number | null => {
    let i = peak;
    while (i >= 0 && speed[i]! >= level) i--;
    if (i < 0) return null;
    const share = (level - speed[i]!) / (speed[i + 1]! - speed[i]!);
    return times[i]! + share * (times[i + 1]! - times[i]!);
  };
  const crossed = crossing(threshold);
  if (crossed === null) return null;
  // How steeply the speed rises there, over a stretch long enough not to be noise itself.
  const higher = Math.min(speed[peak]!, threshold + Math.max(2 * wanted, NOISE_SIGMAS * noise));
  const rise = (higher - threshold) / Math.max(crossing(higher)! - crossed, 1e-6);
  // A threshold that noise has lifted is passed later than a tenth of the peak.
  return crossed - (threshold - wanted) / rise / 2;
}
