import { join } from 'node:path';
import { Readable } from 'node:stream';
import { clipFiles } from '@/data/film/clipFilesHere';
import { database } from '@/data/database/database';
import { dataFolder } from '@/data/database/dataFolder';
import { today } from '@/data/database/today';
import type { Scope } from '@/data/transfer/exportScope';
import { exportGym } from '@/data/transfer/gymExport';

/** A gym's file, or a part of it, as a download. @param name of the file, in plain letters */
export async function gymFile(name: string, scope: Scope): Promise<Response> {
  await database();
  const zip = await exportGym(clipFiles(), join(dataFolder(), 'incoming'), scope);
  return new Response(Readable.toWeb(zip) as ReadableStream, {
    headers: {
      'content-type': 'application/zip',
      'content-disposition': `attachment; filename="sinew-${name}-${today()}.zip"`,
    },
  });
}
