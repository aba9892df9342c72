// @vitest-environment happy-dom
/** Work: given from a leak, counted across the room, logged once, ended, held back by the gate. */
import { act, cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react';
import { toast } from 'sonner';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { plusDays } from '@sinew/core/foundation/calendar/day';
import { DRILLS, drillById } from '@sinew/core/foundation/drill/drills';
import { SOUND } from '@sinew/core/train/work/condition';
import { nextThing } from '@sinew/core/train/work/nextThing';
import { fromDrill } from '@sinew/core/train/work/prescription';
import type { Given, Proposal, Work } from '@/data/work/work';
import { endHurtOf, noteHurtOf } from '@/screens/student/hurtActions';
import * as actions from '@/screens/work/actions';
import { WorkScreen } from '@/screens/work/WorkScreen';
import { onScreen } from './kit';

vi.mock('sonner', () => ({ toast: vi.fn() }));
vi.mock('next/navigation', () => ({
  useRouter: () => ({ push: vi.fn() }),
  usePathname: () => '/students/ada/work',
  useSearchParams: () => new URLSearchParams(),
}));
vi.mock('@/screens/student/hurtActions', () => ({
  noteHurtOf: vi.fn(async () => null),
  endHurtOf: vi.fn(async () => null),
}));
vi.mock('@/screens/work/actions', () => ({
  give: vi.fn(async () => ({ kind: 'given', id: 'new' })),
  log: vi.fn(async () => null),
  setLogGone: vi.fn(async () => undefined),
  endWork: vi.fn(async () => undefined),
  checkOn: vi.fn(async () => undefined),
  setGate: vi.fn(async () => null),
  close: vi.fn(async () => null),
}));

afterEach(() => {
  cleanup();
  vi.useRealTimers();
});
beforeEach(() => {
  vi.clearAllMocks();
  localStorage.clear();
});

const TODAY = '2026-11-28';
const drill = DRILLS[0]!;
const prescription = { ...fromDrill(drill, TODAY), gate: '3 clean sets in a row.' };

const given = (change: Partial<Given> = {}): Given => ({
  ...prescription,
  id: 'work-1',
  name: 'Slow chain',
  dose: '3 × 10 each side',
  technique: 'cross',
  fault: 'all-at-once',
  givenOn: TODAY,
  override: '',
  nextCheck: plusDays(TODAY, 7),
  check: { isDue: false, because: 'day', days: 7 } as Given['check'],
  retest: null,
  sessions: 1,
  todaysDose: null,
  cautions: [],
  doneToday: { strikes: 0, seconds: 0 },
  atHome: [],
  ...change,
});
const proposal = (change: Partial<Proposal> = {}): Proposal => ({
  worksOn: { technique: 'cross', fault: 'all-at-once' } as Proposal['worksOn'],
  name: 'All at once',
  prescription,
  first: [],
  ...change,
});
const NO_WORK: Work = {
  given: [],
  proposals: [],
  gates: [],
  injuries: [],
  hurts: [],
  condition: SOUND,
  volume: { strikes: [], minutes: [] } as unknown as Work['volume'],
  logs: [],
};
vi.mock('@/screens/work/VolumeBars', () => ({ VolumeBars: () => null }));

const nextOf = ({ given, proposals }: Work) =>
  nextThing(
    {
      hasConsent: true,
      isMinor: false,
      isHurting: false,
      clips: 1,
      open: [],
      undecided: null,
      work: given,
      hasIdleCue: proposals.length > 0,
    },
    TODAY,
  );

const work = (change: Partial<Work> = {}) =>
  onScreen(
    <WorkScreen
      cues={[]}
      student={{ id: 'ada', name: 'Ada Storm' }}
      work={{ ...NO_WORK, ...change }}
      next={nextOf({ ...NO_WORK, ...change })}
      drills={DRILLS}
      today={TODAY}
    />,
  );
const headline = () => screen.getByRole('heading', { level: 1 }).textContent;

describe('the headline', () => {
  it.each([
    ['No work given.', {}],
    ['A cue without work.', { proposals: [proposal()] }],
    ['One thing to work on.', { given: [given()] }],
    ['2 things to work on.', { given: [given(), given({ id: 'work-2' })] }],
    [
      'Time to film again.',
      {
        given: [given({ nextCheck: TODAY, check: { isDue: true, because: 'day', days: 0 } })],
      },
    ],
  ])('says: %s', (says, change) => {
    work(change);
    expect(headline()).toBe(says);
  });
});

describe('a leak without work', () => {
  it('gets what the catalogue gives by one key', async () => {
    const { user } = work({ proposals: [proposal()] });
    await user.keyboard('{Enter}');
    expect(actions.give).toHaveBeenCalledWith({
      ...prescription,
      studentId: 'ada',
      worksOn: { technique: 'cross', fault: 'all-at-once' },
      override: '',
    });
  });

  it('asks why where order or gate say no, and takes the reason', async () => {
    vi.mocked(actions.give).mockResolvedValueOnce({ kind: 'asks-why', reasons: ['Hips first.'] });
    const { user } = work({ proposals: [proposal({ first: ['Heel stays down'] })] });
    await user.click(screen.getByRole('button', { name: /Give this work/ }));
    const dialog = within(await screen.findByRole('dialog', { name: 'Work for: All at once' }));
    expect(dialog.getByText('First: Heel stays down.')).toBeTruthy();
    vi.mocked(actions.give).mockResolvedValueOnce({ kind: 'asks-why', reasons: ['Hips first.'] });
    await user.click(dialog.getByRole('button', { name: 'Give the work' }));
    expect((await dialog.findByRole('alert')).textContent).toBe('Say why, or change it.');
    await user.type(dialog.getByLabelText('Give it all the same, because'), 'She asked');
    await user.click(dialog.getByRole('button', { name: 'Give the work' }));
    expect(actions.give).toHaveBeenLastCalledWith(
      expect.objectContaining({ override: 'She asked' }),
    );
    await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
  });

  it('that is refused, or cannot be sent, says so and stays', async () => {
    vi.mocked(actions.give).mockResolvedValueOnce({ kind: 'refused', reason: 'Not under 16.' });
    const { user } = work({ proposals: [proposal()] });
    await user.keyboard('{Enter}');
    await waitFor(() => expect(toast).toHaveBeenCalledWith('Not under 16.'));
    vi.mocked(actions.give).mockRejectedValueOnce(new Error('offline'));
    await user.keyboard('{Enter}');
    await waitFor(() =>
      expect(toast).toHaveBeenLastCalledWith('Not given: the server does not answer. Try again.'),
    );
  });
});

describe('other work', () => {
  it('takes the drill’s own dose, warns before power, and is not sent when left', async () => {
    const { user } = work();
    await user.keyboard('g');
    const dialog = within(await screen.findByRole('dialog', { name: 'Other work' }));
    const other = DRILLS.find(({ dose }) => dose !== drill.dose)!;
    await user.selectOptions(dialog.getByLabelText('Drill'), other.id);
    expect(dialog.getByLabelText<HTMLInputElement>('Dose').value).toBe(drillById(other.id)!.dose);
    expect(dialog.queryByText(/Hands wrapped/)).toBeNull();
    await user.selectOptions(dialog.getByLabelText('Meant'), 'power');
    expect(dialog.getByText(/Hands wrapped, gloves on, warmed up/)).toBeTruthy();
    await user.click(dialog.getByRole('button', { name: 'Cancel' }));
    expect(actions.give).not.toHaveBeenCalled();
  });
});

describe('a set', () => {
  const counter = async (change: Partial<Given> = {}) => {
    const drawn = work({ given: [given(change)] });
    await drawn.user.keyboard('1');
    return { ...drawn, count: () => screen.getByRole('timer').textContent };
  };

  it('is counted by Space and tap, one taken back, and logged with what was clean', async () => {
    const { user, count } = await counter();
    await user.keyboard('   ');
    await user.click(screen.getByRole('button', { name: 'Count one' }));
    expect(count()).toBe('4');
    await user.keyboard('{Backspace}');
    expect(count()).toBe('3');
    fireEvent.change(screen.getByLabelText('Clean'), { target: { value: '2' } });
    await user.click(screen.getByRole('button', { name: /Log the set/ }));
    expect(actions.log).toHaveBeenCalledWith(
      expect.objectContaining({
        studentId: 'ada',
        prescriptionId: 'work-1',
        technique: 'cross',
        day: TODAY,
        strikes: 3,
        clean: 2,
        countedBy: 'tap',
      }),
    );
    await waitFor(() => expect(count()).toBe('0'));
    expect(toast).toHaveBeenLastCalledWith('Logged: 3.');
  });

  it('never counts below nothing, and logs nothing that was not counted', async () => {
    const { user, count } = await counter();
    await user.keyboard('{Backspace}');
    expect(count()).toBe('0');
    localStorage.clear();
    cleanup();
    const again = await counter();
    await again.user.keyboard('{Enter}');
    expect(toast).toHaveBeenLastCalledWith('Nothing was counted yet.');
    expect(actions.log).not.toHaveBeenCalled();
  });

  it('is counted on by Space after a button was clicked by hand', async () => {
    const { user, count } = await counter();
    await user.keyboard(' ');
    await user.click(screen.getByRole('button', { name: /Count claps/ }));
    await user.click(screen.getByRole('button', { name: /Listening/ }));
    await user.keyboard('  ');
    expect(count()).toBe('3');
    expect(screen.queryByText('Listening for claps')).toBeNull();
  });

  it('outlives a page that is closed, and is sent under the same name until it is kept', async () => {
    const { user } = await counter();
    await user.keyboard('  ');
    vi.mocked(actions.log).mockRejectedValueOnce(new Error('offline'));
    await user.keyboard('{Enter}');
    await waitFor(() => expect(toast).toHaveBeenCalledWith(expect.stringMatching(/^Not logged/)));
    cleanup();
    const again = await counter();
    expect(again.count()).toBe('2');
    await again.user.keyboard('{Enter}');
    await waitFor(() => expect(actions.log).toHaveBeenCalledTimes(2));
    const [first, second] = vi.mocked(actions.log).mock.calls.map(([sent]) => sent.id);
    expect(second).toBe(first);
  });

  it('says when it is enough, and shows by how many sides it is meant', async () => {
    const { user } = await counter({ dose: '2 × 2 each side' });
    expect(screen.getByText(/of 2/).textContent).toBe('of 2, 4 times');
    await user.keyboard('  ');
    expect(screen.getByText(/of 2/).textContent).toContain('enough');
  });

  it('by the clock runs from the first tap', async () => {
    const { count } = await counter({ dose: '3 × 30 s' });
    vi.useFakeTimers({ shouldAdvanceTime: true });
    fireEvent.click(screen.getByRole('button', { name: 'Count one' }));
    act(() => void vi.advanceTimersByTime(5_000));
    expect(Number(count())).toBeGreaterThanOrEqual(5);
    expect(screen.getByText('of 30 s, 3 times')).toBeTruthy();
  });

  it('that the server does not take stays in hand', async () => {
    const { user, count } = await counter();
    await user.keyboard('  ');
    vi.mocked(actions.log).mockResolvedValueOnce('More clean than strikes.');
    await user.keyboard('{Enter}');
    await waitFor(() => expect(toast).toHaveBeenLastCalledWith('More clean than strikes.'));
    expect(count()).toBe('2');
    await user.keyboard('{Escape}');
    expect(screen.queryByRole('timer')).toBeNull();
  });
});

describe('work in hand', () => {
  it('says what was done, when it is filmed again, and why it was given although', () => {
    work({
      given: [given({ doneToday: { strikes: 30, seconds: 60 }, sessions: 2, override: 'Asked' })],
    });
    const row = within(screen.getByRole('list', { name: '' }) ?? document.body);
    expect(row.getByText(/Today: 30 strikes, 60 s\. Worked on 2 days\./)).toBeTruthy();
    expect(row.getByText('Given although: Asked')).toBeTruthy();
    expect(row.getByRole('link', { name: 'Film again' }).getAttribute('href')).toBe(
      '/capture?student=ada&technique=cross&retest=1',
    );
  });

  it('is ended with a way back', async () => {
    const { user } = work({ given: [given()] });
    await user.click(screen.getByRole('button', { name: 'Done with it' }));
    expect(actions.endWork).toHaveBeenCalledWith('work-1', 'done');
    const [says, options] = vi.mocked(toast).mock.calls[0]!;
    expect(says).toBe('Slow chain: done.');
    (options as unknown as { action: { onClick: () => void } }).action.onClick();
    expect(actions.endWork).toHaveBeenLastCalledWith('work-1', 'active');
  });

  it('that is due is put off by a week, or compared where it has been filmed', async () => {
    const due = { isDue: true, because: 'sessions', days: 0 } as Given['check'];
    const { user } = work({
      given: [
        given({
          check: due,
          sessions: 3,
          retest: { then: 'x', now: 'y', day: TODAY } as Given['retest'],
        }),
      ],
    });
    expect(screen.getByText('Did it change? filmed again today.')).toBeTruthy();
    expect(screen.getByRole('link', { name: 'Did it change?' }).getAttribute('href')).toBe(
      '/compare?a=x&b=y',
    );
    await user.click(screen.getByRole('button', { name: 'In a week' }));
    expect(actions.checkOn).toHaveBeenCalledWith('work-1', plusDays(TODAY, 7));
  });

  it('has its sets taken out, with a way back', async () => {
    const log = {
      id: 'log-1',
      prescriptionId: null,
      technique: 'cross',
      name: 'Bag',
      day: TODAY,
      at: `${TODAY}T10:00:00Z`,
      intent: 'slow',
      strikes: 20,
      seconds: 0,
      clean: 18,
      countedBy: 'tap',
    } as const;
    const { user } = work({
      logs: [log, { ...log, id: 'log-2', strikes: 0, seconds: 45, clean: null }],
    });
    expect(screen.getByText('20 strikes')).toBeTruthy();
    expect(screen.getByText('45 s')).toBeTruthy();
    await user.click(screen.getAllByRole('button', { name: 'Take out' })[0]!);
    expect(actions.setLogGone).toHaveBeenCalledWith('log-1', true);
  });
});

describe('how hard', () => {
  const gate = {
    level: 'tempo',
    next: 'full',
    cleanSets: 2,
    needed: 3,
    shut: null,
    isShutByInjury: false,
  } as const;

  it('shows which steps are open, and what the next one waits for', () => {
    work({ gates: [{ technique: 'cross', gate }] });
    const steps = within(screen.getByRole('list', { name: 'Speed gate of the Cross' }));
    expect(steps.getAllByRole('listitem').map((step) => step.textContent)).toEqual([
      'slow, open',
      'tempo, open',
      'full, shut',
      'power, shut',
    ]);
    expect(screen.getByText('2 of 3 clean sets in a row to full.')).toBeTruthy();
  });

  it('is set by hand with a reason, and not at all past what can hurt', async () => {
    const { user } = work({ gates: [{ technique: 'cross', gate }] });
    await user.click(screen.getByRole('button', { name: 'Override' }));
    const dialog = within(await screen.findByRole('dialog'));
    await user.selectOptions(dialog.getByLabelText('Allowed up to'), 'full');
    await user.type(dialog.getByLabelText('Because'), 'Clean in sparring');
    await user.click(dialog.getByRole('button', { name: 'Set the gate' }));
    expect(actions.setGate).toHaveBeenCalledWith({
      studentId: 'ada',
      technique: 'cross',
      to: 'full',
      reason: 'Clean in sparring',
    });
    cleanup();
    work({
      gates: [{ technique: 'cross', gate: { ...gate, isShutByInjury: true, shut: 'Shut: knee.' } }],
    });
    expect(screen.queryByRole('button', { name: 'Override' })).toBeNull();
    expect(screen.getByText('Shut: knee.')).toBeTruthy();
  });

  it('stands over everything while something can hurt, until the coach clears it with a reason', async () => {
    const injury = {
      technique: 'cross',
      fault: 'knee-gives',
      name: 'Knee gives',
      caution: 'The knee folds in under load.',
      clipId: 'clip',
      strikeId: 'strike',
    } as Work['injuries'][number];
    const { user } = work({ injuries: [injury] });
    expect(screen.getByText(/Cross: Knee gives\. Slow only until you have/)).toBeTruthy();
    vi.mocked(actions.close).mockResolvedValueOnce('Why? The ledger keeps the reason.');
    await user.click(screen.getByRole('button', { name: 'Clear it' }));
    const dialog = within(await screen.findByRole('dialog'));
    await user.click(dialog.getByRole('button', { name: 'Clear it' }));
    expect((await dialog.findByRole('alert')).textContent).toMatch(/^Why\?/);
    await user.type(dialog.getByLabelText('Because'), 'No pain for a month');
    await user.click(dialog.getByRole('button', { name: 'Clear it' }));
    expect(actions.close).toHaveBeenLastCalledWith(
      { studentId: 'ada', technique: 'cross', fault: 'knee-gives' },
      'No pain for a month',
    );
  });
});

describe('what hurts', () => {
  const hurt = { id: 'h', studentId: 'ada', day: '2026-11-20', place: 'head', words: 'bag swung' };

  it('is said with what to do, and is over only with a reason', async () => {
    const { user } = work({ hurts: [hurt as Work['hurts'][number]] });
    expect(screen.getByText(/^Head contact or dizziness, noted on/)).toBeTruthy();
    expect(screen.getByText('bag swung')).toBeTruthy();
    await user.click(screen.getByRole('button', { name: 'It is over' }));
    const dialog = within(await screen.findByRole('dialog'));
    expect(dialog.getByText(/only on a licensed clinician’s word/)).toBeTruthy();
    await user.type(dialog.getByLabelText('Who says so, and what'), 'Cleared on the 27th');
    await user.click(dialog.getByRole('button', { name: 'It is over' }));
    expect(endHurtOf).toHaveBeenCalledWith('h', 'Cleared on the 27th');
  });

  it('is noted from the work page too', async () => {
    const { user } = work();
    await user.click(screen.getByRole('button', { name: 'Something hurts' }));
    const dialog = within(await screen.findByRole('dialog'));
    expect(dialog.queryByLabelText('Who?')).toBeNull();
    await user.click(dialog.getByRole('button', { name: 'Note it' }));
    expect(noteHurtOf).toHaveBeenCalledWith(
      expect.objectContaining({ studentId: 'ada', place: 'head' }),
    );
  });
});

describe('the dose of today', () => {
  it('stands beside the whole one while the drill is new, and is what is counted', async () => {
    const { user } = work({ given: [given({ todaysDose: '1 × 10 a side' })] });
    expect(screen.getByText('1 × 10 a side')).toBeTruthy();
    await user.keyboard('1');
    expect(screen.getByRole('timer').parentElement!.textContent).toContain('of 10, 2 times');
  });

  it('says nothing of its own when it is the whole one', () => {
    work({ given: [given({ dose: '3 × 8 slow', todaysDose: '3 × 8' })] });
    expect(screen.queryByText(/work grows week by week/)).toBeNull();
  });

  it('has its cautions beside it', () => {
    work({ given: [given({ cautions: ['Knee over toes.'] })] });
    expect(screen.getByText('Knee over toes.')).toBeTruthy();
  });
});
