import { describe, expect, it } from 'vitest';
import { ageOn, yearsBefore } from '../src/foundation/calendar/age';

describe('an age', () => {
  it('changes on the birthday and not before', () => {
    expect(ageOn('2008-11-28', '2026-11-27')).toBe(17);
    expect(ageOn('2008-11-28', '2026-11-28')).toBe(18);
    expect(ageOn('2026-11-28', '2026-11-28')).toBe(0);
  });

  it('of somebody born on 29 February changes on 1 March', () => {
    expect(ageOn('2008-02-29', '2026-02-28')).toBe(17);
    expect(ageOn('2008-02-29', '2026-03-01')).toBe(18);
    expect(ageOn('2008-02-29', '2028-02-29')).toBe(20);
  });

  it('is refused of what is no day', () => {
    expect(() => ageOn('2026-02-30', '2026-03-01')).toThrow(RangeError);
  });

  it('is the same by the day that lies so many years back', () => {
    for (const born of ['2008-02-28', '2008-02-29', '2008-03-01', '2007-12-31', '2008-11-28']) {
      for (const day of ['2026-02-28', '2026-03-01', '2025-12-31', '2026-11-27', '2026-11-28']) {
        expect(born <= yearsBefore(day, 18), `${born} ${day}`).toBe(ageOn(born, day) >= 18);
      }
    }
  });
});
