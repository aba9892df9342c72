/** Place, velocity and acceleration of a path at an instant, from the points around or before it. */
import { length } from '../../foundation/geometry/vector';
import { localFit } from '../../foundation/signal/localFit';
import { lowerBound } from '../../foundation/signal/interpolate';
import { AXES, type Axis } from '../calibration/calibration';
import type { Path } from './motion';

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
  /** How far the fitted curve itself may be off, m/s, one standard deviation; neighbours share it. */
  readonly velocityDoubt: number;
  readonly accelerationSigma: number;
  readonly frames: readonly number[];
}

/**
 * By least squares through the points of the last 40 ms: a straight line, or with four or more
 * points a parabola, whichever is surer. A parabola follows a point that is still getting faster
 * but is shaken by noise; a line is steady but gives the mean velocity of its span, which differs
 * from that at its end by half of what the velocity changes meanwhile. With many points the parabola
 * is held against one through the later half of them, and what they differ beyond noise is doubt too.
 * Nothing behind the instant is used: a target stops the fist, and that must not fault back.
 *
 * @param time seconds
 * @returns null with fewer than two points in the window
 */
export function movingAt(path: Path, time: number): MovingPoint | null {
  const inside = window(path, time - WINDOW, time);
  if (inside.length < 2) return null;
  const line = fit(path, inside, time, 1);
  const span = time - path.times[inside[0]!]!;
  if (inside.length < 4) {
    return lagging(line, (length(line.velocity) * span) / 2 / TYPICAL_RISE);
  }
  const parabola = fit(path, inside, time, 2);
  const steady = lagging(line, (length(parabola.acceleration) * span) / 2);
  if (steady.velocitySigma < parabola.velocitySigma) return steady;
  const later = inside.slice(inside.length >> 1);
  return inside.length < MANY ? unheld(parabola) : heldAgainst(parabola, fit(path, later, time, 2));
}

/** What two fits differ beyond the noise of the narrower one is doubt about the wider one. */
function heldAgainst(wider: MovingPoint, narrower: MovingPoint): MovingPoint {
  const apart = length(wider.velocity.map((v, i) => v - narrower.velocity[i]!));
  const noise = narrower.velocitySigma * Math.sqrt(wider.velocity.length);
  const beyond = Math.sqrt(Math.max(0, apart ** 2 - noise ** 2));
  return {
    ...wider,
    velocityDoubt: Math.hypot(beyond, STRAY * length(wider.velocity), wider.velocityDoubt),
  };
}

/** A parabola through so few points that nothing can be held against it. */
function unheld(point: MovingPoint): MovingPoint {
  return {
    ...point,
    velocityDoubt: Math.hypot(UNHELD * length(point.velocity), point.velocityDoubt),
  };
}

/** The same where nothing tells how much it is off. */
const UNHELD = 0.05;
/** What a parabola is off in a strike's last 40 ms, relative; on the known strikes (docs/accuracy). */
const STRAY = 0.02;
/** So many points in the window tell whether a parabola is enough. */
const MANY = 8;

/** A line's own lag is each point's own. */
function lagging(point: MovingPoint, by: number): MovingPoint {
  return { ...point, velocitySigma: Math.hypot(point.velocitySigma, by) };
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
  if (inside.length < 4) return movingAt(path, time);
  const parabola = fit(path, inside, time, 2);
  const quarter = inside.length >> 2;
  const nearest = inside.slice(quarter, inside.length - quarter);
  return inside.length < MANY
    ? unheld(parabola)
    : heldAgainst(parabola, fit(path, nearest, time, 2));
}

function window({ times }: Path, from: number, to: number): number[] {
  const first = lowerBound(times, from - 1e-9);
  const last = lowerBound(times, to + 1e-9);
  return Array.from({ length: last - first }, (_, i) => first + i);
}

/**
 * The lasting error of a tracked point does not last for ever: it comes and goes over this time,
 * seconds, and is speed meanwhile; on rendered fighters (docs/accuracy.md).
 */
const DRIFTS_OVER = 0.018;

function fit(path: Path, inside: readonly number[], time: number, degree: 1 | 2): MovingPoint {
  const pick = (values: readonly number[]) =>
    values.length === 0 ? [] : inside.map((i) => values[i]!);
  const times = pick(path.times);
  const fits = localFit(times, path.along.map(pick), pick(path.sigma), time, degree);
  return {
    at: fits.map((one) => one.value),
    velocity: fits.map((one) => one.slope),
    acceleration: fits.map((one) => one.curvature),
    velocitySigma: fits[0]?.slopeSigma ?? 0,
    velocityDoubt: Math.max(0, ...pick(path.bias)) / DRIFTS_OVER,
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
