/** The main thread's side of a review that is being made. */
import { proxy, transfer, wrap } from 'comlink';
import type { Piece, ReviewOrder } from './plan';
import type { ReviewWorker } from './review.worker';

export interface ReviewFilm {
  readonly film: Blob;
  /** What is said in it, and when. */
  readonly pieces: readonly Piece[];
}

export interface Making {
  /** Null when it was stopped. @throws Error in words for the coach */
  readonly review: Promise<ReviewFilm | null>;
  readonly stop: () => void;
}

/** What a review is made of. */
export interface ReviewSource {
  readonly address: string;
  /** Pixels. */
  readonly width: number;
  readonly height: number;
  readonly captureRate: number | null;
  /** What shows it, over the whole picture; null for nothing. */
  readonly drawn: ImageBitmap | null;
}

export function makeReview(
  { address, width, height, captureRate, drawn }: ReviewSource,
  order: Omit<ReviewOrder, 'times'>,
  onProgress: (share: number) => void,
): Making {
  const worker = new Worker(new URL('./review.worker.ts', import.meta.url), { type: 'module' });
  const remote = wrap<ReviewWorker>(worker);
  const review = remote
    .make(
      new URL(address, location.href).href,
      { width, height },
      order,
      captureRate,
      drawn && transfer(drawn, [drawn]),
      proxy(onProgress),
    )
    .then(
      (made) =>
        made && { film: new Blob([made.bytes], { type: 'video/mp4' }), pieces: made.pieces },
    )
    .finally(() => worker.terminate());
  return { review, stop: () => void remote.stop() };
}
