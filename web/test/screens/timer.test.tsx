// @vitest-environment happy-dom
/** The timer: set up, run against the clock, stood still, closed and opened again, logged once. */
import { act, cleanup, fireEvent, render, screen, waitFor, within } from '@testing-library/react';
import { toast } from 'sonner';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { SOUND, type Condition } from '@sinew/core/train/work/condition';
import { SESSIONS, type Session } from '@sinew/core/train/work/session';
import { CommandKeys } from '@/ui/commands/CommandKeys';
import { saveSession, resetSession } from '@/screens/timer/actions';
import { keptRun } from '@/timer/keptRun';
import { bell, call, knock } from '@/screens/timer/sounds';
import type { TimerStudent } from '@/screens/timer/SetUp';
import { TimerScreen } from '@/screens/timer/TimerScreen';
import { noteHurtOf } from '@/screens/student/hurtActions';
import { logAll } from '@/screens/work/actions';
import { onScreen } from './kit';

vi.mock('sonner', () => ({ toast: vi.fn() }));
vi.mock('next/navigation', () => ({
  useRouter: () => ({ push: vi.fn() }),
  usePathname: () => '/timer',
  useSearchParams: () => new URLSearchParams(),
}));
vi.mock('@/screens/timer/sounds', () => ({ bell: vi.fn(), call: vi.fn(), knock: vi.fn() }));
vi.mock('@/screens/work/actions', () => ({ logAll: vi.fn(async () => null) }));
vi.mock('@/screens/student/hurtActions', () => ({ noteHurtOf: vi.fn(async () => null) }));
vi.mock('@/screens/timer/actions', () => ({
  saveSession: vi.fn(async () => null),
  resetSession: vi.fn(async () => null),
}));

afterEach(() => {
  cleanup();
  vi.useRealTimers();
});
beforeEach(() => {
  vi.clearAllMocks();
  localStorage.clear();
});

const ADULT: Condition = { ...SOUND, grade: 'third class' };
const JUNIOR: Condition = { ...ADULT, isJunior: true };
const STUDENTS: readonly TimerStudent[] = [
  { id: 'ada', name: 'Ada', classGroup: 'Juniors', massKg: 52, condition: JUNIOR },
  {
    id: 'bo',
    name: 'Bo',
    classGroup: 'Juniors',
    massKg: 70,
    condition: { ...ADULT, injuries: ['Wrist bent'] },
  },
  { id: 'cleo', name: 'Cleo', classGroup: '', massKg: null, condition: ADULT },
];
/** Two rounds of ten seconds with four of rest, one of counted work. */
const SHORT: Session = {
  id: 'short',
  name: 'Short',
  about: '',
  caution: '',
  blocks: [
    {
      title: 'Shadow',
      parts: ['Round 1', 'Round 2'],
      work: 10,
      rest: 4,
      intent: 'tempo',
      isCalled: true,
      asks: [],
      isGate: false,
    },
    {
      title: 'Counted',
      parts: ['20 jabs'],
      work: null,
      rest: 0,
      intent: 'slow',
      isCalled: false,
      asks: [],
      isGate: false,
    },
  ],
};

const timer = (sessions: readonly Session[] = SESSIONS, student: string | null = null) => (
  <TimerScreen
    students={STUDENTS}
    sessions={sessions}
    asked={{ session: sessions[0]!.id, student }}
    today="2026-11-28"
  />
);
const clock = () => screen.getByRole('timer').textContent;
const title = () => screen.getByRole('heading', { level: 1 }).textContent;
/** Lets the clock run, with everything that is looked at on the way. */
const pass = (seconds: number) => act(() => void vi.advanceTimersByTime(seconds * 1000));

function running(sessions: readonly Session[] = [SHORT], student: string | null = null) {
  vi.useFakeTimers({ now: new Date('2026-11-28T18:00:00Z') });
  const drawn = render(
    <>
      <CommandKeys />
      {timer(sessions, student)}
    </>,
  );
  fireEvent.click(screen.getByRole('button', { name: /^Start/ }));
  return drawn;
}
const key = (name: string) => fireEvent.keyDown(document.body, { key: name });

describe('setting up', () => {
  it('starts the rounds as they are typed, by Enter', async () => {
    const { user } = onScreen(timer());
    fireEvent.change(screen.getByLabelText('Rounds'), { target: { value: '2' } });
    fireEvent.change(screen.getByLabelText('Work, s'), { target: { value: '30' } });
    await user.keyboard('{Enter}');
    expect(keptRun()!.session.blocks[0]).toMatchObject({ parts: ['Round 1', 'Round 2'], work: 30 });
    expect(bell).toHaveBeenCalledOnce();
  });

  it.each([
    ['Rounds', '0', 'Rounds: 1 to 30.'],
    ['Rounds', '31', 'Rounds: 1 to 30.'],
    ['Work, s', '4', 'Work: 5 to 3600 seconds.'],
    ['Work, s', 'x', 'Rounds: 1 to 30.'],
    ['Rest, s', '601', 'Rest: 0 to 600 seconds.'],
    ['Combinations', '1-9', null],
    ['Combinations', ' ', 'Write at least one combination, such as 1-2.'],
  ])('with %s “%s” does not start, and says why', async (field, value, says) => {
    const { user } = onScreen(timer());
    fireEvent.change(screen.getByLabelText(field), { target: { value } });
    const alert = screen.getByRole('alert').textContent!;
    if (says) expect(alert).toBe(says);
    else expect(alert).not.toMatch(/undefined|NaN/);
    expect(screen.getByRole<HTMLButtonElement>('button', { name: /^Start/ }).disabled).toBe(true);
    await user.keyboard('{Enter}');
    expect(screen.queryByRole('timer')).toBeNull();
  });

  it('says how heavy a weight may be for the lightest of the class', async () => {
    const { user } = onScreen(timer(SESSIONS.filter(({ id }) => id === 'speed-day')));
    expect(screen.getByText(/about 1 % of the body’s mass, at most 1 kg\.$/)).toBeTruthy();
    await user.selectOptions(screen.getByLabelText('Logged for'), 'Class: Juniors');
    // 1 % of 52 kg.
    expect(screen.getByText(/at most 1 kg: 0\.5 kg for the lightest/)).toBeTruthy();
    expect(screen.getByText(/Never snap a weight/)).toBeTruthy();
  });

  it('of power warns, and names those who leave it out, and why', async () => {
    const power = SESSIONS.filter(({ blocks }) => blocks.some(({ intent }) => intent === 'power'));
    const { user } = onScreen(timer(power));
    expect(screen.getByText(/Power comes last, warmed up/)).toBeTruthy();
    expect(screen.queryByLabelText('Who leaves out what')).toBeNull();
    await user.selectOptions(screen.getByLabelText('Logged for'), 'Class: Juniors');
    const out = screen.getByLabelText('Who leaves out what').textContent;
    expect(out).toContain(
      'Ada leaves out “Power, one at a time, each with a reset” and “Power, its partner in a combination”: under 16',
    );
    expect(out).toMatch(/Bo leaves out .*: Wrist bent/);
    expect(out).not.toContain('Cleo');
  });
});

describe('a session that runs', () => {
  it('goes through get ready, work and rest by itself, with bell and knock', () => {
    running();
    expect(title()).toBe('Get ready');
    const ready = Number(clock()!.split(':')[1]);
    pass(ready + 0.2);
    expect(title()).toBe('Round 1');
    expect(clock()).toBe('0:10');
    pass(3);
    expect(clock()).toBe('0:07');
    pass(7);
    expect(title()).toBe('Rest');
    expect(bell).toHaveBeenCalled();
    pass(4.1);
    expect(title()).toBe('Round 2');
    expect(screen.getByText('1 of 3 done')).toBeTruthy();
    // A round this short has no ten last seconds to warn of.
    expect(knock).not.toHaveBeenCalled();
  });

  it('knocks once before the end of a round', () => {
    running([{ ...SHORT, blocks: [{ ...SHORT.blocks[0]!, work: 60 }] }]);
    key('ArrowRight');
    pass(45);
    expect(knock).not.toHaveBeenCalled();
    pass(10);
    expect(knock).toHaveBeenCalledOnce();
  });

  it('stands still by Space or a tap, and goes on where it stood', () => {
    running();
    key('ArrowRight');
    pass(3);
    const before = clock();
    key(' ');
    expect(screen.getByText('Stands still')).toBeTruthy();
    pass(60);
    expect(clock()).toBe(before);
    fireEvent.click(screen.getAllByRole('button', { name: /Go on/ })[0]!);
    pass(2);
    expect(clock()).not.toBe(before);
  });

  it('stands still by Space after a button was clicked, and goes on by the button that was reached by Tab', () => {
    running();
    const next = screen.getByRole('button', { name: /^Next/ });
    next.focus();
    fireEvent.click(next, { detail: 1 });
    expect(document.activeElement).toBe(document.body);
    key(' ');
    expect(screen.getByText('Stands still')).toBeTruthy();
    next.focus();
    // The key belongs to the button: the browser makes a click of it.
    fireEvent.keyDown(next, { key: ' ' });
    expect(screen.getByText('Stands still')).toBeTruthy();
  });

  it('goes on while the page is closed', () => {
    const { unmount } = running();
    key('ArrowRight');
    unmount();
    vi.advanceTimersByTime(12_000);
    render(timer([SHORT]));
    pass(0.1);
    expect(title()).toBe('Rest');
  });

  it('of another version is forgotten, not stumbled over', () => {
    localStorage.setItem('sinew-run', '{"session":"old"}');
    render(timer([SHORT]));
    expect(screen.getByRole('button', { name: /^Start/ })).toBeTruthy();
  });

  it('is walked forth and back by arrow keys, and counted work ends with a tap', () => {
    running();
    key('ArrowRight');
    key('ArrowRight');
    expect(title()).toBe('Rest');
    key('ArrowLeft');
    expect(title()).toBe('Round 1');
    for (let i = 0; i < 4 && title() !== '20 jabs'; i++) key('ArrowRight');
    expect(screen.getByText('Tap when it is done.')).toBeTruthy();
    pass(5);
    expect(clock()).toBe('0:05');
    fireEvent.click(screen.getByRole('button', { name: 'Done, next' }));
    expect(title()).toBe('Short: over.');
  });

  it('calls combinations aloud while it works, and none while it stands still', () => {
    running([{ ...SHORT, blocks: [{ ...SHORT.blocks[0]!, work: 60 }] }]);
    key('ArrowRight');
    pass(20);
    expect(vi.mocked(call).mock.calls.length).toBeGreaterThan(0);
    const called = vi.mocked(call).mock.calls.length;
    key(' ');
    pass(30);
    expect(call).toHaveBeenCalledTimes(called);
  });
});

describe('head contact or pain', () => {
  const hurt = () => {
    running([SHORT], 'ada');
    key('ArrowRight');
    key('h');
    vi.useRealTimers();
    return within(screen.getByRole('dialog'));
  };

  it('stops the clock, says at once what to do, and is noted before the session ends', async () => {
    const dialog = hurt();
    expect(screen.getByText('Stands still')).toBeTruthy();
    expect(dialog.getByRole('status').textContent).toMatch(/^Stop for today.*clinician/);
    fireEvent.change(dialog.getByLabelText('Where?'), { target: { value: 'knee' } });
    expect(dialog.getByRole('status').textContent).toMatch(/^Stop\. /);
    fireEvent.click(dialog.getByRole('button', { name: 'Note it and end the session' }));
    await waitFor(() => expect(title()).toBe('Short: over.'));
    expect(noteHurtOf).toHaveBeenCalledWith(
      expect.objectContaining({ studentId: 'ada', place: 'knee', day: '2026-11-28' }),
    );
  });

  it('that was pressed by mistake changes nothing but that the clock stands', async () => {
    const dialog = hurt();
    fireEvent.click(dialog.getByRole('button', { name: 'Cancel' }));
    await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
    expect(title()).toBe('Round 1');
    expect(noteHurtOf).not.toHaveBeenCalled();
  });
});

describe('a session that is over', () => {
  const over = () => {
    const drawn = running([SHORT], 'ada');
    key('ArrowRight');
    pass(10.1);
    for (let i = 0; i < 8 && !title()!.includes('over'); i++) key('ArrowRight');
    vi.useRealTimers();
    return drawn;
  };

  it('is logged for whom it was, part by part, and is gone', async () => {
    over();
    fireEvent.click(screen.getByRole('button', { name: 'Log for Ada' }));
    await waitFor(() => expect(keptRun()).toBeNull());
    const [logs] = vi.mocked(logAll).mock.calls[0]!;
    expect(logs.map(({ name, studentId }) => [name, studentId])).toEqual([
      ['Short: Shadow', 'ada'],
      ['Short: Counted', 'ada'],
    ]);
    expect(logs[0]).toMatchObject({ day: '2026-11-28', countedBy: 'timer', intent: 'tempo' });
    expect(logs[1]!.strikes).toBe(20);
    expect(new Set(logs.map(({ id }) => id)).size).toBe(2);
  });

  it('is not logged for who left a part out', async () => {
    running(
      [{ ...SHORT, blocks: [SHORT.blocks[0]!, { ...SHORT.blocks[1]!, intent: 'power' }] }],
      'ada',
    );
    for (let i = 0; i < 8 && title() !== '20 jabs'; i++) key('ArrowRight');
    expect(screen.getByText('Leaves this out: Ada (under 16: no power).')).toBeTruthy();
    key('ArrowRight');
    vi.useRealTimers();
    fireEvent.click(screen.getByRole('button', { name: 'Log for Ada' }));
    await waitFor(() => expect(logAll).toHaveBeenCalled());
    expect(vi.mocked(logAll).mock.calls[0]![0].map(({ name }) => name)).toEqual(['Short: Shadow']);
  });

  it('that cannot be logged stays, and is sent under the same names', async () => {
    over();
    vi.mocked(logAll).mockRejectedValueOnce(new Error('offline'));
    const button = screen.getByRole('button', { name: 'Log for Ada' });
    fireEvent.click(button);
    await waitFor(() => expect(toast).toHaveBeenCalledWith(expect.stringMatching(/^Not logged/)));
    expect(keptRun()).not.toBeNull();
    fireEvent.click(button);
    await waitFor(() => expect(logAll).toHaveBeenCalledTimes(2));
    const ids = vi.mocked(logAll).mock.calls.map(([logs]) => logs.map(({ id }) => id));
    expect(ids[1]).toEqual(ids[0]);
  });

  it('is closed without a log, or gone back into', () => {
    over();
    fireEvent.click(screen.getByRole('button', { name: 'Back to the last part' }));
    expect(title()).not.toContain('over');
    key('ArrowRight');
    fireEvent.click(screen.getByRole('button', { name: 'Do not log' }));
    expect(keptRun()).toBeNull();
    expect(logAll).not.toHaveBeenCalled();
  });
});

describe('a session changed', () => {
  it('is kept as typed: parts by commas, no seconds for counted work', async () => {
    const { user } = onScreen(timer([SHORT]));
    await user.click(screen.getByRole('button', { name: 'Change this session' }));
    const dialog = within(await screen.findByRole('dialog'));
    fireEvent.change(dialog.getByLabelText('What is done in part 1'), {
      target: { value: ' A, B ,, C' },
    });
    fireEvent.change(dialog.getByLabelText('Work of part 1, seconds'), { target: { value: '' } });
    await user.click(dialog.getByRole('button', { name: 'Another part' }));
    fireEvent.change(dialog.getByLabelText('Part 3'), { target: { value: 'Pads' } });
    await user.click(dialog.getByRole('button', { name: 'Keep the session' }));
    const [kept] = vi.mocked(saveSession).mock.calls[0]!;
    expect(kept.blocks.map(({ title: name, parts, work }) => [name, parts, work])).toEqual([
      ['Shadow', ['A', 'B', 'C'], null],
      ['Counted', ['20 jabs'], null],
      ['Pads', ['Round 1', 'Round 2'], 180],
    ]);
    await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
  });

  it('that does not fit stays open and says why; parts go out; the default comes back', async () => {
    const { user } = onScreen(timer([SHORT]));
    await user.click(screen.getByRole('button', { name: 'Change this session' }));
    const dialog = within(await screen.findByRole('dialog'));
    vi.mocked(saveSession).mockResolvedValueOnce('Part 1: The title is missing.');
    await user.click(dialog.getByRole('button', { name: 'Keep the session' }));
    expect((await dialog.findByRole('alert')).textContent).toBe('Part 1: The title is missing.');
    await user.click(dialog.getAllByRole('button', { name: 'Out' })[0]!);
    expect(dialog.queryByLabelText('Part 2')).toBeNull();
    await user.click(dialog.getByRole('button', { name: 'Reset to default' }));
    expect(resetSession).toHaveBeenCalledWith(expect.objectContaining({ id: 'short' }));
  });
});

describe('a gate', () => {
  const GATED: Session = {
    ...SHORT,
    blocks: [
      { ...SHORT.blocks[1]!, title: 'Gate check', parts: ['5 crosses'], isGate: true },
      { ...SHORT.blocks[0]!, title: 'Fast', intent: 'full', isCalled: false },
      { ...SHORT.blocks[1]!, title: 'Power', parts: ['4 crosses'], intent: 'power' },
    ],
  };

  it('is answered, not tapped away: clean goes on as it was', () => {
    running([GATED]);
    pass(10);
    expect(screen.queryByRole('button', { name: 'Done, next' })).toBeNull();
    key(' ');
    expect(title()).toBe('5 crosses');
    expect(screen.getByText('Stands still')).toBeTruthy();
    key(' ');
    fireEvent.click(screen.getByRole('button', { name: 'Clean: go on' }));
    expect(title()).toBe('Round 1');
    expect(screen.getByText('Fast')).toBeTruthy();
  });

  it('that is not clean makes the rest slow, and nothing hard is left', () => {
    running([GATED]);
    pass(10);
    fireEvent.click(screen.getByRole('button', { name: 'Not clean: make it a slow day' }));
    expect(screen.getByText('One link alone')).toBeTruthy();
    const { name, blocks } = keptRun()!.session;
    expect(name).toBe('Short, made slow');
    expect(blocks.slice(1).every(({ intent }) => intent === 'slow')).toBe(true);
    key('ArrowLeft');
    expect(title()).toBe('5 crosses');
  });

  it('power without five minutes of moving before it is said to be cold', () => {
    running([GATED]);
    key('ArrowRight');
    for (let i = 0; i < 5; i++) key('ArrowRight');
    expect(title()).toBe('4 crosses');
    expect(screen.getByRole('alert').textContent).toMatch(/nobody is warm yet/);
    pass(300);
    expect(screen.queryByRole('alert')).toBeNull();
  });
});
