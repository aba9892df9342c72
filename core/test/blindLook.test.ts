/** What the coach's eye, whose sureness its own answers tell, adds to a measured lead. */
import { describe, expect, it } from 'vitest';
import {
  eyeError,
  leadSeen,
  NO_LOOKS,
  type Look,
  type OrderSeen,
} from '../src/judge/eye/blindLook';
import {
  absent,
  halfWidth,
  isAbsent,
  reading,
  type Measured,
  type Reading,
} from '../src/foundation/reading/reading';
import { normals, seeded } from '../src/foundation/uncertainty/random';

const looks = (...says: OrderSeen[]): Look[] =>
  says.map((one, i) => ({ says: one, slowed: ([4, 8, 16] as const)[i % 3]! }));
const measured = (value: number, sigma: number): Measured =>
  reading(value, 's', sigma, 'measured-2d', [10]);
const read = (one: Measured): Reading => {
  if (isAbsent(one)) throw new Error(one.absent);
  return one;
};
const NOT_SEEN = absent('This view does not show it.');

describe('an eye', () => {
  it('that has not looked, or could not see, changes nothing', () => {
    const lead = measured(0.03, 0.02);
    expect(leadSeen(lead, NO_LOOKS)).toBe(lead);
    expect(leadSeen(lead, { own: looks('unseen', 'unseen'), others: [] })).toBe(lead);
    expect(leadSeen(NOT_SEEN, NO_LOOKS)).toBe(NOT_SEEN);
    const marked = measured(0, 0.0015);
    expect(leadSeen(marked, { own: looks('hips', 'hips'), others: [] })).toBe(marked);
  });

  it('makes a measurement surer that it agrees with, and moves one toward what it saw', () => {
    const lead = measured(0.03, 0.03);
    const agreed = read(leadSeen(lead, { own: looks('hips', 'hips', 'hips'), others: [] }));
    expect(agreed.sigma).toBeLessThan(0.026);
    expect(agreed.value).toBeGreaterThan(0.03);
    expect(agreed.source).toBe('measured-2d');
    const against = read(leadSeen(lead, { own: looks('trunk', 'trunk', 'trunk'), others: [] }));
    expect(against.value).toBeLessThan(0.012);
  });

  it('moves what is measured well by less than its own σ', () => {
    const against = leadSeen(measured(0.05, 0.006), { own: looks('trunk', 'trunk'), others: [] });
    expect(read(against).value).toBeGreaterThan(0.05 - 0.006);
  });

  it('tells a lead that no film does, and says that it is the eye’s', () => {
    const lead = read(leadSeen(NOT_SEEN, { own: looks('hips', 'hips', 'hips'), others: [] }));
    expect(lead.source).toBe('eye');
    expect(lead.value).toBeGreaterThan(0.03);
    expect(halfWidth(lead)).toBeGreaterThan(0.03);
  });

  it('counts for less when its answers do not hold, here or on other strikes', () => {
    const own = looks('hips', 'hips', 'hips');
    const steady = {
      own,
      others: [looks('trunk', 'trunk', 'trunk'), looks('hips', 'hips', 'hips')],
    };
    const fickle = {
      own,
      others: [looks('trunk', 'hips', 'trunk'), looks('hips', 'trunk', 'hips')],
    };
    expect(eyeError({ own: looks('hips'), others: [] })).toBeNull();
    expect(eyeError(steady)!).toBeLessThan(0.6 * eyeError(fickle)!);
    const lead = measured(0.01, 0.03);
    expect(read(leadSeen(lead, steady)).value).toBeGreaterThan(read(leadSeen(lead, fickle)).value);
    expect(read(leadSeen(lead, steady)).sigma).toBeLessThan(read(leadSeen(lead, fickle)).sigma);
  });

  it('of a strike that has no such order says nothing', () => {
    const none = { absent: 'This strike has no such reading.', isNotApplicable: true } as const;
    expect(leadSeen(none, { own: looks('hips'), others: [] })).toBe(none);
  });
});

/** A coach whose looks are off as the model has it, or wholly anew at every look. */
function looksOf(lead: number, error: number, kept: number, deviate: () => number): Look[] {
  const strike = lead + error * Math.sqrt(kept) * deviate();
  return looks(
    ...Array.from({ length: 3 }, (): OrderSeen => {
      const seen = strike + error * Math.sqrt(1 - kept) * deviate();
      return seen > 0.012 ? 'hips' : seen < -0.012 ? 'trunk' : 'together';
    }),
  );
}

// Eyes that are sharp and dull; whose mistakes stay with the strike as the model has it, less, and more.
it.each([
  [0.015, 0.5],
  [0.04, 0.5],
  [0.09, 0.5],
  [0.04, 0],
  [0.03, 0.8],
])('off by %d s, of which %d stays with the strike: the truth lies within ±', (error, kept) => {
  const deviate = normals(seeded(7));
  let [inside, surer] = [0, 0];
  const STRIKES = 200;
  for (let i = 0; i < STRIKES; i++) {
    const leadOf = () => 0.02 + 0.035 * deviate();
    const lead = leadOf();
    const others = Array.from({ length: 6 }, () => looksOf(leadOf(), error, kept, deviate));
    const film = measured(lead + 0.03 * deviate(), 0.03);
    const seen = read(leadSeen(film, { own: looksOf(lead, error, kept, deviate), others }));
    if (Math.abs(seen.value - lead) <= halfWidth(seen)) inside += 1;
    if (seen.sigma < 0.03) surer += 1;
  }
  // 95 of 100; 90 and more in 99 of 100 such tests.
  expect(inside / STRIKES).toBeGreaterThanOrEqual(0.9);
  expect(surer / STRIKES).toBeGreaterThan(0.9);
});
