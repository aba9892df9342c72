/** Actions on what the gym has made its own: library, sessions, ledger, settings, backups. */
import { afterAll, beforeAll, beforeEach, describe, expect, it, vi } from 'vitest';
import { limitId, isOfReading } from '@sinew/core/judge/fault/schema';
import { faultById } from '@sinew/core/judge/fault/faults';
import { SESSIONS } from '@sinew/core/train/work/session';
import { today } from '@/data/database/today';
import { measureAllLater, measureLater } from '@/data/finding/measureLater';
import { libraryHistory, libraryOf } from '@/data/gym/library';
import { saveSettings, sessionsOf, settingsOf } from '@/data/gym/gym';
import { backupFolder, backups } from '@/data/maintenance/backups';
import { notesOf, testsOf } from '@/data/progress/ledger';
import { studentById } from '@/data/student/students';
import * as gymScreen from '@/screens/gym/actions';
import * as ledger from '@/screens/ledger/actions';
import * as library from '@/screens/library/actions';
import * as timer from '@/screens/timer/actions';
import { startApp, type TestApp } from '../app';
import { markedClip, student } from '../support';
import { expectSentence } from './kit';

vi.mock('next/cache', () => ({ revalidatePath: vi.fn() }));
vi.mock('@/data/finding/measureLater', () => ({
  measureLater: vi.fn(),
  measureClipLater: vi.fn(async () => undefined),
  measureAllLater: vi.fn(async () => undefined),
}));

let app: TestApp;
let who: string;

beforeAll(async () => {
  app = await startApp();
});
afterAll(() => app.stop());
beforeEach(async () => {
  vi.clearAllMocks();
  who = await student(app.gym);
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

  it('lets a student be taught otherwise than the gym, and has their films judged anew', async () => {
    await library.chooseForStudent(who, { readingOrder: 'top-down' });
    expect((await studentById(app.gym.db, who))!.school).toEqual({ readingOrder: 'top-down' });
    expect(measureLater).toHaveBeenCalledExactlyOnceWith(who);
    await library.chooseForStudent(who, {});
    expect((await studentById(app.gym.db, who))!.school).toEqual({});
  });

  it.each([{ readingOrder: 'sideways' }, { noSuchKey: 'x' }])(
    'has no school such as %j',
    async (school) => {
      await expect(library.chooseForStudent(who, school as never)).rejects.toThrow();
      expect((await studentById(app.gym.db, who))!.school).toEqual({});
      expect(measureLater).not.toHaveBeenCalled();
    },
  );
});

describe('sessions of the timer', () => {
  const [rounds] = SESSIONS;

  it('are changed, and what comes with Sinew comes back', async () => {
    const ours = { ...rounds!, name: 'Ours' };
    expect(await timer.saveSession(ours, rounds!)).toBeNull();
    expect((await sessionsOf(app.gym.db))[0]!.name).toBe('Ours');
    expect(await timer.resetSession(ours)).toBeNull();
    expect(await sessionsOf(app.gym.db)).toEqual(SESSIONS);
  });

  it('changed in two tabs are the first one’s, and the second is told', async () => {
    const ours = { ...rounds!, name: 'Ours' };
    expect(await timer.saveSession(ours, rounds!)).toBeNull();
    const told = /^This session was changed meanwhile/;
    expect(await timer.saveSession({ ...rounds!, name: 'Theirs' }, rounds!)).toMatch(told);
    expect(await timer.resetSession(rounds!)).toMatch(told);
    expect((await sessionsOf(app.gym.db))[0]!.name).toBe('Ours');
    expect(await timer.resetSession(ours)).toBeNull();
  });

  it('of their own, drawn up in two tabs at once, are both kept', async () => {
    const own = ['own-a', 'own-b'].map((id) => ({ ...rounds!, id, name: id }));
    await Promise.all(own.map((one) => timer.saveSession(one, one)));
    expect(await sessionsOf(app.gym.db)).toEqual([...SESSIONS, ...own]);
    for (const one of own) expect(await timer.resetSession(one)).toBeNull();
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
    const said = await timer.saveSession({ ...rounds!, ...change } as never, rounds!);
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
    const known = (value: number) => ({ value, plusMinus: 0.1 });
    const given = { kind: 'throw' as const, standing: known(9), seated: known(6.25) };
    const test = { studentId: who, day: '2026-03-01', given };
    expect(await ledger.keepTest(test)).toBeNull();
    const [kept, ...others] = await testsOf(app.gym.db, who);
    expect(others).toEqual([]);
    expect(kept!.given).toEqual(given);
    // √(9 ÷ 6.25) − 1, by hand.
    expect(kept!.results[0]!.text).toMatch(/^20 ± 1/);
  });

  it.each([
    ['of another kind', { kind: 'no-such' }],
    ['of no distance', { kind: 'throw', standing: { value: 9, plusMinus: 0.1 } }],
    [
      'of a throw of a mile',
      {
        kind: 'throw',
        standing: { value: 1609, plusMinus: 0.1 },
        seated: { value: 6, plusMinus: 0.1 },
      },
    ],
    ['of a ladder of one rung', { kind: 'ladder', rungs: [] }],
  ])('keeps no test %s, and says why', async (_, given) => {
    expectSentence(await ledger.keepTest({ studentId: who, day: '2026-03-01', given } as never));
    expect(await testsOf(app.gym.db, who)).toEqual([]);
  });
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
