/** Arms, legs and head hung on a trunk: inverse kinematics with fixed segment lengths. */
import type { Landmark } from '@sinew/core/body/landmarks';
import { SEGMENT_LENGTH } from '@sinew/core/body/segments';
import type { Recipe } from './recipe';
import {
  add,
  cross,
  dot,
  heading,
  rightOf,
  scaled,
  subtract,
  twoLinks,
  unit,
  UP,
  type Point,
} from './space';

/** @param swivel radians the elbow is turned outward from hanging straight down */
export function setArm(
  joints: Record<Landmark, Point>,
  isRight: boolean,
  shoulder: Point,
  fist: Point,
  swivel: number,
  { height }: Recipe,
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
  // The knuckle line lies across the forearm; index knuckle uppermost (thumb-up fist).
  const across = unit(add(UP, along, -dot(UP, along)));
  joints[`${side}Shoulder`] = shoulder;
  joints[`${side}Elbow`] = middle;
  joints[`${side}Wrist`] = wrist;
  joints[`${side}IndexKnuckle`] = add(end, across, 0.03);
  joints[`${side}LittleKnuckle`] = add(end, across, -0.03);
}

export function setLegs(
  joints: Record<Landmark, Point>,
  { pelvis, pelvisYaw }: { readonly pelvis: Point; readonly pelvisYaw: number },
  turned: number,
  { height, technique }: Recipe,
): void {
  const half = 0.062 * height;
  joints.rightHip = add(pelvis, rightOf(pelvisYaw), half);
  joints.leftHip = add(pelvis, rightOf(pelvisYaw), -half);
  const pivots = technique === 'lead-hook' ? { left: 0.75, right: 0.1 } : { left: 0, right: 0.75 };
  const leadYaw = 0.3 + (technique === 'lead-hook' ? pivots.left * turned : 0);
  const rearYaw = 0.95 - (technique === 'cross' ? pivots.right * turned : 0);
  setFoot(
    joints,
    'left',
    [0.25, 0.012, -0.11],
    leadYaw,
    technique === 'lead-hook' ? 0.25 * turned : 0,
    height,
  );
  setFoot(
    joints,
    'right',
    [-0.2, 0.012, 0.15],
    rearYaw,
    0.16 + (technique === 'cross' ? 0.32 * turned : 0),
    height,
  );
}

/** @param pitch radians the heel is raised about the ball of the foot */
function setFoot(
  joints: Record<Landmark, Point>,
  side: 'left' | 'right',
  ball: Point,
  yaw: number,
  pitch: number,
  height: number,
): void {
  const footLength = SEGMENT_LENGTH.foot * height;
  const toes = heading(yaw);
  const sole = add(scaled(toes, -Math.cos(pitch)), UP, Math.sin(pitch));
  const instep = add(scaled(toes, Math.sin(pitch)), UP, Math.cos(pitch));
  const heel = add(ball, sole, 0.7 * footLength);
  const ankle = add(add(ball, sole, 0.5 * footLength), instep, 0.039 * height);
  joints[`${side}Toe`] = add(ball, toes, 0.25 * footLength);
  joints[`${side}Heel`] = heel;
  joints[`${side}Ankle`] = ankle;
  const hip = joints[`${side}Hip`];
  const pole = add(heading(yaw), UP, 0.2);
  const { middle } = twoLinks(
    hip,
    ankle,
    SEGMENT_LENGTH.thigh * height,
    SEGMENT_LENGTH.shank * height,
    pole,
  );
  joints[`${side}Knee`] = middle;
}

export function setHead(joints: Record<Landmark, Point>, head: Point, height: number): void {
  joints.nose = add(head, [0.062 * height, 0.002 * height, 0]);
  joints.leftEar = add(head, [0, 0, -0.042 * height]);
  joints.rightEar = add(head, [0, 0, 0.042 * height]);
}
