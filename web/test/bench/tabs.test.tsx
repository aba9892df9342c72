// @vitest-environment happy-dom
/** The other tabs of the bench, each by what it says and what it changes in the clip's document. */
import { cleanup, screen, waitFor, within } from '@testing-library/react';
import { readFileSync } from 'node:fs';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { MEASURE_GROUPS, MEASURE_NAMES } from '@sinew/core/measure/measures/allMeasures';
import { wornOn } from '@sinew/core/observe/band/band';
import type { KeptBands } from '@sinew/core/observe/band/bandTurns';
import { absent } from '@sinew/core/foundation/reading/reading';
import { surveySchema, type Survey } from '@sinew/core/observe/take/survey';
import { ask } from '@/api/client';
import { accept } from '@/screens/bench/document/actions';
import { BodyTab } from '@/screens/bench/panel/body/BodyTab';
import { EyeTab } from '@/screens/bench/panel/eye/EyeTab';
import { FilmTab } from '@/screens/bench/panel/film/FilmTab';
import { ReadingsTable } from '@/screens/bench/panel/readings/ReadingsTable';
import { SetTab } from '@/screens/bench/panel/set/SetTab';
import { SetUp } from '@/screens/bench/panel/set-up/SetUpTab';
import { WhatIfTab } from '@/screens/bench/panel/what-if/WhatIfTab';
import { strikeOf } from '@/screens/bench/document/benchStore';
import { changeJob } from '@/tracking/requests';
import { benchWith, documentIn, jammedCross, onBench, strikeIn } from './kit';

vi.mock('next/navigation', () => ({ useRouter: () => ({ push: vi.fn() }) }));
vi.mock('@/screens/bench/document/actions', async () =>
  (await import('./doubles')).actionsThatKeep(),
);
vi.mock('@/screens/bench/panel/what-if/chainModel', async () =>
  (await import('./doubles')).chainModelHere(),
);
vi.mock('sonner', async () => (await import('./doubles')).toasts());
vi.mock('@/api/client', async (original) => ({
  ...(await original<object>()),
  ask: vi.fn(async () => ({ revision: 1 })),
}));
vi.mock('@/tracking/requests', () => ({
  changeJob: vi.fn(async () => undefined),
  drop: vi.fn(async () => undefined),
}));

afterEach(cleanup);
beforeEach(() => vi.clearAllMocks());

describe('Readings', () => {
  it('has every reading that is there with its ±, and where it is from', () => {
    const store = benchWith();
    onBench(store, ({ readings }) => (
      <ReadingsTable readings={readings} origin={{ isTracked: false, isAutomatic: false }} />
    ));
    const row = screen.getByRole('row', {
      name: new RegExp(`^${MEASURE_NAMES['speed.contact']}`),
    });
    const cells = within(row).getAllByRole('cell');
    expect(cells.map(({ textContent }) => textContent)).toEqual([
      MEASURE_NAMES['speed.contact'],
      expect.stringMatching(/^\d+(\.\d+)?$/),
      expect.stringMatching(/^± \d+(\.\d+)? m\/s$/),
      'in space',
    ]);
  });

  it('says of the missing ones why, once for each reason, and nothing of what cannot apply', () => {
    const store = benchWith();
    const group = MEASURE_GROUPS.find(({ ids }) => ids.length > 1)!;
    const [first, second] = group.ids as [string, string];
    onBench(store, ({ readings }) => (
      <ReadingsTable
        readings={{
          ...readings,
          [first]: absent('The feet are not in the picture.'),
          [second]: absent('The feet are not in the picture.'),
        }}
        origin={{ isTracked: false, isAutomatic: false }}
      />
    ));
    const reason = screen.getByText('The feet are not in the picture.');
    expect(reason.nextElementSibling?.textContent).toContain(
      MEASURE_NAMES[first as keyof typeof MEASURE_NAMES],
    );
    expect(screen.queryByText('No step.')).toBeNull();
  });

  it('owns up to marks that nobody has confirmed, and to a track', () => {
    const store = benchWith();
    onBench(store, ({ readings }) => (
      <ReadingsTable readings={readings} origin={{ isTracked: true, isAutomatic: true }} />
    ));
    expect(screen.getAllByText('in space, tracked').length).toBeGreaterThan(0);
  });
});

describe('Eye', () => {
  const eye = (store = benchWith()) => onBench(store, () => <EyeTab strike={strikeIn(store)} />);
  const current = () =>
    screen.getAllByRole('listitem').find((item) => item.getAttribute('aria-current') === 'true')!;

  it('takes the coach’s word part by part with one key each, and goes on to the next', async () => {
    const { user, store } = eye();
    const parts = screen.getAllByRole('group').map((one) => one.getAttribute('aria-label')!);
    expect(within(current()).getByRole('group').getAttribute('aria-label')).toBe(parts[0]);
    await user.keyboard('a');
    expect(Object.values(strikeIn(store).audit ?? {})).toEqual(['drags']);
    expect(within(current()).getByRole('group').getAttribute('aria-label')).toBe(parts[1]);
    await user.keyboard('q,');
    expect(Object.values(strikeIn(store).audit ?? {})).toEqual(['drags', 'drives']);
    expect(within(current()).getByRole('group').getAttribute('aria-label')).toBe(parts[1]);
  });

  it('stands in groups from the ground up, each part with the leak it decides', async () => {
    eye();
    const heads = screen.getAllByRole('heading', { level: 3 }).map((one) => one.textContent);
    expect(heads).toEqual(['What can hurt', 'Ground', 'Middle', 'Top', 'Head and breath']);
    const hip = screen.getByRole('group', { name: 'Back hip' }).closest('li')!;
    expect(hip.textContent).toContain('decides: Arm alone');
  });

  it('takes it back when the same is said again', async () => {
    const { user, store } = eye();
    await user.keyboard('e,e');
    expect(Object.values(strikeIn(store).audit ?? {})).toEqual([]);
    await user.keyboard('{Control>}z{/Control}');
  });

  it('can be clicked in any order, and shows what was said as pressed', async () => {
    const { user } = eye();
    const groups = screen.getAllByRole('group');
    const last = within(groups[groups.length - 1]!);
    await user.click(last.getByRole('button', { name: / drags$/ }));
    expect(last.getByRole('button', { name: / drags$/ }).getAttribute('aria-pressed')).toBe('true');
    expect(last.getByRole('button', { name: / drives$/ }).getAttribute('aria-pressed')).toBe(
      'false',
    );
  });
});

describe('Set', () => {
  const report = (finding: object) => ({
    strikes: [
      { id: 'one', frame: 40 },
      { id: 'two', frame: 90 },
    ],
    findings: [finding],
    isProvisional: true,
    leftOut: 1,
  });
  const found = {
    fault: 'jammed',
    name: 'Jammed',
    status: 'found',
    evidence: 'The elbow is at 80° at contact.',
    frame: 40,
    judgedBy: [],
    judgedAs: [],
    injury: false,
    cost: null,
    each: ['found', 'clear'],
    shows: 1,
    of: 2,
  };
  const set = () => {
    const { strike } = jammedCross();
    const store = benchWith({ document: { strikes: [strike, { ...strike, id: 'two' }] } });
    return onBench(store, () => <SetTab strike={strikeIn(store)} decisions={[]} />);
  };

  it('says in how many strikes a leak shows, and leads to each of them', async () => {
    vi.mocked(ask).mockResolvedValue(report(found) as never);
    const { user, store } = set();
    expect(screen.getByRole('status').textContent).toMatch(/You need not wait/);
    expect(await screen.findByText('Shows in 1 of 2')).toBeTruthy();
    expect(screen.getByText(/Fewer than three: a first word/).textContent).toContain(
      '1 left out: the marks contradict each other.',
    );
    await user.click(
      screen.getByRole('button', { name: 'Go to strike 2, which does not show it' }),
    );
    expect(store.getState()).toMatchObject({ strikeId: 'two', frame: 90 });
  });

  it('gives its cue on the evidence of the set', async () => {
    vi.mocked(ask).mockResolvedValue(report(found) as never);
    const { user } = set();
    await user.click(await screen.findByRole('button', { name: 'Use this cue' }));
    await waitFor(() => expect(accept).toHaveBeenCalledWith('one', 'jammed', false, 'set'));
  });

  it('tells apart what shows only now and then', async () => {
    const sometimes = { ...found, status: 'clear', evidence: 'Once, of two.' };
    vi.mocked(ask).mockResolvedValueOnce(report(sometimes) as never);
    set();
    expect(await screen.findByRole('heading', { name: 'Only now and then' })).toBeTruthy();
    expect(screen.queryByRole('button', { name: 'Use this cue' })).toBeNull();
  });

  it('says so when the server does not answer', async () => {
    vi.mocked(ask).mockRejectedValueOnce(new Error('fetch failed'));
    set();
    expect(await screen.findByText(/could not be judged.*Nothing is lost/)).toBeTruthy();
  });
});

describe('What-if', () => {
  it('throws the strike anew with a slider moved, and as it was again', async () => {
    const store = benchWith();
    const { user } = onBench(store, () => <WhatIfTab strike={strikeIn(store)} />);
    expect(screen.getByRole('status').textContent).toMatch(/chain model/);
    await screen.findByText('The strike as it was thrown.', {}, { timeout: 10_000 });
    // The trunk, held still, is missed; without its elbow a straight never gets there.
    expect(await screen.findByText('no strike', {}, { timeout: 10_000 })).toBeTruthy();
    expect(screen.getAllByText(/^−\d+ %$/).length).toBeGreaterThan(0);
    const stronger = screen.getAllByRole('slider')[2]! as HTMLInputElement;
    const { fireEvent } = await import('@testing-library/react');
    fireEvent.change(stronger, { target: { value: '60' } });
    await screen.findByText(/^\d+ % less momentum\.$/, {}, { timeout: 10_000 });
    await user.click(screen.getByRole('button', { name: 'As it was' }));
    await screen.findByText('The strike as it was thrown.', {}, { timeout: 10_000 });
  });

  it('says what is missing where there is no model', async () => {
    const { strike } = jammedCross();
    const store = benchWith({ strike: { ...strike, marks: {} }, start: { series: null } });
    onBench(store, () => <WhatIfTab strike={strikeIn(store)} />);
    expect(await screen.findByText('No model of this strike yet.')).toBeTruthy();
  });
});

describe('Body', () => {
  const job = (state: 'wanted' | 'paused' | 'done' | 'failed', message: string | null = null) => ({
    clipId: 'clip',
    fileName: 'cross.mp4',
    model: 'standard' as const,
    state,
    message,
    person: null,
    found: null,
  });
  const body = (given: ReturnType<typeof job> | null) => {
    const store = benchWith({ start: { job: given } });
    return onBench(store, () => <BodyTab worn={{}} />);
  };

  it('says nothing of bands where nobody has any', () => {
    body(job('done'));
    expect(screen.queryByRole('region', { name: 'Bands' })).toBeNull();
  });

  it('tells what each band said, why it was silent, and has them read anew', async () => {
    const worn = wornOn({ kind: 'printed', girths: { hips: 0.96, ribs: 0.9 }, seam: 'front' });
    const turn = { frames: [0, 1], yaw: [0, 0], shake: [0.01, 0.01], lasting: [0.05, 0.05] };
    const bands: KeptBands = {
      seam: 'front',
      isSquareKnown: false,
      bands: {
        hips: { girth: 0.96, turn, silent: [] },
        ribs: { girth: 0.88, turn, silent: [{ why: 'an arm lies over the band', frames: 6 }] },
      },
    };
    const store = benchWith({ start: { job: job('done'), bands } });
    const { user } = onBench(store, () => <BodyTab worn={worn} />);
    const section = within(screen.getByRole('region', { name: 'Bands' }));
    section.getByText('read in all 2 frames.');
    section.getByText('read in 2 of 8 frames; in 6: an arm lies over the band.');
    // The ribs' girth is another one now.
    section.getByText('They were changed after they had been read.');
    await user.click(section.getByRole('button', { name: 'Read them anew' }));
    expect(changeJob).toHaveBeenCalledWith('clip', { kind: 'bands' });
  });

  it('offers to look for the body, how, and for whom', async () => {
    const { user, store } = body(null);
    await user.selectOptions(screen.getByLabelText('How it looks'), 'fine');
    await user.click(screen.getByRole('button', { name: 'Find the body' }));
    expect(changeJob).toHaveBeenCalledWith('clip', { kind: 'start', model: 'fine', person: null });
    await user.click(screen.getByRole('button', { name: /Box round the student/ }));
    expect(store.getState().tool).toEqual({ kind: 'person' });
  });

  it.each([
    ['wanted', /Waiting for its turn/, 'Pause', { kind: 'pause' }],
    ['paused', /Paused/, 'Go on', { kind: 'resume' }],
  ] as const)('that is %s says so, and can be changed', async (state, says, button, sent) => {
    const { user } = body(job(state));
    expect(screen.getByRole('status').textContent).toMatch(says);
    await user.click(screen.getByRole('button', { name: button }));
    expect(changeJob).toHaveBeenCalledWith('clip', sent);
    expect(screen.queryByRole('button', { name: /Find the body/ })).toBeNull();
  });

  it('that failed says why, and can be tried anew', () => {
    body(job('failed', 'Nobody was seen in this film.'));
    expect(screen.getByRole('alert').textContent).toBe('Nobody was seen in this film.');
    expect(screen.getByRole('button', { name: 'Find the body anew' })).toBeTruthy();
  });
});

describe('Film', () => {
  const survey: Survey = surveySchema.parse(
    JSON.parse(readFileSync('demo/detections/cross-jammed.mp4.survey.json', 'utf8')),
  );
  const times = survey.amounts.map((_, i) => i / 240);
  const film = (given: Survey | null, refused: { from: number; to: number }[] = []) => {
    const store = benchWith({
      frameTimes: times,
      document: { refused },
      start: { survey: given },
    });
    return onBench(store, () => <FilmTab others={[]} space={null} deeds={[]} />);
  };

  it('says what the film is worth and what is heard, and saves it as a file', () => {
    film(survey);
    expect(screen.getByRole('region', { name: 'Film check' }).textContent).toMatch(
      /Heard: (one hit|\d+ hits|no hit)/,
    );
    expect(screen.getByRole('link', { name: /Save marks and points/ }).getAttribute('href')).toBe(
      '/api/clips/clip/document',
    );
  });

  it('asks again about what was set aside as no strike', async () => {
    const { user, store } = film(survey, [{ from: 3, to: 9 }]);
    expect(screen.getByText(/Set aside as no strike: 1\./)).toBeTruthy();
    await user.click(screen.getByRole('button', { name: 'Ask again' }));
    expect(documentIn(store).refused).toEqual([]);
  });

  it('that has not been gone through yet does not keep the coach waiting', () => {
    film(null);
    expect(screen.getByText(/Everything else works meanwhile/)).toBeTruthy();
    expect(screen.getByRole('progressbar')).toBeTruthy();
  });

  it('whose search failed says why and can be gone through again', async () => {
    const store = benchWith({ frameTimes: times });
    const again = vi.fn();
    store
      .getState()
      .surveyed(
        { kind: 'failed', message: 'The film cannot be read.' },
        { cancel: vi.fn(), again },
      );
    const { user } = onBench(store, () => (
      <FilmTab
        others={[]}
        space={null}
        deeds={[
          {
            id: 1,
            by: 'Tomas Reed',
            what: 'accepted',
            detail: 'all at once',
            student: 'Somebody',
            studentId: 's',
            clipId: 'c',
            at: '2026-11-29T10:00:00.000Z',
          },
        ]}
      />
    ));
    expect(screen.getByRole('alert').textContent).toBe('The film cannot be read.');
    await user.click(screen.getByRole('button', { name: 'Go through it' }));
    expect(again).toHaveBeenCalledOnce();
    expect(screen.getByLabelText('Who did what here').textContent).toMatch(
      /Tomas Reed accepted a leak: all at once29 Nov 2026/,
    );
  });
});

describe('Set-up', () => {
  const setUp = (store = benchWith()) =>
    onBench(store, () => <SetUp strike={strikeOf(store.getState())} setups={[]} />);

  it('changes technique, side, view, intent and round of the clip', async () => {
    const { user, store } = setUp();
    await user.selectOptions(screen.getByLabelText('Strike'), 'jab');
    await user.selectOptions(screen.getByLabelText('Side'), 'left');
    await user.selectOptions(screen.getByLabelText('Filmed'), 'front');
    await user.selectOptions(screen.getByLabelText('Meant'), 'full');
    await user.selectOptions(screen.getByLabelText('Round'), '3');
    expect(strikeIn(store)).toMatchObject({ technique: 'jab', side: 'left' });
    expect(documentIn(store)).toMatchObject({ view: 'front', intent: 'full', round: 3 });
    await user.selectOptions(screen.getByLabelText('Round'), '');
    expect(documentIn(store)).not.toHaveProperty('round');
  });

  it('takes the rate a film was shot at, and refuses one below what it plays at', async () => {
    const { user, store } = setUp();
    const field = screen.getByLabelText('Shot at, frames a second');
    await user.clear(field);
    await user.type(field, '480{Enter}');
    expect(documentIn(store).captureRate).toBe(480);
    const again = screen.getByLabelText('Shot at, frames a second');
    await user.clear(again);
    await user.type(again, '12{Enter}');
    expect(screen.getByText(/^A number from \d+ up\.$/)).toBeTruthy();
    expect(documentIn(store).captureRate).toBe(480);
  });

  it('takes up a tool for what is to be drawn, and clears what was', async () => {
    const store = benchWith({
      document: { scale: { from: { x: 1, y: 1 }, to: { x: 101, y: 1 }, metres: 1 } },
    });
    const { user } = setUp(store);
    const line = screen.getByText('Known length').closest('div')!;
    expect(line.textContent).toContain('100 cm');
    const [draw, clear] = within(line).getAllByRole('button');
    await user.click(draw!);
    expect(store.getState().tool).toEqual({ kind: 'scale' });
    await user.click(clear!);
    expect(documentIn(store).scale).toBeNull();
  });

  it('judges by another school for this strike alone, and says at once what changes', async () => {
    const { user, store } = setUp();
    await user.selectOptions(screen.getByLabelText('Situation'), 'lined-up');
    expect(strikeIn(store).situation).toBe('lined-up');
    expect(screen.getByText(/nothing changes|not any more|now/i)).toBeTruthy();
    await user.selectOptions(screen.getByLabelText('Situation'), 'not-said');
    expect(strikeIn(store).situation).toBeUndefined();
  });

  it('removes the strike, which can be undone', async () => {
    const { user, store } = setUp();
    await user.click(screen.getByRole('button', { name: 'Remove this strike and its marks' }));
    expect(documentIn(store).strikes).toEqual([]);
    store.getState().undo();
    expect(documentIn(store).strikes.length).toBe(1);
  });
});
