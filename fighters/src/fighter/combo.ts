/** Known-answer combinations: strikes of one fighter, each fading into the next. */
import { LANDMARKS, type Landmark } from '@sinew/core/foundation/body/landmarks';
import type { Points, SpaceTrack } from '@sinew/core/observe/track/track';
import { normal, seeded } from '@sinew/core/foundation/uncertainty/random';
import { durationOf, knownTimes, mover } from './pose';
import { progress, spanning } from './profile';
import type { Recipe } from './recipe';
import { mix, type Point } from './space';

export interface ComboSampling {
  readonly rate: number;
  readonly noise: number;
  readonly seed?: number;
  /** The next strike leaves from where the last one ended, not from guard. */
  readonly flows?: boolean;
}

/**
 * Every strike runs in full; where two overlap, the body goes over from one to the other between the
 * first one's end and the second one's hips, or its contact when it flows.
 *
 * @param gaps seconds from each contact to the next
 */
export function comboTrack(
  recipes: readonly Recipe[],
  gaps: readonly number[],
  { rate, noise, seed = 1, flows = true }: ComboSampling,
): { track: SpaceTrack; contacts: number[] } {
  const times = recipes.map(knownTimes);
  const contacts = times.map(
    (_, i) => times[0]!.contact + gaps.slice(0, i).reduce((a, b) => a + b, 0),
  );
  const starts = contacts.map((contact, i) => contact - times[i]!.contact);
  const last = recipes.length - 1;
  const duration = starts[last]! + durationOf(recipes[last]!);
  const poses = recipes.map(mover);
  const over = recipes.slice(1).map((_, i) => {
    const from = starts[i]! + times[i]!.end;
    const to = Math.max(from + 0.05, starts[i + 1]! + times[i + 1]![flows ? 'contact' : 'hips']);
    return spanning(from, to);
  });
  const at = (time: number, landmark: Landmark): Point =>
    poses.reduce<Point>(
      (sum, pose, i) => {
        const own = Math.max(0, Math.min(time - starts[i]!, durationOf(recipes[i]!)));
        return i === 0
          ? pose(own)[landmark]
          : mix(sum, pose(own)[landmark], progress(over[i - 1]!, time));
      },
      [0, 0, 0],
    );
  const frameTimes = Array.from({ length: Math.ceil(duration * rate) }, (_, i) => i / rate);
  const frames = frameTimes.map((_, i) => i);
  const random = seeded(seed);
  const points: Partial<Record<Landmark, Points>> = {};
  for (const landmark of LANDMARKS) {
    const places = frameTimes.map((time) => at(time, landmark));
    const axis = (k: 0 | 1 | 2) => places.map((place) => place[k] + noise * normal(random));
    points[landmark] = {
      frames,
      x: axis(0),
      y: axis(1),
      z: axis(2),
      sigma: frames.map(() => Math.max(noise, 0.0002)),
    };
  }
  return { track: { space: '3d', source: 'measured-3d', frameTimes, points }, contacts };
}
