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
import { filmed } from '../driven/motion';
import type { Thrower, Way } from '../driven/body';
import { aimed, throwIt, type Thrown } from '../driven/throw';
import { trackOf } from '../fighter/track';

const DRIVEN = { cross: 'straight', 'rear-hook': 'hook', 'elbow-round': 'elbow' } as const;
export type DrivenTechnique = keyof typeof DRIVEN;
export const DRIVEN_TECHNIQUES = Object.keys(DRIVEN) as DrivenTechnique[];

interface Leak {
  readonly name: string;
  /** The judge's names for it. */
  readonly faults: readonly string[];
  readonly ways: readonly Way[];
  readonly put: (sound: Thrower) => Partial<Thrower>;
}

const ALL: readonly Way[] = ['straight', 'hook', 'elbow'];
const TURNS = ['pivot-no-turn', 'arm-only', 'hips-blocked'];

const LEAKS: readonly Leak[] = [
  {
    name: 'all called at once',
    faults: ['all-at-once'],
    ways: ALL,
    put: () => ({ calls: { pelvis: 0, trunk: 0, arm: 0 } }),
  },
  {
    name: 'called within 20 ms',
    faults: ['all-at-once'],
    ways: ALL,
    put: () => ({ calls: { pelvis: 0, trunk: 0.01, arm: 0.02 } }),
  },
  {
    name: 'the arm called with the hips',
    faults: ['arm-first'],
    ways: ALL,
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
    ways: ALL,
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
];

/** One leak of one body: what it truly loses, and what the judge says where it finds it. */
export interface CostTrial {
  readonly technique: DrivenTechnique;
  readonly leak: string;
  /** Share of the momentum that is lost. */
  readonly truth: number;
  /** Null where the judge does not find the leak, or gives no cost. */
  readonly cost: KnownCost | null;
  readonly why: string | null;
}

/** A body and its sound strike; every seed another. */
export function bodyOf(technique: DrivenTechnique, seed: number): Thrower {
  const normal = normals(seeded(seed));
  const times = (value: number, share: number) => value * Math.exp(share * normal());
  const way = DRIVEN[technique];
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
    reach: 0.95,
    aim: { straight: [0.3, -0.3], hook: [-0.5, 0], elbow: [-0.1, 0] }[way] as [number, number],
  };
}

function said(technique: DrivenTechnique, thrower: Thrower, thrown: Thrown, seed: number) {
  const film = filmed(technique, 'orthodox', thrower, thrown);
  const track = trackOf(film.mover, film.duration, { rate: 240, noise: 0.002, seed });
  const { frameTimes } = track;
  return analyze({
    track,
    strike: { technique: techniqueById(technique), side: 'right', stance: 'orthodox' },
    marks: { contact: markOnFrame(frameTimes, nearestFrame(frameTimes, film.contact)) },
    body: { mass: thrower.mass, height: thrower.height },
  }).findings;
}

/** Every leak that the technique can have, once for each seed whose sound strike arrives. */
export function costTrials(
  techniques: readonly DrivenTechnique[],
  seeds: readonly number[],
): CostTrial[] {
  return techniques.flatMap((technique) =>
    seeds.flatMap((seed) => {
      const sound = aimed(bodyOf(technique, seed));
      const thrown = throwIt(sound);
      if (!thrown.hasArrived) return [];
      return LEAKS.filter(({ ways }) => ways.includes(sound.way)).flatMap((leak): CostTrial[] => {
        const leaky = aimed({ ...sound, ...leak.put(sound) });
        const lost = throwIt(leaky);
        if (!lost.hasArrived) return [];
        const found = said(technique, leaky, lost, seed).find(
          ({ fault, status }) => status === 'found' && leak.faults.includes(fault),
        );
        const cost = found?.cost ?? null;
        return [
          {
            technique,
            leak: leak.name,
            truth: 1 - lost.momentum / thrown.momentum,
            cost: isKnown(cost) ? cost : null,
            why: cost && !isKnown(cost) ? cost.unknown : null,
          },
        ];
      });
    }),
  );
}
