/**
 * How much a student strikes in a week, against the four weeks before.
 *
 * Growth by about a fifth a week is the plan, a jump of more than 30 % is flagged: Sinew's own cautions,
 * no medical rule.
 */
import { mean } from 'd3-array';
import { daysBetween, mondayOf, plusDays, type Day } from '../../foundation/calendar/day';

export const JUMP = 1.3;
/** This week's plan ÷ the usual week, at most. */
export const GROWTH = 1.2;
const WEEKS_BEFORE = 4;

export interface StrikesOnDay {
  readonly day: Day;
  readonly strikes: number;
  readonly isPower: boolean;
}

export interface Week {
  readonly monday: Day;
  readonly strikes: number;
  /** Of these at full power. */
  readonly power: number;
}

export interface Load {
  /** Mean of the weeks before; null in a student's first week. */
  readonly usual: number | null;
  /** This week ÷ `usual`; null where that is not known or 0, as after a month without work. */
  readonly ratio: number | null;
  readonly isJump: boolean;
}

export interface Volume {
  /** The last four weeks and this one, oldest first. */
  readonly weeks: readonly Week[];
  readonly all: Load;
  readonly power: Load;
}

/** @param log any order; days to come are left out */
export function volumeOf(log: readonly StrikesOnDay[], today: Day): Volume {
  const past = log.filter(({ day }) => daysBetween(day, today) >= 0);
  const current = mondayOf(today);
  const weeks = Array.from({ length: WEEKS_BEFORE + 1 }, (_, i): Week => {
    const monday = plusDays(current, 7 * (i - WEEKS_BEFORE));
    const own = past.filter(({ day }) => mondayOf(day) === monday);
    const sum = (some: readonly StrikesOnDay[]) => some.reduce((n, one) => n + one.strikes, 0);
    return { monday, strikes: sum(own), power: sum(own.filter(({ isPower }) => isPower)) };
  });
  const first = past.map(({ day }) => mondayOf(day)).sort()[0];
  // Weeks before a student's first are no weeks of rest.
  const before = weeks.slice(0, -1).filter(({ monday }) => first !== undefined && monday >= first);
  const now = weeks[weeks.length - 1]!;
  return {
    weeks,
    all: loadOf(
      before.map(({ strikes }) => strikes),
      now.strikes,
    ),
    power: loadOf(
      before.map(({ power }) => power),
      now.power,
    ),
  };
}

function loadOf(before: readonly number[], now: number): Load {
  const usual = mean(before) ?? null;
  if (usual === null || usual === 0) return { usual, ratio: null, isJump: false };
  return { usual, ratio: now / usual, isJump: now > JUMP * usual };
}
