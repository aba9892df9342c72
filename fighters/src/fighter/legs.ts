/** Legs: planted feet that turn and step, and the leg that kicks. */
import { sided, type Landmark, type Side } from '@sinew/core/foundation/body/landmarks';
import { SEGMENT_LENGTH } from '@sinew/core/foundation/body/segments';
import { fromTrunk, onSide, type Arm } from './hand';
import type { Trunk } from './body';
import { knownTimes } from './body';
import type { Limb } from './forms';
import { progress, shareAtPeak, spanning, type Profile } from './profile';
import {
  add,
  dot,
  heading,
  mix,
  rightOf,
  scaled,
  subtract,
  twoLinks,
  unit,
  UP,
  type Point,
} from './space';

type Joints = Record<Landmark, Point>;
type Kick = Extract<Limb, { kind: 'kick' }>;

/** Ball of the foot, where the foot points, how high the heel, in stance. */
const STANCE = {
  left: { ball: [0.25, 0.012, -0.11], yaw: 0.3, pitch: 0 },
  right: { ball: [-0.2, 0.012, 0.15], yaw: 0.95 },
} as const satisfies Record<Side, { ball: Point; yaw: number; pitch?: number }>;
/** Where both feet stand on a rope, metres to the right. */
const MIDDLE = 0.02;

/** How high a stepping foot comes, metres. */
const STEP_HEIGHT = 0.07;

export function setLegs(joints: Joints, trunk: Trunk, time: number, arm: Arm): void {
  const { recipe, form, profiles: p } = arm;
  const { height } = recipe;
  const half = 0.062 * height;
  const line = add(
    scaled(rightOf(trunk.pelvisYaw), Math.cos(recipe.hipTilt)),
    UP,
    Math.sin(recipe.hipTilt),
  );
  joints.rightHip = add(trunk.pelvis, line, half);
  joints.leftHip = add(trunk.pelvis, line, -half);
  const turned = progress(p.pelvis, time) - progress(p.bodyHome, time);
  for (const side of ['left', 'right'] as const) {
    const { yaw } = STANCE[side];
    const [x, y, z] = STANCE[side].ball;
    const isRear = side === 'right';
    const isSupport = side !== form.striking;
    const slid = isSupport ? recipe.anchorSlide * turned : 0;
    const ball: Point = [x + slid, y, MIDDLE + (z - MIDDLE) * recipe.rails];
    const pitch = isRear ? recipe.rearHeel : STANCE.left.pitch;
    const turn =
      form.feet[side].turn * (1 - recipe.footHolds) + (isSupport ? recipe.anchorSpin : 0);
    const heel = form.feet[side].heel + (isRear ? recipe.tiptoe : 0);
    const travel = progress(side === 'left' ? p.step : p.drag, time);
    const lifted = side === 'left' ? STEP_HEIGHT * 4 * travel * (1 - travel) : 0;
    const at = form.step === 0 ? ball : add(ball, [form.step * travel, lifted, 0]);
    const kneeIn = isRear ? 0 : recipe.kneeIn * turned;
    setFoot(joints, side, at, yaw + turn * turned, pitch + heel * turned, height, kneeIn);
  }
  if (form.limb.kind === 'kick') kick(joints, trunk, time, form.limb, arm);
}

/** @param pitch radians the heel is raised about the ball of the foot */
function setFoot(
  joints: Joints,
  side: Side,
  ball: Point,
  yaw: number,
  pitch: number,
  height: number,
  kneeIn: number,
): void {
  const footLength = SEGMENT_LENGTH.foot * height;
  const toes = heading(yaw);
  const sole = add(scaled(toes, -Math.cos(pitch)), UP, Math.sin(pitch));
  const instep = add(scaled(toes, Math.sin(pitch)), UP, Math.cos(pitch));
  joints[`${side}Toe`] = add(ball, toes, 0.25 * footLength);
  joints[`${side}Heel`] = add(ball, sole, 0.7 * footLength);
  joints[`${side}Ankle`] = add(add(ball, sole, 0.5 * footLength), instep, 0.039 * height);
  setKnee(joints, side, add(heading(yaw + kneeIn), UP, 0.2), height);
}

function setKnee(joints: Joints, side: Side, pole: Point, height: number): Point {
  const { middle, end } = twoLinks(
    joints[sided(side, 'Hip')],
    joints[sided(side, 'Ankle')],
    SEGMENT_LENGTH.thigh * height,
    SEGMENT_LENGTH.shank * height,
    pole,
  );
  joints[`${side}Knee`] = middle;
  return end;
}

/** From hip to ankle of a leg that is as good as straight, metres of a body of 1.76 m. */
const OUTSTRETCHED = 0.84;

/** Around a joint from one place to another, as a leg goes that does not bend. */
function swung(about: Point, from: Point, to: Point, share: number): Point {
  const [a, b] = [subtract(from, about), subtract(to, about)];
  const long = Math.hypot(...a) + share * (Math.hypot(...b) - Math.hypot(...a));
  return add(about, unit(mix(unit(a), unit(b), share)), long);
}

/** The kicking leg: from its stance to the chamber, from there into the target, and back. */
function kick(joints: Joints, trunk: Trunk, time: number, limb: Kick, arm: Arm): void {
  const { recipe, form, profiles: p } = arm;
  const t = knownTimes(recipe);
  const side = form.striking;
  const isRight = side === 'right';
  const hip = joints[sided(side, 'Hip')];
  const lift: Profile = limb.isKnee
    ? { start: t.trunk, rise: t.contact - t.trunk, fall: recipe.finish }
    : spanning(t.trunk, t.contact);
  const home = progress(p.bodyHome, time);
  const inWorld = (place: Point) => fromTrunk(onSide(place, isRight), trunk.pelvisYaw);
  const from = (place: Point) => add(hip, inWorld(place), recipe.height / 1.76);
  const stance = joints[sided(side, 'Ankle')];
  const stanceToe = subtract(joints[sided(side, 'Toe')], stance);
  const stanceHeel = subtract(joints[sided(side, 'Heel')], stance);

  const lifted = (progress(lift, time) / (limb.isKnee ? shareAtPeak(lift) : 1)) * (1 - home);
  const extended = limb.isKnee
    ? 0
    : (progress(p.arm, time) - (1 - recipe.legFalls) * progress(p.armHome, time)) /
      shareAtPeak(p.arm);
  const straight = from(scaled(unit(limb.chamber), OUTSTRETCHED));
  const chambered = mix(
    mix(stance, from(limb.chamber), lifted),
    swung(hip, stance, straight, lifted),
    recipe.legStraight,
  );
  const kicking = extended * (1 - home);
  const kicked = mix(
    mix(chambered, from(limb.lands), kicking),
    swung(hip, chambered, from(limb.lands), kicking),
    recipe.legStraight,
  );
  const fallen = home > 0 ? swung(hip, from(limb.lands), stance, home) : kicked;
  joints[`${side}Ankle`] = mix(kicked, fallen, recipe.legFalls);
  const up = Math.min(1, lifted);
  const stancePole = add(heading(STANCE[side].yaw), UP, 0.2);
  const pole = unit(mix(unit(stancePole), unit(inWorld(limb.pole)), up));
  const ankle = setKnee(joints, side, pole, recipe.height);
  joints[`${side}Ankle`] = ankle;

  // The foot keeps its own shape and turns with the shank, or is drawn up against it.
  const shank = unit(subtract(ankle, joints[sided(side, 'Knee')]));
  const toesUp = unit(add(inWorld([1, 0.3, 0]), shank, -dot(inWorld([1, 0.3, 0]), shank)));
  const pointed = unit(add(scaled(shank, 0.85), toesUp, 0.5));
  const toward = limb.isPointed ? pointed : unit(add(scaled(shank, 0.35), toesUp, 0.95));
  const footLength = SEGMENT_LENGTH.foot * recipe.height;
  const toe = scaled(toward, 0.78 * footLength);
  const heel = add(scaled(toward, -0.22 * footLength), shank, 0.039 * recipe.height);
  joints[`${side}Toe`] = add(ankle, mix(stanceToe, toe, up));
  joints[`${side}Heel`] = add(ankle, mix(stanceHeel, heel, up));
}
