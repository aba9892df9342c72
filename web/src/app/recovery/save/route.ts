import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import yazl from 'yazl';
import { ownPagesOnly } from '@/app/api/answers';
import { DATABASE_FILES } from '@/data/maintenance/backups';
import { dataFolder } from '@/data/database/dataFolder';
import { today } from '@/data/database/today';

export const dynamic = 'force-dynamic';

/** The database's files as they are, unopened, for somebody who can mend them. */
export const GET = ownPagesOnly(async () => {
  const zip = new yazl.ZipFile();
  for (const name of DATABASE_FILES) {
    const path = join(dataFolder(), name);
    if (existsSync(path)) zip.addFile(path, name);
  }
  zip.end();
  return new Response(Readable.toWeb(zip.outputStream as Readable) as ReadableStream, {
    headers: {
      'content-type': 'application/zip',
      'content-disposition': `attachment; filename="sinew-database-${today()}.zip"`,
    },
  });
}, 'owner');
