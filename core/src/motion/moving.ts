/** Place and velocity of a path at an instant, from the points up to it and none behind. */
import { localFit } from '../signal/localFit';
import type { Axis, Path } from './motion';

/** Seconds before the instant whose points count. */
export const WINDOW = 0.04;

export interface MovingPoint {
  /** Per axis of the path: place, velocity, its σ, and the change of velocity. */
  readonly at: readonly number[];
  readonly velocity: readonly number[];
  readonly velocitySigma: number;
  readonly acceleration: readonly number[];
  readonly frames: readonly number[];
  /** Seconds from the first point used to the instant. */
  readonly span: number;
  /** Of the polynomial fitted. */
  readonly degree: 1 | 2;
}

/**
 * A parabola through four or more points of the last 40 ms, a straight line through two or three.
 * Nothing behind the instant is used: a target stops the fist, and that must not leak back.
 *
 * @param time seconds
 * @returns null with fewer than two points in the window
 */
export function movingAt(path: Path, time: number): MovingPoint | null {
  const inside = path.times.flatMap((t, i) =>
    t >= time - WINDOW - 1e-9 && t <= time + 1e-9 ? [i] : [],
  );
  if (inside.length < 2) return null;
  const pick = (values: readonly number[]) => inside.map((i) => values[i]!);
  const degree = inside.length < 4 ? 1 : 2;
  const times = pick(path.times);
  const fits = path.along.map((values) =>
    localFit(times, pick(values), pick(path.sigma), time, degree),
  );
  return {
    at: fits.map((fit) => fit.value),
    velocity: fits.map((fit) => fit.slope),
    velocitySigma: fits[0]?.slopeSigma ?? 0,
    acceleration: fits.map((fit) => fit.curvature),
    frames: pick(path.frames),
    span: time - times[0]!,
    degree,
  };
}

/** Values along a motion's own axes as a full vector (toward, up, right); unseen axes are 0. */
export function inSpace(axes: readonly Axis[], values: readonly number[]): number[] {
  return (['toward', 'up', 'right'] as const).map((axis) => {
    const i = axes.indexOf(axis);
    return i < 0 ? 0 : values[i]!;
  });
}
