/** What one level camera shows of a body without a second one: held against the same body in space. */
import { describe, expect, it } from 'vitest';
import { FAMILIES, REAL } from '@sinew/fighters/trials/families';
import { cleanJudged, faultsJudged, FLAT } from '@sinew/fighters/trials/judged';
import { clean, type Recipe } from '@sinew/fighters/fighter/recipe';
import type { TechniqueId } from '@sinew/fighters/fighter/forms';
import { knownPicture } from '@sinew/fighters/fighter/picture';
import { knownTrack } from '@sinew/fighters/fighter/track';
import { truthOfStrike } from '@sinew/fighters/fighter/truth';
import { measure } from '../src/analysis/analyze';
import { halfWidth, isAbsent, type Reading } from '../src/foundation/reading/reading';
import type { View } from '../src/foundation/technique/techniques';
import { markOnFrame } from '../src/measure/events/events';
import type { MeasureId, Readings } from '../src/measure/measures/allMeasures';
import { nearestFrame } from '../src/observe/track/time';

type Film = ReturnType<typeof knownPicture> | { readonly track: ReturnType<typeof knownTrack> };

const degrees = (value: number) => (value * Math.PI) / 180;

/** @param height of the student as the coach has typed it in, against the true one */
function readingsOf(recipe: Recipe, film: Film, height = 1): Readings {
  const { technique, side } = truthOfStrike(recipe);
  const { frameTimes } = film.track;
  const facts = {
    strike: { technique, side, stance: recipe.stance },
    marks: { contact: markOnFrame(frameTimes, nearestFrame(frameTimes, recipe.contact)) },
    body: { mass: null, height: height * recipe.height },
  };
  const { readings } =
    'calibration' in film
      ? measure({ ...facts, track: film.track, calibration: film.calibration })
      : measure({ ...facts, track: film.track });
  return readings;
}

const exactly = (recipe: Recipe) =>
  readingsOf(recipe, { track: knownTrack(recipe, { rate: 120, noise: 0, seed: 1 }) });

interface Held {
  readonly shown: Reading;
  readonly truth: number;
}

/** What a view of 3 mm of noise shows, and what the exact body has; nothing where the view says that it cannot. */
function held<Id extends MeasureId>(
  ids: readonly Id[],
  recipes: readonly Recipe[],
  view: View,
  heights: readonly number[] = [1],
): Record<Id, Held[]> {
  const all = recipes.flatMap((recipe, i) => {
    const exact = exactly(recipe);
    return heights.map((height, k) => {
      const film = knownPicture(recipe, view, { rate: 120, noise: 0.003, seed: 10 * i + k });
      return { exact, shown: readingsOf(recipe, film, height) };
    });
  });
  const of = (id: Id) =>
    all.flatMap(({ exact, shown: { [id]: shown } }): Held[] => {
      const truth = exact[id];
      if (isAbsent(truth)) throw new Error(truth.absent);
      return isAbsent(shown) ? [] : [{ shown, truth: truth.value }];
    });
  return Object.fromEntries(ids.map((id) => [id, of(id)])) as Record<Id, Held[]>;
}

const shareInside = (all: readonly Held[]) =>
  all.filter(({ shown, truth }) => Math.abs(shown.value - truth) <= halfWidth(shown)).length /
  all.length;

const DRIVEN = FAMILIES.slice(2);
/** As all three families throw it, or some of them. */
const thrown = (
  techniques: readonly TechniqueId[],
  changes: readonly Partial<Recipe>[],
  families = FAMILIES,
) =>
  families.flatMap((family) =>
    techniques.flatMap((technique) =>
      changes.map((change) => family.of(clean(technique, change), 3)),
    ),
  );

describe('one view shows, within its ±', () => {
  it('from the side, the shank that folds, and the support knee of a front kick', () => {
    const kicks = thrown(['front-kick'], [{}, { tall: 0.1 }]);
    const all = held(['kick.fold', 'kick.home', 'knee.support'], kicks, 'side');
    for (const [id, each] of Object.entries(all)) {
      expect(each.length, id).toBe(kicks.length);
      expect(shareInside(each), id).toBeGreaterThan(0.8);
    }
  }, 120_000);

  it('from the side, how far the other shoulder pulls back, and a wrist bent up or down of a fist palm down', () => {
    const crosses = thrown(['cross', 'rear-hook'], [{}, { trunkTurn: degrees(20) }], DRIVEN);
    expect(shareInside(held(['counter'], crosses, 'side').counter)).toBeGreaterThan(0.9);
    const bent = (roll: number) =>
      [-30, 0, 30].map((flex) => ({ fistRoll: degrees(roll), wristFlex: degrees(flex) }));
    const palmDown = [
      ...thrown(['jab'], bent(90), DRIVEN),
      ...thrown(['cross'], bent(-90), DRIVEN),
    ];
    const fists = held(['wrist.flex'], palmDown, 'side')['wrist.flex'];
    expect(fists.length).toBe(6);
    expect(shareInside(fists)).toBeGreaterThan(0.9);
  }, 120_000);

  it('from the front, how wide the feet stand', () => {
    const stands = held(
      ['stance.width'],
      thrown(['cross', 'lead-hook'], [{}], FAMILIES.slice(1)),
      'front',
    )['stance.width'];
    expect(stands.length).toBe(4);
    expect(shareInside(stands)).toBe(1);
    for (const { shown } of stands) expect(halfWidth(shown)).toBeLessThan(0.45 * shown.value);
  }, 120_000);
});

describe('one view does not show', () => {
  it('the bend of a wrist of a fist whose thumb is up, nor the knee over a foot that points out of it', () => {
    expect(held(['wrist.flex'], [clean('cross')], 'side')).toEqual({ 'wrist.flex': [] });
    const bent = clean('lead-hook', { wristFlex: degrees(30) });
    expect(held(['wrist.flex'], [bent], 'above')).toEqual({ 'wrist.flex': [] });
    expect(held(['knee.support'], [clean('round-kick')], 'side')).toEqual({ 'knee.support': [] });
  });

  it('more of a head that is thrown than there is', () => {
    const recipe = clean('cross', { headThrow: 0.17 });
    const whole = exactly(recipe).head;
    for (const view of ['side', 'front'] as const) {
      const film = knownPicture(recipe, view, { rate: 240, noise: 0.001, seed: 1 });
      const part = readingsOf(recipe, film)['head.seen'];
      if (isAbsent(whole) || isAbsent(part)) throw new Error('absent');
      expect(part.value).toBeLessThan(whole.value + halfWidth(part));
    }
  });
});

describe('a leak that one view shows is found from there', () => {
  const from = (view: View) => ({ ...FLAT.find((one) => one.view === view)!, flaws: REAL });
  it.each([
    ['side', ['head-whip', 'no-counter']],
    ['front', ['feet-in-line']],
    ['behind', ['feet-in-line']],
  ] as const)(
    'from the %s: %s',
    (view, faults) => {
      const said = faultsJudged(from(view), ['clear'], faults);
      expect(said.filter(({ outcome }) => outcome !== 'found')).toEqual([]);
      expect(said.flatMap(({ made }) => made)).toEqual([]);
    },
    120_000,
  );

  it('of a front kick, from the side: a leg that falls, one that is not folded', () => {
    const kicks = ['kick-falls', 'kick-straight-leg'];
    const said = faultsJudged(from('side'), ['clear'], kicks).filter(
      ({ technique }) => technique === 'front-kick',
    );
    expect(said.length).toBe(2);
    expect(said.filter(({ outcome }) => outcome !== 'found')).toEqual([]);
  }, 120_000);

  it('and a sound strike shows none', () => {
    for (const view of ['side', 'front'] as const) {
      const all = cleanJudged(from(view), [1]);
      expect(all.flatMap(({ made }) => made)).toEqual([]);
    }
  }, 120_000);
});
