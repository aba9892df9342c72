/** The body of a driven fighter who throws an arm: links and masses, guard, and where its end and its shoulder are. */
import { DEMPSTER, SEGMENT_LENGTH } from '@sinew/core/foundation/body/segments';
import { add, UP, type Point } from '../fighter/space';
import type { Muscled } from './joints';
import { barrel, hinge, NOTHING, rod } from './parts';
import { Linkage, type Placed } from './linkage';

/** Round elbows are `elbow`; the last three are elbows as well. */
export type Way = 'straight' | 'hook' | 'elbow' | 'uppercut' | 'rising' | 'dropping' | 'thrusting';

/** The striking side is the right one; a lead strike is thrown with the right side forward. */
export interface Thrower extends Muscled {
  readonly way: Way;
  /** Metres. */
  readonly height: number;
  /** Radians; negative = the striking side is back. */
  readonly yaw: number;
  /** Largest pulls: N of the push (forward, up or down), N m. */
  readonly pulls: Readonly<Record<'push' | 'pelvis' | 'trunk' | 'shoulder' | 'elbow', number>>;
  /** Seconds at which each is called. */
  readonly calls: Readonly<Record<'pelvis' | 'trunk' | 'arm', number>>;
  /** How stiffly an elbow that is to hold is held, of the usual. */
  readonly holds: number;
  /** Share of the arm's length at which a straight meets its target. */
  readonly reach: number;
  /** Inner angle at which the elbow of a hook is carried, radians. */
  readonly bends: number;
  /** Radians by which the trunk is turned back, against the hips, as the throw begins. */
  readonly coil: number;
  /** Seconds at which what opens the arm is called off and stopped; null = it goes on through. */
  readonly brakes: number | null;
  /** How hard hips and chest are to turn, of the usual. */
  readonly heavy: number;
  /** How far to the left of the usual place a hook's target stands, metres: a lead hook's side is in front. */
  readonly across: number;
  /** Where the limb is steered, radians from the target: about the upright, and upward. */
  readonly aim: readonly [number, number];
}

/** Places of the joints in the chain, from the floor out. */
export const JOINT = {
  push: 0,
  pelvis: 1,
  lean: 2,
  trunk: 3,
  across: 4,
  raise: 5,
  roll: 6,
  bend: 7,
} as const;

/** Angles of the arm in guard: across the chest, raised, rolled in, bent. */
export const ARM_READY = {
  straight: { across: 0.2, raise: -1.1, roll: -0.25, bend: 2.15 },
  hook: { across: -0.2, raise: -0.6, roll: -0.7, bend: 1.75 },
  elbow: { across: -0.1, raise: -0.6, roll: -0.7, bend: 2.3 },
  uppercut: { across: 0.1, raise: -1.25, roll: -0.1, bend: 1.8 },
  rising: { across: 0.1, raise: -1.2, roll: -0.1, bend: 2.3 },
  dropping: { across: 0.1, raise: 0.95, roll: -0.1, bend: 2.3 },
  thrusting: { across: 0.1, raise: -1.35, roll: -0.1, bend: 2.3 },
} as const satisfies Record<Way, object>;

/** Which way legs and weight send the body. */
const SENT: Readonly<Record<Way, Point>> = {
  straight: [1, 0, 0],
  hook: [1, 0, 0],
  elbow: [1, 0, 0],
  uppercut: [0, 1, 0],
  rising: [0, 1, 0],
  dropping: [0, -1, 0],
  thrusting: [1, 0, 0],
};

/** What strikes is the elbow itself. */
const ELBOWS: readonly Way[] = ['elbow', 'rising', 'dropping', 'thrusting'];
const LEAN_READY = -0.11;

/** All joints as the throw begins: out of guard, coiled. */
export function coiledOf(thrower: Thrower): readonly number[] {
  return guardOf(thrower).with(JOINT.trunk, -thrower.coil);
}

/** Angles of all joints in guard (metres of the push). */
export function guardOf({ way, yaw }: Thrower): readonly number[] {
  const { across, raise, roll, bend } = ARM_READY[way];
  return [0, yaw, LEAN_READY, 0, across, raise, roll, bend];
}

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

export function linkageOf({
  way,
  height,
  mass,
  heavy,
}: Pick<Thrower, 'way' | 'height' | 'mass' | 'heavy'>): Linkage {
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
  const Z: Point = [0, 0, 1];
  const X: Point = [1, 0, 0];
  return new Linkage([
    { name: 'push', kind: 'slide', at: [0, 0.487 * height, 0], axis: SENT[way], ...NOTHING },
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
export function endOf(thrower: Thrower, placed: readonly Placed[]): { end: Point; root: Point } {
  const long = lengthsOf(thrower);
  const root = placed[JOINT.across]!.at;
  const elbow = placed[JOINT.bend]!;
  if (ELBOWS.includes(thrower.way)) return { end: elbow.at, root };
  return { end: add(elbow.at, elbow.frame[0], long.fore + long.fist), root };
}
