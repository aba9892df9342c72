/** Looks into damaged films for `damagedFilms.test.ts`, one after the other, until it is ended. */
import { parentPort } from 'node:worker_threads';
import { BufferSource } from 'mediabunny';
import { inspectFilm, UnusableFilm } from '../src/video/inspect';

/** `message` of a refusal; `crash` of anything that is none. */
export type Outcome =
  | { readonly frameTimes: readonly number[] }
  | { readonly message: string }
  | { readonly crash: string };

// The reader warns of what it finds on its way.
Object.assign(console, { warn: () => {}, error: () => {} });

async function outcome(bytes: Uint8Array): Promise<Outcome> {
  try {
    const read = async (from: number, to: number) => bytes.slice(from, to);
    const source = new BufferSource(bytes as Uint8Array<ArrayBuffer>);
    const { frameTimes } = await inspectFilm({ source, read, size: bytes.length });
    return { frameTimes };
  } catch (error) {
    if (error instanceof UnusableFilm) return { message: error.message };
    return { crash: String(error instanceof Error ? error.stack : error) };
  }
}

parentPort!.on('message', (bytes: Uint8Array) => {
  void outcome(bytes).then((answer) => parentPort!.postMessage(answer));
});
