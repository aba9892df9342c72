/**
 * From readings to findings. A fault is *found* only when its reading is beyond the limit by more
 * than the reading's own uncertainty (95 %), *clear* only when it is on the right side by as much;
 * in between, or without a reading, the answer is "can't tell", with what would settle it.
 */
import { leadSeen } from '../eye/blindLook';
import { checkById, wordOn, type Audit, type Says } from '../eye/eyeChecks';
import { halfWidth, isAbsent, type Measured, type Reading } from '../../foundation/reading/reading';
import { quantity, say, sayOrder } from '../../foundation/reading/say';
import { inWords, isInForce } from '../school/resolve';
import type { Technique } from '../../foundation/technique/techniques';
import {
  USUAL_RULES,
  type Finding,
  type Judged,
  type JudgedReadings,
  type Open,
  type Outcome,
  type Rules,
} from './finding';
import {
  isOfReading,
  type Fault,
  type FaultCase,
  type JudgedId,
  type Limit,
  type ReadingLimit,
} from './schema';

/**
 * Judge every fault that the technique can have in this school.
 *
 * @returns in the catalogue's order; `rank.ts` puts them into the order in which they are told
 */
export function judge(
  technique: Technique,
  readings: JudgedReadings,
  rules: Rules = USUAL_RULES,
): Finding[] {
  const lead = leadSeen(readings['lead.hipsTrunk'], rules.eye);
  const seen = { ...readings, 'lead.hipsTrunk': lead };
  return rules.catalogue.faults
    .filter(({ techniques }) => techniques.includes(technique.id))
    .filter(({ scope }) => scope !== 'set' || 'set.rise' in readings)
    .flatMap((fault) => judgeFault(fault, technique, seen, rules) ?? []);
}

interface Verdict {
  readonly of: FaultCase;
  readonly status: Outcome;
  readonly judgedBy: readonly Judged[];
  /** The limit that nothing could be said of. */
  readonly doubtful: Judged | null;
}

/** @returns null where the fault does not exist: in this school, or for want of what it is about */
export function judgeFault(
  fault: Fault,
  technique: Technique,
  readings: JudgedReadings,
  rules: Rules = USUAL_RULES,
): Finding | null {
  const cases = fault.cases
    .filter(({ techniques }) => !techniques || techniques.includes(technique.id))
    .filter(({ when }) => isInForce(when, rules.school))
    .filter(({ limits }) => !isNotApplicable(limits[0]!, readings))
    .filter((one) => !one.onlyIfSaid || isSaid(one, rules.audit))
    .map((one) => verdictOn(one, readings, rules.audit));
  const verdicts = withStandIns(cases);
  const status = worst(verdicts.map((verdict) => verdict.status));
  if (!status) return null;
  const quoted = verdicts.find((verdict) => verdict.status === status)!;
  const first = quoted.judgedBy[0]!.measured;
  const word = status === 'cant-tell' ? wordOn(fault.id, technique, rules.audit) : undefined;
  if (word) return seenByEye(fault, quoted, word, rules);
  return {
    fault: fault.id,
    name: fault.name,
    way: quoted.of.id,
    status,
    evidence: sentence(quoted, readings),
    injury: fault.injury,
    judgedBy: quoted.judgedBy,
    judgedAs: Object.keys(quoted.of.when ?? {}).map((key) => inWords(key, rules.school[key]!)),
    frame: first && !isAbsent(first) ? (first.frames[first.frames.length - 1] ?? null) : null,
    cost: null,
    open: quoted.doubtful && status === 'cant-tell' ? openOf(quoted, quoted.doubtful) : null,
  };
}

/** What nothing could tell, and the coach saw: found or clear like any other, and said to be the eye's. */
function seenByEye(fault: Fault, { of }: Verdict, word: Says, { school }: Rules): Finding {
  const isThere = word === 'drags';
  const seen = fault.headline[0]!.toLowerCase() + fault.headline.slice(1);
  return {
    fault: fault.id,
    name: fault.name,
    way: of.id,
    status: isThere ? 'found' : 'clear',
    evidence: isThere ? `By eye: ${seen}` : 'By eye: it is not there.',
    injury: fault.injury,
    judgedBy: [{ limit: of.limits[0]!, measured: null }],
    judgedAs: Object.keys(of.when ?? {}).map((key) => inWords(key, school[key]!)),
    frame: null,
    cost: null,
    open: null,
  };
}

/**
 * Where a case cannot tell, the one that stands in for it is asked, if what it rests on was measured: another
 * quantity, which bodies move in step with it as a rule. One that decides against what the case itself reads is
 * such an exception, and decides nothing.
 */
function withStandIns(verdicts: readonly Verdict[]): readonly Verdict[] {
  const isStandIn = ({ of }: Verdict) => of.standsInFor !== undefined;
  return verdicts
    .filter((one) => !isStandIn(one))
    .map((main) => {
      if (main.status !== 'cant-tell') return main;
      const standIn = verdicts.find((one) => one.of.standsInFor === main.of.id && firstOf(one));
      return standIn && tellsMore(standIn, main) ? standIn : main;
    });
}

/** What a verdict's first limit was held against, if that was measured. */
function firstOf({ judgedBy: [first] }: Verdict): Reading | null {
  return first?.measured && !isAbsent(first.measured) ? first.measured : null;
}

/** Of a case that has read nothing it does, whatever it says; else where it decides, and not against what was read. */
function tellsMore({ status }: Verdict, main: Verdict): boolean {
  const own = firstOf(main);
  if (!own) return true;
  const beyond = distanceBeyond(main.judgedBy[0]!.limit as ReadingLimit, own);
  return (status === 'found' && beyond >= 0) || (status === 'clear' && beyond <= 0);
}

function worst(outcomes: readonly Outcome[]): Outcome | null {
  return (['found', 'cant-tell', 'clear'] as const).find((one) => outcomes.includes(one)) ?? null;
}

const isSaid = ({ limits }: FaultCase, audit: Audit) =>
  limits.some((limit) => !isOfReading(limit) && audit[limit.eye] !== undefined);

/** A strike that has no such reading cannot have the fault. */
function isNotApplicable(limit: Limit, readings: JudgedReadings): boolean {
  const measured = isOfReading(limit) && readings[limit.reading];
  return (
    measured !== undefined && measured !== false && isAbsent(measured) && !!measured.isNotApplicable
  );
}

function verdictOn(of: FaultCase, readings: JudgedReadings, audit: Audit): Verdict {
  const all = of.limits.map((one) => {
    const measured = isOfReading(one) ? measuredFor(one, readings) : null;
    const limit = isOfReading(one) ? sized(one, measured!) : one;
    const outcome = isOfReading(limit) ? holdAgainst(limit, measured!) : byEye(audit[limit.eye]);
    const onlyClears = isOfReading(limit) && limit.onlyClears;
    return { limit, measured, outcome, onlyClears };
  });
  const isCleared = all.some(({ outcome }) => outcome === 'clear');
  const doubtful = all.find(({ outcome, onlyClears }) => outcome === 'cant-tell' && !onlyClears);
  return {
    of,
    status: isCleared ? 'clear' : doubtful ? 'cant-tell' : 'found',
    judgedBy: all
      .filter(({ onlyClears, outcome }) => !onlyClears || outcome !== 'cant-tell')
      .map(({ limit, measured }) => ({ limit, measured })),
    doubtful: doubtful ? { limit: doubtful.limit, measured: doubtful.measured } : null,
  };
}

/** What a limit is held against: where its reading is not there, a part of that, if the part alone is beyond it. */
function measuredFor(limit: ReadingLimit, readings: JudgedReadings): Measured {
  const whole = readings[limit.reading] ?? NOT_IN_A_SET;
  const part = isAbsent(whole) && limit.partly ? readings[limit.partly] : undefined;
  return part && holdAgainst(sized(limit, part), part) === 'found' ? part : whole;
}

const NOT_IN_A_SET: Measured = { absent: 'Only a set of strikes can show this.' };

function byEye(says: Audit[string]): Outcome {
  if (says === undefined) return 'cant-tell';
  return says === 'drags' ? 'found' : 'clear';
}

/** The limit as it is for a body of the size that was measured. */
function sized(limit: ReadingLimit, measured: Measured): ReadingLimit {
  if (isAbsent(measured) || measured.size === undefined) return limit;
  const { size } = measured;
  const { value, slack, strays } = limit;
  return { ...limit, value: value * size, slack: slack * size, strays: strays * size };
}

export function holdAgainst(limit: ReadingLimit, measured: Measured): Outcome {
  if (isAbsent(measured)) return 'cant-tell';
  const beyond = distanceBeyond(limit, measured);
  const spread = halfWidth({ sigma: sigmaAgainst(limit, measured) });
  if (beyond - spread > 0) return 'found';
  return beyond + spread <= limit.slack ? 'clear' : 'cant-tell';
}

/** Of the reading, as a measure of what the limit is of. */
const sigmaAgainst = ({ strays }: ReadingLimit, { sigma }: Reading): number =>
  Math.hypot(sigma, strays / halfWidth({ sigma: 1 }));

/** How far the reading lies on the fault's side of its limit; negative on the right side. */
function distanceBeyond({ is, value }: ReadingLimit, measured: Reading): number {
  if (is === 'below') return value - measured.value;
  return (is === 'outside' ? Math.abs(measured.value) : measured.value) - value;
}

function sentence({ of, status, judgedBy, doubtful }: Verdict, readings: JudgedReadings): string {
  if (status === 'cant-tell') return whyNotInWords(doubtful!);
  return (status === 'found' ? of.evidence : of.clear).replace(
    /\{([\w.-]+)(:order)?\}/g,
    (_, id: string, order?: string) => {
      const first = of.limits[0]!;
      const asked = id === 'limit' && isOfReading(first) ? first.reading : (id as JudgedId);
      const whole = readings[asked];
      const part = judgedBy.find(({ limit }) => isOfReading(limit) && limit.reading === asked);
      const measured = whole && isAbsent(whole) ? (part?.measured ?? whole) : whole;
      if (!measured || isAbsent(measured)) return '(not measured)';
      if (id === 'limit') {
        return quantity(sized(first as ReadingLimit, measured).value, measured.unit);
      }
      const least = measured === whole ? '' : 'at least ';
      return order ? sayOrder(measured) : least + say(measured);
    },
  );
}

function openOf({ judgedBy }: Verdict, doubtful: Judged): Open {
  return { ...whyNot(doubtful), likely: likelyOf(judgedBy) };
}

/**
 * Where nothing is sure: which way it leans. All limits of a leak must be passed for it to be there; one that is
 * likely kept is enough for it not to be.
 */
function likelyOf(judgedBy: readonly Judged[]): Open['likely'] {
  const leanings = judgedBy.map(({ limit, measured }) => {
    if (!isOfReading(limit) || measured === null || isAbsent(measured)) return 0;
    return distanceBeyond(limit, measured) / sigmaAgainst(limit, measured);
  });
  if (leanings.some((one) => one < -LIKELY)) return 'not-there';
  return leanings.every((one) => one > LIKELY) ? 'there' : null;
}

/** So many σ beyond a limit: right in four of five, as normal errors fall. */
const LIKELY = 0.84;

const FRAME_RATES = [60, 120, 240, 480, 960];

function whyNot({ limit, measured }: Judged): Omit<Open, 'likely'> {
  if (!isOfReading(limit)) {
    const check = checkById(limit.eye)!;
    return { settle: `Only your eye can tell: ${check.well}? Say it under Eye.`, short: null };
  }
  if (measured === null) return { settle: '', short: null };
  if (isAbsent(measured)) {
    const { absent, advice, missing } = measured;
    const settle = advice ? `${advice[0]!.toUpperCase()}${advice.slice(1)}.` : absent;
    return { settle: missing ? POINTS : settle, short: null };
  }
  return {
    settle: settledBy(limit, measured).sentence,
    short: `${say(measured)}, limit ${quantity(limit.value, measured.unit)}`,
  };
}

const POINTS = 'Points that are not placed yet would tell.';

interface Settlement {
  /** Whether it is the film's frame rate that stands in the way. */
  readonly isOfRate: boolean;
  readonly sentence: string;
}

function settledBy(limit: ReadingLimit, measured: Reading): Settlement {
  const otherwise = (sentence: string): Settlement => ({ isOfRate: false, sentence });
  if (limit.reading === 'lead.half') {
    return otherwise('The turn marked in more strikes would settle it.');
  }
  if (measured.unit === 's' && measured.source !== 'eye') {
    return otherwise('Marking the instants by eye would settle it.');
  }
  if (measured.unit !== 's') {
    return otherwise('More strikes, or points placed on more frames, would settle it.');
  }
  const distance = Math.abs(distanceBeyond(limit, measured) - limit.slack / 2) + limit.slack / 2;
  const rate = rateFor(measured, distance);
  return rate === null
    ? otherwise('More strikes would settle it.')
    : { isOfRate: true, sentence: `Film at ${rate} frames a second.` };
}

function whyNotInWords({ limit, measured }: Judged): string {
  if (measured && isAbsent(measured)) return measured.absent;
  if (!isOfReading(limit) || !measured) return whyNot({ limit, measured }).settle;
  const { isOfRate, sentence } = settledBy(limit, measured);
  const isRough =
    halfWidth(measured) > 3 * Math.max(Math.abs(limit.value), Math.abs(measured.value));
  const why = isOfRate
    ? 'can’t tell at this frame rate'
    : `too ${isRough ? 'rough' : 'close'} to call`;
  return `${say(measured)}, and the limit is ${quantity(limit.value, measured.unit)}: ${why}. ${sentence}`;
}

/**
 * The lowest usual frame rate at which a difference of two one-frame events is known to within
 * `distance`: 1.96 · √2 · Δt/√12 < distance. Null when none is, or the reading already is that good.
 */
function rateFor(measured: Reading, distance: number): number | null {
  const needed = (halfWidth({ sigma: 1 }) * Math.SQRT2) / (Math.sqrt(12) * distance);
  const presentRate = Math.SQRT2 / (Math.sqrt(12) * measured.sigma);
  return FRAME_RATES.find((rate) => rate > needed && rate > presentRate * 1.01) ?? null;
}
