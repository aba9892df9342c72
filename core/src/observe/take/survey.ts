/**
 * What going once through a film tells: how much moves when, what is heard, and what the pictures
 * are worth. Made by `survey.worker.ts`; kept with the clip.
 */
import { z } from 'zod';
import type { Footage } from '../footage/check';
import { rateOf } from '../footage/rate';
import type { Breath, Hit } from '../sound/onsets';
import { findStrikes, type Activity, type Candidate } from './strikes';
import { realClock } from '../track/time';

const share = z.number().min(0).max(1);
const finite = z.number().finite();

export const surveySchema = z.object({
  width: z.number().int().positive(),
  height: z.number().int().positive(),
  /** Share of the picture that changed to reach each frame; 0 for the first. */
  amounts: z.array(share).max(2_000_000),
  repeated: z.number().int().nonnegative(),
  light: z.object({ middle: finite, contrast: finite, black: share, white: share }),
  edges: z.object({ moving: finite.nullable(), still: finite.nullable() }),
  shake: z.object({ jitter: finite, drift: finite }).nullable(),
  moved: z.object({ left: share, right: share, top: share, bottom: share }).nullable(),
  hasSound: z.boolean(),
  /** Times are the file's own, seconds. */
  hits: z
    .array(z.object({ time: finite, sigma: finite, rise: finite, loudness: finite }))
    .max(100_000),
  breaths: z.array(z.object({ from: finite, to: finite })).max(100_000),
});

export type Survey = z.infer<typeof surveySchema>;

/** A survey laid over real time. */
export interface Take {
  readonly activity: Activity;
  readonly hits: readonly Hit[];
  readonly breaths: readonly Breath[];
  readonly footage: Footage;
}

/**
 * @param fileTimes the file's own times of its frames, seconds
 * @param captureRate frames a second at which it was shot; null when it plays at true speed
 */
export function takeOf(
  survey: Survey,
  fileTimes: readonly number[],
  captureRate: number | null,
): Take {
  const real = realClock(fileTimes, captureRate);
  const times = fileTimes.map(real);
  return {
    activity: {
      times,
      amounts: survey.amounts.map((amount, i) =>
        i === 0 ? 0 : amount / Math.max(1e-6, times[i]! - times[i - 1]!),
      ),
    },
    hits: survey.hits.map((hit) => ({ ...hit, time: real(hit.time) })),
    breaths: survey.breaths.map(({ from, to }) => ({ from: real(from), to: real(to) })),
    footage: { ...survey, rate: rateOf(times), frames: times.length },
  };
}

/** @param distance metres from the camera to the target, where it is known */
export function strikesIn(take: Take, distance: number | null): Candidate[] {
  return findStrikes(take.activity, take.hits, distance);
}
