'use client';

import { toast } from 'sonner';
import { ask } from '@/api/client';
import { BENCH } from '@/api/endpoints';
import { useNews } from '@/ui/newsLine';
import { useBenchStore } from './benchStore';

/** What another coach saves in this clip is taken over at once, while nothing waits to be saved here. */
export function Others() {
  const store = useBenchStore();
  useNews((news) => {
    const { clip, hasUnsaved } = store.getState();
    if (news.kind !== 'bench' || news.clipId !== clip.id || hasUnsaved()) return;
    void ask(BENCH, [clip.id])
      .then((newest) => {
        // One's own comes back too, and is known.
        if (store.getState().adopt(newest)) toast(`${news.by} has changed this clip.`);
      })
      .catch(() => undefined);
  });
  return null;
}
