/**
 * How this gym writes measures and days. One setting for the whole program, as a program has one language:
 * whatever anybody reads goes through here, and nothing that is kept, exported or judged does.
 */
import { z } from 'zod';
import { shortDay as dayFirst, type Day } from '@sinew/core/foundation/calendar/day';
import {
  INCHES,
  inchesFor,
  inInches,
  type WrittenUnit,
} from '@sinew/core/foundation/reading/inches';
import type { Reading, Unit } from '@sinew/core/foundation/reading/reading';
import * as metric from '@sinew/core/foundation/reading/say';

export const MEASURES = { metric: 'centimetres, kilograms', inches: 'inches, pounds' } as const;
export const DAY_ORDERS = { 'day-first': '25 Nov 2026', 'month-first': 'Nov 25, 2026' } as const;

export const mannerSchema = z.object({
  measures: z.enum(['metric', 'inches']),
  days: z.enum(['day-first', 'month-first']),
});

export type Manner = z.infer<typeof mannerSchema>;

export const USUAL_MANNER: Manner = { measures: 'metric', days: 'day-first' };

const shared = globalThis as { sinewManner?: Manner };

/** On the server as it was last set there; in a browser as the page came. */
export function manner(): Manner {
  if (typeof document === 'undefined') return shared.sinewManner ?? USUAL_MANNER;
  const { measures, days } = document.documentElement.dataset;
  return mannerSchema.safeParse({ measures, days }).data ?? USUAL_MANNER;
}

/** For the server, which has one gym. */
export function setManner(wanted: Manner): void {
  shared.sinewManner = wanted;
}

const UNITS = { metric: metric.unitsWith({}), inches: metric.unitsWith(INCHES) };
const units = () => UNITS[manner().measures];

export const say = (reading: Reading): string => metric.say(reading, units());
export const parts = (reading: Reading) => metric.parts(reading, units());
export const quantity = (value: number, unit: Unit): string =>
  metric.quantity(value, unit, units());
export const toScreen = (unit: Unit) => metric.toScreen(unit, units());

const DAY = /\b(\d{1,2}) (Jan|Feb|Mar|Apr|May|Jun|Jul|Aug|Sep|Oct|Nov|Dec)\b( \d{4}\b)?/g;

/** A sentence of Sinew's, with centimetres and the day first in it, as this gym reads it. */
export function inManner(sentence: string): string {
  const { measures, days } = manner();
  const told = measures === 'inches' ? inInches(sentence) : sentence;
  if (days === 'day-first') return told;
  return told.replace(DAY, (_, day: string, month: string, year: string | undefined) =>
    [`${month} ${day}`, year].filter(Boolean).join(','),
  );
}

/** "Wed 25 Nov", or as the gym writes it. */
export const shortDay = (day: Day): string => inManner(dayFirst(day));

/** "Wed 25 Nov 2026": for what is kept on paper. */
export const wholeDay = (day: Day): string => inManner(`${dayFirst(day)} ${day.slice(0, 4)}`);

/** An instant, ISO 8601, by the wall clock: "25 Nov 2026, 14:30". */
export function instant(at: string): string {
  const order = manner().days === 'month-first' ? 'en-US' : 'en-GB';
  return new Date(at).toLocaleString(order, { dateStyle: 'medium', timeStyle: 'short' });
}

/** A number that somebody types, in the unit in which this gym measures it. */
export interface FieldUnit {
  /** To stand beside the field. */
  readonly unit: string;
  /** What is kept, as it stands in the field; fine enough that it comes back the same. */
  shown(kept: number): string;
  /** What was typed, in the metric unit, to four digits. */
  kept(typed: number): number;
}

/** @param unit the metric one, in which it is kept */
export function fieldUnit(unit: WrittenUnit): FieldUnit {
  const other = manner().measures === 'inches' ? inchesFor(unit) : null;
  const factor = other?.factor ?? 1;
  return {
    unit: other?.unit ?? unit,
    shown: (kept) => String(Number((kept * factor).toFixed(other ? 2 : 3))),
    kept: (typed) => (other ? Number((typed / factor).toPrecision(4)) : typed),
  };
}

type Texts = Readonly<Record<string, string>>;
type Fields = Readonly<Record<string, WrittenUnit>>;

function each(values: Texts, fields: Fields, by: (of: FieldUnit, value: number) => string): Texts {
  const changed = Object.entries(fields).flatMap(([name, unit]) => {
    const text = values[name]?.trim().replace(',', '.') ?? '';
    // What is no number stays as it is, for whoever says so.
    return text === '' || Number.isNaN(Number(text))
      ? []
      : [[name, by(fieldUnit(unit), Number(text))] as const];
  });
  return { ...values, ...Object.fromEntries(changed) };
}

/** Texts of a form as they are kept, in this gym's units. */
export const asShown = (values: Texts, fields: Fields): Texts =>
  each(values, fields, (of, value) => of.shown(value));

/** Texts of a form as they were typed in this gym's units, in those in which they are kept. */
export const asKept = (values: Texts, fields: Fields): Texts =>
  each(values, fields, (of, value) => String(of.kept(value)));
