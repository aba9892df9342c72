/**
 * Motion profiles with known starts. A profile's speed rises smoothly to its peak and falls again, so
 * its start, peak and end are exact and its position has a closed form.
 */
import { rising, type RiseId } from './rises';

export interface Profile {
  /** Seconds. The instant at which the speed has reached a tenth of its peak: the visible start. */
  readonly start: number;
  /** Seconds from the visible start to the peak speed. */
  readonly rise: number;
  /** Seconds from the peak to standstill. */
  readonly fall: number;
  /** How the speed rises; evenly when not said. */
  readonly by?: RiseId;
}

/** Seconds from nothing at all to the peak. */
const wholeRise = ({ rise, by }: Profile) => rise / (1 - rising(by).tenth);

/** Share of the way covered at `time`: 0 before the start, 1 from the end on. */
export function progress(profile: Profile, time: number): number {
  const { start, rise, fall, by } = profile;
  const { way } = rising(by);
  const falling = rising().way;
  const whole = wholeRise(profile);
  const peak = start + rise;
  const up = whole * way(clamped((time - (peak - whole)) / whole));
  const down = fall * (0.5 - falling(clamped(1 - (time - peak) / fall)));
  return (up + (time > peak ? down : 0)) / (whole * way(1) + fall / 2);
}

const clamped = (u: number) => Math.min(1, Math.max(0, u));

/** Share of the way covered at the peak of speed. */
export function shareAtPeak(profile: Profile): number {
  const up = wholeRise(profile) * rising(profile.by).way(1);
  return up / (up + profile.fall / 2);
}

export function endOf({ start, rise, fall }: Profile): number {
  return start + rise + fall;
}

/** The profile that stands still exactly at `from` and at `to`, with its peak half-way. */
export function spanning(from: number, to: number): Profile {
  const half = (to - from) / 2;
  const { tenth } = rising();
  return { start: from + tenth * half, rise: (1 - tenth) * half, fall: half };
}
