/** What must not change a reading, and what must change it in proportion. */
import { describe, expect, it } from 'vitest';
import { clean } from '@sinew/fighters/fighter/recipe';
import { knownTrack } from '@sinew/fighters/fighter/track';
import { truthOfStrike } from '@sinew/fighters/fighter/truth';
import type { TechniqueId } from '@sinew/fighters/fighter/forms';
import { measure } from '../src/analysis/analyze';
import { isAbsent, type Unit } from '../src/foundation/reading/reading';
import type { Landmark } from '../src/foundation/body/landmarks';
import type { Points, SpaceTrack } from '../src/observe/track/track';

type Point = readonly [number, number, number];

function moved(track: SpaceTrack, to: (point: Point) => Point, sigmaBy = 1): SpaceTrack {
  const points = Object.fromEntries(
    (Object.entries(track.points) as [Landmark, Points][]).map(([name, own]) => {
      const all = own.x.map((x, i) => to([x, own.y[i]!, own.z![i]!]));
      const axis = (k: 0 | 1 | 2) => all.map((point) => point[k]);
      const sigma = own.sigma.map((one) => one * sigmaBy);
      return [name, { ...own, x: axis(0), y: axis(1), z: axis(2), sigma }];
    }),
  );
  return { ...track, points };
}

const readingsOf = (id: TechniqueId, track: SpaceTrack) => {
  const { technique, side } = truthOfStrike(clean(id));
  const strike = { technique, side, stance: 'orthodox' as const };
  return measure({ strike, track, marks: {}, body: { mass: 70, height: 1.76 } });
};

const trackOf = (id: TechniqueId) => knownTrack(clean(id), { rate: 120, noise: 0.001, seed: 5 });

/** Readings that must be alike, to a relative 1e-6, after each value is divided by `factor`. */
function expectAlike(
  a: ReturnType<typeof readingsOf>,
  b: ReturnType<typeof readingsOf>,
  factor: (unit: Unit, id: string) => number = () => 1,
): void {
  for (const [id, one] of Object.entries(a.readings)) {
    const other = b.readings[id as keyof typeof b.readings];
    expect(isAbsent(other), id).toBe(isAbsent(one));
    if (isAbsent(one) || isAbsent(other)) continue;
    const value = other.value / factor(one.unit, id);
    expect(Math.abs(value - one.value), id).toBeLessThan(1e-6 * Math.max(1, Math.abs(one.value)));
  }
}

describe.each(['cross', 'lead-hook', 'round-kick'] as const)('a %s', (id) => {
  const track = trackOf(id);
  const plain = readingsOf(id, track);

  it('reads the same wherever it stands', () => {
    expectAlike(
      plain,
      readingsOf(
        id,
        moved(track, ([x, y, z]) => [x + 3, y + 0.4, z - 2]),
      ),
    );
  });

  it('reads the same whenever it is thrown; only the instants move', () => {
    const later = { ...track, frameTimes: track.frameTimes.map((t) => t + 5) };
    const shifted = readingsOf(id, later);
    expectAlike(plain, shifted);
    expect(shifted.events.contact!.time - plain.events.contact!.time).toBeCloseTo(5, 6);
  });

  it('a quarter larger has longer lengths and higher speeds by that, and the same times, angles and shares', () => {
    const large = readingsOf(
      id,
      moved(track, ([x, y, z]) => [1.25 * x, 1.25 * y, 1.25 * z], 1.25),
    );
    // Thresholds in metres (a heel that is up, a foot that has landed) do not scale; the instants of
    // the strike itself do not depend on them.
    for (const event of ['hips', 'trunk', 'contact'] as const) {
      expect(large.events[event]!.time).toBeCloseTo(plain.events[event]!.time, 2);
    }
    const ratio = (key: 'speed.contact' | 'separation.max') => {
      const [one, two] = [plain.readings[key], large.readings[key]];
      return isAbsent(one) || isAbsent(two) ? NaN : two.value / one.value;
    };
    // As near as before: contact is found with thresholds in metres.
    expect(Math.abs(ratio('speed.contact') / 1.25 - 1)).toBeLessThan(0.025);
    expect(ratio('separation.max')).toBeCloseTo(1, 2);
  });
});

it('turned about the vertical, with its target, a strike has the same turns, bends and lengths', () => {
  const track = trackOf('lead-hook');
  const [sin, cos] = [Math.sin(0.4), Math.cos(0.4)];
  const turned = moved(track, ([x, y, z]) => [x * cos - z * sin, y, x * sin + z * cos]);
  const [a, b] = [readingsOf('lead-hook', track), readingsOf('lead-hook', turned)];
  // A hook’s speed counts along its own path, so that no line to the target is asked for it.
  for (const id of [
    'turn.pelvis',
    'separation.max',
    'elbow.contact',
    'elbow.drift',
    'speed.contact',
    'share.trunk',
    'sink',
    'guard.chinRise',
  ] as const) {
    const [one, two] = [a.readings[id], b.readings[id]];
    if (isAbsent(one) || isAbsent(two)) throw new Error(id);
    // The noise is read off each axis by itself, and weighs the points: a tenth of σ for that.
    expect(Math.abs(two.value - one.value), id).toBeLessThan(Math.max(0.005, 0.1 * one.sigma));
  }
});

it('σ to first order and σ by 200 draws agree, and a seed gives the same draws twice', () => {
  const { technique, side } = truthOfStrike(clean('cross'));
  const given = {
    strike: { technique, side },
    track: knownTrack(clean('cross'), { rate: 240, noise: 0.002, seed: 3 }),
    marks: {},
    body: { mass: 70, height: 1.76 },
  };
  const plain = measure(given).readings;
  const drawn = measure({ ...given, draws: { count: 200, seed: 4 } }).readings;
  const again = measure({ ...given, draws: { count: 200, seed: 4 } }).readings;
  const ratios = (Object.keys(plain) as (keyof typeof plain)[]).flatMap((id) => {
    const [a, b] = [plain[id], drawn[id]];
    expect(again[id]).toEqual(b);
    return isAbsent(a) || isAbsent(b) || a.sigma === 0 ? [] : [b.sigma / a.sigma];
  });
  ratios.sort((a, b) => a - b);
  expect(ratios.length).toBeGreaterThan(70);
  expect(ratios[ratios.length >> 1]!).toBeGreaterThan(0.9);
  expect(ratios[ratios.length >> 1]!).toBeLessThan(1.1);
  const near = ratios.filter((ratio) => ratio > 0.75 && ratio < 1.35).length;
  expect(near / ratios.length).toBeGreaterThan(0.85);
});
