/**
 * The main thread's side of the decoder. It is told which frame is wanted; while one is on its way,
 * only the latest wish is kept, so that scrubbing never runs behind the hand.
 */
import { wrap, type Remote } from 'comlink';
import type { Picture } from './frameSource';
import type { FramesWorker } from './frames.worker';

const AHEAD = 6;

export class FilmReader {
  private readonly worker: Worker;
  private readonly remote: Remote<FramesWorker>;
  private wanted: number | null = null;
  private isBusy = false;
  private last = 0;

  /**
   * @param onPicture called with each picture and its number; the picture is closed afterwards
   * @param onError called with a message for the coach
   */
  constructor(
    private readonly onPicture: (picture: Picture, index: number) => void,
    private readonly onError: (message: string) => void,
  ) {
    this.worker = new Worker(new URL('./frames.worker.ts', import.meta.url), { type: 'module' });
    this.remote = wrap<FramesWorker>(this.worker);
  }

  /**
   * @param film a clip's address, or a file that is none yet
   * @param keptBytes how much of the decoded film is kept for going back
   * @returns the presentation times of the film's frames, seconds
   */
  open(film: string | Blob, keptBytes?: number): Promise<readonly number[]> {
    const from = typeof film === 'string' ? new URL(film, location.href).href : film;
    return this.remote.open(from, keptBytes);
  }

  want(index: number): void {
    this.wanted = index;
    if (!this.isBusy) void this.serve();
  }

  close(): void {
    this.worker.terminate();
  }

  private async serve(): Promise<void> {
    this.isBusy = true;
    try {
      while (this.wanted !== null) {
        const index = this.wanted;
        this.wanted = null;
        const picture = await this.remote.frame(index);
        this.onPicture(picture, index);
        picture.close();
        this.prefetchFrom(index);
      }
    } catch (error) {
      this.onError(error instanceof Error ? error.message : String(error));
    } finally {
      this.isBusy = false;
    }
  }

  /** Keep a little ahead of the way the coach is stepping. */
  private prefetchFrom(index: number): void {
    const direction = index < this.last ? -1 : 1;
    this.last = index;
    if (this.wanted === null)
      void this.remote.prefetch(index + direction * AHEAD).catch(() => undefined);
  }
}
