/** What only kicks have, and where the weight goes, held against made-up bodies whose truth is exact. */
import { describe, expect, it } from 'vitest';
import { formOf, knownTimes, mover, type Pose } from '@sinew/fighters/fighter/pose';
import { clean, type Recipe } from '@sinew/fighters/fighter/recipe';
import { dot, size, subtract, unit } from '@sinew/fighters/fighter/space';
import { sided } from '../src/foundation/body/landmarks';
import { angleAt } from '../src/foundation/geometry/vector';
import { halfWidth, isAbsent } from '../src/foundation/reading/reading';
import type { MeasureId } from '../src/measure/measures/allMeasures';
import { measureKnown } from './fixtures';

const SAMPLING = { rate: 240, noise: 0.002, seed: 3 };

function read(recipe: Recipe, id: MeasureId) {
  const found = measureKnown(recipe, SAMPLING).readings[id];
  if (isAbsent(found)) throw new Error(`${recipe.technique}, ${id}: ${found.absent}`);
  return found;
}

/** The kicking knee's sharpest angle over a stretch, by steps of a millisecond. */
function sharpest(recipe: Recipe, from: number, to: number): number {
  const pose = mover(recipe);
  const side = recipe.stance === 'orthodox' ? 'right' : 'left';
  const bend = (at: Pose) =>
    angleAt(at[sided(side, 'Hip')], at[sided(side, 'Knee')], at[sided(side, 'Ankle')]);
  const steps = Math.round((to - from) * 1000);
  return Math.min(...Array.from({ length: steps + 1 }, (_, i) => bend(pose(from + i / 1000))));
}

describe.each(['front-kick', 'round-kick', 'side-kick'] as const)('a %s', (technique) => {
  it.each([
    ['drawn up', {}],
    ['half drawn up', { legStraight: 0.5 }],
    ['swung straight', { legStraight: 1 }],
    ['of a southpaw', { stance: 'southpaw' as const }],
  ])('%s: how far the knee folds on the way', (_, change) => {
    const recipe = clean(technique, change);
    const { trunk, contact } = knownTimes(recipe);
    const { value, sigma } = read(recipe, 'kick.fold');
    expect(Math.abs(value - sharpest(recipe, trunk, contact))).toBeLessThan(1.96 * sigma);
  });

  it('folds again on its way home, or falls', () => {
    for (const legFalls of [0, 1]) {
      const recipe = clean(technique, { legFalls });
      const { contact } = knownTimes(recipe);
      const truth = sharpest(recipe, contact, contact) - sharpest(recipe, contact, contact + 0.3);
      const { value, sigma } = read(recipe, 'kick.home');
      expect(Math.abs(value - truth), `falls ${legFalls}`).toBeLessThan(1.96 * sigma);
    }
  });
});

describe.each([60, 120, 240])('at %i frames a second the ± of', (rate) => {
  const shares = { 'kick.fold': [0, 0], 'kick.home': [0, 0] };
  for (const technique of ['front-kick', 'round-kick', 'side-kick'] as const) {
    for (let seed = 1; seed <= 8; seed++) {
      const stance = seed % 3 ? 'orthodox' : 'southpaw';
      const recipe = clean(technique, { legStraight: seed % 2 ? 0 : 0.5, stance });
      const { trunk, contact } = knownTimes(recipe);
      const noise = seed > 4 ? 0.005 : 0.002;
      const { readings } = measureKnown(recipe, { rate, noise, seed });
      const truth = {
        'kick.fold': sharpest(recipe, trunk, contact),
        'kick.home': sharpest(recipe, contact, contact) - sharpest(recipe, contact, contact + 0.3),
      };
      for (const id of ['kick.fold', 'kick.home'] as const) {
        const found = readings[id];
        if (isAbsent(found)) continue;
        shares[id][1]! += 1;
        if (Math.abs(found.value - truth[id]) < 1.96 * found.sigma) shares[id][0]! += 1;
      }
    }
  }

  it.each(['kick.fold', 'kick.home'] as const)('%s holds the truth', (id) => {
    const [inside, all] = shares[id] as [number, number];
    expect(all).toBe(24);
    // Nineteen of twenty, and what 24 strikes can tell of that (binomial, one side at 5 %).
    expect(inside).toBeGreaterThanOrEqual(21);
  });
});

describe('the hand of the kicking side', () => {
  /** Exactly, by turning the whole body until its shoulders are square; metres. */
  const left = (recipe: Recipe) => {
    const pose = mover(recipe);
    const side = formOf(recipe).striking;
    const own = recipe.stance === 'orthodox' ? side : side === 'right' ? 'left' : 'right';
    const seen = (at: Pose) => {
      const across = subtract(at.rightShoulder, at.leftShoulder);
      const turn = Math.atan2(across[0], across[2]);
      const [x, y, z] = subtract(at[sided(own, 'Wrist')], at[sided(own, 'Shoulder')]);
      const [cos, sin] = [Math.cos(turn), Math.sin(turn)];
      return [x * cos - z * sin, y, x * sin + z * cos] as const;
    };
    return size(subtract(seen(pose(recipe.contact)), seen(pose(knownTimes(recipe).ready))));
  };

  it.each([
    ['stays', { armSwings: 0 }],
    ['swings half', { armSwings: 0.5 }],
    ['swings', { armSwings: 1 }],
    ['of a southpaw swings', { armSwings: 0.7, stance: 'southpaw' as const }],
  ])('%s as far as it truly does', (_, change) => {
    for (const technique of ['round-kick', 'front-kick'] as const) {
      const recipe = clean(technique, change);
      const { value, sigma } = read(recipe, 'kick.arm');
      expect(Math.abs(value - left(recipe))).toBeLessThan(1.96 * sigma);
      expect(sigma).toBeLessThan(0.01);
    }
  });

  it('is nothing that a punch has', () => {
    const { readings } = measureKnown(clean('cross'), SAMPLING);
    expect(readings['kick.arm']).toMatchObject({ isNotApplicable: true });
  });
});

it('a knee strike has no shank that folds', () => {
  const { readings } = measureKnown(clean('knee-strike'), SAMPLING);
  expect(readings['kick.fold']).toMatchObject({ isNotApplicable: true });
});

describe('the weight between the feet', () => {
  it('at ready is what the split says, from the other foot', () => {
    // Nothing has moved at the start of the load.
    const recipe = clean('cross');
    expect(read(recipe, 'shift.load').value).toBeCloseTo(1 - read(recipe, 'split').value, 2);
  });

  it('goes forward in a cross, back in a lead hook, and further when the body reaches', () => {
    const travel = (recipe: Recipe) => read(recipe, 'shift.travel').value;
    expect(travel(clean('cross'))).toBeGreaterThan(0.1);
    expect(travel(clean('lead-hook'))).toBeLessThan(0);
    const stance = Math.hypot(...([0, 2] as const).map((axis) => footLine('cross')[axis]));
    const more = travel(clean('cross', { reachOut: 0.05 })) - travel(clean('cross'));
    // Hips and trunk go along, legs hardly: most of five centimetres, along the line of the feet.
    expect(more * stance).toBeGreaterThan(0.025);
    expect(more * stance).toBeLessThan(0.05);
  });

  it('of a kick is none', () => {
    expect(measureKnown(clean('round-kick'), SAMPLING).readings['shift.travel']).toMatchObject({
      isNotApplicable: true,
    });
  });
});

/** From the middle of the rear foot to that of the lead one. */
function footLine(technique: 'cross') {
  const pose = mover(clean(technique))(0);
  const foot = (side: 'left' | 'right') =>
    pose[`${side}Heel`].map((value, axis) => (value + pose[`${side}Toe`][axis]!) / 2);
  const [lead, rear] = [foot('left'), foot('right')];
  return lead.map((value, axis) => value - rear[axis]!) as [number, number, number];
}

describe('the thigh with the shank half-way out', () => {
  // Both from the exact motion: the bend half-way between its sharpest and that at contact, and the thigh there.
  const truthOf = (recipe: Recipe) => {
    const pose = mover({ ...recipe, stance: 'orthodox' });
    const side = formOf(recipe).striking;
    const part = (time: number, name: 'Hip' | 'Knee' | 'Ankle') => pose(time)[`${side}${name}`];
    const bend = (time: number) => {
      const [hip, knee, ankle] = (['Hip', 'Knee', 'Ankle'] as const).map((one) => part(time, one));
      const [a, b] = [unit(subtract(hip!, knee!)), unit(subtract(ankle!, knee!))];
      return Math.acos(dot(a, b));
    };
    const times = Array.from({ length: 3000 }, (_, i) => recipe.contact - 0.3 + i * 1e-4);
    const sharp = times.reduce((least, time) => (bend(time) < bend(least) ? time : least));
    const half = (bend(sharp) + bend(recipe.contact)) / 2;
    const at = times.find((time) => time > sharp && bend(time) >= half)!;
    const thigh = subtract(part(at, 'Knee'), part(at, 'Hip'));
    return thigh[1] / size(thigh);
  };

  it.each([240, 120])('lies within its ± at %d frames a second', (rate) => {
    const misses = (['front-kick', 'round-kick', 'side-kick'] as const).flatMap((technique) =>
      [1, 2, 3, 4].flatMap((seed) => {
        const recipe = clean(technique, { stance: seed % 2 ? 'orthodox' : 'southpaw' });
        const chamber = measureKnown(recipe, { rate, noise: 0.002, seed }).readings['kick.chamber'];
        if (isAbsent(chamber)) throw new Error(chamber.absent);
        const error = chamber.value - truthOf(recipe);
        return Math.abs(error) > halfWidth(chamber) ? [`${technique} ${seed}: ${error}`] : [];
      }),
    );
    // Of twelve, two at most in 98 of 100 runs of such a test.
    expect(misses.length, misses.join(', ')).toBeLessThanOrEqual(2);
  });
});
