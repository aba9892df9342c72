/** Whether the ± keeps its word over many draws of noise, and no leak is found that was not put in. */
import { expect, it } from 'vitest';
import { carriedOf } from '@sinew/fighters/fighter/carried';
import type { TechniqueId } from '@sinew/fighters/fighter/forms';
import { knownPicture } from '@sinew/fighters/fighter/picture';
import { mover } from '@sinew/fighters/fighter/pose';
import { truthOfStrike } from '@sinew/fighters/fighter/truth';
import { measure } from '../src/analysis/analyze';
import { angleAt } from '../src/foundation/geometry/vector';
import { markOnFrame } from '../src/measure/events/events';
import type { MeasureId } from '../src/measure/measures/allMeasures';
import { nearestFrame } from '../src/observe/track/time';
import { clean } from '@sinew/fighters/fighter/recipe';
import { mix, subtract } from '@sinew/fighters/fighter/space';
import { knownTrack } from '@sinew/fighters/fighter/track';
import { FAMILIES, REAL } from '@sinew/fighters/trials/families';
import { carriedTrials } from '@sinew/fighters/trials/measured';
import { techniqueById } from '../src/foundation/technique/techniques';
import { halfWidth, isAbsent } from '../src/foundation/reading/reading';
import { found, judged, measureKnown, trueMarks } from './fixtures';

const cross = clean('cross');

it('the speed at contact lies within its ± in 35 of 40 draws at the least', () => {
  const pose = mover(cross);
  const fist = (time: number) => {
    const { rightIndexKnuckle, rightLittleKnuckle } = pose(time);
    return mix(rightIndexKnuckle, rightLittleKnuckle, 0.5);
  };
  const h = 1e-5;
  const truth = subtract(fist(cross.contact), fist(cross.contact - h))[0] / h;
  let inside = 0;
  for (let seed = 1; seed <= 40; seed++) {
    const { readings } = measureKnown(cross, { rate: 240, noise: 0.004, seed });
    const measured = readings['speed.contact'];
    if (!isAbsent(measured) && Math.abs(measured.value - truth) <= halfWidth(measured)) inside++;
  }
  // Binomial, 40 × 0.95: 35 or more in 95 of 100 runs of such a test.
  expect(inside).toBeGreaterThanOrEqual(35);
});

it('starts that nobody has marked own up to their noise: no leak is found that was not put in', () => {
  const strike = { technique: techniqueById('cross'), side: 'right' } as const;
  for (let seed = 1; seed <= 12; seed++) {
    const track = knownTrack(cross, { rate: 240, noise: 0.002, seed });
    const { ready, load, contact, end, home } = trueMarks(cross, track.frameTimes);
    const marks = Object.fromEntries(
      Object.entries({ ready, load, contact, end, home }).filter(([, mark]) => mark),
    );
    expect(found(judged({ strike, track, marks }))).toEqual([]);
  }
});

it.each([240, 60])(
  'weight between the feet, the way that pelvis and trunk carry, a kick’s height: within ± at %d a second',
  (rate) => {
    const setting = { rate, noise: 0.002, isContactKnown: true, flaws: REAL };
    const thrown = FAMILIES.filter(({ id }) => id !== 'still').flatMap((family) =>
      (
        [
          'cross',
          'rear-hook',
          'lead-uppercut',
          'elbow-round',
          'elbow-thrust',
          'elbow-drop',
          'round-kick',
        ] as const
      ).map((technique) => ({ family, technique })),
    );
    // Every strike with noise of its own; a strike of more frames takes longer to measure.
    const seeds = rate > 100 ? [1, 2] : [1, 2, 3];
    const trials = thrown.flatMap(({ family, technique }, i) => {
      const own = seeds.map((seed) => 3 * i + seed);
      return carriedTrials([technique], { ...setting, family }, own);
    });
    const off = (what: string) => trials.filter((one) => one.what.startsWith(what));
    for (const what of ['shift', 'travel', 'kick.height', 'body.travel', 'rise.first']) {
      const own = off(what);
      // The highest point of one drop elbow lies in a gap at 60 a second, and is not told.
      const hidden = what === 'rise.first' && rate === 60 ? 1 : 0;
      expect(own.length).toBeGreaterThanOrEqual(2 * seeds.length - hidden);
      // Of n 95 % should be: this many and more in 99 of 100 runs of such a test.
      const allowed = Math.ceil(0.05 * own.length + 2.4 * Math.sqrt(0.05 * 0.95 * own.length));
      expect(own.filter(({ isCovered }) => !isCovered).length).toBeLessThanOrEqual(allowed);
    }
    // A ± that holds because it is wide would tell a coach nothing.
    const widths = off('travel').map(({ sigma }) => sigma);
    expect(widths.sort((a, b) => a - b)[widths.length >> 1]!).toBeLessThan(0.03);
  },
  300_000,
);

it('the way is followed through a swing that turns round on itself', () => {
  const [still] = FAMILIES;
  const setting = { rate: 240, noise: 0, isContactKnown: true, family: still! };
  for (const { what, truth, error } of carriedTrials(['rear-hook', 'cross'], setting, [1])) {
    if (what.startsWith('travel')) expect(Math.abs(error), `${what} ${truth}`).toBeLessThan(0.003);
  }
});

it('one picture from the side: feet, the front knee and the weight between the feet lie within ±', () => {
  const SEEN: TechniqueId[] = ['cross', 'lead-hook', 'rear-uppercut', 'elbow-round'];
  const held = FAMILIES.flatMap((family) =>
    SEEN.flatMap((id) => {
      const recipe = family.of(clean(id), 2);
      const truth = truthOfStrike(recipe);
      const source = knownPicture(recipe, 'side', { rate: 240, noise: 0.003, seed: 2 });
      const { frameTimes } = source.track;
      const contact = markOnFrame(frameTimes, nearestFrame(frameTimes, recipe.contact));
      const strike = { technique: truth.technique, side: truth.side, stance: recipe.stance };
      const body = { mass: 70, height: recipe.height };
      const { readings, events } = measure({ ...source, strike, marks: { contact }, body });
      const pose = mover({ ...recipe, stance: 'orthodox' });
      const heel = (side: 'left' | 'right', time: number) =>
        pose(time)[`${side}Heel`][1] - pose(time)[`${side}Toe`][1];
      const { leftHip, leftKnee, leftAnkle } = pose(recipe.contact);
      const is = {
        ...carriedOf(recipe, truth),
        'heel.lead': heel('left', recipe.contact),
        'heel.rear': heel('right', recipe.contact),
        'stance.rearHeel': heel('right', events.ready!.time),
        'knee.lead': angleAt(leftHip, leftKnee, leftAnkle),
      };
      return Object.entries(is).flatMap(([what, value]) => {
        const measured = readings[what as MeasureId];
        if (isAbsent(measured)) return [];
        const isCovered = Math.abs(measured.value - value) <= halfWidth(measured);
        return [{ what: `${family.id} ${id} ${what}`, isCovered }];
      });
    }),
  );
  const wrong = held.filter(({ isCovered }) => !isCovered).map(({ what }) => what);
  expect(held.length).toBeGreaterThan(70);
  // 95 of 100 should be: 90 and more in 99 of 100 runs of such a test.
  expect(wrong.length / held.length, wrong.join(', ')).toBeLessThan(0.1);
  // Without a scale nobody knows how long the foot looks.
  const still = knownPicture(clean('cross'), 'side', { rate: 240, noise: 0, seed: 1 });
  const unscaled = measure({
    ...still,
    calibration: { ...still.calibration, scale: null },
    strike: { technique: techniqueById('cross'), side: 'right', stance: 'orthodox' },
    marks: { contact: markOnFrame(still.track.frameTimes, 168) },
    body: { mass: 70, height: 1.76 },
  });
  expect(unscaled.readings['knee.lead']).toMatchObject({
    absent: expect.stringContaining('scale'),
  });
  // A hook whose foot turns takes its knee out of the picture: nothing is said of it.
  expect(held.filter(({ what }) => what.endsWith('lead-hook knee.lead'))).toEqual([]);
});
