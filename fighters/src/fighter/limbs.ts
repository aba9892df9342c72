/** Arms and head hung on a trunk: inverse kinematics with fixed segment lengths. */
import type { Landmark } from '@sinew/core/foundation/body/landmarks';
import { SEGMENT_LENGTH } from '@sinew/core/foundation/body/segments';
import type { Recipe } from './recipe';
import { add, cross, dot, scaled, size, subtract, twoLinks, unit, UP, type Point } from './space';

/** @param swivel radians the elbow is turned outward from hanging straight down */
export function setArm(
  joints: Record<Landmark, Point>,
  isRight: boolean,
  shoulder: Point,
  fist: Point,
  swivel: number,
  { height }: Recipe,
  { flex, roll } = { flex: 0, roll: 0 },
): void {
  const side = isRight ? 'right' : 'left';
  const upper = SEGMENT_LENGTH.upperArm * height;
  const fore = SEGMENT_LENGTH.forearm * height;
  const hand = (SEGMENT_LENGTH.hand * height) / 2;
  const axis = unit(subtract(fist, shoulder));
  const down = unit(add(scaled(UP, -1), axis, dot(UP, axis)));
  const outward = scaled(cross(down, axis), isRight ? 1 : -1);
  const pole = add(scaled(down, Math.cos(swivel)), outward, Math.sin(swivel));
  const { middle, end } = twoLinks(shoulder, fist, upper, fore + hand, pole);
  const along = unit(subtract(end, middle));
  const wrist = add(middle, along, fore);
  // The knuckle line lies across the forearm; index knuckle uppermost (thumb-up fist) unless rolled.
  const thumb = unit(add(UP, along, -dot(UP, along)));
  const across = add(scaled(thumb, Math.cos(roll)), cross(along, thumb), Math.sin(roll));
  const bent = add(scaled(along, Math.cos(flex)), cross(along, across), Math.sin(flex));
  const knuckles = add(wrist, bent, size(subtract(end, wrist)));
  joints[`${side}Shoulder`] = shoulder;
  joints[`${side}Elbow`] = middle;
  joints[`${side}Wrist`] = wrist;
  joints[`${side}IndexKnuckle`] = add(knuckles, across, 0.03);
  joints[`${side}LittleKnuckle`] = add(knuckles, across, -0.03);
}

/** An arm given by the directions of upper arm and forearm: an elbow strike. */
export function setFoldedArm(
  joints: Record<Landmark, Point>,
  isRight: boolean,
  shoulder: Point,
  [upper, fore]: readonly [Point, Point],
  { height }: Recipe,
): void {
  const side = isRight ? 'right' : 'left';
  const elbow = add(shoulder, upper, SEGMENT_LENGTH.upperArm * height);
  const wrist = add(elbow, fore, SEGMENT_LENGTH.forearm * height);
  const end = add(wrist, fore, (SEGMENT_LENGTH.hand * height) / 2);
  const level = cross(fore, upper);
  joints[`${side}Shoulder`] = shoulder;
  joints[`${side}Elbow`] = elbow;
  joints[`${side}Wrist`] = wrist;
  joints[`${side}IndexKnuckle`] = add(end, unit(level), 0.03);
  joints[`${side}LittleKnuckle`] = add(end, unit(level), -0.03);
}

export function setHead(joints: Record<Landmark, Point>, head: Point, height: number): void {
  joints.nose = add(head, [0.062 * height, 0.002 * height, 0]);
  joints.leftEar = add(head, [0, 0, -0.042 * height]);
  joints.rightEar = add(head, [0, 0, 0.042 * height]);
}
