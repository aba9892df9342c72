import { ownPagesOnly } from '@/app/api/local';
import { database } from '@/data/database/database';
import { openJobs } from '@/data/clip/trackings';

/** Which clips are to be tracked, oldest first. */
export const GET = ownPagesOnly(async () =>
  Response.json(await openJobs(await database()), { headers: { 'cache-control': 'no-store' } }),
);
