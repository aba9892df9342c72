/** Where the striking hand, or elbow, goes: one function of time for each way of striking. */
import { SEGMENT_LENGTH } from '@sinew/core/foundation/body/segments';
import { knownTimes, shoulderOf, type Profiles, type Trunk } from './body';
import type { Form, Limb } from './forms';
import { progress, spanning, type Profile } from './profile';
import type { Recipe } from './recipe';
import {
  add,
  along,
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

type OfKind<K extends Limb['kind']> = Extract<Limb, { kind: K }>;
export type Body = (time: number) => Trunk;

export interface Arm {
  readonly recipe: Recipe;
  readonly form: Form;
  readonly profiles: Profiles;
  readonly body: Body;
}

/** (forward, up, outward) of a side as (forward, up, right). */
export function onSide([forward, up, outward]: Point, isRight: boolean): Point {
  return [forward, up, isRight ? outward : -outward];
}

export function toTrunk(offset: Point, yaw: number): Point {
  return [dot(offset, forwardOf(yaw)), offset[1], dot(offset, rightOf(yaw))];
}

export function fromTrunk([forward, up, right]: Point, yaw: number): Point {
  return add(add(scaled(forwardOf(yaw), forward), UP, up), rightOf(yaw), right);
}

const isRightOf = ({ form }: Arm) => form.striking === 'right';

function guardOf(arm: Arm, guard: Point): (trunk: Trunk) => Point {
  const ready = arm.body(knownTimes(arm.recipe).ready);
  const world = add(ready.head, onSide(guard, isRightOf(arm)));
  const inTrunk = toTrunk(subtract(world, ready.chest), ready.yaw);
  return (trunk) => add(trunk.chest, fromTrunk(inTrunk, trunk.yaw));
}

const lengthsOf = ({ recipe: { height } }: Arm) => ({
  upper: SEGMENT_LENGTH.upperArm * height,
  // Wrist to the middle of the fist: half of the open hand.
  lower: SEGMENT_LENGTH.forearm * height + (SEGMENT_LENGTH.hand * height) / 2,
});

/** How far the hand is drawn back and down before it goes. */
function tellOf({ recipe, profiles: p }: Arm): (time: number) => Point {
  const { telegraph, dip } = recipe;
  const from = knownTimes(recipe).arm;
  const draw = telegraph === 0 && dip === 0 ? null : spanning(from - 0.14, from - 0.01);
  return (time) => {
    const drawn = draw ? Math.max(0, progress(draw, time) - progress(p.arm, time)) : 0;
    return [-telegraph * drawn, -dip * drawn, 0];
  };
}

/** A fist that goes from guard to a contact point and past it, and home again. */
function thrown(
  arm: Arm,
  limb: OfKind<'straight' | 'upward'>,
  contactPoint: Point,
): (time: number, trunk: Trunk) => Point {
  const { recipe, profiles: p, body } = arm;
  const t = knownTimes(recipe);
  const guard = guardOf(arm, limb.guard);
  const drawn = tellOf(arm);
  const guardAtContact = guard(body(t.contact));
  const last = add(
    guardAtContact,
    subtract(contactPoint, guardAtContact),
    1 / progress(p.arm, t.contact),
  );
  return (time, trunk) => {
    const share = progress(p.arm, time) - progress(p.armHome, time);
    return add(mix(guard(trunk), last, share), drawn(time));
  };
}

function straight(arm: Arm, limb: OfKind<'straight'>) {
  const { recipe, body } = arm;
  const atContact = body(recipe.contact);
  const shoulder = shoulderOf(atContact, isRightOf(arm), recipe);
  const aim = unit(
    subtract([2.2, atContact.head[1] - 0.02, isRightOf(arm) ? 0.12 : -0.12], shoulder),
  );
  const { upper, lower } = lengthsOf(arm);
  return thrown(arm, limb, add(shoulder, aim, recipe.reach * (upper + lower)));
}

function upward(arm: Arm, limb: OfKind<'upward'>) {
  const atContact = arm.body(arm.recipe.contact);
  const shoulder = shoulderOf(atContact, isRightOf(arm), arm.recipe);
  return thrown(arm, limb, add(shoulder, onSide(limb.lands, isRightOf(arm))));
}

/** A hook in the trunk's own axes: direction of the fist from the shoulder, and the elbow's angle. */
function hook(arm: Arm, limb: OfKind<'hook'>) {
  const { recipe, profiles: p, body } = arm;
  const isRight = isRightOf(arm);
  const t = knownTimes(recipe);
  const { upper, lower } = lengthsOf(arm);
  const ready = body(t.ready);
  const guard = guardOf(arm, limb.guard);
  const guardArm = toTrunk(subtract(guard(ready), shoulderOf(ready, isRight, recipe)), ready.yaw);
  const set = unit(onSide(limb.set, isRight));
  const last = unit(onSide(limb.last, isRight));
  const sweep: Profile = { start: t.arm, rise: recipe.out, fall: recipe.finish };
  const drawn = tellOf(arm);
  const drift: Profile = spanning(t.contact - 0.075, t.contact + 0.025);
  const guardAngle = elbowAngle(size(guardArm), upper, lower);
  return (time: number, trunk: Trunk): Point => {
    const home = progress(p.armHome, time);
    const isSet = progress(p.arm, time);
    const swept = progress(sweep, time);
    const across = along(set, last, swept * (1 + recipe.scoop / angleBetween(set, last)));
    const direction = along(guardArm, along(across, guardArm, 1 - isSet), 1 - home);
    const landed = recipe.hookAngle + recipe.drift * progress(drift, time);
    const angle = guardAngle + (landed - guardAngle) * (isSet - home);
    const fist = add(
      shoulderOf(trunk, isRight, recipe),
      fromTrunk(direction, trunk.yaw),
      spanOf(angle, upper, lower),
    );
    return add(fist, drawn(time));
  };
}

/** The fist's way for every limb that ends in one. */
export function fistPath(arm: Arm): ((time: number, trunk: Trunk) => Point) | null {
  const { limb } = arm.form;
  if (limb.kind === 'straight') return straight(arm, limb);
  if (limb.kind === 'upward') return upward(arm, limb);
  return limb.kind === 'hook' ? hook(arm, limb) : null;
}

/** Upper arm and forearm of a hand in guard, as the trunk faces. */
const HANGING: readonly [Point, Point] = [
  [0.35, -0.92, 0.15],
  [0.5, 0.85, -0.1],
];

/** An elbow strike: directions of upper arm and forearm, in the world. */
export function elbowPath(
  arm: Arm,
  limb: OfKind<'elbow'>,
): (time: number, trunk: Trunk) => readonly [Point, Point] {
  const { profiles: p, recipe } = arm;
  const isRight = isRightOf(arm);
  const { load, hips } = knownTimes(recipe);
  const raise = spanning(load - 0.1, hips);
  const past = 1 / progress(p.arm, arm.recipe.contact);
  return (time, trunk) => {
    // At contact the elbow is where it should land, and still going.
    const share = past * progress(p.arm, time);
    const home = progress(p.armHome, time);
    const [upper, fore] = ([0, 1] as const).map((i) => {
      const guard = along(limb.ready[i], HANGING[i], recipe.raised);
      const from = along(guard, limb.ready[i], progress(raise, time));
      const link = along(along(from, limb.lands[i], share), guard, home);
      return fromTrunk(onSide(link, isRight), trunk.yaw);
    });
    return [upper!, fore!];
  };
}

function angleBetween(a: Point, b: Point): number {
  return Math.acos(Math.min(1, dot(unit(a), unit(b))));
}

/** Law of cosines, both ways. */
function spanOf(angle: number, a: number, b: number): number {
  return Math.sqrt(a * a + b * b - 2 * a * b * Math.cos(angle));
}

function elbowAngle(span: number, a: number, b: number): number {
  return Math.acos(Math.max(-1, Math.min(1, (a * a + b * b - span * span) / (2 * a * b))));
}
