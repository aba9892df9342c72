// @vitest-environment happy-dom
/** The Leaks tab: what was found, what it costs, and the coach's word on it by button and by key. */
import { cleanup, screen, waitFor, within } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { toast } from 'sonner';
import { accept, dismiss, notNow, reopen } from '@/screens/bench/document/actions';
import { giveFor } from '@/screens/work/actions';
import { FaultsTab } from '@/screens/bench/panel/faults/FaultsTab';
import type { Decision } from '@/data/finding/findings';
import { benchWith, jammedCross, onBench, strikeIn } from './kit';

vi.mock('@/screens/bench/document/actions', async () =>
  (await import('./doubles')).actionsThatKeep(),
);
vi.mock('@/screens/bench/panel/what-if/chainModel', async () =>
  (await import('./doubles')).chainModelHere(),
);
vi.mock('@/screens/work/actions', () => ({ giveFor: vi.fn(async () => ({ kind: 'given' })) }));
vi.mock('next/navigation', () => ({ useRouter: () => ({ push: vi.fn() }) }));
// No film is decoded here; what is shown of it is the browser tests'.
vi.mock('@/ui/filmFrame', () => ({ FilmFrame: () => <p>the strike</p> }));
vi.mock('sonner', async () => (await import('./doubles')).toasts());

afterEach(cleanup);
beforeEach(() => vi.clearAllMocks());

function leaks(decisions: readonly Decision[] = [], store = benchWith()) {
  const onSet = vi.fn();
  const drawn = onBench(store, (analysis) => (
    <FaultsTab analysis={analysis} strike={strikeIn(store)} decisions={decisions} onSet={onSet} />
  ));
  return { ...drawn, onSet };
}
const firstLeak = () => screen.getAllByRole('listitem')[0]!;

describe('a leak that was found', () => {
  it('stands as a sentence over the list, with its evidence, its reason and three answers', () => {
    leaks();
    const row = within(firstLeak());
    expect(row.getByRole('heading').textContent).toBe('Jammed');
    expect(screen.getByRole('heading', { level: 2 }).textContent).not.toBe('Jammed');
    expect(row.getAllByText(/elbow|target|reach/i).length > 0).toBeTruthy();
    for (const name of [/Use this cue/, /^Wrong/, /^Later/]) {
      expect(row.getByRole('button', { name })).toBeTruthy();
    }
    expect(screen.getByText(/One strike: a first word, not a verdict/)).toBeTruthy();
  });

  it('has its cost once the chain model has run beside the page', async () => {
    leaks();
    expect(within(firstLeak()).queryByText(/momentum/)).toBeNull();
    await waitFor(() => expect(within(firstLeak()).getAllByText(/−\d+ % momentum/)).toBeTruthy(), {
      timeout: 10_000,
    });
    expect(within(firstLeak()).getByText(/in the chain model/)).toBeTruthy();
  });

  it('costs seconds where it takes time and no momentum', async () => {
    const { strike, series } = jammedCross('slow-home');
    leaks([], benchWith({ strike, start: { series } }));
    const row = () => within(screen.getByText('Slow home').closest('li')!);
    expect(await row().findByText(/^0\.\d\d s open$/, {}, { timeout: 10_000 })).toBeTruthy();
    expect(row().getByText(/Costs about 0\.\d\d s \(.* s\) with the head open\./)).toBeTruthy();
  });

  it('leads to the frame that shows it', async () => {
    const { user, store } = leaks();
    await user.click(within(firstLeak()).getByRole('button', { name: /Show frame/ }));
    const { frame, evidence } = store.getState();
    expect(frame).toBe(strikeIn(store).marks.contact!.frame);
    expect(evidence).not.toBeNull();
  });
});

describe('the coach’s word on it', () => {
  it('takes the cue by button, and by Enter', async () => {
    const { user } = leaks();
    await user.click(within(firstLeak()).getByRole('button', { name: /Use this cue/ }));
    expect(accept).toHaveBeenCalledWith('one', 'jammed', false, 'strike');
    // A second answer waits for the first.
    await within(firstLeak()).findByRole('button', { name: /Use this cue/ });
    await user.click(document.body);
    await user.keyboard('{Enter}');
    await waitFor(() => expect(accept).toHaveBeenCalledTimes(2));
  });

  it('answers at once, before it is on the disk; and takes the answer back where it is not kept', async () => {
    let fail: (error: Error) => void = () => undefined;
    vi.mocked(accept).mockReturnValueOnce(new Promise((_, reject) => (fail = reject)));
    const { user } = leaks();
    await user.keyboard('{Enter}');
    await user.keyboard('{Enter}');
    expect(within(firstLeak()).getByText('Accepted.')).toBeTruthy();
    expect(accept).toHaveBeenCalledTimes(1);
    // What is still on its way cannot be taken back.
    await user.click(within(firstLeak()).getByRole('button', { name: 'Take it back' }));
    expect(reopen).not.toHaveBeenCalled();
    fail(new Error('fetch failed'));
    await waitFor(() =>
      expect(within(firstLeak()).getByRole('button', { name: /Use this cue/ })).toBeTruthy(),
    );
    expect(toast).toHaveBeenCalledWith(
      'The cue was not kept: the server does not answer. Try again.',
    );
  });

  it('and the next key, pressed before it is on the disk, is done when it is', async () => {
    let kept: (outcome: { kind: 'accepted' }) => void = () => undefined;
    vi.mocked(accept).mockReturnValueOnce(new Promise((resolve) => (kept = resolve)));
    const { user } = leaks();
    await user.keyboard('{Enter}u');
    expect(giveFor).not.toHaveBeenCalled();
    kept({ kind: 'accepted' });
    await waitFor(() =>
      expect(giveFor).toHaveBeenCalledWith({
        studentId: 'student',
        technique: 'cross',
        fault: 'jammed',
      }),
    );
    await user.keyboard('{Enter}');
    await waitFor(() => expect(accept).toHaveBeenCalledTimes(2));
    expect(giveFor).toHaveBeenCalledTimes(1);
  });

  it('asks which cue stays where there is another', async () => {
    vi.mocked(accept).mockResolvedValueOnce({ kind: 'other-cue', text: 'Sit, then turn' });
    const { user } = leaks();
    await user.keyboard('{Enter}');
    const dialog = within(await screen.findByRole('dialog'));
    expect(dialog.getByText('Sit, then turn')).toBeTruthy();
    await user.click(dialog.getAllByRole('button')[0]!);
    expect(accept).toHaveBeenLastCalledWith('one', 'jammed', true, 'strike');
    await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
  });

  it('dismisses by N with a reason of the four, or in own words', async () => {
    const { user } = leaks();
    await user.keyboard('n');
    const dialog = within(await screen.findByRole('dialog'));
    await user.click(dialog.getByRole('button', { name: 'It is meant that way' }));
    expect(dismiss).toHaveBeenCalledWith('one', 'jammed', 'It is meant that way');
    await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
    await user.keyboard('n');
    const again = within(await screen.findByRole('dialog'));
    expect(again.getByRole('button', { name: 'Keep the reason' })).toHaveProperty('disabled', true);
    await user.type(again.getByLabelText('Or in your words'), 'bag was too near');
    await user.click(again.getByRole('button', { name: 'Keep the reason' }));
    expect(dismiss).toHaveBeenLastCalledWith('one', 'jammed', 'bag was too near');
  });

  it('leaves it for later by J, and says so when that is not kept', async () => {
    const { user } = leaks();
    await user.keyboard('j');
    await waitFor(() => expect(notNow).toHaveBeenCalledWith('one', 'jammed'));
    vi.mocked(notNow).mockRejectedValueOnce(new Error('fetch failed'));
    await user.keyboard('j');
    await waitFor(() =>
      expect(toast).toHaveBeenCalledWith('Not kept: the server does not answer. Try again.'),
    );
  });

  it.each([
    ['accepted', '', 'Accepted.'],
    ['dismissed', 'bag too near', 'Wrong: bag too near.'],
    ['later', '', 'Later.'],
  ] as const)(
    'is shown where it was given: %s, and can be taken back',
    async (status, reason, says) => {
      const { user } = leaks([
        { fault: 'jammed', status, reason, by: 'Ilse Brandt', at: '2026-11-29T12:30:00Z' },
      ]);
      const row = within(firstLeak());
      expect(row.getByText(says)).toBeTruthy();
      expect(row.getByText(/^Ilse Brandt, 29 Nov 2026/)).toBeTruthy();
      expect(row.queryByRole('button', { name: /Use this cue/ })).toBeNull();
      // With nothing open there is nothing for the keys.
      await user.keyboard('{Enter}');
      expect(accept).not.toHaveBeenCalled();
      await user.click(row.getByRole('button', { name: 'Take it back' }));
      expect(reopen).toHaveBeenCalledWith('one', 'jammed');
    },
  );

  it('is not lost in silence when the server does not answer', async () => {
    vi.mocked(accept).mockRejectedValueOnce(new Error('fetch failed'));
    const { user } = leaks();
    await user.keyboard('{Enter}');
    await waitFor(() => expect(toast).toHaveBeenCalledWith(expect.stringContaining('Try again.')));
  });
});

describe('what was not found', () => {
  it('is folded away with its reasons, and what cannot be told is gathered by what would settle it', () => {
    leaks();
    const clear = screen.getByText(/Looked for and not there: \d+ leaks/);
    expect(clear.closest('details')!.open).toBe(false);
    const open = within(screen.getByRole('region', { name: 'Can’t tell' }));
    const count = Number(open.getByText(/^\d+$/).textContent);
    expect(count).toBeGreaterThan(0);
    // Each is asked of the eye on its own.
    expect(open.getAllByRole('button', { name: /: I see it$/ })).toHaveLength(count);
    expect(open.getAllByRole('button', { name: /: it is not there$/ })).toHaveLength(count);
  });

  it('is decided by the coach’s eye, and taken back', async () => {
    const store = benchWith();
    const { user } = leaks([], store);
    const open = within(screen.getByRole('region', { name: 'Can’t tell' }));
    const [sees] = open.getAllByRole('button', { name: /: I see it$/ });
    const name = sees!.getAttribute('aria-label')!.replace(/: I see it$/, '');
    await user.click(sees!);
    expect(Object.values(strikeIn(store).audit!)).toEqual(['drags']);
    cleanup();
    const again = leaks([], store);
    expect(screen.getByText(/^By eye: /)).toBeTruthy();
    const eye = within(screen.getByRole('region', { name: 'By your eye' }));
    expect(eye.getByText(`${name}: there`)).toBeTruthy();
    await again.user.click(eye.getByRole('button', { name: 'Take it back' }));
    expect(strikeIn(store).audit).toBeUndefined();
  });

  it('leads to the set where there is more than one of a kind', async () => {
    const { strike } = jammedCross();
    const store = benchWith({ document: { strikes: [strike, { ...strike, id: 'two' }] } });
    const { user, onSet } = leaks([], store);
    await user.click(screen.getByRole('button', { name: /Judge the set of 2/ }));
    expect(onSet).toHaveBeenCalledOnce();
  });
});

describe('marks that contradict each other', () => {
  it('are told instead of leaks', () => {
    const { strike } = jammedCross();
    const { hips, contact } = strike.marks;
    const turned = { ...strike, marks: { ...strike.marks, hips: contact!, contact: hips! } };
    leaks([], benchWith({ strike: turned }));
    expect(screen.getByRole('heading').textContent).toBe('The marks contradict each other.');
    expect(screen.getAllByRole('listitem').length).toBeGreaterThan(0);
    expect(screen.queryByRole('button', { name: /Use this cue/ })).toBeNull();
  });
});

describe('looking blind', () => {
  it('asks at three paces, keeps the answers with the strike, and says what they are worth', async () => {
    const { user, store } = leaks();
    await user.keyboard('{Shift>}B{/Shift}');
    const dialog = within(screen.getByRole('dialog', { name: 'Who leaves first?' }));
    // A key that is pressed once more answers nothing.
    expect(document.activeElement?.tagName).not.toBe('BUTTON');
    for (const pace of [4, 8, 16]) {
      expect(dialog.getByText(new RegExp(`${pace} times slower`))).toBeTruthy();
      expect(dialog.queryByText(/ms/)).toBeNull();
      await user.click(dialog.getByRole('button', { name: 'Hips first' }));
    }
    expect(strikeIn(store).looks).toEqual([4, 8, 16].map((slowed) => ({ says: 'hips', slowed })));
    expect(dialog.getByText(/one look of yours is good to about ± \d+ ms/)).toBeTruthy();
    expect(dialog.getByText('With your eye')).toBeTruthy();
    await user.click(dialog.getByRole('button', { name: 'Done' }));
    const eye = within(screen.getByRole('region', { name: 'By your eye' }));
    expect(eye.getByText('Looking blind: hips first, hips first, hips first')).toBeTruthy();
    await user.click(eye.getByRole('button', { name: 'Take them back' }));
    expect(strikeIn(store).looks).toBeUndefined();
  });

  it('is not offered where nobody knows when it landed', async () => {
    const store = benchWith({
      strike: { ...jammedCross().strike, marks: {} },
      start: { series: null },
    });
    const { user } = leaks([], store);
    await user.keyboard('{Shift>}B{/Shift}');
    expect(screen.queryByRole('dialog')).toBeNull();
  });
});
