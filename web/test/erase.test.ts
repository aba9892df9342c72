/** Gone for good is gone: from the database's bytes, from backups, from what was put aside. */
import { existsSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import Database from 'better-sqlite3';
import { beforeEach, describe, expect, it } from 'vitest';
import { findFilms } from '@/data/clip/findFilms';
import { keepBandTurns } from '@/data/clip/bandTurns';
import { OF_A_BODY, purgeFilm } from '@/data/clip/clipEnds';
import { addDetections, changeJob } from '@/data/clip/trackings';
import { DAY_MS } from '@/data/database/today';
import { backUp, backups, putDatabaseAside } from '@/data/maintenance/backups';
import { confirmClock } from '@/data/maintenance/clock';
import { bodyIn, eraseEverywhere } from '@/data/maintenance/erase';
import { lookAfter, maintain } from '@/data/maintenance/maintain';
import { setTrashed } from '@/data/maintenance/trash';
import { addNote } from '@/data/progress/ledger';
import { addStudent, recordConsent, studentForm } from '@/data/student/students';
import { LANDMARKS } from '@sinew/core/foundation/body/landmarks';
import { detectionOf } from '@sinew/core/observe/track/poseDetection';
import { emptyGym, markedClip, student, type TestGym } from './support';

const NAME = 'Wilhelmina-Quickenborough';
const INJURY = 'Torn-meniscus-of-the-left-knee';
/** Too long for one page of the database. */
const NOTE = `Cried-in-the-changing-room ${'and so on '.repeat(900)}`;
const SECRETS = [NAME, INJURY, 'Cried-in-the-changing-room'];

let gym: TestGym;
let who: string;

const at = (days: number) => new Date(Date.now() + days * DAY_MS);
const backedUp = (days: number) =>
  backUp(gym.folder, join(gym.folder, 'backups'), at(days), {
    isRotated: false,
  });
/** The coach has said that the day is right. */
const tick = async (days: number) => {
  await confirmClock(gym.db, gym.folder, at(days));
  await maintain(gym, at(days), await lookAfter(gym, at(days)));
};

/** Files below the data folder in whose bytes a word stands. */
const filesWith = (word: string): string[] =>
  readdirSync(gym.folder, { recursive: true, encoding: 'utf8' })
    .filter((name) => /\.db(-wal|-journal)?$/.test(name))
    .filter((name) => readFileSync(join(gym.folder, name)).includes(word))
    .sort();

beforeEach(async () => {
  gym = await emptyGym();
  const form = studentForm.parse({
    name: NAME,
    stance: 'orthodox',
    bornOn: '2001-01-01',
    injuries: INJURY,
  });
  who = await addStudent(gym.db, form);
  await addNote(gym.db, { studentId: who, technique: null, day: '2026-01-01', text: NOTE });
});

describe('a student deleted thirty days ago', () => {
  it('is in no byte of the database or of a backup, and everybody else still is', async () => {
    await student(gym);
    await recordConsent(gym.db, who, { givenBy: 'student', name: NAME, givenOn: '2026-01-02' });
    const { clipId } = await markedClip(gym, who);
    await gym.db.updateTable('clip').set({ note: 'Limps-like-Quasimodo' }).execute();
    // What films are found by is an index of its own, in small letters, beginnings shared.
    await findFilms(gym.db, { words: 'quasi', technique: null, order: 'newest', most: 9 });
    const secrets = [...SECRETS, 'asimodo', 'kenborough', clipId];
    await backedUp(0);
    await setTrashed(gym.db, 'student', who, true);
    await backedUp(1);
    for (const word of secrets) expect(filesWith(word).length).toBeGreaterThanOrEqual(3);
    await tick(31);
    for (const word of secrets) expect(filesWith(word), word).toEqual([]);
    const kept = await backups(join(gym.folder, 'backups'));
    expect(kept.length).toBeGreaterThanOrEqual(2);
    for (const { name } of kept) {
      const database = new Database(join(gym.folder, 'backups', name), { readonly: true });
      expect(database.pragma('integrity_check', { simple: true })).toBe('ok');
      expect(database.prepare('select name from student').all()).toEqual([{ name: 'Somebody' }]);
      database.close();
    }
  });

  it('stays while they can still be brought back', async () => {
    await setTrashed(gym.db, 'student', who, true);
    await backedUp(0);
    await tick(29);
    expect(filesWith(INJURY).length).toBeGreaterThan(0);
    await setTrashed(gym.db, 'student', who, false);
    expect(await gym.db.selectFrom('student').select('injuries').execute()).toEqual([
      { injuries: INJURY },
    ]);
  });
});

it('where a body was seen in a film goes with the consent, from backups too; its numbers stay', async () => {
  await recordConsent(gym.db, who, { givenBy: 'student', name: NAME, givenOn: '2026-01-02' });
  const { clipId } = await markedClip(gym, who);
  await changeJob(gym.db, clipId, { kind: 'start', model: 'quick', person: null });
  const seen = detectionOf(3, (landmark) => ({
    x: 1000.123 + LANDMARKS.indexOf(landmark),
    y: 77.5,
    visibility: 0.9,
    inSpace: [0, 0, 0],
  }));
  await addDetections(gym.db, clipId, [seen]);
  const turn = { frames: [3], yaw: [0.1], shake: [0.01], lasting: [0.05] };
  const bands = { hips: { girth: 0.96, turn, silent: [] } };
  await keepBandTurns(gym.db, clipId, { seam: 'front', isSquareKnown: false, bands });
  await backedUp(0);
  await purgeFilm(gym.db, gym.files, clipId);
  for (const table of OF_A_BODY) {
    expect(await gym.db.selectFrom(table).selectAll().execute(), table).toEqual([]);
  }
  await eraseEverywhere(gym.folder, bodyIn([clipId]));
  const [backup] = await backups(join(gym.folder, 'backups'));
  const database = new Database(join(gym.folder, 'backups', backup!.name), { readonly: true });
  const count = (table: string) =>
    (database.prepare(`select count(*) as n from ${table}`).get() as { n: number }).n;
  for (const table of OF_A_BODY) expect(count(table), table).toBe(0);
  expect(count('mark')).toBeGreaterThan(0);
  database.close();
});

describe('what a machine that was switched off has not erased', () => {
  const switchedOff = async () => {
    await backedUp(0);
    await gym.db.deleteFrom('student').where('id', '=', who).execute();
    const databases = (await backups(join(gym.folder, 'backups'))).map(({ name }) =>
      join(gym.folder, 'backups', name),
    );
    const erasures = [{ table: 'student', column: 'id', ids: [who] }];
    const gone = { databases: [join(gym.folder, 'backups', 'rotated.db')], erasures };
    writeFileSync(
      join(gym.folder, 'erasing.json'),
      JSON.stringify([{ databases, erasures }, gone]),
    );
  };

  it('is erased the next time, and backups that have gone meanwhile are not waited for', async () => {
    await switchedOff();
    expect(filesWith(INJURY).some((name) => name.startsWith('backups'))).toBe(true);
    await eraseEverywhere(gym.folder, []);
    expect(filesWith(INJURY).filter((name) => name.startsWith('backups'))).toEqual([]);
    expect(existsSync(join(gym.folder, 'erasing.json'))).toBe(false);
  });

  it('is not erased where it has come back: in the gym, and in backups made since', async () => {
    await switchedOff();
    // Taken over again from a file, under the same name.
    const form = studentForm.parse({ name: NAME, stance: 'orthodox', bornOn: '2001-01-01' });
    await addStudent(gym.db, form, who);
    const { name } = await backedUp(1);
    await eraseEverywhere(gym.folder, []);
    expect(await gym.db.selectFrom('student').select('id').execute()).toEqual([{ id: who }]);
    const database = new Database(join(gym.folder, 'backups', name), { readonly: true });
    expect(database.prepare('select id from student').all()).toEqual([{ id: who }]);
    database.close();
  });
});

it('a backup that cannot be worked on waits, and the others do not', async () => {
  const { name } = await backedUp(0);
  await backedUp(1);
  const bad = join(gym.folder, 'backups', name);
  writeFileSync(bad, 'no database at all');
  await gym.db.deleteFrom('student').where('id', '=', who).execute();
  await eraseEverywhere(gym.folder, [{ table: 'student', column: 'id', ids: [who] }]);
  expect(filesWith(INJURY)).toEqual([]);
  const left = JSON.parse(readFileSync(join(gym.folder, 'erasing.json'), 'utf8')) as unknown;
  expect(left).toEqual([
    { databases: [bad], erasures: [{ table: 'student', column: 'id', ids: [who] }] },
  ]);
});

it('a damaged database that was put aside stops nothing', async () => {
  await backedUp(0);
  const aside = await putDatabaseAside(gym.folder);
  writeFileSync(join(aside, 'sinew.db'), 'no database at all');
  await gym.db.destroy();
  const again = await emptyGym();
  const folder = again.folder;
  await eraseEverywhere(folder, [{ table: 'student', column: 'id', ids: ['nobody'] }]);
  expect(existsSync(join(folder, 'erasing.json'))).toBe(false);
});
