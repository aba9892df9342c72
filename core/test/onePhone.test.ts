/** What one phone tells of when a strike begins: points as good as careful marking, from places that serve. */
import { describe, expect, it } from 'vitest';
import { clean } from '@sinew/fighters/fighter/recipe';
import { knownTimes } from '@sinew/fighters/fighter/pose';
import { FAMILIES } from '@sinew/fighters/trials/families';
import { halfTurn, see } from '@sinew/fighters/trials/onePhone';
import { isAbsent, isPresent } from '../src/foundation/reading/reading';
import { turnEvidence } from '../src/measure/events/turnEvidence';
import { measureOne } from '../src/measure/measures/allMeasures';

const DEGREE = Math.PI / 180;
describe('the start of the drive', () => {
  it('is read from the side, of families of bodies, near the start of the hips', () => {
    const found = FAMILIES.flatMap((family) =>
      (['cross', 'whip-straight', 'chambered-straight'] as const).flatMap((technique) =>
        [1, 2, 3].map((seed) => {
          const stance = seed === 2 ? 'southpaw' : 'orthodox';
          const recipe = family.of(clean(technique, { stance }), seed);
          const { drive } = see(recipe, 90 * DEGREE, seed === 3 ? 120 : 240, seed).events;
          return drive && { miss: drive.time - knownTimes(recipe).hips, sigma: drive.sigma };
        }),
      ),
    );
    const known = found.filter((one) => one !== undefined);
    expect(known.length).toBeGreaterThan(0.6 * found.length);
    const covered = known.filter(({ miss, sigma }) => Math.abs(miss) < 1.96 * sigma);
    expect(covered.length / known.length).toBeGreaterThanOrEqual(0.9);
    const near = known.filter(({ miss }) => Math.abs(miss) < 0.02);
    expect(near.length / known.length).toBeGreaterThanOrEqual(0.9);
  });

  it('is what the order rests on where the hips’ own start is not seen, and is not it', () => {
    const seen = see(clean('cross'), 90 * DEGREE, 240, 1);
    expect(seen.events.hips).toBeUndefined();
    expect(turnEvidence(seen.events)).toBe('drive');
    expect(isAbsent(measureOne('lead.hipsTrunk', seen))).toBe(true);
    // A hook’s leg does not begin with its hips on known strikes: it is not asked.
    expect(see(clean('lead-hook'), 90 * DEGREE, 240, 1).events.drive).toBeUndefined();
  });
});

describe('half-way through the turn', () => {
  const PLACES = [60, 90, 120, 150, -90, -60];

  it('is told from places in which the line grows as the body turns', () => {
    const rows = FAMILIES.flatMap((family) =>
      PLACES.flatMap((place, i) =>
        ([['cross'], ['rear-hook']] as const)[i % 2]!.map((technique) => {
          const stance = i % 2 ? 'southpaw' : 'orthodox';
          const recipe = family.of(clean(technique, { stance }), i + 1);
          return { recipe, seen: see(recipe, place * DEGREE, 120, i + 1) };
        }),
      ),
    );
    for (const [id, part] of [
      ['turn.half.pelvis', 'Hip'],
      ['turn.half.trunk', 'Shoulder'],
    ] as const) {
      const known = rows.flatMap(({ recipe, seen }) => {
        const reading = measureOne(id, seen);
        return isPresent(reading)
          ? [
              {
                miss: recipe.contact - reading.value - halfTurn(recipe, part),
                sigma: reading.sigma,
              },
            ]
          : [];
      });
      expect(known.length, id).toBeGreaterThan(0.7 * rows.length);
      const covered = known.filter(({ miss, sigma }) => Math.abs(miss) < 1.96 * sigma);
      expect(covered.length / known.length, id).toBeGreaterThanOrEqual(0.9);
    }
  });

  it('is refused where the line passes square to the camera on the way', () => {
    for (const place of [0, 30, 180, -150]) {
      const seen = see(clean('cross'), place * DEGREE, 120, 1);
      expect(isAbsent(measureOne('turn.half.trunk', seen)), `${place}°`).toBe(true);
    }
  });
});
