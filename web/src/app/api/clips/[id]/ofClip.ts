import { CLIP_GONE, ownPagesOnly, there } from '@/app/api/answers';
import type { Asker } from '@/data/access/roles';
import { clipById, type Clip } from '@/data/clip/clips';
import { database } from '@/data/database/database';
import type { Db } from '@/data/database/db';

interface OfClip {
  readonly db: Db;
  readonly clip: Clip;
  readonly asker: Asker;
}

/**
 * A handler of what belongs to one clip. Put away, with its student or by itself, a clip is not there for
 * any of them.
 */
export const ofClip = (handle: (request: Request, about: OfClip) => Promise<Response>) =>
  ownPagesOnly(async (request, { params }: { params: Promise<{ id: string }> }, asker) => {
    const db = await database();
    const clip = there(await clipById(db, (await params).id), CLIP_GONE);
    return handle(request, { db, clip, asker });
  });
