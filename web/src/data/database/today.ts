/** The day in the gym: as the wall clock of this machine has it, not in Greenwich. */
import type { Day } from '@sinew/core/foundation/calendar/day';
import { shortDay, wholeDay } from '../../manner/manner';

/** Milliseconds of a day, leap seconds and changes of the clock aside. */
export const DAY_MS = 86_400_000;

export function dayIn(date: Date): Day {
  const padded = (value: number, width = 2) => String(value).padStart(width, '0');
  const [year, month, day] = [date.getFullYear(), date.getMonth() + 1, date.getDate()];
  return `${padded(year, 4)}-${padded(month)}-${padded(day)}`;
}

export function today(): Day {
  return dayIn(new Date());
}

/** "Wed 25 Nov", and the year where it is not this one. */
export function pastDay(day: Day): string {
  return today().slice(0, 4) === day.slice(0, 4) ? shortDay(day) : wholeDay(day);
}

/** The day of an instant, as `pastDay` names it. */
export const pastTime = (instant: string): string => pastDay(dayIn(new Date(instant)));
