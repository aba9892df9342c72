/** Known-answer tracks: a fighter's landmarks sampled at a frame rate, with noise if wanted. */
import { LANDMARKS, type Landmark } from '@sinew/core/foundation/body/landmarks';
import type { Points, SpaceTrack } from '@sinew/core/observe/track/track';
import { normal, seeded } from '@sinew/core/foundation/uncertainty/random';
import { mover, durationOf } from './pose';
import type { Recipe } from './recipe';

export interface Sampling {
  /** Frames a second. */
  readonly rate: number;
  /** Standard deviation of every coordinate, metres. */
  readonly noise: number;
  readonly seed: number;
}

export function frameTimesOf(recipe: Recipe, rate: number): number[] {
  return Array.from({ length: Math.ceil(durationOf(recipe) * rate) }, (_, i) => i / rate);
}

/** No tracker says that it is surer than this of a point, metres. */
const LEAST_SIGMA = 0.0002;

export function knownTrack(recipe: Recipe, { rate, noise, seed }: Sampling): SpaceTrack {
  const frameTimes = frameTimesOf(recipe, rate);
  const pose = mover(recipe);
  const poses = frameTimes.map(pose);
  const random = seeded(seed);
  const frames = frameTimes.map((_, i) => i);
  const points: Partial<Record<Landmark, Points>> = {};
  for (const landmark of LANDMARKS) {
    const axis = (k: 0 | 1 | 2) => poses.map((p) => p[landmark][k] + noise * normal(random));
    points[landmark] = {
      frames,
      x: axis(0),
      y: axis(1),
      z: axis(2),
      sigma: frames.map(() => Math.max(noise, LEAST_SIGMA)),
    };
  }
  return { space: '3d', source: 'measured-3d', frameTimes, points };
}
