/** Work, gates, leaks, plans and the ledger, on a database. */
import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { z } from 'zod';
import { plusDays } from '@sinew/core/calendar/day';
import { faultById } from '@sinew/core/fault/catalogue';
import { isAbsent } from '@sinew/core/reading/reading';
import { SESSIONS } from '@sinew/core/work/session';
import { cardOf } from '@/data/card';
import { loadBench, saveBench } from '@/data/bench';
import { strikeToCompare } from '@/data/comparing';
import { acceptFinding } from '@/data/findings';
import { floorFacts } from '@/data/floor';
import { keepSession, saveSettings, sessionsOf, settingsOf } from '@/data/gym';
import { closeLeak, hurtingStudents, leaksOf } from '@/data/leaks';
import {
  addNote,
  addTest,
  notesOf,
  setsOf,
  shownOver,
  speedsOf,
  testsOf,
  unsaidIn,
} from '@/data/ledger';
import { ledgerCsv, ledgerFileOf, ledgerSchema } from '@/data/ledgerFile';
import { changeLibrary, libraryOf, setStudentSchool } from '@/data/library';
import { measuredStrikes, measureStudent } from '@/data/measured';
import { addItem, calendarOf, moveItem, planBetween, planBlock } from '@/data/plan';
import { keepRemark, markingErrors, strikesToRemark } from '@/data/remarks';
import { effectOf } from '@/data/shownLeaks';
import { dayIn, today } from '@/data/today';
import { setTrashed, trash } from '@/data/trash';
import {
  endPrescription,
  overrideGate,
  prescribe,
  workOf,
  type PrescriptionInput,
} from '@/data/work';
import { logWork, type LogInput } from '@/data/drillLog';
import { effectInWords } from '@/screens/library/effect';
import { AT_ONCE, emptyGym, markedClip, student, type TestGym } from './support';

let gym: TestGym;
let who: string;
let marked: Awaited<ReturnType<typeof markedClip>>;
beforeEach(async () => {
  gym = await emptyGym();
  who = await student(gym);
  marked = await markedClip(gym, who);
});

const accept = (fault = 'all-at-once') => acceptFinding(gym.db, marked.strikeId, fault, false);
const work = async () => (await workOf(gym.db, who))!;
const LEAK = { technique: 'cross', fault: 'all-at-once' };

async function give(change: Partial<PrescriptionInput> = {}) {
  const proposal = (await work()).proposals[0]!;
  return prescribe(gym.db, {
    ...proposal.prescription,
    ...{ studentId: who, leak: LEAK, override: '' },
    ...change,
  });
}

let logs = 0;
const set = (change: Partial<LogInput> = {}): LogInput => ({
  id: `log-${logs++}`,
  studentId: who,
  prescriptionId: null,
  technique: 'cross',
  name: 'Three-count',
  day: today(),
  intent: 'slow',
  strikes: 10,
  seconds: 0,
  clean: null,
  countedBy: 'tap',
  ...change,
});
const level = async () => (await work()).gates.find((one) => one.technique === 'cross')?.gate.level;

describe('a leak that has been accepted', () => {
  it('becomes work in one action, filled in from the catalogue', async () => {
    await accept();
    const before = await work();
    expect(before.proposals).toHaveLength(1);
    const outcome = await give();
    expect(outcome.kind).toBe('given');
    const { given, proposals } = await work();
    expect(proposals).toEqual([]);
    expect(given[0]).toMatchObject({
      name: 'Slow three-count: hips, trunk, hand',
      dose: '20 each stance, counted aloud',
      intent: 'slow',
      nextCheck: plusDays(today(), 7),
      sessions: 0,
      check: { isDue: false },
    });
  });

  it('is filmed again after three days of work', async () => {
    await accept();
    await give();
    const { id } = (await work()).given[0]!;
    for (const days of [3, 2, 2, 0]) {
      await logWork(gym.db, set({ prescriptionId: id, day: plusDays(today(), -days) }));
    }
    expect((await work()).given[0]).toMatchObject({
      sessions: 3,
      check: { isDue: true, because: 'sessions' },
      doneToday: { strikes: 10 },
    });
    expect((await floorFacts(gym.db)).get(who)!.work[0]).toMatchObject({ sessions: 3 });
    await endPrescription(gym.db, id, 'done');
    expect((await work()).given).toEqual([]);
  });

  it('is opened, in work and closed with its dates and the reason', async () => {
    await accept();
    expect((await leaksOf(gym.db, who))[0]).toMatchObject({ ...LEAK, state: 'working' });
    await give();
    await closeLeak(gym.db, { studentId: who, ...LEAK }, 'three clean films');
    expect((await leaksOf(gym.db, who))[0]).toMatchObject({
      state: 'closed',
      closedBecause: 'three clean films',
    });
    expect(await work()).toMatchObject({ given: [], proposals: [] });
  });
});

describe('the gate', () => {
  it('opens with clean sets and refuses what is too fast, unless the coach says why', async () => {
    await accept();
    expect(await give({ intent: 'full' })).toMatchObject({ kind: 'asks-why' });
    expect(await give({ intent: 'full', override: 'a guest of ten years' })).toMatchObject({
      kind: 'given',
    });
    for (const clean of [9, 8, 10]) await logWork(gym.db, set({ clean }));
    expect(await level()).toBe('tempo');
    await overrideGate(gym.db, { studentId: who, technique: 'cross', to: 'power', reason: 'x' });
    expect(await level()).toBe('power');
  });

  it('waits for the grade that the gym asks', async () => {
    await saveSettings(gym.db, {
      ...{ name: 'Gym', className: '' },
      grades: ['white', 'blue'],
      from: { tempo: 'blue' },
      sessions: [],
    });
    await accept();
    for (let i = 0; i < 3; i++) await logWork(gym.db, set({ clean: 10 }));
    const { gate } = (await work()).gates[0]!;
    expect(gate.level).toBe('slow');
    expect(gate.shut).toMatch(/from blue on/);
  });

  it('is shut by what can hurt: no reason opens it, only the coach’s clearing does', async () => {
    await accept();
    const hurting = faultById('hyperextension')!;
    expect(hurting.injury).toBe(true);
    await work();
    await gym.db
      .updateTable('measured')
      .set({ shows: JSON.stringify({ found: [hurting.id], clear: [] }) })
      .execute();
    await overrideGate(gym.db, { studentId: who, technique: 'cross', to: 'power', reason: 'x' });
    expect(await level()).toBe('slow');
    expect((await work()).injuries[0]).toMatchObject({ fault: hurting.id, name: hurting.name });
    expect(await give({ intent: 'power', override: 'please' })).toMatchObject({ kind: 'refused' });
    const leak = { studentId: who, technique: 'cross', fault: hurting.id };
    await closeLeak(gym.db, leak, 'looked at it together');
    expect((await work()).injuries).toEqual([]);
  });

  it('knows on the Floor of an accepted leak that can hurt', async () => {
    expect([...(await hurtingStudents(gym.db))]).toEqual([]);
    await accept();
    await gym.db.updateTable('finding').set({ fault: 'hyperextension' }).execute();
    expect([...(await hurtingStudents(gym.db))]).toEqual([who]);
    const leak = { studentId: who, technique: 'cross', fault: 'hyperextension' };
    await closeLeak(gym.db, leak, 'cleared');
    expect([...(await hurtingStudents(gym.db))]).toEqual([]);
  });
});

describe('a log', () => {
  it('sent twice is kept once; nonsense is refused in words', async () => {
    const once = set();
    expect(await logWork(gym.db, once)).toBeNull();
    expect(await logWork(gym.db, once)).toBeNull();
    expect((await work()).volume.weeks[4]!.strikes).toBe(10);
    expect(await logWork(gym.db, set({ clean: 11 }))).toMatch(/No more strikes can be clean/);
    expect(await logWork(gym.db, set({ strikes: 0 }))).toMatch(/Nothing was counted/);
    expect(await logWork(gym.db, set({ studentId: 'gone' }))).toMatch(/not in the list/);
  });

  it('taken out can be brought back', async () => {
    await logWork(gym.db, set({ id: 'wrong' }));
    await setTrashed(gym.db, 'log', 'wrong', true);
    expect((await work()).logs).toEqual([]);
    expect(await trash(gym.db)).toMatchObject([{ kind: 'log', id: 'wrong' }]);
    await setTrashed(gym.db, 'log', 'wrong', false);
    expect((await work()).logs).toHaveLength(1);
  });
});

describe('what a strike measures', () => {
  it('is kept, and measured again only when the bench has changed', async () => {
    expect(await measureStudent(gym.db, who)).toBe(0);
    const [first] = await measuredStrikes(gym.db, who);
    expect(first).toMatchObject({ technique: 'cross', view: 'side', intent: null });
    const lead = first!.readings['lead.hipsTrunk'];
    expect(isAbsent(lead) ? null : [lead.value, lead.unit]).toEqual([0, 's']);
    const stampOf = () =>
      gym.db.selectFrom('measured').select(['stamp', 'updated_at']).executeTakeFirstOrThrow();
    const before = await stampOf();
    await measureStudent(gym.db, who);
    expect(await stampOf()).toEqual(before);
    const saved = (await loadBench(gym.db, marked.clipId))!;
    const [strike] = saved.document.strikes;
    const marks = { ...strike!.marks, trunk: { frame: 120, width: 1 } };
    await saveBench(gym.db, marked.clipId, {
      ...saved,
      document: { ...saved.document, intent: 'tempo', strikes: [{ ...strike!, marks }] },
    });
    await measureStudent(gym.db, who);
    const [again] = await measuredStrikes(gym.db, who);
    const later = again!.readings['lead.hipsTrunk'];
    expect(isAbsent(later) ? null : later.value).toBeCloseTo(10 / 240, 4);
    expect(again!.intent).toBe('tempo');
  });

  it('is left for the next time when there is no time', async () => {
    expect(await measureStudent(gym.db, who, 0)).toBe(1);
    expect(await measuredStrikes(gym.db, who)).toEqual([]);
  });

  it('is judged again when a limit or a school changes, and not measured again', async () => {
    await measureStudent(gym.db, who);
    const kept = () =>
      gym.db.selectFrom('measured').select(['stamp', 'readings']).executeTakeFirstOrThrow();
    const shows = async () => {
      await measureStudent(gym.db, who);
      return (await measuredStrikes(gym.db, who))[0]!.shows;
    };
    const before = await kept();
    expect((await shows()).found).toContain('all-at-once');
    const limit = (value: number | null) =>
      ({ kind: 'limit', fault: 'all-at-once', ofCase: 0, index: 0, value }) as const;
    // Hips and trunk start on one frame: 0 ms, which a limit of −50 ms lets pass.
    await changeLibrary(gym.db, 'Hedda', limit(-0.05));
    expect((await shows()).clear).toContain('all-at-once');
    await changeLibrary(gym.db, 'Hedda', limit(null));
    expect((await shows()).found).toContain('all-at-once');

    // In a school that digs through there is no such leak as a push.
    const judged = async () => Object.values(await shows()).flat();
    expect(await judged()).toContain('push');
    await setStudentSchool(gym.db, who, { finish: 'dig' });
    expect(await judged()).not.toContain('push');
    expect(await kept()).toEqual(before);
  });

  it('is counted where a change of the library changes what it shows', async () => {
    await measureStudent(gym.db, who);
    const before = await libraryOf(gym.db);
    await changeLibrary(gym.db, 'Hedda', { kind: 'off', fault: 'all-at-once', isOff: true });
    const after = await libraryOf(gym.db);
    const none = { strikes: 0, students: 0 };
    const one = { strikes: 1, students: 1 };
    expect(await effectOf(gym.db, before, after)).toEqual({ strikes: 1, more: none, fewer: one });
    expect(await effectOf(gym.db, after, before)).toEqual({ strikes: 1, more: one, fewer: none });
    expect(effectInWords({ strikes: 1, more: none, fewer: one })).toBe(
      'Of the one strike measured, 1 (1 student) no longer show one.',
    );
  });

  it('tells over the sets how often a leak shows, and which one waits for a word', async () => {
    await measureStudent(gym.db, who);
    const sets = async () => setsOf(gym.db, who);
    const [first] = await sets();
    expect(shownOver([first!], 'all-at-once')).toMatchObject([{ found: 1, told: 1 }]);
    expect(shownOver([first!], 'no-such-leak')).toEqual([]);
    const unsaid = async () => (await unsaidIn(gym.db, first!)).map(({ fault }) => fault);
    expect(await unsaid()).toContain('all-at-once');
    await accept();
    expect(await unsaid()).not.toContain('all-at-once');
  });

  it('gives a reach ladder its speed, where it has one', async () => {
    await measureStudent(gym.db, who);
    const [set] = await setsOf(gym.db, who);
    // Marks alone tell no speed.
    expect(speedsOf([set!])).toEqual([]);
    const speed = { value: 7, sigma: 0.5, unit: 'm/s', source: 'eye', frames: [] } as const;
    const measured = { ...set!, readings: { ...set!.readings, 'speed.contact': speed } };
    const older = { ...measured, clipId: 'older', day: '2026-01-02' };
    const [newest, last] = speedsOf([older, measured]);
    expect(newest).toMatchObject({ technique: 'cross', strikes: 1, value: 7, plusMinus: 0.98 });
    expect(last!.clipId).toBe('older');
  });

  it('goes into the ledger as sets, as JSON by its schema, and as CSV', async () => {
    await accept();
    await addNote(gym.db, { studentId: who, technique: null, day: today(), text: '=1+1' });
    const given = {
      kind: 'throw' as const,
      standing: { value: 7.4, plusMinus: 0.1 },
      seated: { value: 5.2, plusMinus: 0.1 },
    };
    await addTest(gym.db, { studentId: who, day: today(), given });
    expect((await testsOf(gym.db, who))[0]!.results[0]!.text).toBe('19 ± 1 %');
    expect(await notesOf(gym.db, who)).toHaveLength(1);
    await measureStudent(gym.db, who);
    const [one] = await setsOf(gym.db, who);
    expect(one!.strikes).toHaveLength(1);
    const file = (await ledgerFileOf(gym.db, who))!;
    expect(ledgerSchema.parse(file)).toEqual(file);
    expect(file.leaks[0]).toMatchObject({ leak: 'all-at-once', state: 'working' });
    const [head, ...rows] = ledgerCsv(file).trim().split('\n');
    expect(head).toBe(
      'student,filmedOn,technique,side,view,intent,round,clip,strike,reading,name,value,sigma,unit,source,absent',
    );
    expect(rows.length).toBe(Object.keys(file.strikes[0]!.readings).length);
    expect(await ledgerFileOf(gym.db, 'nobody')).toBeNull();
  });
});

it('the published schema of the ledger is the one that is kept to', () => {
  const published: unknown = JSON.parse(
    readFileSync(new URL('../../docs/ledger.schema.json', import.meta.url), 'utf8'),
  );
  expect(published).toEqual(JSON.parse(JSON.stringify(z.toJSONSchema(ledgerSchema))));
});

describe('a card', () => {
  it('has the cue, the number then, the picture’s frame, the work and a box for each day', async () => {
    await accept();
    await give();
    const [cue] = (await cardOf(gym.db, who))!.cues;
    expect(cue).toMatchObject({
      leak: 'All at once',
      isInjury: false,
      picture: { span: { names: ['hips start', 'trunk starts'], seconds: 0 } },
      number: { now: null, verdict: null },
    });
    expect(cue!.number!.then).toMatch(/^0 ± 3(\.\d)? ms$/);
    expect(cue!.days).toHaveLength(7);
    expect(cue!.work[0]!.name).toMatch(/three-count/);
  });

  it('holds a later film against it, or says why that cannot be', async () => {
    await accept();
    const later = await markedClip(gym, who, 'cross-all-at-once.mp4');
    await gym.db
      .updateTable('clip')
      .set({ created_at: '2099-01-01T00:00:00.000Z' })
      .where('id', '=', later.clipId)
      .execute();
    expect((await cardOf(gym.db, who))!.cues[0]!.number).toMatchObject({ verdict: 'noise' });
    await gym.db
      .updateTable('clip')
      .set({ view: 'above' })
      .where('id', '=', later.clipId)
      .execute();
    expect((await cardOf(gym.db, who))!.cues[0]!.number).toMatchObject({
      why: 'one was filmed from the side, one from above',
    });
  });
});

it('a strike to compare has its film in seconds from contact', async () => {
  const found = (await strikeToCompare(gym.db, marked.strikeId))!;
  expect(found.film!.times[AT_ONCE.contact.frame]).toBe(0);
  expect(found.film!.starts.find(({ link }) => link === 'pelvis')!.time).toBeCloseTo(-58 / 240, 3);
  expect(found.set).toHaveLength(1);
  expect(await strikeToCompare(gym.db, 'gone')).toBeNull();
});

describe('marking again', () => {
  it('says from five strikes on how far markings differ', async () => {
    const errors = [2, -1, 0, 1, -2, 1];
    const saved = (await loadBench(gym.db, marked.clipId))!;
    const whole = { ready: { frame: 20, width: 1 }, ...AT_ONCE };
    const strikes = errors.map((_, i) => ({
      id: `s${i}`,
      technique: 'cross',
      side: 'right' as const,
      marks: { ...whole, trunk: { frame: 112 + 2 * i, width: 1 } },
    }));
    await saveBench(gym.db, marked.clipId, { ...saved, document: { ...saved.document, strikes } });
    expect(await strikesToRemark(gym.db)).toHaveLength(6);
    for (const [i, error] of errors.entries()) {
      if (i === 4) expect(await markingErrors(gym.db)).toEqual([]);
      const marks = { ...whole, trunk: { frame: 112 + 2 * i + error, width: 1 } };
      await keepRemark(gym.db, `s${i}`, { by: 'Hedda', marks });
    }
    const lead = (await markingErrors(gym.db)).find(({ id }) => id === 'lead.hipsTrunk')!;
    // Standard deviation of the differences ÷ √2 (Hopkins 2000), in frames of a 240th of a second.
    const mean = errors.reduce((sum, one) => sum + one, 0) / errors.length;
    const sd = Math.sqrt(
      errors.reduce((sum, one) => sum + (one - mean) ** 2, 0) / (errors.length - 1),
    );
    expect(lead.typicalError).toBeCloseTo(sd / Math.SQRT2 / 240, 5);
    expect(lead.subjects).toBe(6);
    expect((await strikesToRemark(gym.db))[0]!.times).toBe(1);
    expect(await keepRemark(gym.db, 'gone', { by: 'Hedda', marks: whole })).toBe(false);
  });
});

describe('a plan', () => {
  const item = (day: string, title: string) => ({
    ...{ day, title, kind: 'note' as const, session: null, studentId: null },
  });
  const titles = async () =>
    (await planBetween(gym.db, '2026-01-01', '2027-01-01')).map(({ title }) => title);

  it('keeps what was moved where it was dropped', async () => {
    const [a, b, c] = [
      await addItem(gym.db, item('2026-03-02', 'a')),
      await addItem(gym.db, item('2026-03-02', 'b')),
      await addItem(gym.db, item('2026-03-03', 'c')),
    ];
    await moveItem(gym.db, c, '2026-03-02', b);
    expect(await titles()).toEqual(['a', 'c', 'b']);
    await moveItem(gym.db, a, '2026-03-02', null);
    expect(await titles()).toEqual(['c', 'b', 'a']);
    await moveItem(gym.db, a, '2026-03-01', null);
    expect(await titles()).toEqual(['a', 'c', 'b']);
  });

  it('of a block is all there or not at all', async () => {
    const block = { name: 'Open floor', from: '2026-03-16', weekdays: [1, 3] };
    await expect(planBlock(gym.db, { ...block, target: '2026-03-01' })).rejects.toThrow(/after/);
    expect(await titles()).toEqual([]);
    const count = await planBlock(gym.db, { ...block, target: '2026-04-16' });
    expect(await titles()).toHaveLength(count + 1);
  });

  it('goes out as whole days of the calendar, over a change of clocks too (RFC 5545)', async () => {
    for (const day of ['2028-02-29', '2028-03-26']) await addItem(gym.db, item(day, `on ${day}`));
    const file = await calendarOf(gym.db, '2028-02-01');
    expect(file).toMatch(/^BEGIN:VCALENDAR\r\n/);
    expect(file).toContain('DTSTART;VALUE=DATE:20280229\r\nDTEND;VALUE=DATE:20280301');
    expect(file).toContain('DTSTART;VALUE=DATE:20280326\r\nDTEND;VALUE=DATE:20280327');
    expect(file.match(/BEGIN:VEVENT/g)).toHaveLength(2);
  });
});

describe('the gym’s sessions', () => {
  const slow = SESSIONS.find(({ id }) => id === 'slow-day')!;

  it('are Sinew’s until they are changed, and can go back', async () => {
    expect(await sessionsOf(gym.db)).toEqual(SESSIONS);
    await keepSession(gym.db, slow.id, { ...slow, name: 'Very slow day' });
    const own = { ...slow, id: 'own-abc', name: 'Ropes' };
    await keepSession(gym.db, own.id, own);
    const names = (await sessionsOf(gym.db)).map(({ name }) => name);
    expect(names).toHaveLength(SESSIONS.length + 1);
    expect(names).toEqual(expect.arrayContaining(['Very slow day', 'Ropes']));
    await keepSession(gym.db, slow.id, null);
    await keepSession(gym.db, own.id, null);
    expect(await sessionsOf(gym.db)).toEqual(SESSIONS);
  });

  it('stay when the gym’s name is changed', async () => {
    await keepSession(gym.db, slow.id, { ...slow, name: 'Very slow day' });
    await saveSettings(gym.db, { ...(await settingsOf(gym.db)), name: 'Renamed' });
    expect((await sessionsOf(gym.db)).map(({ name }) => name)).toContain('Very slow day');
  });
});

describe.each([
  ['UTC', 0],
  ['Europe/Oslo', -60],
  ['America/New_York', 300],
  ['Australia/Lord_Howe', -660],
  ['Pacific/Kiritimati', -840],
] as const)('in the time zone %s', (zone, offset) => {
  const before = process.env.TZ;
  beforeEach(() => {
    process.env.TZ = zone;
  });
  afterEach(() => {
    process.env.TZ = before;
  });

  it('every day comes once, in order, over both changes of the clocks and the leap day', () => {
    // Minutes behind Greenwich on that day (IANA time zone database).
    expect(new Date(2028, 0, 1).getTimezoneOffset()).toBe(offset);
    let day = dayIn(new Date(2028, 0, 1, 12));
    expect(day).toBe('2028-01-01');
    // Half an hour at a time: Lord Howe moves its clocks by no more.
    for (let at = new Date(2028, 0, 1, 12).getTime(); at < new Date(2029, 0, 2).getTime();) {
      at += 1_800_000;
      const next = dayIn(new Date(at));
      if (next === day) continue;
      expect(next).toBe(plusDays(day, 1));
      day = next;
    }
    expect(day).toBe('2029-01-02');
  });
});

it('the day is that of the wall clock, at every hour of every day', () => {
  const moment = fc.date({
    min: new Date(2020, 0, 1),
    max: new Date(2035, 0, 1),
    noInvalidDate: true,
  });
  fc.assert(
    fc.property(moment, (date) => {
      const [year, month, day] = dayIn(date).split('-').map(Number);
      expect([year, month, day]).toEqual([date.getFullYear(), date.getMonth() + 1, date.getDate()]);
    }),
  );
});
