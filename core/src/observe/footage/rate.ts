/** What the times of a film's frames tell of how it was taken. */
import { median } from 'd3-array';

export interface Rate {
  /** Frames a second as the middle spacing gives it: what the camera means to take. */
  readonly perSecond: number;
  /** Frames that are missing where the spacing is longer. */
  readonly dropped: number;
  /** Share of the spacings that differ from the middle one by more than a tenth. */
  readonly uneven: number;
}

/** @param times real times of the frames, seconds, ascending, at least two */
export function rateOf(times: readonly number[]): Rate {
  const spacings = times.slice(1).map((time, i) => time - times[i]!);
  const middle = median(spacings);
  if (middle === undefined || middle <= 0) return { perSecond: 0, dropped: 0, uneven: 0 };
  const missing = spacings.map((one) => Math.max(0, Math.round(one / middle) - 1));
  return {
    perSecond: 1 / middle,
    dropped: missing.reduce((sum, one) => sum + one, 0),
    uneven: spacings.filter((one) => Math.abs(one / middle - 1) > 0.1).length / spacings.length,
  };
}
