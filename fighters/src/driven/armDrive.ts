/** What the muscles of one who throws an arm do at an instant. */
import { leastSquares } from '@sinew/core/foundation/geometry/leastSquares';
import { dot, size, subtract, type Point } from '../fighter/space';
import type { Moving, Placed } from './linkage';
import { throwIt, type Driven } from './throw';
import {
  ARM_READY,
  coiledOf,
  JOINT,
  endOf,
  guardOf,
  lengthsOf,
  linkageOf,
  type Thrower,
  type Way,
} from './armBody';
import { Joints } from './joints';

const degrees = (value: number) => (value * Math.PI) / 180;

/** How the arm of a hook and of an elbow goes: lifted, rolled in; how it is carried, and for how long. */
const BENT = {
  hook: { raise: -0.08, roll: -1.5, carried: -0.95, sets: 0.09 },
  elbow: { raise: -0.05, roll: -1.3, carried: -0.75, sets: 0.06 },
} as const;
/** How the arm of what goes up, down or in is swung: through which angle, and how far it is bent; the body's share. */
const SWUNG = {
  uppercut: { through: 0.9, bend: 1.65 },
  rising: { through: 1.3, bend: 2.4 },
  dropping: { through: -1.3, bend: 2.4 },
  thrusting: { through: 0.3, bend: 2.4 },
} as const;
type Swung = keyof typeof SWUNG;
/** How far an elbow that strikes is bent. */
const ELBOW_BENT = 2.4;
/** What rolls the upper arm in: its pull, N m, and how stiffly it is steered. */
const ROLLS = { pull: 45, stiff: 60 };
/** Rate at which what opens an elbow has nothing left, rad/s. */
const ELBOW_FASTEST = 32;
/** Pull of what stops an elbow that opens, N m. */
const BRAKES = 60;
/** A straight's elbow opens so long after its shoulder is called, seconds. */
const OPENS_AFTER = 0.025;

/** What a fist misses a shoulder by below it, and a line by, metres: as near as it is aimed. */
const NEAR = { below: 0.06, enough: 0.02 };
/** The near side of what stands before the fighter, metres to the right of his middle; */
const STANDS = { hook: 0.05, elbow: 0.12 };
/** of what is met from below or above or thrust at, upper arms beyond the shoulder in the way it is struck. */
const MEETS = { uppercut: 0.4, rising: 0.6, dropping: 0.55, thrusting: 0.7 };

/** The way in which each is to strike. */
const TOWARD: Readonly<Record<Way, Point>> = {
  straight: [1, 0, 0],
  hook: [0, 0, -1],
  elbow: [0, 0, -1],
  uppercut: [0, 1, 0],
  rising: [0, 1, 0],
  dropping: [0, -1, 0],
  thrusting: [1, 0, 0],
};

/** One who throws a straight, a hook or an elbow. */
export function armed(thrower: Thrower): Driven {
  const start = coiledOf(thrower);
  const { way, calls, reach, across } = thrower;
  const { upper, fore, fist } = lengthsOf(thrower);
  const ends = (placed: readonly Placed[]) => endOf(thrower, placed);
  return {
    linkage: linkageOf(thrower),
    guard: guardOf(thrower),
    start,
    drive: (now, time) => drive(thrower, start, now, time),
    ends,
    direction: TOWARD[way],
    missing: (placed) => {
      const { end, root } = ends(placed);
      switch (way) {
        case 'straight':
          return reach - size(subtract(end, root)) / (upper + fore + fist);
        case 'hook':
        case 'elbow':
          return end[2] - STANDS[way] + across;
        default:
          return MEETS[way] * upper - dot(subtract(end, root), TOWARD[way]);
      }
    },
    meetsAfter: calls.arm + 0.06,
  };
}

/**
 * A straight is steered so that the fist meets the line from between the feet to the target, a hand's breadth
 * below the shoulder: two angles by shooting.
 */
export function aimed(thrower: Thrower): Thrower {
  if (thrower.way !== 'straight') return thrower;
  const at = (aim: readonly number[]): Thrower => ({ ...thrower, aim: [aim[0]!, aim[1]!] });
  const { values } = leastSquares(
    (aim) => {
      const { driven, way, met } = throwIt(armed(at(aim)));
      const { end } = driven.ends(driven.linkage.placed(way.at(-1)!.q));
      return [end[2] / NEAR.enough, (met[1] + NEAR.below) / NEAR.enough];
    },
    thrower.aim,
    5,
  );
  return at(values);
}

/** The torques of all joints (the force of the push) at an instant. */
function drive(thrower: Thrower, start: readonly number[], now: Moving, time: number): number[] {
  const { pulls, calls, coil } = thrower;
  const joint = new Joints(thrower, start, now, time);
  const torques = new Array<number>(start.length).fill(0);
  torques[JOINT.push] = joint.pushed(JOINT.push, pulls.push, calls.pelvis);
  torques[JOINT.pelvis] = joint.turned(JOINT.pelvis, pulls.pelvis, calls.pelvis, 12, degrees(62));
  torques[JOINT.lean] = joint.held(JOINT.lean, 420);
  torques[JOINT.trunk] =
    time < calls.trunk
      ? joint.held(JOINT.trunk, 150)
      : joint.turned(JOINT.trunk, pulls.trunk, calls.trunk, 14, degrees(14) + coil);
  switch (thrower.way) {
    case 'straight':
      return straightArm(thrower, joint, torques, now, time);
    case 'hook':
    case 'elbow':
      return bentArm(thrower, thrower.way, joint, torques, time);
    default:
      return swungArm(thrower, thrower.way, joint, torques, now, time);
  }
}

function waitingArm(joint: Joints, torques: number[]): number[] {
  torques[JOINT.across] = joint.held(JOINT.across, 28);
  torques[JOINT.raise] = joint.held(JOINT.raise, 28);
  torques[JOINT.roll] = joint.held(JOINT.roll, 8);
  torques[JOINT.bend] = joint.held(JOINT.bend, 18);
  return torques;
}

/** Raised at the target, which the body turns past, while the elbow opens. */
function straightArm(
  { pulls, calls, aim, brakes }: Thrower,
  joint: Joints,
  torques: number[],
  { q }: Moving,
  time: number,
): number[] {
  if (time < calls.arm) return waitingArm(joint, torques);
  const call = calls.arm;
  const across = aim[0] - q[JOINT.pelvis]! - q[JOINT.trunk]!;
  torques[JOINT.across] = joint.steered(JOINT.across, across, pulls.shoulder, 2.4, call);
  torques[JOINT.raise] = joint.steered(JOINT.raise, aim[1], pulls.shoulder, 4, call);
  torques[JOINT.roll] = joint.steered(JOINT.roll, -0.5, ROLLS.pull, 3, call, ROLLS.stiff);
  const opens = call + OPENS_AFTER;
  const opened = joint.opened(
    JOINT.bend,
    pulls.elbow,
    opens,
    ELBOW_FASTEST,
    ARM_READY.straight.bend,
  );
  torques[JOINT.bend] =
    brakes !== null && time > brakes ? joint.stopped(JOINT.bend, BRAKES, brakes) : opened;
  return torques;
}

/** Lifted with the trunk and carried by it at its angle, swept when the arm is called. */
function bentArm(
  { pulls, calls, aim, holds, bends }: Thrower,
  way: 'hook' | 'elbow',
  joint: Joints,
  torques: number[],
  time: number,
): number[] {
  const lifts = Math.min(calls.trunk, calls.arm);
  if (time < lifts) return waitingArm(joint, torques);
  const { raise, roll, carried, sets } = BENT[way];
  const bend = way === 'hook' ? Math.PI - bends : ELBOW_BENT;
  const isSet = time - calls.arm >= sets;
  torques[JOINT.across] = isSet
    ? joint.steered(JOINT.across, aim[0], pulls.shoulder, 2.4, calls.arm)
    : joint.steered(JOINT.across, carried, pulls.shoulder, 2.4, lifts);
  torques[JOINT.raise] = joint.steered(JOINT.raise, raise + aim[1], pulls.shoulder, 4, lifts);
  torques[JOINT.roll] = joint.steered(JOINT.roll, roll, ROLLS.pull, 3, lifts, ROLLS.stiff);
  torques[JOINT.bend] = joint.held(JOINT.bend, 45 * holds, bend);
  return torques;
}

/** Swung up, down or in beside the body, at its angle, toward what stands before it. */
function swungArm(
  { pulls, calls, aim, holds }: Thrower,
  way: Swung,
  joint: Joints,
  torques: number[],
  { q }: Moving,
  time: number,
): number[] {
  if (time < calls.arm) return waitingArm(joint, torques);
  const { through, bend } = SWUNG[way];
  const across = aim[0] - q[JOINT.pelvis]! - q[JOINT.trunk]!;
  torques[JOINT.across] = joint.steered(JOINT.across, across, pulls.shoulder, 2.4, calls.arm);
  torques[JOINT.raise] = joint.steered(JOINT.raise, through + aim[1], pulls.shoulder, 1, calls.arm);
  torques[JOINT.roll] = joint.steered(JOINT.roll, -0.1, ROLLS.pull, 3, calls.arm, ROLLS.stiff);
  torques[JOINT.bend] = joint.held(JOINT.bend, 45 * holds, bend);
  return torques;
}
