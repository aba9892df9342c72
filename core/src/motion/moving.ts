/** Place and velocity of a path at an instant, from the points up to it and none behind. */
import { length } from '../geometry/vector';
import { localFit } from '../signal/localFit';
import { AXES, type Axis, type Path } from './motion';

/** Seconds before the instant whose points count. */
export const WINDOW = 0.04;

/** Seconds; time from rest to full speed of a full-speed punch (common practice, no source). */
const TYPICAL_RISE = 0.15;

export interface MovingPoint {
  /** Per axis of the path: place, velocity, change of velocity. */
  readonly at: readonly number[];
  readonly velocity: readonly number[];
  readonly acceleration: readonly number[];
  /** Standard deviation of each component of the velocity. */
  readonly velocitySigma: number;
  readonly frames: readonly number[];
}

/**
 * By least squares through the points of the last 40 ms: a straight line, or with four or more
 * points a parabola, whichever is surer. A parabola follows a point that is still getting faster
 * but is shaken by noise; a line is steady but gives the mean velocity of its span, which differs
 * from that at its end by about half the span in a strike that takes `TYPICAL_RISE` to get fast.
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
  const line = fit(path, inside, time, 1);
  if (inside.length < 4) return line;
  const parabola = fit(path, inside, time, 2);
  return parabola.velocitySigma < line.velocitySigma ? parabola : line;
}

function fit(path: Path, inside: readonly number[], time: number, degree: 1 | 2): MovingPoint {
  const pick = (values: readonly number[]) => inside.map((i) => values[i]!);
  const times = pick(path.times);
  const fits = path.along.map((values) =>
    localFit(times, pick(values), pick(path.sigma), time, degree),
  );
  const velocity = fits.map((one) => one.slope);
  const unseen = degree === 1 ? (length(velocity) * (time - times[0]!)) / 2 / TYPICAL_RISE : 0;
  return {
    at: fits.map((one) => one.value),
    velocity,
    acceleration: fits.map((one) => one.curvature),
    velocitySigma: Math.hypot(fits[0]?.slopeSigma ?? 0, unseen),
    frames: pick(path.frames),
  };
}

/** Values along a motion's own axes as a full vector (toward, up, right); unseen axes are 0. */
export function inSpace(axes: readonly Axis[], values: readonly number[]): number[] {
  return AXES.map((axis) => {
    const i = axes.indexOf(axis);
    return i < 0 ? 0 : values[i]!;
  });
}
