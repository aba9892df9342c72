import { ownPagesOnly } from '@/app/api/local';
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
  return clip && bench
    ? Response.json({ clip, bench }, { headers: { 'cache-control': 'no-store' } })
    : Response.json({ message: 'This clip has been deleted.' }, { status: 404 });
});
