/** Actions on work and plan: given, logged, gated, planned, taken off. */
import { afterAll, beforeAll, beforeEach, describe, expect, it, vi } from 'vitest';
import { plusDays } from '@sinew/core/foundation/calendar/day';
import { today } from '@/data/database/today';
import { planBetween } from '@/data/work/plan';
import { logsOf } from '@/data/work/drillLog';
import { workOf } from '@/data/work/work';
import * as bench from '@/screens/bench/document/actions';
import * as planScreen from '@/screens/plan/actions';
import * as work from '@/screens/work/actions';
import { startApp, type TestApp } from '../app';
import { markedClip, student, type MarkedClip } from '../support';
import { expectSentence } from './kit';

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
  vi.clearAllMocks();
  who = await student(app.gym);
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
