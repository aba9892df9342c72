/** Known-answer strikes for the tests: a made-up fighter, marked where its maker knows the truth. */
import {
  analyze,
  judgeMeasured,
  measure,
  type Analysis,
  type AnalysisInput,
  type MeasuredStrike,
} from '../src/analysis/analyze';
import { EVENTS, markOnFrame, type Events } from '../src/measure/events/events';
import { techniqueById } from '../src/foundation/technique/techniques';
import { strikingSide } from '../src/foundation/technique/strike';
import { knownTimes } from '@sinew/fighters/fighter/pose';
import type { Recipe } from '@sinew/fighters/fighter/recipe';
import { knownTrack, type Flaws } from '@sinew/fighters/fighter/track';
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

interface Sampling {
  /** Frames a second. */
  readonly rate: number;
  /** Standard deviation of every coordinate, metres; none unless given. */
  readonly noise?: number;
  readonly seed?: number;
  readonly flaws?: Flaws;
}

function inputOf(recipe: Recipe, sampling: Sampling, rules: Rules) {
  const track = knownTrack(recipe, { noise: 0, seed: 1, ...sampling });
  const technique = techniqueById(recipe.technique);
  return {
    strike: { technique, side: strikingSide(technique, recipe.stance), stance: recipe.stance },
    track,
    marks: trueMarks(recipe, track.frameTimes),
    body: { mass: 70, height: recipe.height },
    rules,
  };
}

export const analyzeKnown = (
  recipe: Recipe,
  sampling: Sampling,
  rules: Rules = USUAL_RULES,
): Analysis => analyze(inputOf(recipe, sampling, rules));

/** What is measured and found, without what it costs: a quarter of the time. */
export const judgeKnown = (
  recipe: Recipe,
  sampling: Sampling,
  rules: Rules = USUAL_RULES,
): Analysis => judged(inputOf(recipe, sampling, rules));

export function judged(input: AnalysisInput): Analysis {
  const measured = measure(input);
  return {
    ...measured,
    findings: judgeMeasured(measured, input.strike, input.rules ?? USUAL_RULES),
  };
}

/** What is measured, without what is found. */
export const measureKnown = (recipe: Recipe, sampling: Sampling): MeasuredStrike =>
  measure(inputOf(recipe, sampling, USUAL_RULES));

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

export const found = (analysis: Pick<Analysis, 'findings'>) =>
  analysis.findings.filter((f) => f.status === 'found').map((f) => f.fault);

export const undecided = (analysis: Pick<Analysis, 'findings'>) =>
  analysis.findings.filter((f) => f.status === 'cant-tell').map((f) => f.fault);
