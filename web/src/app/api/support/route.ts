import { Readable } from 'node:stream';
import { ownPagesOnly } from '@/app/api/answers';
import { database } from '@/data/database/database';
import { dataFolder } from '@/data/database/dataFolder';
import { today } from '@/data/database/today';
import { supportFile } from '@/data/log/supportFile';

/** Versions, counts and the log, for whoever helps; no film and no name. */
export const GET = ownPagesOnly(async () => {
  const zip = await supportFile(await database(), dataFolder());
  return new Response(Readable.toWeb(zip) as ReadableStream, {
    headers: {
      'content-type': 'application/zip',
      'content-disposition': `attachment; filename="sinew-support-${today()}.zip"`,
    },
  });
});
