/**
 * What each fault costs: the strike is thrown again in the chain model without it, and the momentum
 * is compared. The range comes from throwing both many times, the model brought anew each time to a
 * strike that may as well have been the true one – every number it was brought to within its own ± –
 * and to a body whose muscles may be faster or slower.
 */
import { quantileSorted } from 'd3-array';
import type { Events } from '../../measure/events/events';
import { NINE_OF_TEN, type Cost, type TimeCost } from '../fault/cost';
import { faultById } from '../fault/faults';
import type { Finding, JudgedReadings, Rules } from '../fault/finding';
import { isTimedPrice, type Fault, type Price, type Remedy } from '../fault/schema';
import type { Body } from '../../measure/measures/context';
import type { Readings } from '../../measure/measures/allMeasures';
import { absent, isAbsent, type Absent } from '../../foundation/reading/reading';
import { fit, refitting, strengthened, type Fitted, type Observed } from '../simulate/fit';
import { drawnFrom, observe, type Seen } from '../simulate/observe';
import { CARRIED } from '../simulate/body';
import { simulateStrike, standing, type Model } from '../simulate/strike';
import type { Technique } from '../../foundation/technique/techniques';
import { normals, seeded } from '../../foundation/uncertainty/random';
import { leastSquares, nearby } from '../../foundation/geometry/leastSquares';

/** A strike as it was measured and judged. */
export interface JudgedStrike {
  readonly technique: Technique;
  readonly events: Events;
  readonly readings: Readings;
  readonly findings: readonly Finding[];
}

const degrees = (value: number) => (value * Math.PI) / 180;

/** Starts that stretch the body, seconds: hips before trunk (thigh), trunk before limb (common practice, no source). */
const LEADS = { trunk: 0.045, limb: 0.04 };
/** Turn that is expected where it is missing, radians: of the pelvis, of the trunk beyond it, of the pelvis in a kick. */
const EXPECTED = { pelvis: degrees(45), beyond: degrees(11), inAKick: degrees(65) };
/** What is expected of a stance, of a coil, and of a body that comes along with its hand: radians, m/s. */
const STANDS = degrees(45);
const COILS = degrees(10);
const COMES = 0.5;
/** What a body gives of the speed of a strike that it carries, and how that differs: Sinew's own. */
const CARRIES = { share: 0.15, sigma: 0.05 };
/** Beyond it there is no limb whose speed the rest could be. */
const MOST_CARRIED = 0.5;
/** A straight lands at this share of its reach (common practice, no source). */
const REACH = 0.95;
const STIFF = 8;

/** One standard deviation, relative, of how fast a textbook says one's own muscles can shorten. */
const SHAKEN = 0.15;
const DRAWS = 16;
/**
 * What a chain in one plane is off by, one standard deviation of the share that is lost: against fighters who
 * throw by torques in space, other muscles on another body, with the leak and without it (docs/accuracy.md; found
 * on 12 bodies, held to others). Where links must start or drive otherwise, in a punch or elbow and in a kick; where
 * the same strike is thrown from or meets its target in another posture; where the trunk is turned back a little,
 * or the body comes along; where it would have gone on gaining had it not been stopped. Where speeds only add up,
 * what the limb gains or loses otherwise with another body under it.
 */
export const OFF = {
  driven: 0.19,
  kicked: 0.21,
  placed: 0.13,
  little: 0.07,
  stopped: 0.16,
  carried: 0.03,
};
/** A model that misses a number by more than twice what would do does not follow the strike. */
const WORST_MISFIT = 2;
const GAINED = 'Without the leak the model’s strike has less: it does not follow.';
const NOT_FOLLOWED = 'The model does not follow this strike closely enough to say.';

/** @returns the findings with what each costs that was found, in the order in which they came */
export function costed(
  { technique, events, readings, findings }: JudgedStrike,
  body: Body,
  rules: Rules,
): Finding[] {
  const found = findings.filter(({ status }) => status === 'found');
  const needsModel = found.some(({ fault }) =>
    isModelled(faultById(fault, rules.catalogue)?.remedy),
  );
  const thrown = needsModel
    ? modelled({ technique, events, readings, findings }, body)
    : absent('Not estimated.');
  return findings.map((finding) => {
    if (finding.status !== 'found') return finding;
    const fault = faultById(finding.fault, rules.catalogue);
    const remedy = fault?.remedy ?? null;
    if (remedy === null) {
      return {
        ...finding,
        cost: lasting(finding, fault, readings) ?? { unknown: otherPrice(fault) },
      };
    }
    const cost =
      remedy === 'carried'
        ? uncarried(technique, readings)
        : costOf(remedy, thrown, technique, readings);
    return { ...finding, cost };
  });
}

/** What the strike is thrown again for. */
type Modelled = Exclude<Remedy, 'carried'>;
const isModelled = (remedy: Remedy | null | undefined) => remedy && remedy !== 'carried';

/** The strike in the chain model, and as it may also have been. */
interface Thrown {
  readonly model: Model;
  readonly draws: readonly Model[];
  /** Mass behind the end at contact, kg: of the posture rather than of how closely it is followed. */
  readonly mass: number;
  readonly isFollowed: boolean;
}

function modelled({ technique, events, readings }: JudgedStrike, body: Body): Thrown | Absent {
  const seen = observe(technique, events, readings, body);
  if (isAbsent(seen)) return seen;
  const fitted = fit(seen.model, seen.observed);
  if (!fitted.simulated.hasArrived) return absent(NOT_FOLLOWED);
  const isFollowed = fitted.misfit <= WORST_MISFIT;
  return {
    model: fitted.model,
    draws: isFollowed ? drawsOf(seen, fitted) : [],
    mass: fitted.simulated.mass,
    isFollowed,
  };
}

function drawsOf(seen: Seen, fitted: Fitted): Model[] {
  const deviate = normals(seeded(1));
  const refit = refitting(seen.model, seen.observed, fitted);
  const unsure = { ...seen, sigmas: withMisses(seen, fitted) };
  return Array.from({ length: DRAWS }, () =>
    refit(quicker(seen.model, Math.exp(SHAKEN * deviate())), drawnFrom(unsure, deviate)),
  );
}

/** A number that the model does not meet is no surer than what it misses it by. */
function withMisses({ observed, sigmas }: Seen, { simulated }: Fitted): Observed {
  const wider = (sigma: number, is: number, seen: number) => Math.hypot(sigma, is - seen);
  const widerOrNone = (sigma: number | null, is: number, seen: number | null) =>
    sigma === null || seen === null ? null : wider(sigma, is, seen);
  const [pelvis, trunk] = simulated.turned;
  return {
    ...sigmas,
    speed: wider(sigmas.speed, simulated.speed, observed.speed),
    contact: wider(sigmas.contact, simulated.contact, observed.contact),
    pelvisTurn: wider(sigmas.pelvisTurn, pelvis!, observed.pelvisTurn),
    trunkTurn: widerOrNone(sigmas.trunkTurn, trunk!, observed.trunkTurn),
    drift: widerOrNone(sigmas.drift, simulated.drift, observed.drift),
  };
}

const quicker = (model: Model, by: number): Model => ({
  ...model,
  joints: model.joints.map((joint) => ({ ...joint, fastest: joint.fastest * by })),
});

/** What a leak costs that no strike thrown again would show. */
const OTHERWISE: Readonly<Record<Price, string>> = {
  cover: 'It costs cover.',
  warning: 'It costs surprise: it is seen before the strike comes.',
  footing: 'It costs footing; what that takes from a strike hangs on floor and shoes.',
  next: 'It costs the next strike, not this one.',
  behind: 'It shows behind contact, when the momentum of this strike has been spent.',
};

function otherPrice(fault: Fault | null | undefined): string {
  if (fault?.injury) return 'What may hurt is not weighed against momentum.';
  return fault?.costs ? OTHERWISE[fault.costs] : 'The chain model has no part for this leak.';
}

/** What costs time costs for as long as it shows, or for as long as it is beyond its limit. */
function lasting(
  { way, judgedBy }: Finding,
  fault: Fault | null | undefined,
  readings: Readings,
): TimeCost | null {
  const lasts = fault?.cases.find(({ id }) => id === way)?.lasts;
  const measured = lasts && (readings as JudgedReadings)[lasts];
  if (!fault || !isTimedPrice(fault.costs) || !measured || isAbsent(measured)) return null;
  const held = judgedBy.find(({ limit }) => 'reading' in limit && limit.reading === lasts)?.limit;
  const seconds = measured.value - (held && 'reading' in held ? held.value : 0);
  const off = NINE_OF_TEN * measured.sigma;
  return { seconds, secondsLow: seconds - off, secondsHigh: seconds + off, of: fault.costs };
}

function costOf(
  remedy: Modelled,
  thrown: Thrown | Absent,
  technique: Technique,
  readings: Readings,
): Cost {
  if (isAbsent(thrown)) return { unknown: thrown.absent };
  if (remedy === 'to-the-end') return braked(readings, thrown);
  const noPart = partless(remedy, technique, thrown.model);
  if (noPart !== null) return { unknown: noPart };
  return thrown.isFollowed ? counterfactual(remedy, thrown) : { unknown: NOT_FOLLOWED };
}

/** What this strike's chain cannot show of a leak. */
function partless(
  remedy: Modelled,
  { family, hand }: Technique,
  { along, links, root }: Model,
): string | null {
  const isArm = root === 2;
  const isElbow = isArm && links.length === 3;
  if (remedy === 'coiled' && isElbow) return PARTS.coil;
  const isOfElbow = remedy === 'elbow-holds' || remedy === 'drawn-in';
  if (isOfElbow && family === 'hook' && hand === 'lead') return PARTS.leadElbow;
  if (along === 'line') return remedy === 'turned-away' || remedy === 'coiled' ? PARTS.aim : null;
  return remedy === 'comes-along' ? ACROSS : null;
}

const PARTS = {
  aim: 'Turned back as a whole, a straight is the same to the chain model.',
  // Driven bodies lose a third by it; the model said a tenth, or that they gained.
  leadElbow: 'What the elbow of a lead hook costs the chain model gets wrong.',
  coil: 'From a coil the chain model’s elbow goes past its target.',
};
const ACROSS = 'The body goes across the way of this strike.';

/**
 * A body that rises, drops or comes with what strikes carries it: their speeds add up, whatever the limb does by
 * itself. With v from the limb and c from the body, c / (v + c) is what `portion.*` is.
 */
function uncarried({ start, along }: Technique, readings: Readings): Cost {
  const isUpOrDown = start === 'rise' || start === 'drop';
  if (!isUpOrDown && along !== 'target') return { unknown: ACROSS };
  const carried = readings[isUpOrDown ? 'portion.rise' : 'portion.step'];
  if (isAbsent(carried)) return { unknown: carried.absent };
  const { value, sigma } = carried;
  if (value > MOST_CARRIED) return { unknown: 'The body gives most of the speed already.' };
  const share = (CARRIES.share - value) / (1 - value);
  const off = Math.hypot(
    CARRIES.sigma / (1 - value),
    (sigma * (1 - CARRIES.share)) / (1 - value) ** 2,
    OFF.carried,
  );
  return {
    share,
    shareLow: share - NINE_OF_TEN * off,
    shareHigh: share + NINE_OF_TEN * off,
    lost: null,
    low: null,
    high: null,
  };
}

/** Speed that was there and is gone at contact, with the mass that every other cost is of. */
function braked(readings: Readings, { mass }: Thrown): Cost {
  const [keep, peak] = [readings['speed.keep'], readings['speed.peak']];
  if (isAbsent(keep) || isAbsent(peak)) return { unknown: 'The speed is not known.' };
  const whole = mass * peak.value;
  const share = Math.max(0, 1 - keep.value);
  // What it would have gone on gaining comes on top; no less than what was there is lost.
  const shareLow = share - NINE_OF_TEN * keep.sigma;
  const shareHigh = Math.min(1, share + NINE_OF_TEN * Math.hypot(keep.sigma, OFF.stopped));
  return {
    lost: share * whole,
    low: shareLow * whole,
    high: shareHigh * whole,
    share,
    shareLow,
    shareHigh,
  };
}

function counterfactual(remedy: Modelled, { model, draws }: Thrown): Cost {
  const without = mendFor(model, remedy);
  const as = compared(model, without);
  const arrived = draws.map((draw) => compared(draw, without)).filter((pair) => pair !== null);
  if (as === null || arrived.length < DRAWS / 2) {
    return { unknown: 'Without the leak the model’s strike does not arrive.' };
  }
  const { lost, share, whole } = as;
  const off = NINE_OF_TEN * offBy(remedy, model);
  const range = (of: (pair: Compared) => number, also: number) => {
    const sorted = arrived.map(of).sort((a, b) => a - b);
    const under = Math.max(0, of(as) - quantileSorted(sorted, 0.05)!);
    const over = Math.max(0, quantileSorted(sorted, 0.95)! - of(as));
    return [of(as) - Math.hypot(under, also), of(as) + Math.hypot(over, also)] as const;
  };
  const [low, high] = range((pair) => pair.lost, off * whole);
  const [shareLow, shareHigh] = range((pair) => pair.share, off);
  if (shareHigh <= 0) return { unknown: GAINED };
  return { lost, share, low, high, shareLow, shareHigh };
}

const MENDS: Readonly<Record<Modelled, keyof typeof OFF>> = {
  'in-order': 'driven',
  'hand-later': 'driven',
  'full-turn': 'driven',
  'to-reach': 'placed',
  'elbow-holds': 'driven',
  'drawn-in': 'placed',
  'turned-away': 'placed',
  coiled: 'little',
  'comes-along': 'little',
  'to-the-end': 'stopped',
};

function offBy(remedy: Modelled, { root }: Model): number {
  const kind = MENDS[remedy];
  return OFF[kind === 'driven' && root === 1 ? 'kicked' : kind];
}

interface Compared {
  readonly lost: number;
  /** What it would be without the leak, and the share of it that is lost. */
  readonly whole: number;
  readonly share: number;
}

function compared(model: Model, mend: Mend): Compared | null {
  const as = simulateStrike(model);
  const without = simulateStrike(mend(standing(model, as)));
  if (!as.hasArrived || !without.hasArrived) return null;
  const lost = without.momentum - as.momentum;
  if (!Number.isFinite(lost) || without.momentum <= 0) return null;
  return { lost, whole: without.momentum, share: lost / without.momentum };
}

type Mend = (model: Model) => Model;

/**
 * What takes a fault out of a strike.
 *
 * @param fitted the strike as it was; where a strength has to be found, it is found for this one
 */
export function mendFor(fitted: Model, remedy: Modelled): Mend {
  switch (remedy) {
    case 'in-order':
      return onsets((onset, i, { root, joints }) => {
        if (i === 0) return 0;
        // A kick's shank follows its thigh as it did.
        if (root === 1) return LEADS.trunk + Math.max(0, onset - joints[1]!.onset);
        return i < root ? LEADS.trunk : LEADS.trunk + LEADS.limb;
      });
    case 'hand-later':
      return onsets((onset, i, { root, joints }) =>
        i < root ? onset : Math.max(onset, joints[root - 1]!.onset + LEADS.limb),
      );
    case 'to-reach':
      return (model) =>
        model.meets.at === 'reach' ? { ...model, meets: { ...model.meets, share: REACH } } : model;
    case 'elbow-holds':
      return (model) => ({
        ...model,
        joints: model.joints.map((joint) =>
          joint.isHeld ? { ...joint, hold: joint.hold * STIFF } : joint,
        ),
      });
    case 'drawn-in':
      return drawnIn;
    case 'turned-away':
      return (model) => turnedBack(model, 0, Math.max(0, STANDS - yawOf(model)));
    case 'coiled':
      return (model) => turnedBack(model, 1, COILS);
    case 'comes-along':
      return (model) => ({ ...model, step: Math.max(model.step, COMES) });
    case 'full-turn': {
      const factors = turning(fitted);
      return (model) => strengthened(model, factors(model));
    }
    case 'to-the-end':
      return (model) => model;
  }
}

/** The last joint carried as sharply as is usual. */
function drawnIn(model: Model): Model {
  const { guard, joints } = model;
  const last = joints.length - 1;
  const bend = guard[last]! - guard[last - 1]!;
  const usual = Math.PI - (joints[last]!.isHeld ? CARRIED.hook : CARRIED.kick);
  if (Math.abs(bend) >= usual) return model;
  return {
    ...model,
    guard: guard.with(last, guard[last - 1]! + Math.sign(bend) * usual),
    joints: joints.map((joint, i) =>
      i === last && !joint.isHeld ? { ...joint, range: usual } : joint,
    ),
  };
}

/** Of the hips' line in guard, from square. */
const yawOf = ({ guard }: Model) => -Math.PI / 2 - guard[0]!;

/** The links from one on turned back in guard, with as much more of a way to go. */
function turnedBack(model: Model, first: number, by: number): Model {
  return {
    ...model,
    guard: model.guard.map((angle, i) => (i < first ? angle : angle - by)),
    joints: model.joints.map((joint, i) =>
      i === first ? { ...joint, range: joint.range + by } : joint,
    ),
  };
}

function onsets(of: (onset: number, index: number, model: Model) => number): Mend {
  return (model) => ({
    ...model,
    joints: model.joints.map((joint, i) => ({ ...joint, onset: of(joint.onset, i, model) })),
  });
}

/** How much stronger hips and trunk must be to turn as far as is expected by contact. */
function turning(fitted: Model): (model: Model) => number[] {
  const isKick = fitted.root === 1;
  const missesOf = (model: Model) => {
    // A kick is met where its hips have turned so far: it has to be met there by another.
    const met = isKick ? standing(model, simulateStrike(model)) : model;
    return (logs: readonly number[]) => {
      const { turned } = simulateStrike(strengthened(met, logs.map(Math.exp)));
      const short = isKick
        ? [turned[0]! - EXPECTED.inAKick]
        : [turned[0]! - EXPECTED.pelvis, turned[1]! - EXPECTED.pelvis - EXPECTED.beyond];
      return [...short, ...logs.map((log) => 0.01 * log)];
    };
  };
  const start = isKick ? [0] : [0, 0];
  const { values } = leastSquares(missesOf(fitted), start, 8);
  const near = nearby(missesOf(fitted), values, 1);
  return (model) => (model === fitted ? values : near(missesOf(model))).map(Math.exp);
}
