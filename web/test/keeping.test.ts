/** Backups, the trash, consents that end, and what a killed process leaves behind. */
import { spawn } from 'node:child_process';
import { existsSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { scratchFolder } from '@sinew/demo/scratch';
import Database from 'better-sqlite3';
import { beforeEach, describe, expect, it } from 'vitest';
import { plusDays } from '@sinew/core/foundation/calendar/day';
import { backUp, backups, KEPT, restore } from '@/data/maintenance/backups';
import { addClip, clipById, clipSummaries } from '@/data/clip/clips';
import { ClipFiles } from '@/data/film/clipFiles';
import { openDatabase } from '@/data/database/database';
import { acceptFinding, activeCues } from '@/data/finding/findings';
import { importGym } from '@/data/transfer/gymImport';
import { insertRow, rowsOf } from '@/data/transfer/gymTables';
import { confirmClock } from '@/data/maintenance/clock';
import { lookAfter, maintain } from '@/data/maintenance/maintain';
import { strikesNow } from '@/data/finding/measured';
import { allStudents, recordConsent } from '@/data/student/students';
import { today } from '@/data/database/today';
import { setTrashed, trash } from '@/data/maintenance/trash';
import {
  emptyGym,
  film,
  fullGym,
  markedClip,
  newClip,
  saved,
  student,
  typescript,
  type TestGym,
} from './support';

let gym: TestGym;
let who: string;
beforeEach(async () => {
  gym = await emptyGym();
  who = await student(gym);
});

const DAY = 86_400_000;
const later = (days: number) => new Date(Date.now() + days * DAY);
const filmsIn = (folder: string) =>
  existsSync(folder)
    ? readdirSync(folder, { recursive: true }).filter((one) => String(one).endsWith('.bin'))
    : [];
/** A day's maintenance, on a day that nobody doubts. */
async function keep(at: Date): Promise<boolean> {
  await confirmClock(gym.db, gym.folder, at);
  return maintain(gym, at, await lookAfter(gym, at));
}

describe('the trash', () => {
  it('gives a clip back with its cue, and keeps it thirty days', async () => {
    const { clipId, strikeId } = await markedClip(gym, who);
    await acceptFinding(gym.db, strikeId, 'all-at-once', false);
    await setTrashed(gym.db, 'clip', clipId, true);
    expect(await clipById(gym.db, clipId)).toBeNull();
    expect(await clipSummaries(gym.db, who)).toEqual([]);
    expect(await activeCues(gym.db)).toEqual([]);
    await keep(later(29));
    await setTrashed(gym.db, 'clip', clipId, false);
    expect(await clipById(gym.db, clipId)).not.toBeNull();
    expect(await activeCues(gym.db)).toHaveLength(1);
    expect(filmsIn(join(gym.folder, 'clips'))).toHaveLength(1);
  });

  it('does not push out a cue that was given meanwhile', async () => {
    const first = await markedClip(gym, who);
    await acceptFinding(gym.db, first.strikeId, 'all-at-once', false);
    await setTrashed(gym.db, 'clip', first.clipId, true);
    const second = await markedClip(gym, who, 'cross-all-at-once.mp4');
    await acceptFinding(gym.db, second.strikeId, 'all-at-once', false);
    await setTrashed(gym.db, 'clip', first.clipId, false);
    const cues = await activeCues(gym.db);
    expect(cues.map(({ clipId }) => clipId)).toEqual([second.clipId]);
  });

  it('is emptied after thirty days, films with their files', async () => {
    const { clipId } = await markedClip(gym, who);
    await setTrashed(gym.db, 'clip', clipId, true);
    await keep(later(31));
    expect(await trash(gym.db)).toEqual([]);
    expect(filmsIn(join(gym.folder, 'clips'))).toEqual([]);
    expect(await gym.db.selectFrom('strike').selectAll().execute()).toEqual([]);
  });

  it('takes a student with all that is theirs, and gives all of it back', async () => {
    await markedClip(gym, who);
    await setTrashed(gym.db, 'student', who, true);
    expect(await allStudents(gym.db)).toEqual([]);
    await setTrashed(gym.db, 'student', who, false);
    expect(await clipSummaries(gym.db, who)).toHaveLength(1);
    await setTrashed(gym.db, 'student', who, true);
    await keep(later(31));
    expect(await gym.db.selectFrom('student').selectAll().execute()).toEqual([]);
    expect(filmsIn(join(gym.folder, 'clips'))).toEqual([]);
  });

  it('gives a film back that is added again while it lies there', async () => {
    const { clipId } = await markedClip(gym, who);
    await setTrashed(gym.db, 'clip', clipId, true);
    const again = await addClip(gym.db, gym.files, newClip(who, film('cross-clean.mp4')));
    expect(again).toEqual({ id: clipId, isKnown: true });
    expect(await clipById(gym.db, clipId)).not.toBeNull();
  });
});

describe('a consent that ends', () => {
  const consent = (
    id: string,
    expiresOn: string | null,
    givenBy: 'student' | 'guardian' = 'student',
  ) => recordConsent(gym.db, id, { givenBy, name: 'S', givenOn: '2026-01-02', expiresOn });

  it('takes films and points with it, from the backups too; the numbers stay', async () => {
    const id = await student(gym, { consent: null });
    await consent(id, plusDays(today(), 1));
    const { clipId } = await markedClip(gym, id);
    await keep(new Date());
    expect(filmsIn(join(gym.folder, 'backups', 'clips'))).toHaveLength(1);
    await gym.db
      .updateTable('consent')
      .set({ expires_on: today() })
      .where('student_id', '=', id)
      .execute();
    await keep(new Date());
    expect(filmsIn(join(gym.folder, 'clips'))).toEqual([]);
    expect(filmsIn(join(gym.folder, 'backups', 'clips'))).toEqual([]);
    expect(await gym.db.selectFrom('track').selectAll().execute()).toEqual([]);
    expect((await clipById(gym.db, clipId))!.isPurged).toBe(true);
    expect((await strikesNow(gym.db, id)).strikes).toHaveLength(1);
    await expect(addClip(gym.db, gym.files, newClip(id, film('cross-jammed.mp4')))).rejects.toThrow(
      /consent/,
    );
  });

  it('leaves everything where another one is in force, a guardian’s for a minor', async () => {
    const adult = await student(gym, { consent: null });
    await consent(adult, today());
    await consent(adult, null);
    const minor = await student(gym, { isMinor: true, consent: null });
    await consent(minor, plusDays(today(), 1), 'guardian');
    await consent(minor, null, 'student');
    const [a, b] = [
      await markedClip(gym, adult),
      await markedClip(gym, minor, 'cross-all-at-once.mp4'),
    ];
    await gym.db
      .updateTable('consent')
      .set({ expires_on: today() })
      .where('student_id', '=', minor)
      .where('given_by', '=', 'guardian')
      .execute();
    await keep(new Date());
    expect((await clipById(gym.db, a.clipId))!.isPurged).toBe(false);
    expect((await clipById(gym.db, b.clipId))!.isPurged).toBe(true);
  });
});

describe('a backup', () => {
  const folder = () => join(gym.folder, 'backups');
  const make = (at: Date, spared: string | null = null) =>
    backUp(gym.folder, folder(), at, { isRotated: true, spared });

  it('is made once a day, and the last two weeks are kept', async () => {
    expect(await keep(later(0))).toBe(true);
    expect(await keep(later(0.5))).toBe(false);
    for (let day = 1; day < 20; day++) expect(await keep(later(day))).toBe(true);
    expect(await backups(folder())).toHaveLength(KEPT);
  });

  it('that is the oldest of all outlives the one made before it is gone back to', async () => {
    const { name } = await make(later(0));
    for (let day = 1; day < KEPT; day++) await make(later(day));
    await make(later(KEPT), name);
    await restore(gym.folder, folder(), name, () => gym.db.destroy());
    const db = await openDatabase(gym.folder);
    await backUp(gym.folder, folder(), later(KEPT + 1), { isRotated: true });
    await db.destroy();
    expect((await backups(folder())).map((one) => one.name)).not.toContain(name);
  });

  it('can be gone back to, films and all, and the way back to now stays open', async () => {
    const { clipId } = await markedClip(gym, who);
    const { name } = await make(later(0));
    await gym.db.deleteFrom('clip').where('id', '=', clipId).execute();
    rmSync(join(gym.folder, 'clips'), { recursive: true });
    const second = await student(gym);
    const now = await make(later(1));
    await restore(gym.folder, folder(), name, () => gym.db.destroy());
    let db = await openDatabase(gym.folder);
    expect(await clipById(db, clipId)).not.toBeNull();
    expect(filmsIn(join(gym.folder, 'clips'))).toHaveLength(1);
    expect((await allStudents(db)).map(({ id }) => id)).toEqual([who]);
    await restore(gym.folder, folder(), now.name, () => db.destroy());
    db = await openDatabase(gym.folder);
    expect((await allStudents(db)).map(({ id }) => id).sort()).toEqual([who, second].sort());
    await db.destroy();
  });

  it('that is damaged, gone or of a newer Sinew is refused, and nothing changes', async () => {
    const { name } = await make(later(0));
    const path = join(folder(), name);
    const whole = readFileSync(path);
    const close = () => Promise.reject(new Error('must not be closed'));
    writeFileSync(path, whole.subarray(0, whole.length / 2));
    await expect(restore(gym.folder, folder(), name, close)).rejects.toThrow(/damaged/);
    writeFileSync(path, whole);
    const database = new Database(path);
    database
      .prepare("update kysely_migration set name = '0099-later' where name like '0005%'")
      .run();
    database.close();
    await expect(restore(gym.folder, folder(), name, close)).rejects.toThrow(/newer Sinew/);
    await expect(restore(gym.folder, folder(), '../sinew.db', close)).rejects.toThrow(/not there/);
    expect(await allStudents(gym.db)).toHaveLength(1);
  });

  it('keeps a film that an older backup still names, until it is gone for good', async () => {
    const { clipId } = await markedClip(gym, who);
    await make(later(0));
    const [clip] = await rowsOf(gym.db, 'clip');
    // As after a way back to a day before it was filmed.
    await gym.db.deleteFrom('clip').where('id', '=', clipId).execute();
    await keep(later(1));
    expect(filmsIn(join(folder(), 'clips'))).toHaveLength(1);
    await insertRow(gym.db, 'clip', clip!);
    await setTrashed(gym.db, 'clip', clipId, true);
    await keep(later(33));
    expect(filmsIn(join(folder(), 'clips'))).toHaveLength(0);
  });
});

const CHILD = fileURLToPath(new URL('./crashing.ts', import.meta.url));

/**
 * Run the child and kill it.
 *
 * @param after milliseconds after it has said so many lines; the first says that it is ready
 * @returns what it had confirmed
 */
function killed(
  what: string,
  folder: string,
  file: string,
  after: number,
  lines = 1,
): Promise<string[]> {
  return new Promise((resolve) => {
    const child = spawn(process.execPath, typescript(CHILD, what, folder, file));
    let said = '';
    child.stdout.on('data', (chunk: Buffer) => {
      const count = (text: string) => text.split('\n').length - 1;
      const before = count(said);
      said += chunk.toString();
      if (before < lines && count(said) >= lines) setTimeout(() => child.kill('SIGKILL'), after);
    });
    child.on('close', () => resolve(said.split('\n').slice(1, -1)));
  });
}

/** @returns the database as it opens after a crash, checked */
function afterCrash(folder: string): Database.Database {
  const database = new Database(join(folder, 'sinew.db'));
  expect(database.pragma('integrity_check')).toEqual([{ integrity_check: 'ok' }]);
  expect(database.pragma('foreign_key_check')).toEqual([]);
  return database;
}

describe('killed in the middle (SIGKILL)', () => {
  it.each([40, 150, 300])(
    'of writing: what was confirmed is there (after %d ms)',
    async (after) => {
      await gym.db.destroy();
      // From the first that was confirmed, however long that took.
      const confirmed = await killed('write', gym.folder, who, after, 2);
      const database = afterCrash(gym.folder);
      const kept = database.prepare('select id from drill_log').all() as { id: string }[];
      const ids = new Set(kept.map(({ id }) => id));
      expect(confirmed.length).toBeGreaterThan(0);
      for (const id of confirmed) expect(ids).toContain(id);
      // At most the one that was under way beside.
      expect(ids.size - confirmed.length).toBeLessThanOrEqual(1);
      database.close();
    },
  );

  it.each([5, 20, 60, 150])('of an import: all of it or nothing (after %d ms)', async (after) => {
    const { gym: full } = await fullGym();
    const file = await saved(full);
    const folder = scratchFolder('crash');
    const confirmed = await killed('import', folder, file, after);
    const database = afterCrash(folder);
    const count = (table: string) =>
      (database.prepare(`select count(*) as n from ${table}`).get() as { n: number }).n;
    const counts = ['student', 'clip', 'strike', 'mark', 'cue', 'drill_log'].map(count);
    expect([counts.every((n) => n > 0), counts.every((n) => n === 0)]).toContain(true);
    if (confirmed.includes('imported')) expect(count('student')).toBe(1);
    database.close();
    // And the import can simply be done again.
    const db = await openDatabase(folder);
    await importGym(new ClipFiles(folder), file, join(folder, 'incoming'));
    expect(await allStudents(db)).toHaveLength(1);
    await db.destroy();
  });

  it.each([15, 60, 200])(
    'of a backup: every backup that has a name is sound (after %d ms)',
    async (after) => {
      await markedClip(gym, who);
      await gym.db.destroy();
      const confirmed = await killed('backup', gym.folder, '', after);
      const folder = join(gym.folder, 'backups');
      const names = (await backups(folder)).map(({ name }) => name);
      // Confirmed and not there is only what has given way to newer ones, said or not.
      for (const name of confirmed) {
        const newer = names.filter((other) => other > name).length;
        expect(names.includes(name) || newer >= KEPT, name).toBe(true);
      }
      for (const name of names) {
        const database = new Database(join(folder, name), { readonly: true });
        expect(database.pragma('integrity_check')).toEqual([{ integrity_check: 'ok' }]);
        database.close();
      }
      afterCrash(gym.folder).close();
      const db = await openDatabase(gym.folder);
      await backUp(gym.folder, folder, later(400), { isRotated: true });
      expect(readdirSync(folder).filter((name) => name.startsWith('making-'))).toEqual([]);
      await db.destroy();
    },
  );
});
