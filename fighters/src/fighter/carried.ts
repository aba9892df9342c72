/**
 * What else is true of a made-up strike, from its exact motion: where the weight is between the feet, how far it
 * rises and goes, how high a kick lands, and how far pelvis and trunk have carried the striking end. None of the code that measures films.
 */
import { techniqueById } from '@sinew/core/foundation/technique/techniques';
import { strikingEnd } from './end';
import { formOf, mover, remembering, type Pose } from './pose';
import type { Recipe } from './recipe';
import { add, cross, dot, mix, scaled, size, subtract, unit, type Point } from './space';
import { massCentre, type Truth } from './truth';

/** Seconds. */
const STEP = 1 / 4000;
/** A strike without a load is looked at from this long before its hips, seconds. */
const BEFORE_HIPS = 0.25;

/** By the ids of readings; SI units. What a technique does not have is missing. */
export type Carried = Readonly<Record<string, number>>;

export function carriedOf(recipe: Recipe, { times }: Pick<Truth, 'times'>): Carried {
  const technique = techniqueById(recipe.technique);
  const exact = remembering(mover({ ...recipe, stance: 'orthodox' }));
  const end = strikingEnd(technique, formOf(recipe).striking);
  const { contact, hips, trunk } = times;
  if (technique.family === 'kick') {
    if (technique.end === 'knee') return {};
    const guard = exact(0);
    const hip = mix(guard.leftHip, guard.rightHip, 0.5)[1];
    const shoulder = mix(guard.leftShoulder, guard.rightShoulder, 0.5)[1];
    return { 'kick.height': (end(exact(contact!))[1] - hip) / (shoulder - hip) };
  }
  const loaded = between(exact(times.load ?? hips! - BEFORE_HIPS));
  const landed = between(exact(contact!));
  /** How high the weight comes over where it was, in heights of the body. */
  const rise = (from: number) => {
    const level = (time: number) => massCentre(exact(time))[1];
    const times = Array.from({ length: 400 }, (_, i) => from + ((contact! - from) * i) / 399);
    return (Math.max(...times.map(level)) - level(from)) / recipe.height;
  };
  const way = { pelvis: 0, trunk: 0, whole: 0 };
  for (let t = Math.min(hips ?? trunk!, trunk!); t < contact!; t += STEP) {
    const [before, after] = [exact(t), exact(Math.min(contact!, t + STEP))];
    const middle = exact(Math.min(contact!, t + STEP / 2));
    const went = subtract(end(after), end(before));
    const along: Point = technique.along === 'target' ? [1, 0, 0] : unit(went);
    const pelvis = mix(middle.leftHip, middle.rightHip, 0.5);
    const reach = subtract(end(middle), pelvis);
    const turned = (of: (pose: Pose) => Point) => {
      const [from, now, to] = [of(before), of(middle), of(after)];
      return scaled(cross(now, subtract(to, from)), 1 / size(now) ** 2);
    };
    const byPelvis = turned((pose) => subtract(pose.rightHip, pose.leftHip));
    const byTrunk = rotation(chestAxes(before), chestAxes(after));
    way.pelvis += dot(cross(byPelvis, reach), along);
    way.trunk += dot(cross(subtract(byTrunk, byPelvis), reach), along);
    way.whole += dot(went, along);
  }
  const middle = (time: number) => mix(exact(time).leftHip, exact(time).rightHip, 0.5)[0];
  return {
    ...(technique.family === 'elbow' && {
      'body.travel': (middle(contact!) - middle(hips ?? trunk!)) / recipe.height,
    }),
    ...(technique.start === 'drop' && { 'rise.first': rise(times.load ?? hips! - BEFORE_HIPS) }),
    'shift.load': loaded,
    'shift.contact': landed,
    'shift.travel': landed - loaded,
    'travel.pelvis': way.pelvis,
    'travel.trunk': way.trunk,
  };
}

/** 0 over the rear foot, 1 over the lead one. */
function between(pose: Pose): number {
  const flat = ([x, , z]: Point): Point => [x, 0, z];
  const foot = (side: 'left' | 'right') => flat(mix(pose[`${side}Heel`], pose[`${side}Toe`], 0.5));
  const line = subtract(foot('left'), foot('right'));
  return dot(subtract(flat(massCentre(pose)), foot('right')), line) / dot(line, line);
}

/** The chest's own axes: along the shoulders, up the spine as far as it stands square to them, and ahead. */
function chestAxes(pose: Pose): readonly Point[] {
  const across = unit(subtract(pose.rightShoulder, pose.leftShoulder));
  const hips = mix(pose.leftHip, pose.rightHip, 0.5);
  const spine = subtract(mix(pose.leftShoulder, pose.rightShoulder, 0.5), hips);
  const up = unit(add(spine, across, -dot(spine, across)));
  return [across, up, cross(across, up)];
}

/** The small turn that takes one set of axes to the next, radians: half the sum of e × e′. */
function rotation(from: readonly Point[], to: readonly Point[]): Point {
  return from.reduce<Point>((sum, axis, i) => add(sum, cross(axis, to[i]!), 0.5), [0, 0, 0]);
}
