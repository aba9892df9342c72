/** What is measured and kept, judged again, compared and marked again, on a database. */
import { readFileSync } from 'node:fs';
import { beforeEach, describe, expect, it } from 'vitest';
import { z } from 'zod';
import { isAbsent } from '@sinew/core/foundation/reading/reading';
import { loadBench, saveBench } from '@/data/bench/bench';
import { strikeToCompare } from '@/data/finding/comparing';
import { acceptFinding } from '@/data/finding/findings';
import {
  addNote,
  addTest,
  notesOf,
  shownOver,
  speedsOf,
  testsOf,
  unsaidIn,
} from '@/data/progress/ledger';
import { ledgerCsv, ledgerFileOf, ledgerSchema } from '@/data/progress/ledgerFile';
import { changeLibrary, libraryOf, setStudentSchool } from '@/data/gym/library';
import { strikesNow, measureStudent } from '@/data/finding/measured';
import { keepSets, setsNow, setsToKeep } from '@/data/finding/measuredSets';
import {
  keepRepeatMarking,
  markingErrors,
  strikesToMarkAgain,
} from '@/data/progress/repeatMarkings';
import { effectOf } from '@/data/finding/foundFaults';
import { today } from '@/data/database/today';
import { workOf } from '@/data/work/work';
import { effectInWords } from '@/screens/library/effect';
import { AT_ONCE, markedClip, markedGym, type TestGym, type MarkedClip } from './support';

let gym: TestGym;
let who: string;
let marked: MarkedClip;
beforeEach(async () => {
  ({ gym, who, marked } = await markedGym());
});

const setsOf = async () => (await setsNow(gym.db, who)).sets;
const accept = (fault = 'all-at-once') => acceptFinding(gym.db, marked.strikeId, fault, false);

describe('what a strike measures', () => {
  it('is kept, and measured again only when the bench has changed', async () => {
    expect(await measureStudent(gym.db, who)).toBe(0);
    const [first] = (await strikesNow(gym.db, who)).strikes;
    expect(first).toMatchObject({ technique: 'cross', view: 'side', intent: null });
    const lead = first!.readings['lead.hipsTrunk'];
    expect(isAbsent(lead) ? null : [lead.value, lead.unit]).toEqual([0, 's']);
    const stampOf = () =>
      gym.db.selectFrom('measured').select(['stamp', 'updated_at']).executeTakeFirstOrThrow();
    const before = await stampOf();
    await measureStudent(gym.db, who);
    expect(await stampOf()).toEqual(before);
    const saved = (await loadBench(gym.db, marked.clipId))!;
    const [strike] = saved.document.strikes;
    const marks = { ...strike!.marks, trunk: { frame: 120, width: 1 } };
    await saveBench(gym.db, marked.clipId, {
      ...saved,
      document: { ...saved.document, intent: 'tempo', strikes: [{ ...strike!, marks }] },
    });
    await measureStudent(gym.db, who);
    const [again] = (await strikesNow(gym.db, who)).strikes;
    const later = again!.readings['lead.hipsTrunk'];
    expect(isAbsent(later) ? null : later.value).toBeCloseTo(10 / 240, 4);
    expect(again!.intent).toBe('tempo');
  });

  it('is left for the next time when there is no time', async () => {
    expect(await measureStudent(gym.db, who, 0)).toBe(1);
    expect(await strikesNow(gym.db, who, { milliseconds: 0 })).toEqual({ strikes: [], left: 1 });
  });

  it('is read as it is now, and reading it keeps nothing', async () => {
    const { strikes, left } = await strikesNow(gym.db, who);
    expect(left).toBe(0);
    expect(strikes[0]!.shows.found).toContain('all-at-once');
    expect((await workOf(gym.db, who))!.injuries).toEqual([]);
    expect(await strikeToCompare(gym.db, marked.strikeId)).not.toBeNull();
    expect(await ledgerFileOf(gym.db, who)).toMatchObject({ strikes: [{ technique: 'cross' }] });
    expect(await gym.db.selectFrom('measured').selectAll().execute()).toEqual([]);
    await measureStudent(gym.db, who);
    expect((await strikesNow(gym.db, who)).strikes).toEqual(strikes);
    // Judged by another limit, before the stage has come to it.
    const limit = { kind: 'limit', fault: 'all-at-once', limit: 'turned/lead.hipsTrunk' } as const;
    const before = await gym.db.selectFrom('measured').selectAll().execute();
    await changeLibrary(gym.db, 'Coach', { ...limit, value: -1 });
    expect((await strikesNow(gym.db, who)).strikes[0]!.shows.found).not.toContain('all-at-once');
    expect(await gym.db.selectFrom('measured').selectAll().execute()).toEqual(before);
  });

  it('is judged again when a limit or a school changes, and not measured again', async () => {
    await measureStudent(gym.db, who);
    const kept = () =>
      gym.db.selectFrom('measured').select(['stamp', 'readings']).executeTakeFirstOrThrow();
    const shows = async () => {
      await measureStudent(gym.db, who);
      return (await strikesNow(gym.db, who)).strikes[0]!.shows;
    };
    const before = await kept();
    expect((await shows()).found).toContain('all-at-once');
    const limit = (value: number | null) =>
      ({ kind: 'limit', fault: 'all-at-once', limit: 'turned/lead.hipsTrunk', value }) as const;
    // Hips and trunk start on one frame: 0 ms, which a limit of −50 ms lets pass.
    await changeLibrary(gym.db, 'Hedda', limit(-0.05));
    expect((await shows()).clear).toContain('all-at-once');
    await changeLibrary(gym.db, 'Hedda', limit(null));
    expect((await shows()).found).toContain('all-at-once');

    // In a school that digs through there is no such fault as a push.
    const judged = async () => Object.values(await shows()).flat();
    expect(await judged()).toContain('push');
    await setStudentSchool(gym.db, who, { finish: 'dig' });
    expect(await judged()).not.toContain('push');
    expect(await kept()).toEqual(before);
  });

  it('is counted where a change of the library changes what it shows', async () => {
    await measureStudent(gym.db, who);
    const before = await libraryOf(gym.db);
    await changeLibrary(gym.db, 'Hedda', { kind: 'off', fault: 'all-at-once', isOff: true });
    const after = await libraryOf(gym.db);
    const none = { strikes: 0, students: 0 };
    const one = { strikes: 1, students: 1 };
    expect(await effectOf(gym.db, before, after)).toEqual({ strikes: 1, more: none, fewer: one });
    expect(await effectOf(gym.db, after, before)).toEqual({ strikes: 1, more: one, fewer: none });
    expect(effectInWords({ strikes: 1, more: none, fewer: one })).toBe(
      'Of the one strike measured, 1 (1 student) no longer show one.',
    );
  });

  it('tells over the sets how often a leak shows, and which one waits for a word', async () => {
    await measureStudent(gym.db, who);
    const sets = setsOf;
    const [first] = await sets();
    expect(shownOver([first!], 'all-at-once')).toMatchObject([{ found: 1, told: 1 }]);
    expect(shownOver([first!], 'no-such-leak')).toEqual([]);
    const unsaid = async () => (await unsaidIn(gym.db, first!)).map(({ fault }) => fault);
    expect(await unsaid()).toContain('all-at-once');
    await accept();
    expect(await unsaid()).not.toContain('all-at-once');
  });

  it('keeps the medians of a set, and works out anew what they are not of any more', async () => {
    const second = await markedClip(gym, who, 'cross-in-order.mp4');
    await measureStudent(gym.db, who);
    const before = await setsOf();
    expect(before.map(({ strikes }) => strikes.length)).toEqual([1, 1]);
    const toKeep = await setsToKeep(gym.db, who);
    expect(toKeep).toHaveLength(2);
    await keepSets(gym.db, toKeep);
    expect(await setsToKeep(gym.db, who)).toEqual([]);
    const kept = await setsOf();
    const lead = (set: (typeof kept)[number]) => set.readings['lead.hipsTrunk'];
    expect(kept.map(lead)).toMatchObject(
      before.map((set) => ({ value: expect.closeTo((lead(set) as { value: number }).value, 5) })),
    );
    // Kept as another number, it is that number which is shown: nothing is measured again.
    const as = '{"lead.hipsTrunk":[0.5,0.1,1]}';
    await gym.db
      .updateTable('measured_set')
      .set({ readings: as })
      .where('clip_id', '=', second.clipId)
      .execute();
    expect((await setsOf()).map(lead)).toMatchObject([{}, { value: 0.5 }]);
    // A mark that moves makes what is kept another set's.
    const { revision, document } = (await loadBench(gym.db, second.clipId))!;
    const [strike] = document.strikes;
    const moved = { ...strike!, marks: { ...strike!.marks, trunk: { frame: 118, width: 1 } } };
    await saveBench(gym.db, second.clipId, {
      revision,
      document: { ...document, strikes: [moved] },
    });
    const at = async () => lead((await setsOf())[1]!) as { value: number };
    const now = await at();
    expect(now.value).not.toBe(0.5);
    await measureStudent(gym.db, who);
    expect((await at()).value).toBeCloseTo(now.value, 6);
    await keepSets(gym.db, await setsToKeep(gym.db, who));
    expect((await at()).value).toBeCloseTo(now.value, 5);
  });

  it('gives a reach ladder its speed, where it has one', async () => {
    await measureStudent(gym.db, who);
    const [set] = await setsOf();
    // Marks alone tell no speed.
    expect(speedsOf([set!])).toEqual([]);
    const speed = { value: 7, sigma: 0.5, unit: 'm/s', source: 'eye', frames: [] } as const;
    const measured = { ...set!, readings: { ...set!.readings, 'speed.contact': speed } };
    const older = { ...measured, clipId: 'older', day: '2026-01-02' };
    const [newest, last] = speedsOf([older, measured]);
    expect(newest).toMatchObject({ technique: 'cross', strikes: 1, value: 7, plusMinus: 0.98 });
    expect(last!.clipId).toBe('older');
  });

  it('goes into the ledger as sets, as JSON by its schema, and as CSV', async () => {
    await accept();
    await addNote(gym.db, { studentId: who, technique: null, day: today(), text: '=1+1' });
    const given = {
      kind: 'throw' as const,
      standing: { value: 7.4, plusMinus: 0.1 },
      seated: { value: 5.2, plusMinus: 0.1 },
    };
    await addTest(gym.db, { studentId: who, day: today(), given });
    expect((await testsOf(gym.db, who))[0]!.results[0]!.text).toBe('19 ± 1 %');
    expect(await notesOf(gym.db, who)).toHaveLength(1);
    await measureStudent(gym.db, who);
    const [one] = await setsOf();
    expect(one!.strikes).toHaveLength(1);
    const file = (await ledgerFileOf(gym.db, who))!;
    expect(ledgerSchema.parse(file)).toEqual(file);
    expect(file.faults[0]).toMatchObject({ fault: 'all-at-once', state: 'working' });
    const [head, ...rows] = ledgerCsv(file).trim().split('\n');
    expect(head).toBe(
      'student,filmedOn,technique,side,view,intent,round,clip,strike,reading,name,value,sigma,unit,source,absent',
    );
    expect(rows.length).toBe(Object.keys(file.strikes[0]!.readings).length);
    expect(await ledgerFileOf(gym.db, 'nobody')).toBeNull();
  });
});

it('the published schema of the ledger is the one that is kept to', () => {
  const published: unknown = JSON.parse(
    readFileSync(new URL('../../docs/ledger.schema.json', import.meta.url), 'utf8'),
  );
  expect(published).toEqual(JSON.parse(JSON.stringify(z.toJSONSchema(ledgerSchema))));
});

it('a strike to compare has its film in seconds from contact', async () => {
  const found = (await strikeToCompare(gym.db, marked.strikeId))!;
  expect(found.film!.times[AT_ONCE.contact.frame]).toBe(0);
  expect(found.film!.starts.find(({ link }) => link === 'pelvis')!.time).toBeCloseTo(-58 / 240, 3);
  expect(found.set).toHaveLength(1);
  expect(await strikeToCompare(gym.db, 'gone')).toBeNull();
});

describe('marking again', () => {
  it('says from five strikes on how far markings differ', async () => {
    const errors = [2, -1, 0, 1, -2, 1];
    const saved = (await loadBench(gym.db, marked.clipId))!;
    const whole = { ready: { frame: 20, width: 1 }, ...AT_ONCE };
    const strikes = errors.map((_, i) => ({
      id: `s${i}`,
      technique: 'cross',
      side: 'right' as const,
      marks: { ...whole, trunk: { frame: 112 + 2 * i, width: 1 } },
    }));
    await saveBench(gym.db, marked.clipId, { ...saved, document: { ...saved.document, strikes } });
    expect(await strikesToMarkAgain(gym.db)).toHaveLength(6);
    for (const [i, error] of errors.entries()) {
      if (i === 4) expect(await markingErrors(gym.db)).toEqual([]);
      const marks = { ...whole, trunk: { frame: 112 + 2 * i + error, width: 1 } };
      await keepRepeatMarking(gym.db, `s${i}`, { by: 'Hedda', marks });
    }
    const lead = (await markingErrors(gym.db)).find(({ id }) => id === 'lead.hipsTrunk')!;
    // Standard deviation of the differences ÷ √2 (Hopkins 2000), in frames of a 240th of a second.
    const mean = errors.reduce((sum, one) => sum + one, 0) / errors.length;
    const sd = Math.sqrt(
      errors.reduce((sum, one) => sum + (one - mean) ** 2, 0) / (errors.length - 1),
    );
    expect(lead.typicalError).toBeCloseTo(sd / Math.SQRT2 / 240, 5);
    expect(lead.subjects).toBe(6);
    expect((await strikesToMarkAgain(gym.db))[0]!.times).toBe(1);
    expect(await keepRepeatMarking(gym.db, 'gone', { by: 'Hedda', marks: whole })).toBe(false);
  });
});
