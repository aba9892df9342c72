/** A film file looked into on a thread of its own, for a limited time and in limited memory. */
import { Worker } from 'node:worker_threads';
import { UnusableFilm, type Film } from '../video/inspect';
import { inspectionLimit, TOO_LONG } from '../video/inspectionLimit';
import type { InspectionAnswer, InspectionTask } from './inspect.worker';

/** A list of the most frames a film may have takes a third of this, megabytes. */
const MEMORY = 1024;

/**
 * @param limit milliseconds after which the file is given up
 * @throws UnusableFilm with a message for the coach
 */
export function inspectFile(
  task: InspectionTask,
  limit = inspectionLimit(task.bytes),
): Promise<Film> {
  const worker = new Worker(new URL('./inspect.worker.ts', import.meta.url), {
    resourceLimits: { maxOldGenerationSizeMb: MEMORY },
  });
  return new Promise<Film>((resolve, reject) => {
    const giveUp = setTimeout(() => reject(new UnusableFilm(TOO_LONG)), limit);
    worker.once('message', (answer: InspectionAnswer) => {
      if ('film' in answer) resolve(answer.film);
      else reject(new UnusableFilm(answer.message));
    });
    worker.once('error', (error: NodeJS.ErrnoException) => {
      // The file asks for more than any film needs; anything else is no fault of the film.
      const isFilm = error.code === 'ERR_WORKER_OUT_OF_MEMORY';
      reject(isFilm ? new UnusableFilm(TOO_LONG, { cause: error }) : error);
    });
    worker.once('exit', () => {
      clearTimeout(giveUp);
      reject(new Error('The thread that looks into films ended without an answer.'));
    });
    worker.postMessage(task);
  }).finally(() => worker.terminate());
}
