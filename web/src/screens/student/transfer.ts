/** Sends a file to the server with progress; the way back from a broken one is to send it again. */
export interface Progress {
  /** 0 to 1. */
  readonly share: number;
  /** Seconds, or null while there is nothing to tell from. */
  readonly left: number | null;
}

type TransferResult =
  | { readonly kind: 'added'; readonly id: string; readonly isKnown: boolean }
  | { readonly kind: 'refused'; readonly message: string }
  | { readonly kind: 'cancelled' };

export interface Transfer {
  readonly done: Promise<TransferResult>;
  cancel(): void;
}

export function transfer(
  file: File,
  about: { student: string; view: string; rate: number | null },
  onProgress: (progress: Progress) => void,
): Transfer {
  const query = new URLSearchParams({ student: about.student, name: file.name, view: about.view });
  if (about.rate !== null) query.set('rate', String(about.rate));
  const request = new XMLHttpRequest();
  const started = performance.now();
  const done = new Promise<TransferResult>((resolve) => {
    request.upload.onprogress = ({ loaded, total }) => {
      const share = total > 0 ? loaded / total : 0;
      const spent = (performance.now() - started) / 1000;
      onProgress({ share, left: share > 0.02 ? (spent / share) * (1 - share) : null });
    };
    request.onload = () => {
      const answer = parsed(request.responseText);
      resolve(
        request.status < 300 && answer.id !== undefined
          ? { kind: 'added', id: answer.id, isKnown: answer.isKnown ?? false }
          : {
              kind: 'refused',
              message:
                answer.message ??
                'The server could not take the clip. Nothing was kept; add it again.',
            },
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

function parsed(text: string): { id?: string; isKnown?: boolean; message?: string } {
  try {
    return JSON.parse(text) as { id?: string; isKnown?: boolean; message?: string };
  } catch {
    return {};
  }
}
