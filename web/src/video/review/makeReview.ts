/** The main thread's side of a review that is being made. */
import { proxy, transfer, wrap } from 'comlink';
import type { Shapes } from './drawReview';
import type { ReviewOrder } from './plan';
import type { ReviewWorker } from './review.worker';

export interface Making {
  /** The film; null when it was stopped. @throws Error in words for the coach */
  readonly film: Promise<Blob | null>;
  readonly stop: () => void;
}

export function makeReview(
  address: string,
  size: { readonly width: number; readonly height: number },
  order: ReviewOrder,
  shapes: Shapes,
  onProgress: (share: number) => void,
): Making {
  const worker = new Worker(new URL('./review.worker.ts', import.meta.url), { type: 'module' });
  const remote = wrap<ReviewWorker>(worker);
  const sent = shapes.drawn ? transfer(shapes, [shapes.drawn]) : shapes;
  const film = remote
    .make(new URL(address, location.href).href, size, order, sent, proxy(onProgress))
    .then((bytes) => bytes && new Blob([bytes], { type: 'video/mp4' }))
    .finally(() => worker.terminate());
  return { film, stop: () => void remote.stop() };
}
