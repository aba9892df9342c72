/**
 * The whole way from a track and its marks to findings: what the bench, the command line and the
 * tests all call.
 */
import { orderProblems, type Events } from './events/events';
import { proposeStarts } from './events/propose';
import { judge, type Finding } from './fault/judge';
import { measureAll, type Readings } from './measures/catalogue';
import { motionFromPicture, motionFromSpace, type Calibration, type Motion } from './motion/motion';
import type { Strike } from './technique/strike';
import { HAND_PLACING_SIGMA, type Track } from './track/track';

export interface AnalysisInput {
  readonly strike: Strike;
  readonly track: Track;
  /** For 2D tracks: the view and what has been set in the picture. */
  readonly calibration?: Calibration & { readonly pictureHeight: number };
  /** The coach's marks; they win over anything proposed. */
  readonly marks: Events;
}

export interface Analysis {
  readonly events: Events;
  readonly readings: Readings;
  readonly findings: readonly Finding[];
  /** Marks that contradict each other; while there are any, nothing is judged. */
  readonly problems: readonly string[];
}

export function analyze(input: AnalysisInput): Analysis {
  const motion = motionOf(input);
  const events = { ...proposedFor(motion, input.marks), ...input.marks };
  const problems = orderProblems(events);
  const readings = measureAll({ strike: input.strike, events, motion });
  const findings = problems.length > 0 ? [] : judge(input.strike.technique, readings);
  return { events, readings, findings, problems };
}

function motionOf({ track, calibration, strike }: AnalysisInput): Motion | null {
  if (Object.keys(track.points).length === 0) return null;
  if (track.space === '3d') return motionFromSpace(track, strike);
  if (!calibration) return null;
  const placingSigma = HAND_PLACING_SIGMA * calibration.pictureHeight;
  return motionFromPicture(track, calibration, strike, placingSigma);
}

/** Seconds at the start of a track taken as rest when no ready or load mark says otherwise. */
const ASSUMED_REST = 0.1;

function proposedFor(motion: Motion | null, marks: Events): Events {
  if (!motion || !marks.contact) return {};
  const quietUntil =
    marks.load?.time ?? marks.ready?.time ?? (motion.frameTimes[0] ?? 0) + ASSUMED_REST;
  return proposeStarts(motion, marks.contact, quietUntil);
}
