/** What is kept of the database holds until somebody writes, and no longer. */
import { expect, it, vi } from 'vitest';
import Database from 'better-sqlite3';
import { databasePath } from '@/data/database/dataFolder';
import { untilChanged } from '@/data/database/untilChanged';
import { emptyGym, student } from './support';

it('is worked out once, and anew when this program or another one has written', async () => {
  const gym = await emptyGym();
  await student(gym);
  let count = 0;
  const work = vi.fn(async () => ++count);
  const asked = () => untilChanged(gym.db, 'a count', work);
  expect(await Promise.all([asked(), asked(), asked()])).toEqual([1, 1, 1]);
  expect(await untilChanged(gym.db, 'another', async () => 'x')).toBe('x');
  expect(await asked()).toBe(1);
  await gym.db.updateTable('gym').set({ name: 'Changed' }).execute();
  expect(await asked()).toBe(2);
  await gym.db
    .transaction()
    .execute((trx) => trx.updateTable('gym').set({ name: 'Again' }).execute());
  expect(await asked()).toBe(3);
  const other = new Database(databasePath(gym.folder));
  other.prepare("update gym set name = 'Elsewhere'").run();
  other.close();
  expect(await asked()).toBe(4);
  vi.useFakeTimers({ now: Date.now() + 25 * 3_600_000 });
  expect(await asked()).toBe(5);
  vi.useRealTimers();
});

it('does not keep a failure, and is of one database', async () => {
  const [one, other] = [await emptyGym(), await emptyGym()];
  let fails = true;
  const work = async () => {
    if (fails) throw new Error('for once');
    return 'good';
  };
  await expect(untilChanged(one.db, 'it', work)).rejects.toThrow('for once');
  fails = false;
  expect(await untilChanged(one.db, 'it', work)).toBe('good');
  expect(await untilChanged(other.db, 'it', async () => 'of the other')).toBe('of the other');
});
