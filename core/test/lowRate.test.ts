/** Few frames a second, and contact between two of them: what is read there says how unsure it is. */
import { describe, expect, it } from 'vitest';
import { mover } from '@sinew/fighters/fighter/pose';
import { clean, type Recipe } from '@sinew/fighters/fighter/recipe';
import { knownTrack } from '@sinew/fighters/fighter/track';
import { FAMILIES } from '@sinew/fighters/trials/families';
import { measure } from '../src/analysis/analyze';
import { isPresent } from '../src/foundation/reading/reading';
import { strikingSide } from '../src/foundation/technique/strike';
import { techniqueById } from '../src/foundation/technique/techniques';
import { markOnFrame } from '../src/measure/events/events';
import { nearestFrame } from '../src/observe/track/time';

/** The elbow at contact as it is, radians; the joint's own angle, up to straight. */
function elbowOf(recipe: Recipe): number {
  const pose = mover(recipe)(recipe.contact);
  const side = strikingSide(techniqueById(recipe.technique), recipe.stance);
  const [a, b, c] = (['Shoulder', 'Elbow', 'Wrist'] as const).map((part) => pose[`${side}${part}`]);
  const [up, down] = [a, c].map((end) => end!.map((value, k) => value - b![k]!));
  const dot = up!.reduce((sum, value, k) => sum + value * down![k]!, 0);
  return Math.acos(dot / Math.hypot(...up!) / Math.hypot(...down!));
}

describe.each([30, 60])('the elbow at contact, %i frames a second', (rate) => {
  it.each(['cross', 'jab'] as const)('holds its ± wherever contact falls: %s', (technique) => {
    const misses = FAMILIES.flatMap((family) =>
      Array.from({ length: 8 }, (_, i) => {
        const made = family.of(clean(technique), i + 1);
        const between = (i + 0.5) / 8 / rate;
        const recipe = { ...made, contact: Math.ceil(made.contact * rate) / rate + between };
        const track = knownTrack(recipe, { rate, noise: 0.002, seed: i + 1 });
        const frame = nearestFrame(track.frameTimes, recipe.contact);
        const known = techniqueById(technique);
        const strike = {
          technique: known,
          side: strikingSide(known, recipe.stance),
          stance: recipe.stance,
        };
        const { readings } = measure({
          strike,
          track,
          marks: { contact: markOnFrame(track.frameTimes, frame) },
          body: { mass: 70, height: recipe.height },
        });
        const elbow = readings['elbow.contact'];
        return isPresent(elbow) ? (elbow.value - elbowOf(recipe)) / elbow.sigma : null;
      }),
    ).filter((miss) => miss !== null);
    expect(misses.length).toBeGreaterThanOrEqual(20);
    const covered = misses.filter((miss) => Math.abs(miss) < 1.96);
    expect(covered.length / misses.length).toBeGreaterThanOrEqual(0.9);
  });
});
