/**
 * Where the speed of the striking end comes from: every link's own turning, on top of the link
 * before it, and the travel of the pelvis that carries them all.
 *
 * Source: Sprigings, Marshall, Elliott & Jennings, J. Biomech. 27 (1994) 245–254, for rigid links:
 *   v = v_pelvis + ω_pelvis × r + (ω_trunk − ω_pelvis) × r + (ω_upperArm − ω_trunk) × r + …
 * with r from each link's near joint to the striking end. A link known by its two ends has the
 * turning speed that moves its far end about its near one; its spin about itself shows in the next
 * link. What rigid links cannot explain (skin, shoulder girdle, projection) stays as `other`, so
 * that the parts always add up to the whole.
 */
import { cross, dot, minus, plus, scaled, type Vector } from '../../foundation/geometry/vector';

/** A point and its velocity; axes toward, up, right; metres and metres a second. */
export interface Moving {
  readonly at: Vector;
  readonly velocity: Vector;
}

/** What each part of the speed is called, in the order of the chain. */
export const PARTS = [
  'step',
  'drive',
  'pelvis',
  'trunk',
  'shoulder',
  'elbow',
  'wrist',
  'thigh',
  'shank',
  'foot',
  'other',
] as const;
export type Part = (typeof PARTS)[number];

export interface Chain {
  readonly hips: readonly [Moving, Moving];
  /** Null where the limb hangs on the pelvis: a leg. */
  readonly shoulders: readonly [Moving, Moving] | null;
  /** The limb's links from the body outwards: the part each is, and the joint it turns in. */
  readonly limb: readonly (readonly [Part, Moving])[];
  readonly end: Moving;
}

/**
 * @param direction unit vector; the parts are the components along it
 * @returns metres a second for each part the chain has; they sum to the end's velocity along
 *   `direction`
 */
export function decompose(chain: Chain, direction: Vector): Partial<Record<Part, number>> {
  const { end, limb, shoulders } = chain;
  const pelvis = middle(...chain.hips);
  const pelvisTurn = turning(chain.hips[0], chain.hips[1]);
  const from = (joint: Moving) => minus(end.at, joint.at);
  const vertical = [0, pelvis.velocity[1]!, 0];
  const parts: [Part, Vector][] = [
    ['step', minus(pelvis.velocity, vertical)],
    ['drive', vertical],
    ['pelvis', cross(pelvisTurn, from(pelvis))],
  ];
  let before = pelvisTurn;
  if (shoulders) {
    const trunkTurn = trunkTurning(pelvis, shoulders);
    parts.push(['trunk', cross(minus(trunkTurn, before), from(pelvis))]);
    before = trunkTurn;
  }
  limb.forEach(([part, joint], i) => {
    const own = turning(joint, limb[i + 1]?.[1] ?? end);
    parts.push([part, cross(minus(own, before), from(joint))]);
    before = own;
  });
  const explained = parts.reduce<Vector>((sum, [, v]) => plus(sum, v), [0, 0, 0]);
  parts.push(['other', minus(end.velocity, explained)]);
  return Object.fromEntries(parts.map(([part, v]) => [part, dot(v, direction)]));
}

function middle(a: Moving, b: Moving): Moving {
  return {
    at: scaled(plus(a.at, b.at), 0.5),
    velocity: scaled(plus(a.velocity, b.velocity), 0.5),
  };
}

/** ω of a link from its two ends: r × v / r², without spin about the link itself. */
function turning(near: Moving, far: Moving): Vector {
  const r = minus(far.at, near.at);
  return scaled(cross(r, minus(far.velocity, near.velocity)), 1 / dot(r, r));
}

/**
 * ω of the trunk, a triangle of the pelvis' middle and the two shoulders. The line of the
 * shoulders fixes all but the spin about itself, which the line from the pelvis to their middle
 * fixes; in a picture from above that line is short or nothing, and so is its word.
 */
function trunkTurning(pelvis: Moving, shoulders: readonly [Moving, Moving]): Vector {
  const across = turning(...shoulders);
  const line = minus(shoulders[1].at, shoulders[0].at);
  const chest = middle(...shoulders);
  const spine = minus(chest.at, pelvis.at);
  const lever = cross(line, spine);
  const leverSquared = dot(lever, lever);
  // In a picture from above both lines lie flat, and a spin about one of them cannot be seen.
  if (spine[1] === 0 || leverSquared === 0) return across;
  const missing = minus(minus(chest.velocity, pelvis.velocity), cross(across, spine));
  return plus(across, scaled(line, dot(missing, lever) / leverSquared));
}
