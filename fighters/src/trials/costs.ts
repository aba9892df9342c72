/**
 * What leaks cost, held to a body that is not the judge's model: driven fighters throw with a leak and, the same
 * body, without it.
 */
import { analyze } from '@sinew/core/analysis/analyze';
import { markOnFrame } from '@sinew/core/measure/events/events';
import { isKnown, type KnownCost } from '@sinew/core/judge/fault/cost';
import { techniqueById } from '@sinew/core/foundation/technique/techniques';
import { normals, seeded } from '@sinew/core/foundation/uncertainty/random';
import { nearestFrame } from '@sinew/core/observe/track/time';
import { aimed, armed } from '../driven/armDrive';
import type { Thrower, Way } from '../driven/armBody';
import type { Muscled } from '../driven/joints';
import { kicking, type Kicker } from '../driven/kick';
import { filmed, kickFilmed, type Filmed } from '../driven/motion';
import { throwIt, type Thrown } from '../driven/throw';
import type { TechniqueId } from '../fighter/forms';
import { formOf } from '../fighter/pose';
import { clean } from '../fighter/recipe';
import { trackOf } from '../fighter/track';

const degrees = (value: number) => (value * Math.PI) / 180;

/** One leak of one body: what it truly loses, and what the judge says where it finds it. */
export interface CostTrial {
  readonly technique: TechniqueId;
  readonly leak: string;
  /** Share of the momentum that is lost. */
  readonly truth: number;
  /** Null where the judge does not find the leak, or gives no cost. */
  readonly cost: KnownCost | null;
  readonly why: string | null;
}

/** One leak, put into a body that has none. */
interface Leak<Body> {
  readonly name: string;
  /** The judge's names for it. */
  readonly faults: readonly string[];
  readonly put: (sound: Body, thrown: Thrown) => Partial<Body>;
  /** What the body without the leak has that the others do without. */
  readonly without?: Partial<Body>;
}

/** How the bodies of a technique are made, throw and are filmed. */
interface Act<Body> {
  readonly bodyOf: (seed: number) => Body;
  readonly leaks: readonly Leak<Body>[];
  /** The body as it aims. */
  readonly aimed: (body: Body) => Body;
  readonly thrown: (body: Body) => Thrown;
  readonly filmed: (body: Body, thrown: Thrown) => Filmed;
}

const TURNS = ['pivot-no-turn', 'arm-only', 'hips-blocked'];

/** What the body carries up, down or in. */
const SWUNG_WAYS: readonly Way[] = ['uppercut', 'rising', 'dropping', 'thrusting'];

const LEAKS: readonly (Leak<Thrower> & { readonly ways?: readonly Way[] })[] = [
  {
    name: 'all called at once',
    faults: ['all-at-once'],
    put: () => ({ calls: { pelvis: 0, trunk: 0, arm: 0 } }),
  },
  {
    name: 'called within 20 ms',
    faults: ['all-at-once'],
    put: () => ({ calls: { pelvis: 0, trunk: 0.01, arm: 0.02 } }),
  },
  {
    name: 'the arm called with the hips',
    faults: ['arm-first'],
    put: ({ calls }) => ({ calls: { ...calls, arm: 0 } }),
  },
  {
    name: 'met at two thirds of its reach',
    faults: ['jammed'],
    ways: ['straight'],
    put: () => ({ reach: 0.66 }),
  },
  {
    name: 'hips that hardly drive',
    faults: TURNS,
    put: ({ pulls }) => ({
      pulls: { ...pulls, push: 0.4 * pulls.push, pelvis: 0.35 * pulls.pelvis },
    }),
  },
  {
    name: 'an elbow that gives',
    faults: ['slap'],
    ways: ['hook'],
    put: ({ holds }) => ({ holds: 0.12 * holds }),
  },
  {
    name: 'an open elbow',
    faults: ['hook-wide'],
    ways: ['hook'],
    put: () => ({ bends: degrees(132) }),
  },
  {
    name: 'a square stance',
    faults: ['square-stance'],
    ways: ['hook'],
    put: () => ({ yaw: degrees(-16) }),
  },
  {
    name: 'no coil',
    faults: ['no-load'],
    ways: ['hook', 'elbow'],
    put: () => ({}),
    without: { coil: degrees(10) },
  },
  {
    name: 'an arm that brakes',
    faults: ['braking'],
    ways: ['straight'],
    put: (_, { contact }) => ({ brakes: contact - 0.03 }),
  },
  {
    name: 'a body that goes back',
    faults: ['weight-back'],
    ways: ['straight'],
    put: ({ pulls }) => ({ pulls: { ...pulls, push: -0.5 * pulls.push } }),
  },
  {
    name: 'legs that do nothing',
    faults: ['no-rise', 'no-drop', 'elbow-stands'],
    ways: SWUNG_WAYS,
    put: ({ pulls }) => ({ pulls: { ...pulls, push: 0 } }),
  },
];

const HIPS = ['kick-hip-under', 'kick-no-pivot'];

const KICK_LEAKS: readonly Leak<Kicker>[] = [
  {
    name: 'thigh called with the hips',
    faults: ['kick-order'],
    put: ({ calls }) => ({
      calls: { pelvis: 0, thigh: 0, shank: calls.shank - calls.thigh },
    }),
  },
  {
    name: 'thigh called before the hips',
    faults: ['kick-order'],
    put: ({ calls }) => ({
      calls: { pelvis: 0.04, thigh: 0, shank: calls.shank - calls.thigh },
    }),
  },
  {
    name: 'hips that hardly drive',
    faults: HIPS,
    put: ({ pulls }) => ({ pulls: { ...pulls, pelvis: 0.45 * pulls.pelvis } }),
  },
  {
    name: 'hips held by the foot',
    faults: HIPS,
    put: () => ({ range: degrees(30) }),
  },
  {
    name: 'a leg that is not folded',
    faults: ['kick-straight-leg'],
    put: () => ({ folds: 0.3 }),
  },
];

/** Bodies differ by as much: a value times e to a normal deviate of this share. */
function varied(seed: number) {
  const normal = normals(seeded(seed));
  return { normal, times: (value: number, share: number) => value * Math.exp(share * normal()) };
}

/** Where each is steered until it aims. */
const AIMS: Readonly<Record<Way, Thrower['aim']>> = {
  straight: [0.3, -0.3],
  hook: [-0.5, 0],
  elbow: [-0.1, 0],
  uppercut: [0.1, 0],
  rising: [0.1, 0],
  dropping: [0.1, 0],
  thrusting: [0.1, 0],
};

/** A body and its sound strike; every seed another. */
function throwerOf(way: Way, seed: number): Thrower {
  const { normal, times } = varied(seed);
  return {
    way,
    height: times(1.76, 0.04),
    mass: times(72, 0.12),
    yaw: -0.75 + 0.08 * normal(),
    pulls: {
      push: times(400, 0.2),
      pelvis: times(140, 0.15),
      trunk: times(90, 0.15),
      shoulder: times(60, 0.15),
      elbow: times(52, 0.15),
    },
    calls: { pelvis: 0, trunk: 0.045 + 0.006 * normal(), arm: 0.085 + 0.009 * normal() },
    stage: times(0.018, 0.15),
    quick: times(1, 0.1),
    bent: 1.5 * Math.abs(normal()),
    heavy: times(1, 0.12),
    holds: times(2.5, 0.15),
    bends: degrees(92),
    coil: 0,
    brakes: null,
    reach: 0.95,
    across: 0,
    aim: AIMS[way],
  };
}

function kickerOf(seed: number): Kicker {
  const { normal, times } = varied(seed);
  return {
    height: times(1.76, 0.04),
    mass: times(72, 0.12),
    yaw: -0.75 + 0.08 * normal(),
    pulls: {
      push: times(300, 0.2),
      pelvis: times(240, 0.12),
      thigh: times(190, 0.12),
      knee: times(130, 0.12),
    },
    calls: { pelvis: 0, thigh: 0.05 + 0.006 * normal(), shank: 0.22 + 0.009 * normal() },
    stage: times(0.018, 0.15),
    quick: times(1.1, 0.08),
    bent: 1 + 0.5 * Math.abs(normal()),
    heavy: times(1, 0.12),
    folds: times(1.9, 0.06),
    range: 1.9,
    aim: [0.3, 0.1],
  };
}

const arms = (technique: TechniqueId, way: Way): Act<Thrower> => ({
  bodyOf: (seed) => throwerOf(way, seed),
  leaks: LEAKS.filter(({ ways }) => ways === undefined || ways.includes(way)),
  aimed,
  thrown: (thrower) => throwIt(armed(thrower)),
  filmed: (thrower, thrown) => filmed(technique, 'orthodox', thrower, thrown),
});

function said(
  technique: TechniqueId,
  { mass, height }: { readonly mass: number; readonly height: number },
  film: Filmed,
  seed: number,
) {
  const track = trackOf(film.mover, film.duration, { rate: 240, noise: 0.002, seed });
  const { frameTimes } = track;
  return analyze({
    track,
    strike: {
      technique: techniqueById(technique),
      side: formOf(clean(technique)).striking,
      stance: 'orthodox',
    },
    marks: { contact: markOnFrame(frameTimes, nearestFrame(frameTimes, film.contact)) },
    body: { mass, height },
  }).findings;
}

/** Every leak of one body whose sound strike arrives. */
const trialsOf =
  <Body extends Muscled & { readonly height: number }>(act: Act<Body>) =>
  (technique: TechniqueId, seed: number): CostTrial[] => {
    const body = act.bodyOf(seed);
    const throws = (one: Body) => act.thrown(act.aimed(one));
    const plain = throws(body);
    if (!plain.hasArrived) return [];
    return act.leaks.flatMap((leak): CostTrial[] => {
      const sound = leak.without ? throws({ ...body, ...leak.without }) : plain;
      const leaky = act.aimed({ ...body, ...leak.put(body, plain) });
      const thrown = act.thrown(leaky);
      if (!sound.hasArrived || !thrown.hasArrived) return [];
      const found = said(technique, leaky, act.filmed(leaky, thrown), seed).find(
        ({ fault, status }) => status === 'found' && leak.faults.includes(fault),
      );
      const cost = found?.cost ?? null;
      return [
        {
          technique,
          leak: leak.name,
          truth: 1 - thrown.momentum / sound.momentum,
          cost: isKnown(cost) ? cost : null,
          why: cost && 'unknown' in cost ? cost.unknown : null,
        },
      ];
    });
  };

/** A jab is thrown by the side that stands before: less of a turn, and the hand soon after it. */
const JAB: Act<Thrower> = {
  ...arms('jab', 'straight'),
  bodyOf: (seed) => {
    const body = throwerOf('straight', seed);
    return {
      ...body,
      yaw: 1.1 + body.yaw,
      pulls: { ...body.pulls, pelvis: 0.6 * body.pulls.pelvis },
      calls: { pelvis: 0, trunk: 0.6 * body.calls.trunk, arm: 0.65 * body.calls.arm },
    };
  },
  leaks: LEAKS.filter(({ faults }) => faults.includes('jammed')),
};

/** The side that stands before turns in from there. */
const LEAD_HOOK: Act<Thrower> = {
  ...arms('lead-hook', 'hook'),
  bodyOf: (seed) => {
    const body = throwerOf('hook', seed);
    return { ...body, yaw: 0.85 + body.yaw, across: 0.22 };
  },
  // It stands squarer than a rear hook does on purpose.
  leaks: LEAKS.filter(
    ({ ways, faults }) =>
      (ways === undefined || ways.includes('hook')) && !faults.includes('square-stance'),
  ),
};

/** The whole body goes where the strike goes, and harder than it turns. */
const carried = (technique: TechniqueId, way: Way): Act<Thrower> => ({
  ...arms(technique, way),
  bodyOf: (seed) => {
    const body = throwerOf(way, seed);
    return { ...body, pulls: { ...body.pulls, push: 1.5 * body.pulls.push } };
  },
  leaks: LEAKS.filter(({ ways }) => ways === SWUNG_WAYS),
});

const ACTS = {
  jab: trialsOf(JAB),
  cross: trialsOf(arms('cross', 'straight')),
  'lead-hook': trialsOf(LEAD_HOOK),
  'rear-hook': trialsOf(arms('rear-hook', 'hook')),
  'elbow-round': trialsOf(arms('elbow-round', 'elbow')),
  'rear-uppercut': trialsOf(carried('rear-uppercut', 'uppercut')),
  'elbow-rise': trialsOf(carried('elbow-rise', 'rising')),
  'elbow-drop': trialsOf(carried('elbow-drop', 'dropping')),
  'elbow-thrust': trialsOf(carried('elbow-thrust', 'thrusting')),
  'round-kick': trialsOf<Kicker>({
    bodyOf: kickerOf,
    leaks: KICK_LEAKS,
    aimed: (kicker) => kicker,
    thrown: (kicker) => throwIt(kicking(kicker)),
    filmed: (kicker, thrown) => kickFilmed('orthodox', kicker, thrown),
  }),
} as const;

export type DrivenTechnique = keyof typeof ACTS;
export const DRIVEN_TECHNIQUES = Object.keys(ACTS) as DrivenTechnique[];

/** Every leak that the technique can have, once for each seed whose sound strike arrives. */
export function costTrials(
  techniques: readonly DrivenTechnique[],
  seeds: readonly number[],
): CostTrial[] {
  return techniques.flatMap((technique) =>
    seeds.flatMap((seed) => ACTS[technique](technique, seed)),
  );
}
