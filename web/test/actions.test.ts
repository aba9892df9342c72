/** Every server action, as a page calls it: what it keeps, what it refuses and in which words. */
import { afterAll, beforeAll, beforeEach, describe, expect, it, vi } from 'vitest';
import { revalidatePath } from 'next/cache';
import { plusDays } from '@sinew/core/foundation/calendar/day';
import { limitId, isOfReading } from '@sinew/core/judge/fault/schema';
import { faultById } from '@sinew/core/judge/fault/faults';
import { SESSIONS } from '@sinew/core/train/work/session';
import { today } from '@/data/database/today';
import { measureAllLater, measureLater } from '@/data/finding/measureLater';
import { activeCues, decisionsOf } from '@/data/finding/findings';
import { cameraSetups } from '@/data/gym/cameraSetups';
import { libraryHistory, libraryOf } from '@/data/gym/library';
import { saveSettings, sessionsOf, settingsOf } from '@/data/gym/gym';
import { backupFolder, backups } from '@/data/maintenance/backups';
import { trash } from '@/data/maintenance/trash';
import { notesOf, testsOf } from '@/data/progress/ledger';
import { studentById } from '@/data/student/students';
import { planBetween } from '@/data/work/plan';
import { logsOf } from '@/data/work/drillLog';
import { workOf } from '@/data/work/work';
import * as bench from '@/screens/bench/document/actions';
import * as gymScreen from '@/screens/gym/actions';
import * as ledger from '@/screens/ledger/actions';
import * as library from '@/screens/library/actions';
import * as marking from '@/screens/marking/actions';
import * as planScreen from '@/screens/plan/actions';
import * as students from '@/screens/student/actions';
import { seenOf } from '@/screens/student/studentValues';
import * as timer from '@/screens/timer/actions';
import * as work from '@/screens/work/actions';
import { startApp, type TestApp } from './app';
import { markedClip, student, type MarkedClip } from './support';

vi.mock('next/cache', () => ({ revalidatePath: vi.fn() }));
vi.mock('@/data/finding/measureLater', () => ({
  measureLater: vi.fn(),
  measureClipLater: vi.fn(async () => undefined),
  measureAllLater: vi.fn(async () => undefined),
}));

let app: TestApp;
let who: string;
let marked: MarkedClip;

beforeAll(async () => {
  app = await startApp();
});
afterAll(() => app.stop());
beforeEach(async () => {
  who = await student(app.gym);
  vi.mocked(revalidatePath).mockClear();
  vi.mocked(measureLater).mockClear();
  vi.mocked(measureAllLater).mockClear();
});

/** Pages that show it are made anew, or are left alone. */
const isShown = () => vi.mocked(revalidatePath).mock.calls.length > 0;
/** Ours: a whole sentence, and nothing of a validator’s. */
const expectSentence = (said: unknown) => {
  expect(said).toMatch(/^[A-Z“][^<>]*[.?]$/);
  expect(said).not.toMatch(/\b(expected|received|undefined|NaN|Invalid|Too (small|big))\b/);
};
const form = (fields: Record<string, string>) => {
  const data = new FormData();
  for (const [key, value] of Object.entries(fields)) data.set(key, value);
  return data;
};
const EMPTY = { values: {}, errors: {} };

describe('a student’s form', () => {
  const fields = {
    name: 'Tova Brandt',
    stance: 'southpaw',
    bornOn: '2001-05-06',
    heightCm: '171,5',
    massKg: '64',
    key: 'key-of-the-form',
  };

  it('adds a student once, however often it is sent', async () => {
    const first = await students.saveStudent(null, EMPTY, form(fields));
    const second = await students.saveStudent(null, EMPTY, form(fields));
    expect(first.saved).toBeTruthy();
    expect(second.saved).toBe(first.saved);
    const kept = (await studentById(app.gym.db, first.saved!))!;
    expect(kept).toMatchObject({ name: 'Tova Brandt', stance: 'southpaw', heightM: 1.715 });
    expect(isShown()).toBe(true);
  });

  it('says of each field what is wrong with it, keeps what was typed, and saves nothing', async () => {
    const wrong = {
      ...fields,
      name: ' ',
      heightCm: '17',
      massKg: 'heavy',
      key: 'another-form-key',
    };
    const { errors, values, saved } = await students.saveStudent(null, EMPTY, form(wrong));
    expect(Object.keys(errors).sort()).toEqual(['heightCm', 'massKg', 'name']);
    Object.values(errors).forEach(expectSentence);
    expect(values.massKg).toBe('heavy');
    expect(saved).toBeUndefined();
    expect(isShown()).toBe(false);
  });

  it('changed has the films measured anew: stance and size are part of what is measured', async () => {
    const seen = seenOf(await studentById(app.gym.db, who));
    await students.saveStudent(who, EMPTY, form({ ...fields, name: 'Renamed', seen }));
    expect((await studentById(app.gym.db, who))!.name).toBe('Renamed');
    expect(measureLater).toHaveBeenCalledWith(who);
  });

  it('that another tab has changed meanwhile keeps what that tab kept, and says so', async () => {
    const seen = seenOf(await studentById(app.gym.db, who));
    await students.saveStudent(who, EMPTY, form({ ...fields, name: 'First', seen }));
    const second = await students.saveStudent(
      who,
      EMPTY,
      form({ ...fields, name: 'Second', seen }),
    );
    expect(second.errors.form).toMatch(/^This student was changed meanwhile/);
    expect(second.values.name).toBe('Second');
    expect((await studentById(app.gym.db, who))!.name).toBe('First');
  });

  it('of somebody who is gone says so', async () => {
    const { errors, saved } = await students.saveStudent('nobody', EMPTY, form(fields));
    expectSentence(errors.name);
    expect(saved).toBeUndefined();
  });

  it('keeps a birth date by itself, and no day that is none', async () => {
    expect(await students.saveBirthDate(who, '2012-02-29')).toBeNull();
    expect((await studentById(app.gym.db, who))!.bornOn).toBe('2012-02-29');
    for (const day of ['2013-02-29', plusDays(today(), 1), 'soon', '']) {
      expectSentence(await students.saveBirthDate(who, day));
    }
    expect((await studentById(app.gym.db, who))!.bornOn).toBe('2012-02-29');
  });

  it('is put into the archive, put away, and brought back', async () => {
    await students.archive(who, true);
    expect((await studentById(app.gym.db, who))!.isArchived).toBe(true);
    await students.archive(who, false);
    expect((await studentById(app.gym.db, who))!.isArchived).toBe(false);
    const isAway = async () => (await trash(app.gym.db)).some(({ id }) => id === who);
    await students.setPutAway('student', who, true);
    expect(await isAway()).toBe(true);
    await students.setPutAway('student', who, false);
    expect(await isAway()).toBe(false);
    await expect(students.setPutAway('gym' as never, who, true)).rejects.toThrow();
  });
});

describe('a consent', () => {
  const consentsOf = (id: string) =>
    app.gym.db.selectFrom('consent').selectAll().where('student_id', '=', id).execute();
  const fields = { givenBy: 'student', name: 'Tova Brandt', givenOn: '2026-01-02' };
  const key = 'key-of-the-consent';

  it('is recorded once, mended, and withdrawn', async () => {
    const nobody = await student(app.gym, { consent: null });
    const send = (id: string | null, change = {}) =>
      students.saveConsent(nobody, id, EMPTY, form({ ...fields, key, ...change }));
    await send(null);
    await send(null);
    const [consent, ...others] = await consentsOf(nobody);
    expect(others).toEqual([]);
    await send(consent!.id, { name: 'T. Brandt' });
    expect((await consentsOf(nobody))[0]!.name).toBe('T. Brandt');
    const until = plusDays(today(), 30);
    expect(await students.endConsent(nobody, { films: 'keep', until })).toBeNull();
    expect((await consentsOf(nobody))[0]!.films_until).toBe(until);
  });

  it('needs a name and a day that has been', async () => {
    const { errors } = await students.saveConsent(
      who,
      null,
      EMPTY,
      form({ givenBy: 'student', name: '', givenOn: plusDays(today(), 1), key }),
    );
    expect(Object.keys(errors).sort()).toEqual(['givenOn', 'name']);
    Object.values(errors).forEach(expectSentence);
  });

  it('that ends must say what becomes of the films', async () => {
    expectSentence(await students.endConsent(who, { films: 'keep', until: '' }));
    expectSentence(await students.endConsent(who, { films: 'keep', until: today() }));
    expect((await consentsOf(who))[0]!.withdrawn_at).toBeNull();
  });
});

it('a clip goes to whose it is, with everything of it', async () => {
  const [mine, yours] = [who, await student(app.gym)];
  const { clipId } = await markedClip(app.gym, mine);
  const outcome = await students.moveTo(clipId, yours);
  expect(outcome).toEqual({ moved: 1 });
  const { student_id } = await app.gym.db
    .selectFrom('clip')
    .select('student_id')
    .where('id', '=', clipId)
    .executeTakeFirstOrThrow();
  expect(student_id).toBe(yours);
});

describe('the coach’s word on a finding', () => {
  const leak = 'all-at-once';
  const decided = async () => (await decisionsOf(app.gym.db, marked.clipId))[marked.strikeId] ?? [];
  const statusOf = async () => (await decided()).find(({ fault }) => fault === leak)?.status;

  beforeEach(async () => {
    marked = await markedClip(app.gym, who);
  });

  it('makes a cue, which can be said otherwise', async () => {
    expect(await bench.accept(marked.strikeId, leak, false, 'strike')).toEqual({
      kind: 'accepted',
    });
    expect(await statusOf()).toBe('accepted');
    const cue = (await activeCues(app.gym.db, who))[0]!;
    expect(await bench.rewordCue(cue.id, '  Hips, then hand.  ', cue.text)).toBeNull();
    expect((await activeCues(app.gym.db, who))[0]!.text).toBe('Hips, then hand.');
    expectSentence(await bench.rewordCue(cue.id, '   ', cue.text));
    expectSentence(await bench.rewordCue(cue.id, 'x'.repeat(201), cue.text));
    // Another tab still has the first words before it.
    expect(await bench.rewordCue(cue.id, 'Hand first.', cue.text)).toMatch(/^This cue was changed/);
    expect((await activeCues(app.gym.db, who))[0]!.text).toBe('Hips, then hand.');
  });

  it('puts it aside with a reason, or for now, and takes it up again', async () => {
    expect(await bench.dismiss(marked.strikeId, leak, 'The film is too dark')).toBe(true);
    expect(await statusOf()).toBe('dismissed');
    await bench.reopen(marked.strikeId, leak);
    expect(await statusOf()).toBeUndefined();
    expect(await bench.notNow(marked.strikeId, leak)).toBe(true);
    expect(await statusOf()).toBe('later');
    await expect(bench.dismiss(marked.strikeId, leak, ' ')).rejects.toThrow();
  });

  it('on what the strike does not show changes nothing', async () => {
    expect(await bench.accept(marked.strikeId, 'no-such', false, 'strike')).toEqual({
      kind: 'not-found',
    });
    expect(await bench.dismiss(marked.strikeId, 'no-such', 'why')).toBe(false);
    expect(await decided()).toEqual([]);
  });
});

it('a camera set-up is kept under its name, and forgotten', async () => {
  const calibration = {
    view: 'side' as const,
    scale: null,
    target: null,
    rectangle: null,
    lens: null,
  };
  const setup = { name: ' By the door ', width: 1280, height: 720, calibration };
  expect(await bench.keepSetup(setup)).toBeNull();
  const kept = (await cameraSetups(app.gym.db)).find(({ name }) => name === 'By the door')!;
  expect(kept).toMatchObject({ width: 1280, height: 720 });
  await bench.forgetSetup(kept.id);
  expect(await cameraSetups(app.gym.db)).toEqual([]);
  expectSentence(await bench.keepSetup({ ...setup, name: '' }));
  expectSentence(await bench.keepSetup({ ...setup, name: 'x'.repeat(61) }));
});

describe('work', () => {
  const fault = () => ({ studentId: who, technique: 'cross', fault: 'all-at-once' });
  const workNow = async () => (await workOf(app.gym.db, who))!;
  const log = (change = {}) => ({
    id: `log-${who}`,
    studentId: who,
    prescriptionId: null,
    technique: 'cross',
    name: 'Bag',
    day: today(),
    intent: 'slow' as const,
    strikes: 20,
    seconds: 0,
    clean: 18,
    countedBy: 'tap' as const,
    ...change,
  });

  beforeEach(async () => {
    marked = await markedClip(app.gym, who);
    await bench.accept(marked.strikeId, 'all-at-once', false, 'strike');
  });

  it('is given by one press, checked on another day, stopped, and taken up again', async () => {
    expect(await work.giveFor(fault())).toMatchObject({ kind: 'given' });
    const [given] = (await workNow()).given;
    expect(given!.fault).toBe('all-at-once');
    const day = plusDays(today(), 3);
    await work.checkOn(given!.id, day);
    expect((await workNow()).given[0]!.nextCheck).toBe(day);
    await work.endWork(given!.id, 'stopped');
    expect((await workNow()).given).toEqual([]);
    await work.endWork(given!.id, 'active');
    expect((await workNow()).given).toHaveLength(1);
    await expect(work.endWork(given!.id, 'lost' as never)).rejects.toThrow();
    await expect(work.checkOn(given!.id, 'soon')).rejects.toThrow();
  });

  it('as the coach has changed it is given as it is, or not at all', async () => {
    const { prescription } = (await workNow()).proposals[0]!;
    const wanted = {
      ...prescription,
      studentId: who,
      worksOn: { technique: 'cross', fault: 'all-at-once' },
      override: '',
    };
    const unnamed = await work.give({ ...wanted, name: ' ' });
    expect(unnamed.kind).toBe('wrong');
    expectSentence('reason' in unnamed && unnamed.reason);
    expect((await workNow()).given).toEqual([]);
    expect(await work.give({ ...wanted, dose: '3 × 8, slowly' })).toMatchObject({ kind: 'given' });
    expect((await workNow()).given[0]!.dose).toBe('3 × 8, slowly');
  });

  it('done is logged once, taken away, and brought back', async () => {
    expect(await work.log(log())).toBeNull();
    expect(await work.log(log())).toBeNull();
    expect(await logsOf(app.gym.db, who)).toHaveLength(1);
    await work.setLogGone(`log-${who}`, true);
    expect(await logsOf(app.gym.db, who)).toEqual([]);
    await work.setLogGone(`log-${who}`, false);
    expect(await logsOf(app.gym.db, who)).toHaveLength(1);
  });

  it('that was not possible is not logged', async () => {
    expectSentence(await work.log(log({ strikes: -1 })));
    expectSentence(await work.log(log({ clean: 21 })));
    expectSentence(await work.log(log({ name: '' })));
    expectSentence(await work.log(log({ day: '2026-02-30' })));
    expect(await logsOf(app.gym.db, who)).toEqual([]);
  });

  it('of a whole class is logged for all or for none', async () => {
    const other = await student(app.gym);
    const both = [log(), log({ id: `log-${other}`, studentId: other })];
    expectSentence(await work.logAll([...both, log({ id: 'third', clean: 99 })]));
    expect(await logsOf(app.gym.db, who)).toEqual([]);
    expect(await work.logAll(both)).toBeNull();
    expect(await logsOf(app.gym.db, other)).toHaveLength(1);
  });

  it('has a gate that is opened with a reason, and a leak that is closed with one', async () => {
    const gate = { studentId: who, technique: 'cross' as const, to: 'full' as const };
    expectSentence(await work.setGate({ ...gate, reason: '' }));
    expect(await work.setGate({ ...gate, reason: 'Clean in sparring' })).toBeNull();
    expectSentence(await work.close(fault(), '  '));
    expect(await work.close(fault(), 'Gone since March')).toBeNull();
    expect((await workNow()).proposals).toEqual([]);
  });
});

describe('the plan', () => {
  const item = (title: string, change = {}) => ({
    day: '2031-03-03',
    kind: 'note' as const,
    session: null,
    title,
    studentId: null,
    ...change,
  });
  const planned = () => planBetween(app.gym.db, '2031-01-01', '2032-01-01');

  it('has something put in, moved, ticked and taken out', async () => {
    expect(await planScreen.plan(item('Pads'))).toBeNull();
    const [pads] = await planned();
    await planScreen.move(pads!.id, '2031-03-05', null);
    await planScreen.tick(pads!.id, true);
    expect((await planned())[0]).toMatchObject({ day: '2031-03-05', isDone: true });
    await planScreen.tick(pads!.id, false);
    expect((await planned())[0]!.isDone).toBe(false);
    await planScreen.unplan(pads!.id);
    expect(await planned()).toEqual([]);
  });

  it('takes nothing without words, and no day that is none', async () => {
    expectSentence(await planScreen.plan(item('  ')));
    expectSentence(await planScreen.plan(item('x'.repeat(121))));
    expectSentence(await planScreen.plan(item('Pads', { day: '2031-02-29' })));
    expect(await planned()).toEqual([]);
  });

  it('takes a block whole, and what is not done of it out again', async () => {
    const block = {
      name: 'Open floor',
      from: '2031-03-03',
      target: '2031-03-31',
      weekdays: [1, 3],
    };
    expectSentence(await planScreen.planWeeks({ ...block, weekdays: [] }));
    expectSentence(await planScreen.planWeeks({ ...block, target: '2031-03-01' }));
    expectSentence(await planScreen.planWeeks({ ...block, target: '2032-03-01' }));
    expectSentence(await planScreen.planWeeks({ ...block, name: '' }));
    expect(await planned()).toEqual([]);
    // Eight days of the class, three tests between, and the day it is all for.
    expect(await planScreen.planWeeks(block)).toBe(11);
    const all = await planned();
    expect(all).toHaveLength(12);
    await planScreen.tick(all[0]!.id, true);
    await planScreen.unplanBlock(all[0]!.block!);
    expect((await planned()).map(({ id }) => id)).toEqual([all[0]!.id]);
  });
});

describe('the library', () => {
  const jammed = faultById('jammed')!;
  const [first] = jammed.cases;
  const limit = first!.limits.find(isOfReading)!;
  const change = {
    kind: 'limit' as const,
    fault: 'jammed',
    limit: limitId(first!, limit),
    value: limit.value + 0.1,
  };
  const historyNow = () => libraryHistory(app.gym.db);

  it('changes a limit under the coach’s name, says what follows, and has all measured anew', async () => {
    const outcome = await library.change('Ada', change, null);
    expect(outcome.kind).toBe('kept');
    const kept = faultById('jammed', (await libraryOf(app.gym.db)).catalogue)!;
    expect(kept.cases[0]!.limits.find(isOfReading)!.value).toBeCloseTo(limit.value + 0.1, 12);
    expect((await historyNow())[0]).toMatchObject({ by: 'Ada', what: 'Jammed: limit' });
    expect(measureAllLater).toHaveBeenCalled();
    const stale = await library.change('Bo', { ...change, value: 1 }, null);
    expect('why' in stale && stale.why).toMatch(/^This was changed meanwhile/);
    const was = { limits: { [change.limit]: change.value } };
    await library.change('Ada', { ...change, value: null }, was);
    expect(faultById('jammed', (await libraryOf(app.gym.db)).catalogue)).toEqual(jammed);
  });

  it.each([
    ['without a name', '', change],
    ['of a leak that is not there', 'Ada', { ...change, fault: 'no-such' }],
    ['of a limit that is not there', 'Ada', { ...change, limit: 'no-such' }],
    ['to a drill that is not there', 'Ada', { kind: 'drill-of', fault: 'jammed', drill: 'x' }],
    ['of a school setting that is not there', 'Ada', { kind: 'school', key: 'x', choice: 'y' }],
    ['to a cue without words', 'Ada', { kind: 'cue', fault: 'jammed', text: '' }],
    ['of another kind', 'Ada', { kind: 'burn' }],
  ])('refuses a change %s in words, and writes no history', async (_, by, wanted) => {
    const before = await historyNow();
    const outcome = await library.change(by, wanted as never, null);
    expect(outcome.kind).toBe('wrong');
    expectSentence('why' in outcome && outcome.why);
    expect(await historyNow()).toEqual(before);
    expect(measureAllLater).not.toHaveBeenCalled();
  });

  it('lets a student be taught otherwise than the gym', async () => {
    await library.chooseForStudent(who, { guard: 'low' }).catch(() => undefined);
    expect(measureLater).toHaveBeenCalledTimes(
      (await studentById(app.gym.db, who))!.school.guard === 'low' ? 1 : 0,
    );
  });
});

describe('sessions of the timer', () => {
  const [rounds] = SESSIONS;

  it('are changed, and what comes with Sinew comes back', async () => {
    expect(await timer.saveSession({ ...rounds!, name: 'Ours' })).toBeNull();
    expect((await sessionsOf(app.gym.db))[0]!.name).toBe('Ours');
    await timer.resetSession(rounds!.id);
    expect(await sessionsOf(app.gym.db)).toEqual(SESSIONS);
  });

  it.each([
    ['no name', { name: '' }, /^The session’s name is missing\.$/],
    ['no parts', { blocks: [] }, /made of/],
    [
      'a part without a title',
      { blocks: [{ ...rounds!.blocks[0]!, title: '' }] },
      /^Part 1: The title/,
    ],
    [
      'a round of two seconds',
      { blocks: [rounds!.blocks[0]!, { ...rounds!.blocks[0]!, work: 2 }] },
      /^Part 2: The work of a round, in seconds, is too small: 5 at least\.$/,
    ],
  ])('with %s are not kept', async (_, change, says) => {
    const said = await timer.saveSession({ ...rounds!, ...change } as never);
    expectSentence(said);
    expect(said).toMatch(says);
    expect(await sessionsOf(app.gym.db)).toEqual(SESSIONS);
  });
});

describe('the ledger', () => {
  it('keeps a note, and none without words', async () => {
    const note = { studentId: who, technique: null, day: '2026-03-01', text: ' Slept badly. ' };
    expect(await ledger.note(note)).toBeNull();
    expect((await notesOf(app.gym.db, who))[0]!.text).toBe('Slept badly.');
    expectSentence(await ledger.note({ ...note, text: ' ' }));
    expectSentence(await ledger.note({ ...note, text: 'x'.repeat(2001) }));
    expect(await notesOf(app.gym.db, who)).toHaveLength(1);
  });

  it('keeps a test in the gym with what follows from it', async () => {
    const given = { kind: 'throw', ball: 3, distances: [6.1, 6.4, 6.2] };
    const test = { studentId: who, day: '2026-03-01', given };
    const said = await ledger.keepTest(test as never);
    expect(said === null || typeof said === 'string').toBe(true);
    expectSentence(await ledger.keepTest({ ...test, given: { kind: 'no-such' } } as never));
    expect(await testsOf(app.gym.db, who)).toHaveLength(said === null ? 1 : 0);
  });
});

it('marks set again need a name, and a strike that is there', async () => {
  marked = await markedClip(app.gym, who);
  const [strike] = marked.document.strikes;
  const input = { by: 'Ada', marks: strike!.marks };
  expectSentence(await marking.keepMarks(marked.strikeId, { ...input, by: ' ' } as never));
  expect(await marking.keepMarks('no-such-strike', input as never)).toBe(
    'This strike is not there any more.',
  );
  expect(await marking.keepMarks(marked.strikeId, input as never)).toBeNull();
});

describe('the gym', () => {
  it('has its name and classes changed, and is not left without a name', async () => {
    const settings = await settingsOf(app.gym.db);
    const renamed = { ...settings, name: 'The Boathouse' };
    expect(await gymScreen.keepSettings(renamed, settings)).toBeNull();
    // Another tab still shows the old name, and has changed something else.
    const stale = await gymScreen.keepSettings({ ...settings, className: 'Monday' }, settings);
    expect(stale).toMatch(/^The gym’s settings were changed meanwhile/);
    expect((await settingsOf(app.gym.db)).name).toBe('The Boathouse');
    expectSentence(await gymScreen.keepSettings({ ...settings, name: ' ' }, renamed));
    expect((await settingsOf(app.gym.db)).name).toBe('The Boathouse');
  });

  it('takes the date confirmed only when it is the one that was seen', async () => {
    expectSentence(await gymScreen.confirmDate('2001-01-01'));
    expect(await gymScreen.confirmDate(today())).toBeNull();
  });

  it('puts films that belong to nobody aside, and touches no film of anybody', async () => {
    const { clipId } = await markedClip(app.gym, who);
    expect(await gymScreen.putFilmsAside()).toBeNull();
    expect((await app.fetch(`/api/clips/${clipId}/file`)).status).toBe(200);
  });

  // The last: it closes the database that the others were on.
  it('is backed up, changed, and taken back to how it was', async () => {
    const settings = await settingsOf(app.gym.db);
    expect(await gymScreen.backUpNow()).toBeNull();
    const [backup] = await backups(backupFolder(app.gym.folder));
    await saveSettings(app.gym.db, { ...settings, name: 'Spoilt' });
    expect(await gymScreen.goBackTo(backup!.name)).toBeNull();
    const { database } = await import('@/data/database/database');
    expect((await settingsOf(await database())).name).toBe(settings.name);
    expectSentence(await gymScreen.goBackTo('no-such-backup'));
  });
});
