/** Noise read off a track: its size, for how long it hangs together, jumps; and what is made of it. */
import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { FAMILIES, REAL } from '@sinew/fighters/trials/families';
import { clean } from '@sinew/fighters/fighter/recipe';
import { knownTrack, type Flaws } from '@sinew/fighters/fighter/track';
import { motionFromSpace } from '../src/reconstruct/motion/motion';
import { cleaned } from '../src/reconstruct/motion/clean';
import { lowpass, noiseGain } from '../src/foundation/signal/butterworth';
import { localFit } from '../src/foundation/signal/localFit';
import { movingBy } from '../src/foundation/signal/kriging';
import {
  differenceVariance,
  framesTogether,
  noiseSigma,
  readNoise,
} from '../src/foundation/signal/noise';
import { withoutSpikes } from '../src/foundation/signal/spikes';
import { techniqueById } from '../src/foundation/technique/techniques';
import { normal, seeded } from '../src/foundation/uncertainty/random';
import type { Points } from '../src/observe/track/track';

interface Fixtures {
  gls: {
    times: number[];
    values: number[];
    sigmas: number[];
    hangs: number;
    at: number;
    value: number;
    slope: number;
    curvature: number;
    slopeSigma: number;
    curvatureSigma: number;
  };
  gains: { cutoff: number; rate: number; keeps: number; gain: number }[];
  kriging: {
    times: number[];
    series: number[][];
    sigma: number;
    hangs: number;
    at: number;
    rise: number;
    slopes: number[];
    slopeSigma: number;
  };
}
const scipy = JSON.parse(
  readFileSync(new URL('./fixtures/noise.json', import.meta.url), 'utf8'),
) as Fixtures;

describe('against SciPy', () => {
  it('a parabola through noise that hangs together is that of dense generalised least squares', () => {
    const { times, values, sigmas, at, hangs, ...expected } = scipy.gls;
    const [found] = localFit(times, [values], sigmas, at, 2, hangs);
    for (const key of Object.keys(expected) as (keyof typeof expected)[]) {
      expect(found![key] / expected[key], key).toBeCloseTo(1, 9);
    }
  });

  it.each(scipy.gains)(
    'a low-pass leaves its share of it ($cutoff of $rate Hz, $keeps kept)',
    (g) => {
      const hangs = -1 / (g.rate * Math.log(g.keeps));
      const gain = noiseGain(g.cutoff, g.rate, hangs);
      expect(gain[gain.length - 1]! / g.gain).toBeCloseTo(1, 1);
      expect(Math.abs(gain[gain.length - 1]! / g.gain - 1)).toBeLessThan(0.02);
    },
  );

  it('a speed by kriging is that of dense matrices and numerical integrals', () => {
    const { times, series, sigma, hangs, at, rise, slopes, slopeSigma } = scipy.kriging;
    const found = movingBy(
      times,
      series,
      times.map(() => sigma),
      hangs,
      at,
      rise,
    );
    slopes.forEach((slope, i) => expect(found.slopes[i]! / slope).toBeCloseTo(1, 6));
    expect(found.slopeSigma / slopeSigma).toBeCloseTo(1, 6);
  });
});

describe('second differences', () => {
  it('of noise have the variance that an AR(1) process gives them', () => {
    // Independent: 6 σ² (1 + 4 + 1). All but the same: none is left.
    expect(differenceVariance(1, 0)).toBe(6);
    expect(differenceVariance(1e-9, 1)).toBeCloseTo(0, 6);
    // ρ = ½: 6 − 4 + ½.
    expect(differenceVariance(1, 1 / Math.log(2))).toBeCloseTo(2.5, 12);
    expect(framesTogether(1, 1 / Math.log(2))).toBeCloseTo(3, 12);
    expect(framesTogether(1, 0)).toBe(1);
  });
});

const NO_FLAW: Flaws = { hangs: 0, jumps: 0, jump: 0, gaps: 0 };

const trackOf = (seed: number, rate: number, noise: number, flaws: Flaws) =>
  knownTrack(FAMILIES[1]!.of(clean('cross'), seed), { rate, noise, seed, flaws });

const motionOf = (seed: number, rate: number, noise: number, flaws: Flaws) => {
  const strike = { technique: techniqueById('cross'), side: 'right', stance: 'orthodox' } as const;
  return cleaned(motionFromSpace(trackOf(seed, rate, noise, flaws), strike));
};
const middle = (values: readonly number[]) =>
  [...values].sort((a, b) => a - b)[values.length >> 1]!;

describe('the noise of a moving body', () => {
  it.each([
    [120, 0.005],
    [240, 0.002],
    [240, 0.005],
    [240, 0.01],
    [500, 0.005],
  ])('at %i a second, hanging together for %d s, is read off within a third', (rate, hangs) => {
    for (const seed of [1, 2]) {
      const { raw } = motionOf(seed, rate, 0.002, { ...REAL, hangs });
      const paths = Object.values(raw);
      const read = middle(paths.map((path) => path.hangs));
      expect(read).toBeGreaterThan(0.6 * hangs);
      expect(read).toBeLessThan(1.7 * hangs + 0.001);
      const sigma = middle(paths.map((path) => path.sigma[0]!));
      expect(sigma / 0.002).toBeGreaterThan(0.9);
      expect(sigma / 0.002).toBeLessThan(1.35);
    }
  });

  it('is never less than somebody says who knows', () => {
    const track = trackOf(1, 240, 0.001, NO_FLAW);
    const told = Object.fromEntries(
      Object.entries(track.points).map(([name, own]: [string, Points]) => [
        name,
        { ...own, sigma: own.sigma.map(() => 0.004) },
      ]),
    );
    const strike = {
      technique: techniqueById('cross'),
      side: 'right',
      stance: 'orthodox',
    } as const;
    const { raw } = cleaned(motionFromSpace({ ...track, points: told }, strike));
    for (const { sigma } of Object.values(raw)) expect(Math.min(...sigma)).toBe(0.004);
  });

  it('cannot be read where somebody has smoothed it, and what is told is believed', () => {
    const track = trackOf(1, 240, 0.002, REAL);
    const smooth = (values: readonly number[]) => lowpass(values, 8, 240);
    const points = Object.fromEntries(
      Object.entries(track.points).map(([name, own]: [string, Points]) => [
        name,
        { ...own, x: smooth(own.x), y: smooth(own.y), z: smooth(own.z!) },
      ]),
    );
    const strike = {
      technique: techniqueById('cross'),
      side: 'right',
      stance: 'orthodox',
    } as const;
    const motion = cleaned(motionFromSpace({ ...track, points }, strike));
    expect(motion.isSmoothed).toBe(true);
    expect(middle(Object.values(motion.raw).map(({ sigma }) => sigma[0]!))).toBe(0.002);
    expect(motionOf(1, 240, 0.002, REAL).isSmoothed).toBe(false);
    expect(motionOf(1, 240, 0, NO_FLAW).isSmoothed).toBe(false);
  });

  it('is not read off too few points', () => {
    const few = { frames: [0, 1, 2, 3], values: [0, 1, 0, 1] };
    expect(readNoise([few], 1 / 240)).toEqual({ sigmas: [0], hangs: null });
    expect(noiseSigma(few, 1 / 240, 0)).toBeNull();
  });
});

describe('jumps', () => {
  const random = seeded(5);
  const frames = Array.from({ length: 200 }, (_, i) => i);
  /** A hand that stands, goes, and is stopped dead at frame 120. */
  const way = frames.map((i) => (i < 80 ? 0 : Math.min(i, 120) - 80) ** 2 * 0.0003);
  const noisy = [0, 1, 2].map((axis) =>
    way.map((v) => (axis === 0 ? v : 0) + 0.002 * normal(random)),
  );

  it('are left out, a blow is not', () => {
    const jumped = noisy.map((values) => [...values]);
    for (const i of [20, 60, 97, 150]) jumped[1]![i]! += 0.03;
    const kept = withoutSpikes(frames, jumped, 1 / 240);
    expect(frames.filter((i) => !kept[i])).toEqual([20, 60, 97, 150]);
    expect(withoutSpikes(frames, noisy, 1 / 240)).not.toContain(false);
  });

  it('are told from a hard blow, which is off the way through both sides alone', () => {
    const hard = noisy.map((values, axis) =>
      values.map((v, i) => (axis === 0 ? v + 2.5 * way[i]! : v)),
    );
    expect(withoutSpikes(frames, hard, 1 / 240)).not.toContain(false);
  });

  it('beside a larger one are found once that one is left out', () => {
    const jumped = noisy.map((values) => [...values]);
    jumped[1]![60]! += 0.06;
    jumped[1]![62]! += 0.02;
    const kept = withoutSpikes(frames, jumped, 1 / 240);
    expect(frames.filter((i) => !kept[i])).toEqual([60, 62]);
  });

  it.each([1, 2, 3, 4].flatMap((apart) => [apart, -apart]))(
    'that a larger one %i frames away hides are found once that one is left out',
    (apart) => {
      // What one of eight neighbours counts in the parabola through them, at their middle (normal equations).
      const counts = (708 - 60 * apart ** 2) / 2064;
      const jumped = noisy.map((values) => [...values]);
      jumped[1]![60]! += 0.6;
      jumped[1]![60 + apart]! += 0.6 * counts;
      const kept = withoutSpikes(frames, jumped, 1 / 240);
      expect(frames.filter((i) => !kept[i])).toEqual([60, 60 + apart].sort((a, b) => a - b));
    },
  );

  it('next to a gap are found too', () => {
    const seen = frames.filter((i) => i < 40 || i > 42);
    const pick = (values: readonly number[]) => seen.map((i) => values[i]! + (i === 44 ? 0.03 : 0));
    const kept = withoutSpikes(seen, noisy.map(pick), 1 / 240);
    expect(seen.filter((_, k) => !kept[k])).toEqual([44]);
  });

  it('of a landmark are bridged by its neighbours, and less sure', () => {
    const track = trackOf(3, 240, 0.002, NO_FLAW);
    const nose = track.points.nose!;
    const x = nose.x.map((v, i) => v + (i === 50 ? 0.05 : 0));
    const strike = {
      technique: techniqueById('cross'),
      side: 'right',
      stance: 'orthodox',
    } as const;
    const jumpy = { ...track, points: { ...track.points, nose: { ...nose, x } } };
    const path = cleaned(motionFromSpace(jumpy, strike)).raw.nose!;
    expect(path.frames).toHaveLength(nose.frames.length);
    expect(Math.abs(path.along[0]![50]! - nose.x[50]!)).toBeLessThan(0.01);
    expect(path.sigma[50]!).toBe(2 * path.sigma[51]!);
  });
});
