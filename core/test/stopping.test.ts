/** A striking end that is being stopped as it lands, and one that holds its speed: how each is read. */
import { expect, it } from 'vitest';
import { movingBy } from '../src/foundation/signal/kriging';
import { holdingHalf } from '../src/foundation/signal/stopping';
import { normals, seeded } from '../src/foundation/uncertainty/random';

const RATE = 240;
const RISE = 0.15;
const FULL = 6;

/** Where an end is whose speed rises as 3u² − 2u³ and is then taken away evenly, and how fast it lands. */
function way(stops: number, loses: number) {
  const steps = 3000;
  const speed = (time: number) => {
    const u = Math.min(1, time / RISE);
    const full = FULL * u * u * (3 - 2 * u);
    const left = RISE - time;
    return left < stops ? full * (1 - loses * (1 - left / stops)) : full;
  };
  const place = (time: number) => {
    let sum = 0;
    for (let i = 0; i < steps; i++) sum += (speed(((i + 0.5) / steps) * time) * time) / steps;
    return sum;
  };
  return { place, lands: speed(RISE) };
}

function readings(stops: number, loses: number, noise: number) {
  const { place, lands } = way(stops, loses);
  const times = Array.from({ length: 15 }, (_, i) => RISE - (14 - i) / RATE);
  const places = times.map(place);
  return Array.from({ length: 60 }, (_, seed) => {
    const normal = normals(seeded(seed + 1));
    const series = [places, [0], [0]].map((axis) =>
      times.map((_, i) => (axis[i] ?? 0) + noise * normal()),
    );
    const found = movingBy(
      times,
      series,
      times.map(() => noise),
      0,
      RISE,
      0.15,
      'full-speed-or-stop',
    );
    return { error: found.slopes[0]! - lands, half: 1.96 * found.slopeSigma };
  });
}
const middle = (values: number[]) => values.sort((a, b) => a - b)[values.length >> 1]!;

it.each([
  [0.03, 0.5],
  [0.02, 0.8],
  [0.02, 0.5],
  [0.014, 0.4],
])('stopped for %s s by %s of its speed: the speed it lands with lies within ±', (stops, loses) => {
  const read = readings(stops, loses, 0.0008);
  const held = read.filter(({ error, half }) => Math.abs(error) <= half);
  expect(held.length / read.length).toBeGreaterThan(0.85);
  expect(Math.abs(middle(read.map(({ error }) => error)))).toBeLessThan(0.1 * FULL);
});

it('a sound strike is as sure as it was: nothing is taken to be stopped that does not look so', () => {
  const read = readings(0, 0, 0.0015);
  expect(middle(read.map(({ half }) => half))).toBeLessThan(0.06 * FULL);
  expect(middle(read.map(({ error }) => Math.abs(error)))).toBeLessThan(0.04 * FULL);
});

it('what holds 95 of 100 of several normals', () => {
  expect(holdingHalf([{ share: 1, off: 0, sigma: 2 }])).toBeCloseTo(1.96 * 2, 2);
  // Two far apart: one in twenty of each lies beyond, all of it outward (Φ⁻¹(0.95) = 1.645).
  const apart = [-50, 50].map((off) => ({ share: 0.5, off, sigma: 1 }));
  expect(holdingHalf(apart)).toBeCloseTo(51.645, 1);
  // One in fifty that is far off is left out.
  const rare = [
    { share: 0.98, off: 0, sigma: 1 },
    { share: 0.02, off: 30, sigma: 1 },
  ];
  expect(holdingHalf(rare)).toBeLessThan(2.3);
});
