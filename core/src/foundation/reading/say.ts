/** Readings in the words and units of the mat: degrees, centimetres, milliseconds, per cent. */
import { halfWidth, type Reading, type Shown, type Unit } from './reading';

type Units = Readonly<Record<Unit, Shown>>;

const METRIC: Units = {
  s: { factor: 1000, suffix: ' ms', digits: 0 },
  m: { factor: 100, suffix: ' cm', digits: 0 },
  'm/s': { factor: 1, suffix: ' m/s', digits: 1 },
  'm/s²': { factor: 1, suffix: ' m/s²', digits: 0 },
  'N·s': { factor: 1, suffix: ' N·s', digits: 1 },
  N: { factor: 1, suffix: ' N', digits: 0 },
  J: { factor: 1, suffix: ' J', digits: 0 },
  rad: { factor: 180 / Math.PI, suffix: '°', digits: 0 },
  ratio: { factor: 100, suffix: ' %', digits: 0 },
};

/** Those for whom another unit is named; the others as ever. */
export const unitsWith = (others: Partial<Units>): Units => ({ ...METRIC, ...others });

function fixed(value: number, digits: number): string {
  const text = Math.abs(value).toFixed(digits);
  const isZero = Number(text) === 0;
  return value < 0 && !isZero ? `−${text}` : text;
}

/** How a unit is shown: a value times `factor`, with `suffix`. */
export function toScreen(unit: Unit, units = METRIC): Shown {
  return units[unit];
}

/** A plain value in a screen unit, e.g. `quantity(0.02, 's')` is "20 ms". */
export function quantity(value: number, unit: Unit, units = METRIC): string {
  const { factor, suffix, digits } = units[unit];
  return fixed(value * factor, digits) + suffix;
}

/** Value and 95 % half-width in parts, for a table with aligned columns. */
export function parts(
  reading: Reading,
  units = METRIC,
): { value: string; plusMinus: string; unit: string } {
  const { factor, suffix, digits } = units[reading.unit];
  const spread = halfWidth(reading) * factor;
  const shownDigits = spread > 0 && spread < 0.95 ? Math.max(digits, 1) : digits;
  return {
    value: fixed(reading.value * factor, shownDigits),
    plusMinus: fixed(spread, shownDigits),
    unit: suffix.trim(),
  };
}

/** A reading with its 95 % half-width, e.g. "35 ± 3 ms". */
export function say(reading: Reading, units = METRIC): string {
  const { value, plusMinus, unit } = parts(reading, units);
  return `${value} ± ${plusMinus}${unit === '°' ? '' : ' '}${unit}`;
}

/** A time difference as an order of two happenings, e.g. "35 ± 3 ms after". */
export function sayOrder(lead: Reading): string {
  const { value, plusMinus } = parts({ ...lead, value: Math.abs(lead.value) });
  if (Number(value) === 0) return `within ${plusMinus} ms of`;
  return `${value} ± ${plusMinus} ms ${lead.value < 0 ? 'before' : 'after'}`;
}
