/**
 * Days of the calendar as people write them, "2028-02-29", without clock or time zone: a week has
 * seven of them whatever the clocks do.
 */
import { Temporal } from 'temporal-polyfill';
import { z } from 'zod';

/** Year-month-day, proleptic Gregorian. */
export type Day = string;

/** Only as it is written: year, month and day with all their digits. */
const PATTERN = /^\d{4}-\d{2}-\d{2}$/;

/** @throws RangeError when there is no such day */
function dateOf(day: Day): Temporal.PlainDate {
  if (!PATTERN.test(day)) throw new RangeError(`no such day: ${day}`);
  return Temporal.PlainDate.from(day, { overflow: 'reject' });
}

const isLeap = (year: number) => year % 4 === 0 && (year % 100 !== 0 || year % 400 === 0);
const lengthOf = (year: number, month: number) =>
  month === 2 ? (isLeap(year) ? 29 : 28) : [4, 6, 9, 11].includes(month) ? 30 : 31;

/**
 * Days since 1970-01-01, in years that begin with March, so that the leap day comes last. Source:
 * H. Hinnant, chrono-compatible low-level date algorithms, `days_from_civil`. A ledger counts thousands
 * of days, and the calendar's own arithmetic takes a hundred times as long.
 *
 * @throws RangeError when there is no such day
 */
export function dayNumber(day: Day): number {
  const [year, month, date] = PATTERN.test(day) ? day.split('-').map(Number) : [];
  const isThere = month! >= 1 && month! <= 12 && date! >= 1 && date! <= lengthOf(year!, month!);
  if (!isThere) throw new RangeError(`no such day: ${day}`);
  const fromMarch = month! <= 2 ? year! - 1 : year!;
  const era = Math.floor(fromMarch / 400);
  const ofEra = fromMarch - 400 * era;
  const ofYear = Math.floor((153 * ((month! + 9) % 12) + 2) / 5) + date! - 1;
  const leapDays = Math.floor(ofEra / 4) - Math.floor(ofEra / 100);
  return 146_097 * era + 365 * ofEra + leapDays + ofYear - 719_468;
}

export const daySchema = z
  .string()
  .refine(isDay, 'Write the day as year-month-day.')
  .refine((day) => day >= '1900-01-01' && day <= '2200-01-01', 'This year cannot be meant.');

export function isDay(text: string): boolean {
  try {
    dayNumber(text);
    return true;
  } catch {
    return false;
  }
}

export function plusDays(day: Day, days: number): Day {
  return dateOf(day).add({ days }).toString();
}

/** Whole days from the first to the second; negative when it is earlier. */
export function daysBetween(from: Day, to: Day): number {
  return dayNumber(to) - dayNumber(from);
}

/** 0 is Monday, 6 is Sunday (ISO 8601). */
export function weekdayOf(day: Day): number {
  return dateOf(day).dayOfWeek - 1;
}

/** The Monday of the day's week. */
export function mondayOf(day: Day): Day {
  return plusDays(day, -weekdayOf(day));
}

export const WEEKDAYS = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'] as const;
const MONTHS = 'Jan Feb Mar Apr May Jun Jul Aug Sep Oct Nov Dec'.split(' ');

/** "Wed 25 Nov". */
export function shortDay(day: Day): string {
  const date = dateOf(day);
  return `${WEEKDAYS[date.dayOfWeek - 1]} ${date.day} ${MONTHS[date.month - 1]}`;
}

/** How far off a day is, in words: "today", "in 3 days", "2 days ago". */
export function awayInWords(day: Day, today: Day): string {
  const days = daysBetween(today, day);
  if (days === 0) return 'today';
  if (days === 1) return 'tomorrow';
  if (days === -1) return 'yesterday';
  return days > 0 ? `in ${days} days` : `${-days} days ago`;
}
