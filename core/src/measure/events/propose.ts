/**
 * Every event that a dense track shows and the coach has not marked. A mark of the coach's wins
 * over what would have been proposed, and what is proposed after it builds on it.
 */
import { least, mean } from 'd3-array';
import type { Landmark } from '../../foundation/body/landmarks';
import { distance } from '../../foundation/geometry/vector';
import { isAbsent } from '../../foundation/reading/reading';
import type { Motion } from '../../reconstruct/motion/motion';
import { isDense } from '../../reconstruct/motion/prepare';
import { whereOn } from '../../reconstruct/motion/where';
import type { Technique } from '../../foundation/technique/techniques';
import { proposeEnd, proposeHome } from './contact';
import { markAt, type EventMark, type Events } from './events';
import { proposeDrive } from './drive';
import { proposeFeet } from './feet';
import { proposeLoad, proposeStarts } from './starts';

/** The student stands ready this long before the load, seconds. */
const READY = 0.05;

/**
 * @param motion the stretch around one strike, prepared
 * @param marks the coach's
 * @param contact marked or proposed; without it nothing else can be
 * @returns marks and proposals together
 */
export function proposeEvents(
  motion: Motion,
  technique: Technique,
  marks: Events,
  contact: EventMark | null,
): Events {
  if (!contact) return marks;
  const starts = { ...(isTimed(motion) && proposeStarts(motion, technique, contact)), ...marks };
  const first = earliest(starts.hips, starts.trunk, starts.arm);
  const load = marks.load ?? (first ? proposeLoad(motion, first) : null);
  const ready = marks.ready ?? readyBefore(motion, load, first) ?? quietBefore(motion, contact);
  const end = marks.end ?? proposeEnd(motion, technique, contact);
  const home =
    marks.home ?? (isTimed(motion) && ready && end && proposeHome(motion, technique, ready, end));
  const feet =
    isTimed(motion) &&
    ready &&
    proposeFeet(motion, technique, { ready, contact, ...(home && { home }) });
  const drive = isTimed(motion) ? proposeDrive(motion, technique, contact) : null;
  const found = { ...feet, drive, ...starts, load, ready, contact, end, home, ...marks };
  return Object.fromEntries(Object.entries(found).filter(([, mark]) => mark)) as Events;
}

/**
 * A tracker's guess of the body in space tells how it stands, but not when a link starts or is home: of a pelvis
 * it sees the thighs, and was up to 120 ms late (docs/accuracy.md); a foot was “home” a quarter second early.
 */
const isTimed = ({ source }: Motion) => source !== 'estimated-3d';

function earliest(...marks: (EventMark | undefined)[]): EventMark | undefined {
  return marks.flatMap((mark) => (mark ? [mark] : [])).sort((a, b) => a.time - b.time)[0];
}

/** A picture may not show the load: it can be this long before the first start, seconds. */
const UNSEEN_LOAD = 0.25;

/** A picture may show no start at all: seconds before contact between which the student then stood in guard. */
const IN_GUARD = [-0.9, -0.4] as const;
/** What stands still in guard. */
const STILL: readonly Landmark[] = ['leftHip', 'rightHip', 'leftWrist', 'rightWrist'];
/** Looked at over so long to either side, seconds; and how far off the frame may be taken. */
const QUIET = 0.06;

/** The quietest moment in a while before contact, for pictures in which nothing is seen to start. */
function quietBefore(motion: Motion, contact: EventMark): EventMark | null {
  if (motion.view === '3d') return null;
  const paths = STILL.flatMap((landmark) => motion.paths[landmark] ?? []).filter(isDense);
  if (paths.length < 2) return null;
  const [from, to] = [contact.time + IN_GUARD[0], contact.time + IN_GUARD[1]];
  const moved = (time: number) => {
    const ways = paths.flatMap((path) => {
      const ends = [time - QUIET, time + QUIET].map((at) => whereOn(path, at, motion, 'leftHip'));
      const [a, b] = ends;
      return a && b && !isAbsent(a) && !isAbsent(b) ? [distance(a.at, b.at)] : [];
    });
    return ways.length < 2 ? Infinity : mean(ways)!;
  };
  const times = motion.frameTimes.filter((time) => time >= from && time <= to);
  const quiet = least(times, moved);
  if (quiet === undefined || moved(quiet) === Infinity) return null;
  return markAt(motion.frameTimes, quiet, QUIET / 2, motion.source);
}

function readyBefore(
  motion: Motion,
  load: EventMark | null,
  start: EventMark | undefined,
): EventMark | null {
  const moving = load ?? start;
  const first = motion.frameTimes[0];
  if (!moving || first === undefined) return null;
  const unseen = load || motion.view === '3d' ? 0 : UNSEEN_LOAD;
  const time = Math.max(first, moving.time - unseen - READY);
  return markAt(motion.frameTimes, time, READY / 4, motion.source);
}
