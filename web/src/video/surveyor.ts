/** The main thread's side of a film's survey. */
import { proxy, releaseProxy, wrap } from 'comlink';
import { paced, type Progress } from './progress';
import type { Survey } from '@sinew/core/observe/take/survey';
import type { SurveyWorker } from './survey.worker';

export interface Surveying {
  /** The survey; null when it was cancelled. Rejects with a message for the coach. */
  readonly done: Promise<Survey | null>;
  cancel(): void;
}

/**
 * @param film a file, or the address of a clip
 * @param count how many frames it has
 */
export function survey(
  film: File | string,
  count: number,
  onProgress: (progress: Progress) => void,
): Surveying {
  const worker = new Worker(new URL('./survey.worker.ts', import.meta.url), { type: 'module' });
  const remote = wrap<SurveyWorker>(worker);
  let isOver = false;
  let cancel = () => {};
  const cancelled = new Promise<null>((resolve) => {
    cancel = () => {
      isOver = true;
      resolve(null);
    };
  });
  const address = typeof film === 'string' ? new URL(film, location.href).href : film;
  // Messages that were on their way when it ended say nothing any more.
  const advance = paced((progress) => {
    if (!isOver) onProgress(progress);
  });
  const surveyed = remote.survey(address, count, proxy(advance));
  const done = Promise.race([surveyed, cancelled]).finally(() => {
    isOver = true;
    remote[releaseProxy]();
    worker.terminate();
  });
  return { done, cancel };
}
