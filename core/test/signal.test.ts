import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  butterworth2,
  filtfilt,
  lowpass,
  noiseGain,
  passCorrection,
} from '../src/foundation/signal/butterworth';
import { derivative } from '../src/foundation/signal/derivative';
import { fillGaps, gapFrames } from '../src/foundation/signal/gaps';
import { interpolate, lowerBound } from '../src/foundation/signal/interpolate';
import { localFit } from '../src/foundation/signal/localFit';
import { resampleEvenly } from '../src/foundation/signal/resample';
import { residualCutoff } from '../src/foundation/signal/residual';
import { normal, seeded } from '../src/foundation/uncertainty/random';

interface Fixtures {
  filters: { cutoff: number; rate: number; b: number[]; a: number[] }[];
  filtfilt: { cutoff: number; rate: number; input: number[]; output: number[] };
  savgol: { rate: number; window: number; input: number[]; slope: number[]; curvature: number[] };
  noiseGain: { cutoff: number; rate: number; gain: number }[];
  gradient: { times: number[]; values: number[]; slopes: number[] };
  polyfit: {
    times: number[];
    values: number[];
    sigmas: number[];
    at: number;
    slope: number;
    slopeSigma: number;
    value: number;
  };
}
const scipy = JSON.parse(
  readFileSync(new URL('./fixtures/scipy.json', import.meta.url), 'utf8'),
) as Fixtures;

const seconds = (count: number, rate: number) => Array.from({ length: count }, (_, i) => i / rate);
const expectClose = (actual: readonly number[], expected: readonly number[], digits: number) =>
  expected.forEach((value, i) => expect(actual[i]).toBeCloseTo(value, digits));

describe('the low-pass filter', () => {
  it.each(scipy.filters)('has the coefficients of SciPy butter at $cutoff of $rate Hz', (f) => {
    const own = butterworth2(f.cutoff, f.rate);
    expectClose(own.b, f.b, 12);
    expectClose(own.a, f.a, 12);
  });

  it('filters forwards and backwards as SciPy filtfilt does', () => {
    const { cutoff, rate, input, output } = scipy.filtfilt;
    expectClose([...filtfilt(input, butterworth2(cutoff, rate))], output, 10);
  });

  // Winter, Biomechanics and Motor Control of Human Movement, 4th ed. (2009): C = 0.802 for a
  // dual pass (from memory; also the closed form (√2 − 1)^¼).
  it('corrects the cutoff for two passes by the published 0.802', () => {
    expect(1 / passCorrection(2)).toBeCloseTo(0.802, 3);
    expect(passCorrection(1)).toBeCloseTo(1, 12);
  });

  it('halves the power of a sine at its cutoff and adds no delay', () => {
    const rate = 240;
    const times = seconds(960, rate);
    const sine = times.map((t) => Math.sin(2 * Math.PI * 12 * t));
    const out = lowpass(sine, 12, rate).slice(240, 720);
    const gain = Math.max(...out);
    expect(gain).toBeCloseTo(Math.SQRT1_2, 3);
    const inPhase = out.reduce((sum, y, i) => sum + y * sine[i + 240]!, 0);
    const quadrature = out.reduce(
      (sum, y, i) => sum + y * Math.cos(2 * Math.PI * 12 * times[i + 240]!),
      0,
    );
    expect(Math.abs(quadrature / inPhase)).toBeLessThan(1e-3);
  });

  it('leaves a constant and the middle of a straight line as they are', () => {
    expectClose(lowpass(new Array<number>(40).fill(3), 6, 60), new Array<number>(40).fill(3), 12);
    const line = seconds(120, 60).map((t) => 3 + 2 * t);
    expectClose(lowpass(line, 6, 60).slice(50, 70), line.slice(50, 70), 6);
  });

  it('does nothing where the cutoff is out of the rate\u2019s reach', () => {
    const line = seconds(60, 60).map((t) => 3 + 2 * t);
    expect(lowpass(line, 40, 60)).toEqual(line);
  });

  it('refuses a cutoff it cannot build', () => {
    expect(() => butterworth2(130, 240)).toThrow(/between 0 and 120 Hz/);
  });
});

describe('the derivative', () => {
  it('agrees with numpy.gradient at uneven times', () => {
    const { times, values, slopes } = scipy.gradient;
    expectClose(derivative(values, times), slopes, 8);
  });

  it('is exact for any parabola, ends included', () => {
    fc.assert(
      fc.property(
        fc.tuple(fc.integer({ min: -9, max: 9 }), fc.integer({ min: -9, max: 9 })),
        fc.array(fc.integer({ min: 1, max: 20 }), { minLength: 3, maxLength: 30 }),
        ([a, b], steps) => {
          let t = 0;
          const times = steps.map((step) => (t += step / 100));
          const slopes = derivative(
            times.map((x) => a * x * x + b * x),
            times,
          );
          times.forEach((x, i) => expect(slopes[i]).toBeCloseTo(2 * a * x + b, 6));
        },
      ),
    );
  });
});

describe('the local fit', () => {
  it('gives the slope and its σ that numpy.polyfit gives with known weights', () => {
    const { times, values, sigmas, at, slope, slopeSigma, value } = scipy.polyfit;
    const fit = localFit(times, [values], sigmas, at, 2)[0]!;
    expect(fit.slope).toBeCloseTo(slope, 8);
    expect(fit.slopeSigma).toBeCloseTo(slopeSigma, 8);
    expect(fit.value).toBeCloseTo(value, 10);
  });

  it('refuses too few samples', () => {
    expect(() => localFit([0, 1], [[0, 1]], [1, 1], 1, 2)).toThrow(/needs 3 samples/);
  });
});

describe('interpolation and resampling', () => {
  it('goes through every sample and never asks for more than it has', () => {
    const times = [0, 0.1, 0.15, 0.4];
    const values = [1, 5, 2, 2];
    times.forEach((t, i) => expect(interpolate(times, values, t)).toBe(values[i]));
    expect(interpolate(times, values, -1)).toBe(1);
    expect(interpolate(times, values, 9)).toBe(2);
    expect(() => interpolate([], [], 0)).toThrow(RangeError);
  });

  it('reproduces a parabola between uneven samples', () => {
    const times = [0, 0.1, 0.15, 0.4, 0.5];
    const values = times.map((t) => 3 * t * t - t);
    expect(interpolate(times, values, 0.2)).toBeCloseTo(3 * 0.04 - 0.2, 9);
  });

  it('lays variable-rate samples on an even grid without moving them', () => {
    const times = [0, 0.01, 0.03, 0.04, 0.08, 0.1];
    const even = resampleEvenly(
      times,
      times.map((t) => 2 * t + 1),
    );
    expect(even.rate).toBeCloseTo(50, 9);
    even.times.forEach((t, i) => expect(even.values[i]).toBeCloseTo(2 * t + 1, 9));
  });

  it('finds where a time belongs', () => {
    expect([0, 1, 1.5, 4].map((t) => lowerBound([1, 2, 3], t))).toEqual([0, 0, 1, 3]);
  });
});

describe('the local fit inside a track', () => {
  it('is the Savitzky–Golay derivative (fixture: SciPy savgol_filter)', () => {
    const { rate, window, input, slope, curvature } = scipy.savgol;
    const half = (window - 1) / 2;
    for (let i = half; i < input.length - half; i++) {
      const near = input.slice(i - half, i + half + 1);
      const times = near.map((_, k) => (i - half + k) / rate);
      const [fit] = localFit(
        times,
        [near],
        near.map(() => 1),
        i / rate,
        2,
      );
      expect(fit!.slope).toBeCloseTo(slope[i]!, 8);
      expect(fit!.curvature).toBeCloseTo(curvature[i]!, 5);
    }
  });
});

describe('what the low-pass leaves of noise', () => {
  it('is what its power response says, inside a signal (fixture: SciPy freqz)', () => {
    for (const { cutoff, rate, gain } of scipy.noiseGain) {
      const gains = noiseGain(cutoff, rate);
      expect(gains[gains.length - 1]! / gain).toBeCloseTo(1, 2);
    }
  });

  it('is more at the ends, where there is less to average with', () => {
    const gains = noiseGain(12, 240);
    expect(gains[0]!).toBeGreaterThan(2 * gains[gains.length - 1]!);
  });
});

// Wells & Winter 1980: the cutoff balances the noise that stays against the movement that goes.
describe('residual analysis', () => {
  const rate = 240;
  const times = seconds(480, rate);
  const movement = times.map(
    (t) => 0.3 * Math.sin(2 * Math.PI * 1.5 * t) + 0.05 * Math.sin(2 * Math.PI * 6 * t),
  );
  const random = seeded(3);
  const noise = times.map(() => normal(random));
  const range = { floor: 2, cap: 40 };
  const cutoff = (size: number) =>
    residualCutoff(
      movement.map((v, i) => v + size * noise[i]!),
      rate,
      range,
    );

  it('wants a lower cutoff the more noise there is, and the cap where there is none', () => {
    expect(cutoff(0)).toBe(40);
    expect(cutoff(0.002)).toBeGreaterThan(cutoff(0.02));
    expect(cutoff(0.002)).toBeGreaterThan(6);
    expect(cutoff(0.02)).toBeLessThan(20);
  });

  it('comes nearer to the movement than the raw signal by far', () => {
    const shaken = movement.map((v, i) => v + 0.01 * noise[i]!);
    const smooth = lowpass(shaken, residualCutoff(shaken, rate, range), rate);
    const rms = (list: readonly number[]) =>
      Math.sqrt(list.reduce((sum, v, i) => sum + (v - movement[i]!) ** 2, 0) / list.length);
    expect(rms(smooth)).toBeLessThan(0.5 * rms(shaken));
  });
});

describe('gaps', () => {
  const times = seconds(40, 120);
  it('of five frames or 40 ms are filled by a cubic, longer ones stay open', () => {
    const frames = [0, 1, 2, 3, 9, 10, 11, 22, 23];
    expect(gapFrames(frames, times)).toEqual([4, 5, 6, 7, 8]);
    const parabola = (f: number) => 3 * times[f]! ** 2 - times[f]!;
    const filled = fillGaps(frames, frames.map(parabola), times);
    expect(filled.frames).toEqual([0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 22, 23]);
    filled.frames.forEach((f, i) => expect(filled.values[i]).toBeCloseTo(parabola(f), 5));
  });
});
