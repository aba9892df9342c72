/** What costs time between two strikes of a combination, held against its exact motion. */
import { costedFindings, judgeMeasured, measure } from '@sinew/core/analysis/analyze';
import { USUAL_RULES } from '@sinew/core/judge/fault/finding';
import { sided, type Side } from '@sinew/core/foundation/body/landmarks';
import { markOnFrame } from '@sinew/core/measure/events/events';
import { techniqueById } from '@sinew/core/foundation/technique/techniques';
import { nearestFrame } from '@sinew/core/observe/track/time';
import { comboOf } from '../fighter/combo';
import type { TechniqueId } from '../fighter/forms';
import { formOf, knownTimes, remembering, type Pose } from '../fighter/pose';
import { clean, type Recipe } from '../fighter/recipe';
import { trackOf, type Sampling } from '../fighter/track';
import type { Family } from './families';
import { saidOf, yawOf, type LastingTrial } from './lasting';

export const LASTING_PAIRS = ['no-replant', 'combo-reset'] as const;
type PairFault = (typeof LASTING_PAIRS)[number];

/** Seconds from contact to contact: a foot has no time to come down, hips have time to go back. */
const GAPS: Readonly<Record<PairFault, readonly number[]>> = {
  'no-replant': [0.34, 0.4],
  'combo-reset': [0.7, 0.85],
};
/** A strike, and what the other side throws then. */
const PAIRS: readonly (readonly [TechniqueId, TechniqueId])[] = [
  ['cross', 'jab'],
  ['cross', 'lead-hook'],
  ['rear-hook', 'lead-hook'],
  ['rear-hook', 'lead-uppercut'],
  ['rear-uppercut', 'lead-hook'],
  ['lead-hook', 'cross'],
  ['lead-hook', 'rear-hook'],
];

const STEP = 1 / 2000;

/** The first time after an instant at which something has fallen to half of what it is there. */
function halfGone(at: (time: number) => number, from: number): number {
  let time = from;
  while (at(time) > at(from) / 2) time += STEP;
  return time;
}

/** @param times of both contacts, and of the start of the next hips, seconds */
function truthOf(
  fault: PairFault,
  exact: (time: number) => Pose,
  side: Side,
  { contact, hips, next }: Readonly<Record<'contact' | 'hips' | 'next', number>>,
): number {
  if (fault === 'combo-reset') {
    const turned = (time: number) => yawOf(exact(time), 'Hip') - yawOf(exact(0), 'Hip');
    return hips - halfGone((time) => Math.abs(turned(time)), contact);
  }
  const up = (time: number) =>
    exact(time)[sided(side, 'Heel')][1] - exact(time)[sided(side, 'Toe')][1];
  return (
    Math.min(
      next,
      halfGone((time) => up(time) - up(0), hips),
    ) - hips
  );
}

type Filmed = Omit<Sampling, 'seed'>;

/** Both contacts told, and the start of the next hips; all else read off the points. */
export function pairTrials(
  family: Family,
  filmed: Filmed,
  seeds: readonly number[],
): readonly LastingTrial[] {
  return LASTING_PAIRS.flatMap((fault) =>
    PAIRS.flatMap((pair) =>
      GAPS[fault].flatMap((gap) =>
        seeds.flatMap((seed) => {
          const recipes = pair.map((id) => family.of(clean(id), seed));
          return trial(fault, recipes as [Recipe, Recipe], gap, { ...filmed, seed });
        }),
      ),
    ),
  );
}

/** None where the judge does not find the leak. */
function trial(
  fault: PairFault,
  recipes: readonly [Recipe, Recipe],
  gap: number,
  sampling: Sampling,
): readonly LastingTrial[] {
  const [first, second] = recipes;
  const { pose, duration, starts } = comboOf(recipes, [gap], fault === 'no-replant');
  const track = trackOf(pose, duration, sampling);
  const on = (time: number) => markOnFrame(track.frameTimes, nearestFrame(track.frameTimes, time));
  const times = {
    contact: starts[0]! + first.contact,
    hips: starts[1]! + knownTimes(second).hips,
    next: starts[1]! + second.contact,
  };
  const [strike, follows] = recipes.map((recipe) => ({
    technique: techniqueById(recipe.technique),
    side: formOf(recipe).striking,
    stance: recipe.stance,
  }));
  const body = { mass: null, height: first.height };
  const then = { contact: on(times.next), hips: on(times.hips) };
  const { events } = measure({ strike: follows!, track, marks: then, body });
  const facts = {
    strike: strike!,
    track,
    marks: { contact: on(times.contact) },
    body,
    next: { strike: follows!, events },
  };
  const measured = measure(facts);
  const own = judgeMeasured(measured, facts.strike, USUAL_RULES).filter(
    (one) => one.fault === fault && one.status === 'found',
  );
  const [found] = costedFindings(measured, own, facts, USUAL_RULES);
  if (!found) return [];
  const truth = truthOf(fault, remembering(pose), strike!.side, times);
  return [{ technique: first.technique, fault, truth, said: saidOf(found.cost) }];
}
