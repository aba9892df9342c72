/** Inches and pounds, held to published factors and to what the metric sentence says. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { INCHES, inchesFor, inInches } from '../src/foundation/reading/inches';
import type { UNITS } from '../src/foundation/reading/reading';
import { parts, say, unitsWith } from '../src/foundation/reading/say';

const UNITS_IN_INCHES = unitsWith(INCHES);
const reading = (value: number, sigma: number, unit: (typeof UNITS)[number]) =>
  ({ value, sigma, unit, source: 'measured-3d', frames: [] }) as const;

describe('inches and pounds', () => {
  // NIST SP 811, B.8: "to convert from … to …, multiply by …", turned round.
  it.each([
    ['cm', 'in', 1 / 2.54],
    ['m', 'ft', 1 / 0.3048],
    ['kg', 'lb', 1 / 0.4535924],
    ['m/s', 'mph', 1 / 0.44704],
    ['N', 'lbf', 1 / 4.448222],
    ['J', 'ft·lbf', 1 / 1.355818],
    ['m/s²', 'ft/s²', 1 / 0.3048],
  ] as const)('make %s to %s as published', (unit, other, factor) => {
    expect(inchesFor(unit).unit).toBe(other);
    expect(inchesFor(unit).factor / factor).toBeCloseTo(1, 6);
  });

  it.each([
    [
      'The guard hand leaves the chin by 12 ± 3 cm.',
      'The guard hand leaves the chin by 4.7 ± 1.2 in.',
    ],
    ['−4 ± 1 cm, and the limit is 6 cm.', '−1.6 ± 0.4 in, and the limit is 2.4 in.'],
    ['8.0 ± 0.4 m/s of 10.0 m/s', '17.9 ± 0.9 mph of 22.4 mph'],
    ['Height: 80 to 250 cm.', 'Height: 31.5 to 98.4 in.'],
    ['4 × 10 with 2 kg in the hand', '4 × 10 with 4 lb in the hand'],
    ['2–3 m away, 1.1 m high', '6.6–9.8 ft away, 3.6 ft high'],
    // Angles, times, shares and counts are the same everywhere.
    ['35 ± 3 ms, 12°, 84 %, in 3 of 5, 240 frames a second', null],
    ['m of 5 metres in the 3 main lanes', null],
  ])('say “%s”', (metric, told) => {
    expect(inInches(metric)).toBe(told ?? metric);
    expect(inInches(inInches(metric))).toBe(told ?? metric);
  });

  it('say of any reading what the sentence in centimetres says, but for its rounding', () => {
    const number = (text: string) => Number(text.replace('−', '-'));
    fc.assert(
      fc.property(
        fc.double({ min: -2, max: 2, noNaN: true }),
        fc.double({ min: 0.0005, max: 0.3, noNaN: true }),
        fc.constantFrom('m' as const, 'm/s' as const),
        (value, sigma, unit) => {
          const of = reading(value, sigma, unit);
          const told = inInches(say(of));
          const [, saidValue, saidSpread] = /^(−?[\d.]+) ± ([\d.]+) /u.exec(told)!;
          const right = parts(of, UNITS_IN_INCHES);
          // Half a centimetre, or half a tenth of a metre a second, is what the first sentence rounds away.
          const room = 0.2 + 0.06;
          expect(Math.abs(number(saidValue!) - number(right.value))).toBeLessThanOrEqual(room);
          expect(Math.abs(number(saidSpread!) - number(right.plusMinus))).toBeLessThanOrEqual(room);
          expect(told.endsWith(right.unit)).toBe(true);
        },
      ),
    );
  });
});
