/**
 * Where every joint of the made-up fighter is at an instant: pelvis and trunk turn about the
 * vertical on planted feet, arms and legs follow by inverse kinematics. Deterministic and exact;
 * the only source of truth for film, tests and the seed of the demo gym.
 */
import { mirrored, LANDMARKS, type Landmark } from '@sinew/core/body/landmarks';
import { SEGMENT_LENGTH } from '@sinew/core/body/segments';
import { endOf, progress, shareAtPeak, spanning, type Profile } from './profile';
import type { Recipe } from './recipe';
import { setArm, setHead, setLegs } from './limbs';
import {
  add,
  dot,
  forwardOf,
  mix,
  rightOf,
  scaled,
  size,
  subtract,
  unit,
  UP,
  type Point,
} from './space';

export type Pose = Readonly<Record<Landmark, Point>> & {
  /** For the renderer only: centre and facing of the head. */
  readonly head: Point;
};

/** Instants of the strike, seconds, exact. */
export interface KnownTimes {
  readonly ready: number;
  readonly load: number;
  readonly hips: number;
  readonly trunk: number;
  readonly arm: number;
  readonly contact: number;
  readonly end: number;
  readonly home: number;
}

export function knownTimes(recipe: Recipe): KnownTimes {
  const arm = recipe.contact - recipe.out;
  const trunk = arm - recipe.trunkToArm;
  const hips = trunk - recipe.hipsToTrunk;
  const load = hips - recipe.load;
  const end = recipe.contact + recipe.finish;
  return {
    ready: load - 0.05,
    load,
    hips,
    trunk,
    arm,
    contact: recipe.contact,
    end,
    home: end + recipe.recoil * recipe.out,
  };
}

interface Profiles {
  readonly pelvis: Profile;
  readonly trunk: Profile;
  readonly arm: Profile;
  readonly sink: Profile;
  readonly coil: Profile;
  readonly armHome: Profile;
  readonly bodyHome: Profile;
}

function profiles(recipe: Recipe): Profiles {
  const t = knownTimes(recipe);
  const toPeak = (start: number, share: number) => share * (t.contact - start);
  const isHook = recipe.technique === 'lead-hook';
  const trunkRise = toPeak(t.trunk, recipe.trunkPeak);
  const pelvisRise = toPeak(t.hips, recipe.pelvisPeak);
  return {
    pelvis: { start: t.hips, rise: pelvisRise, fall: t.end - t.hips - pelvisRise },
    trunk: { start: t.trunk, rise: trunkRise, fall: t.end - t.trunk - trunkRise },
    // A straight drives the fist until contact; a hook sets its angle and is then carried.
    arm: isHook
      ? { start: t.arm, rise: 0.35 * (recipe.out - 0.085), fall: 0.65 * (recipe.out - 0.085) }
      : { start: t.arm, rise: recipe.out, fall: recipe.finish },
    sink: { start: t.load, rise: 0.4 * recipe.load, fall: 0.6 * recipe.load },
    coil: { start: t.load, rise: 0.4 * recipe.load, fall: 0.55 * recipe.load },
    armHome: spanning(t.end, t.home),
    bodyHome: spanning(t.end, t.end + Math.max(0.3, recipe.recoil * recipe.out)),
  };
}

/** Radians; negative = the rear side is back. */
const READY_YAW = (-45 * Math.PI) / 180;
const HOOK_READY_YAW = (-22 * Math.PI) / 180;

export type Mover = (time: number) => Pose;

/** The fighter's pose as a function of time, in the recipe's own stance. */
export function mover(recipe: Recipe): Mover {
  const orthodox = orthodoxMover(recipe);
  return recipe.stance === 'orthodox' ? orthodox : (time) => mirrorPose(orthodox(time));
}

function mirrorPose(pose: Pose): Pose {
  const flip = ([x, y, z]: Point): Point => [x, y, -z];
  const entries = LANDMARKS.map((name) => [name, flip(pose[mirrored(name)])] as const);
  return { ...(Object.fromEntries(entries) as Record<Landmark, Point>), head: flip(pose.head) };
}

interface Trunk {
  readonly yaw: number;
  readonly pelvisYaw: number;
  readonly pelvis: Point;
  readonly chest: Point;
  readonly head: Point;
}

function orthodoxMover(recipe: Recipe): Mover {
  const p = profiles(recipe);
  const t = knownTimes(recipe);
  const h = recipe.height;
  const isHook = recipe.technique === 'lead-hook';
  const sign = recipe.technique === 'cross' ? 1 : -1;
  const readyYaw = isHook ? HOOK_READY_YAW : READY_YAW;
  const strikingRight = recipe.technique === 'cross';
  const upper = SEGMENT_LENGTH.upperArm * h;
  const fore = SEGMENT_LENGTH.forearm * h;
  /** Wrist to the middle of the fist: half of the open hand. */
  const hand = (SEGMENT_LENGTH.hand * h) / 2;

  const body = (time: number): Trunk => {
    const back = progress(p.bodyHome, time);
    const out = progress(p.pelvis, time) - back;
    const pelvisYaw = readyYaw + sign * recipe.pelvisTurn * out;
    const coil = recipe.coil * (progress(p.coil, time) - progress(p.trunk, time));
    const yaw = readyYaw + sign * (recipe.trunkTurn * (progress(p.trunk, time) - back) - coil);
    const sunk =
      recipe.sink * (progress(p.sink, time) - 0.4 * progress(p.pelvis, time) - 0.6 * back);
    const gives = recipe.kneeGives * out;
    const forward =
      recipe.technique === 'lead-hook' ? -0.03 : recipe.technique === 'jab' ? 0.08 : 0.11;
    const pelvis: Point = [forward * out - 0.01, 0.487 * h - sunk - gives, 0.01];
    const lean = 0.11 + 0.07 * out;
    const chest = add(pelvis, [Math.sin(lean) * 0.288 * h, Math.cos(lean) * 0.288 * h, 0]);
    const head = add(chest, [0.055 * h * (0.6 + 0.4 * lean), 0.098 * h, 0]);
    return { yaw, pelvisYaw, pelvis, chest, head };
  };

  const shoulder = (trunk: Trunk, isRight: boolean): Point =>
    add(
      trunk.chest,
      rightOf(trunk.yaw),
      (isRight ? 1 : -1) * SEGMENT_LENGTH.shoulderHalfBreadth * 0.86 * h,
    );

  // Guards as offsets from the head, seen from the head (which looks at the target).
  const rearGuard: Point = [0.11, -0.1, 0.085];
  const leadGuard: Point = [0.24, -0.1, -0.07];
  const guardInTrunk = (() => {
    const ready = body(t.ready);
    const world = add(ready.head, strikingRight ? rearGuard : leadGuard);
    return toTrunk(subtract(world, ready.chest), ready.yaw);
  })();
  const guardOf = (trunk: Trunk): Point => add(trunk.chest, fromTrunk(guardInTrunk, trunk.yaw));

  const draw = recipe.telegraph === 0 ? null : spanning(t.arm - 0.14, t.arm - 0.01);

  // The fist's end point, so that it passes the wanted contact point at contact.
  const atContact = body(t.contact);
  const contactShoulder = shoulder(atContact, strikingRight);
  const aim: Point = unit(
    subtract([2.2, atContact.head[1] - 0.02, strikingRight ? 0.12 : -0.12], contactShoulder),
  );
  const contactPoint = add(contactShoulder, aim, recipe.reach * (upper + fore + hand));
  const guardAtContact = guardOf(atContact);
  const last = add(guardAtContact, subtract(contactPoint, guardAtContact), 1 / shareAtPeak(p.arm));

  const straightFist = (time: number, trunk: Trunk): Point => {
    const guard = guardOf(trunk);
    const share = progress(p.arm, time) - progress(p.armHome, time);
    const drawn = draw ? progress(draw, time) - progress(p.arm, time) : 0;
    return add(mix(guard, last, share), [-recipe.telegraph * Math.max(0, drawn), 0, 0]);
  };

  // A hook in the trunk's own axes: direction of the fist from the shoulder, and the elbow's angle.
  const guardArm = (() => {
    const ready = body(t.ready);
    const offset = subtract(guardOf(ready), shoulder(ready, strikingRight));
    return toTrunk(offset, ready.yaw);
  })();
  const hookSet: Point = unit([0.42, 0.1, -0.9]);
  const hookLast: Point = unit([0.62, 0.1, -0.78]);
  const sweep: Profile = { start: t.arm, rise: recipe.out, fall: recipe.finish };
  const drift: Profile = spanning(t.contact - 0.075, t.contact + 0.025);
  const guardAngle = elbowAngle(size(guardArm), upper, fore + hand);
  const hookFist = (time: number, trunk: Trunk): Point => {
    const home = progress(p.armHome, time);
    const set = progress(p.arm, time);
    const across = mix(hookSet, hookLast, progress(sweep, time));
    const direction = unit(mix(mix(unit(guardArm), unit(across), set), unit(guardArm), home));
    const landed = Math.PI / 2 + recipe.drift * progress(drift, time);
    const angle = guardAngle + (landed - guardAngle) * (set - home);
    return add(
      shoulder(trunk, strikingRight),
      fromTrunk(direction, trunk.yaw),
      spanOf(angle, upper, fore + hand),
    );
  };

  const swingOut: Profile = spanning(t.arm, t.contact - 0.25 * recipe.out);
  const swingIn: Profile = spanning(t.contact - 0.45 * recipe.out, t.contact + 0.05);

  return (time) => {
    const trunk = body(time);
    const joints = {} as Record<Landmark, Point>;
    const out = progress(p.arm, time) - progress(p.armHome, time);

    const strikingHand = isHook ? hookFist(time, trunk) : straightFist(time, trunk);
    const flare = isHook
      ? 1.45 * out
      : recipe.flare * Math.max(0, progress(swingOut, time) - progress(swingIn, time));
    setArm(
      joints,
      strikingRight,
      shoulder(trunk, strikingRight),
      strikingHand,
      0.25 + flare,
      recipe,
    );

    const off = strikingRight ? leadGuard : rearGuard;
    const dropped = recipe.guardDrop * (progress(p.trunk, time) - progress(p.bodyHome, time));
    const offHand = add(add(trunk.head, off), [0, -dropped, 0]);
    setArm(joints, !strikingRight, shoulder(trunk, !strikingRight), offHand, 0.3, recipe);

    const turned = progress(p.pelvis, time) - progress(p.bodyHome, time);
    setLegs(joints, trunk, turned, recipe);
    setHead(joints, trunk.head, h);
    return { ...joints, head: trunk.head };
  };
}

function toTrunk(offset: Point, yaw: number): Point {
  return [dot(offset, forwardOf(yaw)), offset[1], dot(offset, rightOf(yaw))];
}

function fromTrunk([forward, up, right]: Point, yaw: number): Point {
  return add(add(scaled(forwardOf(yaw), forward), UP, up), rightOf(yaw), right);
}

/** Law of cosines, both ways. */
function spanOf(angle: number, a: number, b: number): number {
  return Math.sqrt(a * a + b * b - 2 * a * b * Math.cos(angle));
}

function elbowAngle(span: number, a: number, b: number): number {
  return Math.acos(Math.max(-1, Math.min(1, (a * a + b * b - span * span) / (2 * a * b))));
}

/** Seconds of film a recipe needs, with a breath of guard at the end. */
export function durationOf(recipe: Recipe): number {
  return Math.max(knownTimes(recipe).home, endOf(profiles(recipe).bodyHome)) + 0.15;
}
