/** How old somebody is, as birthdays are counted. */
import { isDay, type Day } from './day';

/** Under this age a guardian consents to filming, years. */
export const OF_AGE = 18;
/** Under this age there is no power work, years: growth plates are open. Common practice, no source. */
export const POWER_AGE = 16;

/**
 * The same day some years before. Who was born after it is not yet that old. Of 29 February in a year
 * without one it is a day that sorts behind the 28th and before 1 March, which is all that is asked.
 */
export function yearsBefore(day: Day, years: number): string {
  return `${String(Number(day.slice(0, 4)) - years).padStart(4, '0')}${day.slice(4)}`;
}

/**
 * Whole years from a birth to a day. Who was born on 29 February has the birthday on 1 March in years
 * without one.
 *
 * @throws RangeError when either is no day
 */
export function ageOn(born: Day, day: Day): number {
  if (!isDay(born) || !isDay(day)) throw new RangeError(`no such day: ${born}, ${day}`);
  const hadBirthday = day.slice(5) >= born.slice(5);
  return Number(day.slice(0, 4)) - Number(born.slice(0, 4)) - (hadBirthday ? 0 : 1);
}
