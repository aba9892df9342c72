/** Known-answer pictures: a fighter's landmarks as a far camera sees them, with noise if wanted. */
import { LANDMARKS, type Landmark } from '@sinew/core/foundation/body/landmarks';
import type { Calibration } from '@sinew/core/reconstruct/calibration/calibration';
import type { PictureTrack, Points } from '@sinew/core/observe/track/track';
import { normal, seeded } from '@sinew/core/foundation/uncertainty/random';
import type { View } from '@sinew/core/foundation/technique/techniques';
import { mover } from './pose';
import type { Recipe } from './recipe';
import type { Point } from './space';
import { frameTimesOf, type Sampling } from './track';

/** Pixels a metre; the picture is level, square to its view, and the same size everywhere. */
const SCALE = 300;

const SEEN: Record<View, (at: Point) => readonly [number, number]> = {
  side: ([x, y]) => [x, -y],
  front: ([, y, z]) => [-z, -y],
  behind: ([, y, z]) => [z, -y],
  above: ([x, , z]) => [x, z],
};

/** @param sampling its noise in metres, as in space */
export function knownPicture(
  recipe: Recipe,
  view: View,
  { rate, noise, seed }: Sampling,
): { track: PictureTrack; calibration: Calibration } {
  const frameTimes = frameTimesOf(recipe, rate);
  const poses = frameTimes.map(mover(recipe));
  const random = seeded(seed);
  const frames = frameTimes.map((_, i) => i);
  const points: Partial<Record<Landmark, Points>> = {};
  for (const landmark of LANDMARKS) {
    const places = poses.map((pose) => SEEN[view](pose[landmark]));
    const axis = (k: 0 | 1) =>
      places.map((place) => 600 + SCALE * (place[k] + noise * normal(random)));
    points[landmark] = {
      frames,
      x: axis(0),
      y: axis(1),
      sigma: frames.map(() => Math.max(SCALE * noise, 0.06)),
    };
  }
  const origin = { x: 100, y: 100 };
  return {
    track: { space: '2d', source: 'measured-2d', placingSigma: 1, frameTimes, points },
    calibration: {
      view,
      scale: { from: origin, to: { x: 100 + 3 * SCALE, y: 100 }, metres: 3 },
      target: { from: origin, to: { x: 900, y: 100 } },
    },
  };
}
