/**
 * Inches and pounds, for gyms that think in them. Everything is measured, kept and judged in metres and
 * kilograms; this is the last step before somebody reads it.
 *
 * Factors: NIST Special Publication 811, appendix B (inch, foot, mile and pound are exact by definition).
 */
import type { Shown, Unit } from './reading';

const INCH = 0.0254;
const FOOT = 0.3048;
const MILE = 1609.344;
const POUND = 0.45359237;
const POUND_FORCE = 4.4482216152605;

/** What stands behind a number in a sentence or beside a field. */
const WRITTEN = {
  mm: { factor: 0.001 / INCH, unit: 'in', digits: 2 },
  cm: { factor: 0.01 / INCH, unit: 'in', digits: 1 },
  m: { factor: 1 / FOOT, unit: 'ft', digits: 1 },
  'cm/s': { factor: 36 / MILE, unit: 'mph', digits: 1 },
  'm/s': { factor: 3600 / MILE, unit: 'mph', digits: 1 },
  'm/s²': { factor: 1 / FOOT, unit: 'ft/s²', digits: 0 },
  kg: { factor: 1 / POUND, unit: 'lb', digits: 0 },
  'N·s': { factor: 1 / POUND_FORCE, unit: 'lbf·s', digits: 1 },
  N: { factor: 1 / POUND_FORCE, unit: 'lbf', digits: 0 },
  J: { factor: 1 / (FOOT * POUND_FORCE), unit: 'ft·lbf', digits: 0 },
} as const;

export type WrittenUnit = keyof typeof WRITTEN;

const shown = (unit: WrittenUnit, times = 1): Shown => ({
  factor: WRITTEN[unit].factor * times,
  suffix: ` ${WRITTEN[unit].unit}`,
  digits: WRITTEN[unit].digits,
});

/** How readings are shown in inches, as `say` shows them in centimetres. */
export const INCHES: Partial<Record<Unit, Shown>> = {
  m: shown('cm', 100),
  'm/s': shown('m/s'),
  'm/s²': shown('m/s²'),
  'N·s': shown('N·s'),
  N: shown('N'),
  J: shown('J'),
};

/** The unit that takes the place of a metric one, and how many of it are one of those. */
export function inchesFor(unit: WrittenUnit): { readonly unit: string; readonly factor: number } {
  return WRITTEN[unit];
}

const NUMBER = String.raw`−?\d+(?:\.\d+)?`;
const UNIT = ['cm/s', 'cm', 'mm', 'm/s²', 'm/s', 'N·s', 'N', 'J', 'kg', 'm'].join('|');
const QUANTITY = new RegExp(
  String.raw`(?<![\w.])(?:(${NUMBER})( ± |–| to ))?(${NUMBER}) (${UNIT})(?![\w²·/])`,
  'gu',
);

/**
 * A sentence with every length, mass, speed and force in it said in inches and pounds: "4 ± 1 cm" is
 * "1.6 ± 0.4 in". Said twice it is the same.
 */
export function inInches(sentence: string): string {
  return sentence.replace(
    QUANTITY,
    (_, first: string | undefined, between: string | undefined, last: string, of: WrittenUnit) => {
      const { factor, unit, digits } = WRITTEN[of];
      const spread = between === ' ± ' ? Number(last) * factor : Infinity;
      const places = spread > 0 && spread < 0.95 ? Math.max(digits, 1) : digits;
      const told = (text: string) => {
        const value = Number(text.replace('−', '-')) * factor;
        const rounded = Math.abs(value).toFixed(places);
        return value < 0 && Number(rounded) !== 0 ? `−${rounded}` : rounded;
      };
      return `${first === undefined ? '' : told(first) + between}${told(last)} ${unit}`;
    },
  );
}
