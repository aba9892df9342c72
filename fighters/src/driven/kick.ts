/**
 * One who throws a round kick by torques: hips that are driven round over the leg that stands, a thigh lifted and
 * swung by three hinges of the hip, a knee that folds and opens. What is above the hips goes round with them.
 */
import { DEMPSTER, SEGMENT_LENGTH } from '@sinew/core/foundation/body/segments';
import { add, UP, type Point } from '../fighter/space';
import { barrel, hinge, NOTHING, rod } from './parts';
import { Joints, type Muscled } from './joints';
import { Linkage, type Moving, type Placed } from './linkage';
import type { Driven } from './throw';

/** The kicking side is the right one, and the rear. */
export interface Kicker extends Muscled {
  /** Metres. */
  readonly height: number;
  /** Radians; negative = the kicking side is back. */
  readonly yaw: number;
  /** Largest pulls: N of the push forward, N m. */
  readonly pulls: Readonly<Record<'push' | 'pelvis' | 'thigh' | 'knee', number>>;
  /** Seconds at which each is called. */
  readonly calls: Readonly<Record<'pelvis' | 'thigh' | 'shank', number>>;
  /** How hard the body is to turn, of the usual. */
  readonly heavy: number;
  /** How far the knee is folded on the way, radians from straight. */
  readonly folds: number;
  /** How far round the hips can go over the foot, radians. */
  readonly range: number;
  /** Where the thigh is steered, radians from where the hips face: about the upright, and upward. */
  readonly aim: readonly [number, number];
}

/** Places of the joints in the chain, from the floor out. */
export const LEG_JOINT = {
  push: 0,
  pelvis: 1,
  across: 2,
  raise: 3,
  roll: 4,
  bend: 5,
} as const;

/** The kicking leg in guard: turned out, hanging, its knee soft. */
const LEG_READY = { across: -0.35, raise: -1.25, roll: 0, bend: 0.5 };
/** The middle of the hips in guard, metres before the middle of the feet and to the right of it. */
const STANDS_AT = { forward: 0, side: 0.01 };

/** Half the distance from hip to hip that a fighter is drawn with, of his height. */
const HALF_HIPS = 0.062;

/** Lengths that the leg hangs on, metres. */
export function legOf({ height }: Pick<Kicker, 'height'>) {
  return {
    halfHips: HALF_HIPS * height,
    thigh: SEGMENT_LENGTH.thigh * height,
    shank: SEGMENT_LENGTH.shank * height,
    /** From the ankle to the middle of the instep, of a foot that is drawn out. */
    instep: 0.4 * SEGMENT_LENGTH.foot * height,
  };
}

function legLinkage({ height, mass, heavy, yaw }: Kicker): Linkage {
  const long = legOf({ height });
  const of = (share: number) => share * mass;
  const arms = 2 * (DEMPSTER.upperArm.mass + DEMPSTER.forearm.mass + DEMPSTER.hand.mass);
  const body = of(DEMPSTER.trunk.mass + DEMPSTER.head.mass + arms);
  const around = barrel(body, 0.075 * height, 0.1 * height, 0.5 * height);
  const thigh = of(DEMPSTER.thigh.mass);
  const [shank, foot] = [of(DEMPSTER.shank.mass), of(DEMPSTER.foot.mass)];
  const lower = shank + foot;
  const ankle = long.shank;
  const centre = (shank * DEMPSTER.shank.centre * long.shank + foot * (ankle + 0.05)) / lower;
  const X: Point = [1, 0, 0];
  const Z: Point = [0, 0, 1];
  const back: Point = [Math.sin(yaw) * long.halfHips, 0, Math.cos(yaw) * long.halfHips];
  return new Linkage([
    {
      name: 'push',
      kind: 'slide',
      at: [STANDS_AT.forward - back[0], 0.487 * height, STANDS_AT.side - back[2]],
      axis: X,
      ...NOTHING,
    },
    hinge('pelvis', UP, {
      mass: body,
      centre: [0, 0.25 * height, long.halfHips],
      inertia: [around[0], heavy * around[1], around[2]],
    }),
    hinge('across', UP, { at: [0, 0, 2 * long.halfHips] }),
    hinge('raise', Z),
    hinge('roll', X, {
      mass: thigh,
      centre: [DEMPSTER.thigh.centre * long.thigh, 0, 0],
      inertia: rod(thigh, DEMPSTER.thigh.gyration * long.thigh),
    }),
    // The knee folds the shank down, where nothing is rolled.
    hinge('bend', [0, 0, -1], {
      at: [long.thigh, 0, 0],
      mass: lower,
      centre: [centre, 0, 0],
      inertia: rod(lower, 0.4 * long.shank),
    }),
  ]);
}

/** Rates at which muscles have nothing left, rad/s. */
const FASTEST = { pelvis: 10, knee: 24 };
/** How far outward the knee is rolled, and the pull and stiffness of what rolls it and what folds it. */
const ROLLS = { to: -1.35, pull: 70, stiff: 110 };
const FOLDS = { pull: 90, stiff: 120, damped: 3 };

function drive(kicker: Kicker, guard: readonly number[], now: Moving, time: number): number[] {
  const { pulls, calls, folds, range, aim } = kicker;
  const joint = new Joints(kicker, guard, now, time);
  const { push, pelvis, across, raise, roll, bend } = LEG_JOINT;
  const torques = new Array<number>(guard.length).fill(0);
  torques[push] = joint.pushed(push, pulls.push, calls.pelvis);
  torques[pelvis] = joint.turned(pelvis, pulls.pelvis, calls.pelvis, FASTEST.pelvis, range);
  if (time < calls.thigh) {
    for (const [i, stiff] of [
      [across, 60],
      [raise, 60],
      [roll, 20],
      [bend, 30],
    ] as const) {
      torques[i] = joint.held(i, stiff);
    }
    return torques;
  }
  torques[across] = joint.steered(across, aim[0], pulls.thigh, 8, calls.thigh, 260);
  torques[raise] = joint.steered(raise, aim[1], pulls.thigh, 10, calls.thigh, 260);
  torques[roll] = joint.steered(roll, ROLLS.to, ROLLS.pull, 6, calls.thigh, ROLLS.stiff);
  torques[bend] =
    time < calls.shank
      ? joint.steered(bend, folds, FOLDS.pull, FOLDS.damped, calls.thigh, FOLDS.stiff)
      : joint.opened(bend, pulls.knee, calls.shank, FASTEST.knee, Math.max(folds, 1.2));
  return torques;
}

/** The near side of what stands before the fighter, metres to the right of his middle. */
const TARGET_STANDS = 0.05;

export function kicking(kicker: Kicker): Driven {
  const guard = [0, kicker.yaw, LEG_READY.across, LEG_READY.raise, LEG_READY.roll, LEG_READY.bend];
  const long = legOf(kicker);
  const ends = (placed: readonly Placed[]) => {
    const knee = placed[LEG_JOINT.bend]!;
    return {
      end: add(knee.at, knee.frame[0], long.shank + long.instep),
      root: placed[LEG_JOINT.across]!.at,
    };
  };
  return {
    linkage: legLinkage(kicker),
    guard,
    start: guard,
    drive: (now, time) => drive(kicker, guard, now, time),
    ends,
    direction: [0, 0, -1],
    missing: (placed) => ends(placed).end[2] - TARGET_STANDS,
    meetsAfter: kicker.calls.thigh + 0.1,
  };
}
