/**
 * The whole way from a track and its marks to findings: what the bench, the command line and the
 * tests all call.
 */
import type { Calibration } from '../reconstruct/calibration/calibration';
import { peakSteps, startSteps, type Step } from '../measure/chain/sequence';
import { PARTS } from '../measure/chain/decompose';
import { verdicts, type LinkVerdict } from '../measure/chain/verdict';
import { orderProblems, type EventMark, type Events } from '../measure/events/events';
import { proposeContact } from '../measure/events/contact';
import { proposeEvents } from '../measure/events/propose';
import { judge, USUAL_RULES, type Finding, type Rules } from '../judge/fault/judge';
import { measureAll, type Readings } from '../measure/measures/allMeasures';
import type { NextStrike } from '../measure/measures/between';
import { UNKNOWN_BODY, type Body } from '../measure/measures/context';
import { excerpt, motionFromPicture, motionFromSpace, type Motion } from '../reconstruct/motion/motion';
import { prepared } from '../reconstruct/motion/prepare';
import { traces, type Trace } from '../reconstruct/motion/traces';
import { isAbsent } from '../foundation/reading/reading';
import type { Link, Technique } from '../foundation/technique/techniques';
import type { Strike } from '../foundation/technique/strike';
import type { PictureTrack, SpaceTrack } from '../observe/track/track';

interface Given {
  readonly strike: Strike;
  /** The coach's marks; they win over anything proposed. */
  readonly marks: Events;
  /** What is known of the student. */
  readonly body?: Body;
  /** What was measured of the same strike elsewhere; stands in for what this track does not show. */
  readonly known?: Readings;
  /** What it is judged by; what is usual when not given. */
  readonly rules?: Rules;
  /** The strike that follows in the same combination. */
  readonly next?: NextStrike;
  /** The last strike of a combination of several. */
  readonly isLastOfSeveral?: boolean;
  /** Hz, when the coach has fixed one; else every path finds its own. */
  readonly cutoff?: number;
  /** σ by this many draws instead of to first order; for checking one against the other. */
  readonly draws?: { readonly count: number; readonly seed: number };
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
  /** When each link starts and is fastest, in the order of the chain. */
  readonly sequence: { readonly starts: readonly Step[]; readonly peaks: readonly Step[] };
  /** How fast each link moves over time, where the points show it. */
  readonly traces: Partial<Record<Link, Trace>>;
  /** Marks that contradict each other; while there are any, nothing is judged. */
  readonly problems: readonly string[];
}

export function analyze(input: AnalysisInput): Analysis {
  const { strike, marks, body = UNKNOWN_BODY, draws, known, next, isLastOfSeveral } = input;
  const { technique } = strike;
  const whole = motionOf(input);
  const contact = marks.contact ?? proposeContact(whole, technique);
  const motion = strikeIn(whole, contact, input);
  const events = proposeEvents(motion, technique, marks, contact);
  const problems = orderProblems(events);
  const context = {
    ...{ strike, events, motion, body },
    ...(draws && { draws }),
    ...(next && { next }),
    ...(isLastOfSeveral && { isLastOfSeveral }),
  };
  const readings = completed(measureAll(context), known);
  const shares = Object.fromEntries(PARTS.map((part) => [part, readings[`share.${part}`]]));
  return {
    events,
    readings,
    findings: problems.length > 0 ? [] : judge(technique, readings, input.rules ?? USUAL_RULES),
    links: verdicts(shares, readings['speed.contact']),
    sequence: {
      starts: startSteps(events, technique),
      peaks: events.contact ? peakSteps(motion, technique, events.contact) : [],
    },
    traces: traces(motion, technique),
    problems,
  };
}

/** The same strike by other rules: nothing is measured again. */
export function rejudged<T extends Analysis>(analysis: T, technique: Technique, rules: Rules): T {
  const { readings, problems } = analysis;
  return { ...analysis, findings: problems.length > 0 ? [] : judge(technique, readings, rules) };
}

/** Readings, those absent taken from what was measured elsewhere. */
function completed(own: Readings, known: Readings | undefined): Readings {
  if (!known) return own;
  const entries = Object.entries(own) as [keyof Readings, Readings[keyof Readings]][];
  return Object.fromEntries(
    entries.map(([id, reading]) => [
      id,
      isAbsent(reading) && !isAbsent(known[id]) ? known[id] : reading,
    ]),
  ) as Readings;
}

function motionOf(input: AnalysisInput): Motion {
  return 'calibration' in input
    ? motionFromPicture(input.track, input.calibration, input.strike)
    : motionFromSpace(input.track, input.strike);
}

/** How much of a long take belongs to one strike: before and after contact, seconds. */
const BEFORE = 1.6;
const AFTER = 1.4;

/** The stretch of a take that the strike is in, made ready to be measured. */
function strikeIn(
  whole: Motion,
  contact: EventMark | null,
  { marks, cutoff }: AnalysisInput,
): Motion {
  const times = Object.values(marks).map((mark) => mark.time);
  if (!contact) return prepared(whole, null, cutoff);
  const from = Math.min(contact.time - BEFORE, ...times);
  const to = Math.max(contact.time + AFTER, ...times);
  return prepared(excerpt(whole, from, to + 1e-9), contact.time, cutoff);
}
