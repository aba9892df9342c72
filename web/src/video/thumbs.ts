/** Small pictures of films, one after the other, for whoever has them in sight. */
import { wrap, type Remote } from 'comlink';
import type { ThumbsWorker } from './thumbs.worker';

let worker: Remote<ThumbsWorker> | null = null;
let queue: Promise<unknown> = Promise.resolve();

function remote(): Remote<ThumbsWorker> {
  worker ??= wrap<ThumbsWorker>(
    new Worker(new URL('./thumbs.worker.ts', import.meta.url), { type: 'module' }),
  );
  return worker;
}

/**
 * @param time seconds; the middle of the film where there is none
 * @param signal for a picture nobody wants to see any more
 * @returns null where there is none to be had, or it is not wanted any more
 */
export function thumbOf(
  film: string | Blob,
  time: number | null,
  signal: AbortSignal,
): Promise<ImageBitmap | null> {
  const source = typeof film === 'string' ? new URL(film, location.href).href : film;
  const answer = queue.then(() =>
    signal.aborted
      ? null
      : remote()
          .thumb(source, time)
          .catch(() => null),
  );
  queue = answer;
  return answer;
}
