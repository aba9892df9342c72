/**
 * Contact, the end of the strike and the way home, read off the path of the striking end.
 */
import { maxIndex } from 'd3-array';
import { dot, length, minus, scaled, type Vector } from '../../foundation/geometry/vector';
import type { Motion, Path } from '../../reconstruct/motion/motion';
import { inSpace } from '../../reconstruct/motion/moving';
import { fromGuardOf, turnOf, type Series } from '../../reconstruct/motion/speeds';
import { endPath } from '../../reconstruct/motion/where';
import { lowpass } from '../../foundation/signal/butterworth';
import { derivative } from '../../foundation/signal/derivative';
import { interpolate, lowerBound } from '../../foundation/signal/interpolate';
import { localFit } from '../../foundation/signal/localFit';
import { resampleEvenly } from '../../foundation/signal/resample';
import { pathAxis, type Technique } from '../../foundation/technique/techniques';
import { markAt, type EventMark } from './events';
import { isDense } from '../../reconstruct/motion/prepare';

/** Hz, for finding the strike at all. */
const COARSE = 25;
/** A target takes the speed away within this time, seconds. */
const STOP = 0.03;
/** The path just before and behind contact that the fit rests on, seconds; at least so many frames. */
const BEFORE = { seconds: 0.025, frames: 5 };
const BEHIND = { seconds: 0.02, frames: 3 };
/** How long a stop may take, seconds: a snap to a dig. */
const STOPS = [0.004, 0.008, 0.012, 0.016, 0.022, 0.03, 0.04, 0.055];
/** A longer stop than this is no blow of a target's, seconds. */
const SHARP = 0.025;
/** Before contact no strike loses speed as fast as all of it in this time, seconds. */
const BRAKES = 0.08;
/** A strike that meets something loses this share of its speed at once. */
const STOPS_DEAD = 0.25;
/** The way back after the farthest place that tells a strike from a stretch of the arm, metres. */
const WAY_BACK = 0.1;
/** How exactly the farthest place tells where a strike at the air would have landed, seconds. */
const FARTHEST_SIGMA = 0.02;
/** A fall of speed is the strike's when it is at least this share of the largest. */
const LARGE = 0.6;
/** A body that turns less than this tells nothing of when it strikes, radians; this and the next three on strikes of two other generators. */
const TURNS_AT_LEAST = 0.15;
/** A body strikes once it has turned this share of the most, … */
const TURNED = 0.25;
/** … until it turns back; from this share on it may tremble. */
const ALL_BUT_TURNED = 0.85;
/** A body that turns farther, radians, carries the end of its limb away from guard and back past it. */
const TURNS_ROUND = 2;
/**
 * A tracked end that meets a target of its own colour, or hides behind it, is seen to stop early or
 * to go on; seconds, one standard deviation, on rendered fighters (docs/accuracy.md).
 */
const TRACKED_CONTACT = 0.02;
/** How far a real path strays from a parabola and an even stop, metres. */
const STRAY = 0.0015;

/**
 * An elbow goes through what it meets, and so hardly shows where it met it; a limb that arrives on a curve or
 * at its full length slows down by itself. One standard deviation, seconds, on three families of made-up bodies.
 */
const GOES_THROUGH = 0.028;
const SLOWS_ITSELF = 0.004;

function unlike({ family, along }: Technique): number {
  if (family === 'elbow') return GOES_THROUGH;
  return family === 'kick' || along === 'path' ? SLOWS_ITSELF : 0;
}

interface Track {
  readonly times: readonly number[];
  readonly points: readonly Vector[];
  readonly velocity: readonly Vector[];
}

function coarse(path: Path, motion: Motion): Track {
  const series = path.along.map((values) => resampleEvenly(path.times, values));
  const { times, rate } = series[0]!;
  const smooth = series.map(({ values }) => lowpass(values, COARSE, rate));
  const rates = smooth.map((values) => derivative(values, times));
  const vector = (lists: readonly (readonly number[])[], i: number) =>
    inSpace(
      motion.axes,
      lists.map((values) => values[i]!),
    );
  return {
    times,
    points: times.map((_, i) => vector(smooth, i)),
    velocity: times.map((_, i) => vector(rates, i)),
  };
}

/** Speed that counts for a technique: toward the target, or along the end's own path. */
const speedOn = ({ along }: Technique, velocity: Vector) =>
  along === 'target' ? velocity[0]! : length(velocity);

/**
 * Whether the end is on its way out: away from guard, or the way its technique is named after. A fist that dips to
 * rise goes away from guard before and back past it then, and an elbow is raised over its guard to drop.
 */
function isOut({ start }: Technique, velocity: Vector, fromGuard: Vector): boolean {
  if (start === 'drop') return velocity[1]! < 0;
  return start === 'rise' ? velocity[1]! > 0 : dot(velocity, fromGuard) > 0;
}

/** An arm that sets its angle falls in speed too; the strike itself is the last of the large falls. */
function lastLarge(falls: readonly number[]): number {
  const most = Math.max(...falls);
  let at = falls.length - 1;
  while (at > 0 && falls[at]! < LARGE * most) at--;
  while (at > 0 && falls[at - 1]! > falls[at]!) at--;
  return at;
}

/** When the body strikes, whatever its limb does. */
interface Striking {
  /** By the index of a time. */
  readonly is: (index: number) => boolean;
  /** Whether it turns so far that where the limb goes tells nothing. */
  readonly isRound: boolean;
}

/**
 * An arm that is raised, set or wound up before may be as fast as the strike and stop as suddenly, and so may its way
 * home, when the body turns back: the turn of the body tells which of the stops is the strike's. Toward the target
 * nothing goes home.
 *
 * @param step of times, over which its turn is looked at
 * @returns null where the turn is not seen, or is too little to tell
 */
function bodyStrikes(
  motion: Motion,
  { along, family }: Technique,
  times: readonly number[],
  step: number,
): Striking | null {
  if (along === 'target') return { is: () => true, isRound: false };
  const turn = turnOf(motion, family === 'kick' ? 'pelvis' : 'trunk');
  if (!turn || turn.times.length < 2) return null;
  const turned = times.map((time) => interpolate(turn.times, turn.values, time));
  const start = turned[0]!;
  const most = Math.max(...turned) - start;
  if (!(most > TURNS_AT_LEAST)) return null;
  const is = (i: number) => {
    const share = (turned[i]! - start) / most;
    const isTurning = turned[i]! >= turned[Math.max(0, i - step)]!;
    return share > ALL_BUT_TURNED || (share > TURNED && isTurning);
  };
  return { is, isRound: most > TURNS_ROUND };
}

/**
 * The moment at which the striking end, at speed, suddenly loses it: the largest fall of speed
 * within 30 ms, then made exact by fitting the path up to contact and its stop behind it. Where there
 * is no such fall (a strike at the air), the place where it reaches farthest.
 *
 * @returns null when the end's path is not dense, when the view does not show the way to the target,
 *   when the path neither stops nor comes back, or when limb and body name different stops
 */
export function proposeContact(motion: Motion, technique: Technique): EventMark | null {
  const path = endPath(motion, 'raw');
  if (!path || !isDense(path) || motion.axes.length === 0) return null;
  if (technique.along === 'target' && !motion.axes.includes('toward')) return null;
  const { times, points, velocity } = coarse(path, motion);
  const speed = velocity.map((v) => speedOn(technique, v));
  const frame = times[1]! - times[0]!;
  const step = Math.max(1, Math.round(STOP / frame));
  const fallsWhile = (isStriking: (index: number) => boolean) =>
    speed.map((now, i) =>
      isStriking(i) ? now - Math.max(0, speed[Math.min(i + step, speed.length - 1)]!) : 0,
    );
  const start = points[0]!;
  const falls = fallsWhile((i) => isOut(technique, velocity[i]!, minus(points[i]!, start)));
  const most = Math.max(...falls);
  if (!(most > 0)) return null;
  // On a curved way speed falls and rises as the limb turns; only toward the target does a fall that
  // is small mean that nothing was hit.
  const isSoft = technique.along === 'target' && most < STOPS_DEAD * Math.max(...speed);
  if (isSoft) return farthest(motion, times, points);
  let at = lastLarge(falls);
  const body = bodyStrikes(motion, technique, times, step);
  if (body) {
    const byBody = maxIndex(fallsWhile(body.is));
    if (body.isRound) at = byBody;
    // Where the body says otherwise than the limb, nobody can tell which of its stops is the strike's.
    else if (Math.abs(times[byBody]! - times[at]!) > STOP + frame) return null;
  }
  // The end was fastest a little before its largest fall.
  let peak = at;
  for (let i = lowerBound(times, times[at]! - 2 * STOP); i <= at; i++)
    if (speed[i]! > speed[peak]!) peak = i;
  const direction = scaled(velocity[at]!, 1 / length(velocity[at]!));
  const last = times[Math.min(at + step, times.length - 1)]!;
  const found = exactly(path, motion, direction, times[peak]!, [times[at]! - 0.02, last]);
  return found && { ...found, sigma: Math.hypot(found.sigma, unlike(technique)) };
}

/**
 * A strike at the air that slows down gently: where it reaches farthest, if it comes back from there.
 */
function farthest(
  motion: Motion,
  times: readonly number[],
  points: readonly Vector[],
): EventMark | null {
  if (!motion.metric) return null;
  const reach = points.map((point) => point[0]!);
  let at = 0;
  reach.forEach((value, i) => (at = value > reach[at]! ? i : at));
  const back = reach[at]! - Math.min(...reach.slice(at));
  return back < WAY_BACK
    ? null
    : markAt(motion.frameTimes, times[at]!, FARTHEST_SIGMA, motion.source);
}

/** Contact within a stretch of the path, to a fraction of a frame. */
function exactly(
  path: Path,
  motion: Motion,
  direction: Vector,
  fastest: number,
  [from, to]: readonly [number, number],
): EventMark | null {
  const along = path.times.map((_, i) =>
    dot(
      inSpace(
        motion.axes,
        path.along.map((values) => values[i]!),
      ),
      direction,
    ),
  );
  const frame = (path.times[path.times.length - 1]! - path.times[0]!) / (path.times.length - 1);
  const fine = Math.min(frame / 4, 0.001);
  const near = around(path, along, from - 2 * STOP, to + 2 * STOP);
  const tried: { time: number; misfit: number; stop: number }[] = [];
  for (let time = from; time <= to; time += fine) {
    for (const stop of STOPS) {
      const misfit = misfitOf(near, time, stop, frame);
      if (Number.isFinite(misfit)) tried.push({ time, misfit, stop });
    }
  }
  const best = tried.reduce((a, b) => (b.misfit < a.misfit ? b : a), tried[0]!);
  if (!best) return null;
  // As far as the misfit (χ²) stays within 1 of its least: one parameter, 68 %.
  const close = tried.filter(({ misfit }) => misfit <= best.misfit + 1);
  const spread = (close[close.length - 1]!.time - close[0]!.time) / 2;
  // The longer the stop, the less a film without a target tells of where it began: then contact lies
  // between the fastest moment and where the fit has it.
  const isSharp = best.stop <= SHARP;
  const time = isSharp ? best.time : (best.time + Math.min(fastest, best.time)) / 2;
  const doubt = isSharp
    ? Math.max(best.stop / 4, frame / 2)
    : Math.max(best.stop / 3, Math.abs(best.time - fastest) / 2);
  const hidden = path.isTracked ? TRACKED_CONTACT : 0;
  return markAt(motion.frameTimes, time, Math.hypot(spread, doubt, hidden), motion.source);
}

interface Way {
  readonly times: readonly number[];
  readonly along: readonly number[];
  readonly sigma: readonly number[];
}

function around(path: Path, along: readonly number[], from: number, to: number): Way {
  const first = lowerBound(path.times, from);
  const last = lowerBound(path.times, to);
  return {
    times: path.times.slice(first, last),
    along: along.slice(first, last),
    sigma: path.sigma.slice(first, last).map((sigma) => Math.hypot(sigma, STRAY)),
  };
}

/**
 * χ² of the path around a supposed contact, as if all had the same number of samples. Up to contact
 * a parabola; behind it the speed falls as under a half-sine push of the target, the textbook shape
 * of an impact: x = x_c + v (τ/2 + s/2π · sin(πτ/s)) for a stop that takes s.
 */
function misfitOf(way: Way, contact: number, stop: number, frame: number): number {
  const before = Math.max(BEFORE.seconds, BEFORE.frames * frame);
  const behind = Math.max(BEHIND.seconds, BEHIND.frames * frame, stop);
  const first = lowerBound(way.times, contact - before - 1e-9);
  const wall = lowerBound(way.times, contact + 1e-9);
  const last = lowerBound(way.times, contact + behind);
  if (wall - first < 4 || last - wall < 2) return Infinity;
  const [fit] = localFit(
    way.times.slice(first, wall),
    [way.along.slice(first, wall)],
    way.sigma.slice(first, wall),
    contact,
    2,
  );
  const { value, slope, curvature } = fit!;
  // Slowing down as hard as this, the end has met something already.
  if (slope <= 0 || curvature < -slope / BRAKES) return Infinity;
  let sum = 0;
  for (let i = first; i < last; i++) {
    const dt = way.times[i]! - contact;
    const slowing = Math.min(dt, stop);
    const expected =
      dt <= 0
        ? value + slope * dt + (curvature / 2) * dt * dt
        : value +
          slope * (slowing / 2 + (stop / (2 * Math.PI)) * Math.sin((Math.PI * slowing) / stop));
    sum += ((way.along[i]! - expected) / way.sigma[i]!) ** 2;
  }
  return (sum / (last - first)) * ((before + BEHIND.seconds) / frame);
}

/** A strike follows through for no longer than this, seconds. */
const LONGEST_FOLLOW = 0.34;
/** Samples either side over which the speed behind contact is taken; one where two last too long. */
const HALF = 2;
/** How unsure the stop is, frames. */
const STOP_FRAMES = 2.5;
/** Seconds within which a hand that snaps back has stopped and turned. */
const TURNS = 0.01;
/** At this share of its speed before contact the end has stopped. */
const STOPPED = 0.05;
/** From this share on, and until there is none left, it may be the body that still drifts. */
const SLOW = 0.15;
/**
 * From STOPPED on, what is left of the way to a stop in parts of the time from SLOW to STOPPED: 0.5 if it slows down
 * evenly, 1.4 if it ebbs away as (T − t)².
 */
const LEFT = 0.9;
/**
 * That time, seconds, of a follow-through as long as there is, (T − t)²: a tenth of it. An end that stays slow for
 * longer does not ebb away but is on its way home aslant.
 */
const LONGEST_EBB = 0.1 * LONGEST_FOLLOW;

/**
 * The strike stops travelling: its speed along its direction at contact comes to nothing.
 *
 * @returns null when it never does within a third of a second, the path is not dense, or the view does not show
 *   the way to the target
 */
export function proposeEnd(
  motion: Motion,
  technique: Technique,
  contact: EventMark,
): EventMark | null {
  const path = endPath(motion, 'raw');
  // From the front and from behind the way into the target is not seen, only what is across it.
  const isShown = (['toward', pathAxis(technique)] as const).every((axis) =>
    motion.axes.includes(axis),
  );
  if (!path || !isDense(path) || !isShown) return null;
  const before = window(path, contact.time - 0.02, contact.time);
  if (before.length < 2) return null;
  const place = (i: number) =>
    inSpace(
      motion.axes,
      path.along.map((values) => values[i]!),
    );
  const way = minus(place(before[before.length - 1]!), place(before[0]!));
  const direction = scaled(way, 1 / length(way));
  const arriving = rate(path, place, direction, before);
  const after = window(path, contact.time + 1e-6, contact.time + LONGEST_FOLLOW);
  const spacing = after.length > 1 ? path.times[after[1]!]! - path.times[after[0]!]! : 0;
  const half = HALF * spacing > TURNS ? 1 : HALF;
  const speeds: { time: number; share: number }[] = [];
  for (let k = half; k + half < after.length; k++) {
    const near = after.slice(k - half, k + half + 1);
    speeds.push({
      time: path.times[after[k]!]!,
      share: rate(path, place, direction, near) / arriving,
    });
  }
  const fallsTo = (share: number) => speeds.find((one) => one.share <= share)?.time ?? null;
  const time = fallsTo(STOPPED);
  if (time === null) return null;
  if (time === speeds[0]!.time) {
    // It has stopped before it could first be looked at: anywhere from contact to then.
    const middle = (contact.time + time) / 2;
    const sigma = Math.hypot((time - contact.time) / Math.sqrt(12), spacing);
    return markAt(motion.frameTimes, middle, sigma, motion.source);
  }
  const last = fallsTo(0) ?? speeds[speeds.length - 1]!.time;
  const slow = time - fallsTo(SLOW)!;
  const ebbs = Math.max(slow, last - time) / 2;
  const stops = slow < LONGEST_EBB ? time + LEFT * Math.max(0, slow - spacing) : time;
  return markAt(motion.frameTimes, stops, Math.hypot(STOP_FRAMES * spacing, ebbs), motion.source);
}

/** Mean speed along a direction over some samples, by least squares. */
function rate(
  path: Path,
  place: (i: number) => Vector,
  direction: Vector,
  samples: readonly number[],
): number {
  const times = samples.map((i) => path.times[i]!);
  const along = samples.map((i) => dot(place(i), direction));
  return localFit(
    times,
    [along],
    samples.map(() => 1),
    times[0]!,
    1,
  )[0]!.slope;
}

/** Home: within this of where the end was in guard, metres. */
const HOME = 0.1;
/** How far a tracked hand's way home strays, seconds; on rendered fighters (docs/accuracy.md). */
const TRACKED_HOME = 0.04;
/** After a hand was slowest that never stopped, a film goes on for so long, seconds: tried on films cut short. */
const GOES_ON = 0.05;
/** A hand that never gets near its guard has come home when at most this share of the way is left; on the same. */
const MOST_LEFT = 0.6;
/** Home: slowed down to this share of the way home's own peak. */
const SLOWED = 0.1;

/**
 * The striking end is back: the first time after the end that it is within 10 cm of its guard and
 * has all but stopped; or, if it never gets that near, where it is slowest after most of its way home, in a film
 * that does not end there. A hand
 * is home when it is back on the body that carries it; a foot when it is back on the floor.
 *
 * @returns null, too, where the view does not show the whole way home: a hand's from the side, a foot's from above
 */
export function proposeHome(
  motion: Motion,
  technique: Technique,
  ready: EventMark,
  end: EventMark,
): EventMark | null {
  if (motion.axes.length === 0 || !motion.metric) return null;
  const away =
    technique.family === 'kick' ? fromGuard(motion, ready) : fromGuardOf(motion, technique, 'raw');
  if (!away || !isDense(away)) return null;
  const even = resampleEvenly(away.times, away.values);
  const distance = lowpass(even.values, COARSE, even.rate);
  const rate = derivative(distance, even.times);
  const speed = rate.map(Math.abs);
  const { times } = even;
  const tracked = endPath(motion, 'raw')?.isTracked ? TRACKED_HOME : 0;
  const from = lowerBound(times, end.time);
  const guard = distance[Math.min(lowerBound(times, ready.time), times.length - 1)]!;
  let peak = from;
  let slowest: number | null = null;
  const step = times[1]! - times[0]!;
  for (let i = from; i < times.length; i++) {
    if (speed[i]! > speed[peak]!) [peak, slowest] = [i, null];
    if (slowest === null || speed[i]! < speed[slowest]!) slowest = i;
    const isNear = Math.abs(distance[i]! - guard) < HOME;
    // Where frames are few it stops and leaves again between two of them.
    const hasTurned = i > from && rate[i]! * rate[i - 1]! < 0;
    if (i > peak && isNear && (hasTurned || speed[i]! < SLOWED * speed[peak]!)) {
      return markAt(motion.frameTimes, times[i]!, Math.hypot(2 * step, tracked), motion.source);
    }
  }
  if (slowest === null || slowest <= peak) return null;
  // A film that ends on the way home shows its last frame, not home.
  const hasStopped = speed[slowest]! < SLOWED * speed[peak]!;
  const goesOn = times[times.length - 1]! - times[slowest]! >= GOES_ON;
  const left = (i: number) => Math.abs(distance[i]! - guard);
  const hasCome = left(slowest) < MOST_LEFT * left(from);
  return !hasCome || (!hasStopped && !goesOn)
    ? null
    : markAt(motion.frameTimes, times[slowest]!, Math.hypot(4 * step, tracked), motion.source);
}

/** How far a foot is from where it was at ready, in the picture or in space. */
function fromGuard(motion: Motion, ready: EventMark): Series | null {
  const path = endPath(motion, 'raw');
  if (!path || !motion.axes.includes('up')) return null;
  const at = Math.min(lowerBound(path.times, ready.time), path.times.length - 1);
  const values = path.times.map((_, i) =>
    Math.hypot(...path.along.map((axis) => axis[i]! - axis[at]!)),
  );
  return { frames: path.frames, times: path.times, values, unit: 'm' };
}

function window({ times }: Path, from: number, to: number): number[] {
  const first = lowerBound(times, from - 1e-9);
  const last = lowerBound(times, to + 1e-9);
  return Array.from({ length: Math.max(0, last - first) }, (_, i) => first + i);
}
