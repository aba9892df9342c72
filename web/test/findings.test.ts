import { beforeEach, describe, expect, it } from 'vitest';
import { loadBench, saveBench } from '@/data/bench/bench';
import { clipById } from '@/data/clip/clips';
import {
  acceptFinding,
  activeCues,
  decisionsOf,
  editCue,
  putAside,
  reopenFinding,
} from '@/data/finding/findings';
import { markedGym, type TestGym, type MarkedClip } from './support';

let gym: TestGym;
let who: string;
let marked: MarkedClip;
beforeEach(async () => {
  ({ gym, who, marked } = await markedGym());
});

const accept = (fault: string, isReplacing = false) =>
  acceptFinding(gym.db, marked.strikeId, fault, isReplacing);
const cueTexts = async () => (await activeCues(gym.db, who)).map((cue) => cue.text);

/** Move the arm before the hips, so that a second fault shows. */
async function handLeavesFirst() {
  const saved = (await loadBench(gym.db, marked.clipId))!;
  const [strike] = saved.document.strikes;
  const marks = { ...strike!.marks, arm: { frame: 90, width: 1 } };
  const document = { ...saved.document, strikes: [{ ...strike!, marks }] };
  await saveBench(gym.db, marked.clipId, { ...saved, document });
}

describe('a finding', () => {
  it('once accepted is the student’s cue, with the evidence and the limits that judged it', async () => {
    expect(await accept('all-at-once')).toEqual({ kind: 'accepted' });
    const [cue] = await activeCues(gym.db);
    expect(cue).toMatchObject({
      studentId: who,
      technique: 'cross',
      fault: 'all-at-once',
      text: 'Hips leave first; the hand is late on purpose.',
      clipId: marked.clipId,
    });
    expect(cue!.evidence).toMatch(/within 3 ms of the hips/);
    const row = await gym.db.selectFrom('finding').selectAll().executeTakeFirstOrThrow();
    expect(JSON.parse(row.judged_by)).toMatchObject([
      { limit: { reading: 'lead.hipsTrunk', value: 0.02 }, measured: { value: 0, unit: 's' } },
    ]);
  });

  it('is judged from what is saved, not from what the screen says', async () => {
    expect(await accept('slow-home')).toEqual({ kind: 'not-found' });
    expect(await accept('no-such-leak')).toEqual({ kind: 'not-found' });
    expect(await acceptFinding(gym.db, 'no-strike', 'slap', false)).toEqual({ kind: 'not-found' });
    expect(await cueTexts()).toEqual([]);
  });

  it('of a second kind asks which cue stays; only one is ever active', async () => {
    await accept('all-at-once');
    await handLeavesFirst();
    expect(await accept('arm-first')).toEqual({
      kind: 'other-cue',
      text: 'Hips leave first; the hand is late on purpose.',
    });
    expect(await accept('arm-first', true)).toEqual({ kind: 'accepted' });
    expect(await cueTexts()).toEqual(['Hand waits for the hip.']);
  });

  it('seen again keeps the coach’s own wording', async () => {
    await accept('all-at-once');
    const [cue] = await activeCues(gym.db, who);
    await editCue(gym.db, cue!.id, 'Buckle first.', cue!.text);
    await accept('all-at-once');
    expect(await cueTexts()).toEqual(['Buckle first.']);
  });

  it('dismissed keeps its reason and closes its cue; reopened it is as before', async () => {
    await accept('all-at-once');
    const about = [gym.db, marked.strikeId, 'all-at-once'] as const;
    expect(await putAside(...about, 'dismissed', 'meant so', undefined, 'Ilse Brandt')).toBe(true);
    expect(await cueTexts()).toEqual([]);
    expect(await decisionsOf(gym.db, marked.clipId)).toEqual({
      [marked.strikeId]: [
        {
          fault: 'all-at-once',
          status: 'dismissed',
          reason: 'meant so',
          by: 'Ilse Brandt',
          at: expect.stringMatching(/^\d{4}-/),
        },
      ],
    });
    await reopenFinding(gym.db, marked.strikeId, 'all-at-once');
    expect(await decisionsOf(gym.db, marked.clipId)).toEqual({});
    expect(await putAside(gym.db, 'no-strike', 'slap', 'dismissed', 'x')).toBe(false);
  });

  it('stays with its strike when the strike is taken off the bench and put back', async () => {
    await accept('all-at-once');
    const saved = (await loadBench(gym.db, marked.clipId))!;
    const bare = { ...saved.document, strikes: [] };
    await saveBench(gym.db, marked.clipId, { revision: saved.revision, document: bare });
    expect((await loadBench(gym.db, marked.clipId))!.document.strikes).toEqual([]);
    await saveBench(gym.db, marked.clipId, { ...saved, revision: saved.revision + 1 });
    expect(Object.keys(await decisionsOf(gym.db, marked.clipId))).toEqual([marked.strikeId]);
    expect(await clipById(gym.db, marked.clipId)).not.toBeNull();
  });
});
