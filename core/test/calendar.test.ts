/** Days of the calendar, against JavaScript's own and against facts. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  awayInWords,
  dayNumber,
  daysBetween,
  isDay,
  mondayOf,
  plusDays,
  shortDay,
  weekdayOf,
} from '../src/foundation/calendar/day';

const anyDay = fc
  .integer({ min: -25_000, max: 84_000 })
  .map((days) => plusDays('1970-01-01', days));
const utc = (day: string) => new Date(`${day}T00:00:00Z`);

describe('a day of the calendar', () => {
  it('is the same number and weekday as in JavaScript’s calendar (ECMA-262)', () => {
    fc.assert(
      fc.property(anyDay, (day) => {
        expect(dayNumber(day)).toBe(utc(day).getTime() / 86_400_000);
        // Temporal's own arithmetic, which `plusDays` goes by, comes to the same (ECMA-262, Temporal).
        expect(plusDays('1970-01-01', dayNumber(day))).toBe(day);
        expect(weekdayOf(day)).toBe((utc(day).getUTCDay() + 6) % 7);
        expect(plusDays('1970-01-01', dayNumber(day))).toBe(day);
      }),
    );
  });

  it('knows leap days (Gregorian reform: 1900 and 2100 have none, 2000 and 2028 have one)', () => {
    expect(plusDays('2028-02-28', 1)).toBe('2028-02-29');
    expect(plusDays('2000-02-28', 1)).toBe('2000-02-29');
    expect(plusDays('1900-02-28', 1)).toBe('1900-03-01');
    expect(isDay('2100-02-29')).toBe(false);
    expect(daysBetween('2028-02-01', '2028-03-01')).toBe(29);
  });

  it.each(['2026-02-30', '2026-13-01', '2026-00-10', '26-01-01', '2026-1-1', 'soon', ''])(
    'refuses %j',
    (text) => {
      expect(isDay(text)).toBe(false);
      expect(() => dayNumber(text)).toThrow(RangeError);
    },
  );

  it('belongs to the week of its Monday, whatever the clocks do', () => {
    // Clocks go forward in Europe on Sunday, 29 March 2026, and back on 25 October (EU 2000/84/EC).
    expect(mondayOf('2026-03-29')).toBe('2026-03-23');
    expect(mondayOf('2026-03-30')).toBe('2026-03-30');
    expect(mondayOf('2026-10-25')).toBe('2026-10-19');
    fc.assert(
      fc.property(anyDay, fc.integer({ min: 0, max: 6 }), (day, i) => {
        expect(mondayOf(plusDays(mondayOf(day), i))).toBe(mondayOf(day));
      }),
    );
  });

  it('is told in words', () => {
    expect(shortDay('2026-11-25')).toBe('Wed 25 Nov');
    expect(awayInWords('2026-11-25', '2026-11-25')).toBe('today');
    expect(awayInWords('2026-12-02', '2026-11-25')).toBe('in 7 days');
    expect(awayInWords('2026-11-24', '2026-11-25')).toBe('yesterday');
  });
});
