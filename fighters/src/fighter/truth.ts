/**
 * What is true of a made-up strike, worked out from its exact motion by plain steps of an eighth of
 * a millisecond: no filter, no fit, and none of the code that measures films.
 */
import { sided, type Landmark, type Side } from '@sinew/core/foundation/body/landmarks';
import { DEMPSTER } from '@sinew/core/foundation/body/segments';
import { techniqueById, type Technique } from '@sinew/core/foundation/technique/techniques';
import { durationOf, formOf, knownTimes, mover, remembering, type Pose } from './pose';
import { strikingEnd } from './end';
import { STILL } from './idle';
import type { Recipe } from './recipe';
import { add, dot, mix, scaled, size, subtract, unit, type Point } from './space';

const STEP = 1 / 8000;

export interface Truth {
  readonly technique: Technique;
  readonly side: Side;
  /** Seconds; an event that does not happen is missing. */
  readonly times: Partial<
    Record<'load' | 'hips' | 'trunk' | 'arm' | 'contact' | 'end' | 'home', number>
  >;
  /** SI units. */
  readonly values: Readonly<
    Record<
      | 'speed.contact'
      | 'speed.peak'
      | 'separation.max'
      | 'separation.growth'
      | 'turn.pelvis'
      | 'turn.trunk'
      | 'sink'
      | 'reach',
      number
    >
  >;
}

export function truthOfStrike(recipe: Recipe): Truth {
  const technique = techniqueById(recipe.technique);
  const side = flipped(formOf(recipe).striking, recipe);
  const exact = remembering(mover({ ...recipe, stance: 'orthodox' }));
  // A hand at rest on its target still rides on a body that sways, a few centimetres a second: no travel of the strike.
  const onRest = remembering(mover({ ...recipe, stance: 'orthodox', idle: STILL }));
  const striking = formOf(recipe).striking;
  const own = (part: Parameters<typeof sided>[1]) => sided(striking, part);
  const known = knownTimes(recipe);
  const sign = (striking === 'right') === (technique.turns === 'forward') ? 1 : -1;
  const end = strikingEnd(technique, striking);
  const yaw = (pose: Pose, part: 'Hip' | 'Shoulder') => {
    const line = subtract(pose[sided('right', part)], pose[sided('left', part)]);
    return sign * Math.atan2(line[0], line[2]);
  };
  const hips = (pose: Pose) => mix(pose.leftHip, pose.rightHip, 0.5);
  const swing = (near: Landmark, far: Landmark) => {
    const first = unit(subtract(exact(0)[far], exact(0)[near]));
    return (pose: Pose) =>
      Math.acos(Math.min(1, dot(first, unit(subtract(pose[far], pose[near])))));
  };
  const opening = (pose: Pose) => {
    const knee = pose[own('Knee')];
    return Math.acos(
      dot(unit(subtract(pose[own('Hip')], knee)), unit(subtract(pose[own('Ankle')], knee))),
    );
  };
  const inTrunk = (pose: Pose): Point => {
    const line = subtract(pose.rightShoulder, pose.leftShoulder);
    const right = unit([line[0], 0, line[2]]);
    const forward: Point = [right[2], 0, -right[0]];
    const offset = subtract(end(pose), mix(pose.leftShoulder, pose.rightShoulder, 0.5));
    return [dot(offset, forward), offset[1], dot(offset, right)];
  };
  // A hand that is drawn back or dips first, an elbow that is raised, strikes from there.
  const isTaken = recipe.raised > 0 || recipe.telegraph > 0 || recipe.dip > 0;
  const guard = inTrunk(exact(isTaken ? known.arm : 0));
  const hipsBy = {
    turn: (pose: Pose) => yaw(pose, 'Hip'),
    rise: (pose: Pose) => hips(pose)[1],
    drop: (pose: Pose) => -hips(pose)[1],
    thrust: (pose: Pose) => hips(pose)[0],
  }[technique.start];
  const isKick = technique.family === 'kick';
  const startOf = (value: (pose: Pose) => number) => start(exact, value, recipe.contact);

  const velocity = (time: number, from: (pose: Pose) => Point): Point =>
    scaled(subtract(from(exact(time)), from(exact(time - 1e-6))), 1e6);
  const contactVelocity = velocity(recipe.contact, end);
  const direction: Point = technique.along === 'target' ? [1, 0, 0] : unit(contactVelocity);
  const speed = (time: number) => {
    const v = velocity(time, end);
    return technique.along === 'target' ? v[0] : size(v);
  };
  const separation = (pose: Pose) => wrap(yaw(pose, 'Hip') - yaw(pose, 'Shoulder'));
  const times = {
    load: recipe.sink > 0.006 || recipe.coil > 0.035 ? known.load : undefined,
    hips: startOf(hipsBy),
    trunk: startOf(isKick ? swing(own('Hip'), own('Knee')) : (pose) => yaw(pose, 'Shoulder')),
    arm: isKick
      ? technique.end === 'knee'
        ? undefined
        : startOf(opening)
      : startOf((pose) => size(subtract(inTrunk(pose), guard))),
    contact: recipe.contact,
    end: stop(onRest, end, direction, recipe.contact),
    home: home(exact, isKick ? end : inTrunk, recipe),
  };
  const hipsTime = times.hips!;
  const grid = (from: number, to: number) =>
    Array.from({ length: Math.max(1, Math.round((to - from) / 0.0005)) + 1 }, (_, i) =>
      Math.min(to, from + i * 0.0005),
    );
  const widest = Math.max(...grid(hipsTime, recipe.contact).map((t) => separation(exact(t))));
  const height = (t: number) => massCentre(exact(t))[1];
  /** From where it is turned back the farthest before it starts. */
  const turned = (part: 'Hip' | 'Shoulder', start: number) => {
    let [total, deepest] = [0, 0];
    const steps = grid(known.ready, recipe.contact);
    for (let i = 1; i < steps.length; i++) {
      total += wrap(yaw(exact(steps[i]!), part) - yaw(exact(steps[i - 1]!), part));
      if (steps[i]! <= start) deepest = Math.min(deepest, total);
    }
    return total - deepest;
  };
  return {
    technique,
    side,
    times: Object.fromEntries(Object.entries(times).filter(([, time]) => time !== undefined)),
    values: {
      'speed.contact': speed(recipe.contact),
      'speed.peak': Math.max(
        ...grid(times.arm ?? times.trunk!, recipe.contact - 1e-5).map(speed),
        speed(recipe.contact),
      ),
      'separation.max': widest,
      'separation.growth': widest - separation(exact(hipsTime)),
      'turn.pelvis': turned('Hip', hipsTime),
      'turn.trunk': turned('Shoulder', times.trunk ?? hipsTime),
      sink: height(known.load) - Math.min(...grid(known.load, hipsTime).map(height)),
      reach: reachOf(exact(recipe.contact), end, own, isKick),
    },
  };
}

function flipped(side: Side, { stance }: Recipe): Side {
  return stance === 'orthodox' ? side : side === 'left' ? 'right' : 'left';
}

function wrap(angle: number): number {
  return angle - 2 * Math.PI * Math.round(angle / (2 * Math.PI));
}

/** Backwards from the peak of a value's speed to where it was last under a tenth of it. */
function start(
  exact: (time: number) => Pose,
  value: (pose: Pose) => number,
  until: number,
): number | undefined {
  const count = Math.floor(until / STEP);
  const values = Array.from({ length: count + 1 }, (_, i) => value(exact(i * STEP)));
  const speed = values.slice(1).map((v, i) => wrap(v - values[i]!) / STEP);
  let peak = 0;
  speed.forEach((v, i) => (peak = v > speed[peak]! ? i : peak));
  if (speed[peak]! < 0.05) return undefined;
  let i = peak;
  while (i >= 0 && speed[i]! >= 0.1 * speed[peak]!) i--;
  return i < 0 ? undefined : (i + 1) * STEP;
}

/** When the end's travel along a direction is over. */
function stop(
  exact: (time: number) => Pose,
  end: (pose: Pose) => Point,
  direction: Point,
  contact: number,
): number {
  let time = contact;
  while (dot(subtract(end(exact(time + STEP)), end(exact(time))), direction) > 1e-7) time += STEP;
  return time;
}

/** Within 10 cm of guard, and slowed to a tenth of the way home's fastest; else where it is slowest. */
function home(
  exact: (time: number) => Pose,
  end: (pose: Pose) => Point,
  recipe: Recipe,
): number | undefined {
  // Toward or away from guard is what counts, as the distance from it changes.
  const step = 0.0005;
  const { ready, end: from } = knownTimes(recipe);
  const guard = end(exact(ready));
  const away = (t: number) => size(subtract(end(exact(t)), guard));
  const speed = (t: number) => Math.abs(away(t + step) - away(t)) / step;
  let peak = 0;
  for (let t = from; t < durationOf(recipe); t += step) {
    const now = speed(t);
    peak = Math.max(peak, now);
    if (away(t) < 0.1 && now < 0.1 * peak) return t;
  }
  return undefined;
}

/** Of the whole body, metres. */
export function massCentre(pose: Pose): Point {
  const middle = (a: Landmark, b: Landmark) => mix(pose[a], pose[b], 0.5);
  let sum: Point = [0, 0, 0];
  const put = (segment: keyof typeof DEMPSTER, near: Point, far: Point) => {
    const { mass, centre } = DEMPSTER[segment];
    sum = add(sum, mix(near, far, centre), mass);
  };
  const shoulders = middle('leftShoulder', 'rightShoulder');
  put('trunk', middle('leftHip', 'rightHip'), shoulders);
  put('head', shoulders, middle('leftEar', 'rightEar'));
  for (const side of ['left', 'right'] as const) {
    const at = (part: Parameters<typeof sided>[1]) => pose[sided(side, part)];
    put('upperArm', at('Shoulder'), at('Elbow'));
    put('forearm', at('Elbow'), at('Wrist'));
    put('hand', at('Wrist'), middle(sided(side, 'IndexKnuckle'), sided(side, 'LittleKnuckle')));
    put('thigh', at('Hip'), at('Knee'));
    put('shank', at('Knee'), at('Ankle'));
    put('foot', at('Ankle'), at('Toe'));
  }
  return sum;
}

function reachOf(
  pose: Pose,
  end: (pose: Pose) => Point,
  own: (part: 'Hip' | 'Knee' | 'Ankle' | 'Shoulder' | 'Elbow' | 'Wrist') => Landmark,
  isKick: boolean,
): number {
  const joints = (
    isKick ? (['Hip', 'Knee', 'Ankle'] as const) : (['Shoulder', 'Elbow', 'Wrist'] as const)
  ).map((part) => pose[own(part)]);
  const chain = [...joints, end(pose)];
  const full = chain.slice(1).reduce((sum, point, i) => sum + size(subtract(point, chain[i]!)), 0);
  return size(subtract(end(pose), joints[0]!)) / full;
}
