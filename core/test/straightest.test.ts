/** How straight an elbow or knee gets, held against the exact motion: no frame's noise, and no shoot of a filter. */
import { describe, expect, it } from 'vitest';
import { measure } from '../src/analysis/analyze';
import { markOnFrame } from '../src/measure/events/events';
import { angleAt } from '../src/foundation/geometry/vector';
import { halfWidth, isAbsent } from '../src/foundation/reading/reading';
import { techniqueById } from '../src/foundation/technique/techniques';
import { nearestFrame } from '../src/observe/track/time';
import { sided } from '../src/foundation/body/landmarks';
import { FAULTY_FIGHTERS, faulty } from '@sinew/fighters/fighter/faults';
import { formOf, knownTimes, mover } from '@sinew/fighters/fighter/pose';
import { clean, type Recipe } from '@sinew/fighters/fighter/recipe';
import { knownTrack, type Flaws } from '@sinew/fighters/fighter/track';
import { REAL } from '@sinew/fighters/trials/families';

const stretched = FAULTY_FIGHTERS.find(({ fault }) => fault === 'hyperextension')!;
const LIMBS: readonly Recipe[] = [
  faulty(stretched, 'jab', 'clear', clean('jab')),
  faulty(stretched, 'cross', 'clear', clean('cross')),
  clean('lead-hook'),
  clean('whip-straight'),
  clean('round-kick'),
  clean('front-kick'),
  clean('side-kick'),
];
const SEEDS = [1, 2, 3, 4];

function trueMost(recipe: Recipe, isKick: boolean): number {
  const parts = isKick
    ? (['Hip', 'Knee', 'Ankle'] as const)
    : (['Shoulder', 'Elbow', 'Wrist'] as const);
  const pose = mover(recipe);
  const { contact, end } = knownTimes(recipe);
  let most = 0;
  for (let time = contact; time <= end; time += 0.0005) {
    const now = pose(time);
    const [near, middle, far] = parts.map((part) => now[sided(formOf(recipe).striking, part)]);
    most = Math.max(most, angleAt(near!, middle!, far!));
  }
  return most;
}

/** Error and half of the range, radians. */
function heldTo(recipe: Recipe, rate: number, seed: number, flaws?: Flaws) {
  const technique = techniqueById(recipe.technique);
  const isKick = technique.family === 'kick';
  const track = knownTrack(recipe, { rate, noise: 0.002, seed, flaws });
  const contact = markOnFrame(track.frameTimes, nearestFrame(track.frameTimes, recipe.contact));
  const strike = { technique, side: formOf(recipe).striking, stance: recipe.stance };
  const body = { mass: 70, height: recipe.height };
  const { readings } = measure({ track, strike, marks: { contact }, body });
  const found = readings[isKick ? 'knee.most' : 'elbow.most'];
  if (isAbsent(found)) throw new Error(found.absent);
  return { error: found.value - trueMost(recipe, isKick), half: halfWidth(found) };
}

describe.each([
  { rate: 240, flaws: undefined, of: 'independent noise' },
  { rate: 240, flaws: REAL, of: 'noise that hangs together, with jumps and gaps' },
  { rate: 60, flaws: undefined, of: 'independent noise' },
])('at $rate a second, $of', ({ rate, flaws }) => {
  const all = LIMBS.flatMap((recipe, i) =>
    SEEDS.map((seed) => heldTo(recipe, rate, 100 * seed + i, flaws)),
  );

  it('the straightest bend lies within its ±', () => {
    const inside = all.filter(({ error, half }) => Math.abs(error) <= half);
    expect(inside.length / all.length).toBeGreaterThan(0.88);
  });

  it('leans to neither side', () => {
    const mean = all.reduce((sum, { error }) => sum + error, 0) / all.length;
    expect(Math.abs(mean)).toBeLessThan((1 * Math.PI) / 180);
  });
});
