/** Place, velocity and acceleration of a path at an instant, from the points around or before it. */
import { lowerBound } from '../../foundation/signal/interpolate';
import { movingBy, type Expected } from '../../foundation/signal/kriging';
import { AXES, type Axis } from '../calibration/calibration';
import type { Path } from './motion';

/** Seconds before the instant whose points count when nothing behind it may. */
export const WINDOW = 0.06;

/** Seconds; time from rest to full speed of a full-speed punch (common practice, no source). */
const TYPICAL_RISE = 0.15;

/**
 * The lasting error of a tracked point does not last for ever: it comes and goes over this time,
 * seconds, and is speed meanwhile; on rendered fighters (docs/accuracy.md).
 */
const DRIFTS_OVER = 0.018;

export interface MovingPoint {
  /** Per axis of the path: place, velocity, acceleration. */
  readonly at: readonly number[];
  readonly velocity: readonly number[];
  readonly acceleration: readonly number[];
  /** Standard deviation of each component: noise, and how little is known of the way between points. */
  readonly velocitySigma: number;
  /** How far a lasting error may fault the velocity, m/s, one standard deviation; neighbours share it. */
  readonly velocityDoubt: number;
  /** Infinite with too few points to tell. */
  readonly accelerationSigma: number;
  readonly frames: readonly number[];
}

/**
 * From the points of the last 60 ms. Nothing behind the instant is used: a target stops the fist, and that
 * must not fault back.
 *
 * @param time seconds
 * @param isFastest whether it is about as fast then as it will be, as the striking end is at contact
 * @returns null with fewer than two points in the window
 */
export function movingAt(path: Path, time: number, isFastest = false): MovingPoint | null {
  return movingFrom(path, window(path, time - WINDOW, time), time, isFastest);
}

/**
 * The same of an end whose contact somebody has marked on a frame: by then it may have been stopped for up to half a
 * frame, and may not. Whichever it was, the speed is between what its points tell with that frame and without it.
 *
 * @param late seconds by which the mark may come after contact
 */
export function movingAtMark(path: Path, time: number, late: number): MovingPoint | null {
  const whole = movingAt(path, time, true);
  const before = window(path, time - WINDOW, time - late);
  const early = before.length < 3 ? null : movingFrom(path, before, time, true);
  if (!whole || !early) return whole;
  const velocity = whole.velocity.map((one, axis) => (one + early.velocity[axis]!) / 2);
  const apart = velocity.reduce((most, one, axis) => {
    return Math.max(most, Math.abs(one - whole.velocity[axis]!));
  }, 0);
  const noise = Math.hypot(whole.velocitySigma, early.velocitySigma) / Math.SQRT2;
  // Anywhere between the two.
  return { ...whole, velocity, velocitySigma: Math.hypot(noise, apart / Math.sqrt(3)) };
}

/**
 * The same from the points 30 ms either side, but none behind `wall` (contact). Where there are too few, from
 * the points before alone.
 *
 * @param time, wall seconds
 * @param isFastest whether it is about as fast at the wall as it will be
 */
export function movingAround(
  path: Path,
  time: number,
  wall: number,
  isFastest = false,
): MovingPoint | null {
  const reach = WINDOW / 2;
  if (time <= wall && time > wall - reach / 4) return movingAt(path, time, isFastest);
  const isBefore = time <= wall;
  const from = isBefore ? time - reach : Math.max(time - reach, wall + 1e-6);
  const inside = window(path, from, isBefore ? Math.min(time + reach, wall) : time + reach);
  return inside.length < 4 ? movingAt(path, time) : movingFrom(path, inside, time, false);
}

/** The same by differences between neighbouring frames on one side of `wall`; its doubts are left out. */
export function roughlyMoving(path: Path, time: number, wall: number): MovingPoint | null {
  const { times, along, frames } = path;
  const isBefore = time <= wall;
  const isHere = (k: number) => times[k] !== undefined && times[k]! <= wall === isBefore;
  let i = Math.min(lowerBound(times, time - 1e-9), times.length - 1);
  if (!isHere(i + 1)) i -= 1;
  if (!isHere(i - 1)) i += 1;
  if (!isHere(i - 1) || !isHere(i) || !isHere(i + 1)) return null;
  const [before, after] = [times[i]! - times[i - 1]!, times[i + 1]! - times[i]!];
  const slopes = along.map((values) => [
    (values[i]! - values[i - 1]!) / before,
    (values[i + 1]! - values[i]!) / after,
  ]);
  const acceleration = slopes.map(([a, b]) => (2 * (b! - a!)) / (before + after));
  const off = time - times[i]!;
  return {
    at: along.map((values) => values[i]!),
    velocity: slopes.map(([a, b], axis) => (a! + b!) / 2 + acceleration[axis]! * off),
    acceleration,
    velocitySigma: 0,
    velocityDoubt: 0,
    accelerationSigma: 0,
    frames: [frames[i]!],
  };
}

function window({ times }: Path, from: number, to: number): number[] {
  const first = lowerBound(times, from - 1e-9);
  const last = lowerBound(times, to + 1e-9);
  return Array.from({ length: last - first }, (_, i) => first + i);
}

/** A tracker follows a hand late and smoothly: what looks like a stop in its points is no stop. */
function expected({ isTracked }: Path, isFastest: boolean): Expected {
  if (!isFastest) return 'anything';
  return isTracked ? 'full-speed' : 'full-speed-or-stop';
}

function movingFrom(
  path: Path,
  inside: readonly number[],
  time: number,
  isFastest: boolean,
): MovingPoint | null {
  if (inside.length < 2) return null;
  const pick = (values: readonly number[]) => inside.map((i) => values[i]!);
  const found = movingBy(
    pick(path.times),
    path.along.map(pick),
    pick(path.sigma),
    path.hangs,
    time,
    TYPICAL_RISE,
    expected(path, isFastest),
  );
  return {
    at: found.values,
    velocity: found.slopes,
    acceleration: found.curvatures,
    velocitySigma: found.slopeSigma,
    velocityDoubt: Math.max(0, ...pick(path.bias)) / DRIFTS_OVER,
    accelerationSigma: inside.length < 4 ? Infinity : found.curvatureSigma,
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
