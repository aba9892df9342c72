/** The day in the gym: as the wall clock of this machine has it, not in Greenwich. */
import { shortDay, type Day } from '@sinew/core/calendar/day';

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
  const [year] = day.split('-');
  return today().startsWith(`${year}-`) ? shortDay(day) : `${shortDay(day)} ${year}`;
}

/** The day of an instant, as `pastDay` names it. */
export const pastTime = (instant: string): string => pastDay(dayIn(new Date(instant)));
