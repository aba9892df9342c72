/**
 * Where every joint of the made-up fighter is at an instant: pelvis and trunk turn about the
 * vertical on planted feet, arms and legs follow by inverse kinematics. Deterministic and exact;
 * the only source of truth for film, tests and the seed of the demo gym.
 */
import { mirrored, LANDMARKS, type Landmark } from '@sinew/core/foundation/body/landmarks';
import { durationFor, knownTimes, profilesOf, shoulderOf, trunkOf } from './body';
import { byOtherSide, FORMS, GUARD, type Form } from './forms';
import { elbowPath, fistPath, fromTrunk, onSide } from './hand';
import { setArm, setFoldedArm, setHead } from './limbs';
import { withIdle } from './idle';
import { setLegs } from './legs';
import { progress, spanning, type Profile } from './profile';
import type { Recipe } from './recipe';
import { add, mix, type Point } from './space';

export { knownTimes } from './body';

export type Pose = Readonly<Record<Landmark, Point>> & {
  /** For the renderer only: centre and facing of the head. */
  readonly head: Point;
};

export type Mover = (time: number) => Pose;

/** The form of a recipe's technique, by the limb the recipe names. */
export function formOf({ technique, by }: Recipe): Form {
  return by === 'lead' ? byOtherSide(FORMS[technique]) : FORMS[technique];
}

/** The fighter's pose as a function of time, in the recipe's own stance. */
export function mover(recipe: Recipe): Mover {
  const orthodox = orthodoxMover(recipe);
  return recipe.stance === 'orthodox' ? orthodox : (time) => mirrorPose(orthodox(time));
}

export function mirrorPose(pose: Pose): Pose {
  const flip = ([x, y, z]: Point): Point => [x, y, -z];
  const entries = LANDMARKS.map((name) => [name, flip(pose[mirrored(name)])] as const);
  return { ...(Object.fromEntries(entries) as Record<Landmark, Point>), head: flip(pose.head) };
}

/** How far the elbow is swung out around the shoulder–fist line in a hook. */
const HOOK_SWIVEL = 1.45;
/** Where the hand that pulls back ends, from the head. */
const AT_THE_HIP: Point = [-0.02, -0.55, 0.2];
/** Where an arm is that has swung against its own leg: down and behind, from the head as the trunk faces. */
const SWUNG: Point = [-0.3, -0.5, 0.22];

function orthodoxMover(recipe: Recipe): Mover {
  const form = formOf(recipe);
  const profiles = profilesOf(recipe, form);
  const body = trunkOf(recipe, form, profiles);
  const t = knownTimes(recipe);
  const { limb } = form;
  const isRight = form.striking === 'right';
  const arm = { recipe, form, profiles, body };
  const fist = fistPath(arm);
  const elbow = limb.kind === 'elbow' ? elbowPath(arm, limb) : null;
  const swingOut: Profile = spanning(t.arm, t.contact - 0.25 * recipe.out);
  const slipping = spanning(t.hips, t.contact);
  const swingIn: Profile = spanning(t.contact - 0.45 * recipe.out, t.contact + 0.05);

  return (time) => {
    const trunk = body(time);
    const joints = {} as Record<Landmark, Point>;
    const out = progress(profiles.arm, time) - progress(profiles.armHome, time);
    const turned = progress(profiles.trunk, time) - progress(profiles.bodyHome, time);
    const shoulder = (right: boolean) => shoulderOf(trunk, right, recipe);
    const guard = (right: boolean) =>
      add(trunk.head, onSide(GUARD[right ? 'right' : 'left'], right));

    if (fist) {
      const swing =
        limb.kind === 'hook'
          ? (HOOK_SWIVEL - recipe.elbowHangs) * out
          : recipe.flare * Math.max(0, progress(swingOut, time) - progress(swingIn, time));
      const hand = {
        flex: recipe.wristFlex * Math.max(0, out),
        roll: recipe.fistRoll * Math.max(0, out),
      };
      setArm(joints, isRight, shoulder(isRight), fist(time, trunk), 0.25 + swing, recipe, hand);
    } else if (elbow) {
      setFoldedArm(joints, isRight, shoulder(isRight), elbow(time, trunk), recipe);
    } else {
      const swung = add(trunk.head, fromTrunk(onSide(SWUNG, isRight), trunk.yaw));
      const hand = mix(guard(isRight), swung, recipe.armSwings * turned);
      setArm(joints, isRight, shoulder(isRight), hand, 0.3, recipe);
    }

    const dropped = recipe.guardDrop * turned;
    const pulled = form.pullsBack ? turned : 0;
    const place = GUARD[isRight ? 'left' : 'right'].map(
      (value, i) => (1 - pulled) * value + pulled * AT_THE_HIP[i]!,
    ) as unknown as Point;
    const goes = recipe.guardTurns * (trunk.yaw - body(t.ready).yaw);
    const carried = fromTrunk(onSide(place, !isRight), goes);
    const offHand = add(add(trunk.head, carried), [0, -dropped, 0]);
    setArm(joints, !isRight, shoulder(!isRight), offHand, 0.3, recipe);

    setLegs(joints, trunk, time, arm);
    setHead(joints, trunk.head, recipe.height);
    return withIdle({ ...joints, head: trunk.head }, recipe.idle, time, slipping);
  };
}

/** For whoever asks several things about the same instants: a pose is what takes time. */
export function remembering(exact: Mover): Mover {
  const seen = new Map<number, Pose>();
  return (time) => {
    const pose = seen.get(time) ?? exact(time);
    seen.set(time, pose);
    return pose;
  };
}

/** Seconds of film a recipe needs, with a breath of guard at the end. */
export function durationOf(recipe: Recipe): number {
  return durationFor(recipe, formOf(recipe));
}
