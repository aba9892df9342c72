/** The chain model brought to throw a strike as it was measured: its torques, and how well it follows. */
import { leastSquares, nearby } from '../../foundation/geometry/leastSquares';
import { simulateStrike, type Meets, type Model, type SimulatedStrike } from './strike';

/** What was measured of a strike; SI units, times from the start of the hips. */
export interface Observed {
  readonly speed: number;
  readonly contact: number;
  readonly pelvisTurn: number;
  /** Null where the trunk is not in the chain. */
  readonly trunkTurn: number | null;
  /** Start of each link, seconds. */
  readonly onsets: readonly number[];
  /** Share of the limb's length at contact; null where the strike is not aimed along it. */
  readonly reach: number | null;
  /** Change of the elbow in the last 80 ms, where it is to be held. */
  readonly drift: number | null;
  readonly step: number;
}

export interface Fitted {
  readonly model: Model;
  readonly simulated: SimulatedStrike;
  /** Largest miss, as a multiple of what would do: 1 or less is a fit. */
  readonly misfit: number;
  /** By how much each joint is stronger than an ordinary body's, as a natural logarithm. */
  readonly logs: readonly number[];
}

/** What each number may be off by: radians, seconds, and a share of the speed. */
const ENOUGH = { turn: 0.12, time: 0.02, speed: 0.07, drift: 0.1 };
/**
 * How strongly torques are kept near an ordinary body's, per factor e, and how a joint is held (a fit that lets go
 * of an elbow throws what is mended past its target: found on 10 driven hooks).
 */
const ORDINARY = { driven: 0.05, held: 0.4 };
/** How far the same body's torques may lie from those it was fitted with, as a natural logarithm. */
const STRAY = 1;

function metBy(meets: Meets, reach: number | null, trunkTurn: number | null): Meets {
  if (meets.at === 'reach') return { ...meets, share: reach ?? meets.share };
  return meets.at === 'turn' ? { ...meets, angle: trunkTurn ?? meets.angle } : meets;
}

/** The model with the strike's own onsets and end, its torques still an ordinary body's. */
export function timed(
  model: Model,
  { onsets, reach, pelvisTurn, trunkTurn, step }: Observed,
): Model {
  const { meets } = model;
  return {
    ...model,
    step,
    joints: model.joints.map((joint, i) => ({
      ...joint,
      onset: onsets[Math.min(i, onsets.length - 1)]!,
    })),
    meets: metBy(meets, reach, trunkTurn ?? pelvisTurn),
  };
}

/** Torques multiplied, joint by joint; a joint that is held is made stiffer instead. */
export function strengthened(model: Model, factors: readonly number[]): Model {
  return {
    ...model,
    joints: model.joints.map((joint, i) => {
      const by = factors[i] ?? 1;
      return joint.isHeld
        ? { ...joint, hold: joint.hold * by }
        : { ...joint, torque: joint.torque * by };
    }),
  };
}

function misses(
  result: SimulatedStrike,
  observed: Observed,
  isTurn: boolean,
  hasHeld: boolean,
): number[] {
  const { speed, contact, pelvisTurn, trunkTurn, drift } = observed;
  return [
    (result.speed / speed - 1) / ENOUGH.speed,
    (result.contact - contact) / ENOUGH.time,
    ...(trunkTurn !== null || !isTurn ? [(result.turned[0]! - pelvisTurn) / ENOUGH.turn] : []),
    // Where the trunk's turn is the end of the strike, it is met as it is.
    ...(trunkTurn !== null && !isTurn ? [(result.turned[1]! - trunkTurn) / ENOUGH.turn] : []),
    ...(hasHeld && drift !== null ? [(result.drift - drift) / ENOUGH.drift] : []),
  ];
}

/** What is missed by a body whose torques are an ordinary one's times e to the logs. */
function missesOf(start: Model, observed: Observed): (logs: readonly number[]) => number[] {
  const isTurn = start.meets.at === 'turn';
  const hasHeld = start.joints.some(({ isHeld }) => isHeld);
  return (logs) => [
    ...misses(simulateStrike(scaledBy(start, logs)), observed, isTurn, hasHeld),
    ...logs.map((log, i) => (start.joints[i]!.isHeld ? ORDINARY.held : ORDINARY.driven) * log),
  ];
}

const scaledBy = (model: Model, logs: readonly number[]) => strengthened(model, logs.map(Math.exp));

/** @param model an ordinary body's, in the strike's own guard */
export function fit(model: Model, observed: Observed): Fitted {
  const start = timed(model, observed);
  const all = missesOf(start, observed);
  const { values: logs } = leastSquares(
    all,
    start.joints.map(() => 0),
    14,
  );
  const fitted = scaledBy(start, logs);
  const result = simulateStrike(fitted);
  const worst = Math.max(...all(logs).slice(0, -logs.length).map(Math.abs));
  return { model: fitted, simulated: result, misfit: result.hasArrived ? worst : Infinity, logs };
}

/**
 * The same strike as it may also have been: brought to other numbers near those it was fitted to.
 *
 * @param model what `fit` was given
 * @param observed what it was brought to
 * @returns the model brought to other numbers, of a body that may be another too
 */
export function refitting(
  model: Model,
  observed: Observed,
  { logs }: Fitted,
): (model: Model, observed: Observed) => Model {
  const near = nearby(missesOf(timed(model, observed), observed), logs, STRAY);
  return (other, seen) => {
    const start = timed(other, seen);
    return scaledBy(start, near(missesOf(start, seen)));
  };
}
