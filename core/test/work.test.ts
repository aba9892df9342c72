/** Doses, gates, volume, sessions, the timer, calls and blocks. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { daysBetween, mondayOf, plusDays, weekdayOf } from '../src/foundation/calendar/day';
import { DRILLS } from '../src/foundation/drill/drills';
import { CATALOGUE, faultById } from '../src/judge/fault/faults';
import { callsIn, COMBINATIONS, punchesOf, spoken } from '../src/train/work/calls';
import { doseOf, wholeOf } from '../src/train/work/dose';
import {
  heededBy,
  hurtInWords,
  HURT_PLACES,
  leavesOut,
  NO_POWER_UNDER_16,
  POWER_NEEDS_GRADE,
  SOUND,
  whatToDo,
  type Condition,
} from '../src/train/work/condition';
import { gateOf, isClean, NO_GRADES, type GateEvent } from '../src/train/work/gate';
import { INTENTS, isHarder, type Intent } from '../src/foundation/drill/intent';
import { blockOf, powerTooSoon, walkOrder } from '../src/train/work/plan';
import { checkOf, comesBefore, prescriptionFor } from '../src/train/work/prescription';
import { cautionsOf, handWeight, segmentsOf, SESSIONS } from '../src/train/work/session';
import {
  advanced,
  begin,
  into,
  jumped,
  paused,
  resumed,
  signalBetween,
} from '../src/train/work/timer';
import { inWords, todaysDose } from '../src/train/work/todaysDose';
import { volumeOf, type StrikesOnDay } from '../src/train/work/volume';

const anyDay = fc.integer({ min: 18_000, max: 30_000 }).map((days) => plusDays('1970-01-01', days));

describe('a dose in the coach’s words', () => {
  // Doses as coaches write them; common practice, no source.
  it.each([
    ['3 × 10 slow', { sets: 3, of: 'strikes', count: 10, sides: 1 }, 30],
    ['20 each stance, counted aloud', { sets: 1, of: 'strikes', count: 20, sides: 2 }, 40],
    ['3 × 10 a side', { sets: 3, of: 'strikes', count: 10, sides: 2 }, 60],
    ['3 × 20 s, light only', { sets: 3, of: 'seconds', count: 20, sides: 1 }, 60],
    ['2 rounds of 2 min', { sets: 2, of: 'seconds', count: 120, sides: 1 }, 240],
    ['1 round', { sets: 1, of: 'seconds', count: 180, sides: 1 }, 180],
    ['4 distances × 5', { sets: 4, of: 'strikes', count: 5, sides: 1 }, 20],
    ['3 speeds × 6', { sets: 3, of: 'strikes', count: 6, sides: 1 }, 18],
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

  it('of every drill is small: three to five sets of six to twelve, or a few seconds', () => {
    for (const { id, dose } of DRILLS) {
      const { sets, of, count } = doseOf(dose)!;
      if (of === 'strikes') {
        expect([sets, count], id).toEqual([expect.any(Number), expect.any(Number)]);
        expect(sets, id).toBeGreaterThanOrEqual(3);
        expect(sets, id).toBeLessThanOrEqual(5);
        expect(count, id).toBeGreaterThanOrEqual(
          id.endsWith('step') || id.includes('ladder') ? 4 : 6,
        );
        expect(count, id).toBeLessThanOrEqual(12);
      } else expect(sets * count, id).toBeLessThanOrEqual(120);
    }
  });

  it('never loads what its leak flags as something that can hurt', () => {
    for (const fault of CATALOGUE.faults.filter(({ injury }) => injury)) {
      const drill = DRILLS.find(({ id }) => id === fault.drill)!;
      expect(drill.asks, fault.id).toEqual([]);
      expect(drill.name, fault.id).not.toMatch(/press-up|bag/i);
    }
    expect(DRILLS.some(({ name }) => /press-up|500/i.test(name))).toBe(false);
  });
});

describe('the speed gate', () => {
  const who = (change: Partial<Condition> = {}): Condition => ({ ...SOUND, ...change });
  const graded = (...injuries: string[]) => who({ grade: 'third class', injuries });
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
    expect(gateOf([], graded()).level).toBe('slow');
    expect(gateOf(clean('slow').slice(1), graded())).toMatchObject({ level: 'slow', cleanSets: 2 });
    expect(gateOf(clean('slow'), graded())).toMatchObject({ level: 'tempo', cleanSets: 0 });
    const broken = [set('slow', 9), set('slow', 9), set('slow', 7), set('slow', 9)];
    expect(gateOf(broken, graded())).toMatchObject({ level: 'slow', cleanSets: 1 });
    expect(isClean({ clean: 7, of: 7 })).toBe(false);
    expect(gateOf([...clean('slow'), ...clean('tempo'), ...clean('full')], graded()).level).toBe(
      'power',
    );
  });

  it('waits for the grade the gym asks, and says so', () => {
    const rules = {
      grades: ['beginner', 'third class', 'first class'],
      from: { full: 'third class' },
    };
    const sets = [...clean('slow'), ...clean('tempo')];
    const gate = gateOf(sets, who({ grade: 'beginner' }), rules);
    expect(gate).toMatchObject({ level: 'tempo', cleanSets: 3 });
    expect(gate.shut).toBe('Full speed from third class on; the student is beginner.');
    expect(gateOf(sets, graded(), rules).level).toBe('full');
  });

  it('is shut by what can hurt, and begins anew when that is cleared', () => {
    const earned = [...clean('slow'), ...clean('tempo'), ...clean('full')];
    const hurt = gateOf(earned, graded('Wrist bent'));
    expect(hurt).toMatchObject({ level: 'slow', isShutByInjury: true });
    expect(hurt.shut).toContain('Wrist bent');
    const injury: GateEvent = { kind: 'injury', at: at() };
    expect(gateOf([...earned, injury], graded()).level).toBe('slow');
    expect(gateOf([...earned, injury, ...clean('slow')], graded()).level).toBe('tempo');
  });

  it('is opened by the coach with a reason, never past an injury', () => {
    const override: GateEvent = { kind: 'override', at: at(), to: 'power', reason: 'ten years' };
    expect(gateOf([override], graded()).level).toBe('power');
    expect(gateOf([override], graded('Nerve side')).level).toBe('slow');
    expect(gateOf([override, { kind: 'injury', at: at() }], graded()).level).toBe('slow');
  });

  it('never opens to full power under 16, by sets or by hand', () => {
    const earned = [...clean('slow'), ...clean('tempo'), ...clean('full')];
    const gate = gateOf(earned, who({ grade: 'third class', isJunior: true }), NO_GRADES);
    expect(gate).toMatchObject({ level: 'full', next: 'power', shut: NO_POWER_UNDER_16 });
    const override: GateEvent = { kind: 'override', at: at(), to: 'power', reason: 'asked' };
    expect(gateOf([override], who({ isJunior: true })).level).toBe('full');
  });

  it('opens to full power for no one without a grade, but by the coach’s reason', () => {
    const earned = [...clean('slow'), ...clean('tempo'), ...clean('full')];
    expect(gateOf(earned, who())).toMatchObject({ level: 'full', shut: POWER_NEEDS_GRADE });
    const override: GateEvent = { kind: 'override', at: at(), to: 'power', reason: 'ten years' };
    expect(gateOf([override], who()).level).toBe('power');
  });

  it('is shut by what hurt until the coach says that it is over', () => {
    const earned = [...clean('slow'), ...clean('tempo')];
    const hurts = [{ place: 'head', day: '2026-11-20' } as const];
    const gate = gateOf(earned, who({ hurts }));
    expect(gate).toMatchObject({ level: 'slow', isShutByInjury: true });
    expect(gate.shut).toContain('head contact or dizziness, noted on');
    expect(gateOf(earned, who()).level).toBe('full');
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
        let before = gateOf([], graded()).level;
        inTime.forEach((_, i) => {
          const { level } = gateOf(inTime.slice(0, i + 1), graded());
          expect(INTENTS.indexOf(level) - INTENTS.indexOf(before)).toBeLessThanOrEqual(1);
          expect(isHarder(before, level)).toBe(false);
          if (level !== before) {
            const three = inTime.slice(0, i + 1).filter(({ intent }) => intent === before);
            expect(three.slice(-3).every(isClean)).toBe(true);
          }
          before = level;
        });
        expect(gateOf(events, graded()).level).toBe(before);
        expect(gateOf(events, graded('Wrist bent')).level).toBe('slow');
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
    expect(power).toMatchObject({ usual: 0, ratio: null, isJump: false });
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

describe('who leaves out what', () => {
  const asked = (intent: Intent, ...asks: readonly (typeof DRILLS)[number]['asks'][number][]) => ({
    intent,
    asks,
  });
  const adult: Condition = { ...SOUND, grade: 'third class' };
  const hurt = (place: (typeof HURT_PLACES)[number]): Condition => ({
    ...adult,
    hurts: [{ place, day: '2026-11-20' }],
  });

  it('juniors and who has no grade: power, holds, weights', () => {
    for (const condition of [{ ...adult, isJunior: true }, SOUND]) {
      for (const part of [asked('power'), asked('slow', 'hold'), asked('tempo', 'weights')]) {
        expect(leavesOut(part, condition)).toMatch(/no (power|holds|weights)$/);
        expect(leavesOut(part, adult)).toBeNull();
      }
      expect(leavesOut(asked('full', 'impact', 'rotation'), condition)).toBeNull();
    }
  });

  it('is written on what they take home', () => {
    expect(heededBy(adult)).toEqual([]);
    expect(heededBy({ ...adult, isJunior: true })).toEqual([
      'Under 16: no full power, no holds, no weights in the hand.',
    ]);
    expect(heededBy({ ...SOUND, hurts: hurt('knee').hurts })).toEqual([
      expect.stringMatching(/^Slow only: knee, noted on/),
      expect.stringMatching(/^Without a grade/),
    ]);
  });

  it('whom something can hurt: power, and nothing slower', () => {
    const flagged = { ...adult, injuries: ['Wrist bent'] };
    expect(leavesOut(asked('power'), flagged)).toContain('Wrist bent');
    expect(leavesOut(asked('slow'), flagged)).toBeNull();
  });

  it('after a blow to the head: all that is hard and all contact', () => {
    for (const part of [asked('tempo'), asked('slow', 'impact'), asked('slow', 'rotation')]) {
      expect(leavesOut(part, hurt('head'))).toContain('no contact');
    }
    expect(leavesOut(asked('slow'), hurt('head'))).toBeNull();
    expect(whatToDo('head')).toContain('clinician');
  });

  it('with neck or back: turns of the trunk; with a knee: a foot pressed flat; with any: all but slow', () => {
    expect(leavesOut(asked('slow', 'rotation'), hurt('neck-back'))).toContain('no turns');
    expect(leavesOut(asked('slow', 'twist'), hurt('knee'))).toContain('pressed flat');
    expect(leavesOut(asked('slow', 'twist'), hurt('elbow'))).toBeNull();
    for (const place of HURT_PLACES) {
      expect(leavesOut(asked('full'), hurt(place))).toContain(
        hurtInWords({ place, day: '2026-11-20' }),
      );
    }
  });
});

describe('the dose of today', () => {
  const volume = (log: readonly StrikesOnDay[] = []) => volumeOf(log, '2026-11-25');
  const dose = doseOf('3 × 8 a side')!;

  it('begins at a third and is whole in the third week', () => {
    expect([0, 6, 7, 13, 14, 90].map((days) => todaysDose(dose, days, volume())!.sets)).toEqual([
      1, 1, 2, 2, 3, 3,
    ]);
    expect(inWords(todaysDose(dose, 0, volume())!)).toBe('1 × 8 a side');
    expect(inWords(todaysDose(doseOf('4 × 30 s')!, 0, volume())!)).toBe('1 × 30 s');
  });

  it('is no more than the week has room for', () => {
    const log = (now: number) => [
      { day: '2026-11-18', strikes: 40, isPower: false },
      { day: '2026-11-24', strikes: now, isPower: false },
    ];
    expect(todaysDose(dose, 30, volume(log(0)))).toMatchObject({ sets: 3 });
    expect(todaysDose(dose, 30, volume(log(20)))).toMatchObject({ sets: 1, count: 8 });
    expect(todaysDose(dose, 30, volume(log(40)))).toMatchObject({ sets: 1, count: 4 });
    expect(todaysDose(dose, 30, volume(log(44)))).toBeNull();
  });

  it('never makes a week jump for a student who does just that, on any days, with any drill', () => {
    const drill = fc.constantFrom(...DRILLS);
    const days = fc.uniqueArray(fc.integer({ min: 0, max: 6 }), { minLength: 1, maxLength: 7 });
    fc.assert(
      fc.property(drill, days, anyDay, ({ dose: words }, weekdays, start) => {
        const log: StrikesOnDay[] = [];
        for (let day = 0; day < 70; day += 1) {
          const today = plusDays(start, day);
          if (!weekdays.includes(weekdayOf(today))) continue;
          const now = todaysDose(doseOf(words)!, day, volumeOf(log, today));
          if (!now || now.of !== 'strikes') continue;
          log.push({ day: today, strikes: wholeOf(now), isPower: false });
          // A first week that was cut short by its Monday is no usual week.
          expect(volumeOf(log, today).all.isJump, `${words} on ${today}`).toBe(false);
        }
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
      dose: '3 × 8, counted aloud',
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

  it('has a weight in the hand of 1 % of the body and at most 1 kg', () => {
    expect(handWeight(60)).toBeCloseTo(0.6, 9);
    expect(handWeight(91)).toBeCloseTo(0.91, 9);
    expect(handWeight(140)).toBe(1);
  });

  it('has no more power than 5 sets of 4 and 3 of 4, with a rest of 90 to 120 s', () => {
    const power = SESSIONS.flatMap(({ blocks }) => blocks).filter(
      ({ intent }) => intent === 'power',
    );
    expect(power.map(({ parts }) => parts.length)).toEqual([5, 3]);
    for (const { rest, parts } of power) {
      expect(rest).toBeGreaterThanOrEqual(90);
      expect(rest).toBeLessThanOrEqual(120);
      for (const part of parts) expect(Number.parseInt(part, 10)).toBeLessThanOrEqual(5);
    }
    const [day] = SESSIONS.filter(({ id }) => id === 'power-day');
    expect(day!.blocks[0]!.title).toBe('Warm-up');
  });

  it('ramps into holds for seconds, says how to breathe, and says what elbows and kicks may do', () => {
    const of = (id: string) => SESSIONS.find((one) => one.id === id)!;
    for (const { work } of of('holds').blocks) expect(work).toBeLessThanOrEqual(6);
    expect(cautionsOf(of('holds')).join(' ')).toMatch(/never with held breath.*Adults only/);
    expect(cautionsOf(of('elbow-block')).join(' ')).toContain('against many rule sets');
    expect(cautionsOf(of('kick-block')).join(' ')).toContain('straight knee');
    expect(cautionsOf(of('speed-day')).join(' ')).toContain('snap');
    expect(cautionsOf(of('rounds'))).toEqual([]);
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
        expect(powerTooSoon(power.map(({ day }) => day))).toEqual(new Set());
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

  it('sees power on two days running, and twice within five', () => {
    expect(powerTooSoon(['2026-11-24', '2026-11-23', '2026-12-01', '2026-12-01'])).toEqual(
      new Set(['2026-11-24']),
    );
    expect(powerTooSoon(['2026-11-23', '2026-11-28'])).toEqual(new Set());
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
