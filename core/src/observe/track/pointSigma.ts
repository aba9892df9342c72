/**
 * How far a tracked point can be trusted. Its error has two parts: a shake that differs from frame
 * to frame, which smoothing lessens and which is read off the path itself; and a lean that stays (the
 * tracker's idea of where a joint is differs from ours, or clothes hide it), which nothing lessens.
 */
import type { Landmark } from '../../foundation/body/landmarks';
import { lowerBound } from '../../foundation/signal/interpolate';
import type { SeenPoint } from './jumps';
import { median } from 'd3-array';

/** Less surely seen than this, a point is a guess and is left out. */
export const HIDDEN = 0.3;
/** Less surely seen than this, a point is doubted. */
export const UNSURE = 0.5;

/**
 * Lean of well seen landmarks, one standard deviation of each coordinate as a share of the body's
 * height. Found on rendered fighters (docs/accuracy.md), of which real people may differ.
 */
const LEAN: Readonly<Record<string, number>> = {
  nose: 0.018,
  Ear: 0.018,
  Shoulder: 0.015,
  Elbow: 0.014,
  Wrist: 0.015,
  IndexKnuckle: 0.018,
  LittleKnuckle: 0.024,
  Hip: 0.022,
  Knee: 0.007,
  Ankle: 0.015,
  Heel: 0.019,
  Toe: 0.019,
};

/** Factors by visibility, ascending. */
type Growth = readonly (readonly [visibility: number, factor: number])[];

/** How both parts grow as a landmark is less surely seen; found on the same fighters. */
const SHAKES_MORE: Growth = [
  [0, 9],
  [0.3, 5],
  [0.4, 4],
  [0.5, 3],
  [0.6, 1.5],
  [1, 1],
];
const LEANS_MORE: Growth = [
  [0, 8],
  [0.3, 2.4],
  [0.4, 1.7],
  [0.5, 1.5],
  [0.6, 1],
  [1, 1],
];
/**
 * An arm that the body hides is guessed, and by a tracker that is nearly sure: far off in one of ten frames of the
 * first films as one phone takes them (docs/accuracy.md).
 */
const ARM_LEANS_MORE: Growth = [
  [0, 8],
  [0.4, 3.2],
  [0.7, 3],
  [0.8, 2.3],
  [0.9, 1.6],
  [0.95, 1],
  [1, 1],
];
const ARM = /Elbow|Wrist|Knuckle/;

/** On the straight line between its neighbours in the table: a curve through them would dip below 1. */
function factorAt(growth: Growth, visibility: number): number {
  const knots = growth.map(([at]) => at);
  const right = Math.min(Math.max(1, lowerBound(knots, visibility)), knots.length - 1);
  const [[from, before], [to, after]] = [growth[right - 1]!, growth[right]!];
  const share = Math.min(1, Math.max(0, (visibility - from) / (to - from)));
  return before + share * (after - before);
}

const leanOf = (landmark: Landmark) =>
  LEAN[landmark] ?? LEAN[landmark.replace(/^(left|right)/, '')]!;

/** @returns standard deviation of each coordinate that stays, as a share of the body's height */
export function biasSigma(landmark: Landmark, visibility: number): number {
  const growth = ARM.test(landmark) ? ARM_LEANS_MORE : LEANS_MORE;
  return leanOf(landmark) * factorAt(growth, visibility);
}

/** The same for a place in space before what a guess errs more: there arms are no worse than the rest. */
export function biasInSpace(landmark: Landmark, visibility: number): number {
  return leanOf(landmark) * factorAt(LEANS_MORE, visibility);
}

/** No tracker holds a point stiller than this, as a share of the body's height. */
const STILLEST = 0.0005;
/** From the median of what normal noise deviates to its standard deviation. */
const MEDIAN_TO_SIGMA = 1 / 0.6745;

/**
 * How much points shake from frame to frame, read off how far each lies from the line between its
 * neighbours: of independent noise that is √1.5 of its standard deviation.
 *
 * @param points frames ascending
 * @param stature pixels
 * @returns one standard deviation for each point, pixels
 */
export function jitterSigma(points: readonly SeenPoint[], stature: number): number[] {
  const off: number[] = [];
  for (let i = 1; i + 1 < points.length; i++) {
    const [before, now, after] = [points[i - 1]!, points[i]!, points[i + 1]!];
    const share = (now.time - before.time) / (after.time - before.time);
    for (const axis of ['x', 'y'] as const) {
      const between = before[axis] + share * (after[axis] - before[axis]);
      off.push(Math.abs(now[axis] - between));
    }
  }
  const middle = median(off) ?? 0;
  const own = Math.max(STILLEST * stature, (middle * MEDIAN_TO_SIGMA) / Math.sqrt(1.5));
  return points.map(({ visibility }) => own * factorAt(SHAKES_MORE, visibility));
}
