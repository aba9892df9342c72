// @vitest-environment happy-dom
/** What has changed: really, within noise, or not to be compared; leaks opened and closed; rounds; tests. */
import { cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react';
import { toast } from 'sonner';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Reading } from '@sinew/core/foundation/reading/reading';
import type { Difference } from '@sinew/core/train/progress/compare';
import type { Fading } from '@sinew/core/train/progress/fatigue';
import { Differences } from '@/screens/compare/Differences';
import { keepTest } from '@/screens/ledger/actions';
import { Fatigue } from '@/screens/ledger/Fatigue';
import type { LedgerFault } from '@/data/progress/ledgerPage';
import { FaultHistory } from '@/screens/ledger/FaultHistory';
import { keepMarks } from '@/screens/marking/actions';
import { MarkAgain } from '@/screens/marking/MarkAgain';
import { MarkingScreen } from '@/screens/marking/MarkingScreen';
import { AimForm } from '@/screens/tests/AimForm';
import { ClosingForm } from '@/screens/tests/PairForms';
import { ThrowForm } from '@/screens/tests/ThrowForm';
import { close } from '@/screens/work/actions';
import { onScreen } from './kit';

vi.mock('sonner', () => ({ toast: vi.fn() }));
const push = vi.hoisted(() => vi.fn());
vi.mock('next/navigation', () => ({
  useRouter: () => ({ push, refresh: vi.fn() }),
  usePathname: () => '/',
  useSearchParams: () => new URLSearchParams(),
}));
vi.mock('@/screens/work/actions', () => ({ close: vi.fn(async () => null) }));
vi.mock('@/screens/ledger/actions', () => ({ keepTest: vi.fn(async () => null) }));
vi.mock('@/screens/marking/actions', () => ({ keepMarks: vi.fn(async () => null) }));
vi.mock('@/ui/filmFrame', () => ({
  FilmFrame: ({ label }: { label: string }) => <div role="img" aria-label={label} />,
}));

afterEach(cleanup);
beforeEach(() => {
  vi.clearAllMocks();
  localStorage.clear();
});

describe('then and now', () => {
  const one = (id: string, name: string, change: Difference['change']): Difference => ({
    id: id as Difference['id'],
    name,
    change,
  });
  const all = [
    one('speed.contact', 'Speed at contact', { verdict: 'better', difference: 1.2, noise: 0.4 }),
    one('lead.hipsTrunk', 'Hips before trunk', {
      verdict: 'worse',
      difference: -0.02,
      noise: 0.01,
    }),
    one('reach', 'Reach', { verdict: 'noise', difference: 0.01, noise: 0.05 }),
    one('flare', 'Elbow flare', { notComparable: 'one was filmed from above' }),
    one('recoil', 'Recoil', { notComparable: 'one was filmed from above' }),
  ];

  it('say what really changed, by how much, and what noise would make', () => {
    onScreen(<Differences differences={all} />);
    expect(screen.getByRole('heading', { name: 'Really changed, 2' })).toBeTruthy();
    const [better, worse] = screen.getAllByRole('listitem').slice(0, 2);
    expect(better!.textContent).toMatch(/Speed at contact better\+1\.2.*noise to 0\.4/);
    expect(worse!.textContent).toMatch(/Hips before trunk worse.20 ms.*noise to 10 ms/);
  });

  it('keep what is within noise, and what cannot be compared by its reason, out of the way', () => {
    onScreen(<Differences differences={all} />);
    expect(screen.getByText('Within noise, 1')).toBeTruthy();
    const not = screen.getByText('Not comparable, 2: one was filmed from above');
    expect(not.closest('details')!.textContent).toContain('Elbow flare, Recoil.');
    expect(not.closest('details')!.open).toBe(false);
  });

  it('of which nothing can be compared say why at once', () => {
    onScreen(<Differences differences={all.slice(3)} />);
    expect(screen.getByRole('heading', { name: 'Nothing really changed' })).toBeTruthy();
    expect(screen.getByText(/^Not comparable, 2/).closest('details')!.open).toBe(true);
  });
});

describe('the leaks of a student', () => {
  const leak = (change: Partial<LedgerFault> = {}) =>
    ({
      technique: 'cross',
      fault: 'jammed',
      name: 'Jammed',
      state: 'open',
      openedAt: '2026-10-01T10:00:00.000Z',
      closedAt: null,
      closedBecause: '',
      clipId: 'clip',
      strikeId: 'strike',
      isFilmed: true,
      shown: [
        { clipId: 'a', day: '2026-10-01', found: 3, told: 4 },
        { clipId: 'b', day: '2026-11-01', found: 1, told: 4 },
      ],
      ...change,
    }) as unknown as LedgerFault;
  const history = (faults: readonly LedgerFault[], unsaid: readonly object[] = []) =>
    onScreen(<FaultHistory studentId="ada" faults={faults} unsaid={unsaid as never} />);

  it('are told from the first set to the last, and lead to the strike', () => {
    history([leak()]);
    expect(screen.getByText(/^Shown in 3 of 4 on .*, in 1 of 4 on /)).toBeTruthy();
    expect(screen.getByRole('link', { name: 'See it' }).getAttribute('href')).toBe(
      '/bench/clip?strike=strike',
    );
  });

  it('whose film is gone lead nowhere; closed ones say why, and cannot be closed again', () => {
    history([
      leak({
        isFilmed: false,
        state: 'closed',
        closedAt: '2026-11-20T10:00:00.000Z',
        closedBecause: 'gone',
      }),
    ]);
    expect(screen.queryByRole('link')).toBeNull();
    expect(screen.getByText(/closed .*: gone/)).toBeTruthy();
    expect(screen.queryByRole('button', { name: 'It is gone' })).toBeNull();
  });

  it('are closed with a reason', async () => {
    const { user } = history([leak()]);
    await user.click(screen.getByRole('button', { name: 'It is gone' }));
    const dialog = within(await screen.findByRole('dialog', { name: '“Jammed” is gone?' }));
    await user.type(dialog.getByLabelText('Because'), 'Three clean sets');
    await user.click(dialog.getByRole('button', { name: 'Close the leak' }));
    expect(close).toHaveBeenCalledWith(
      { studentId: 'ada', technique: 'cross', fault: 'jammed' },
      'Three clean sets',
    );
  });

  it('that nobody has decided on are listed by how often they show', () => {
    history(
      [],
      [
        {
          fault: 'slap',
          name: 'Slap',
          found: 2,
          told: 3,
          clipId: 'c',
          strikeId: 's',
          isFilmed: true,
        },
      ],
    );
    expect(screen.getByText('None accepted yet.')).toBeTruthy();
    expect(screen.getByText('in 2 of 3')).toBeTruthy();
  });
});

describe('the rounds of a day', () => {
  const reading = (value: number): Reading => ({
    value,
    sigma: 0.2,
    unit: 'm/s',
    source: 'measured-2d',
    frames: [],
  });
  const fading = (id: string, slope: number, isReal: boolean) =>
    ({
      id,
      rounds: [
        { round: 1, reading: reading(9) },
        { round: 3, reading: reading(9 + 2 * slope) },
      ],
      slope,
      halfWidth: 0.3,
      isReal,
    }) as unknown as Fading;

  it('say what goes with the rounds, and what cannot be claimed to', () => {
    onScreen(
      <Fatigue
        day="2026-11-28"
        rounds={[fading('speed.contact', -0.8, true), fading('speed.peak', 0.1, false)]}
      />,
    );
    expect(screen.getByRole('heading').textContent).toMatch(/1 of 2 go$/);
    expect(screen.getByText(/^.0\.80? m\/s ± 0\.30? m\/s a round$/)).toBeTruthy();
    expect(screen.getByText(/no change you can claim/)).toBeTruthy();
    expect(screen.getAllByRole('img')[0]!.getAttribute('aria-label')).toMatch(
      /^round 1: 9\.0.*; round 3: 7\.4/,
    );
  });

  it('of which nothing is measured say what is missing', () => {
    const missing = { id: 'reach', absent: 'one round' } as unknown as Fading;
    onScreen(<Fatigue day="2026-11-28" rounds={[missing]} />);
    expect(screen.getByRole('heading').textContent).toMatch(/nothing goes that can be claimed$/);
    expect(screen.getByText('Not measured: reach used.')).toBeTruthy();
  });
});

describe('a throw', () => {
  const type = (label: RegExp, value: string) =>
    fireEvent.change(screen.getAllByLabelText(label)[0]!, { target: { value } });

  it('says what the legs add as soon as both are known, and is kept', async () => {
    const { user } = onScreen(<ThrowForm studentId="ada" today="2026-11-28" />);
    const keep = screen.getByRole<HTMLButtonElement>('button', { name: 'Keep the test' });
    expect(keep.disabled).toBe(true);
    type(/^Standing, how far/, '9');
    type(/^Seated, how far/, '6,25');
    // √(9 ÷ 6.25) − 1 = 20 %, by hand.
    expect(screen.getByText(/What the legs add to the speed: 20 ± 1 %/)).toBeTruthy();
    await user.click(keep);
    expect(keepTest).toHaveBeenCalledWith({
      studentId: 'ada',
      day: '2026-11-28',
      given: {
        kind: 'throw',
        standing: { value: 9, plusMinus: 0.1 },
        seated: { value: 6.25, plusMinus: 0.1 },
      },
    });
    expect(toast).toHaveBeenCalledWith('The test is kept.');
  });

  it('of no number is not kept; a broken line leaves the numbers there', async () => {
    const { user } = onScreen(<ThrowForm studentId="ada" today="2026-11-28" />);
    type(/^Standing, how far/, 'far');
    type(/^Seated, how far/, '6');
    const keep = screen.getByRole<HTMLButtonElement>('button', { name: 'Keep the test' });
    expect(keep.disabled).toBe(true);
    type(/^Standing, how far/, '9');
    vi.mocked(keepTest).mockRejectedValueOnce(new Error('offline'));
    await user.click(keep);
    await waitFor(() => expect(toast).toHaveBeenCalledWith(expect.stringMatching(/still here/)));
    expect(screen.getByText(/What the legs add/)).toBeTruthy();
  });
});

describe('marking again', () => {
  const again = () =>
    onScreen(
      <MarkAgain
        strikeId="strike"
        technique="cross"
        clip={{ id: 'clip', width: 640, height: 360 }}
        span={{ from: 100, to: 130 }}
      />,
    );
  const frame = () => screen.getByLabelText<HTMLInputElement>('Frame').value;
  const keep = () => screen.getByRole<HTMLButtonElement>('button', { name: 'Keep these marks' });

  it('steps within the strike, and no further', async () => {
    const { user } = again();
    await user.keyboard('{ArrowLeft}');
    expect(frame()).toBe('100');
    await user.keyboard('{ArrowRight}{Shift>}{ArrowRight}{/Shift}');
    expect(frame()).toBe('111');
    await user.keyboard('{Shift>}{ArrowRight}{ArrowRight}{ArrowRight}{/Shift}');
    expect(frame()).toBe('130');
  });

  it('is kept when every instant is marked, and under a name', async () => {
    const { user } = again();
    for (let number = 1; number <= 8; number++) {
      expect(keep().disabled).toBe(true);
      await user.keyboard(`${number}{ArrowRight}`);
    }
    expect(keep().disabled).toBe(false);
    vi.mocked(keepMarks).mockResolvedValueOnce('Who marks? Write your name.');
    await user.click(keep());
    expect(toast).toHaveBeenCalledWith('Who marks? Write your name.');
    expect(push).not.toHaveBeenCalled();
    await user.type(screen.getByLabelText('Marked by'), 'Ada');
    await user.click(keep());
    const [strikeId, input] = vi.mocked(keepMarks).mock.lastCall!;
    expect(strikeId).toBe('strike');
    expect(input.by).toBe('Ada');
    expect(
      Object.values(input.marks)
        .map((mark) => mark!.frame)
        .sort(),
    ).toEqual(Array.from({ length: 8 }, (_, i) => 100 + i));
    await waitFor(() => expect(push).toHaveBeenCalledWith('/marking'));
  });

  it('says how sure the eye is once enough is marked twice', () => {
    const strike = (times: number) => ({
      strikeId: `s${times}`,
      clipId: 'c',
      studentId: 'ada',
      student: 'Ada',
      technique: 'cross',
      fileName: 'film.mp4',
      times,
    });
    const error = {
      id: 'lead.hipsTrunk',
      name: 'Hips before trunk',
      unit: 's',
      typicalError: 0.004,
      smallestChange: 0.011,
      icc21: 0.9,
      icc31: 0.92,
    };
    onScreen(<MarkingScreen strikes={[strike(0)]} errors={[]} fewest={1} student={null} />);
    expect(screen.getByRole('heading', { level: 1 }).textContent).toBe('How sure is your eye?');
    expect(screen.getByText('Not known yet')).toBeTruthy();
    cleanup();
    onScreen(
      <MarkingScreen
        strikes={[strike(1), strike(2)]}
        errors={[error as never]}
        fewest={2}
        student={{ id: 'ada', name: 'Ada' }}
      />,
    );
    expect(screen.getByRole('heading', { level: 1 }).textContent).toBe('2 strikes marked twice.');
    expect(screen.getByText('2 times')).toBeTruthy();
    // The way back to the student one came from.
    expect(screen.getByRole('link', { name: 'Ledger' }).getAttribute('href')).toMatch(/ada/);
    const [first] = screen.getAllByRole('link', { name: 'Cross, Ada' });
    expect(first!.getAttribute('href')).toBe('/marking/s1?student=ada');
    const row = within(screen.getByRole('row', { name: /^Hips before trunk/ }));
    expect(row.getAllByRole('cell').map((cell) => cell.textContent)).toEqual([
      'Hips before trunk',
      '4 ms',
      '11 ms',
      '0.90',
      '0.92',
    ]);
  });
});

describe('a set on the pad', () => {
  it('is tapped or typed, the last one taken back, and kept from the third on', async () => {
    vi.mocked(keepTest).mockClear();
    const { user } = onScreen(<AimForm studentId="ada" today="2026-11-28" />);
    const pad = screen.getByRole('img', { name: /tap where each strike landed/ });
    pad.getBoundingClientRect = () => ({ left: 0, top: 0, width: 500, height: 500 }) as DOMRect;
    const keep = () => screen.getByRole<HTMLButtonElement>('button', { name: 'Keep the test' });
    // The middle, and 3 cm to the right of it and above.
    fireEvent.pointerDown(pad, { clientX: 250, clientY: 250 });
    fireEvent.pointerDown(pad, { clientX: 280, clientY: 220 });
    fireEvent.pointerDown(pad, { clientX: 450, clientY: 250 });
    expect(document.querySelectorAll('[data-landed]')).toHaveLength(3);
    await user.click(screen.getByRole('button', { name: 'Take the last back' }));
    expect(keep().disabled).toBe(true);
    await user.type(screen.getByLabelText('Right of the middle, cm'), '-3');
    await user.type(screen.getByLabelText('Above it, cm'), '0{Enter}');
    expect(screen.getByText('Inside the zone: 2 of 3')).toBeTruthy();
    await user.click(keep());
    expect(vi.mocked(keepTest).mock.calls[0]![0].given).toEqual({
      kind: 'aim',
      aim: 'chin',
      plusMinus: 0.01,
      points: [
        { across: 0, up: 0 },
        { across: 0.03, up: 0.03 },
        { across: -0.03, up: 0 },
      ],
    });
  });
});

it('a moving target takes the strike’s speed from the ledger', async () => {
  const speeds = [
    { clipId: 'c', technique: 'cross', day: '2026-11-20', strikes: 5, value: 8, plusMinus: 0.4 },
  ];
  const { user } = onScreen(<ClosingForm studentId="ada" today="2026-11-28" speeds={speeds} />);
  await user.selectOptions(screen.getByLabelText('Speed out of the ledger'), '0');
  await user.type(screen.getByLabelText('The pad came, cm'), '6');
  await user.type(screen.getByLabelText('in, ms'), '40');
  expect(screen.getByText(/^Speed at which they meet: 9\.5 ± /)).toBeTruthy();
});
