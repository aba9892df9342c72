/** Doses, gates, volume, sessions, the timer, calls and blocks. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { daysBetween, mondayOf, plusDays, weekdayOf } from '../src/foundation/calendar/day';
import { DRILLS } from '../src/foundation/drill/drills';
import { CATALOGUE, faultById } from '../src/judge/fault/faults';
import { callsIn, COMBINATIONS, punchesOf, spoken } from '../src/train/work/calls';
import { doseOf, wholeOf } from '../src/train/work/dose';
import {
  gateOf,
  isClean,
  NO_GRADES,
  NO_POWER_UNDER_16,
  type GateEvent,
} from '../src/train/work/gate';
import { INTENTS, isHarder, type Intent } from '../src/foundation/drill/intent';
import { blockOf, walkOrder } from '../src/train/work/plan';
import { checkOf, comesBefore, prescriptionFor } from '../src/train/work/prescription';
import { handWeights, segmentsOf, SESSIONS } from '../src/train/work/session';
import {
  advanced,
  begin,
  into,
  jumped,
  paused,
  resumed,
  signalBetween,
} from '../src/train/work/timer';
import { volumeOf } from '../src/train/work/volume';

const anyDay = fc.integer({ min: 18_000, max: 30_000 }).map((days) => plusDays('1970-01-01', days));

describe('a dose in the coach’s words', () => {
  // The doses of the drills, as practitioners write them: common practice, no source.
  it.each([
    ['3 × 10 slow', { sets: 3, of: 'strikes', count: 10, sides: 1 }, 30],
    ['20 each stance, counted aloud', { sets: 1, of: 'strikes', count: 20, sides: 2 }, 40],
    ['3 × 10 a side', { sets: 3, of: 'strikes', count: 10, sides: 2 }, 60],
    ['3 × 20 s, light only', { sets: 3, of: 'seconds', count: 20, sides: 1 }, 60],
    ['2 rounds of 2 min', { sets: 2, of: 'seconds', count: 120, sides: 1 }, 240],
    ['1 round', { sets: 1, of: 'seconds', count: 180, sides: 1 }, 180],
    ['4 distances × 5', { sets: 4, of: 'strikes', count: 5, sides: 1 }, 20],
    ['up to 500 a day', { sets: 1, of: 'strikes', count: 500, sides: 1 }, 500],
    ['30 s a form, about 5 min a day', { sets: 1, of: 'seconds', count: 30, sides: 1 }, 30],
    ['20 turns, 20–30 springs', { sets: 1, of: 'strikes', count: 20, sides: 1 }, 20],
    ['20–30 a day', { sets: 1, of: 'strikes', count: 30, sides: 1 }, 30],
    ['45 s each leg', { sets: 1, of: 'seconds', count: 45, sides: 2 }, 90],
  ] as const)('%s', (text, dose, whole) => {
    expect(doseOf(text)).toEqual(dose);
    expect(wholeOf(doseOf(text)!)).toBe(whole);
  });

  it('asks for no number where the form is the limit, and reads any text without failing', () => {
    expect(doseOf('sets until form fades, stop there')).toBeNull();
    expect(doseOf('0 × 10')).toBeNull();
    fc.assert(
      fc.property(fc.string(), (text) => {
        const dose = doseOf(text);
        if (dose) expect(wholeOf(dose)).toBeGreaterThan(0);
      }),
    );
  });

  it('is known of every drill but the one that stops when form fades', () => {
    expect(DRILLS.filter(({ dose }) => !doseOf(dose)).map(({ id }) => id)).toEqual(['under-line']);
  });
});

describe('the speed gate', () => {
  let second = 0;
  const at = () => new Date(Date.UTC(2026, 0, 1) + 1000 * second++).toISOString();
  const set = (intent: Intent, clean: number): GateEvent => ({
    kind: 'set',
    at: at(),
    intent,
    clean,
    of: 10,
  });
  const clean = (intent: Intent) => [9, 8, 10].map((n) => set(intent, n));

  it('opens a step after three clean sets in a row, 8 of 10 being clean', () => {
    expect(gateOf([], '', []).level).toBe('slow');
    expect(gateOf(clean('slow').slice(1), '', [])).toMatchObject({ level: 'slow', cleanSets: 2 });
    expect(gateOf(clean('slow'), '', [])).toMatchObject({ level: 'tempo', cleanSets: 0 });
    const broken = [set('slow', 9), set('slow', 9), set('slow', 7), set('slow', 9)];
    expect(gateOf(broken, '', [])).toMatchObject({ level: 'slow', cleanSets: 1 });
    expect(isClean({ clean: 7, of: 7 })).toBe(false);
    expect(gateOf([...clean('slow'), ...clean('tempo'), ...clean('full')], '', []).level).toBe(
      'power',
    );
  });

  it('waits for the grade the gym asks, and says so', () => {
    const rules = {
      grades: ['beginner', 'third class', 'first class'],
      from: { full: 'third class' },
    };
    const sets = [...clean('slow'), ...clean('tempo')];
    const gate = gateOf(sets, 'beginner', [], rules);
    expect(gate).toMatchObject({ level: 'tempo', cleanSets: 3 });
    expect(gate.shut).toBe('Full speed from third class on; the student is beginner.');
    expect(gateOf(sets, 'third class', [], rules).level).toBe('full');
  });

  it('is shut by what can hurt, and begins anew when that is cleared', () => {
    const earned = [...clean('slow'), ...clean('tempo'), ...clean('full')];
    const hurt = gateOf(earned, '', ['Wrist bent']);
    expect(hurt).toMatchObject({ level: 'slow', isShutByInjury: true });
    expect(hurt.shut).toContain('Wrist bent');
    const injury: GateEvent = { kind: 'injury', at: at() };
    expect(gateOf([...earned, injury], '', []).level).toBe('slow');
    expect(gateOf([...earned, injury, ...clean('slow')], '', []).level).toBe('tempo');
  });

  it('is opened by the coach with a reason, never past an injury', () => {
    const override: GateEvent = { kind: 'override', at: at(), to: 'power', reason: 'ten years' };
    expect(gateOf([override], '', []).level).toBe('power');
    expect(gateOf([override], '', ['Nerve side']).level).toBe('slow');
    expect(gateOf([override, { kind: 'injury', at: at() }], '', []).level).toBe('slow');
  });

  it('never opens to full power under 16, by sets or by hand', () => {
    const earned = [...clean('slow'), ...clean('tempo'), ...clean('full')];
    const gate = gateOf(earned, '', [], NO_GRADES, true);
    expect(gate).toMatchObject({ level: 'full', next: 'power', shut: NO_POWER_UNDER_16 });
    const override: GateEvent = { kind: 'override', at: at(), to: 'power', reason: 'asked' };
    expect(gateOf([override], '', [], NO_GRADES, true).level).toBe('full');
  });

  it('never skips a step, whatever sets are logged in whatever order', () => {
    const anySet = fc.record({
      kind: fc.constant('set' as const),
      at: fc.integer({ min: 0, max: 1e9 }).map((n) => String(n).padStart(10, '0')),
      intent: fc.constantFrom(...INTENTS),
      clean: fc.integer({ min: 0, max: 10 }),
      of: fc.constant(10),
    });
    fc.assert(
      fc.property(fc.array(anySet, { maxLength: 60 }), (events) => {
        const inTime = [...events].sort((a, b) => a.at.localeCompare(b.at));
        let before = gateOf([], '', []).level;
        inTime.forEach((_, i) => {
          const { level } = gateOf(inTime.slice(0, i + 1), '', []);
          expect(INTENTS.indexOf(level) - INTENTS.indexOf(before)).toBeLessThanOrEqual(1);
          expect(isHarder(before, level)).toBe(false);
          if (level !== before) {
            const three = inTime.slice(0, i + 1).filter(({ intent }) => intent === before);
            expect(three.slice(-3).every(isClean)).toBe(true);
          }
          before = level;
        });
        expect(gateOf(events, '', []).level).toBe(before);
        expect(gateOf(events, '', ['Wrist bent']).level).toBe('slow');
      }),
    );
  });
});

describe('the week’s volume', () => {
  const day = (ago: number, strikes: number, isPower = false) => ({
    day: plusDays('2026-11-25', -ago),
    strikes,
    isPower,
  });

  it('is held against the mean of the four weeks before', () => {
    const log = [day(28, 100), day(21, 100), day(14, 100), day(7, 100), day(0, 131, true)];
    const { weeks, all, power } = volumeOf(log, '2026-11-25');
    expect(weeks.map(({ strikes }) => strikes)).toEqual([100, 100, 100, 100, 131]);
    expect(all).toMatchObject({ usual: 100, ratio: 1.31, isJump: true });
    expect(power).toMatchObject({ usual: 0, ratio: null, isJump: true });
    expect(volumeOf([...log.slice(0, 4), day(0, 130)], '2026-11-25').all.isJump).toBe(false);
  });

  it('says nothing in a first week, and takes weeks before a beginner’s first for none', () => {
    expect(volumeOf([day(0, 900)], '2026-11-25').all).toMatchObject({ usual: null, isJump: false });
    expect(volumeOf([day(7, 100), day(0, 120)], '2026-11-25').all.usual).toBe(100);
    expect(volumeOf([day(14, 100), day(0, 60)], '2026-11-25').all.usual).toBe(50);
  });

  it('counts every day once, in its own week, over week borders, leap days and clock changes', () => {
    const entries = fc.array(
      fc.record({
        ago: fc.integer({ min: -10, max: 60 }),
        strikes: fc.nat(500),
        isPower: fc.boolean(),
      }),
    );
    fc.assert(
      fc.property(anyDay, entries, (today, log) => {
        const dated = log.map(({ ago, ...rest }) => ({ day: plusDays(today, -ago), ...rest }));
        const { weeks } = volumeOf(dated, today);
        const from = plusDays(mondayOf(today), -28);
        const counted = dated.filter((one) => one.day >= from && one.day <= today);
        const sum = counted.reduce((n, { strikes }) => n + strikes, 0);
        expect(weeks.reduce((n, { strikes }) => n + strikes, 0)).toBe(sum);
        for (const { monday } of weeks) expect(weekdayOf(monday)).toBe(0);
      }),
    );
  });
});

describe('a prescription', () => {
  it('is filled in from the catalogue: slow, both stances, until it shows clean', () => {
    const fault = faultById('all-at-once')!;
    expect(prescriptionFor(fault, CATALOGUE, '2026-11-25')).toEqual({
      drill: fault.drill,
      name: 'Slow three-count: hips, trunk, hand',
      dose: '20 each stance, counted aloud',
      stances: 'both',
      intent: 'slow',
      gate: '3 clean sets in a row: no “All at once” in 8 of 10.',
      nextCheck: '2026-12-02',
    });
  });

  it('waits for the links before it, in the order of the school', () => {
    const known = CATALOGUE.faults.slice(0, 12);
    for (const fault of CATALOGUE.faults) {
      const up = comesBefore(fault, known, 'ground-up');
      const down = comesBefore(fault, known, 'top-down');
      expect(up.filter((one) => down.includes(one))).toEqual([]);
      expect(up).not.toContain(fault);
    }
    const feet = CATALOGUE.faults.find(({ link }) => link === 'feet')!;
    const fist = CATALOGUE.faults.find(({ link }) => link === 'fist')!;
    expect(comesBefore(fist, [feet], 'ground-up')).toEqual([feet]);
    expect(comesBefore(feet, [fist], 'ground-up')).toEqual([]);
    expect(comesBefore(feet, [fist], 'top-down')).toEqual([fist]);
  });

  it('is looked at again after seven days or three sessions', () => {
    expect(checkOf('2026-12-02', 0, '2026-11-25')).toEqual({
      isDue: false,
      days: 7,
      because: null,
    });
    expect(checkOf('2026-12-02', 3, '2026-11-28')).toMatchObject({
      isDue: true,
      because: 'sessions',
    });
    expect(checkOf('2026-12-02', 0, '2026-12-04')).toEqual({
      isDue: true,
      days: -2,
      because: 'day',
    });
  });
});

describe('a session', () => {
  it('runs from “get ready” through work and rest, and ends with work', () => {
    for (const session of SESSIONS) {
      const segments = segmentsOf(session);
      expect(segments[0]!.kind).toBe('ready');
      expect(segments[segments.length - 1]!.kind).toBe('work');
      segments.slice(1).forEach((segment, i) => {
        if (segment.kind === 'rest') expect(segments[i]!.kind).toBe('work');
      });
      const parts = session.blocks.reduce((n, { parts }) => n + parts.length, 0);
      expect(segments.filter(({ kind }) => kind === 'work')).toHaveLength(parts);
    }
  });

  it('of three rounds is three times three minutes with two rests between', () => {
    const [rounds] = SESSIONS;
    expect(segmentsOf(rounds!).map(({ seconds }) => seconds)).toEqual([10, 180, 60, 180, 60, 180]);
  });

  it('has hand weights of 1 kg for most and at most 2.5 % of the body (2.3 kg at 91 kg, common practice)', () => {
    expect(handWeights(91).most).toBeCloseTo(2.3, 1);
    expect(handWeights(91).usual).toBe(1);
    expect(handWeights(30)).toEqual({ usual: 0.75, most: 0.75 });
  });
});

describe('the timer', () => {
  const segments = segmentsOf(SESSIONS[0]!);
  const T = Date.UTC(2026, 2, 29, 0, 59, 0);

  it('stands where the clock says, however often and however late it is looked at', () => {
    const looks = fc.array(fc.integer({ min: 1, max: 300_000 }), { minLength: 1, maxLength: 30 });
    fc.assert(
      fc.property(looks, (steps) => {
        let now = T;
        let often = begin(T);
        for (const step of steps) {
          now += step;
          often = advanced(often, segments, now);
        }
        expect(advanced(begin(T), segments, now)).toEqual(often);
      }),
    );
  });

  it('survives a reload: what is kept is the run itself', () => {
    const kept = JSON.parse(JSON.stringify(advanced(begin(T), segments, T + 60_000))) as ReturnType<
      typeof begin
    >;
    const later = advanced(kept, segments, T + 200_000);
    expect(later.index).toBe(2);
    expect(into(later, T + 200_000)).toBeCloseTo(10, 9);
  });

  it('stands still while paused and goes on where it stood', () => {
    const run = paused(advanced(begin(T), segments, T + 30_000), T + 30_000);
    expect(advanced(run, segments, T + 900_000)).toBe(run);
    const on = resumed(run, T + 900_000);
    expect(into(on, T + 900_000)).toBeCloseTo(20, 9);
    expect(jumped(run, 4, T + 40_000, segments.length)).toEqual({
      index: 4,
      since: T + 40_000,
      pausedAt: T + 40_000,
    });
  });

  it('waits for a tap where work is counted', () => {
    const counted = segmentsOf(SESSIONS.find(({ id }) => id === 'slow-day')!);
    expect(advanced(begin(T), counted, T + 10 * 60_000).index).toBe(1);
  });

  it('rings at each border and warns ten seconds before', () => {
    const at = (seconds: number) => advanced(begin(T), segments, T + seconds * 1000);
    const heard = (from: number, to: number) =>
      signalBetween(at(from), at(to), segments, T + from * 1000, T + to * 1000);
    expect(heard(9.9, 10.1)).toBe('bell');
    expect(heard(179.9, 180.1)).toBe('warning');
    expect(heard(100, 101)).toBeNull();
    expect(heard(20, 400)).toBe('bell');
  });
});

describe('calls', () => {
  it('speak the numbers as punches', () => {
    expect(spoken('1-2-3')).toBe('jab, cross, lead hook');
    for (const combination of COMBINATIONS)
      expect(punchesOf(combination).length).toBeGreaterThan(1);
    expect(() => punchesOf('1-7')).toThrow('7 is no punch: 1 to 6 are.');
  });

  it('fill a round at the pace, the same for the same seed, none too late to answer', () => {
    fc.assert(
      fc.property(fc.integer(), fc.integer({ min: 2, max: 15 }), (seed, pace) => {
        const calls = callsIn(180, pace, COMBINATIONS, seed);
        expect(calls).toEqual(callsIn(180, pace, COMBINATIONS, seed));
        calls.forEach(({ at }, i) => {
          expect(at).toBeLessThanOrEqual(176);
          const gap = at - (calls[i - 1]?.at ?? at - pace);
          expect(gap).toBeGreaterThanOrEqual((2 / 3) * pace - 1e-9);
          expect(gap).toBeLessThanOrEqual((4 / 3) * pace + 1e-9);
        });
      }),
    );
    expect(callsIn(180, 6, [], 1)).toEqual([]);
  });
});

describe('a block toward a date', () => {
  it('has one power day a week, none in the first and none in the last three days', () => {
    const wish = fc.record({
      from: anyDay,
      length: fc.integer({ min: 1, max: 26 * 7 }),
      weekdays: fc.uniqueArray(fc.integer({ min: 0, max: 6 }), { minLength: 1 }),
    });
    fc.assert(
      fc.property(wish, ({ from, length, weekdays }) => {
        const target = plusDays(from, length);
        const planned = blockOf({ from, target, weekdays });
        const power = planned.filter(({ session }) => session === 'power-day');
        expect(new Set(power.map(({ day }) => mondayOf(day))).size).toBe(power.length);
        for (const { day } of power) {
          expect(mondayOf(day)).not.toBe(mondayOf(from));
          expect(daysBetween(day, target)).toBeGreaterThan(3);
        }
        for (const { day } of planned) {
          expect(weekdays).toContain(weekdayOf(day));
          expect(day >= from && day < target).toBe(true);
        }
        const sessions = planned.filter(({ kind }) => kind === 'session');
        expect(new Set(sessions.map(({ day }) => day)).size).toBe(sessions.length);
        // Whoever trains at all is filmed before the date.
        expect(planned.some(({ kind }) => kind === 'retest')).toBe(sessions.length > 0);
      }),
    );
  });

  it('says what is wrong with a wish', () => {
    const wish = { from: '2026-11-25', target: '2026-12-25', weekdays: [1] };
    expect(() => blockOf({ ...wish, target: '2026-11-25' })).toThrow(/must come after/);
    expect(() => blockOf({ ...wish, target: '2028-11-25' })).toThrow(/26 weeks/);
    expect(() => blockOf({ ...wish, weekdays: [] })).toThrow(/Choose the days/);
  });
});

it('the floor is walked by who may hurt themselves, who is due, who has nothing to do', () => {
  const one = (name: string, change = {}) => ({
    name,
    isHurting: false,
    checkIn: 3,
    unmarked: 0,
    hasWork: true,
    ...change,
  });
  const order = walkOrder([
    one('Busy'),
    one('Films', { unmarked: 2 }),
    one('Idle', { hasWork: false, checkIn: null }),
    one('Due', { checkIn: 0 }),
    one('Overdue', { checkIn: -4 }),
    one('Wrist', { isHurting: true }),
  ]);
  expect(order.map(({ name }) => name)).toEqual([
    'Wrist',
    'Overdue',
    'Due',
    'Idle',
    'Films',
    'Busy',
  ]);
});
