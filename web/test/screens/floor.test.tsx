// @vitest-environment happy-dom
/** The Floor: who is next and why, what a row leads to by key, who is shown. */
import { cleanup, screen, within } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { plusDays } from '@sinew/core/foundation/calendar/day';
import { FAULTS } from '@sinew/core/judge/fault/faults';
import { NOTHING, type FloorFacts } from '@/data/gym/floor';
import type { Cue } from '@/data/finding/findings';
import type { Student } from '@/data/student/students';
import { Floor } from '@/screens/floor/Floor';
import { floorHeadline, floorRows, trainingTime, type FloorRow } from '@/screens/floor/rows';
import { onScreen, student } from './kit';

const push = vi.hoisted(() => vi.fn());
vi.mock('next/navigation', () => ({
  useRouter: () => ({ push }),
  usePathname: () => '/',
  useSearchParams: () => new URLSearchParams(),
}));

afterEach(cleanup);
beforeEach(() => push.mockClear());

const TODAY = '2026-11-28';

const cue = (change: Partial<Cue> = {}): Cue => ({
  id: 'cue',
  studentId: 'ada',
  technique: 'cross',
  text: 'Hips, then hand.',
  drill: 'slow-chain',
  fault: 'all-at-once',
  evidence: '',
  strikeId: 's',
  clipId: 'c',
  updatedAt: '2026-11-01',
  isWorked: false,
  film: null,
  ...change,
});

const work = (change: object = {}) =>
  ({
    name: 'Slow chain',
    technique: 'cross',
    nextCheck: plusDays(TODAY, 5),
    sessions: 1,
    retest: null,
    ...change,
  }) as unknown as FloorFacts['work'][number];

const open = (id: string, isToConfirm = false) =>
  ({ id, view: 'side', technique: 'cross', isToConfirm }) as unknown as FloorFacts['open'][number];

function rowOf(
  facts: Partial<FloorFacts>,
  given: { who?: Student; cues?: readonly Cue[]; hurts?: boolean } = {},
): FloorRow {
  const { who = student(), cues = [], hurts = false } = given;
  const [row] = floorRows({
    students: [who],
    facts: new Map([[who.id, { ...NOTHING, ...facts }]]),
    cues,
    hurting: new Set(hurts ? [who.id] : []),
    today: TODAY,
  });
  return row!;
}

describe('what is next for a student', () => {
  const next = (...given: Parameters<typeof rowOf>) => rowOf(...given).next;

  it('is slow work alone while something can hurt, whatever else waits', () => {
    expect(next({ clips: 2, work: [work()], open: [open('a')] }, { hurts: true })).toEqual({
      text: 'Slow only',
      note: 'something hurts or can: clear it first',
      href: '/students/ada/work',
    });
  });

  it('is the consent before any film, a guardian’s where it takes one', () => {
    expect(next({}, { who: student({ consent: null }) })).toMatchObject({
      text: 'Ask for consent',
      note: 'before filming',
    });
    const minor = student({ consent: null, isMinor: true });
    expect(next({}, { who: minor }).note).toBe('a guardian’s, before filming');
  });

  it('is the first film where there is none', () => {
    expect(next({})).toEqual({
      text: 'First film',
      note: 'stance first',
      href: '/capture?student=ada',
    });
  });

  it('is to film again when the day has come, or it was worked three times', () => {
    const due = work({ nextCheck: TODAY });
    expect(next({ clips: 1, work: [due] })).toMatchObject({
      text: 'Film again',
      href: '/capture?student=ada&technique=cross&retest=1',
    });
    expect(next({ clips: 1, work: [work({ sessions: 3 })] }).note).toBe('worked three times');
  });

  it('is to compare where it has been filmed again', () => {
    const retest = { then: 'x', now: 'y', day: TODAY };
    expect(next({ clips: 2, work: [work({ nextCheck: TODAY, retest })] })).toMatchObject({
      text: 'Did it change?',
      href: '/compare?a=x&b=y',
    });
  });

  it('is to mark, or to confirm what Sinew has marked', () => {
    expect(next({ clips: 1, open: [open('a')] })).toMatchObject({
      text: 'Mark the clip',
      href: '/bench/a',
    });
    expect(next({ clips: 2, open: [open('a'), open('b')] }).text).toBe('Mark 2 clips');
    expect(next({ clips: 1, open: [open('a', true)] }).text).toBe('Confirm the clip');
    expect(next({ clips: 2, open: [open('a', true), open('b')] }).text).toBe('Mark 2 clips');
  });

  it('is the work given, the work to give, or another film', () => {
    expect(next({ clips: 1, work: [work()] })).toMatchObject({
      text: 'Slow chain',
      href: '/students/ada/work',
    });
    expect(next({ clips: 1 }, { cues: [cue()] }).text).toBe('Give the work');
    expect(next({ clips: 1 })).toMatchObject({ text: 'Film again', note: 'no leak open' });
  });
});

describe('a row', () => {
  it('says how long somebody has trained, and when a consent is about to end', () => {
    expect(trainingTime(null, TODAY)).toBeNull();
    expect(trainingTime('2026-11-20', TODAY)).toBe('new');
    expect(trainingTime('2026-10-24', TODAY)).toBe('5 weeks');
    expect(trainingTime('2026-05-28', TODAY)).toBe('6 months');
    expect(trainingTime('2023-11-20', TODAY)).toBe('3 years');
    const consent = { ...student().consent!, expiresOn: plusDays(TODAY, 3) };
    expect(rowOf({}, { who: student({ consent }) }).about).toMatch(/^orthodox, consent ends /);
    const far = { ...consent, expiresOn: plusDays(TODAY, 60) };
    expect(rowOf({}, { who: student({ consent: far }) }).about).toBe('orthodox');
  });

  it('waits for the coach when something is to be marked, is due, hurts, or lacks consent', () => {
    expect(rowOf({ clips: 1 }).isDue).toBe(false);
    expect(rowOf({ clips: 1, open: [open('a')] }).isDue).toBe(true);
    expect(rowOf({ clips: 1, work: [work({ nextCheck: TODAY })] }).isDue).toBe(true);
    expect(rowOf({ clips: 1 }, { hurts: true }).isDue).toBe(true);
    expect(rowOf({ clips: 1 }, { who: student({ consent: null }) }).isDue).toBe(true);
  });

  it('of a cue that can hurt says so', () => {
    expect(
      rowOf({ clips: 1 }, { cues: [cue({ fault: FAULTS.find(({ injury }) => injury)!.id })] })
        .cues[0]!.isInjury,
    ).toBe(true);
    expect(rowOf({ clips: 1 }, { cues: [cue()] }).cues[0]!.isInjury).toBe(false);
  });

  it('is not made of somebody in the archive', () => {
    const facts = new Map();
    const archived = [student({ isArchived: true })];
    expect(
      floorRows({ students: archived, facts, cues: [], hurting: new Set(), today: TODAY }),
    ).toEqual([]);
  });
});

it('the headline counts students, and clips by what they wait for', () => {
  const rows = ['a', 'b'].map((id) => ({ ...rowOf({}), id }));
  const say = (...clips: ReturnType<typeof open>[]) =>
    floorHeadline(rows, new Map([['a', { ...NOTHING, open: clips }]]));
  expect(say()).toBe('Two students, no clip waiting.');
  expect(say(open('x'))).toBe('Two students, one clip to mark.');
  expect(say(open('x', true), open('y', true))).toBe('Two students, two clips to confirm.');
  expect(say(open('x', true), open('y'))).toBe('Two students, one clip to confirm, one to mark.');
  expect(floorHeadline(rows.slice(0, 1), new Map())).toBe('One student, no clip waiting.');
});

describe('the table', () => {
  const named = (name: string, change: Partial<FloorRow> = {}): FloorRow => ({
    ...rowOf({ clips: 1 }),
    id: name.toLowerCase(),
    name,
    next: { text: `Next for ${name}`, note: '', href: `/next/${name.toLowerCase()}` },
    benchHref: `/bench/${name.toLowerCase()}`,
    ...change,
  });
  const floor = (rows: readonly FloorRow[], archived: readonly Student[] = []) =>
    onScreen(
      <Floor
        gym={{ name: 'Wrayholm Boathouse', className: 'Tuesday class' }}
        rows={rows}
        headline="Three students."
        archived={archived}
        today={[]}
        notices={null}
      />,
    );
  const shown = () =>
    within(screen.getByRole('table'))
      .getAllByRole('row')
      .slice(1)
      .map((row) => row.querySelector('td')!.textContent);
  const inHand = () => document.querySelector('tr[aria-current]')?.querySelector('td')?.textContent;

  it('has its rows walked by arrow keys, no further than they go, and Enter does what is next', async () => {
    const { user } = floor([named('Ada'), named('Bo'), named('Cleo')]);
    expect(inHand()).toContain('Ada');
    await user.keyboard('{ArrowUp}');
    expect(inHand()).toContain('Ada');
    await user.keyboard('{ArrowDown}{ArrowDown}{ArrowDown}');
    expect(inHand()).toContain('Cleo');
    await user.keyboard('{ArrowUp}{Enter}');
    expect(push).toHaveBeenLastCalledWith('/next/bo');
  });

  it.each([
    ['b', '/bench/ada'],
    ['f', '/capture?student=ada'],
    ['s', '/students/ada'],
    ['w', '/students/ada/work'],
    ['l', '/students/ada/ledger'],
  ])('opens by %s what belongs to the student in hand', async (key, path) => {
    const { user } = floor([named('Ada')]);
    await user.keyboard(key);
    expect(push).toHaveBeenLastCalledWith(path);
  });

  it('goes to no bench where there is no clip', async () => {
    const { user } = floor([named('Ada', { benchHref: null })]);
    await user.keyboard('b');
    expect(push).not.toHaveBeenCalled();
  });

  it('finds by a part of the name, and says when nobody is found', async () => {
    const { user } = floor([named('Ada'), named('Bo')]);
    await user.keyboard('/');
    await user.keyboard('b');
    expect(shown()).toEqual([expect.stringContaining('Bo')]);
    // Keys are letters while a name is typed.
    expect(push).not.toHaveBeenCalled();
    await user.keyboard('xyz');
    expect(screen.getByText('Nobody of that name here.')).toBeTruthy();
  });

  it('shows who waits, and one class, and everybody again', async () => {
    const { user } = floor([
      named('Ada', { isDue: true, classGroup: 'Juniors' }),
      named('Bo', { isDue: false, classGroup: 'Juniors' }),
      named('Cleo', { isDue: true }),
    ]);
    await user.keyboard('d');
    expect(shown()).toHaveLength(2);
    await user.click(screen.getByRole('button', { name: 'Juniors' }));
    expect(shown().map((text) => text!.slice(0, 2))).toEqual(['Ad', 'Bo']);
    await user.click(screen.getByRole('button', { name: 'Everybody, 3' }));
    expect(shown()).toHaveLength(3);
  });

  it('of many students shows forty, and the rest when asked', async () => {
    const { user } = floor(Array.from({ length: 43 }, (_, i) => named(`S${i}`)));
    expect(shown()).toHaveLength(40);
    await user.click(screen.getByRole('button', { name: '3 more' }));
    expect(shown()).toHaveLength(43);
  });

  it('is not there on an empty Floor, which says how to begin', () => {
    floor([]);
    expect(screen.getByRole('heading', { name: 'An empty Floor.' })).toBeTruthy();
    expect(screen.queryByRole('table')).toBeNull();
  });

  it('keeps those in the archive at hand', () => {
    floor([named('Ada')], [student({ id: 'old', name: 'Old Salt' })]);
    expect(screen.getByText('Archived, 1')).toBeTruthy();
    expect(screen.getByRole('link', { name: 'Old Salt', hidden: true })).toBeTruthy();
  });
});
