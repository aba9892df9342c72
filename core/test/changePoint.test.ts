/** Starts as change points: exact ones, noisy ones, and ones there is nothing to tell from. */
import { describe, expect, it } from 'vitest';
import { progress, type Profile } from '@sinew/fighters/fighter/profile';
import { rising, type RiseId } from '@sinew/fighters/fighter/rises';
import { changePoint, type Rise } from '../src/measure/events/changePoint';
import { normal, seeded } from '../src/foundation/uncertainty/random';

const RATE = 240;
/** Radians that the link turns, and turns back before. */
const WAY = 1;
const BACK = 0.14;

/** A link that starts at 0.3 s; `back` puts a turn back before it that is over at 0.25 s. */
function riseOf(
  by: RiseId,
  { noise = 0, hangs = 0, seed = 1, back = false, drift = 0 } = {},
): { rise: Rise; truth: number } {
  const profile: Profile = { start: 0.3, rise: 0.2, fall: 0.2, by };
  const turn: Profile = { start: 0.07, rise: 0.08, fall: 0.1, by };
  const place = (t: number) =>
    WAY * progress(profile, t) - (back ? BACK * progress(turn, t) : 0) + drift * t;
  const speed = (t: number) => (place(t + 1e-5) - place(t - 1e-5)) / 2e-5;
  const peak = speed(0.5);
  let underWay = 0.3;
  while (speed(underWay) < 0.6 * peak) underWay += 0.001;
  let truth = underWay;
  while (speed(truth) >= 0.1 * peak) truth -= 0.0001;
  const random = seeded(seed);
  const keeps = hangs > 0 ? Math.exp(-1 / (RATE * hangs)) : 0;
  let now = normal(random);
  const times: number[] = [];
  const values: number[] = [];
  for (let t = 0.16; t <= underWay; t += 1 / RATE) {
    times.push(t);
    values.push(place(t) + noise * now);
    now = keeps * now + Math.sqrt(1 - keeps ** 2) * normal(random);
  }
  const rise = {
    times,
    values,
    sigma: Math.max(noise, 1e-4),
    hangs,
    peak,
    reached: speed(times.at(-1)!),
    speedSigma: 0.03 * peak,
    from: 0.22,
    to: 0.35,
  };
  return { rise, truth };
}

describe.each(['even', 'early', 'late', 'soft', 'driven'] as const)(
  'a speed that rises %s',
  (by) => {
    it('has gone a tenth of its peak where it says', () => {
      const { way, tenth } = rising(by);
      expect((way(tenth + 1e-6) - way(tenth - 1e-6)) / 2e-6).toBeCloseTo(0.1, 6);
      expect((way(1) - way(1 - 1e-6)) / 1e-6).toBeCloseTo(1, 4);
    });

    it.each([
      ['from rest', {}],
      ['after a turn back', { back: true }],
      ['on a body that drifts', { drift: 0.1 }],
    ])('%s is found within 3 ms and its ±', (_, how) => {
      const { rise, truth } = riseOf(by, how);
      const found = changePoint(rise)!;
      expect(Math.abs(found.time - truth)).toBeLessThan(0.003);
      expect(Math.abs(found.time - truth)).toBeLessThan(1.96 * found.sigma);
    });

    it.each([
      ['noise from frame to frame', 0],
      ['noise that hangs together for 5 ms', 0.005],
      ['noise that hangs together for 10 ms', 0.01],
    ])('in %s lies within its ± in 33 of 40 draws at the least', (_, hangs) => {
      let inside = 0;
      let sigma = 0;
      for (let seed = 1; seed <= 40; seed++) {
        const { rise, truth } = riseOf(by, { noise: 0.012, hangs, seed, back: seed % 2 === 0 });
        const found = changePoint(rise)!;
        sigma += found.sigma / 40;
        if (Math.abs(found.time - truth) <= 1.96 * found.sigma) inside++;
      }
      // Binomial, 40 × 0.93: 33 or more in 99 of 100 runs of such a test. And no wider than it need be.
      expect(inside).toBeGreaterThanOrEqual(33);
      expect(sigma).toBeLessThan(0.016);
    });
  },
);

describe('a start', () => {
  it('is less sure where the noise hangs together, and where it is larger', () => {
    const sigma = (noise: number, hangs: number) =>
      changePoint(riseOf('even', { noise, hangs }).rise)!.sigma;
    expect(sigma(0.012, 0.008)).toBeGreaterThan(1.2 * sigma(0.012, 0));
    expect(sigma(0.02, 0)).toBeGreaterThan(1.2 * sigma(0.008, 0));
  });

  it('is no surer than noise that was read too small allows', () => {
    const { rise } = riseOf('even', { noise: 0.02 });
    const honest = changePoint(rise)!.sigma;
    const deceived = changePoint({ ...rise, sigma: 0.005 })!.sigma;
    expect(deceived).toBeGreaterThan(0.4 * honest);
  });

  it('is not told from a few points, or between instants that leave none', () => {
    const { rise } = riseOf('even');
    const few = { ...rise, times: rise.times.slice(-5), values: rise.values.slice(-5) };
    expect(changePoint(few)).toBeNull();
    expect(changePoint({ ...rise, to: rise.from })).toBeNull();
    const falling = { ...rise, values: rise.values.map((v) => -v), reached: -rise.reached };
    expect(changePoint(falling)).toBeNull();
  });
});
