import { describe, expect, it } from 'vitest';
import {
  aimOf,
  bagImpulse,
  bagPeriod,
  impactSpeed,
  meanForce,
  perRound,
  rangeLeft,
  reachPair,
  throwLegs,
} from '../src/measure/measures/beyond';
import { isAbsent, type Measured } from '../src/foundation/reading/reading';

const q = (value: number, sigma = 0) => ({ value, sigma });
const read = (measured: Measured) => {
  if (isAbsent(measured)) throw new Error(measured.absent);
  return measured;
};

describe('a throw', () => {
  // Textbook ballistics: distance grows with v², so four times as far is twice as fast.
  it('tells what the legs add', () => {
    expect(read(throwLegs(q(8), q(2))).value).toBeCloseTo(1, 12);
    const { value, sigma } = read(throwLegs(q(6, 0.1), q(4, 0.1)));
    expect(value).toBeCloseTo(Math.sqrt(1.5) - 1, 12);
    expect(sigma).toBeCloseTo(Math.sqrt(1.5) * 0.5 * Math.hypot(0.1 / 6, 0.1 / 4), 4);
    expect(throwLegs(q(6), q(0))).toHaveProperty('absent');
  });
});

describe('a bag', () => {
  const point = { mass: q(40), length: q(0.0001), radius: 0, chain: 2 };
  const rod = { mass: q(30), length: q(1.2), radius: 0, chain: 0 };

  // A point mass on a string: v = √(2 g L (1 − cos θ)), J = m v.
  it('that is a point mass takes the impulse of its speed', () => {
    const speed = Math.sqrt(2 * 9.81 * 2 * (1 - Math.cos(0.3)));
    expect(read(bagImpulse(point, q(0.3), q(2))).value).toBeCloseTo(40 * speed, 2);
  });

  // A rod hung by its end: I = m L² / 3, period 2π √(2 L / 3 g).
  it('that is a rod swings and answers as a rod', () => {
    expect(read(bagPeriod(rod)).value).toBeCloseTo(2 * Math.PI * Math.sqrt(0.8 / 9.81), 9);
    const inertia = (30 * 1.2 ** 2) / 3;
    const rate = Math.sqrt((2 * 30 * 9.81 * 0.6 * (1 - Math.cos(0.25))) / inertia);
    expect(read(bagImpulse(rod, q(0.25), q(0.9))).value).toBeCloseTo((inertia * rate) / 0.9, 9);
  });

  it('is as unsure as what it was measured from', () => {
    const { sigma, value } = read(bagImpulse({ ...rod, mass: q(30, 3) }, q(0.25), q(0.9)));
    expect(sigma / value).toBeCloseTo(0.1, 6);
    expect(read(meanForce(q(30, 3), q(0.015))).value).toBeCloseTo(2000, 9);
    expect(bagImpulse(rod, q(0.2), q(0))).toHaveProperty('absent');
    expect(meanForce(q(30), q(0))).toHaveProperty('absent');
  });
});

describe('rounds', () => {
  it('that fall by the same step give that step', () => {
    const found = read(
      perRound(
        [1.02, 1, 0.98, 0.96].map((value) => q(value, 0.01)),
        'm',
      ),
    );
    expect(found.value).toBeCloseTo(-0.02, 12);
    // σ of a slope over 0, 1, 2, 3 with equal σ: σ / √5 (textbook regression).
    expect(found.sigma).toBeCloseTo(0.01 / Math.sqrt(5), 12);
  });

  it('that scatter more than they claim are less sure, and two are no trend', () => {
    const wild = read(
      perRound(
        [1, 1.2, 0.8, 1.1].map((value) => q(value, 0.01)),
        'm',
      ),
    );
    expect(wild.sigma).toBeGreaterThan(0.05);
    expect(perRound([q(1), q(2)], 'm')).toHaveProperty('absent');
  });
});

it('pairs, ranges and targets that come', () => {
  expect(read(reachPair(q(1.5, 0.02), q(1.5, 0.02))).value).toBe(1);
  expect(read(rangeLeft(q(1.2), q(0.9))).value).toBeCloseTo(0.3, 12);
  expect(read(impactSpeed(q(7, 0.3), q(-1, 0.4)))).toMatchObject({ value: 6 });
  expect(read(impactSpeed(q(7, 0.3), q(-1, 0.4))).sigma).toBeCloseTo(0.5, 9);
});

describe('aim', () => {
  const at = (x: number, y: number) => [q(x, 0.005), q(y, 0.005)] as const;

  it('parts a set that is off from one that is wide', () => {
    const off = aimOf([at(0.05, 0), at(0.05, 0.01), at(0.05, -0.01)], 0.04);
    if (isAbsent(off)) throw new Error(off.absent);
    expect(read(off.offset).value).toBeCloseTo(0.05, 9);
    expect(read(off.spread).value).toBeCloseTo(Math.sqrt(0.0002 / 3), 9);
    expect(read(off.inside).value).toBe(0);
    expect(read(off.inside).sigma).toBeGreaterThan(0.1);
    expect(aimOf([at(0, 0)], 0.04)).toHaveProperty('absent');
  });
});
