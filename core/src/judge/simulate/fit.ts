/** The chain model brought to throw a strike as it was measured: its torques, and how well it follows. */
import { leastSquares } from '../../foundation/geometry/leastSquares';
import { simulateStrike, type Model, type SimulatedStrike } from './strike';

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
}

/** What each number may be off by: radians, seconds, and a share of the speed. */
const ENOUGH = { turn: 0.12, time: 0.02, speed: 0.07, drift: 0.1 };
/** How strongly torques are kept near an ordinary body's, per factor e. */
const ORDINARY = 0.05;

/** The model with the strike's own onsets and end, its torques still an ordinary body's. */
export function timed(model: Model, { onsets, reach, trunkTurn, step }: Observed): Model {
  const { meets } = model;
  return {
    ...model,
    step,
    joints: model.joints.map((joint, i) => ({
      ...joint,
      onset: onsets[Math.min(i, onsets.length - 1)]!,
    })),
    meets:
      meets.at === 'reach'
        ? { ...meets, share: reach ?? meets.share }
        : { ...meets, angle: trunkTurn ?? meets.angle },
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
    (result.turned[0]! - pelvisTurn) / ENOUGH.turn,
    // Where the trunk's turn is the end of the strike, it is met as it is.
    ...(trunkTurn !== null && !isTurn ? [(result.turned[1]! - trunkTurn) / ENOUGH.turn] : []),
    ...(hasHeld && drift !== null ? [(result.drift - drift) / ENOUGH.drift] : []),
  ];
}

/** @param model an ordinary body's, in the strike's own guard */
export function fit(model: Model, observed: Observed): Fitted {
  const start = timed(model, observed);
  const isTurn = model.meets.at === 'turn';
  const hasHeld = model.joints.some(({ isHeld }) => isHeld);
  const made = (logs: readonly number[]) => strengthened(start, logs.map(Math.exp));
  const { values } = leastSquares(
    (logs) => [
      ...misses(simulateStrike(made(logs)), observed, isTurn, hasHeld),
      ...logs.map((log) => ORDINARY * log),
    ],
    start.joints.map(() => 0),
    14,
  );
  const fitted = made(values);
  const result = simulateStrike(fitted);
  const worst = Math.max(...misses(result, observed, isTurn, hasHeld).map(Math.abs));
  return { model: fitted, simulated: result, misfit: result.hasArrived ? worst : Infinity };
}
