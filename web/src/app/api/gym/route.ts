import { createWriteStream } from 'node:fs';
import { mkdir, rm } from 'node:fs/promises';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { ReadableStream as NodeStream } from 'node:stream/web';
import { revalidatePath } from 'next/cache';
import { nanoid } from 'nanoid';
import { Problem } from '@sinew/core/foundation/problem/problem';
import { ownPagesOnly } from '@/app/api/answers';
import { gymFile } from './gymFile';
import { clipFiles } from '@/data/film/clipFilesHere';
import { database } from '@/data/database/database';
import { dataFolder } from '@/data/database/dataFolder';
import { writeInItsManner } from '@/data/gym/gym';
import { backUpHere } from '@/data/maintenance/here';
import { importGym, verifyGym } from '@/data/transfer/gymImport';

/** The whole gym as one file, or without what was put away. */
export const GET = ownPagesOnly(async (request) => {
  const isKept = new URL(request.url).searchParams.has('kept');
  return gymFile('gym', isKept ? { kind: 'not-put-away' } : { kind: 'all' });
}, 'owner');

/** Check a gym's file, or take it over: all of it or nothing. */
export const PUT = ownPagesOnly(async (request) => {
  const isCheck = new URL(request.url).searchParams.has('check');
  if (!request.body) throw new Problem('not-understood', { happened: 'There is no file.' });
  const incoming = join(dataFolder(), 'incoming');
  const path = join(incoming, `gym-${nanoid()}.zip`);
  try {
    await mkdir(incoming, { recursive: true, mode: 0o700 });
    await pipeline(
      Readable.fromWeb(request.body as NodeStream),
      createWriteStream(path, { mode: 0o600 }),
    );
    if (isCheck) return Response.json({ checked: await verifyGym(path, incoming) });
    const db = await database();
    // A way back, whatever the file does to the gym; a broken file makes no backup, nor pushes one out.
    const imported = await importGym(clipFiles(), path, incoming, backUpHere);
    await writeInItsManner(db);
    revalidatePath('/', 'layout');
    return Response.json({ imported });
  } finally {
    await rm(path, { force: true });
  }
}, 'owner');
