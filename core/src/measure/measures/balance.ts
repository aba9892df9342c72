/** Where the body's weight is: how far it sinks, how it is spread, whether it stays over the feet. */
import { extrapolated, marginOf, onFloor } from '../../foundation/body/balance';
import { midpoint, minus, type Vector } from '../../foundation/geometry/vector';
import { absent } from '../../foundation/reading/reading';
import { Lacking, type Instant, type Look } from './probe';
import type { Measure } from './run';

const LEVEL = { needs: 'up', shows: 'the level of the body', isMetric: true } as const;

/** Centre of mass in space; in a picture the middle of the hips, the nearest thing it shows. */
export function centre(look: Look, when: Instant): Vector {
  return look.motion.view === '3d'
    ? look.at('mass', when)
    : look.middle('leftHip', 'rightHip', when);
}

/** A strike that goes without a load is looked at from this long before its hips, seconds. */
const BEFORE_HIPS = 0.25;

/** The start of the load; where there was none to be seen, a while before the hips. */
export function loadFrom(look: Look): Instant {
  return look.has('load') ? look.event('load') : look.event('hips', -BEFORE_HIPS);
}

/** The start of the hips; where they do not start, of the trunk. */
function working(look: Look): Instant {
  return !look.has('hips') && look.has('trunk') ? look.event('trunk') : look.event('hips');
}

/** How far the centre goes down between the start of the load and the start of the hips. */
function sink(look: Look): number {
  const from = loadFrom(look);
  const lowest = look.most(
    'lowest',
    from,
    look.event('hips'),
    'rightHip',
    (l, when) => -centre(l, when)[1]!,
  );
  return centre(look, from)[1]! - centre(look, lowest)[1]!;
}

function heightOf(look: Look): number {
  const { height } = look.context.body;
  if (height !== null) return height;
  throw new Lacking(absent('Enter the student’s height.'));
}

/** Middle of a foot, from heel to toe. */
export function foot(look: Look, side: 'left' | 'right', when: Instant): Vector {
  return look.middle(`${side}Heel`, `${side}Toe`, when);
}

/**
 * Share of the weight over the rear foot, from where the centre lies between the feet. A static
 * estimate: it holds while nothing is accelerated.
 */
function split(look: Look): number {
  const when = look.event('ready');
  const [lead, rear, mass] = [
    foot(look, 'left', when),
    foot(look, 'right', when),
    centre(look, when),
  ];
  const feet = onFloor(minus(rear, lead));
  const offset = onFloor(minus(mass, lead));
  return (feet[0] * offset[0] + feet[1] * offset[1]) / (feet[0] ** 2 + feet[1] ** 2);
}

/** Angle of a line from the vertical toward the target. */
const leanOf = (from: Vector, to: Vector) => Math.atan2(to[0]! - from[0]!, to[1]! - from[1]!);

function lean(look: Look): number {
  const when = look.event('contact');
  const head = look.middle('leftEar', 'rightEar', when);
  return leanOf(midpoint(foot(look, 'left', when), foot(look, 'right', when)), head);
}

/** Higher above the lowest point of the feet than this, a heel or toe carries nothing, metres. */
const TOUCHING = 0.04;

/** Margin of the extrapolated centre of mass inside the feet that stand; negative outside. */
function stability(look: Look, when: Instant): number {
  const corners = (['leftHeel', 'leftToe', 'rightHeel', 'rightToe'] as const).map((one) =>
    look.at(one, when),
  );
  const floor = Math.min(...corners.map((corner) => corner[1]!));
  const base = corners.filter((corner) => corner[1]! - floor < TOUCHING);
  const mass = centre(look, when);
  const ahead = extrapolated(onFloor(mass), onFloor(look.velocity('mass', when)), mass[1]! - floor);
  return marginOf(ahead, base.map(onFloor));
}

const STANDING = {
  unit: 'm',
  needs: 'space',
  shows: 'the balance over the feet',
  isMetric: true,
} as const;

export const BALANCE = [
  { ...LEVEL, unit: 'm', id: 'sink', name: 'Sink in the load', value: sink },
  {
    ...LEVEL,
    unit: 'ratio',
    id: 'sink.height',
    name: 'Sink ÷ height',
    value: (look) => sink(look) / heightOf(look),
  },
  {
    ...LEVEL,
    unit: 'm',
    id: 'rise',
    name: 'Rise from hips’ start to contact',
    value: (look) => centre(look, look.event('contact'))[1]! - centre(look, look.event('hips'))[1]!,
  },
  {
    ...LEVEL,
    unit: 'ratio',
    id: 'drop.height',
    name: 'Drop from hips’ start to contact ÷ height',
    value: (look) =>
      (centre(look, working(look))[1]! - centre(look, look.event('contact'))[1]!) / heightOf(look),
  },
  {
    unit: 'm',
    needs: 'toward',
    shows: 'the head over the feet',
    isMetric: true,
    id: 'head.ahead',
    name: 'Head ahead of the lead foot',
    value: (look) => {
      const when = look.event('contact');
      return look.middle('leftEar', 'rightEar', when)[0]! - look.at('leftToe', when)[0]!;
    },
  },
  {
    unit: 'ratio',
    needs: 'toward',
    shows: 'the weight between the feet',
    isMetric: false,
    id: 'split',
    name: 'Weight on the rear foot (static estimate)',
    value: split,
  },
  {
    unit: 'rad',
    needs: 'sagittal',
    shows: 'the lean',
    isMetric: false,
    id: 'lean',
    name: 'Lean toward the target at contact',
    value: lean,
  },
  {
    unit: 'rad',
    needs: 'sagittal',
    shows: 'the lean',
    isMetric: false,
    id: 'lean.trunk',
    name: 'Trunk lean toward the target at contact',
    value: (look) => {
      const when = look.event('contact');
      return leanOf(
        look.middle('leftHip', 'rightHip', when),
        look.middle('leftShoulder', 'rightShoulder', when),
      );
    },
  },
  {
    ...STANDING,
    id: 'stability.contact',
    name: 'Balance margin at contact',
    value: (look) => stability(look, look.event('contact')),
  },
  {
    ...STANDING,
    id: 'stability.home',
    name: 'Balance margin at home',
    value: (look) => stability(look, look.event('home')),
  },
] as const satisfies readonly Measure[];
