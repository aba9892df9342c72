/**
 * What goes for good goes from everywhere: out of the database's own bytes, out of every backup, out of
 * databases that were put aside. What is still to be done is written down first, so that a machine that is
 * switched off meanwhile does it the next time.
 */
import { existsSync } from 'node:fs';
import { readFile, rm } from 'node:fs/promises';
import { join } from 'node:path';
import { z } from 'zod';
import { OF_A_BODY } from '../clip/clipEnds';
import { databasePath } from '../database/dataFolder';
import { writeWhole } from '../database/writeWhole';
import { logTrouble } from '../log/log';
import { backupFolder, backups } from './backups';
import type { EraseRequest, Erasure } from './eraseRows';
import { databasesAside } from './setAside';
import { have } from '../threads/threads';

const FILE = 'erasing.json';
const taskSchema = z.object({
  databases: z.array(z.string()),
  erasures: z.array(
    z.object({ table: z.string(), column: z.enum(['id', 'clip_id']), ids: z.array(z.string()) }),
  ),
});

/** Everything of a body in these clips; instants and readings are numbers, and stay. */
export const bodyIn = (clips: readonly string[]): Erasure[] =>
  OF_A_BODY.map((table) => ({ table, column: 'clip_id', ids: clips }));

/**
 * The gym's own database is only packed anew: its rows are gone already, and one that has come back under
 * the same name – taken over from a file, a film added again – is nobody's to erase. For the same reason
 * only backups that are there now are worked on, also when it takes a second time.
 *
 * @param erasures rows that are gone from the gym's database already
 */
export async function eraseEverywhere(data: string, erasures: readonly Erasure[]): Promise<void> {
  const tasks = await pendingIn(data);
  const wanted = erasures.filter(({ ids }) => ids.length > 0);
  if (wanted.length > 0) {
    const folder = backupFolder(data);
    const kept = (await backups(folder)).map(({ name }) => join(folder, name));
    tasks.push(
      { databases: [databasePath(data)], erasures: [] },
      { databases: kept, erasures: wanted },
    );
  }
  if (tasks.length === 0) return;
  await writeWhole(join(data, FILE), JSON.stringify(tasks));
  // Those put aside are damaged, as a rule: what can be done is done, and they go by themselves.
  await have('eraseRows', { databases: await databasesAside(data), erasures: wanted });
  const left: EraseRequest[] = [];
  for (const task of tasks) {
    const databases = task.databases.filter((path) => existsSync(path));
    const failed = await have('eraseRows', { ...task, databases });
    if (failed.length > 0) left.push({ ...task, databases: failed });
  }
  if (left.length === 0) return rm(join(data, FILE), { force: true });
  await writeWhole(join(data, FILE), JSON.stringify(left));
  logTrouble('erasing', new Error('some databases could not be worked on'));
}

async function pendingIn(data: string): Promise<EraseRequest[]> {
  const text = await readFile(join(data, FILE), 'utf8').catch(() => '[]');
  try {
    return z.array(taskSchema).parse(JSON.parse(text));
  } catch {
    return [];
  }
}
