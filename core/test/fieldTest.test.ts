/** Tests with a tape, a scale and a bag, from what is written down to what is read off. */
import { describe, expect, it } from 'vitest';
import { isAbsent } from '../src/foundation/reading/reading';
import {
  fieldTestProblem,
  fieldTestSchema,
  resultsOf,
  type FieldTest,
} from '../src/train/progress/fieldTest';

const exactly = (value: number) => ({ value, plusMinus: 0 });
const first = (test: FieldTest) => {
  const { measured } = resultsOf(test)[0]!;
  if (isAbsent(measured)) throw new Error(measured.absent);
  return measured;
};

describe('a throw', () => {
  it('four times as far is twice as fast (range of a projectile, textbook mechanics)', () => {
    const test = { kind: 'throw', standing: exactly(8), seated: exactly(2) } as const;
    expect(first(test).value).toBeCloseTo(1, 12);
  });

  it('that goes farther seated is asked about', () => {
    const test = { kind: 'throw', standing: exactly(5), seated: exactly(5.2) } as const;
    expect(fieldTestProblem(test)).toMatch(/are the two swapped\?$/);
    expect(fieldTestProblem({ ...test, seated: exactly(4.9) })).toBeNull();
  });

  it('is as sure as the tape: ± to first order', () => {
    const test: FieldTest = {
      kind: 'throw',
      standing: { value: 7.4, plusMinus: 0.1 },
      seated: { value: 5.2, plusMinus: 0.1 },
    };
    const relative = 0.5 * Math.hypot(0.1 / 7.4, 0.1 / 5.2);
    expect(1.96 * first(test).sigma).toBeCloseTo(relative * Math.sqrt(7.4 / 5.2), 4);
  });
});

describe('a bag', () => {
  const bag = {
    kind: 'bag',
    mass: exactly(35),
    length: exactly(1.1),
    radius: 0.18,
    chain: 0.5,
    below: exactly(1.1),
    swing: exactly(20),
    contact: exactly(20),
  } as const;

  it('gives back the closed form of a compound pendulum (energy, then moment about the hook)', () => {
    const centre = 0.5 + 0.55;
    const inertia = 35 * (1.1 ** 2 / 12 + 0.18 ** 2 / 4) + 35 * centre ** 2;
    const rise = centre * (1 - Math.cos((20 * Math.PI) / 180));
    const impulse = (inertia * Math.sqrt((2 * 35 * 9.81 * rise) / inertia)) / 1.1;
    const [pushed, force, period] = resultsOf(bag).map(({ measured }) =>
      isAbsent(measured) ? Number.NaN : measured.value,
    );
    // The two standard gravities, 9.81 and 9.80665, differ by 3 in 10 000.
    expect(pushed! / impulse).toBeCloseTo(1, 3);
    expect(force! / (impulse / 0.02)).toBeCloseTo(1, 3);
    expect(period! / (2 * Math.PI * Math.sqrt(inertia / (35 * 9.81 * centre)))).toBeCloseTo(1, 3);
  });

  it('without the time of contact has an impulse and says why there is no force', () => {
    const [impulse, force] = resultsOf({ ...bag, contact: null });
    expect(impulse!.text).toMatch(/^\d+\.\d ± 0\.0 N·s$/);
    expect(force!.text).toBe('How long the fist stays on the bag is not known.');
  });

  it.each([
    { mass: exactly(0) },
    { swing: exactly(120) },
    { below: exactly(-1) },
    { mass: { value: 30, plusMinus: -1 } },
    { swing: { value: Number.NaN, plusMinus: 0 } },
  ])('refuses %j', (change) => {
    expect(fieldTestSchema.safeParse({ ...bag, ...change }).success).toBe(false);
  });
});

it('a ladder names the form that serves at each distance, or those that cannot be told apart', () => {
  const rung = (distance: number, form: string, value: number) => ({
    distance,
    form,
    speed: { value, plusMinus: 0.5 },
  });
  const results = resultsOf({
    kind: 'ladder',
    rungs: [
      rung(0.5, 'elbow-round', 9),
      rung(0.5, 'cross', 4),
      rung(0.9, 'cross', 8),
      rung(0.9, 'rear-hook', 7.8),
    ],
  });
  expect(results.map(({ name, text }) => `${name}: ${text}`)).toEqual([
    'At 50 cm: Round elbow',
    'At 90 cm: Cross or Rear hook, which cannot be told apart',
  ]);
});

describe('a set on a pad', () => {
  const aim = (points: readonly (readonly [number, number])[], plusMinus = 0): FieldTest => ({
    kind: 'aim',
    aim: 'chin',
    points: points.map(([across, up]) => ({ across: across / 100, up: up / 100 })),
    plusMinus,
  });
  const values = (test: FieldTest) =>
    resultsOf(test).map(({ measured }) => (isAbsent(measured) ? null : measured.value));

  it('has its share inside, its middle and its spread (by hand: a square of 2 cm about 3 and 0)', () => {
    const [inside, off, spread] = values(
      aim([
        [2, 1],
        [4, 1],
        [2, -1],
        [4, -1],
      ]),
    );
    // Inside 4 cm: √5 is, √17 is not.
    expect(inside).toBe(0.5);
    expect(off).toBeCloseTo(0.03, 12);
    expect(spread).toBeCloseTo(Math.SQRT2 / 100, 12);
  });

  it('is no surer than the taps', () => {
    const [, , spread] = resultsOf(
      aim(
        [
          [0, 0],
          [6, 0],
          [-6, 0],
        ] as const,
        0.02,
      ),
    );
    if (isAbsent(spread!.measured)) throw new Error('absent');
    expect(spread!.measured.sigma).toBeGreaterThan(0.003);
  });

  it('of two strikes, or off the board, is none', () => {
    expect(
      fieldTestSchema.safeParse(
        aim([
          [0, 0],
          [1, 1],
        ] as const),
      ).success,
    ).toBe(false);
    expect(
      fieldTestSchema.safeParse(
        aim([
          [0, 0],
          [1, 1],
          [26, 0],
        ] as const),
      ).success,
    ).toBe(false);
  });
});

describe('range, reach and a target that moves', () => {
  it('the turn left over is the difference, with the ± of both', () => {
    const test: FieldTest = {
      kind: 'range',
      free: { value: 80, plusMinus: 3 },
      used: { value: 65, plusMinus: 4 },
    };
    const { value, sigma } = first(test);
    expect(value).toBeCloseTo((15 * Math.PI) / 180, 12);
    expect(1.96 * sigma).toBeCloseTo((5 * Math.PI) / 180, 9);
    expect(fieldTestProblem(test)).toBeNull();
    expect(fieldTestProblem({ ...test, used: exactly(90) })).toMatch(/turn slowly/);
  });

  it('the rear hand’s reach is a share of the lead hand’s', () => {
    expect(first({ kind: 'pair', rear: exactly(1.32), lead: exactly(1.2) }).value).toBeCloseTo(
      1.1,
      12,
    );
  });

  it('a pad that comes 6 cm in 40 ms adds 1.5 m/s, one that goes takes them away', () => {
    const meeting = (way: number): FieldTest => ({
      kind: 'closing',
      strike: exactly(8),
      way: { value: way, plusMinus: 0.01 },
      time: exactly(0.04),
    });
    expect(first(meeting(0.06)).value).toBeCloseTo(9.5, 12);
    expect(first(meeting(-0.06)).value).toBeCloseTo(6.5, 12);
    expect(1.96 * first(meeting(0.06)).sigma).toBeCloseTo(0.25, 9);
  });
});
