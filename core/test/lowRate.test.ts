/** Few frames a second, and contact between two of them: what is read there says how unsure it is. */
import { describe, expect, it } from 'vitest';
import { mover } from '@sinew/fighters/fighter/pose';
import { clean, type Recipe } from '@sinew/fighters/fighter/recipe';
import { knownTrack } from '@sinew/fighters/fighter/track';
import { truthOfStrike } from '@sinew/fighters/fighter/truth';
import { FAMILIES } from '@sinew/fighters/trials/families';
import { trialsOf } from '@sinew/fighters/trials/measured';
import { measure } from '../src/analysis/analyze';
import { isAbsent, isPresent } from '../src/foundation/reading/reading';
import { strikingSide } from '../src/foundation/technique/strike';
import { techniqueById } from '../src/foundation/technique/techniques';
import { markOnFrame } from '../src/measure/events/events';
import { nearestFrame } from '../src/observe/track/time';
import { measureKnown } from './fixtures';

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

describe('60 frames a second', () => {
  it('tell the speed at contact wherever contact falls, though the frame that is marked may come after it', () => {
    const off = (['cross', 'jab', 'stepping-straight'] as const).flatMap((technique) =>
      Array.from({ length: 12 }, (_, i) => {
        const recipe = clean(technique, { contact: 0.7 + (i + 0.5) / 12 / 60, finish: 0.003 });
        const { values } = truthOfStrike(recipe);
        const { readings } = measureKnown(recipe, { rate: 60, noise: 0.002, seed: i + 1 });
        const speed = readings['speed.contact'];
        if (!isPresent(speed)) throw new Error(speed.absent);
        return (speed.value - values['speed.contact']) / speed.sigma;
      }),
    );
    // Stopped within 3 mm. Of 36 at least 32 lie within ±, where 95 of 100 do; as if the mark were contact, 27.
    expect(off.filter((sigmas) => Math.abs(sigmas) < 1.96).length).toBeGreaterThanOrEqual(32);
  });

  it('tell how fast a hook is at most only as far as frames so far apart show it', () => {
    // A hand that swings out is fastest for less than two frames: the way drawn through them is up to 15 % off.
    const trials = FAMILIES.flatMap((family) => {
      const setting = { rate: 60, noise: 0.002, isContactKnown: true, family };
      return trialsOf(['lead-hook', 'rear-hook', 'lead-body-hook'], setting, [1, 2]).trials;
    }).filter(({ what }) => what === 'speed.peak');
    expect(trials).toHaveLength(18);
    const inside = trials.filter(({ isCovered }) => isCovered).length;
    // Binomial, 18 × 0.95: 15 or more in 99 of 100 runs of such a test.
    expect(inside).toBeGreaterThanOrEqual(15);
    expect(Math.max(...trials.map(({ sigma, truth }) => sigma / truth))).toBeLessThan(0.15);
  });

  it('do not tell how far a body sinks whose foot is out of sight at its lowest', () => {
    const recipe = clean('lead-uppercut');
    const sampling = { rate: 60, noise: 0, seed: 1 };
    const track = knownTrack(recipe, sampling);
    const whole = measureKnown(recipe, sampling).readings['sink'];
    expect(isPresent(whole)).toBe(true);
    const technique = techniqueById('lead-uppercut');
    const strike = { technique, side: strikingSide(technique, recipe.stance) } as const;
    const toe = track.points.leftToe!;
    const isSeen = (frame: number) => frame < 23 || frame > 29;
    const kept = toe.frames.flatMap((frame, i) => (isSeen(frame) ? [i] : []));
    const pick = <T>(list: readonly T[]) => kept.map((i) => list[i]!);
    const { frames, x, y, z, sigma } = toe;
    const leftToe = {
      ...toe,
      frames: pick(frames),
      x: pick(x),
      y: pick(y),
      ...(z && { z: pick(z) }),
      ...(Array.isArray(sigma) && { sigma: pick(sigma) }),
    };
    const contact = markOnFrame(track.frameTimes, nearestFrame(track.frameTimes, recipe.contact));
    const { readings } = measure({
      track: { ...track, points: { ...track.points, leftToe } },
      strike,
      marks: { contact },
      body: { mass: 70, height: recipe.height },
    });
    const sink = readings['sink'];
    // Lowest of what is left would be a centimetre too little, ± 2 mm.
    expect(isAbsent(sink) && sink.absent).toMatch(/toe/i);
  });
});
