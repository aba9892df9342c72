/** Centre of mass of the body, and of each segment, from the landmarks. */
import { midpoint, plus, scaled, type Vector } from '../geometry/vector';
import { LANDMARKS, sided, type Landmark, type Side } from './landmarks';
import { DEMPSTER, type Segment } from './segments';

/** Where a landmark is; the caller decides what happens when it is not known. */
type At = (landmark: Landmark) => Vector;

export interface SegmentPlace {
  readonly segment: Segment;
  readonly side: Side | null;
  /** Share of body mass. */
  readonly mass: number;
  /** Ends, proximal first, and the centre of mass between them. */
  readonly ends: readonly [Vector, Vector];
  readonly centre: Vector;
}

const LIMBS: readonly (readonly [Segment, (at: At, side: Side) => readonly [Vector, Vector]])[] = [
  ['upperArm', (at, s) => [at(sided(s, 'Shoulder')), at(sided(s, 'Elbow'))]],
  ['forearm', (at, s) => [at(sided(s, 'Elbow')), at(sided(s, 'Wrist'))]],
  ['hand', (at, s) => [at(sided(s, 'Wrist')), knuckles(at, s)]],
  ['thigh', (at, s) => [at(sided(s, 'Hip')), at(sided(s, 'Knee'))]],
  ['shank', (at, s) => [at(sided(s, 'Knee')), at(sided(s, 'Ankle'))]],
  ['foot', (at, s) => [at(sided(s, 'Ankle')), at(sided(s, 'Toe'))]],
];

function knuckles(at: At, side: Side): Vector {
  return midpoint(at(sided(side, 'IndexKnuckle')), at(sided(side, 'LittleKnuckle')));
}

/** Parts of the body whose segments hang on one another. */
export const BODY_PARTS = ['trunk', 'leftArm', 'rightArm', 'leftLeg', 'rightLeg'] as const;
export type BodyPart = (typeof BODY_PARTS)[number];

/**
 * All fourteen segments, or those of one part. The head's own centre is taken at the middle of the ears (its
 * Dempster centre, 100 % of the way from C7–T1 to the ear canal); a closed fist's at its knuckles' way.
 */
export function segmentPlaces(at: At, part?: BodyPart): SegmentPlace[] {
  return (part ? [part] : BODY_PARTS).flatMap((one) =>
    one === 'trunk' ? trunkPlaces(at) : limbPlaces(at, one),
  );
}

function trunkPlaces(at: At): SegmentPlace[] {
  const shoulders = midpoint(at('leftShoulder'), at('rightShoulder'));
  const hips = midpoint(at('leftHip'), at('rightHip'));
  const ears = midpoint(at('leftEar'), at('rightEar'));
  return [place('trunk', null, [hips, shoulders]), place('head', null, [shoulders, ears])];
}

function limbPlaces(at: At, part: Exclude<BodyPart, 'trunk'>): SegmentPlace[] {
  const side = part.startsWith('left') ? 'left' : 'right';
  const limbs = part.endsWith('Arm') ? LIMBS.slice(0, 3) : LIMBS.slice(3);
  return limbs.map(([segment, ends]) => place(segment, side, ends(at, side)));
}

function place(segment: Segment, side: Side | null, ends: readonly [Vector, Vector]): SegmentPlace {
  const { mass, centre } = DEMPSTER[segment];
  const [near, far] = ends;
  const middle = plus(scaled(near, 1 - centre), scaled(far, centre));
  return { segment, side, mass, ends, centre: middle };
}

/** How much each landmark weighs in the centre of mass; the weights add up to 1. */
export const CENTRE_WEIGHTS: ReadonlyMap<Landmark, number> = weights();

/** The segments' table, read through unit landmarks: the centre is linear in them. */
function weights(): ReadonlyMap<Landmark, number> {
  const found = LANDMARKS.map((landmark) => {
    const places = segmentPlaces((asked) => [asked === landmark ? 1 : 0]);
    return [
      landmark,
      places.reduce((sum, { mass, centre }) => sum + mass * centre[0]!, 0),
    ] as const;
  });
  return new Map(found.filter(([, weight]) => weight > 0));
}

/**
 * Centre of mass of the whole body: Σ share of mass × segment centre (Winter 2009, ch. 4). Linear in
 * the landmarks, so that their velocities in place of their positions give its velocity.
 */
export function centreOfMass(at: At): Vector {
  let sum: Vector = [0, 0, 0];
  for (const [landmark, weight] of CENTRE_WEIGHTS) sum = plus(sum, scaled(at(landmark), weight));
  return sum;
}
