/** Known-answer combinations: strikes of one fighter, each fading into the next. */
import { LANDMARKS, type Landmark } from '@sinew/core/foundation/body/landmarks';
import type { SpaceTrack } from '@sinew/core/observe/track/track';
import { durationOf, knownTimes, mover, type Mover, type Pose } from './pose';
import { progress, spanning } from './profile';
import type { Recipe } from './recipe';
import { mix, type Point } from './space';
import { trackOf, type Flaws } from './track';

export interface ComboSampling {
  readonly rate: number;
  readonly noise: number;
  readonly seed?: number;
  readonly flaws?: Flaws;
  /** The next strike leaves from where the last one ended, not from guard. */
  readonly flows?: boolean;
}

export interface Combo {
  readonly pose: Mover;
  /** Seconds. */
  readonly duration: number;
  /** When each strike, alone, would begin; seconds. */
  readonly starts: readonly number[];
}

/**
 * Every strike runs in full; where two overlap, the body goes over from one to the other between the
 * first one's end and the second one's hips, or its contact when it flows.
 *
 * @param gaps seconds from each contact to the next
 */
export function comboOf(recipes: readonly Recipe[], gaps: readonly number[], flows = true): Combo {
  const times = recipes.map(knownTimes);
  const contacts = times.map(
    (_, i) => times[0]!.contact + gaps.slice(0, i).reduce((a, b) => a + b, 0),
  );
  const starts = contacts.map((contact, i) => contact - times[i]!.contact);
  const last = recipes.length - 1;
  const poses = recipes.map(mover);
  const over = recipes.slice(1).map((_, i) => {
    const from = starts[i]! + times[i]!.end;
    const to = Math.max(from + 0.05, starts[i + 1]! + times[i + 1]![flows ? 'contact' : 'hips']);
    return spanning(from, to);
  });
  const blended = (own: readonly Pose[], time: number, at: (pose: Pose) => Point) =>
    own.reduce<Point>(
      (sum, pose, i) => (i === 0 ? at(pose) : mix(sum, at(pose), progress(over[i - 1]!, time))),
      [0, 0, 0],
    );
  const pose = (time: number): Pose => {
    const own = poses.map((one, i) =>
      one(Math.max(0, Math.min(time - starts[i]!, durationOf(recipes[i]!)))),
    );
    const points = LANDMARKS.map((name) => [name, blended(own, time, (one) => one[name])] as const);
    return {
      ...(Object.fromEntries(points) as Record<Landmark, Point>),
      head: blended(own, time, ({ head }) => head),
    };
  };
  return { pose, duration: starts[last]! + durationOf(recipes[last]!), starts };
}

/** @param gaps seconds from each contact to the next */
export function comboTrack(
  recipes: readonly Recipe[],
  gaps: readonly number[],
  { seed = 1, flows, ...sampling }: ComboSampling,
): { track: SpaceTrack; contacts: number[] } {
  const { pose, duration, starts } = comboOf(recipes, gaps, flows);
  return {
    track: trackOf(pose, duration, { seed, ...sampling }),
    contacts: recipes.map((recipe, i) => starts[i]! + knownTimes(recipe).contact),
  };
}
