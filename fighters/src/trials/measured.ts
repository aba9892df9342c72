/** Strikes whose truth is known, analysed: how far off each number is, and whether its ± says so. */
import { measure, type MeasuredStrike } from '@sinew/core/analysis/analyze';
import { markOnFrame } from '@sinew/core/measure/events/events';
import type { MeasureId } from '@sinew/core/measure/measures/allMeasures';
import { halfWidth, isAbsent } from '@sinew/core/foundation/reading/reading';
import type { View } from '@sinew/core/foundation/technique/techniques';
import { nearestFrame } from '@sinew/core/observe/track/time';
import { FORMS, type TechniqueId } from '../fighter/forms';
import { knownPicture } from '../fighter/picture';
import { clean, type Recipe } from '../fighter/recipe';
import { knownTrack, type Flaws } from '../fighter/track';
import { carriedOf } from '../fighter/carried';
import { truthOfStrike, type Truth } from '../fighter/truth';
import { FAMILIES, type Family } from './families';

/** One number held against its truth, SI units. */
export interface Trial {
  readonly technique: TechniqueId;
  readonly what: string;
  readonly truth: number;
  readonly error: number;
  /** One standard deviation, as the core gives it. */
  readonly sigma: number;
  readonly isCovered: boolean;
}

export interface Setting {
  /** Frames a second. */
  readonly rate: number;
  /** Standard deviation of every coordinate, metres. */
  readonly noise: number;
  /** Contact marked on its frame, as a coach or a microphone would; else nothing is told. */
  readonly isContactKnown: boolean;
  readonly flaws?: Flaws;
  /** Seen by one far camera from there, free of flaws; in space when not said. */
  readonly view?: View;
  /** Whose body it is; the first family's when not said. */
  readonly family?: Family;
}

export type Held = Pick<Trials, 'trials' | 'missed'>;

export interface Trials {
  readonly setting: Setting;
  readonly trials: readonly Trial[];
  /** What was there to be found and was not. */
  readonly missed: readonly string[];
}

const BODY = { mass: 70, height: 1.76 };

const truths = new Map<string, Truth>();

/** The truth of a strike does not depend on how it was filmed. */
function truthFor(recipe: Recipe): Truth {
  const key = JSON.stringify(recipe);
  const known = truths.get(key) ?? truthOfStrike(recipe);
  truths.set(key, known);
  return known;
}

function strikeOnce(
  technique: TechniqueId,
  { rate, noise, isContactKnown, flaws, view, family = FAMILIES[0]! }: Setting,
  seed: number,
): { recipe: Recipe; truth: Truth; analysis: MeasuredStrike } {
  const stance = seed % 2 === 0 ? 'southpaw' : 'orthodox';
  const recipe = family.of(clean(technique, { stance }), seed);
  const truth = truthFor(recipe);
  // Noise of its own for every strike: one draw for all would be one trial, however many bodies and techniques.
  const drawn =
    1000 * FAMILIES.indexOf(family) + 100 * seed + Object.keys(FORMS).indexOf(technique);
  const source = view
    ? knownPicture(recipe, view, { rate, noise, seed: drawn })
    : { track: knownTrack(recipe, { rate, noise, seed: drawn, flaws }) };
  const { frameTimes } = source.track;
  const contact = markOnFrame(frameTimes, nearestFrame(frameTimes, recipe.contact));
  const analysis = measure({
    ...source,
    strike: { technique: truth.technique, side: truth.side, stance: recipe.stance },
    marks: isContactKnown ? { contact } : {},
    body: BODY,
  });
  return { recipe, truth, analysis };
}

/**
 * What an analysis gives against the truth.
 *
 * @param begins seconds of the film at which the strike's own time is 0
 */
export function heldAgainst(
  technique: TechniqueId,
  truth: Pick<Truth, 'times'> & { readonly values: Readonly<Record<string, number>> },
  { events, readings }: MeasuredStrike,
  isContactKnown: boolean,
  begins = 0,
): Held {
  const trials: Trial[] = [];
  const missed: string[] = [];
  const add = (what: string, is: number, found: { value: number; sigma: number } | null) => {
    if (!found) {
      missed.push(`${technique} ${what}`);
      return;
    }
    const error = found.value - is;
    const isCovered = Math.abs(error) <= halfWidth(found);
    trials.push({ technique, what, truth: is, error, sigma: found.sigma, isCovered });
  };
  for (const [event, time] of Object.entries(truth.times)) {
    if (event === 'contact' && isContactKnown) continue;
    const mark = events[event as keyof typeof truth.times];
    add(event, time + begins, mark ? { value: mark.time, sigma: mark.sigma } : null);
  }
  const { hips, trunk } = truth.times;
  const lead = readings['lead.hipsTrunk'];
  if (hips !== undefined && trunk !== undefined) {
    add('lead', trunk - hips, isAbsent(lead) ? null : lead);
  }
  for (const [id, value] of Object.entries(truth.values)) {
    const found = readings[id as MeasureId];
    if (isAbsent(found) && found.isNotApplicable) continue;
    add(id, value, isAbsent(found) ? null : found);
  }
  return { trials, missed };
}

/** The weight between the feet, the height of a kick and the way that pelvis and trunk carry, held likewise. */
export function carriedTrials(
  techniques: readonly TechniqueId[],
  setting: Setting,
  seeds: readonly number[],
): readonly Trial[] {
  return techniques.flatMap((technique) =>
    seeds.flatMap((seed) => {
      const { recipe, truth, analysis } = strikeOnce(technique, setting, seed);
      const values = carriedOf(recipe, truth);
      return heldAgainst(technique, { times: {}, values }, analysis, true).trials;
    }),
  );
}

/** All techniques, a few seeds each. */
export function trialsOf(
  techniques: readonly TechniqueId[],
  setting: Setting,
  seeds: readonly number[],
): Trials {
  const trials: Trial[] = [];
  const missed: string[] = [];
  for (const technique of techniques) {
    for (const seed of seeds) {
      const { truth, analysis } = strikeOnce(technique, setting, seed);
      const held = heldAgainst(technique, truth, analysis, setting.isContactKnown);
      trials.push(...held.trials);
      missed.push(...held.missed);
    }
  }
  return { setting, trials, missed };
}
