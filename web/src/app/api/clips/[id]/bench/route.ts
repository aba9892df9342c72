import { Problem } from '@sinew/core/foundation/problem/problem';
import { bodyOf, CLIP_GONE, fresh, ownPagesOnly, there } from '@/app/api/answers';
import { SAVE_BENCH } from '@/api/endpoints';
import { loadBench, saveBench } from '@/data/bench/bench';
import { database } from '@/data/database/database';
import { measureClipLater } from '@/data/finding/measureLater';

interface Context {
  params: Promise<{ id: string }>;
}

/** What is set on the bench, as it is on disk. */
export const GET = ownPagesOnly(async (_, { params }: Context) =>
  fresh(there(await loadBench(await database(), (await params).id), CLIP_GONE)),
);

/** Save what the coach has set on the bench. */
export const PUT = ownPagesOnly(async (request, { params }: Context) => {
  const wanted = await bodyOf(request, SAVE_BENCH.sends, {
    happened: 'The marks could not be read, so they were not saved.',
    safe: 'What was saved before is safe.',
    todo: 'Reload the page.',
  });
  const [db, { id }] = await Promise.all([database(), params]);
  const outcome = await saveBench(db, id, wanted);
  if (outcome.kind === 'gone') throw new Problem('gone', CLIP_GONE);
  if (outcome.kind === 'conflict') {
    throw new Problem('conflict', {
      happened: 'This clip was changed in another tab; your last change here was not saved.',
      todo: 'Reload to see the other tab’s work.',
    });
  }
  await measureClipLater(id);
  return Response.json({ revision: outcome.revision });
});
