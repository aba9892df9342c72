import { Problem } from '@sinew/core/foundation/problem/problem';
import { bodyOf, CLIP_GONE, fresh, there } from '@/app/api/answers';
import { SAVE_BENCH } from '@/api/endpoints';
import { deeds, noteDeed } from '@/data/access/deeds';
import { loadBench, saveBench } from '@/data/bench/bench';
import { measureClipLater } from '@/data/finding/measureLater';
import { announce } from '@/data/news/news';
import { ofClip } from '../ofClip';

/** What is set on the bench, as it is on disk. */
export const GET = ofClip(async (_, { db, clip }) => {
  const bench = there(await loadBench(db, clip.id), CLIP_GONE);
  const last = (await deeds(db, 1, clip.id, 'marked'))[0];
  return fresh({ ...bench, saved: last ? { by: last.by, at: last.at } : null });
});

/** Save what the coach has set on the bench. */
export const PUT = ofClip(async (request, { db, clip: { id }, asker }) => {
  const wanted = await bodyOf(request, SAVE_BENCH.sends, {
    happened: 'The marks could not be read, so they were not saved.',
    safe: 'What was saved before is safe.',
    todo: 'Reload the page.',
  });
  const outcome = await saveBench(db, id, wanted);
  if (outcome.kind === 'gone') throw new Problem('gone', CLIP_GONE);
  if (outcome.kind === 'conflict') {
    throw new Problem('conflict', {
      happened: 'This clip has been changed meanwhile; your last change here was not saved.',
      todo: 'Reload to see what is there now.',
    });
  }
  await noteDeed(db, asker.name, 'marked', { clipId: id });
  announce({ kind: 'bench', clipId: id, by: asker.name });
  await measureClipLater(id);
  return Response.json({ revision: outcome.revision });
});
