/** A size that is nearly nothing is as doubtful as one that is not: both signs of an error make it larger. */
import { clean } from '@sinew/fighters/fighter/recipe';
import { knownTrack } from '@sinew/fighters/fighter/track';
import { truthOfStrike } from '@sinew/fighters/fighter/truth';
import { expect, it } from 'vitest';
import { measure } from '../src/analysis/analyze';
import { isPresent } from '../src/foundation/reading/reading';
import { markOnFrame } from '../src/measure/events/events';
import { nearestFrame } from '../src/observe/track/time';

/** The hips' line from square in guard, of hips that stand squarer than the form has them by some radians. */
function angleOf(square: number) {
  const recipe = clean('cross', { square });
  const track = knownTrack(recipe, { rate: 240, noise: 0.005, seed: 3 });
  const truth = truthOfStrike(recipe);
  const contact = nearestFrame(track.frameTimes, recipe.contact);
  const { readings } = measure({
    track,
    strike: { technique: truth.technique, side: truth.side, stance: recipe.stance },
    marks: { contact: markOnFrame(track.frameTimes, contact) },
  });
  const angle = readings['angle.ready'];
  if (!isPresent(angle)) throw new Error('the angle of the hips is not read');
  return angle;
}

it('the angle of hips that stand square is as sure as that of hips that do not, and no surer', () => {
  const [square, turned] = [angleOf(Math.PI / 4), angleOf(Math.PI / 8)];
  expect(square.value).toBeLessThan(0.02);
  expect(turned.value).toBeGreaterThan(0.3);
  expect(square.sigma / turned.sigma).toBeGreaterThan(0.8);
  expect(square.sigma / turned.sigma).toBeLessThan(1.25);
});
