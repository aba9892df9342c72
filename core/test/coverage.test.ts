/** Whether the ± keeps its word over many draws of noise, and no leak is found that was not put in. */
import { expect, it } from 'vitest';
import { mover } from '@sinew/fighters/fighter/pose';
import { clean } from '@sinew/fighters/fighter/recipe';
import { mix, subtract } from '@sinew/fighters/fighter/space';
import { knownTrack } from '@sinew/fighters/fighter/track';
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
