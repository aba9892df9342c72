// @vitest-environment happy-dom
/** The library: limits, cues, drills and schools, each changed, refused, and brought back. */
import { DEMAND_NAMES } from '@sinew/core/foundation/drill/demand';
import { cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react';
import { toast } from 'sonner';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { toScreen } from '@sinew/core/foundation/reading/say';
import { CATALOGUE, faultById } from '@sinew/core/judge/fault/faults';
import { isOfReading, limitId } from '@sinew/core/judge/fault/schema';
import type { Agreement } from '@sinew/core/judge/library/agreement';
import { edited, NO_EDITS, type Edits } from '@sinew/core/judge/library/edits';
import { unitOf } from '@sinew/core/measure/measures/units';
import { ask } from '@/api/client';
import { change } from '@/screens/library/actions';
import { effectInWords } from '@/screens/library/effect';
import { LibraryScreen } from '@/screens/library/LibraryScreen';
import { readingName } from '@/screens/library/readingName';
import { onScreen } from './kit';

vi.mock('sonner', () => ({ toast: vi.fn() }));
const refresh = vi.hoisted(() => vi.fn());
vi.mock('next/navigation', () => ({
  useRouter: () => ({ push: vi.fn(), refresh }),
  usePathname: () => '/library',
  useSearchParams: () => new URLSearchParams(),
}));
vi.mock('@/screens/library/actions', () => ({ change: vi.fn() }));
vi.mock('@/api/client', async (original) => ({
  ...(await original<object>()),
  ask: vi.fn(async () => null),
}));

const NO_EFFECT = {
  strikes: 0,
  more: { strikes: 0, students: 0 },
  fewer: { strikes: 0, students: 0 },
};

afterEach(cleanup);
beforeEach(() => {
  vi.clearAllMocks();
  localStorage.clear();
  localStorage.setItem('sinew-coach', 'Ada');
  vi.mocked(change).mockResolvedValue({ kind: 'kept', effect: NO_EFFECT });
});

const library = (edits: Edits = NO_EDITS, agreements: Record<string, Agreement> = {}) =>
  onScreen(
    <LibraryScreen
      agreements={agreements}
      catalogue={edited(edits)}
      usual={CATALOGUE}
      edits={edits}
      history={[
        {
          at: '2026-11-01T10:00:00.000Z',
          by: 'Ada',
          what: 'Jammed: limit',
          before: '150°',
          after: '155°',
        },
      ]}
    />,
  );
const jammed = faultById('jammed')!;
const [first] = jammed.cases;
const limit = first!.limits.find(isOfReading)!;
const { factor } = toScreen(unitOf(limit.reading));
const limitBox = () =>
  screen.getAllByLabelText<HTMLInputElement>(`Limit: ${readingName(limit.reading)}`)[0]!;

async function inHand(edits: Edits = NO_EDITS) {
  const drawn = library(edits);
  fireEvent.click(screen.getByRole('button', { name: /^Jammed/ }));
  return { ...drawn, detail: within(screen.getByRole('region', { name: 'Jammed' })) };
}

describe('a limit', () => {
  it('is kept as typed, in the unit of the screen, with comma or point', async () => {
    const { user } = await inHand();
    const typed = Math.round(limit.value * factor) + 5;
    fireEvent.change(limitBox(), { target: { value: `${typed},5` } });
    await user.click(screen.getAllByRole('button', { name: 'Keep' })[0]!);
    const [by, wanted] = vi.mocked(change).mock.calls[0]!;
    expect(by).toBe('Ada');
    expect(wanted).toMatchObject({ kind: 'limit', fault: 'jammed', limit: limitId(first!, limit) });
    expect((wanted as { value: number }).value).toBeCloseTo((typed + 0.5) / factor, 9);
    expect(toast).toHaveBeenCalledWith('Kept.', { description: 'No strike is measured yet.' });
  });

  it('that is no number is not sent', async () => {
    await inHand();
    fireEvent.change(limitBox(), { target: { value: 'much' } });
    expect(limitBox().getAttribute('aria-invalid')).toBe('true');
    fireEvent.submit(limitBox().closest('form')!);
    expect(change).not.toHaveBeenCalled();
  });

  it('that was changed has a way back', async () => {
    const edits: Edits = {
      ...NO_EDITS,
      faults: { jammed: { limits: { [limitId(first!, limit)]: limit.value + 0.2 } } },
    };
    const { user, detail } = await inHand(edits);
    await user.click(detail.getByRole('button', { name: /^Back to/ }));
    expect(vi.mocked(change).mock.calls[0]![1]).toMatchObject({ kind: 'limit', value: null });
    await waitFor(() => expect(Number(limitBox().value)).toBeCloseTo(limit.value * factor, 2));
  });
});

describe('a leak', () => {
  it('gets another cue, another drill, and is not judged any more', async () => {
    const { user, detail } = await inHand();
    const cue = detail.getByLabelText('Cue, to the student');
    fireEvent.change(cue, { target: { value: 'Step in.' } });
    fireEvent.submit(cue.closest('form')!);
    await waitFor(() => expect(change).toHaveBeenCalledTimes(1));
    const other = CATALOGUE.drills.find(({ id }) => id !== jammed.drill)!;
    await user.selectOptions(detail.getByLabelText('Drill'), other.id);
    await user.click(detail.getByRole('button', { name: 'Do not judge it in this gym' }));
    expect(vi.mocked(change).mock.calls.map(([, wanted]) => wanted)).toEqual([
      { kind: 'cue', fault: 'jammed', text: 'Step in.' },
      { kind: 'drill-of', fault: 'jammed', drill: other.id },
      { kind: 'off', fault: 'jammed', isOff: true },
    ]);
  });

  it('that was changed comes back as a whole', async () => {
    const { user, detail } = await inHand({ ...NO_EDITS, faults: { jammed: { cue: 'Step in.' } } });
    expect(detail.getByLabelText<HTMLInputElement>('Cue, to the student').value).toBe('Step in.');
    await user.click(detail.getByRole('button', { name: 'Reset to default' }));
    expect(vi.mocked(change).mock.calls[0]![1]).toEqual({ kind: 'reset', fault: 'jammed' });
    expect(detail.getByLabelText<HTMLInputElement>('Cue, to the student').value).toBe(jammed.cue);
  });

  it('is found by its name, its cue or its headline', async () => {
    const { user } = library();
    await user.type(screen.getByLabelText('Find'), 'jammed');
    const list = screen.getByRole('button', { name: /^Jammed/ }).closest('ul')!;
    expect(within(list).getAllByRole('button').length).toBeLessThan(5);
  });

  it('of the gym’s own needs a name, strikes and a limit; then it is sent whole', async () => {
    const { user } = library();
    await user.click(screen.getByRole('button', { name: 'A leak of your own' }));
    const own = within(screen.getByRole('region', { name: 'A leak of your own' }));
    await user.click(own.getByRole('button', { name: 'Keep the leak' }));
    expect(own.getByText('A limit is needed.')).toBeTruthy();
    fireEvent.change(own.getByLabelText(/^Limit/), { target: { value: '12' } });
    await user.click(own.getByRole('button', { name: 'Keep the leak' }));
    expect(own.getByText('Name, techniques, cue and why are needed.')).toBeTruthy();
    expect(change).not.toHaveBeenCalled();
    await user.type(own.getByLabelText('Name'), 'Elbow late');
    await user.type(own.getByLabelText('Cue, to the student'), 'Elbow first.');
    await user.type(own.getByLabelText('Why it costs'), 'The arm comes alone.');
    await user.click(own.getByLabelText('Lead hook'));
    await user.selectOptions(own.getByLabelText('Link'), 'elbow');
    await user.selectOptions(own.getByLabelText('Phase'), 'accelerate');
    await user.selectOptions(own.getByLabelText('Judged'), 'only with: plant the foot');
    await user.click(own.getByRole('button', { name: 'Keep the leak' }));
    const [, wanted] = vi.mocked(change).mock.calls[0]!;
    expect(wanted).toMatchObject({
      kind: 'own',
      fault: {
        name: 'Elbow late',
        link: 'elbow',
        phase: 'accelerate',
        techniques: ['jab', 'cross', 'lead-hook'],
        cases: [{ when: { hookFoot: ['plant'] } }],
      },
    });
  });
});

describe('a drill of the gym’s own', () => {
  it('is sent with what it asks of a body', async () => {
    const { user } = library();
    await user.click(screen.getByRole('tab', { name: 'Drills' }));
    await user.click(screen.getByRole('button', { name: 'A drill of your own' }));
    const own = within(screen.getByRole('region', { name: 'A drill of your own' }));
    await user.type(own.getByLabelText('Name'), 'Rope round');
    await user.click(own.getByRole('button', { name: 'Keep the drill' }));
    expect(own.getByRole('alert').textContent).toMatch(/dose/);
    await user.type(own.getByLabelText('Dose'), '3 x 8');
    await user.click(own.getByLabelText(DEMAND_NAMES.weights));
    await user.click(own.getByRole('button', { name: 'Keep the drill' }));
    expect(vi.mocked(change).mock.calls[0]![1]).toEqual({
      kind: 'own-drill',
      drill: {
        id: 'rope-round',
        name: 'Rope round',
        dose: '3 x 8',
        link: 'pelvis',
        asks: ['weights'],
      },
    });
  });

  it('can be taken away; one that comes with Sinew cannot', async () => {
    const drill = {
      id: 'rope-round',
      name: 'Rope round',
      dose: '3',
      link: 'feet',
      asks: [],
    } as const;
    const { user } = library({ ...NO_EDITS, ownDrills: [{ ...drill, asks: [] }] });
    await user.click(screen.getByRole('tab', { name: 'Drills' }));
    const away = screen.getAllByRole('button', { name: /^Take away/ });
    expect(away).toHaveLength(1);
    await user.click(away[0]!);
    expect(vi.mocked(change).mock.calls[0]![1]).toEqual({
      kind: 'remove-own-drill',
      drill: 'rope-round',
    });
  });
});

describe('who changes', () => {
  it('is asked for a name, and the page says so beside it', async () => {
    localStorage.clear();
    vi.mocked(change).mockResolvedValue({ kind: 'wrong', why: 'Who changes it?' });
    const { user, detail } = await inHand();
    await user.click(detail.getByRole('button', { name: 'Do not judge it in this gym' }));
    expect(await screen.findByText('Who changes it?')).toBeTruthy();
    expect(toast).not.toHaveBeenCalled();
    // However far down the page it was changed.
    expect(document.activeElement).toBe(screen.getByLabelText('Changed by'));
    await user.keyboard('Bo');
    expect(screen.getByLabelText<HTMLInputElement>('Changed by').value).toBe('Bo');
    expect(screen.queryByText('Who changes it?')).toBeNull();
  });

  it('is told what was refused, and when the server does not answer', async () => {
    vi.mocked(change).mockResolvedValueOnce({ kind: 'wrong', why: 'There is no such limit.' });
    const { user, detail } = await inHand();
    const off = detail.getByRole('button', { name: 'Do not judge it in this gym' });
    await user.click(off);
    expect(toast).toHaveBeenLastCalledWith('There is no such limit.');
    vi.mocked(change).mockRejectedValueOnce(new Error('offline'));
    await user.click(off);
    expect(toast).toHaveBeenLastCalledWith(expect.stringMatching(/^Not kept/));
  });

  it('is in the history with what was before and after', async () => {
    const { user } = library();
    await user.click(screen.getByRole('tab', { name: 'History' }));
    const panel = within(screen.getByRole('tabpanel', { name: 'History' }));
    for (const word of ['Ada', 'Jammed: limit', '150°', '155°']) {
      expect(panel.getByText(new RegExp(word))).toBeTruthy();
    }
  });
});

describe('a library from a file', () => {
  const take = async (text: string) => {
    const drawn = library();
    await drawn.user.upload(
      screen.getByLabelText('Take from a file'),
      new File([text], 'library.json', { type: 'application/json' }),
    );
    await waitFor(() => expect(refresh).toHaveBeenCalled());
  };

  it('is sent whole under the coach’s name', async () => {
    await take('{"format":"sinew-library"}');
    expect(vi.mocked(ask).mock.calls[0]!.slice(1)).toEqual([['Ada'], { format: 'sinew-library' }]);
    expect(toast).toHaveBeenCalledWith('The library is taken over.');
  });

  it('that is no library is refused in the server’s words', async () => {
    vi.mocked(ask).mockRejectedValueOnce(new Error('This is not a library of Sinew’s.'));
    await take('no json');
    expect(vi.mocked(ask).mock.calls[0]!.slice(1)).toEqual([['Ada'], null]);
    expect(toast).not.toHaveBeenCalledWith('The library is taken over.');
  });
});

it('what a change does is said of strikes and students', () => {
  const by = (strikes: number, students: number) => ({ strikes, students });
  expect(effectInWords(NO_EFFECT)).toBe('No strike is measured yet.');
  expect(effectInWords({ ...NO_EFFECT, strikes: 1 })).toBe(
    'In the one strike measured nothing changes.',
  );
  expect(effectInWords({ strikes: 40, more: by(3, 2), fewer: by(1, 1) })).toBe(
    'Of the newest 40 strikes, 3 (2 students) now show a leak they did not; 1 (1 student) no longer show one.',
  );
});

it('says how the coaches have decided on a leak, and moves the limit to where they would agree', async () => {
  const proposal = {
    limit: limitId(first!, limit),
    reading: limit.reading,
    from: limit.value,
    to: 0.8,
    wrongLeft: 4,
    takenLeft: 0,
  };
  const { user } = library(NO_EDITS, { jammed: { taken: 3, wrong: 5, proposal } });
  expect(screen.queryByRole('region', { name: 'How you have decided' })).toBeNull();
  await user.click(screen.getByRole('button', { name: 'Jammed' }));
  const decided = screen.getByRole('region', { name: 'How you have decided' });
  expect(decided.textContent).toContain('decided on 8 times: taken 3 times, called wrong 5 times');
  expect(decided.textContent).toContain(
    '4 of the 5 called wrong would not have been found, and all',
  );
  await user.click(within(decided).getByRole('button', { name: 'Move the limit' }));
  expect(vi.mocked(change).mock.calls[0]![1]).toEqual({
    kind: 'limit',
    fault: 'jammed',
    limit: proposal.limit,
    value: 0.8,
  });
});
