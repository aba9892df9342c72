/** What a driven fighter's muscles do at an instant: the torques that throw. */
import type { Moving } from './linkage';
import { JOINT, type Thrower } from './body';
import { comeOn, inRange, left, tightens } from './muscles';

const degrees = (value: number) => (value * Math.PI) / 180;

/** How the arm of a hook and of an elbow goes: lifted, rolled in, bent; how it is carried, and for how long. */
const BENT = {
  hook: { raise: -0.08, roll: -1.5, bend: degrees(88), carried: -0.95, sets: 0.09 },
  elbow: { raise: -0.05, roll: -1.3, bend: 2.4, carried: -0.75, sets: 0.06 },
} as const;
/** Pull of what rolls the upper arm in, N m; rates at which muscles have nothing left, rad/s. */
const ROLLS = 45;
const SHOULDER_FASTEST = 24;
const ELBOW_FASTEST = 32;
/** A straight's elbow opens so long after its shoulder is called, seconds. */
const OPENS_AFTER = 0.025;

/** The torques of all joints (the force of the push) at an instant. */
export function drive(
  thrower: Thrower,
  guard: readonly number[],
  now: Moving,
  time: number,
): number[] {
  const { pulls, calls } = thrower;
  const joint = new Joints(thrower, guard, now, time);
  const torques = new Array<number>(guard.length).fill(0);
  torques[JOINT.push] = joint.pushed(pulls.push, calls.pelvis);
  torques[JOINT.pelvis] = joint.turned(JOINT.pelvis, pulls.pelvis, calls.pelvis, 12, degrees(62));
  torques[JOINT.lean] = joint.held(JOINT.lean, 420);
  torques[JOINT.trunk] =
    time < calls.trunk
      ? joint.held(JOINT.trunk, 150)
      : joint.turned(JOINT.trunk, pulls.trunk, calls.trunk, 14, degrees(14));
  return thrower.way === 'straight'
    ? straightArm(thrower, joint, torques, time)
    : bentArm(thrower, thrower.way, joint, torques, time);
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
  { pulls, calls, aim }: Thrower,
  joint: Joints,
  torques: number[],
  time: number,
): number[] {
  if (time < calls.arm) return waitingArm(joint, torques);
  const call = calls.arm;
  torques[JOINT.across] = joint.steered(
    JOINT.across,
    aim[0] - joint.facing,
    pulls.shoulder,
    2.4,
    call,
  );
  torques[JOINT.raise] = joint.steered(JOINT.raise, aim[1], pulls.shoulder, 4, call);
  torques[JOINT.roll] = joint.steered(JOINT.roll, -0.5, ROLLS, 3, call);
  torques[JOINT.bend] = joint.opened(pulls.elbow, call + OPENS_AFTER);
  return torques;
}

/** Lifted with the trunk and carried by it at its angle, swept when the arm is called. */
function bentArm(
  { pulls, calls, aim, holds }: Thrower,
  way: 'hook' | 'elbow',
  joint: Joints,
  torques: number[],
  time: number,
): number[] {
  const lifts = Math.min(calls.trunk, calls.arm);
  if (time < lifts) return waitingArm(joint, torques);
  const { raise, roll, bend, carried, sets } = BENT[way];
  const isSet = time - calls.arm >= sets;
  torques[JOINT.across] = isSet
    ? joint.steered(JOINT.across, aim[0], pulls.shoulder, 2.4, calls.arm)
    : joint.steered(JOINT.across, carried, pulls.shoulder, 2.4, lifts);
  torques[JOINT.raise] = joint.steered(JOINT.raise, raise + aim[1], pulls.shoulder, 4, lifts);
  torques[JOINT.roll] = joint.steered(JOINT.roll, roll, ROLLS, 3, lifts);
  torques[JOINT.bend] = joint.held(JOINT.bend, 45 * holds, bend);
  return torques;
}

/** What holds and moves the joints of a thrower at an instant, in N m (the push in N). */
class Joints {
  private readonly strong: number;

  constructor(
    private readonly thrower: Thrower,
    private readonly guard: readonly number[],
    private readonly now: Moving,
    private readonly time: number,
  ) {
    this.strong = thrower.mass / 70;
  }

  /** Where the chest faces. */
  get facing(): number {
    return this.now.q[JOINT.pelvis]! + this.now.q[JOINT.trunk]!;
  }

  /** As by a spring and its friction. */
  held(i: number, stiff: number, to = this.guard[i]!): number {
    const { q, rates } = this.now;
    return this.strong * stiff * (to - q[i]! - 0.08 * rates[i]!);
  }

  /** By its muscle, until its own tissue stops it. */
  turned(i: number, pull: number, call: number, fastest: number, range: number): number {
    const rate = this.now.rates[i]!;
    const turned = this.now.q[i]! - this.guard[i]!;
    const worked = pull * this.on(call) * this.left(rate / fastest) * inRange(turned / range);
    return this.strong * (worked - tightens(turned - range, rate));
  }

  /** To an angle, by no more than its muscles have by now. */
  steered(i: number, to: number, pull: number, damped: number, call: number): number {
    const { q, rates } = this.now;
    const most =
      pull * this.on(call) * this.left((Math.sign(to - q[i]!) * rates[i]!) / SHOULDER_FASTEST);
    const wanted = (i === JOINT.roll ? 60 : 160) * (to - q[i]!) - damped * rates[i]!;
    return this.strong * Math.min(most, Math.max(-most, wanted));
  }

  pushed(pull: number, call: number): number {
    const { q, rates } = this.now;
    const worked = pull * this.on(call) * this.left(rates[JOINT.push]! / 1.6);
    return (
      this.strong * (worked - 6000 * Math.max(0, q[JOINT.push]! - 0.14) - 60 * rates[JOINT.push]!)
    );
  }

  /** The elbow, whose angle falls as it opens. */
  opened(pull: number, call: number): number {
    const opened = this.guard[JOINT.bend]! - this.now.q[JOINT.bend]!;
    const rate = -this.now.rates[JOINT.bend]!;
    const worked = pull * this.on(call) * this.left(rate / ELBOW_FASTEST) * inRange(opened / 2.2);
    return this.strong * (tightens(opened - 2.05, rate) - worked);
  }

  private on(call: number): number {
    return comeOn(this.time - call, this.thrower.stage);
  }

  private left(speed: number): number {
    return left(speed / this.thrower.quick, this.thrower.bent);
  }
}
