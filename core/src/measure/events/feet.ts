/** What the feet do during a strike, read off a dense track. */
import { otherSide, type Side } from '../../foundation/body/landmarks';
import { hangsOf, type Motion, type Path, type PathSet } from '../../reconstruct/motion/motion';
import { isDense } from '../../reconstruct/motion/prepare';
import type { Series } from '../../reconstruct/motion/speeds';
import { shared } from '../../reconstruct/motion/where';
import type { Technique } from '../../foundation/technique/techniques';
import { markAt, type EventMark, type Events } from './events';
import { restOf } from './rest';
import { SMOOTHED_START, startOf } from './starts';

/** A foot is off the floor when heel and toe are this far above where they stood, metres. */
const LIFTED = 0.03;
/** And nearly down again when one of them is this near, metres. */
const LANDED = 0.012;
/**
 * Radians that a picture may be off the side and still show when a foot lands: nearer to the camera it stands lower
 * in the picture, and a step of another generator, seen from a corner, landed 10 ms early or 400 late.
 */
const FROM_THE_SIDE = 0.3;
/** A heel is up when it is this far above where it stood, metres. */
const HEEL_UP = 0.02;
/** A foot turning less than this has not pivoted, radians. */
const LEAST_PIVOT = 0.17;
/** A foot that moves faster than this is not set, metres a second. */
const SET_SPEED = 0.25;

interface Foot {
  readonly frames: readonly number[];
  readonly times: readonly number[];
  readonly heel: readonly (readonly number[])[];
  readonly toe: readonly (readonly number[])[];
  readonly sigma: number;
}

function footOf(motion: Motion, side: Side, from: PathSet = 'paths'): Foot | null {
  const heel = motion[from][`${side}Heel`];
  const toe = motion[from][`${side}Toe`];
  if (!heel || !toe || !isDense(heel) || !isDense(toe)) return null;
  const pairs = shared(heel, toe);
  const point = (path: Path, i: number) => path.along.map((values) => values[i]!);
  return {
    frames: pairs.map(([h]) => heel.frames[h]!),
    times: pairs.map(([h]) => heel.times[h]!),
    heel: pairs.map(([h]) => point(heel, h)),
    toe: pairs.map(([, t]) => point(toe, t)),
    sigma: Math.max(heel.sigma[0]!, toe.sigma[0]!),
  };
}

export function proposeFeet(
  motion: Motion,
  technique: Technique,
  { ready, contact, home }: { ready: EventMark; contact: EventMark; home?: EventMark },
): Events {
  const { striking } = motion;
  const sides = { left: footOf(motion, 'left'), right: footOf(motion, 'right') };
  const turning = technique.family === 'kick' ? otherSide(striking) : striking;
  const until = home?.time ?? Infinity;
  const found: { [K in keyof Events]: EventMark | null } = {
    rearHeelUp: heelUp(motion, sides.right, ready.time, contact.time),
    ...stepOf(motion, ['left', 'right'], ready.time, until),
    pivotStart: pivotStart(motion, sides[turning], contact.time),
    anchorSet: anchorSet(motion, sides[otherSide(striking)], ready.time, contact.time),
  };
  return Object.fromEntries(Object.entries(found).filter(([, mark]) => mark !== null)) as Events;
}

const upOf = (motion: Motion) => motion.axes.indexOf('up');

/** Where a height passes a level for good, between samples. */
function crossing(times: readonly number[], heights: readonly number[], level: number, i: number) {
  const share = (level - heights[i - 1]!) / (heights[i]! - heights[i - 1]!);
  return times[i - 1]! + share * (times[i]! - times[i - 1]!);
}

function indexFrom(times: readonly number[], time: number): number {
  const i = times.findIndex((t) => t >= time - 1e-9);
  return i < 0 ? times.length : i;
}

function heelUp(motion: Motion, foot: Foot | null, from: number, to: number): EventMark | null {
  const up = upOf(motion);
  if (!foot || up < 0 || !motion.metric) return null;
  const heights = foot.heel.map((point) => point[up]!);
  const start = indexFrom(foot.times, from);
  const level = (heights[start] ?? 0) + HEEL_UP;
  for (let i = start + 1; i < heights.length && foot.times[i]! <= to; i++) {
    if (heights[i]! >= level && heights[i - 1]! < level) {
      return atCrossing(motion, foot, heights, level, i);
    }
  }
  return null;
}

function atCrossing(
  motion: Motion,
  { times, sigma }: Foot,
  heights: readonly number[],
  level: number,
  i: number,
): EventMark {
  const rate = Math.abs((heights[i]! - heights[i - 1]!) / (times[i]! - times[i - 1]!));
  const spread = Math.min(0.03, sigma / Math.max(rate, 1e-6));
  return markAt(motion.frameTimes, crossing(times, heights, level, i), spread, motion.source);
}

/** How far a foot, heel or toe, is above where they stood, metres. */
function heightsOf(
  { heel, toe }: Foot,
  up: number,
  stood: { readonly heel: number; readonly toe: number },
): readonly number[] {
  return heel.map((point, i) => Math.min(point[up]! - stood.heel, toe[i]![up]! - stood.toe));
}

/** The first foot to leave the floor, and when it is down again. */
function stepOf(
  motion: Motion,
  sides: readonly Side[],
  from: number,
  to: number,
): Pick<Events, 'footLift' | 'footLand'> {
  const up = upOf(motion);
  if (up < 0 || !motion.metric) return {};
  const steps = sides.flatMap((side) => {
    const foot = footOf(motion, side);
    const start = foot ? indexFrom(foot.times, from) : 0;
    if (!foot || start >= foot.times.length) return [];
    const stood = { heel: foot.heel[start]![up]!, toe: foot.toe[start]![up]! };
    const heights = heightsOf(foot, up, stood);
    const isIn = (i: number) => i < heights.length && foot.times[i]! <= to;
    let lift = start + 1;
    while (isIn(lift) && heights[lift]! < LIFTED) lift++;
    if (!isIn(lift)) return [];
    let land = lift + 1;
    while (isIn(land) && heights[land]! >= LANDED) land++;
    const footLift = atCrossing(motion, foot, heights, LIFTED, lift);
    const isShown =
      motion.view === '3d' || (motion.view === 'side' && motion.aslant < FROM_THE_SIDE);
    if (!isIn(land) || !isShown) return [{ footLift }];
    const raw = footOf(motion, side, 'raw');
    const down = raw && landing(motion, raw, heightsOf(raw, up, stood), foot.times[land]!);
    return [{ footLift, footLand: down ?? atCrossing(motion, foot, heights, LANDED, land) }];
  });
  return steps.sort((a, b) => a.footLift.time - b.footLift.time)[0] ?? {};
}

/** @param near seconds; when the foot is nearly down */
function landing(
  motion: Motion,
  { times, sigma }: Foot,
  heights: readonly number[],
  near: number,
): EventMark | null {
  const rest = restOf({ times, heights, sigma, hangs: hangsOf(motion) }, near);
  const smoothed = motion.isSmoothed ? SMOOTHED_START : 0;
  return (
    rest && markAt(motion.frameTimes, rest.time, Math.hypot(rest.sigma, smoothed), motion.source)
  );
}

/** Turn of the foot over the floor, growing with the strike's own turn. */
function pivotStart(motion: Motion, foot: Foot | null, until: number): EventMark | null {
  const [toward, right] = [motion.axes.indexOf('toward'), motion.axes.indexOf('right')];
  if (!foot || toward < 0 || right < 0) return null;
  let previous = 0;
  const values = foot.heel.map((heel, i) => {
    const toe = foot.toe[i]!;
    const raw =
      -motion.turnSign * Math.atan2(toe[right]! - heel[right]!, toe[toward]! - heel[toward]!);
    previous = raw - 2 * Math.PI * Math.round((raw - previous) / (2 * Math.PI));
    return previous;
  });
  const series: Series = { frames: foot.frames, times: foot.times, values, unit: 'rad' };
  const before = values.filter((_, i) => foot.times[i]! <= until);
  return Math.max(...before) - before[0]! < LEAST_PIVOT ? null : startOf(series, motion, until);
}

/** The last time before contact at which the support foot still moved; ready when it never did. */
function anchorSet(
  motion: Motion,
  foot: Foot | null,
  from: number,
  contact: number,
): EventMark | null {
  if (!foot || !motion.metric) return null;
  const middle = foot.heel.map((heel, i) => heel.map((value, k) => (value + foot.toe[i]![k]!) / 2));
  const span = Math.max(1, Math.round(0.03 / (foot.times[1]! - foot.times[0]! || 1)));
  let set = indexFrom(foot.times, from);
  for (let i = set + span; i < middle.length && foot.times[i]! <= contact; i++) {
    const moved = Math.hypot(...middle[i]!.map((value, k) => value - middle[i - span]![k]!));
    if (moved / (foot.times[i]! - foot.times[i - span]!) > SET_SPEED) set = i;
  }
  const time = foot.times[set];
  return time === undefined || time > contact
    ? null
    : markAt(motion.frameTimes, time, 0.01, motion.source);
}
