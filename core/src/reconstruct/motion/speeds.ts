/**
 * How each link moves, as one number over time: an angle for a link that turns, a length for a point
 * that travels. What starts and peaks are read off.
 */
import { maxIndex, median } from 'd3-array';
import { between } from '../../foundation/geometry/angles';
import { angleAt, dot, length, minus, scaled, type Vector } from '../../foundation/geometry/vector';
import { pathAxis, type Technique } from '../../foundation/technique/techniques';
import { lowerBound } from '../../foundation/signal/interpolate';
import { sided, type Landmark, type SidedPart } from '../../foundation/body/landmarks';
import type { Motion, Path, PathSet } from './motion';
import { inSpace } from './moving';
import { turnSeries } from './turn';
import { endPath, shared } from './where';

export interface Series {
  readonly frames: readonly number[];
  readonly times: readonly number[];
  /** Radians or metres (pixels without a scale); growing as the strike goes. */
  readonly values: readonly number[];
  readonly unit: 'rad' | 'm';
  /** By how much its start strays beside its noise, seconds, one standard deviation; on known strikes. */
  readonly strays?: number;
}

/** Turn of pelvis or trunk into the strike, radians. */
export function turnOf(
  motion: Motion,
  link: 'pelvis' | 'trunk',
  from: PathSet = 'paths',
): Series | null {
  const turn = turnSeries(motion, link, from);
  if (!turn) return null;
  const { frames, times, yaw } = turn;
  return { frames, times, values: yaw.map((angle) => motion.turnSign * angle), unit: 'rad' };
}

/** The middle of the hips along an axis, metres. */
export function hipsAlong(
  motion: Motion,
  axis: 'toward' | 'up',
  sign: 1 | -1,
  from: PathSet = 'paths',
): Series | null {
  const { leftHip, rightHip } = motion[from];
  const i = motion.axes.indexOf(axis);
  if (!leftHip || !rightHip || i < 0) return null;
  const pairs = shared(leftHip, rightHip);
  return {
    frames: pairs.map(([l]) => leftHip.frames[l]!),
    times: pairs.map(([l]) => leftHip.times[l]!),
    values: pairs.map(([l, r]) => (sign * (leftHip.along[i]![l]! + rightHip.along[i]![r]!)) / 2),
    unit: 'm',
  };
}

/** What the start of the hips is read off. */
export function hipsOf(motion: Motion, { start }: Technique, from: PathSet): Series | null {
  if (start === 'turn') return turnOf(motion, 'pelvis', from);
  return start === 'thrust'
    ? hipsAlong(motion, 'toward', 1, from)
    : hipsAlong(motion, 'up', start === 'rise' ? 1 : -1, from);
}

/** Where several paths have a point on the same frame: their points, as full vectors. */
function together(
  motion: Motion,
  paths: readonly (Path | null | undefined)[],
): { frame: number; time: number; points: Vector[] }[] {
  if (paths.some((path) => !path)) return [];
  const known = paths as readonly Path[];
  const first = known[0]!;
  const rows = new Map<number, number[]>(first.frames.map((frame, i) => [frame, [i]]));
  for (const path of known.slice(1)) {
    path.frames.forEach((frame, i) => rows.get(frame)?.push(i));
  }
  return [...rows].flatMap(([frame, indices]) => {
    if (indices.length < known.length) return [];
    const points = known.map((path, k) =>
      inSpace(
        motion.axes,
        path.along.map((values) => values[indices[k]!]!),
      ),
    );
    return [{ frame, time: first.times[indices[0]!]!, points }];
  });
}

function series(
  rows: readonly { frame: number; time: number; points: Vector[] }[],
  unit: Series['unit'],
  value: (points: Vector[]) => number,
): Series | null {
  if (rows.length === 0) return null;
  return {
    frames: rows.map((row) => row.frame),
    times: rows.map((row) => row.time),
    values: rows.map((row) => value(row.points)),
    unit,
  };
}

/**
 * A distance from where something was first never falls below nothing, and so noise at rest makes
 * it creep. Measured from a place this far back along the way it will go, it is as free to be less as
 * to be more.
 */
const STEP_BACK = 0.05;
/** Where the way it goes is read off: when it has come this share of its farthest. */
const UNDER_WAY = 0.3;
/** Seconds at the start of the series taken as rest. */
const AT_REST = 0.05;

function atRest<T extends { time: number }>(rows: readonly T[]): readonly T[] {
  return rows.filter(({ time }) => time <= rows[0]!.time + AT_REST);
}

const unit = (vector: Vector) => scaled(vector, 1 / length(vector));

function meanOf(points: readonly Vector[]): Vector {
  return points[0]!.map((_, i) => points.reduce((sum, p) => sum + p[i]!, 0) / points.length);
}

interface Placed {
  readonly frame: number;
  readonly time: number;
  readonly point: Vector;
}

/**
 * How far a point has gone from a place, metres.
 *
 * @param begins row from which on it is under way
 */
function travelled(rows: readonly Placed[], from?: Vector, begins = 0): Series | null {
  if (rows.length === 0) return null;
  const start = from ?? meanOf(atRest(rows).map(({ point }) => point));
  const away = rows.map(({ point }) => length(minus(point, start)));
  const most = Math.max(...away.slice(begins));
  const at = away.findIndex((value, i) => i >= begins && value >= UNDER_WAY * most);
  if (!(most > 0)) return null;
  const ahead = minus(rows[at]!.point, start);
  const back = minus(start, scaled(ahead, STEP_BACK / length(ahead)));
  return {
    frames: rows.map(({ frame }) => frame),
    times: rows.map(({ time }) => time),
    values: rows.map(({ point }) => length(minus(point, back)) - STEP_BACK),
    unit: 'm',
  };
}

/** How far landmarks, or the middle of two, have gone from where they were first, metres. */
export function travelOf(
  motion: Motion,
  landmarks: readonly Landmark[],
  from: PathSet = 'paths',
): Series | null {
  const rows = together(
    motion,
    landmarks.map((landmark) => motion[from][landmark]),
  );
  return travelled(rows.map(({ frame, time, points }) => ({ frame, time, point: meanOf(points) })));
}

/**
 * The same of an angle from where a link pointed first, radians, and the share of its largest that tells the way: a
 * thigh's way bends, and from farther back, along a later part of it, side kicks began 10 to 18 ms early.
 */
const TURN_BACK = 0.02;
const BEGUN = 0.05;

/** How far a link has turned from where it pointed first, radians. */
export function swingOf(
  motion: Motion,
  near: Landmark,
  far: Landmark | 'end',
  from: PathSet = 'paths',
): Series | null {
  const end = far === 'end' ? endPath(motion, from) : motion[from][far];
  // Ends on one and the same spot point nowhere.
  const rows = together(motion, [motion[from][near], end]).filter(
    ({ points: [a, b] }) => length(minus(b!, a!)) > 0,
  );
  if (rows.length === 0 || motion.axes.length < 2) return null;
  const link = ([a, b]: Vector[]) => unit(minus(b!, a!));
  const start = unit(meanOf(atRest(rows).map(({ points }) => link(points))));
  const away = rows.map(({ points }) => between(start, link(points)));
  const begun = link(rows[away.findIndex((angle) => angle >= BEGUN * Math.max(...away))]!.points);
  const ahead = minus(begun, scaled(start, dot(start, begun)));
  if (!(length(ahead) > 0)) return series(rows, 'rad', () => 0);
  const back = minus(scaled(start, Math.cos(TURN_BACK)), scaled(unit(ahead), Math.sin(TURN_BACK)));
  return series(rows, 'rad', (points) => between(back, link(points)) - TURN_BACK);
}

/** Inner angle of a knee or elbow, radians; grows as it opens. */
export function openingOf(
  motion: Motion,
  parts: readonly SidedPart[],
  from: PathSet,
): Series | null {
  const paths = parts.map((part) => motion[from][sided(motion.striking, part)]);
  if (motion.axes.length < 2) return null;
  return series(together(motion, paths), 'rad', ([a, b, c]) => angleAt(a!, b!, c!));
}

/** The striking end as carried by the trunk: in axes fixed to the shoulders, metres. */
function carriedEnd(motion: Motion, technique: Technique, from: PathSet): readonly Placed[] {
  const { leftShoulder, rightShoulder } = motion[from];
  const needed = ['toward', 'right', pathAxis(technique)] as const;
  if (!needed.every((axis) => motion.axes.includes(axis))) return [];
  const rows = together(motion, [endPath(motion, from), leftShoulder, rightShoulder]);
  const local = ([end, left, right]: Vector[]): Vector => {
    const yaw = Math.atan2(right![0]! - left![0]!, right![2]! - left![2]!);
    const offset = [0, 1, 2].map((i) => end![i]! - (left![i]! + right![i]!) / 2);
    const [sin, cos] = [Math.sin(yaw), Math.cos(yaw)];
    return [offset[0]! * cos - offset[2]! * sin, offset[1]!, offset[0]! * sin + offset[2]! * cos];
  };
  return rows.map(({ frame, time, points }) => ({ frame, time, point: local(points) }));
}

/** How far the striking end is from its guard, as carried by the trunk, metres. */
export function fromGuardOf(motion: Motion, technique: Technique, from: PathSet): Series | null {
  return travelled(carriedEnd(motion, technique, from));
}

/** Seconds to either side over which it is seen how fast a hand is; this and the next two on made-up punches (decision 16). */
const EITHER_SIDE = 0.025;
/** Slower than this share of its fastest an arm stands, and turns round or begins. */
const STANDS = 0.15;
/** What it does next goes another way than what it did: cosine of at least 60°. */
const ANOTHER_WAY = 0.5;
/** A hand that is nearer to a place than this share of its way to the target is there. */
const THERE = 0.08;

/**
 * The distance from a place a step behind the guard grows a little otherwise than that from the guard itself, and
 * an arm that is wound up turns round slowly: seconds, on known strikes of two generators (docs/accuracy).
 */
const STRAYS = { guard: 0.002, wound: 0.004 } as const;

const strayed = (series: Series | null, strays: number) => series && { ...series, strays };

/**
 * How far the striking end has gone, as carried by the trunk, metres: from its guard, or where it is first raised,
 * lowered or taken back, from there. It grows only when the arm itself goes.
 *
 * @param contact seconds
 */
export function armOf(
  motion: Motion,
  technique: Technique,
  contact: number,
  from: PathSet,
): Series | null {
  const rows = carriedEnd(motion, technique, from);
  const lands = rows.findLast(({ time }) => time <= contact + 1e-9);
  if (!lands) return null;
  const contactRow = rows.indexOf(lands);
  const stands = woundTo(rows, contactRow, technique) ?? takenTo(rows, contactRow);
  if (stands === null) {
    const creeps = CREEPS * asideOf(rows.slice(0, contactRow + 1));
    return strayed(travelled(rows), Math.hypot(STRAYS.guard, creeps));
  }
  const place = rows[stands]!.point;
  const near = THERE * length(minus(lands.point, place));
  let first = stands;
  while (first > 0 && length(minus(rows[first]!.point, place)) < near) first -= 1;
  return strayed(travelled(rows.slice(first), place, stands - first), STRAYS.wound);
}

/** Seconds before a hand is under way over which it is seen to creep aside; and when it is, as a share of its way. */
const CREEPING = 0.05;
const ON_ITS_WAY = 0.15;
/** What a creep aside leaves in doubt, of the time the hand would take for it at its fastest; on known strikes. */
const CREEPS = 1.5;

/**
 * A hand that creeps aside before it goes is nearer to its guard or farther from it according to how that is counted.
 *
 * @param rows up to contact
 * @returns how far it has crept across its way, in seconds of its fastest
 */
function asideOf(rows: readonly Placed[]): number {
  const guard = meanOf(atRest(rows).map(({ point }) => point));
  const gone = rows.map(({ point }) => minus(point, guard));
  const most = Math.max(...gone.map(length));
  const goes = gone.findIndex((way) => length(way) >= ON_ITS_WAY * most);
  const ahead = unit(gone[goes]!);
  const creeping = gone
    .slice(0, goes)
    .filter((_, i) => rows[i]!.time > rows[goes]!.time - CREEPING);
  const across = creeping.map((way) => length(minus(way, scaled(ahead, dot(way, ahead)))));
  const fastest = Math.max(...speedsOf(rows));
  return fastest > 0 ? (median(across) ?? 0) / fastest : 0;
}

/**
 * Where an arm turns round that has come nearer to where it lands and goes away from there again. That of a hook is
 * set on its way out.
 *
 * @param contact row of contact
 * @returns its row; null where it goes straight
 */
function woundTo(rows: readonly Placed[], contact: number, { family }: Technique): number | null {
  const left = rows
    .slice(0, contact + 1)
    .map(({ point }) => length(minus(point, rows[contact]!.point)));
  const retreat = THERE * Math.max(...left);
  let farthest = contact;
  for (let i = contact; i >= 0 && family !== 'hook'; i--) {
    if (left[i]! > left[farthest]!) farthest = i;
    if (left[i]! < left[farthest]! - retreat) return farthest;
  }
  return null;
}

/**
 * Where a hand stands before it strikes, having been lowered or drawn back across its way.
 *
 * @param contact row of contact
 * @returns its row; null where it strikes from its guard, or is set on its way out
 */
function takenTo(rows: readonly Placed[], contact: number): number | null {
  const speeds = speedsOf(rows.slice(0, contact + 1));
  let at = maxIndex(speeds);
  const stands = STANDS * speeds[at]!;
  while (at > 0 && speeds[at]! > stands) at -= 1;
  while (at > 0 && speeds[at - 1]! < speeds[at]!) at -= 1;
  // Contact on the first frame leaves nothing before it.
  if (at <= 0) return null;
  const guard = meanOf(atRest(rows).map(({ point }) => point));
  const [before, next] = [
    minus(rows[at]!.point, guard),
    minus(rows[contact]!.point, rows[at]!.point),
  ];
  const far = length(before);
  const way = length(next);
  return far > THERE * way && dot(before, next) < ANOTHER_WAY * far * way ? at : null;
}

/** How fast it is about each row, metres a second. */
function speedsOf(rows: readonly Placed[]): number[] {
  const times = rows.map(({ time }) => time);
  const last = rows.length - 1;
  return rows.map(({ time }, i) => {
    const from = lowerBound(times, time - EITHER_SIDE - 1e-9);
    const to = lowerBound(times, time + EITHER_SIDE + 1e-9) - 1;
    const a = rows[Math.max(0, Math.min(i - 1, from))]!;
    const b = rows[Math.min(last, Math.max(i + 1, to))]!;
    return length(minus(b.point, a.point)) / (b.time - a.time);
  });
}

/**
 * The links whose starts are the events hips, trunk and arm, for a technique.
 *
 * @param contact seconds
 */
export function startsOf(
  motion: Motion,
  technique: Technique,
  contact: number,
  from: PathSet,
): Readonly<Record<'hips' | 'trunk' | 'arm', Series | null>> {
  const hips = hipsOf(motion, technique, from);
  if (technique.family !== 'kick') {
    return {
      hips,
      trunk: turnOf(motion, 'trunk', from),
      arm: armOf(motion, technique, contact, from),
    };
  }
  const own = (part: SidedPart) => sided(motion.striking, part);
  // A leg leaves the plane of any picture: seen there its thigh starts up to 130 ms late.
  if (motion.view !== '3d') return { hips, trunk: null, arm: null };
  return {
    hips,
    trunk: swingOf(motion, own('Hip'), own('Knee'), from),
    arm: technique.end === 'knee' ? null : openingOf(motion, ['Hip', 'Knee', 'Ankle'], from),
  };
}

/** The turning links of a technique; those of a limb as far as the view shows them. */
export function turningOf(
  motion: Motion,
  { family, end }: Technique,
  from: PathSet = 'paths',
): readonly (readonly [
  'pelvis' | 'trunk' | 'shoulder' | 'elbow' | 'thigh' | 'shank',
  Series | null,
])[] {
  const own = (part: SidedPart) => sided(motion.striking, part);
  const pelvis = ['pelvis', turnOf(motion, 'pelvis', from)] as const;
  if (family === 'kick') {
    return [
      pelvis,
      ['thigh', swingOf(motion, own('Hip'), own('Knee'), from)],
      ...(end === 'knee'
        ? []
        : [['shank', swingOf(motion, own('Knee'), own('Ankle'), from)] as const]),
    ];
  }
  return [
    pelvis,
    ['trunk', turnOf(motion, 'trunk', from)],
    ['shoulder', swingOf(motion, own('Shoulder'), own('Elbow'), from)],
    ...(end === 'elbow'
      ? []
      : [['elbow', swingOf(motion, own('Elbow'), own('Wrist'), from)] as const]),
  ];
}
