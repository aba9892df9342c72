import { fresh, ownPagesOnly } from '@/app/api/answers';
import { canMakeReadable } from '@/data/film/readable';

/** Whether this machine makes films readable that a browser does not play. */
export const GET = ownPagesOnly(async () => fresh({ isAble: await canMakeReadable() }));
