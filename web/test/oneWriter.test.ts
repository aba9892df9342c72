/** One server a folder, one writer at a time, and nothing written where the gym no longer is. */
import { spawn } from 'node:child_process';
import { existsSync, readFileSync, renameSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import Database from 'better-sqlite3';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { scratchFolder } from '@sinew/demo/scratch';
import {
  closeDatabase,
  database,
  databaseProblem,
  replacingDatabase,
} from '@/data/database/database';
import { databasePath } from '@/data/database/dataFolder';
import { hold, holderInWords } from '@/data/database/hold';
import { patiently } from '@/data/database/oneWriter';
import { ask } from '@/data/threads/ask';
import { allStudents } from '@/data/student/students';
import { backUp, backupFolder, restore } from '@/data/maintenance/backups';
import { emptyGym, student, type TestGym, typescript } from './support';

const names = async (gym: TestGym) => (await allStudents(gym.db)).map(({ name }) => name);
const rename = (gym: TestGym, name: string) => gym.db.updateTable('gym').set({ name }).execute();
const nameOf = async ({ db }: Pick<TestGym, 'db'>) =>
  (await db.selectFrom('gym').select('name').executeTakeFirst())?.name;

describe('the gym’s file', () => {
  let gym: TestGym;
  let other: Database.Database;
  beforeEach(async () => {
    gym = await emptyGym();
    await student(gym);
    other = new Database(databasePath(gym.folder), { timeout: 0 });
  });
  afterEach(async () => {
    other.close();
    await gym.db.destroy();
  });

  it('held by another program is waited for, while reading and the rest of the server go on', async () => {
    other.exec('begin immediate');
    let turns = 0;
    const turning = setInterval(() => (turns += 1), 5);
    const writing = rename(gym, 'Later');
    expect(await names(gym)).toEqual(['Somebody']);
    // The loop goes round all the while.
    await vi.waitFor(() => expect(turns).toBeGreaterThan(10), 10_000);
    expect(await nameOf(gym)).not.toBe('Later');
    other.exec('commit');
    await writing;
    clearInterval(turning);
    expect(await nameOf(gym)).toBe('Later');
  });

  it('held for longer than anybody waits is told in words', async () => {
    other.exec('begin immediate');
    const second = new Database(databasePath(gym.folder), { timeout: 0 });
    await expect(patiently(() => second.exec('begin immediate'), 60)).rejects.toMatchObject({
      code: 'busy',
      message: expect.stringMatching(/Another program holds .* Nothing was changed\. Close it/),
    });
    second.close();
    other.exec('rollback');
  });

  it('is written by one transaction at a time, each seeing what the one before has done', async () => {
    const { id } = await gym.db.selectFrom('student').select('id').executeTakeFirstOrThrow();
    await Promise.all(
      Array.from({ length: 20 }, () =>
        gym.db.transaction().execute(async (trx) => {
          const { grade } = await trx
            .selectFrom('student')
            .select('grade')
            .where('id', '=', id)
            .executeTakeFirstOrThrow();
          await new Promise((resolve) => setTimeout(resolve, 1));
          await trx
            .updateTable('student')
            .set({ grade: `${Number(grade || 0) + 1}` })
            .where('id', '=', id)
            .execute();
        }),
      ),
    );
    const [row] = await gym.db.selectFrom('student').select('grade').execute();
    expect(row!.grade).toBe('20');
  });

  it('is as before when a transaction fails, and the next one is let in', async () => {
    const failing = gym.db.transaction().execute(async (trx) => {
      await trx.updateTable('gym').set({ name: 'Half' }).execute();
      throw new Error('in the middle');
    });
    await expect(failing).rejects.toThrow('in the middle');
    expect(await nameOf(gym)).not.toBe('Half');
    await rename(gym, 'Whole');
    expect(await nameOf(gym)).toBe('Whole');
  });

  it('moved away is noticed by the next write, and is found again where it was', async () => {
    const away = `${gym.folder}-away`;
    renameSync(gym.folder, away);
    await expect(rename(gym, 'Nowhere')).rejects.toThrow(/not where it was.*Nothing was written/);
    await expect(
      gym.db.transaction().execute((trx) => trx.updateTable('gym').set({ name: 'No' }).execute()),
    ).rejects.toThrow(/not where it was/);
    expect(existsSync(gym.folder)).toBe(false);
    renameSync(away, gym.folder);
    await rename(gym, 'Here');
    expect(await nameOf(gym)).toBe('Here');
  });

  it('with another one in its place is not written into by who knew the first', async () => {
    const path = databasePath(gym.folder);
    renameSync(path, `${path}.before`);
    new Database(path).close();
    await expect(rename(gym, 'Which?')).rejects.toThrow(/not where it was/);
  });
});

describe('a folder', () => {
  const program = fileURLToPath(new URL('holding.ts', import.meta.url));

  it('is held by one process, and by none when that one was killed', async () => {
    const folder = scratchFolder('held');
    const child = spawn(process.execPath, typescript(program, folder), {
      stdio: ['ignore', 'pipe', 'inherit'],
    });
    const pid = await new Promise<number>((resolve) =>
      child.stdout.once('data', (said: Buffer) => resolve(Number(said.toString()))),
    );
    const refused = await hold(folder, { pid: process.pid, address: null });
    expect(refused).toEqual({
      isHeld: false,
      by: { pid, address: 'http://127.0.0.1:4199' },
    });
    expect(holderInWords({ pid, address: 'http://127.0.0.1:4199' })).toMatch(/Sinew at http/);
    const gone = new Promise((resolve) => child.once('exit', resolve));
    process.kill(pid, 'SIGKILL');
    await gone;
    const held = await hold(folder, { pid: process.pid, address: null });
    expect(held.isHeld).toBe(true);
    expect(JSON.parse(readFileSync(join(folder, 'in-use.json'), 'utf8'))).toMatchObject({
      pid: process.pid,
    });
    if (held.isHeld) held.release();
  });

  it('that another Sinew holds is not opened, and says who has it', async () => {
    const gym = await emptyGym();
    await gym.db.destroy();
    const before = await hold(gym.folder, { pid: 7, address: 'http://127.0.0.1:4100' });
    process.env.SINEW_DATA = gym.folder;
    expect(await databaseProblem()).toMatchObject({
      kind: 'in use',
      reason: 'the Sinew at http://127.0.0.1:4100',
    });
    if (before.isHeld) before.release();
    expect(await databaseProblem()).toBeNull();
    await closeDatabase();
  });
});

it('what is saved while a backup takes the gym’s place is refused, never lost in silence', async () => {
  const gym = await emptyGym();
  await student(gym);
  await rename(gym, 'Old');
  const backups = backupFolder(gym.folder);
  const { name } = await backUp(gym.folder, backups, new Date(), { isRotated: false });
  await gym.db.destroy();
  process.env.SINEW_DATA = gym.folder;
  const db = await database();
  await db.updateTable('gym').set({ name: 'New' }).execute();
  const saving: Promise<string>[] = [];
  const save = async (as: string) => {
    const open = await database();
    await open.updateTable('gym').set({ name: as }).execute();
    return as;
  };
  await replacingDatabase(async (close) => {
    saving.push(save('meanwhile'));
    await expect(saving[0]).rejects.toMatchObject({ code: 'busy' });
    await restore(gym.folder, backups, name, async () => {
      await close();
      // Asked for now, the database is the new one.
      saving.push(save('afterwards'));
    });
  });
  expect(await saving[1]).toBe('afterwards');
  expect(await nameOf({ db: await database() })).toBe('afterwards');
  await closeDatabase();
});

it('a thread does not go on reading the database that was replaced while it was closed', async () => {
  const gym = await emptyGym();
  const who = await student(gym);
  const backups = backupFolder(gym.folder);
  const { name } = await backUp(gym.folder, backups, new Date(), { isRotated: false });
  await gym.db.destroy();
  process.env.SINEW_DATA = gym.folder;
  const named = async () => (await ask('ledgerText', who, 'json'))!.student;
  const db = await database();
  await db.updateTable('student').set({ name: 'Later' }).execute();
  expect(await named()).toBe('Later');
  // As the page does that needs no database.
  await restore(gym.folder, backups, name, closeDatabase, false);
  expect(await named()).toBe('Somebody');
  await closeDatabase();
});
