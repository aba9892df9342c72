/**
 * Sends a film so that bad Wi-Fi, a locked screen or a closed page cost no more than the piece that was on
 * its way: by the tus protocol through its own client, to the end and the hash.
 */
import { releaseProxy, wrap } from 'comlink';
import { Upload } from 'tus-js-client';
import { Problem } from '@sinew/core/foundation/problem/problem';
import { ask } from '../api/client';
import { FILM_SENT } from '../api/endpoints';
import type { HashWorker } from './hash.worker';
import { paced, type Progress } from './progress';

/** Bytes in one piece. */
const PIECE = 4 * 1024 * 1024;
/** Milliseconds before a try and the next; after the last one a person decides. */
const RETRIES = [0, 500, 1000, 2000, 4000, 8000, 15_000, 30_000];

export interface FilmSent {
  readonly id: string;
  /** The gym had this very film already. */
  readonly isKnown: boolean;
}

/**
 * @param about what is said of the film, by name; `student` among it
 * @throws Problem when the gym does not want it, or cannot be reached any more; what has come is kept
 */
export async function sendFilm(
  file: File,
  about: Readonly<Record<string, string>> & { readonly student: string },
  onProgress: (progress: Progress) => void,
  signal: AbortSignal,
): Promise<FilmSent> {
  const hash = hashOf(file);
  hash.catch(() => undefined);
  const id = await sendPieces(file, about, resumed(onProgress), signal);
  onProgress({ share: 1, left: null });
  const sent = { sha256: await hash, student: about.student };
  for (const wait of RETRIES) {
    try {
      return await ask(FILM_SENT, [id], sent, { signal });
    } catch (error) {
      // Asked again it is the same clip; anything but silence is an answer.
      if (!(error instanceof Problem) || error.code !== 'no-answer') throw error;
      await new Promise((resolve) => setTimeout(resolve, wait));
    }
  }
  return ask(FILM_SENT, [id], sent, { signal });
}

/** The time left goes by the pace of now, not by what an earlier try has sent. */
function resumed(onProgress: (progress: Progress) => void): (share: number) => void {
  let first: number | null = null;
  let advance = (_: number) => {};
  return (share) => {
    if (first === null) {
      const from = (first = Math.min(share, 0.999));
      advance = paced(({ share: part, left }) =>
        onProgress({ share: from + part * (1 - from), left }),
      );
    }
    advance((share - first) / (1 - first));
  };
}

async function hashOf(file: File): Promise<string> {
  const worker = new Worker(new URL('./hash.worker.ts', import.meta.url), { type: 'module' });
  const remote = wrap<HashWorker>(worker);
  try {
    return await remote.hashOf(file);
  } finally {
    remote[releaseProxy]();
    worker.terminate();
  }
}

/** @returns the name that the gym gave it */
function sendPieces(
  file: File,
  about: Readonly<Record<string, string>>,
  advance: (share: number) => void,
  signal: AbortSignal,
): Promise<string> {
  return new Promise((resolve, reject) => {
    const upload = new Upload(file, {
      endpoint: '/api/uploads',
      chunkSize: PIECE,
      retryDelays: RETRIES,
      metadata: { ...about, name: file.name },
      removeFingerprintOnSuccess: true,
      // The same film of another student is another upload.
      fingerprint: async () =>
        ['sinew', about.student, file.name, file.size, file.lastModified].join('/'),
      onProgress: (sent, total) => advance(total > 0 ? sent / total : 0),
      onSuccess: () => resolve(upload.url!.split('/').pop()!),
      onError: (error) => reject(told(error)),
    });
    signal.addEventListener('abort', () => {
      void upload.abort();
      reject(new DOMException('stopped', 'AbortError'));
    });
    void upload.findPreviousUploads().then(([last]) => {
      if (last) upload.resumeFromPreviousUpload(last);
      if (!signal.aborted) upload.start();
    });
  });
}

function told(error: Error): Problem {
  const { originalResponse } = error as {
    readonly originalResponse?: { getStatus(): number; getBody(): string } | null;
  };
  const status = originalResponse?.getStatus() ?? 0;
  if (status === 401) {
    return new Problem('foreign', {
      happened: 'This phone is not paired any more.',
      safe: 'What has come is kept.',
      todo: 'Pair it again, and send the clip again: it goes on where it stopped.',
    });
  }
  const body = originalResponse?.getBody().trim() ?? '';
  return status >= 400 && status < 600 && body !== '' && !body.startsWith('{')
    ? new Problem('refused', { happened: body })
    : new Problem('no-answer', {
        happened: 'The gym’s machine does not answer.',
        safe: 'What has come is kept.',
        todo: 'Come nearer, and try again: it goes on where it stopped.',
      });
}
