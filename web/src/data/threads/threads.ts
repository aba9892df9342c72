/**
 * Work that would keep everybody waiting – judging, taking a gym out or in, copying the database – on
 * threads of its own. Each has its own connection, which only reads; what is to be kept comes back.
 */
import { SHARE_ENV, Worker } from 'node:worker_threads';
import PQueue from 'p-queue';
import { Problem } from '@sinew/core/foundation/problem/problem';
import type { Answer, Chores, Questions, Task } from './work.worker';

/** A second one answers pages while the first is at something long. */
const THREADS = 2;
/** Questions that take as long as chores do; at most one of either is at work, so that pages go on. */
const LONG: ReadonlySet<keyof Questions> = new Set(['setsToKeep', 'toKeep', 'writeTables']);

interface Pool {
  readonly queue: PQueue;
  readonly long: PQueue;
  readonly idle: Worker[];
  readonly busy: Set<Worker>;
}

const shared = globalThis as { sinewThreads?: Pool };
const pool = (shared.sinewThreads ??= {
  queue: new PQueue({ concurrency: THREADS }),
  long: new PQueue({ concurrency: 1 }),
  idle: [],
  busy: new Set<Worker>(),
});

export type Rest<F> = F extends (db: never, ...given: infer Given) => unknown ? Given : never;
export type Told<F> = F extends (...given: never[]) => infer Value ? Awaited<Value> : never;

/** Ask something of the database in a folder, which is open. */
export function askIn<Name extends keyof Questions>(
  folder: string,
  name: Name,
  ...given: Rest<Questions[Name]>
): Promise<Told<Questions[Name]>> {
  const task = { kind: 'question', name, folder, given } as const;
  return LONG.has(name) ? pool.long.add(() => inThread(task)) : inThread(task);
}

/** Have something done for which the gym's database is not asked. */
export function have<Name extends keyof Chores>(
  name: Name,
  ...given: Parameters<Chores[Name]>
): Promise<Told<Chores[Name]>> {
  return pool.long.add(() => inThread({ kind: 'chore', name, given }));
}

function inThread<Value>(task: Task): Promise<Value> {
  return pool.queue.add(async () => {
    const worker = pool.idle.pop() ?? begin();
    pool.busy.add(worker);
    try {
      const value = await answered(worker, task);
      pool.idle.push(worker);
      return value as Value;
    } catch (error) {
      // One that has answered with a problem is as good as before.
      if (error instanceof Problem && worker.threadId > 0) pool.idle.push(worker);
      throw error;
    } finally {
      pool.busy.delete(worker);
      worker.unref();
    }
  });
}

function begin(): Worker {
  const worker = new Worker(new URL('./work.worker.ts', import.meta.url), { env: SHARE_ENV });
  worker.once('exit', () => {
    const at = pool.idle.indexOf(worker);
    if (at >= 0) pool.idle.splice(at, 1);
  });
  // What goes wrong while nobody waits for it ends the thread, and the next task begins another.
  worker.on('error', () => {});
  return worker;
}

function answered(worker: Worker, task: Task): Promise<unknown> {
  worker.ref();
  return new Promise((resolve, reject) => {
    const over = (end: () => void) => {
      worker.off('message', told).off('error', failed).off('exit', ended);
      end();
    };
    const told = (answer: Answer) =>
      over(() => {
        if ('problem' in answer) reject(new Problem(answer.problem.code, answer.problem));
        else resolve(answer.value);
      });
    const failed = (error: unknown) => over(() => reject(error));
    const ended = () =>
      over(() =>
        reject(
          new Problem('busy', {
            happened: 'This was stopped half-way.',
            safe: 'Nothing of it was kept.',
            todo: 'Try again.',
          }),
        ),
      );
    worker.on('message', told).on('error', failed).on('exit', ended);
    worker.postMessage(task);
  });
}

/** End all threads, so that none holds the database any longer; what they were at fails as `busy`. */
export async function endThreads(): Promise<void> {
  await Promise.all([...pool.busy, ...pool.idle].map((worker) => worker.terminate()));
}
