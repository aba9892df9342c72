/** Known-answer strikes for the tests: a made-up fighter, marked where its maker knows the truth. */
import { analyze, type Analysis } from '../src/analysis/analyze';
import { EVENTS, markOnFrame, type Events } from '../src/measure/events/events';
import { techniqueById } from '../src/foundation/technique/techniques';
import { strikingSide } from '../src/foundation/technique/strike';
import { knownTimes } from '@sinew/fighters/fighter/pose';
import type { Recipe } from '@sinew/fighters/fighter/recipe';
import { knownTrack } from '@sinew/fighters/fighter/track';
import { nearestFrame } from '../src/observe/track/time';
import { USUAL_RULES, type Rules } from '../src/judge/fault/finding';
import { NO_SCHOOL, resolve } from '../src/judge/school/resolve';
import type { FaultyFighter } from '@sinew/fighters/fighter/faults';

/** Marks on the frames nearest to the true instants: what a flawless coach would set. */
export function trueMarks(recipe: Recipe, frameTimes: readonly number[]): Events {
  const times = knownTimes(recipe);
  return Object.fromEntries(
    EVENTS.map((name) => [name, markOnFrame(frameTimes, nearestFrame(frameTimes, times[name]))]),
  );
}

export function analyzeKnown(
  recipe: Recipe,
  sampling: { rate: number; noise?: number; seed?: number },
  rules: Rules = USUAL_RULES,
): Analysis {
  const track = knownTrack(recipe, { noise: 0, seed: 1, ...sampling });
  const technique = techniqueById(recipe.technique);
  return analyze({
    strike: { technique, side: strikingSide(technique, recipe.stance), stance: recipe.stance },
    track,
    marks: trueMarks(recipe, track.frameTimes),
    body: { mass: 70, height: recipe.height },
    rules,
  });
}

/** The school in which a known fault is one, and what the coach's eye says of it. */
export function rulesFor({
  school = {},
  situation = 'not-said',
  audit = {},
}: FaultyFighter): Rules {
  return {
    ...USUAL_RULES,
    school: resolve({ ...NO_SCHOOL, gym: school, situation }),
    audit,
  };
}

export const found = (analysis: Analysis) =>
  analysis.findings.filter((f) => f.status === 'found').map((f) => f.fault);

export const undecided = (analysis: Analysis) =>
  analysis.findings.filter((f) => f.status === 'cant-tell').map((f) => f.fault);
