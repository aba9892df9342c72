/** The made-up gym, which has something of everything, goes out as a file and into an empty gym. */
import { spawnSync } from 'node:child_process';
import { createWriteStream } from 'node:fs';
import { join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { fileURLToPath } from 'node:url';
import { expect, it } from 'vitest';
import { scratchFolder } from '@sinew/demo/scratch';
import { ClipFiles } from '@/data/film/clipFiles';
import { openDatabase } from '@/data/database/database';
import { unreadableCells } from '@/data/database/unreadable';
import { exportGym } from '@/data/transfer/gymExport';
import { importGym } from '@/data/transfer/gymImport';
import { rowsOf, TABLES } from '@/data/transfer/gymTables';
import { emptyGym, typescript } from './support';

it('takes every row along but what is measured again, and can be read there', async () => {
  const folder = scratchFolder('demo');
  const { status, stderr } = spawnSync(
    process.execPath,
    typescript(fileURLToPath(new URL('../../demo/src/gym/seed.ts', import.meta.url))),
    { env: { ...process.env, SINEW_DATA: folder } },
  );
  expect(String(stderr), `seed: ${status}`).not.toMatch(/Error/);
  const demo = await openDatabase(folder);
  const file = join(folder, 'gym.zip');
  await pipeline(
    await exportGym(new ClipFiles(folder), join(folder, 'incoming')),
    createWriteStream(file),
  );
  const gym = await emptyGym();
  await importGym(gym.files, file, join(gym.folder, 'incoming'));
  for (const table of TABLES) {
    if (table === 'measured') continue;
    const [there, here] = [await rowsOf(demo, table), await rowsOf(gym.db, table)];
    expect(here.length, table).toBe(there.length);
  }
  expect(await unreadableCells(gym.db)).toEqual([]);
  await demo.destroy();
});
