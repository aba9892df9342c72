/** What one phone tells of when a strike begins: points as good as careful marking, from places that serve. */
import { describe, expect, it } from 'vitest';
import { clean, type Recipe } from '@sinew/fighters/fighter/recipe';
import { knownTimes, mover } from '@sinew/fighters/fighter/pose';
import { frameTimesOf } from '@sinew/fighters/fighter/track';
import { FAMILIES } from '@sinew/fighters/trials/families';
import { normal, seeded } from '../src/foundation/uncertainty/random';
import { seeStrike } from '../src/analysis/seenStrike';
import { measureOne } from '../src/measure/measures/allMeasures';
import type { Calibration } from '../src/reconstruct/calibration/calibration';
import { strikingSide, type Strike } from '../src/foundation/technique/strike';
import { techniqueById } from '../src/foundation/technique/techniques';
import { LANDMARKS } from '../src/foundation/body/landmarks';
import { isAbsent, isPresent } from '../src/foundation/reading/reading';
import { viewAt } from '../src/foundation/technique/views';
import { markOnFrame } from '../src/measure/events/events';
import { turnEvidence } from '../src/measure/events/turnEvidence';
import { nearestFrame } from '../src/observe/track/time';
import type { PictureTrack } from '../src/observe/track/track';

const DEGREE = Math.PI / 180;
/** Pixels a metre, and by how many a point is off. */
const SCALE = 300;
const NOISE = 2;

/** A camera far away at hip height, at an azimuth as orthodox students count it. */
function seenFrom(recipe: Recipe, azimuth: number, rate: number, seed: number): PictureTrack {
  const random = seeded(seed);
  const frameTimes = frameTimesOf(recipe, rate);
  const poses = frameTimes.map(mover(recipe));
  const [sin, cos] = [Math.sin(azimuth), Math.cos(azimuth)];
  const side = recipe.stance === 'southpaw' ? -1 : 1;
  const frames = frameTimes.map((_, i) => i);
  const points = Object.fromEntries(
    LANDMARKS.map((name) => {
      const shaken = (of: (at: readonly [number, number, number]) => number) =>
        poses.map((pose) => SCALE * of(pose[name]) + NOISE * normal(random));
      return [
        name,
        {
          frames,
          x: shaken(([x, , z]) => side * x * sin - z * cos),
          y: shaken(([, y]) => -y),
          sigma: frames.map(() => NOISE),
        },
      ];
    }),
  );
  return { space: '2d', source: 'measured-2d', placingSigma: NOISE, frameTimes, points };
}

function see(recipe: Recipe, azimuth: number, rate: number, seed: number) {
  const track = seenFrom(recipe, azimuth, rate, seed);
  const technique = techniqueById(recipe.technique);
  const strike: Strike = {
    technique,
    side: strikingSide(technique, recipe.stance),
    stance: recipe.stance,
  };
  const contact = markOnFrame(track.frameTimes, nearestFrame(track.frameTimes, recipe.contact));
  const forward = Math.sin(azimuth) > 0 === (recipe.stance === 'orthodox') ? 1 : -1;
  const calibration: Calibration = {
    view: viewAt(azimuth),
    azimuth,
    scale: { from: { x: 0, y: 0 }, to: { x: SCALE, y: 0 }, metres: 1, sigma: 0.01 },
    target: { from: { x: 0, y: 0 }, to: { x: forward, y: 0 } },
  };
  const { motion, events } = seeStrike({ track, calibration }, strike, { contact });
  return { strike, motion, events, body: { mass: 70, height: recipe.height } };
}

/** When a link has turned half of the way from its deepest coil to contact, by small steps. */
function halfTurn(recipe: Recipe, part: 'Hip' | 'Shoulder'): number {
  const pose = mover({ ...recipe, stance: 'orthodox' });
  const yaw = (time: number) => {
    const now = pose(time);
    const [left, right] = [now[`left${part}`], now[`right${part}`]];
    return Math.atan2(right[0] - left[0], right[2] - left[2]);
  };
  const { contact } = recipe;
  const times = Array.from({ length: 1000 }, (_, i) => contact - 0.5 + (0.5 * i) / 1000);
  const deepest = times.reduce((a, b) => (yaw(b) < yaw(a) ? b : a));
  const middle = (yaw(deepest) + yaw(contact)) / 2;
  return times.find((time) => time > deepest && yaw(time) >= middle)!;
}

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
        (['cross', 'rear-hook'] as const).map((technique) => {
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
          ? [{ miss: reading.value - halfTurn(recipe, part), sigma: reading.sigma }]
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
