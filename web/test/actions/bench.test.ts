/** Actions of the bench: the coach’s word on a finding, cues, camera set-ups, marks set again. */
import { afterAll, beforeAll, beforeEach, describe, expect, it, vi } from 'vitest';
import { activeCues, decisionsOf } from '@/data/finding/findings';
import { cameraSetups } from '@/data/gym/cameraSetups';
import * as bench from '@/screens/bench/document/actions';
import * as marking from '@/screens/marking/actions';
import { startApp, type TestApp } from '../app';
import { markedClip, student, type MarkedClip } from '../support';
import { expectSentence } from './kit';

vi.mock('next/cache', () => ({ revalidatePath: vi.fn() }));
vi.mock('@/data/finding/measureLater', () => ({
  measureLater: vi.fn(),
  measureClipLater: vi.fn(async () => undefined),
  measureAllLater: vi.fn(async () => undefined),
}));

let app: TestApp;
let who: string;
let marked: MarkedClip;

beforeAll(async () => {
  app = await startApp();
});
afterAll(() => app.stop());
beforeEach(async () => {
  vi.clearAllMocks();
  who = await student(app.gym);
});

describe('the coach’s word on a finding', () => {
  const leak = 'all-at-once';
  const decided = async () => (await decisionsOf(app.gym.db, marked.clipId))[marked.strikeId] ?? [];
  const statusOf = async () => (await decided()).find(({ fault }) => fault === leak)?.status;

  beforeEach(async () => {
    marked = await markedClip(app.gym, who);
  });

  it('makes a cue, which can be said otherwise', async () => {
    expect(await bench.accept(marked.strikeId, leak, false, 'strike')).toEqual({
      kind: 'accepted',
    });
    expect(await statusOf()).toBe('accepted');
    const cue = (await activeCues(app.gym.db, who))[0]!;
    expect(await bench.rewordCue(cue.id, '  Hips, then hand.  ', cue.text)).toBeNull();
    expect((await activeCues(app.gym.db, who))[0]!.text).toBe('Hips, then hand.');
    expectSentence(await bench.rewordCue(cue.id, '   ', cue.text));
    expectSentence(await bench.rewordCue(cue.id, 'x'.repeat(201), cue.text));
    // Another tab still has the first words before it.
    expect(await bench.rewordCue(cue.id, 'Hand first.', cue.text)).toMatch(/^This cue was changed/);
    expect((await activeCues(app.gym.db, who))[0]!.text).toBe('Hips, then hand.');
  });

  it('puts it aside with a reason, or for now, and takes it up again', async () => {
    expect(await bench.dismiss(marked.strikeId, leak, 'The film is too dark')).toBe(true);
    expect(await statusOf()).toBe('dismissed');
    await bench.reopen(marked.strikeId, leak);
    expect(await statusOf()).toBeUndefined();
    expect(await bench.notNow(marked.strikeId, leak)).toBe(true);
    expect(await statusOf()).toBe('later');
    await expect(bench.dismiss(marked.strikeId, leak, ' ')).rejects.toThrow();
  });

  it('on what the strike does not show changes nothing', async () => {
    expect(await bench.accept(marked.strikeId, 'no-such', false, 'strike')).toEqual({
      kind: 'not-found',
    });
    expect(await bench.dismiss(marked.strikeId, 'no-such', 'why')).toBe(false);
    expect(await decided()).toEqual([]);
  });
});

it('a camera set-up is kept under its name, and forgotten', async () => {
  const calibration = {
    view: 'side' as const,
    scale: null,
    target: null,
    rectangle: null,
    lens: null,
  };
  const setup = { name: ' By the door ', width: 1280, height: 720, calibration };
  expect(await bench.keepSetup(setup)).toBeNull();
  const kept = (await cameraSetups(app.gym.db)).find(({ name }) => name === 'By the door')!;
  expect(kept).toMatchObject({ width: 1280, height: 720 });
  await bench.forgetSetup(kept.id);
  expect(await cameraSetups(app.gym.db)).toEqual([]);
  expectSentence(await bench.keepSetup({ ...setup, name: '' }));
  expectSentence(await bench.keepSetup({ ...setup, name: 'x'.repeat(61) }));
});

it('marks set again need a name, and a strike that is there', async () => {
  marked = await markedClip(app.gym, who);
  const [strike] = marked.document.strikes;
  const input = { by: 'Ada', marks: strike!.marks };
  expectSentence(await marking.keepMarks(marked.strikeId, { ...input, by: ' ' } as never));
  expect(await marking.keepMarks('no-such-strike', input as never)).toBe(
    'This strike is not there any more.',
  );
  expect(await marking.keepMarks(marked.strikeId, input as never)).toBeNull();
});
