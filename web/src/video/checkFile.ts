/** A chosen file looked into off the main thread. */
import { releaseProxy, wrap } from 'comlink';
import type { CheckWorker, FileCheck } from './check.worker';

export async function checkFile(file: File): Promise<FileCheck> {
  const worker = new Worker(new URL('./check.worker.ts', import.meta.url), { type: 'module' });
  const remote = wrap<CheckWorker>(worker);
  try {
    return await remote.check(file);
  } finally {
    remote[releaseProxy]();
    worker.terminate();
  }
}
