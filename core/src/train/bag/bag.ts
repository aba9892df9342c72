/** A hanging bag seen from the side: how far a blow swings it. */
import { mean, deviation } from 'd3-array';
import { inverse, Matrix } from 'ml-matrix';
import { absent, reading, type Measured } from '../../foundation/reading/reading';
import type { Place } from './patch';

export interface SeenAt extends Place {
  /** Real seconds. */
  readonly time: number;
  readonly frame: number;
}

/** Frames on each side of the furthest one that its parabola is laid through. */
const ROUND_THE_TOP = 6;
/** Movement below this share of the furthest swing is hanging still. */
const STILL = 0.05;

/**
 * Largest angle from hanging, rad, of the first swing. The angle is taken about the hook; where it
 * hung is the mean before it moved; the top is the vertex of a parabola through the frames around it
 * (a swing is a cosine there), σ from how they scatter about it and from how still it hung.
 *
 * @param hook pixels
 * @param points of one place on the bag, in the order of time
 */
export function swingOf(hook: Place, points: readonly SeenAt[]): Measured {
  const angles = points.map(({ x, y }) => Math.atan2(x - hook.x, y - hook.y));
  const start = angles[0];
  if (start === undefined || points.length < 2 * ROUND_THE_TOP + 1) {
    return absent('Too few frames show the bag: film until it swings back.');
  }
  const away = angles.map((angle) => Math.abs(angle - start));
  const top = firstTop(away);
  if (top === null) return absent('The bag does not swing back in this film.');
  const moves = away.findIndex((one) => one > STILL * away[top]!);
  const still = angles.slice(0, Math.max(1, moves));
  const rest = mean(still)!;
  const scatter = deviation(still) ?? 0;
  const around = points.slice(top - ROUND_THE_TOP, top + ROUND_THE_TOP + 1);
  const values = around.map((_, i) => Math.abs(angles[top - ROUND_THE_TOP + i]! - rest));
  const { vertex, sigma } = parabola(
    around.map(({ time }) => time - points[top]!.time),
    values,
  );
  const frames = [points[0]!.frame, points[top]!.frame];
  return reading(vertex, 'rad', Math.hypot(sigma, scatter), 'measured-2d', frames);
}

/** The first place that is highest for some frames to both sides, and well above the start. */
function firstTop(away: readonly number[]): number | null {
  const most = Math.max(...away);
  for (let i = ROUND_THE_TOP; i < away.length - ROUND_THE_TOP; i++) {
    const near = away.slice(i - ROUND_THE_TOP, i + ROUND_THE_TOP + 1);
    if (away[i]! > 0.5 * most && away[i] === Math.max(...near)) return i;
  }
  return null;
}

/** Least squares y = a + b t + c t². @returns the height of the vertex, with one σ */
function parabola(
  times: readonly number[],
  values: readonly number[],
): { vertex: number; sigma: number } {
  const n = times.length;
  const powers = new Matrix(times.map((t) => [1, t, t * t]));
  const seen = Matrix.columnVector([...values]);
  const normal = inverse(powers.transpose().mmul(powers));
  const fit = normal.mmul(powers.transpose()).mmul(seen);
  const [a, b, c] = fit.to1DArray() as [number, number, number];
  const misfit = Matrix.sub(seen, powers.mmul(fit)).norm('frobenius') ** 2;
  const top = -b / (2 * c);
  const weights = new Matrix([[1, top, top * top]]);
  const spread = weights.mmul(normal).mmul(weights.transpose()).get(0, 0);
  return { vertex: a - (b * b) / (4 * c), sigma: Math.sqrt((misfit / (n - 3)) * spread) };
}
