/**
 * Motion profiles with known starts. A profile's speed rises smoothly to its peak and falls again
 * (smoothstep both ways), so its start, peak and end are exact and its position has a closed form.
 */
export interface Profile {
  /** Seconds. The instant at which the speed has reached a tenth of its peak: the visible start. */
  readonly start: number;
  /** Seconds from the visible start to the peak speed. */
  readonly rise: number;
  /** Seconds from the peak to standstill. */
  readonly fall: number;
}

/** Where the smoothstep 3u² − 2u³ reaches 0.1 (root of the cubic, by SciPy's brentq). */
const TENTH = 0.1958001056590917;

function smoothstepIntegral(u: number): number {
  const clamped = Math.min(1, Math.max(0, u));
  return clamped ** 3 - clamped ** 4 / 2;
}

/** Share of the way covered at `time`: 0 before the start, 1 from the end on. */
export function progress({ start, rise, fall }: Profile, time: number): number {
  const trueRise = rise / (1 - TENTH);
  const peak = start + rise;
  const up = trueRise * smoothstepIntegral((time - (peak - trueRise)) / trueRise);
  const down = fall * (0.5 - smoothstepIntegral(1 - (time - peak) / fall));
  return (up + (time > peak ? down : 0)) / ((trueRise + fall) / 2);
}

/** Share of the way covered at the peak of speed. */
export function shareAtPeak({ rise, fall }: Profile): number {
  const trueRise = rise / (1 - TENTH);
  return trueRise / (trueRise + fall);
}

export function endOf({ start, rise, fall }: Profile): number {
  return start + rise + fall;
}

/** The profile that stands still exactly at `from` and at `to`, with its peak half-way. */
export function spanning(from: number, to: number): Profile {
  const half = (to - from) / 2;
  return { start: from + TENTH * half, rise: (1 - TENTH) * half, fall: half };
}
