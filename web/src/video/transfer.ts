/** Sends a file to the server with progress; the way back from a broken one is to send it again. */
import { paced, type Progress } from './progress';
import { z } from 'zod';
import { problemIn } from '../api/client';

type TransferResult =
  | { readonly kind: 'added'; readonly id: string; readonly isKnown: boolean }
  | { readonly kind: 'refused'; readonly message: string }
  | { readonly kind: 'cancelled' };

export interface Transfer {
  readonly done: Promise<TransferResult>;
  cancel(): void;
}

export interface ClipAbout {
  readonly student: string;
  readonly view: string;
  readonly azimuth?: number;
  /** Frames a second at which it was shot; null when it plays at true speed. */
  readonly rate: number | null;
  readonly purpose?: { readonly technique: string; readonly question: string | null };
  readonly intent?: string;
  readonly round?: number;
  /** With which model the body is to be found in it; not at all when missing. */
  readonly track?: string;
}

export function transfer(
  file: File,
  about: ClipAbout,
  onProgress: (progress: Progress) => void,
): Transfer {
  const query = new URLSearchParams({ student: about.student, name: file.name, view: about.view });
  if (about.azimuth !== undefined) query.set('azimuth', String(about.azimuth));
  if (about.rate !== null) query.set('rate', String(about.rate));
  if (about.purpose) query.set('technique', about.purpose.technique);
  if (about.purpose?.question) query.set('question', about.purpose.question);
  if (about.intent) query.set('intent', about.intent);
  if (about.round) query.set('round', String(about.round));
  if (about.track) query.set('track', about.track);
  const request = new XMLHttpRequest();
  const advance = paced(onProgress);
  const done = new Promise<TransferResult>((resolve) => {
    request.upload.onprogress = ({ loaded, total }) => {
      advance(total > 0 ? loaded / total : 0);
    };
    request.onload = () => {
      const answer = parsed(request.responseText);
      const added = addedSchema.safeParse(answer);
      resolve(
        request.status < 300 && added.success
          ? { kind: 'added', ...added.data }
          : { kind: 'refused', message: problemIn(answer).message },
      );
    };
    request.onerror = () =>
      resolve({
        kind: 'refused',
        message:
          'The connection broke off. Nothing was kept; is Sinew still running? Add the clip again.',
      });
    request.onabort = () => resolve({ kind: 'cancelled' });
  });
  request.open('POST', `/api/clips?${query}`);
  request.setRequestHeader('content-type', 'application/octet-stream');
  request.send(file);
  return { done, cancel: () => request.abort() };
}

const addedSchema = z.object({ id: z.string(), isKnown: z.boolean().default(false) });

function parsed(text: string): unknown {
  try {
    return JSON.parse(text) as unknown;
  } catch {
    return null;
  }
}
