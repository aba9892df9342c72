/** A film file looked into on a thread of its own, for a limited time and in limited memory. */
import { Worker } from 'node:worker_threads';
import { UnusableFilm, type Film } from '../../video/inspect';
import { inspectionLimit, TOO_LONG } from '../../video/inspectionLimit';
import type { InspectionAnswer, InspectionTask } from './inspect.worker';

/** A list of the most frames a film may have takes a third of this, megabytes. */
const MEMORY = 1024;

/** The thread that has answered last and waits; it does not keep the server from ending. */
let idle: Worker | null = null;

/** @returns a thread that can be asked */
function start(): Promise<Worker> {
  const worker = new Worker(new URL('./inspect.worker.ts', import.meta.url), {
    resourceLimits: { maxOldGenerationSizeMb: MEMORY },
  });
  worker.unref();
  // One that ends while nobody waits for it is simply not used again.
  worker
    .on('error', () => {})
    .on('exit', () => {
      if (idle === worker) idle = null;
    });
  return new Promise((resolve, reject) => {
    worker
      .once('message', () => resolve(worker))
      .once('error', reject)
      .once('exit', () => reject(new Error('The thread that looks into films did not begin.')));
  });
}

/**
 * @param limit milliseconds after which the file is given up
 * @throws UnusableFilm with a message for the coach
 */
export async function inspectFile(
  task: InspectionTask,
  limit = inspectionLimit(task.bytes),
): Promise<Film> {
  const waiting = idle;
  idle = null;
  const worker = waiting ?? (await start());
  try {
    const answer = await asked(worker, task, limit);
    idle ??= worker;
    if (idle !== worker) void worker.terminate();
    if ('film' in answer) return answer.film;
    throw new UnusableFilm(answer.message);
  } catch (error) {
    if (idle !== worker) void worker.terminate();
    throw error;
  }
}

function asked(worker: Worker, task: InspectionTask, limit: number): Promise<InspectionAnswer> {
  return new Promise((resolve, reject) => {
    const over = (end: () => void) => {
      clearTimeout(giveUp);
      worker.off('message', answered).off('error', failed).off('exit', ended);
      end();
    };
    const answered = (answer: InspectionAnswer) => over(() => resolve(answer));
    const failed = (error: NodeJS.ErrnoException) => {
      // The file asks for more than any film needs; anything else is no fault of the film.
      const isFilm = error.code === 'ERR_WORKER_OUT_OF_MEMORY';
      over(() => reject(isFilm ? new UnusableFilm(TOO_LONG, { cause: error }) : error));
    };
    const ended = () =>
      over(() => reject(new Error('The thread that looks into films ended without an answer.')));
    const giveUp = setTimeout(() => over(() => reject(new UnusableFilm(TOO_LONG))), limit);
    worker.on('message', answered).on('error', failed).on('exit', ended);
    worker.postMessage(task);
  });
}
