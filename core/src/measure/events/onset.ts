/**
 * About when a link starts: backwards from its peak speed to the last time the speed was under a tenth of that
 * peak, or under three standard deviations of its noise if that is more. `changePoint` makes it exact.
 */
import { lowerBound } from '../../foundation/signal/interpolate';

const SHARE_OF_PEAK = 0.1;
const NOISE_SIGMAS = 3;
/** A peak that does not stand this many σ out of the noise may be noise itself. */
const CLEAR = 4;

/**
 * @param times seconds, ascending
 * @param speed toward the target, any unit; noise may make it negative
 * @param until seconds; only the part up to here is looked at (contact)
 * @param noise standard deviation of `speed`
 * @returns seconds; null when the speed never rises clearly above its noise, or is above it from the start
 */
export function onset(
  times: readonly number[],
  speed: readonly number[],
  until: number,
  noise: number,
): number | null {
  const end = lowerBound(times, until + 1e-9);
  let peak = 0;
  for (let i = 1; i < end; i++) if (speed[i]! > speed[peak]!) peak = i;
  const wanted = SHARE_OF_PEAK * speed[peak]!;
  const threshold = Math.max(wanted, NOISE_SIGMAS * noise);
  if (!(speed[peak]! > threshold && speed[peak]! > CLEAR * noise)) return null;
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
