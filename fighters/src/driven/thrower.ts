/**
 * A fighter in space who throws by torques: pelvis driven forward and round from the floor, a trunk that leans
 * and turns on it, a shoulder of three hinges, an elbow. What he would lose by a leak is known, because the same
 * body throws again without it. Made to hold the judge's costs to a body that is not the judge's own model.
 */
import { DEMPSTER, SEGMENT_LENGTH } from '@sinew/core/foundation/body/segments';
import { leastSquares } from '@sinew/core/foundation/geometry/leastSquares';
import { add, dot, size, subtract, UP, type Point } from '../fighter/space';
import { Linkage, type Moving, type Part, type Placed } from './linkage';
import { comeOn, inRange, left, tightens } from './muscles';

export const WAYS = ['straight', 'hook', 'elbow'] as const;
export type Way = (typeof WAYS)[number];

/** The striking side is the right one; a lead strike is thrown with the right side forward. */
export interface Thrower {
  readonly way: Way;
  /** Metres, kilograms. */
  readonly height: number;
  readonly mass: number;
  /** Radians; negative = the striking side is back. */
  readonly yaw: number;
  /** Largest pulls: N of the push forward, N m. */
  readonly pulls: Readonly<Record<'push' | 'pelvis' | 'trunk' | 'shoulder' | 'elbow', number>>;
  /** Seconds at which each is called. */
  readonly calls: Readonly<Record<'pelvis' | 'trunk' | 'arm', number>>;
  /** Seconds of each of the two stages in which a muscle comes on. */
  readonly stage: number;
  /** How fast its muscles can shorten, of the usual. */
  readonly quick: number;
  /** How stiffly an elbow that is to hold is held, of the usual. */
  readonly holds: number;
  /** Share of the arm's length at which a straight meets its target. */
  readonly reach: number;
  /** How evenly its muscles lose their pull with speed (see `left`). */
  readonly bent: number;
  /** How hard hips and chest are to turn, of the usual. */
  readonly heavy: number;
  /** Where the limb is steered, radians from the target: about the upright, and upward. */
  readonly aim: readonly [number, number];
}

export interface Thrown {
  readonly linkage: Linkage;
  /** Every `DT` from the first call to contact. */
  readonly way: readonly Moving[];
  /** Seconds from the first call. */
  readonly contact: number;
  /** Whether it met its target, and going there rather than past it. */
  readonly hasArrived: boolean;
  /** m/s along the strike, kg behind it, N s. */
  readonly speed: number;
  readonly mass: number;
  readonly momentum: number;
  /** The fist, or elbow, from its own shoulder at contact, metres. */
  readonly met: Point;
}

export const DT = 0.002;
const LONGEST = 0.8;
/** Of its speed a strike has at least this share toward its target. */
const ALONG = 0.75;
const degrees = (value: number) => (value * Math.PI) / 180;

export const JOINTS = [
  'push',
  'pelvis',
  'lean',
  'trunk',
  'across',
  'raise',
  'roll',
  'bend',
] as const;
const at = (name: (typeof JOINTS)[number]) => JOINTS.indexOf(name);
const [PUSH, PELVIS, LEAN, TRUNK, ACROSS, RAISE, ROLL, BEND] = JOINTS.map(at) as [
  number,
  number,
  number,
  number,
  number,
  number,
  number,
  number,
];

/** Angles of the arm in guard: across the chest, raised, rolled in, bent. */
const GUARD = {
  straight: { across: 0.2, raise: -1.1, roll: -0.25, bend: 2.15 },
  hook: { across: -0.2, raise: -0.6, roll: -0.7, bend: 1.75 },
  elbow: { across: -0.1, raise: -0.6, roll: -0.7, bend: 2.3 },
} as const satisfies Record<Way, object>;
const LEAN_READY = -0.11;

/** Lengths that the arm hangs on, metres. */
export function lengthsOf({ height }: Pick<Thrower, 'height'>) {
  return {
    chest: 0.288 * height,
    shoulder: SEGMENT_LENGTH.shoulderHalfBreadth * 0.86 * height,
    upper: SEGMENT_LENGTH.upperArm * height,
    fore: SEGMENT_LENGTH.forearm * height,
    fist: (SEGMENT_LENGTH.hand * height) / 2,
  };
}

/** Moments of a rod with its mass at `centre` of its length, about its own centre. */
const rod = (mass: number, gyration: number): Point => [
  0.08 * mass * gyration ** 2,
  mass * gyration ** 2,
  mass * gyration ** 2,
];
/** An elliptic cylinder standing up; half-axes to the front and to the side, metres. */
const barrel = (mass: number, front: number, side: number, high: number): Point => [
  mass * (side ** 2 / 4 + high ** 2 / 12),
  (mass * (front ** 2 + side ** 2)) / 4,
  mass * (front ** 2 / 4 + high ** 2 / 12),
];
const NOTHING = { mass: 0, centre: [0, 0, 0], inertia: [0, 0, 0] } as const;

export function linkageOf({
  height,
  mass,
  heavy,
}: Pick<Thrower, 'height' | 'mass' | 'heavy'>): Linkage {
  const long = lengthsOf({ height });
  const of = (share: number) => share * mass;
  const trunk = of(DEMPSTER.trunk.mass);
  // The hips, both thighs and half of the shanks go along; what stands on the floor does not.
  const hips = 0.28 * trunk + of(2 * DEMPSTER.thigh.mass + DEMPSTER.shank.mass);
  const arm = DEMPSTER.upperArm.mass + DEMPSTER.forearm.mass + DEMPSTER.hand.mass;
  // Chest, head, and the other arm folded before it.
  const chest = 0.72 * trunk + of(DEMPSTER.head.mass + arm);
  const turned = (moments: Point): Point => [moments[0], heavy * moments[1], moments[2]];
  const around = turned(barrel(chest, 0.07 * height, 0.1 * height, 0.4 * height));
  const upper = of(DEMPSTER.upperArm.mass);
  const fore = of(DEMPSTER.forearm.mass);
  const hand = of(DEMPSTER.hand.mass);
  const foreCentre =
    (fore * DEMPSTER.forearm.centre * long.fore + hand * long.fore) / (fore + hand);
  const hinge = (name: string, axis: Point, own: Partial<Part> = {}): Part => ({
    name,
    kind: 'hinge',
    at: [0, 0, 0],
    axis,
    ...NOTHING,
    ...own,
  });
  const Z: Point = [0, 0, 1];
  const X: Point = [1, 0, 0];
  return new Linkage([
    { name: 'push', kind: 'slide', at: [0, 0.487 * height, 0], axis: X, ...NOTHING },
    hinge('pelvis', UP, {
      mass: hips,
      inertia: turned(barrel(hips, 0.075 * height, 0.085 * height, 0.2 * height)),
    }),
    hinge('lean', Z),
    hinge('trunk', UP, { mass: chest, centre: [0, 0.2 * height, 0], inertia: around }),
    hinge('across', UP, { at: [0, long.chest, long.shoulder] }),
    hinge('raise', Z),
    hinge('roll', X, {
      mass: upper,
      centre: [DEMPSTER.upperArm.centre * long.upper, 0, 0],
      inertia: rod(upper, DEMPSTER.upperArm.gyration * long.upper),
    }),
    hinge('bend', Z, {
      at: [long.upper, 0, 0],
      mass: fore + hand,
      centre: [foreCentre, 0, 0],
      inertia: rod(fore + hand, 0.36 * long.fore),
    }),
  ]);
}

/** The end that strikes, and its shoulder. */
export function endOf(
  thrower: Thrower,
  placed: readonly Placed[],
): { end: Point; shoulder: Point } {
  const long = lengthsOf(thrower);
  const shoulder = placed[ACROSS]!.at;
  const elbow = placed[BEND]!;
  if (thrower.way === 'elbow') return { end: elbow.at, shoulder };
  return { end: add(elbow.at, elbow.frame[0], long.fore + long.fist), shoulder };
}

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

/**
 * A straight is steered so that the fist meets the line from between the feet to the target, a hand's breadth
 * below the shoulder: two angles by shooting.
 */
export function aimed(thrower: Thrower): Thrower {
  if (thrower.way !== 'straight') return thrower;
  const at = (aim: readonly number[]): Thrower => ({ ...thrower, aim: [aim[0]!, aim[1]!] });
  const { values } = leastSquares(
    (aim) => {
      const { linkage, way, met } = throwIt(at(aim));
      const { end } = endOf(thrower, linkage.placed(way.at(-1)!.q));
      return [end[2] / 0.02, (met[1] + 0.06) / 0.02];
    },
    thrower.aim,
    5,
  );
  return at(values);
}

export function throwIt(thrower: Thrower): Thrown {
  const linkage = linkageOf(thrower);
  const { across, raise, roll, bend } = GUARD[thrower.way];
  const guard = [0, thrower.yaw, LEAN_READY, 0, across, raise, roll, bend];
  let now: Moving = { q: guard, rates: guard.map(() => 0) };
  const way = [now];
  let time = 0;
  let gap = missing(thrower, linkage.placed(now.q));
  let hasMet = false;
  while (time < LONGEST && !hasMet) {
    const next = linkage.step(now, time, DT, (at, when) => drive(thrower, guard, at, when));
    const then = missing(thrower, linkage.placed(next.q));
    const begun = gap > 0 && time > thrower.calls.arm + 0.06;
    if (then <= 0 && begun) {
      const share = gap / (gap - then);
      const mix = (a: readonly number[], b: readonly number[]) =>
        a.map((value, i) => value + share * (b[i]! - value));
      now = { q: mix(now.q, next.q), rates: mix(now.rates, next.rates) };
      time += share * DT;
      hasMet = true;
    } else {
      [now, gap, time] = [next, then, time + DT];
    }
    way.push(now);
  }
  const placed = linkage.placed(now.q);
  const { end, shoulder } = endOf(thrower, placed);
  const velocity = linkage.velocity(linkage.slopes(placed, end), now.rates);
  const direction: Point = thrower.way === 'straight' ? [1, 0, 0] : [0, 0, -1];
  const speed = dot(velocity, direction);
  const mass = linkage.massBehind(placed, end, direction);
  const met = subtract(end, shoulder);
  const isStrike = hasMet && speed > ALONG * size(velocity);
  return {
    linkage,
    way,
    contact: time,
    hasArrived: isStrike,
    speed,
    mass,
    momentum: mass * speed,
    met,
  };
}

/** What is missing to the target: positive before it. */
function missing(thrower: Thrower, placed: readonly Placed[]): number {
  const { end, shoulder } = endOf(thrower, placed);
  const long = lengthsOf(thrower);
  if (thrower.way === 'straight') {
    return thrower.reach - size(subtract(end, shoulder)) / (long.upper + long.fore + long.fist);
  }
  // The near side of what stands before the fighter.
  return end[2] - (thrower.way === 'elbow' ? 0.12 : 0.05);
}

/** The torques of all joints (the force of the push) at an instant. */
function drive(thrower: Thrower, guard: readonly number[], now: Moving, time: number): number[] {
  const { pulls, calls } = thrower;
  const joint = new Joints(thrower, guard, now, time);
  const torques = new Array<number>(guard.length).fill(0);
  torques[PUSH] = joint.pushed(pulls.push, calls.pelvis);
  torques[PELVIS] = joint.turned(PELVIS, pulls.pelvis, calls.pelvis, 12, degrees(62));
  torques[LEAN] = joint.held(LEAN, 420);
  torques[TRUNK] =
    time < calls.trunk
      ? joint.held(TRUNK, 150)
      : joint.turned(TRUNK, pulls.trunk, calls.trunk, 14, degrees(14));
  return thrower.way === 'straight'
    ? straightArm(thrower, joint, torques, time)
    : bentArm(thrower, thrower.way, joint, torques, time);
}

function waitingArm(joint: Joints, torques: number[]): number[] {
  torques[ACROSS] = joint.held(ACROSS, 28);
  torques[RAISE] = joint.held(RAISE, 28);
  torques[ROLL] = joint.held(ROLL, 8);
  torques[BEND] = joint.held(BEND, 18);
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
  torques[ACROSS] = joint.steered(ACROSS, aim[0] - joint.facing, pulls.shoulder, 2.4, call);
  torques[RAISE] = joint.steered(RAISE, aim[1], pulls.shoulder, 4, call);
  torques[ROLL] = joint.steered(ROLL, -0.5, ROLLS, 3, call);
  torques[BEND] = joint.opened(pulls.elbow, call + OPENS_AFTER);
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
  torques[ACROSS] = isSet
    ? joint.steered(ACROSS, aim[0], pulls.shoulder, 2.4, calls.arm)
    : joint.steered(ACROSS, carried, pulls.shoulder, 2.4, lifts);
  torques[RAISE] = joint.steered(RAISE, raise + aim[1], pulls.shoulder, 4, lifts);
  torques[ROLL] = joint.steered(ROLL, roll, ROLLS, 3, lifts);
  torques[BEND] = joint.held(BEND, 45 * holds, bend);
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
    return this.now.q[PELVIS]! + this.now.q[TRUNK]!;
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
    const wanted = (i === ROLL ? 60 : 160) * (to - q[i]!) - damped * rates[i]!;
    return this.strong * Math.min(most, Math.max(-most, wanted));
  }

  pushed(pull: number, call: number): number {
    const { q, rates } = this.now;
    const worked = pull * this.on(call) * this.left(rates[PUSH]! / 1.6);
    return this.strong * (worked - 6000 * Math.max(0, q[PUSH]! - 0.14) - 60 * rates[PUSH]!);
  }

  /** The elbow, whose angle falls as it opens. */
  opened(pull: number, call: number): number {
    const opened = this.guard[BEND]! - this.now.q[BEND]!;
    const rate = -this.now.rates[BEND]!;
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
