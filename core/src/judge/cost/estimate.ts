/**
 * What each fault costs: the strike is thrown again in the chain model without it, and the momentum
 * is compared. The range comes from throwing both many times, the model brought anew each time to a
 * strike that may as well have been the true one – every number it was brought to within its own ± –
 * and to a body whose muscles may be faster or slower.
 */
import { quantileSorted } from 'd3-array';
import type { Events } from '../../measure/events/events';
import type { Cost } from '../fault/cost';
import { faultById } from '../fault/faults';
import type { Finding, Rules } from '../fault/finding';
import type { Remedy } from '../fault/schema';
import type { Body } from '../../measure/measures/context';
import type { Readings } from '../../measure/measures/allMeasures';
import { absent, isAbsent, type Absent } from '../../foundation/reading/reading';
import { fit, refitting, strengthened, type Fitted, type Observed } from '../simulate/fit';
import { drawnFrom, observe, type Seen } from '../simulate/observe';
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

/** Starts that stretch the body, seconds: hips before trunk, trunk before limb (see `check-values`). */
const LEADS = { trunk: 0.045, limb: 0.04 };
/** Turn of the pelvis that is expected where it is missing, and of the trunk beyond it, radians. */
const EXPECTED = { pelvis: (45 * Math.PI) / 180, beyond: (11 * Math.PI) / 180 };
/** A straight lands at this share of its reach (common practice, no source). */
const REACH = 0.95;
const STIFF = 8;

/** One standard deviation, relative, of how fast a textbook says one's own muscles can shorten. */
const SHAKEN = 0.15;
const DRAWS = 16;
/**
 * What a chain in one plane is off by, one standard deviation of the share that is lost: against fighters who
 * throw by torques in space, other muscles on another body, with the leak and without it (docs/accuracy.md; found
 * on 12 bodies, held to others). The first where links must start or drive otherwise, the second where the same
 * strike meets its target in another posture.
 */
export const OFF = { driven: 0.18, placed: 0.1 };
/** A model that misses a number by more than twice what would do does not follow the strike. */
const WORST_MISFIT = 2;
const NOT_FOLLOWED = 'The model does not follow this strike closely enough to say.';

/** @returns the findings with what each costs that was found, in the order in which they came */
export function costed(
  { technique, events, readings, findings }: JudgedStrike,
  body: Body,
  rules: Rules,
): Finding[] {
  const found = findings.filter(({ status }) => status === 'found');
  const needsModel = found.some(({ fault }) => remedyOf(fault, rules) !== null);
  const thrown = needsModel
    ? modelled({ technique, events, readings, findings }, body)
    : absent('Not estimated.');
  return findings.map((finding) => {
    if (finding.status !== 'found') return finding;
    return { ...finding, cost: costOf(remedyOf(finding.fault, rules), thrown, readings) };
  });
}

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

function remedyOf(fault: string, { catalogue }: Rules): Remedy | null {
  return faultById(fault, catalogue)?.remedy ?? null;
}

function costOf(remedy: Remedy | null, thrown: Thrown | Absent, readings: Readings): Cost {
  if (remedy === null) return { unknown: 'The chain model has no part for this leak.' };
  if (isAbsent(thrown)) return { unknown: thrown.absent };
  if (remedy === 'to-the-end') return braked(readings, thrown);
  return thrown.isFollowed ? counterfactual(remedy, thrown) : { unknown: NOT_FOLLOWED };
}

/** Speed that was there and is gone at contact, with the mass that every other cost is of. */
function braked(readings: Readings, { mass }: Thrown): Cost {
  const [keep, peak] = [readings['speed.keep'], readings['speed.peak']];
  if (isAbsent(keep) || isAbsent(peak)) return { unknown: 'The speed is not known.' };
  const share = (value: number) => Math.max(0, 1 - value);
  const whole = mass * peak.value;
  const [low, high] = [keep.value + 1.645 * keep.sigma, keep.value - 1.645 * keep.sigma];
  return {
    lost: share(keep.value) * whole,
    low: share(low) * whole,
    high: share(high) * whole,
    share: share(keep.value),
    shareLow: share(low),
    shareHigh: share(high),
  };
}

function counterfactual(remedy: Remedy, { model, draws }: Thrown): Cost {
  const without = mendFor(model, remedy);
  const as = compared(model, without);
  const arrived = draws.map((draw) => compared(draw, without)).filter((pair) => pair !== null);
  if (as === null || arrived.length < DRAWS / 2) {
    return { unknown: 'Without the leak the model’s strike does not arrive.' };
  }
  const { lost, share, whole } = as;
  const off = 1.645 * offBy(remedy);
  const range = (of: (pair: Compared) => number, also: number) => {
    const sorted = arrived.map(of).sort((a, b) => a - b);
    const under = Math.max(0, of(as) - quantileSorted(sorted, 0.05)!);
    const over = Math.max(0, quantileSorted(sorted, 0.95)! - of(as));
    return [of(as) - Math.hypot(under, also), of(as) + Math.hypot(over, also)] as const;
  };
  const [low, high] = range((pair) => pair.lost, off * whole);
  const [shareLow, shareHigh] = range((pair) => pair.share, off);
  return { lost, share, low, high, shareLow, shareHigh };
}

function offBy(remedy: Remedy): number {
  return remedy === 'to-reach' || remedy === 'elbow-holds' ? OFF.placed : OFF.driven;
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
export function mendFor(fitted: Model, remedy: Remedy): Mend {
  switch (remedy) {
    case 'in-order':
      return onsets((_, i, { root }) =>
        i === 0 ? 0 : i < root ? LEADS.trunk : LEADS.trunk + LEADS.limb,
      );
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
    case 'full-turn': {
      const factors = turning(fitted);
      return (model) => strengthened(model, factors(model));
    }
    case 'to-the-end':
      return (model) => model;
  }
}

function onsets(of: (onset: number, index: number, model: Model) => number): Mend {
  return (model) => ({
    ...model,
    joints: model.joints.map((joint, i) => ({ ...joint, onset: of(joint.onset, i, model) })),
  });
}

/** How much stronger hips and trunk must be to turn as far as is expected by contact. */
function turning(fitted: Model): (model: Model) => number[] {
  const missesOf = (model: Model) => (logs: readonly number[]) => {
    const { turned } = simulateStrike(strengthened(model, logs.map(Math.exp)));
    return [
      turned[0]! - EXPECTED.pelvis,
      turned[1]! - EXPECTED.pelvis - EXPECTED.beyond,
      ...logs.map((log) => 0.01 * log),
    ];
  };
  const { values } = leastSquares(missesOf(fitted), [0, 0], 8);
  const near = nearby(missesOf(fitted), values, 1);
  return (model) => (model === fitted ? values : near(missesOf(model))).map(Math.exp);
}
