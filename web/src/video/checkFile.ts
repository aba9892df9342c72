/** A chosen file looked into off the main thread, for a limited time. */
import { releaseProxy, wrap } from 'comlink';
import type { CheckWorker, FileCheck } from './check.worker';
import { inspectionLimit, TOO_LONG } from './inspectionLimit';

/** Decoding two frames may wait for a slow machine, milliseconds. */
const DECODING = 20_000;

export async function checkFile(file: File): Promise<FileCheck> {
  const worker = new Worker(new URL('./check.worker.ts', import.meta.url), { type: 'module' });
  const remote = wrap<CheckWorker>(worker);
  try {
    const film = await within(inspectionLimit(file.size), remote.inspect(file));
    return film.ok ? await within(DECODING, remote.decode(file, film)) : film;
  } finally {
    remote[releaseProxy]();
    worker.terminate();
  }
}

async function within(limit: number, work: Promise<FileCheck>): Promise<FileCheck> {
  let timer: ReturnType<typeof setTimeout> | undefined;
  const over = new Promise<FileCheck>((resolve) => {
    timer = setTimeout(() => resolve({ ok: false, message: TOO_LONG }), limit);
  });
  return Promise.race([work, over]).finally(() => clearTimeout(timer));
}
