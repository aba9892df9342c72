import { ask } from '@/api/client';
import { BENCH } from '@/api/endpoints';
import { documentOf, type BenchStore } from './benchStore';

/**
 * Takes over what is on disk: the browser's Back may bring a page up from memory as it was before the
 * last changes, and strikes are taken from a finished body search on the server. What waits here to be
 * saved goes first.
 */
export async function adoptNewest(store: BenchStore): Promise<void> {
  await store.getState().flush();
  const { clip, adopt } = store.getState();
  const saved = await ask(BENCH, [clip.id]).catch(() => null);
  if (!saved) return;
  const hadNone = documentOf(store.getState()).strikes.length === 0;
  adopt(saved);
  const { frame, goTo } = store.getState();
  const [first] = documentOf(store.getState()).strikes;
  // The first strikes of a clip nobody has looked into: to where the first one lands.
  if (hadNone && first?.marks.contact && frame === 0) goTo(first.marks.contact.frame);
}
