/** How straight an elbow or knee gets, held against the exact motion: no frame's noise, and no shoot of a filter. */
import { describe, expect, it } from 'vitest';
import { measure } from '../src/analysis/analyze';
import { EVENTS, markOnFrame, type Events } from '../src/measure/events/events';
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
  clean('jab'),
  clean('cross'),
  clean('lead-hook'),
  clean('whip-straight'),
  clean('round-kick'),
  clean('front-kick'),
  clean('side-kick'),
];
const SEEDS = [1, 2, 3, 4, 5, 6];

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

interface Setting {
  readonly rate: number;
  /** All instants of a punch; contact alone when not. */
  readonly isMarked: boolean;
  readonly flaws?: Flaws;
}

/** Error and half of the range, radians. */
function heldTo(recipe: Recipe, { rate, isMarked, flaws }: Setting, seed: number) {
  const technique = techniqueById(recipe.technique);
  const isKick = technique.family === 'kick';
  const track = knownTrack(recipe, { rate, noise: 0.002, seed, flaws });
  const { frameTimes } = track;
  const times = knownTimes(recipe);
  const names = isMarked && !isKick ? EVENTS : (['contact'] as const);
  const marks: Events = Object.fromEntries(
    names.map((name) => [name, markOnFrame(frameTimes, nearestFrame(frameTimes, times[name]))]),
  );
  const strike = { technique, side: formOf(recipe).striking, stance: recipe.stance };
  const body = { mass: 70, height: recipe.height };
  const { readings } = measure({ track, strike, marks, body });
  const found = readings[isKick ? 'knee.most' : 'elbow.most'];
  if (isAbsent(found)) throw new Error(found.absent);
  return { error: found.value - trueMost(recipe, isKick), half: halfWidth(found) };
}

const INDEPENDENT = { of: 'independent noise' } as const;
const REAL_NOISE = { of: 'noise that hangs together, with jumps and gaps', flaws: REAL } as const;

describe.each([
  { rate: 240, isMarked: true, ...INDEPENDENT },
  { rate: 240, isMarked: false, ...INDEPENDENT },
  { rate: 240, isMarked: true, ...REAL_NOISE },
  { rate: 240, isMarked: false, ...REAL_NOISE },
  { rate: 60, isMarked: true, ...INDEPENDENT },
])('at $rate a second, instants marked: $isMarked, $of', (setting) => {
  const all = LIMBS.flatMap((recipe, i) =>
    SEEDS.map((seed) => heldTo(recipe, setting, 100 * seed + i)),
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
