/**
 * Starts of hips, trunk and arm read off a dense track once contact is known. The coach's marks
 * win over these; sparse, hand-placed tracks give none.
 */
import { fistPath, nearestFrame } from '../motion/where';
import type { Motion } from '../motion/motion';
import { turnSeries, turnSign } from '../motion/turn';
import { lowpass } from '../signal/butterworth';
import { derivative } from '../signal/derivative';
import { resampleEvenly } from '../signal/resample';
import { lowerBound } from '../signal/interpolate';
import { frameSpacing } from '../track/track';
import { onset } from './onset';
import type { EventMark, Events } from './events';

/** Hz. Between the 6–10 Hz of gait and the content of a punch; see the decision on filtering. */
const CUTOFF = 20;
/** A track with a smaller share of its frames filled is not dense enough to differentiate. */
const DENSE = 0.9;

/**
 * @param contact the known contact
 * @param quietUntil seconds; the student stands in guard up to here
 */
export function proposeStarts(motion: Motion, contact: EventMark, quietUntil: number): Events {
  const sign = turnSign(motion);
  const pelvis = turnSeries(motion, 'pelvis');
  const trunk = turnSeries(motion, 'trunk');
  const arm = armReach(motion);
  const start = (series: { times: readonly number[]; values: readonly number[] } | null) =>
    series === null ? undefined : startOf(series.times, series.values, motion, contact, quietUntil);
  return withoutGaps({
    hips: start(pelvis && { times: pelvis.times, values: pelvis.yaw.map((yaw) => sign * yaw) }),
    trunk: start(trunk && { times: trunk.times, values: trunk.yaw.map((yaw) => sign * yaw) }),
    arm: start(arm),
  });
}

function withoutGaps(events: { [K in keyof Events]: Events[K] | undefined }): Events {
  return Object.fromEntries(Object.entries(events).filter(([, mark]) => mark !== undefined));
}

function startOf(
  times: readonly number[],
  values: readonly number[],
  motion: Motion,
  contact: EventMark,
  quietUntil: number,
): EventMark | undefined {
  // Contact is a discontinuity: nothing after it may leak back through the filter.
  const until = lowerBound(times, contact.time + 1e-9);
  const span = motion.frameTimes.filter((t) => t <= contact.time + 1e-9).length;
  if (until < 8 || until < DENSE * span) return undefined;
  const even = resampleEvenly(times.slice(0, until), values.slice(0, until));
  const speed = derivative(lowpass(even.values, CUTOFF, even.rate), even.times);
  const found = onset(even.times, speed, contact.time, quietUntil);
  if (found === null) return undefined;
  const frame = nearestFrame(motion.frameTimes, found.time);
  const sampling = frameSpacing(motion.frameTimes, frame) / Math.sqrt(12);
  return {
    frame,
    time: found.time,
    sigma: Math.hypot(sampling, found.sigma),
    source: motion.source,
  };
}

/**
 * How far the fist has moved from its guard, as carried by the trunk: the path length of the fist
 * in axes fixed to the shoulders. It grows only when the arm itself moves.
 */
function armReach(motion: Motion): { times: number[]; values: number[] } | null {
  const fist = fistPath(motion);
  const left = motion.paths.leftShoulder;
  const right = motion.paths.rightShoulder;
  const turn = turnSeries(motion, 'trunk');
  if (!fist || !left || !right || !turn) return null;
  const toward = motion.axes.indexOf('toward');
  const side = motion.axes.indexOf('right');
  const times: number[] = [];
  const local: number[][] = [];
  turn.frames.forEach((frame, k) => {
    const f = fist.frames.indexOf(frame);
    const l = left.frames.indexOf(frame);
    const r = right.frames.indexOf(frame);
    if (f < 0) return;
    const offset = motion.axes.map(
      (_, axis) => fist.along[axis]![f]! - (left.along[axis]![l]! + right.along[axis]![r]!) / 2,
    );
    const [sin, cos] = [Math.sin(turn.yaw[k]!), Math.cos(turn.yaw[k]!)];
    const own = [...offset];
    own[toward] = offset[toward]! * cos - offset[side]! * sin;
    own[side] = offset[toward]! * sin + offset[side]! * cos;
    times.push(fist.times[f]!);
    local.push(own);
  });
  const first = local[0];
  if (!first) return null;
  return { times, values: local.map((p) => Math.hypot(...p.map((v, i) => v - first[i]!))) };
}
