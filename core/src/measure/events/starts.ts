/**
 * Starts of hips, trunk and arm (pelvis, thigh and shank in a kick), and of the load before them,
 * read off a dense track once contact is known.
 */
import type { Motion } from '../../reconstruct/motion/motion';
import { hipsAlong, startsOf, turnOf, type Series } from '../../reconstruct/motion/speeds';
import { lowpass } from '../../foundation/signal/butterworth';
import { lowerBound } from '../../foundation/signal/interpolate';
import { resampleEvenly } from '../../foundation/signal/resample';
import type { Technique } from '../../foundation/technique/techniques';
import { markAt, type EventMark, type Events } from './events';
import { onset } from './onset';
import { speedOf } from './linkSpeed';

export function proposeStarts(motion: Motion, technique: Technique, contact: EventMark): Events {
  const { hips, trunk, arm } = startsOf(motion, technique, 'raw');
  const strays = isSeenByTracker(motion) ? TRACKED_START : 0;
  return {
    ...named('hips', startOf(hips, motion, contact.time, pelvisDoubt(motion, technique))),
    ...named('trunk', startOf(trunk, motion, contact.time, strays)),
    ...named('arm', startOf(arm, motion, contact.time, Math.hypot(ARM_DOUBT, strays))),
  };
}

/**
 * A body tracker sees a pelvis turn by its thighs and its clothes, and so 10 to 60 ms late, two films
 * or one (docs/accuracy.md); seconds.
 */
const TRACKED_PELVIS = 0.045;

/** How far other starts stray that are read off a tracked body; seconds, on the same. */
const TRACKED_START = 0.015;

const isSeenByTracker = ({ raw }: Motion) => raw.leftHip?.isTracked === true;

function pelvisDoubt(motion: Motion, { start }: Technique): number {
  if (!isSeenByTracker(motion)) return 0;
  return start === 'turn' ? TRACKED_PELVIS : TRACKED_START;
}

/**
 * The arm's start is read off its distance from a place a step behind its guard, which grows a little
 * otherwise than the distance from the guard itself; seconds, on the known strikes (docs/accuracy).
 */
const ARM_DOUBT = 0.002;

/** The standard deviation of a start that the filter moved by `by`, as a share of that. */
const FILTER_DOUBT = 0.5;

/**
 * A low-pass widens a rise and so moves its foot forward in time. A second pass does nearly the same
 * again: what it moves is taken off the first.
 */
export function startOf(
  series: Series | null,
  motion: Motion,
  until: number,
  doubt = 0,
): EventMark | null {
  const speed = speedOf(series, until);
  if (!speed) return null;
  const once = onset(speed.times, speed.values, until, speed.noise);
  if (!once) return null;
  const twice = onset(speed.times, speed.again, until, 0);
  const plain = onset(speed.times, speed.values, until, 0);
  const moved = twice && plain ? Math.max(-0.02, Math.min(0.02, twice.time - plain.time)) : 0;
  return markAt(
    motion.frameTimes,
    once.time - moved,
    Math.hypot(once.sigma, FILTER_DOUBT * moved, doubt),
    motion.source,
  );
}

/** How long before the hips the load is looked for, seconds. */
const LONGEST_LOAD = 0.6;
/** Less than this is no load but a body standing still, metres and radians. */
const LEAST = { m: 0.006, rad: 0.035 };

/** First departure before the hips: the pelvis sinks, or pelvis or trunk turn the other way. */
export function proposeLoad(motion: Motion, hips: EventMark): EventMark | null {
  const back = (series: Series | null): Series | null =>
    series && { ...series, values: series.values.map((value) => -value) };
  const candidates = [
    hipsAlong(motion, 'up', -1, 'raw'),
    back(turnOf(motion, 'trunk', 'raw')),
    back(turnOf(motion, 'pelvis', 'raw')),
  ];
  const found = candidates.flatMap((series) => {
    const early = series && since(series, hips.time - LONGEST_LOAD);
    if (!early || travel(early, hips.time) < LEAST[early.unit]) return [];
    const start = startOf(early, motion, hips.time);
    return start ? [start] : [];
  });
  return found.reduce<EventMark | null>(
    (first, one) => (first === null || one.time < first.time ? one : first),
    null,
  );
}

function since(series: Series, from: number): Series {
  const keep = series.times.map((time) => time >= from);
  const pick = (list: readonly number[]) => list.filter((_, i) => keep[i]);
  return {
    ...series,
    frames: pick(series.frames),
    times: pick(series.times),
    values: pick(series.values),
  };
}

/** Hz; a load is slow, and noise must not pass for one. */
const LOAD_CUTOFF = 10;

/** How far a series climbs above its first twentieth of a second, up to a time. */
function travel({ times, values }: Series, until: number): number {
  const last = lowerBound(times, until);
  if (last < 3) return 0;
  const even = resampleEvenly(times.slice(0, last), values.slice(0, last));
  const smooth = lowpass(even.values, LOAD_CUTOFF, even.rate);
  const start = smooth.filter((_, i) => even.times[i]! <= even.times[0]! + 0.05);
  const base = start.reduce((sum, value) => sum + value, 0) / start.length;
  return Math.max(...smooth) - base;
}

function named(name: 'hips' | 'trunk' | 'arm', mark: EventMark | null): Events {
  return mark ? { [name]: mark } : {};
}
