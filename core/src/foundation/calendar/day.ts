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
const DAY_MS = 86_400_000;

/** @throws RangeError when there is no such day */
function dateOf(day: Day): Temporal.PlainDate {
  if (!PATTERN.test(day)) throw new RangeError(`no such day: ${day}`);
  return Temporal.PlainDate.from(day, { overflow: 'reject' });
}

/**
 * Days since 1970-01-01. By the clock of UTC, which knows no summer time: a ledger counts thousands of
 * days, and the calendar's own arithmetic is a hundred times as slow.
 *
 * @throws RangeError when there is no such day
 */
export function dayNumber(day: Day): number {
  const time = PATTERN.test(day) ? Date.parse(`${day}T00:00Z`) : NaN;
  // The last days of a month that has fewer are taken for the first of the next.
  if (Number.isNaN(time) || new Date(time).getUTCDate() !== Number(day.slice(8))) {
    throw new RangeError(`no such day: ${day}`);
  }
  return time / DAY_MS;
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
