/**
 * Days of the calendar as people write them, "2028-02-29", without clock or time zone: a week has
 * seven of them whatever the clocks do.
 */
import { z } from 'zod';

/** Year-month-day, proleptic Gregorian. */
export type Day = string;

const PATTERN = /^(\d{4})-(\d{2})-(\d{2})$/;

const ERA_YEARS = 400;
const ERA_DAYS = 146_097;
/** Days from 0000-03-01 to 1970-01-01. */
const EPOCH = 719_468;

/**
 * Days since 1970-01-01. Years are counted from March, so that the leap day is their last.
 *
 * Source: H. Hinnant, "chrono-compatible low-level date algorithms", `days_from_civil`.
 *
 * @throws RangeError when there is no such day
 */
export function dayNumber(day: Day): number {
  const [, y, m, d] = (PATTERN.exec(day) ?? []).map(Number);
  if (!y || !m || !d || m > 12) throw new RangeError(`no such day: ${day}`);
  const year = m <= 2 ? y - 1 : y;
  const era = Math.floor(year / ERA_YEARS);
  const ofEra = year - era * ERA_YEARS;
  const ofYear = Math.floor((153 * ((m + 9) % 12) + 2) / 5) + d - 1;
  const inEra = ofEra * 365 + Math.floor(ofEra / 4) - Math.floor(ofEra / 100) + ofYear;
  const number = era * ERA_DAYS + inEra - EPOCH;
  if (dayOf(number) !== day) throw new RangeError(`no such day: ${day}`);
  return number;
}

/** The inverse of `dayNumber`. */
export function dayOf(number: number): Day {
  const days = number + EPOCH;
  const era = Math.floor(days / ERA_DAYS);
  const inEra = days - era * ERA_DAYS;
  const ofEra = Math.floor(
    (inEra -
      Math.floor(inEra / 1460) +
      Math.floor(inEra / 36_524) -
      Math.floor(inEra / (ERA_DAYS - 1))) /
      365,
  );
  const ofYear = inEra - (365 * ofEra + Math.floor(ofEra / 4) - Math.floor(ofEra / 100));
  const m = Math.floor((5 * ofYear + 2) / 153);
  const d = ofYear - Math.floor((153 * m + 2) / 5) + 1;
  const month = m < 10 ? m + 3 : m - 9;
  const year = ofEra + era * ERA_YEARS + (month <= 2 ? 1 : 0);
  const padded = (value: number, width: number) => String(value).padStart(width, '0');
  return `${padded(year, 4)}-${padded(month, 2)}-${padded(d, 2)}`;
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
  return dayOf(dayNumber(day) + days);
}

/** Whole days from the first to the second; negative when it is earlier. */
export function daysBetween(from: Day, to: Day): number {
  return dayNumber(to) - dayNumber(from);
}

/** 0 is Monday, 6 is Sunday (ISO 8601). */
export function weekdayOf(day: Day): number {
  const THURSDAY = 3; // 1970-01-01
  return (((dayNumber(day) + THURSDAY) % 7) + 7) % 7;
}

/** The Monday of the day's week. */
export function mondayOf(day: Day): Day {
  return plusDays(day, -weekdayOf(day));
}

export const WEEKDAYS = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'] as const;
const MONTHS = 'Jan Feb Mar Apr May Jun Jul Aug Sep Oct Nov Dec'.split(' ');

/** "Wed 25 Nov". */
export function shortDay(day: Day): string {
  const [, month, date] = day.split('-').map(Number);
  return `${WEEKDAYS[weekdayOf(day)]} ${date} ${MONTHS[month! - 1]}`;
}

/** How far off a day is, in words: "today", "in 3 days", "2 days ago". */
export function awayInWords(day: Day, today: Day): string {
  const days = daysBetween(today, day);
  if (days === 0) return 'today';
  if (days === 1) return 'tomorrow';
  if (days === -1) return 'yesterday';
  return days > 0 ? `in ${days} days` : `${-days} days ago`;
}
