/** What a coach asks of a strike: if this link went later, turned further, gave less, did nothing of its own? */
import { simulateStrike, standing, type Model } from './strike';

/** Changes to a fitted strike; nothing given changes nothing. */
export interface WhatIf {
  /** Seconds each link starts later (earlier when negative), in the order of the chain. */
  readonly delays: readonly number[];
  /** Each link's turning power, as a factor. */
  readonly powers: readonly number[];
  /** Share of the limb's length at contact, where the strike is aimed along it. */
  readonly reach: number | null;
  /** Share of the floor's hold that is lost. */
  readonly give: number;
  /** Radians by which the elbow stands off the line in guard. */
  readonly flare: number;
  /** Metres a second of step more. */
  readonly step: number;
}

export const AS_IT_IS: WhatIf = { delays: [], powers: [], reach: null, give: 0, flare: 0, step: 0 };

export function changed(model: Model, { delays, powers, reach, give, flare, step }: WhatIf): Model {
  const { root, guard, meets } = model;
  return {
    ...model,
    joints: model.joints.map((joint, i) => ({
      ...joint,
      onset: joint.onset + (delays[i] ?? 0),
      torque: joint.torque * (powers[i] ?? 1),
      hold: joint.isHeld ? joint.hold * (powers[i] ?? 1) : joint.hold,
    })),
    meets: meets.at === 'reach' && reach !== null ? { ...meets, share: reach } : meets,
    guard: guard.map((angle, i) => (i === root ? angle - flare : angle)),
    give: Math.min(1, Math.max(0, model.give + give)),
    step: model.step + step,
  };
}

/** As good as stiff, N m/rad: what is held so turns a degree, a kick’s shank three (an ordinary body’s strikes). */
const STIFF = 1500;

/** The strike with one link held in guard against the link before it: carried along, giving nothing of its own. */
export function heldStill(model: Model, link: number): Model {
  return {
    ...model,
    joints: model.joints.map((joint, i) =>
      i === link ? { ...joint, torque: 0, hold: STIFF, isHeld: true } : joint,
    ),
  };
}

/**
 * What each link is worth: the share of its momentum that a strike loses when the link is held still, thrown at
 * the same target. Null where it then does not arrive.
 */
export function worthOfLinks(fitted: Model): (number | null)[] {
  const as = simulateStrike(fitted);
  const placed = standing(fitted, as);
  return fitted.joints.map((joint, i) => {
    // A joint that is held already is what it is.
    if (joint.isHeld || as.momentum <= 0) return null;
    const without = simulateStrike(heldStill(placed, i));
    return without.hasArrived ? 1 - without.momentum / as.momentum : null;
  });
}
