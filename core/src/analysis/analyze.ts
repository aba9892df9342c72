/**
 * The whole way of one strike, in four steps that are each done once: measure → judge → cost → rank.
 * The bench, the server, the card, the comparison and the command line all come through here.
 */
import { PARTS } from '../measure/chain/decompose';
import { peakSteps, startSteps, type Step } from '../measure/chain/sequence';
import { verdicts, type Anchors, type LinkVerdict } from '../measure/chain/verdict';
import { orderProblems, type Events } from '../measure/events/events';
import { HALF_TURN } from '../measure/measures/halfTurn';
import { measureAll, type Readings } from '../measure/measures/allMeasures';
import { UNKNOWN_BODY, type Body, type NextStrike } from '../measure/measures/context';
import type { Motion } from '../reconstruct/motion/motion';
import { turnsIn, type Turns } from '../reconstruct/motion/turn';
import { traces, type Trace } from '../reconstruct/motion/traces';
import { isAbsent } from '../foundation/reading/reading';
import { sizeProblem } from '../observe/track/bodySize';
import type { Link, Technique } from '../foundation/technique/techniques';
import type { Strike } from '../foundation/technique/strike';
import { costed } from '../judge/cost/estimate';
import { USUAL_RULES, type Finding, type Rules } from '../judge/fault/finding';
import { judge } from '../judge/fault/judge';
import { ranked } from '../judge/fault/rank';
import { readInOther } from './otherFilm';
import { seeStrike, type SeenStrike, type SourceOfMotion } from './seenStrike';

/** What a strike is measured from, beside the motion. */
export interface StrikeFacts {
  readonly strike: Strike;
  /** What is known of the student. */
  readonly body?: Body;
  /** The strike that follows in the same combination. */
  readonly next?: NextStrike;
  /** The last strike of a combination of several. */
  readonly isLastOfSeveral?: boolean;
  /** σ by this many draws instead of to first order; for checking one against the other. */
  readonly draws?: { readonly count: number; readonly seed: number };
}

/** A strike measured: nothing of it is judged yet. */
export interface MeasuredStrike {
  readonly events: Events;
  readonly readings: Readings;
  /** What each link does for the strike, where its share of the speed is known. */
  readonly links: Partial<Record<Link, LinkVerdict>>;
  /** When each link starts and is fastest, in the order of the chain. */
  readonly sequence: { readonly starts: readonly Step[]; readonly peaks: readonly Step[] };
  /** How fast each link moves over time, where the points show it. */
  readonly traces: Partial<Record<Link, Trace>>;
  /** How hips and shoulders stand over the floor, where anything tells it. */
  readonly turns: Turns | null;
  /** Marks that contradict each other; while there are any, nothing is judged. */
  readonly problems: readonly string[];
}

export interface Analysis extends MeasuredStrike {
  /** In the order in which they are told. */
  readonly findings: readonly Finding[];
}

export type AnalysisInput = StrikeFacts &
  SourceOfMotion & {
    /** The coach's marks; they win over anything proposed. */
    readonly marks: Events;
    /** What it is judged by; what is usual when not given. */
    readonly rules?: Rules;
    /** Hz, when the coach has fixed one; else every path finds its own. */
    readonly cutoff?: number;
  };

/** All steps, of a strike that one source shows. */
export function analyze(input: AnalysisInput): Analysis {
  return analysisOf(measure(input), input, input.rules ?? USUAL_RULES);
}

/**
 * The first step alone, of a strike that one source shows.
 *
 * @throws RangeError in words for the coach when the points are not as large as a person, or what is set in the
 *   picture fixes nothing
 */
export function measure(input: AnalysisInput): MeasuredStrike {
  const isInSpace = !('calibration' in input);
  const problem = isInSpace ? sizeProblem(input.track, input.body?.height ?? null) : null;
  if (problem !== null) throw new RangeError(problem);
  const seen = seeStrike(input, input.strike, input.marks, input.cutoff);
  return measureStrike(input, seen, besidesOf(seen));
}

/** What stands in where a picture has no answer: the bands that are worn in it, and the turn that was marked. */
export const besidesOf = ({ turned, events }: SeenStrike): readonly SeenStrike[] =>
  turned.map((motion) => ({ motion, events, turned: [] }));

/** The steps after measuring. */
export function analysisOf(measured: MeasuredStrike, facts: StrikeFacts, rules: Rules): Analysis {
  const findings = costedFindings(
    measured,
    judgeMeasured(measured, facts.strike, rules),
    facts,
    rules,
  );
  return { ...measured, findings: ranked(findings, rules) };
}

/**
 * First step.
 *
 * @param seen what is measured
 * @param besides the same strike seen otherwise: the first that can gives the readings that `seen` cannot give
 * @param other the same strike in another film, at the same clock: it gives what `seen` cannot, and what it shows
 *   more surely
 */
export function measureStrike(
  facts: StrikeFacts,
  seen: SeenStrike,
  besides: readonly SeenStrike[] = [],
  other: SeenStrike | null = null,
): MeasuredStrike {
  const inFilm = measureInFilm(facts, seen, besides);
  if (!other) return inFilm;
  const there = measureInFilm(facts, other, besidesOf(other));
  const readings = readInOther(inFilm.readings, seen.motion, there.readings, other.motion);
  return {
    ...inFilm,
    readings,
    links: linksOf(readings, inFilm.events, facts.strike.technique),
    traces: { ...there.traces, ...inFilm.traces },
    turns: inFilm.turns ?? there.turns,
  };
}

function measureInFilm(
  facts: StrikeFacts,
  seen: SeenStrike,
  besides: readonly SeenStrike[],
): MeasuredStrike {
  const { technique } = facts.strike;
  const { motion, events } = seen;
  const elsewhere = besides.map((beside) => readingsOf(facts, beside));
  const best = [seen, ...besides].flatMap(({ turned }) => turned)[0];
  const turn = elsewhere[besides.findIndex((beside) => beside.motion === best)];
  const readings = elsewhere.reduce(completed, {
    ...readingsOf(facts, seen),
    ...(turn && motion.view !== '3d' && halfTurnsOf(turn)),
  });
  const banded = best?.source === 'measured-band' ? best : undefined;
  const peaksIn = (shown: Motion) =>
    events.contact ? peakSteps(shown, technique, events.contact) : [];
  const own = peaksIn(motion);
  const peaks = own.length > 0 || !banded ? own : peaksIn(banded);
  return {
    events,
    readings,
    links: linksOf(readings, events, technique),
    sequence: { starts: startSteps(events, technique), peaks },
    traces: { ...(banded && traces(banded, technique)), ...traces(motion, technique) },
    turns: turnsIn(motion) ?? (best ? turnsIn(best) : null),
    problems: orderProblems(events),
  };
}

function linksOf(readings: Readings, events: Events, technique: Technique) {
  const travels = Object.fromEntries(PARTS.map((part) => [part, readings[`travel.${part}`]]));
  return verdicts(travels, anchorsOf(readings, events, technique));
}

/** What is to hold: both while no foot leaves the floor; of a kick, whose support foot turns, the knee. */
function anchorsOf(readings: Readings, { footLift }: Events, { family }: Technique): Anchors {
  if (family === 'kick') return { knees: readings['anchor.knee'] };
  if (footLift) return {};
  return { feet: readings['anchor.travel'], knees: readings['anchor.knee'] };
}

function readingsOf(
  { strike, body = UNKNOWN_BODY, next, isLastOfSeveral, draws }: StrikeFacts,
  { motion, events }: SeenStrike,
): Readings {
  return measureAll({ strike, events, motion, body, next, isLastOfSeveral, draws });
}

/** Half-way times go together, from what tells the turn best: a tracked picture has but one of them. */
function halfTurnsOf(readings: Readings): Partial<Readings> {
  const known = HALF_TURN.filter(({ id }) => !isAbsent(readings[id]));
  return Object.fromEntries(known.map(({ id }) => [id, readings[id]]));
}

/** Readings, those absent taken from what was measured elsewhere. */
function completed(own: Readings, elsewhere: Readings): Readings {
  const entries = Object.entries(own) as [keyof Readings, Readings[keyof Readings]][];
  return Object.fromEntries(
    entries.map(([id, reading]) => [
      id,
      isAbsent(reading) && !isAbsent(elsewhere[id]) ? elsewhere[id] : reading,
    ]),
  ) as Readings;
}

/** Second step: findings without cost, in the catalogue's order; none where marks contradict. */
export function judgeMeasured(
  { readings, problems }: MeasuredStrike,
  { technique }: Strike,
  rules: Rules,
): Finding[] {
  return problems.length > 0 ? [] : judge(technique, readings, rules);
}

/** Third step: what each fault that was found costs. The slow one: it fits and runs the chain model. */
export function costedFindings(
  { events, readings }: MeasuredStrike,
  findings: readonly Finding[],
  { strike, body = UNKNOWN_BODY }: StrikeFacts,
  rules: Rules,
): Finding[] {
  return costed({ technique: strike.technique, events, readings, findings }, body, rules);
}
