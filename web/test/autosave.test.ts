import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { Problem, problemOut } from '@sinew/core/foundation/problem/problem';
import { EMPTY_DOCUMENT, type ClipDocument } from '@sinew/core/analysis/clipDocument';
import { Autosave, type SaveState } from '@/screens/bench/document/autosave';

const at = (captureRate: number): ClipDocument => ({ ...EMPTY_DOCUMENT, captureRate });

interface Sent {
  revision: number;
  document: ClipDocument;
}

let sent: Sent[];
let answers: (() => Promise<Response>)[];
let states: SaveState[];

beforeEach(() => {
  vi.useFakeTimers();
  [sent, answers, states] = [[], [], []];
  vi.stubGlobal('fetch', async (_: string, init: { body: string }) => {
    const request = JSON.parse(init.body) as Sent;
    sent.push(request);
    const answer = answers.shift();
    return answer ? answer() : Response.json({ revision: request.revision + 1 });
  });
});
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

const BASE = at(30);
const autosave = (revision = 3) =>
  new Autosave('/bench', revision, BASE, (state) => states.push(state));
const kinds = () => states.map((state) => state.kind);

describe('autosave', () => {
  it('sends the newest of several quick changes once, with the revision it was made from', async () => {
    const saving = autosave();
    for (const rate of [60, 120, 240]) saving.change(at(rate));
    expect(saving.isClean).toBe(false);
    await vi.advanceTimersByTimeAsync(1000);
    expect(sent).toEqual([{ revision: 3, document: at(240) }]);
    expect(kinds().at(-1)).toBe('saved');
    expect(saving.isClean).toBe(true);
    saving.change(at(480));
    await vi.advanceTimersByTimeAsync(1000);
    expect(sent[1]).toEqual({ revision: 4, document: at(480) });
  });

  it('keeps what could not be sent and tries again with the newest', async () => {
    answers = [() => Promise.reject(new Error('no server'))];
    const saving = autosave();
    saving.change(at(60));
    await vi.advanceTimersByTimeAsync(1000);
    expect(states.at(-1)).toMatchObject({ kind: 'failed', isFinal: false });
    expect(saving.isClean).toBe(false);
    saving.change(at(120));
    await vi.advanceTimersByTimeAsync(10_000);
    expect(sent.map((one) => one.document.captureRate)).toEqual([60, 120]);
    expect(kinds().at(-1)).toBe('saved');
  });

  it('stops when somebody else has saved, so that nothing is overwritten, and goes on when that is settled', async () => {
    const conflict = new Problem('conflict', { happened: 'changed elsewhere' });
    answers = [async () => Response.json(problemOut(conflict), { status: 409 })];
    const saving = autosave();
    saving.change(at(60));
    await vi.advanceTimersByTimeAsync(1000);
    saving.change(at(120));
    await vi.advanceTimersByTimeAsync(60_000);
    expect(sent).toHaveLength(1);
    expect(states.at(-1)).toEqual({ kind: 'met', base: BASE, mine: at(60) });
    saving.settle({ revision: 7, document: at(90) });
    saving.change(at(60));
    await vi.advanceTimersByTimeAsync(1000);
    expect(sent[1]).toEqual({ revision: 7, document: at(60) });
    expect(kinds().at(-1)).toBe('saved');
  });

  it('stops for good where trying again would not help', async () => {
    const gone = new Problem('gone', { happened: 'deleted' });
    answers = [async () => Response.json(problemOut(gone), { status: 404 })];
    const saving = autosave();
    saving.change(at(60));
    await vi.advanceTimersByTimeAsync(60_000);
    expect(sent).toHaveLength(1);
    expect(states.at(-1)).toEqual({ kind: 'failed', message: 'deleted', isFinal: true });
  });

  it('never has two requests under way; what changes meanwhile goes next', async () => {
    let release = () => {};
    answers = [
      () =>
        new Promise((resolve) => {
          release = () => resolve(Response.json({ revision: 4 }));
        }),
    ];
    const saving = autosave();
    saving.change(at(60));
    await vi.advanceTimersByTimeAsync(500);
    saving.change(at(120));
    await vi.advanceTimersByTimeAsync(5000);
    expect(sent).toHaveLength(1);
    release();
    await vi.advanceTimersByTimeAsync(1000);
    expect(sent).toEqual([
      { revision: 3, document: at(60) },
      { revision: 4, document: at(120) },
    ]);
    expect(kinds().at(-1)).toBe('saved');
  });

  it('flushes at once when asked, before a finding is judged from what is saved', async () => {
    const saving = autosave();
    saving.change(at(60));
    await saving.flush();
    expect(sent).toHaveLength(1);
    await saving.flush();
    expect(sent).toHaveLength(1);
  });

  it('goes on from a state found on disk', async () => {
    const saving = autosave();
    expect(saving.continueFrom({ revision: 9, document: at(50) })).toBe(true);
    saving.change(at(60));
    await saving.flush();
    expect(sent[0]!.revision).toBe(9);
  });
});
