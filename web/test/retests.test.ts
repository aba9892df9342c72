/** The film that answers whether the work has changed anything, and what the Floor makes of it. */
import { beforeEach, describe, expect, it } from 'vitest';
import { plusDays } from '@sinew/core/foundation/calendar/day';
import { loadBench, saveBench } from '@/data/bench/bench';
import { addClip } from '@/data/clip/clips';
import { acceptFinding, putAside, reopenFinding } from '@/data/finding/findings';
import { measureStudent } from '@/data/finding/measured';
import { floorFacts } from '@/data/gym/floor';
import { retestsOf } from '@/data/work/retests';
import { today } from '@/data/database/today';
import { prescribe, setNextCheck, workOf } from '@/data/work/work';
import { AT_ONCE, emptyGym, film, markedClip, newClip, student, type TestGym } from './support';

let gym: TestGym;
let who: string;
let first: Awaited<ReturnType<typeof markedClip>>;
let work: string;

beforeEach(async () => {
  gym = await emptyGym();
  who = await student(gym);
  first = await markedClip(gym, who);
  await acceptFinding(gym.db, first.strikeId, 'all-at-once', false);
  const { prescription } = (await workOf(gym.db, who))!.proposals[0]!;
  const worksOn = { technique: 'cross', fault: 'all-at-once' };
  await prescribe(gym.db, { ...prescription, studentId: who, worksOn, override: '' });
  work = (await workOf(gym.db, who))!.given[0]!.id;
  await filmedAgo(first.clipId, 7);
});

/** As if it had been filmed so many days ago. */
async function filmedAgo(clipId: string, days: number): Promise<void> {
  const at = new Date(Date.now() - days * 86_400_000).toISOString();
  await gym.db.updateTable('clip').set({ created_at: at }).where('id', '=', clipId).execute();
}

async function filmedAgain(technique: 'cross' | 'jab'): Promise<string> {
  const { id } = await addClip(gym.db, gym.files, newClip(who, film('cross-all-at-once.mp4')));
  const saved = (await loadBench(gym.db, id))!;
  const strikes = [{ id: `again-${id}`, technique, side: 'right' as const, marks: AT_ONCE }];
  await saveBench(gym.db, id, { revision: 0, document: { ...saved.document, strikes } });
  return `again-${id}`;
}

const found = async () => (await retestsOf(gym.db)).get(work);

describe('a retest', () => {
  it('is not the film that showed the leak', async () => {
    expect(await found()).toBeUndefined();
  });

  it('is the newest film of the same technique, near the day on which it was due', async () => {
    const again = await filmedAgain('cross');
    await setNextCheck(gym.db, work, today());
    expect(await found()).toEqual({ then: first.strikeId, now: again, day: today() });
    expect((await retestsOf(gym.db, who)).size).toBe(1);
    expect((await retestsOf(gym.db, 'somebody else')).size).toBe(0);
    const facts = (await floorFacts(gym.db)).get(who)!;
    expect(facts.work[0]!.retest).toMatchObject({ now: again });
  });

  it('is no film of another technique', async () => {
    await filmedAgain('jab');
    await setNextCheck(gym.db, work, today());
    expect(await found()).toBeUndefined();
  });

  it('is no film of long before it was due', async () => {
    await filmedAgain('cross');
    await setNextCheck(gym.db, work, plusDays(today(), 7));
    expect(await found()).toBeUndefined();
    await setNextCheck(gym.db, work, plusDays(today(), 6));
    expect(await found()).toBeDefined();
  });

  it('is none once its film has been deleted', async () => {
    const again = await filmedAgain('cross');
    await setNextCheck(gym.db, work, today());
    await gym.db
      .updateTable('clip')
      .set({ deleted_at: new Date().toISOString() })
      .where('id', '=', again.replace('again-', ''))
      .execute();
    expect(await found()).toBeUndefined();
  });
});

describe('what waits on the Floor', () => {
  const facts = async () => (await floorFacts(gym.db)).get(who)!;

  it('is what the newest film shows, until something has been said of it', async () => {
    const cue = await gym.db.selectFrom('cue').select('id').executeTakeFirstOrThrow();
    const setCue = (status: 'active' | 'closed') =>
      gym.db.updateTable('cue').set({ status }).where('id', '=', cue.id).execute();
    const again = await filmedAgain('cross');
    await measureStudent(gym.db, who);
    // One cue at a time: what else is found waits for it.
    expect((await facts()).undecided).toBeNull();
    await setCue('closed');
    const { undecided } = await facts();
    expect(undecided).toMatchObject({ strikeId: again, technique: 'cross', day: today() });
    const shown = await gym.db
      .selectFrom('measured')
      .select('shows')
      .where('strike_id', '=', again)
      .executeTakeFirstOrThrow();
    const { found: leaks } = JSON.parse(shown.shows) as { found: string[] };
    expect(leaks).toContain('all-at-once');
    expect(undecided!.leaks).toBe(leaks.length);
    expect((await floorFacts(gym.db, who)).get(who)!.undecided).toEqual(undecided);
    expect((await floorFacts(gym.db, 'somebody else')).size).toBe(0);
    for (const leak of leaks) await putAside(gym.db, again, leak, 'later', '');
    expect((await facts()).undecided).toBeNull();
  });

  it('is no film of which the coach has said something', async () => {
    const again = await filmedAgain('cross');
    const clipId = again.replace('again-', '');
    // Seven of eight are marked, and nothing is said of it yet.
    expect((await facts()).open.map(({ id }) => id)).toContain(clipId);
    await putAside(gym.db, again, 'all-at-once', 'dismissed', 'a feint');
    expect((await facts()).open.map(({ id }) => id)).not.toContain(clipId);
    await reopenFinding(gym.db, again, 'all-at-once');
    const saved = (await loadBench(gym.db, clipId))!;
    const strikes = [{ ...saved.document.strikes[0]!, audit: { breath: 'drives' as const } }];
    await saveBench(gym.db, clipId, { ...saved, document: { ...saved.document, strikes } });
    expect((await facts()).open.map(({ id }) => id)).not.toContain(clipId);
  });

  it('is a film until every instant that its technique has is marked', async () => {
    await reopenFinding(gym.db, first.strikeId, 'all-at-once');
    // Seven of eight are marked: ready is missing.
    expect((await facts()).open).toMatchObject([{ id: first.clipId, isToConfirm: false }]);
    const mark = async (technique: 'cross' | 'knee-strike', marks: object) => {
      const saved = (await loadBench(gym.db, first.clipId))!;
      const strikes = [{ ...first.document.strikes[0]!, technique, marks }];
      await saveBench(gym.db, first.clipId, { ...saved, document: { ...saved.document, strikes } });
    };
    await mark('cross', { ...AT_ONCE, ready: { frame: 40, width: 1 } });
    expect((await facts()).open).toEqual([]);
    // A knee has no shank that opens into it: seven are all.
    const { arm: _, ...ofKnee } = AT_ONCE;
    await mark('knee-strike', ofKnee);
    expect((await facts()).open).toHaveLength(1);
    await mark('knee-strike', { ...ofKnee, ready: { frame: 40, width: 1 } });
    expect((await facts()).open).toEqual([]);
  });
});
