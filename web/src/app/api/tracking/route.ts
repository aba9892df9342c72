import { fresh, ownPagesOnly } from '@/app/api/answers';
import { openJobs } from '@/data/clip/trackings';
import { database } from '@/data/database/database';

/** Every clip whose body is to be tracked, or is paused. */
export const GET = ownPagesOnly(async () => fresh(await openJobs(await database())));
