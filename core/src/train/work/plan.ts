/** A block of weeks toward a date: which session on which day, and when to film again. */
import { refused } from '../../foundation/problem/problem';
import {
  daysBetween,
  mondayOf,
  plusDays,
  weekdayOf,
  type Day,
} from '../../foundation/calendar/day';
import { CHECK_DAYS } from './prescription';

export interface Planned {
  readonly day: Day;
  readonly kind: 'session' | 'retest';
  /** A session's id; null for a retest. */
  readonly session: string | null;
  readonly title: string;
}

export interface BlockWish {
  readonly from: Day;
  /** The day it is all for; nothing is planned on it. */
  readonly target: Day;
  /** 0 is Monday. */
  readonly weekdays: readonly number[];
}

/** The longest block that is planned at once, days. */
export const LONGEST = 26 * 7;
/** No power in the days before the target, and the last film before it. */
const FRESH = 3;
/** Days from one power day to the next, at least. */
const POWER_APART = 5;
const NAMES = { 'slow-day': 'Slow day', 'speed-day': 'Speed day', 'power-day': 'Power day' };

/**
 * A week of slow days first; from the second week on every week begins slow and ends with power, what
 * lies between is for speed; no power in the last days, a film of everybody at the end of every week
 * and once before the target.
 *
 * Source: Sinew's own.
 *
 * @throws Problem
 */
export function blockOf({ from, target, weekdays }: BlockWish): Planned[] {
  const length = daysBetween(from, target);
  if (length <= 0) throw refused('The day it is all for must come after the first day.');
  if (length > LONGEST) throw refused('A block is 26 weeks at most.', 'Plan it in two.');
  if (weekdays.length === 0) throw refused('Choose the days on which the class meets.');
  const days = Array.from({ length }, (_, i) => plusDays(from, i)).filter((day) =>
    weekdays.includes(weekdayOf(day)),
  );
  const first = mondayOf(from);
  let lastPower: Day | null = null;
  return days.flatMap((day, i): Planned[] => {
    const isFirstWeek = mondayOf(day) === first;
    const isFirstOfWeek = i === 0 || mondayOf(days[i - 1]!) !== mondayOf(day);
    const isLastOfWeek = days[i + 1] === undefined || mondayOf(days[i + 1]!) !== mondayOf(day);
    const isRested = lastPower === null || daysBetween(lastPower, day) >= POWER_APART;
    const isPower = isLastOfWeek && !isFirstWeek && daysBetween(day, target) > FRESH && isRested;
    if (isPower) lastPower = day;
    const kind = isPower ? 'power-day' : isFirstWeek || isFirstOfWeek ? 'slow-day' : 'speed-day';
    const session: Planned = { day, kind: 'session', session: kind, title: NAMES[kind] };
    const isFilmed = isLastOfWeek && daysBetween(from, day) >= CHECK_DAYS - 1;
    const isLastFilm = days[i + 1] === undefined;
    return isFilmed || isLastFilm
      ? [{ day, kind: 'retest', session: null, title: 'Film again' }, session]
      : [session];
  });
}

/** What waits for a student, for the order in which the coach walks the floor. */
export interface Waiting {
  readonly name: string;
  /** Something that can hurt is not cleared. */
  readonly isHurting: boolean;
  /** Days until the next check; negative when overdue, null without one. */
  readonly checkIn: number | null;
  readonly unmarked: number;
  /** Has work to do without the coach. */
  readonly hasWork: boolean;
}

/**
 * Who can hurt themselves first, then who is due (longest first), then who has nothing to do, then
 * films to be marked, then the rest by name.
 */
export function walkOrder<T extends Waiting>(students: readonly T[]): T[] {
  const rank = ({ isHurting, checkIn, hasWork, unmarked }: Waiting) => {
    if (isHurting) return 0;
    if (checkIn !== null && checkIn <= 0) return 1;
    if (!hasWork) return 2;
    return unmarked > 0 ? 3 : 4;
  };
  return [...students].sort(
    (a, b) =>
      rank(a) - rank(b) ||
      (rank(a) === 1 ? a.checkIn! - b.checkIn! : 0) ||
      a.name.localeCompare(b.name, 'en'),
  );
}

/** Days that have power too soon after the power day before them: once a week, never two days running. */
export function powerTooSoon(powerDays: readonly Day[]): ReadonlySet<Day> {
  const sorted = [...new Set(powerDays)].sort();
  return new Set(
    sorted.filter((day, i) => i > 0 && daysBetween(sorted[i - 1]!, day) < POWER_APART),
  );
}
