/**
 * The whole way from a track and its marks to findings: what the bench, the command line and the
 * tests all call.
 */
import { verdicts, type LinkVerdict } from './chain/verdict';
import { orderProblems, type Events } from './events/events';
import { proposeStarts } from './events/propose';
import { judge, type Finding } from './fault/judge';
import { shares } from './measures/share';
import { isAbsent } from './reading/reading';
import { measureAll, type Readings } from './measures/catalogue';
import { motionFromPicture, motionFromSpace, type Calibration, type Motion } from './motion/motion';
import { traces, type Trace } from './motion/traces';
import type { Link } from './technique/catalogue';
import type { Strike } from './technique/strike';
import type { PictureTrack, SpaceTrack } from './track/track';

interface Given {
  readonly strike: Strike;
  /** The coach's marks; they win over anything proposed. */
  readonly marks: Events;
}

interface InSpace extends Given {
  readonly track: SpaceTrack;
}

interface InPicture extends Given {
  readonly track: PictureTrack;
  /** The view and what has been set in the picture. */
  readonly calibration: Calibration;
}

export type AnalysisInput = InSpace | InPicture;

export interface Analysis {
  readonly events: Events;
  readonly readings: Readings;
  readonly findings: readonly Finding[];
  /** What each link does for the strike, where its share of the speed is known. */
  readonly links: Partial<Record<Link, LinkVerdict>>;
  /** How fast each link moves over time, where the points show it. */
  readonly traces: Partial<Record<Link, Trace>>;
  /** Marks that contradict each other; while there are any, nothing is judged. */
  readonly problems: readonly string[];
}

export function analyze(input: AnalysisInput): Analysis {
  const motion = motionOf(input);
  const events = { ...proposedFor(motion, input.marks), ...input.marks };
  const problems = orderProblems(events);
  const readings = measureAll({ strike: input.strike, events, motion });
  const findings = problems.length > 0 ? [] : judge(input.strike.technique, readings);
  const parts = shares({ strike: input.strike, events, motion });
  const links = isAbsent(parts) ? {} : verdicts(parts, readings['speed.contact']);
  return { events, readings, findings, links, traces: traces(motion), problems };
}

function motionOf(input: AnalysisInput): Motion {
  return 'calibration' in input
    ? motionFromPicture(input.track, input.calibration, input.strike)
    : motionFromSpace(input.track, input.strike);
}

/** Seconds at the start of a track taken as rest when no ready or load mark says otherwise. */
const ASSUMED_REST = 0.1;

function proposedFor(motion: Motion, marks: Events): Events {
  if (!marks.contact) return {};
  const quietUntil =
    marks.load?.time ?? marks.ready?.time ?? (motion.frameTimes[0] ?? 0) + ASSUMED_REST;
  return proposeStarts(motion, marks.contact, quietUntil);
}
