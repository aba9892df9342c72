/**
 * What each fault costs: the strike is thrown again in the chain model without it, and the momentum
 * is compared. The range comes from throwing both many times with what is not known shaken: when the
 * links start, how fast muscle can shorten, how strong it is.
 */
import { quantileSorted } from 'd3-array';
import type { Events } from '../../measure/events/events';
import type { Cost } from '../fault/cost';
import { faultById } from '../fault/faults';
import type { Finding, Rules } from '../fault/finding';
import type { Remedy } from '../fault/schema';
import type { Body } from '../../measure/measures/context';
import type { Readings } from '../../measure/measures/allMeasures';
import { isAbsent } from '../../foundation/reading/reading';
import { fit, strengthened, type Fitted } from '../simulate/fit';
import { observe, type Seen } from '../simulate/observe';
import { simulateStrike, type Model } from '../simulate/strike';
import type { Technique } from '../../foundation/technique/techniques';
import { normals, seeded } from '../../foundation/uncertainty/random';
import { leastSquares } from '../../foundation/geometry/leastSquares';

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

/** One standard deviation, relative, of what a table or a textbook gives for one's own muscles. */
const SHAKEN = { fastest: 0.15, torque: 0.1 };
const DRAWS = 16;
/** A model that misses a number by more than twice what would do does not follow the strike. */
const WORST_MISFIT = 2;

/** @returns the findings with what each costs that was found, in the order in which they came */
export function costed(
  { technique, events, readings, findings }: JudgedStrike,
  body: Body,
  rules: Rules,
): Finding[] {
  const found = findings.filter(({ status }) => status === 'found');
  const needsModel = found.some(({ fault }) => {
    const remedy = remedyOf(fault, rules);
    return remedy !== null && remedy !== 'to-the-end';
  });
  const seen = needsModel ? observe(technique, events, readings, body) : null;
  const fitted = seen && !isAbsent(seen) ? fit(seen.model, seen.observed) : null;
  return findings.map((finding) => {
    if (finding.status !== 'found') return finding;
    return { ...finding, cost: costOf(remedyOf(finding.fault, rules), seen, fitted, readings) };
  });
}

function remedyOf(fault: string, { catalogue }: Rules): Remedy | null {
  return faultById(fault, catalogue)?.remedy ?? null;
}

function costOf(
  remedy: Remedy | null,
  seen: ReturnType<typeof observe> | null,
  fitted: Fitted | null,
  readings: Readings,
): Cost {
  if (remedy === null) return { unknown: 'The chain model has no part for this leak.' };
  if (remedy === 'to-the-end') return braked(readings);
  if (!seen) return { unknown: 'Not estimated.' };
  if (isAbsent(seen)) return { unknown: seen.absent };
  if (!fitted || fitted.misfit > WORST_MISFIT) {
    return { unknown: 'The model does not follow this strike closely enough to say.' };
  }
  return counterfactual(remedy, seen, fitted);
}

/** Speed that was there and is gone at contact: no model is needed. */
function braked(readings: Readings): Cost {
  const [keep, peak, mass] = [
    readings['speed.keep'],
    readings['speed.peak'],
    readings['mass.effective'],
  ];
  if (isAbsent(keep) || isAbsent(peak)) return { unknown: 'The speed is not known.' };
  if (isAbsent(mass)) return { unknown: mass.absent };
  const share = (value: number) => Math.max(0, 1 - value);
  const whole = Math.abs(mass.value) * peak.value;
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

function counterfactual(remedy: Remedy, { sigmas }: Seen, { model }: Fitted): Cost {
  const deviate = normals(seeded(1));
  const without = mendFor(model, remedy);
  const pairs = [
    compared(model, without),
    ...Array.from({ length: DRAWS }, () => compared(shaken(model, sigmas, deviate), without)),
  ];
  const arrived = pairs.filter((pair) => pair !== null);
  if (pairs[0] === null || arrived.length < DRAWS / 2) {
    return { unknown: 'Without the leak the model’s strike does not arrive.' };
  }
  const range = (of: (pair: Compared) => number) => {
    const sorted = arrived.map(of).sort((a, b) => a - b);
    return [quantileSorted(sorted, 0.05)!, quantileSorted(sorted, 0.95)!] as const;
  };
  const [low, high] = range(({ lost }) => lost);
  const [shareLow, shareHigh] = range(({ share }) => share);
  const { lost, share } = pairs[0]!;
  return { lost, low, high, share, shareLow, shareHigh };
}

interface Compared {
  readonly lost: number;
  readonly share: number;
}

function compared(model: Model, mend: Mend): Compared | null {
  const [as, without] = [simulateStrike(model), simulateStrike(mend(model))];
  if (!as.hasArrived || !without.hasArrived) return null;
  const lost = without.momentum - as.momentum;
  return { lost, share: lost / without.momentum };
}

function shaken(model: Model, sigmas: readonly number[], deviate: () => number): Model {
  const fastest = Math.exp(SHAKEN.fastest * deviate());
  return {
    ...model,
    joints: model.joints.map((joint, i) => ({
      ...joint,
      onset:
        i === 0
          ? joint.onset
          : joint.onset + (sigmas[Math.min(i, sigmas.length - 1)] ?? 0) * deviate(),
      fastest: joint.fastest * fastest,
      torque: joint.torque * Math.exp(SHAKEN.torque * deviate()),
    })),
  };
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
      return (model) => strengthened(model, factors);
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
function turning(model: Model): number[] {
  const factors = (logs: readonly number[]) => logs.map(Math.exp);
  const { values } = leastSquares(
    (logs) => {
      const { turned } = simulateStrike(strengthened(model, factors(logs)));
      return [
        turned[0]! - EXPECTED.pelvis,
        turned[1]! - EXPECTED.pelvis - EXPECTED.beyond,
        ...logs.map((log) => 0.01 * log),
      ];
    },
    [0, 0],
    8,
  );
  return factors(values);
}
