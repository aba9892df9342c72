/** How pelvis, trunk and head go through a strike, and when: everything the limbs hang on. */
import { endOf, progress, spanning, type Profile } from './profile';
import type { Form } from './forms';
import type { Side } from '@sinew/core/foundation/body/landmarks';
import type { Recipe } from './recipe';
import { add, rightOf, type Point } from './space';
import { SEGMENT_LENGTH } from '@sinew/core/foundation/body/segments';

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

export interface Profiles {
  readonly pelvis: Profile;
  readonly trunk: Profile;
  readonly arm: Profile;
  readonly sink: Profile;
  readonly coil: Profile;
  readonly armHome: Profile;
  readonly bodyHome: Profile;
  /** The pelvis comes back before contact: only in a form that whips. */
  readonly whip: Profile;
  readonly step: Profile;
  readonly drag: Profile;
}

export function profilesOf(recipe: Recipe, { limb }: Form): Profiles {
  const t = knownTimes(recipe);
  const { rises } = recipe;
  const toPeak = (start: number, share: number) => share * (t.contact - start);
  const trunkRise = toPeak(t.trunk, recipe.trunkPeak);
  const pelvisRise = toPeak(t.hips, recipe.pelvisPeak);
  return {
    pelvis: {
      start: t.hips,
      rise: pelvisRise,
      fall: t.end - t.hips - pelvisRise,
      by: rises.pelvis,
    },
    trunk: {
      start: t.trunk,
      rise: trunkRise,
      fall: t.end - t.trunk - trunkRise,
      by: rises.trunk,
    },
    // A straight drives the fist until contact; a hook sets its angle and is then carried.
    arm: {
      start: t.arm,
      by: rises.arm,
      ...(limb.kind === 'hook'
        ? { rise: 0.35 * (recipe.out - 0.085), fall: 0.65 * (recipe.out - 0.085) }
        : { rise: recipe.out - recipe.brake, fall: recipe.finish + recipe.brake }),
    },
    sink: { start: t.load, rise: 0.4 * recipe.load, fall: 0.6 * recipe.load, by: rises.load },
    coil: { start: t.load, rise: 0.4 * recipe.load, fall: 0.55 * recipe.load, by: rises.load },
    armHome: spanning(t.end, t.home),
    bodyHome: spanning(t.end, t.end + Math.max(0.3, recipe.recoil * recipe.out)),
    whip: spanning(t.hips + 0.4 * (t.contact - t.hips), t.contact),
    step: spanning(t.load + recipe.stepLate, t.contact + 0.02 - recipe.stepLead),
    drag: spanning(t.contact - 0.12, t.contact + 0.2),
  };
}

export interface Trunk {
  readonly yaw: number;
  readonly pelvisYaw: number;
  readonly pelvis: Point;
  readonly chest: Point;
  readonly head: Point;
  /** What moves each shoulder beside the turn of the trunk. */
  readonly shift: Readonly<Record<Side, Point>>;
}

export function trunkOf(recipe: Recipe, form: Form, p: Profiles): (time: number) => Trunk {
  const h = recipe.height;
  const { sign } = form;
  const readyYaw = form.readyYaw + recipe.square;
  return (time) => {
    const back = progress(p.bodyHome, time);
    const out = progress(p.pelvis, time) - back;
    const turned = form.whips ? progress(p.pelvis, time) - progress(p.whip, time) : out;
    const coiled = recipe.pelvisCoil * (progress(p.coil, time) - progress(p.pelvis, time));
    const pelvisYaw = readyYaw + sign * (recipe.pelvisTurn * turned - coiled);
    const coil = recipe.coil * (progress(p.coil, time) - progress(p.trunk, time));
    const yaw = readyYaw + sign * (recipe.trunkTurn * (progress(p.trunk, time) - back) - coil);
    const sunk =
      recipe.sink *
      (progress(p.sink, time) -
        (form.rise === 0 ? 0.4 * progress(p.pelvis, time) + 0.6 * back : back));
    const gives = recipe.kneeGives * out;
    const stepped = form.step * progress(p.step, time);
    const pelvis: Point = [
      (form.forward + recipe.reachOut) * out - 0.01 + stepped - recipe.weightBack,
      0.487 * h - sunk - gives + (form.rise + recipe.rise) * out + recipe.tall,
      0.01,
    ];
    const lean = 0.11 + (form.lean + recipe.leanOut) * out;
    const chest = add(pelvis, [Math.sin(lean) * 0.288 * h, Math.cos(lean) * 0.288 * h, 0]);
    const head = add(chest, [
      0.055 * h * (0.6 + 0.4 * lean) + recipe.headThrow * out,
      0.098 * h,
      0,
    ]);
    const isRight = form.striking === 'right';
    const up: Point = [0, recipe.shrug * out, (isRight ? -0.4 : 0.4) * recipe.shrug * out];
    const kept: Point = [recipe.holdsBack * out, 0, 0];
    const shift = isRight ? { right: up, left: kept } : { right: kept, left: up };
    return { yaw, pelvisYaw, pelvis, chest, head, shift };
  };
}

export function shoulderOf(trunk: Trunk, isRight: boolean, { height }: Recipe): Point {
  const half = SEGMENT_LENGTH.shoulderHalfBreadth * 0.86 * height;
  const joint = add(trunk.chest, rightOf(trunk.yaw), (isRight ? 1 : -1) * half);
  return add(joint, trunk.shift[isRight ? 'right' : 'left']);
}

/** Seconds of film a recipe needs, with a breath of guard at the end. */
export function durationFor(recipe: Recipe, form: Form): number {
  return Math.max(knownTimes(recipe).home, endOf(profilesOf(recipe, form).bodyHome)) + 0.15;
}
