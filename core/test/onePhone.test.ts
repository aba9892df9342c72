/** What one phone tells of when a strike begins: points as good as careful marking, from places that serve. */
import { describe, expect, it } from 'vitest';
import { clean } from '@sinew/fighters/fighter/recipe';
import { knownTimes, mover } from '@sinew/fighters/fighter/pose';
import { FAMILIES } from '@sinew/fighters/trials/families';
import { halfTurn, see, seeMarked } from '@sinew/fighters/trials/onePhone';
import { isAbsent, isPresent } from '../src/foundation/reading/reading';
import { besidesOf, measureStrike } from '../src/analysis/analyze';
import { judge } from '../src/judge/fault/judge';
import { USUAL_RULES } from '../src/judge/fault/finding';
import { faulty, FAULTY_FIGHTERS } from '@sinew/fighters/fighter/faults';
import type { Recipe } from '@sinew/fighters/fighter/recipe';
import { turnsIn } from '../src/reconstruct/motion/turn';
import { turnEvidence } from '../src/measure/events/turnEvidence';
import { techniqueById } from '../src/foundation/technique/techniques';
import { nearestFrame } from '../src/observe/track/time';
import { framesOfTurn, leftToMark, markedTurn } from '../src/observe/track/turnMarks';
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

describe('the turn as the coach marks it', () => {
  const measured = (recipe: Recipe, place: number, rate: number, seed: number) => {
    const seen = seeMarked(recipe, place * DEGREE, rate, seed);
    return measureStrike(seen, seen, besidesOf(seen));
  };
  const PLACES = { rear: [150, 120, 90, -45, -90], lead: [150, 120, -45] } as const;
  const TECHNIQUES = ['cross', 'rear-hook', 'lead-hook'] as const;
  const strikes = (of: (technique: (typeof TECHNIQUES)[number]) => Recipe) =>
    FAMILIES.flatMap((family) =>
      TECHNIQUES.flatMap((technique) =>
        PLACES[technique === 'lead-hook' ? 'lead' : 'rear'].map((place, i) => {
          const stance = i % 2 ? 'southpaw' : 'orthodox';
          const recipe = { ...family.of(of(technique), i + 1), stance } as Recipe;
          return { recipe, place, told: measured(recipe, place, i % 2 ? 240 : 120, i + 1) };
        }),
      ),
    );
  const sound = strikes((technique) => clean(technique));
  const together = FAULTY_FIGHTERS.find(({ fault }) => fault === 'all-at-once')!;
  const faults = strikes((technique) => faulty(together, technique, 'clear'));

  it('tells by how much the hips are sooner half-way, within its ±', () => {
    const rows = [...sound, ...faults].map(({ recipe, told }) => {
      const reading = told.readings['lead.half'];
      if (!isPresent(reading)) return null;
      const truth = halfTurn(recipe, 'Shoulder') - halfTurn(recipe, 'Hip');
      return { miss: reading.value - truth, sigma: reading.sigma };
    });
    const known = rows.filter((row) => row !== null);
    expect(known.length).toBeGreaterThan(0.95 * rows.length);
    const covered = known.filter(({ miss, sigma }) => Math.abs(miss) < 1.96 * sigma);
    expect(covered.length / known.length).toBeGreaterThanOrEqual(0.9);
    const sizes = known.map(({ miss }) => Math.abs(miss)).sort((a, b) => a - b);
    expect(sizes[sizes.length >> 1]).toBeLessThan(0.015);
  });

  const saysOf = ({ told, recipe }: (typeof sound)[number]) =>
    judge(techniqueById(recipe.technique), told.readings, USUAL_RULES).find(
      ({ fault }) => fault === 'all-at-once',
    )!;

  it('clears strikes whose hips lead, and finds none of them at fault', () => {
    const said = sound.map(saysOf);
    expect(said.filter(({ status }) => status === 'found')).toEqual([]);
    const clear = said.filter(({ status }) => status === 'clear');
    expect(clear.length / said.length).toBeGreaterThan(0.8);
    expect(clear[0]!.evidence).toMatch(/^Half-way through the turn the hips lead the trunk by/);
  });

  it('of strikes whose hips and trunk leave together says so, or which way it leans, and clears hardly one', () => {
    const said = faults.map(saysOf);
    const wrong = said.filter(
      ({ status, open }) => status === 'clear' || open?.likely === 'not-there',
    );
    expect(wrong.length / said.length).toBeLessThan(0.05);
    const leaning = said.filter(
      ({ status, open }) => status === 'found' || open?.likely === 'there',
    );
    expect(leaning.length / said.length).toBeGreaterThan(0.4);
  });

  it('is what half-way times rest on, not the tracker, and draws the dial', () => {
    const seen = seeMarked(clean('cross'), 120 * DEGREE, 120, 1);
    const told = measureStrike(seen, seen, besidesOf(seen));
    expect(turnEvidence(told.events, told.readings['lead.half'])).toBe('marks');
    expect(told.turns?.pelvis?.frames).toHaveLength(12);
    const misses = told.turns!.pelvis!.yaw.map((yaw, i) => {
      const truth = yawOf(clean('cross'), told.turns!.pelvis!.times[i]!);
      return Math.abs(yaw - truth) / told.turns!.pelvis!.sigma[i]!;
    });
    expect(misses.filter((miss) => miss < 1.96).length).toBeGreaterThanOrEqual(11);
  });

  it('is not told of points that nobody vouches for: a file’s in one picture, a tracker’s pelvis anywhere', () => {
    expect(isAbsent(measureOne('lead.half', see(clean('cross'), 90 * DEGREE, 120, 1)))).toBe(true);
    const seen = seeMarked(clean('cross'), 90 * DEGREE, 120, 1);
    const [marked] = besidesOf(seen);
    const { motion } = marked!;
    const told = { ...seen, motion };
    expect(isPresent(measureOne('lead.half', told))).toBe(true);
    const leftHip = { ...motion.raw.leftHip!, isTracked: true };
    const tracked = { ...told, motion: { ...motion, raw: { ...motion.raw, leftHip } } };
    expect(isAbsent(measureOne('lead.half', tracked))).toBe(true);
    expect(isAbsent(measureOne('turn.half.pelvis', tracked))).toBe(true);
    // Nor does a dial show a tracker's shoulders where it lost the hips.
    const { leftHip: _, rightHip: __, leftShoulder, ...rest } = motion.raw;
    const shoulders = { ...rest, leftShoulder: { ...leftShoulder!, isTracked: true } };
    expect(turnsIn({ ...motion, raw: shoulders, paths: shoulders })).toBeNull();
  });

  it('needs both ends of a line, close enough, near contact', () => {
    const times = Array.from({ length: 240 }, (_, i) => i / 120);
    const frames = framesOfTurn(times, 1);
    expect(frames).toHaveLength(12);
    expect(frames[0]).toBe(nearestFrame(times, 1 - 0.33));
    expect(frames.at(-1)).toBe(nearestFrame(times, 1.033));
    const all = leftToMark([], frames).map((one) => ({ ...one, x: 1, y: 1 }));
    expect(all).toHaveLength(48);
    expect(leftToMark(all.slice(0, 5), frames)[0]).toEqual({
      frame: frames[1],
      landmark: 'rightHip',
    });
    const told = (placed: typeof all) =>
      Object.keys(markedTurn(placed, times, 720, 1)?.points ?? {});
    expect(told(all)).toHaveLength(4);
    expect(told(all.filter(({ landmark }) => landmark !== 'leftHip'))).toEqual([
      ...['leftShoulder', 'rightShoulder'],
    ]);
    // One frame left out is a gap of 67 ms.
    expect(told(all.filter(({ frame }) => frame !== frames[6]))).toEqual([]);
    expect(told(all.filter(({ frame }) => frame > frames[6]!))).toEqual([]);
    expect(markedTurn(all, times, 720, 1.6)).toBeNull();
  });

  it('asks for no frame beyond the film', () => {
    const times = Array.from({ length: 30 }, (_, i) => i / 120);
    const frames = framesOfTurn(times, 0.2);
    expect(Math.min(...frames)).toBeGreaterThanOrEqual(0);
    expect(Math.max(...frames)).toBeLessThan(30);
    expect(new Set(frames).size).toBe(frames.length);
  });
});

/** Of the hips’ line, as an orthodox student’s. */
function yawOf(recipe: Recipe, time: number): number {
  const pose = mover({ ...recipe, stance: 'orthodox' })(time);
  const [left, right] = [pose.leftHip, pose.rightHip];
  return Math.atan2(right[0] - left[0], right[2] - left[2]);
}
