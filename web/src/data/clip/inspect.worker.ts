/** A thread that looks into one film file, so that a file that never ends stops nobody else. */
import { open } from 'node:fs/promises';
import { parentPort } from 'node:worker_threads';
import { FilePathSource } from 'mediabunny';
import { inspectFilm, UnusableFilm, type Film } from '../../video/inspect';

/** What is asked, and what is answered; `message` is for the coach. */
export interface InspectionTask {
  readonly path: string;
  readonly bytes: number;
}
export type InspectionAnswer = { readonly film: Film } | { readonly message: string };

async function inspect({ path, bytes }: InspectionTask): Promise<InspectionAnswer> {
  const file = await open(path);
  const read = async (from: number, to: number) => {
    const { buffer, bytesRead } = await file.read(new Uint8Array(to - from), 0, to - from, from);
    return buffer.subarray(0, bytesRead);
  };
  try {
    return { film: await inspectFilm({ source: new FilePathSource(path), read, size: bytes }) };
  } catch (error) {
    if (error instanceof UnusableFilm) return { message: error.message };
    throw error;
  } finally {
    await file.close();
  }
}

parentPort!.on('message', (task: InspectionTask) => {
  void inspect(task).then((answer) => parentPort!.postMessage(answer));
});

// Said once, when the thread can be asked: what it takes to begin is no fault of a film.
parentPort!.postMessage('ready');
