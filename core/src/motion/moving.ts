/** Place, velocity and acceleration of a path at an instant, from the points around or before it. */
import { length } from '../geometry/vector';
import { localFit } from '../signal/localFit';
import { lowerBound } from '../signal/interpolate';
import { AXES, type Axis, type Path } from './motion';

/** Seconds before the instant whose points count when nothing behind it may. */
export const WINDOW = 0.04;

/** Seconds; time from rest to full speed of a full-speed punch (common practice, no source). */
const TYPICAL_RISE = 0.15;

export interface MovingPoint {
  /** Per axis of the path: place, velocity, acceleration. */
  readonly at: readonly number[];
  readonly velocity: readonly number[];
  readonly acceleration: readonly number[];
  /** Standard deviation of each component. */
  readonly velocitySigma: number;
  readonly accelerationSigma: number;
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
  const inside = window(path, time - WINDOW, time);
  if (inside.length < 2) return null;
  const line = fit(path, inside, time, 1);
  if (inside.length < 4) return line;
  const parabola = fit(path, inside, time, 2);
  return parabola.velocitySigma < line.velocitySigma ? parabola : line;
}

/**
 * The same by a parabola through the points half the window either side, but none behind `wall`
 * (contact). Where there are too few, by the points before alone.
 *
 * @param time, wall seconds
 */
export function movingAround(path: Path, time: number, wall: number): MovingPoint | null {
  const reach = WINDOW / 2;
  if (time <= wall && time > wall - reach / 2) return movingAt(path, time);
  const isBefore = time <= wall;
  const from = isBefore ? time - reach : Math.max(time - reach, wall + 1e-6);
  const inside = window(path, from, isBefore ? Math.min(time + reach, wall) : time + reach);
  return inside.length < 4 ? movingAt(path, time) : fit(path, inside, time, 2);
}

function window({ times }: Path, from: number, to: number): number[] {
  const first = lowerBound(times, from - 1e-9);
  const last = lowerBound(times, to + 1e-9);
  return Array.from({ length: last - first }, (_, i) => first + i);
}

function fit(path: Path, inside: readonly number[], time: number, degree: 1 | 2): MovingPoint {
  const pick = (values: readonly number[]) => inside.map((i) => values[i]!);
  const times = pick(path.times);
  const fits = localFit(times, path.along.map(pick), pick(path.sigma), time, degree);
  const velocity = fits.map((one) => one.slope);
  const unseen = degree === 1 ? (length(velocity) * (time - times[0]!)) / 2 / TYPICAL_RISE : 0;
  return {
    at: fits.map((one) => one.value),
    velocity,
    acceleration: fits.map((one) => one.curvature),
    velocitySigma: Math.hypot(fits[0]?.slopeSigma ?? 0, unseen),
    accelerationSigma: fits[0]?.curvatureSigma ?? Infinity,
    frames: pick(path.frames),
  };
}

/** Values along a motion's own axes as a full vector (toward, up, right); unseen axes are 0. */
export function inSpace(axes: readonly Axis[], values: readonly number[]): readonly number[] {
  if (axes.length === AXES.length) return values;
  return AXES.map((axis) => {
    const i = axes.indexOf(axis);
    return i < 0 ? 0 : values[i]!;
  });
}
