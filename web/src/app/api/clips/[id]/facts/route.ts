import { CLIP_GONE, fresh, ownPagesOnly, there } from '@/app/api/answers';
import { loadBench } from '@/data/bench/bench';
import { clipById } from '@/data/clip/clips';
import { database } from '@/data/database/database';

interface Context {
  params: Promise<{ id: string }>;
}

/** A clip and what is set on its bench: what another bench needs to stand beside it. */
export const GET = ownPagesOnly(async (_, { params }: Context) => {
  const { id } = await params;
  const db = await database();
  const [clip, bench] = await Promise.all([clipById(db, id), loadBench(db, id)]);
  return fresh({ clip: there(clip, CLIP_GONE), bench: there(bench, CLIP_GONE) });
});
