/** Garbage in the columns that hold JSON: every reader goes on, the coach is told, nothing is written over. */
import { sql } from 'kysely';
import { beforeAll, describe, expect, it } from 'vitest';
import { loadBench, saveBench } from '@/data/bench/bench';
import { COLUMNS } from '@/data/database/columns';
import { unreadableCells } from '@/data/database/unreadable';
import { cardOf } from '@/data/finding/card';
import { strikesNow, shownNow } from '@/data/finding/measured';
import { cameraSetups, keepCameraSetup } from '@/data/gym/cameraSetups';
import { floorFacts } from '@/data/gym/floor';
import { NO_EDITS } from '@sinew/core/judge/library/edits';
import { changeSettings, sessionsOf, settingsOf } from '@/data/gym/gym';
import { changeLibrary, libraryOf } from '@/data/gym/library';
import { testsOf } from '@/data/progress/ledger';
import { allStudents, studentById } from '@/data/student/students';
import { workOf } from '@/data/work/work';
import { fullGym, type TestGym } from './support';

let gym: TestGym;
let who: string;
let clipId: string;

beforeAll(async () => {
  ({ gym, who } = await fullGym());
  const clip = await gym.db.selectFrom('clip').select('id').executeTakeFirstOrThrow();
  clipId = clip.id;
  const calibration = {
    view: 'side' as const,
    scale: null,
    target: null,
    rectangle: null,
    lens: null,
  };
  await keepCameraSetup(gym.db, { name: 'By the door', width: 1280, height: 720, calibration });
});

/** Everything a coach opens. */
const everythingOpens = async () => {
  const { db } = gym;
  await Promise.all([
    allStudents(db),
    cameraSetups(db),
    cardOf(db, who),
    floorFacts(db),
    libraryOf(db),
    loadBench(db, clipId),
    sessionsOf(db),
    settingsOf(db),
    shownNow(db, who),
    strikesNow(db, who),
    studentById(db, who),
    testsOf(db, who),
    workOf(db, who),
    unreadableCells(db),
  ]);
};

const CELLS = Object.entries(COLUMNS).flatMap(([table, columns]) =>
  Object.keys(columns).map((column) => [table, column] as const),
);

describe.each(['no JSON', '{"grades":7}', '[[1]]', '"x"'])('%s', (garbage) => {
  it.each(CELLS)('in %s.%s takes nothing down', async (table, column) => {
    const cell = sql.ref(column);
    const { rows } = await sql<{ rowid: number; kept: string | null }>`
      select rowid, ${cell} as kept from ${sql.table(table)}`.execute(gym.db);
    const set = (rowid: number, text: string | null) =>
      sql`update ${sql.table(table)} set ${cell} = ${text} where rowid = ${rowid}`.execute(gym.db);
    for (const { rowid } of rows) await set(rowid, garbage);
    await everythingOpens();
    for (const { rowid, kept } of rows) await set(rowid, kept);
  });
});

describe('what cannot be read', () => {
  const setScale = (scale: string | null) =>
    gym.db.updateTable('clip').set({ scale }).where('id', '=', clipId).execute();
  const scaleNow = async () =>
    (await gym.db.selectFrom('clip').select('scale').where('id', '=', clipId).executeTakeFirst())!
      .scale;

  it('is told of, with the page on which it can be set anew', async () => {
    expect(await unreadableCells(gym.db)).toEqual([]);
    await setScale('{"metres":"many"}');
    expect(await unreadableCells(gym.db)).toEqual([
      { what: 'the scale of a clip', of: { name: 'film.mp4', href: `/bench/${clipId}` } },
    ]);
  });

  it('stays where it is while something else is saved, and gives way to what is set anew', async () => {
    const garbage = '{"metres":"many"}';
    await setScale(garbage);
    const { revision, document } = (await loadBench(gym.db, clipId))!;
    expect(document.scale).toBeNull();
    await saveBench(gym.db, clipId, { revision, document: { ...document, view: 'front' } });
    expect(await scaleNow()).toBe(garbage);
    const scale = { from: { x: 0, y: 0 }, to: { x: 0, y: 100 }, metres: 1 };
    await saveBench(gym.db, clipId, { revision: revision + 1, document: { ...document, scale } });
    expect(JSON.parse((await scaleNow())!)).toEqual(scale);
    // What can be read is taken away as ever.
    await saveBench(gym.db, clipId, { revision: revision + 2, document });
    expect(await scaleNow()).toBeNull();
  });

  const gymCell = async (column: 'library' | 'settings') =>
    (await gym.db.selectFrom('gym').select(column).executeTakeFirst())![column];
  const off = { kind: 'off', fault: 'jammed', isOff: true } as const;

  it('of the library is not lost by one change, and gives way to a library from a file', async () => {
    const garbage = '{"faults":"many"}';
    await gym.db.updateTable('gym').set({ library: garbage }).execute();
    await expect(changeLibrary(gym.db, 'Ada', off)).rejects.toThrow(/cannot be read.*backup/);
    expect(await gymCell('library')).toBe(garbage);
    await changeLibrary(gym.db, 'Ada', { kind: 'all', edits: NO_EDITS });
    await changeLibrary(gym.db, 'Ada', off);
    expect(JSON.parse((await gymCell('library'))!)).toMatchObject({
      faults: { jammed: { isOff: true } },
    });
  });

  it('of the settings outlives another name of the gym, and gives way to grades set anew', async () => {
    const garbage = '{"grades":7}';
    await gym.db.updateTable('gym').set({ settings: garbage }).execute();
    const seen = await settingsOf(gym.db);
    await changeSettings(gym.db, { ...seen, name: 'Renamed' }, seen);
    expect(await gymCell('settings')).toBe(garbage);
    const now = await settingsOf(gym.db);
    expect(now.name).toBe('Renamed');
    await changeSettings(gym.db, { ...now, grades: ['white'] }, now);
    expect((await settingsOf(gym.db)).grades).toEqual(['white']);
    expect(await unreadableCells(gym.db)).toEqual([]);
  });
});
