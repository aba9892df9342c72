/** The bench in the hands of a coach: where it is, what is in hand, what undo and other tabs do to it. */
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { EMPTY_DOCUMENT, type ClipDocument } from '@sinew/core/analysis/clipDocument';
import {
  createBenchStore,
  documentOf,
  isDrawing,
  strikeOf,
  type BenchClip,
} from '@/screens/bench/document/benchStore';
import { removeStrike } from '@/screens/bench/document/edits';
import { AT_ONCE } from './support';

const FRAMES = 280;
const strike = (id: string, from: number) => ({
  id,
  technique: 'cross' as const,
  side: 'right' as const,
  span: { from, to: from + 100 },
  marks: { contact: { frame: from + 60, width: 1 } },
});
const document: ClipDocument = {
  ...EMPTY_DOCUMENT,
  strikes: [strike('first', 0), strike('second', 150)],
};

const clip: BenchClip = {
  id: 'clip',
  studentId: 'who',
  studentName: 'Somebody',
  fileName: 'film.mp4',
  mimeType: 'video/mp4',
  view: 'side',
  captureRate: null,
  width: 320,
  height: 180,
  isPurged: false,
  frameTimes: Array.from({ length: FRAMES }, (_, i) => i / 240),
};

const open = (
  saved = { revision: 4, document },
  start = { strikeId: null as string | null, frame: 0 },
) =>
  createBenchStore(
    clip,
    { school: {}, stance: 'orthodox', heightM: null, massKg: null },
    saved,
    start,
    { survey: null, second: null, job: null, series: null, bands: null },
  );

beforeEach(() => {
  vi.useFakeTimers();
  vi.stubGlobal('fetch', async (_: string, init: { body: string }) => {
    const { revision } = JSON.parse(init.body) as { revision: number };
    return Response.json({ revision: revision + 1 });
  });
});
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

describe('the frame in hand', () => {
  it('never leaves the film, wherever one wants to go', () => {
    const store = open();
    for (const [asked, got] of [
      [17, 17],
      [17.4, 17],
      [-5, 0],
      [Infinity, FRAMES - 1],
    ] as const) {
      store.getState().goTo(asked);
      expect(store.getState().frame).toBe(got);
    }
  });

  it('goes to a strike that is elsewhere, and stays where the strike is already', () => {
    const store = open();
    store.getState().goTo(30);
    store.getState().selectStrike('first');
    expect(store.getState().frame).toBe(30);
    store.getState().selectStrike('second');
    expect(store.getState().frame).toBe(210);
  });
});

describe('the strike in hand', () => {
  it('is the one of the address, or the first', () => {
    expect(open().getState().strikeId).toBe('first');
    const asked = { strikeId: 'second', frame: 0 };
    expect(open(undefined, asked).getState().strikeId).toBe('second');
    expect(strikeOf(open({ revision: 0, document: EMPTY_DOCUMENT }).getState())).toBeNull();
  });

  it('is another when it is removed, and comes back with undo', () => {
    const store = open();
    store.getState().edit(removeStrike(documentOf(store.getState()), 'first'));
    expect(store.getState().strikeId).toBe('second');
    store.getState().undo();
    expect(documentOf(store.getState())).toEqual(document);
    store.getState().redo();
    expect(documentOf(store.getState()).strikes).toHaveLength(1);
  });

  it('is marked on the frame in hand, and the same key there takes the mark away', () => {
    const store = open();
    store.getState().goTo(40);
    store.getState().mark('hips');
    expect(strikeOf(store.getState())!.marks.hips).toEqual({ frame: 40, width: 1 });
    expect(store.getState().selectedMark).toBe('hips');
    store.getState().mark('hips');
    expect(strikeOf(store.getState())!.marks.hips).toBeUndefined();
    expect(store.getState().selectedMark).toBeNull();
  });

  it('is not marked where there is none', () => {
    const store = open({ revision: 0, document: EMPTY_DOCUMENT });
    store.getState().mark('contact');
    expect(store.getState().hasUnsaved()).toBe(false);
  });
});

describe('what is on disk', () => {
  it('follows a while after a change', async () => {
    const store = open();
    store.getState().mark('home');
    expect(store.getState().hasUnsaved()).toBe(true);
    await vi.advanceTimersByTimeAsync(2000);
    expect(store.getState().hasUnsaved()).toBe(false);
    expect(store.getState().save.kind).toBe('saved');
  });

  it('is taken over when it is newer and nothing was changed here', () => {
    const store = open();
    const newer = { ...document, strikes: [{ ...strike('third', 0), marks: AT_ONCE }] };
    store.getState().adopt({ revision: 9, document: newer });
    expect(documentOf(store.getState())).toEqual(newer);
    expect(store.getState().strikeId).toBe('third');
  });

  it('is not taken over after a change here, not even one that was undone', () => {
    const store = open();
    store.getState().mark('home');
    store.getState().undo();
    store.getState().adopt({ revision: 9, document: EMPTY_DOCUMENT });
    expect(documentOf(store.getState())).toEqual(document);
  });
});

it('one thing at a time is in hand: a point or a mark; a failure stops the film', () => {
  const store = open();
  store.getState().selectMark('contact');
  store.getState().selectPoint({ landmark: 'nose', frame: 3 });
  expect(store.getState()).toMatchObject({ selectedMark: null, selectedPoint: { frame: 3 } });
  store.getState().selectMark('contact');
  expect(store.getState().selectedPoint).toBeNull();
  store.getState().setPlaying(true);
  store.getState().fail('The film cannot be read.');
  expect(store.getState()).toMatchObject({ isPlaying: false, error: 'The film cannot be read.' });
  expect(isDrawing(store.getState())).toBe(false);
  store.getState().setTool({ kind: 'ruler' });
  expect(isDrawing(store.getState())).toBe(true);
});

it('a doubt is looked into at its middle, evidence on its own frame', () => {
  const store = open();
  const doubt = { limb: 'left arm', landmarks: ['leftWrist'], from: 40, to: 51, why: 'hidden' };
  store
    .getState()
    .lookInto(doubt as unknown as Parameters<ReturnType<typeof store.getState>['lookInto']>[0]);
  expect(store.getState().frame).toBe(45);
  store.getState().showEvidence('lead.hipsTrunk', 77);
  expect(store.getState()).toMatchObject({ frame: 77, evidence: 'lead.hipsTrunk' });
  store.getState().hideEvidence();
  expect(store.getState().evidence).toBeNull();
});
