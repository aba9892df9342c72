// @vitest-environment happy-dom
/** The plan: what is on which day, put in, ticked, taken off with a way back, blocks of weeks. */
import { cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react';
import { toast } from 'sonner';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { plusDays } from '@sinew/core/foundation/calendar/day';
import type { PlanItem } from '@/data/work/plan';
import * as actions from '@/screens/plan/actions';
import { PlanScreen } from '@/screens/plan/PlanScreen';
import { onScreen } from './kit';

vi.mock('sonner', () => ({ toast: vi.fn() }));
vi.mock('next/navigation', () => ({
  useRouter: () => ({ push: vi.fn() }),
  usePathname: () => '/plan',
  useSearchParams: () => new URLSearchParams(),
}));
vi.mock('@/screens/plan/actions', () => ({
  plan: vi.fn(async () => null),
  planWeeks: vi.fn(async () => 12),
  move: vi.fn(async () => undefined),
  tick: vi.fn(async () => undefined),
  unplan: vi.fn(async () => undefined),
  unplanBlock: vi.fn(async () => undefined),
}));

afterEach(cleanup);
beforeEach(() => vi.clearAllMocks());

const MONDAY = '2026-11-23';
const TODAY = '2026-11-25';
const item = (change: Partial<PlanItem> = {}): PlanItem => ({
  id: 'pads',
  day: TODAY,
  kind: 'session',
  session: 'rounds',
  title: 'Pads',
  studentId: null,
  student: null,
  isDone: false,
  isFilmed: false,
  block: null,
  ...change,
});
const ROUNDS = { id: 'rounds', name: 'Rounds', hasPower: false, leavingOut: [] };
const POWER = { id: 'power-day', name: 'Power day', hasPower: true, leavingOut: ['Juna'] };
const plan = (items: readonly PlanItem[] = [], walk = [] as never[]) =>
  onScreen(
    <PlanScreen
      monday={MONDAY}
      today={TODAY}
      items={items}
      students={[{ id: 'ada', name: 'Ada' }]}
      sessions={[ROUNDS, POWER]}
      walk={walk}
    />,
  );
const headline = () => screen.getByRole('heading', { level: 1 }).textContent;
/** The words on a day, without the buttons. */
const on = (day: string) => document.querySelector(`[data-day="${day}"]`)!;

describe('three weeks', () => {
  it('begin on Monday and have every day once, with what is on it', () => {
    plan([item(), item({ id: 'b', day: plusDays(MONDAY, 20), title: 'Open floor' })]);
    const days = [...document.querySelectorAll('[data-day]')].map((one) =>
      one.getAttribute('data-day'),
    );
    expect(days).toEqual(Array.from({ length: 21 }, (_, i) => plusDays(MONDAY, i)));
    expect(on(TODAY).textContent).toContain('Pads');
    expect(on(plusDays(MONDAY, 20)).textContent).toContain('Open floor');
  });

  it('say who leaves out the power, and when it comes too soon', () => {
    const power = (id: string, day: string) =>
      item({ id, day, session: 'power-day', title: 'Power day' });
    plan([
      item(),
      power('a', MONDAY),
      power('b', plusDays(MONDAY, 1)),
      power('c', plusDays(MONDAY, 8)),
    ]);
    expect(on(MONDAY).textContent).toContain('No power: Juna.');
    expect(on(MONDAY).textContent).not.toContain('too soon');
    expect(on(plusDays(MONDAY, 1)).textContent).toContain('Power again too soon');
    expect(on(plusDays(MONDAY, 8)).textContent).not.toContain('too soon');
    expect(on(TODAY).textContent).not.toContain('power');
  });

  it('say of today what is first and how much more', () => {
    plan();
    expect(headline()).toBe('Nothing planned for today.');
    cleanup();
    plan([item(), item({ id: 'b', title: 'Film' }), item({ id: 'c', day: MONDAY })]);
    expect(headline()).toBe('Today: Pads, and 1 more.');
    cleanup();
    plan([item({ isDone: true })]);
    expect(headline()).toBe('Nothing planned for today.');
  });

  it('have today’s walk over them', () => {
    const next = { text: 'Mark the clip', note: '', href: '/bench/a' };
    plan([], [{ id: 'ada', name: 'Ada', next }] as never);
    const walk = within(screen.getByRole('region', { name: 'Today’s walk' }));
    expect(walk.getByRole('link', { name: /Mark the clip/ }).getAttribute('href')).toBe('/bench/a');
  });
});

describe('something planned', () => {
  it('is ticked and unticked', async () => {
    const { user } = plan([item()]);
    await user.click(screen.getByLabelText('Pads is done'));
    expect(actions.tick).toHaveBeenCalledWith('pads', true);
    cleanup();
    const again = plan([item({ isDone: true, student: 'Ada' })]);
    await again.user.click(screen.getByLabelText('Ada: Pads is done'));
    expect(actions.tick).toHaveBeenLastCalledWith('pads', false);
  });

  it('is taken off with a way back, by itself or as a whole block', async () => {
    const { user } = plan([item({ kind: 'note', session: null, block: 'b' })]);
    await user.click(screen.getByRole('button', { name: 'Take Pads off the plan' }));
    expect(actions.unplan).toHaveBeenCalledWith('pads');
    const [, options] = vi.mocked(toast).mock.calls[0]!;
    (options as unknown as { action: { onClick: () => void } }).action.onClick();
    expect(actions.plan).toHaveBeenCalledWith({
      day: TODAY,
      kind: 'note',
      session: null,
      title: 'Pads',
      studentId: null,
    });
    await user.click(screen.getByRole('button', { name: 'whole block off' }));
    expect(actions.unplanBlock).toHaveBeenCalledWith('b');
  });

  it('that cannot be taken off stays, and says so', async () => {
    vi.mocked(actions.unplan).mockRejectedValueOnce(new Error('offline'));
    const { user } = plan([item()]);
    await user.click(screen.getByRole('button', { name: 'Take Pads off the plan' }));
    await waitFor(() => expect(toast).toHaveBeenCalledWith(expect.stringMatching(/^Not kept/)));
    expect(on(TODAY).textContent).toContain('Pads');
  });

  it('is put in by one key for today, under its own name where none is typed', async () => {
    const { user } = plan();
    await user.keyboard('a');
    const dialog = within(await screen.findByRole('dialog', { name: 'What is planned?' }));
    await user.click(dialog.getByRole('button', { name: 'Plan it' }));
    expect(actions.plan).toHaveBeenCalledWith({
      day: TODAY,
      kind: 'session',
      session: 'rounds',
      title: 'Rounds',
      studentId: null,
    });
  });

  it('is put in for one student on another day, and says what is missing', async () => {
    const { user } = plan();
    const day = plusDays(TODAY, 2);
    await user.click(within(on(day) as HTMLElement).getByRole('button', { name: /^Plan on/ }));
    const dialog = within(await screen.findByRole('dialog'));
    expect(dialog.getByLabelText<HTMLInputElement>('On').value).toBe(day);
    await user.selectOptions(dialog.getByLabelText('What'), 'Something else');
    await user.selectOptions(dialog.getByLabelText('For'), 'Ada');
    vi.mocked(actions.plan).mockResolvedValueOnce('What is planned? Write it.');
    await user.click(dialog.getByRole('button', { name: 'Plan it' }));
    expect((await dialog.findByRole('alert')).textContent).toBe('What is planned? Write it.');
    await user.type(dialog.getByLabelText('In your words'), 'Weigh in');
    await user.click(dialog.getByRole('button', { name: 'Plan it' }));
    expect(actions.plan).toHaveBeenLastCalledWith({
      day,
      kind: 'note',
      session: null,
      title: 'Weigh in',
      studentId: 'ada',
    });
  });
});

describe('a block of weeks', () => {
  const block = async () => {
    const drawn = plan();
    await drawn.user.keyboard('n');
    return { ...drawn, dialog: within(await screen.findByRole('dialog')) };
  };

  it('says what will be on it before it is planned', async () => {
    const { user, dialog } = await block();
    expect(
      dialog.getByText(/^\d+ slow days, \d+ speed days, \d+ power days, filmed 6 times\.$/),
    ).toBeTruthy();
    await user.type(dialog.getByLabelText('What for'), 'Open floor');
    await user.click(dialog.getByRole('button', { name: 'Plan the block' }));
    expect(actions.planWeeks).toHaveBeenCalledWith({
      name: 'Open floor',
      from: TODAY,
      target: plusDays(TODAY, 42),
      weekdays: [1, 3],
    });
    expect(toast).toHaveBeenCalledWith('12 things planned.');
  });

  it('says why it cannot be planned', async () => {
    const { user, dialog } = await block();
    const target = (value: string) =>
      fireEvent.change(dialog.getByLabelText('The day it is for'), { target: { value } });
    target(plusDays(TODAY, -1));
    expect(dialog.getByText('The day it is all for must come after the first day.')).toBeTruthy();
    target(plusDays(TODAY, 400));
    expect(dialog.getByText('A block is 26 weeks at most. Plan it in two.')).toBeTruthy();
    target('');
    expect(dialog.getByText('Write both days.')).toBeTruthy();
    target(plusDays(TODAY, 42));
    await user.click(dialog.getByLabelText('Tue'));
    await user.click(dialog.getByLabelText('Thu'));
    expect(dialog.getByText('Choose the days on which the class meets.')).toBeTruthy();
  });
});
