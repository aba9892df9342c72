/**
 * The clips' files, stored by what is in them: `clips/ab/abcdef….bin`, named by SHA-256. A file
 * appears whole or not at all: it is written under a temporary name, flushed to disk, renamed.
 */
import { Problem } from '@sinew/core/foundation/problem/problem';
import { createHash } from 'node:crypto';
import { access, type FileHandle, mkdir, open, rename, rm, stat, statfs } from 'node:fs/promises';
import { join } from 'node:path';
import { nanoid } from 'nanoid';

/** What went wrong with a file, in words for the coach, and the HTTP status that fits. */
export class ClipFileError extends Problem {
  constructor(
    happened: string,
    /** As HTTP has it. */
    readonly status: 400 | 409 | 413 | 415 | 422 | 499 | 507,
  ) {
    super('refused', { happened });
  }
}

export interface Incoming {
  /** Temporary path; the caller keeps it with `keep` or removes it with `discard`. */
  readonly path: string;
  readonly sha256: string;
  readonly bytes: number;
}

export interface ShownFilm {
  readonly path: string;
  readonly bytes: number;
  readonly isOriginal: boolean;
}

/** Space that must stay free on the disk for the rest of the machine, bytes. */
export function reserve(): number {
  return Number(process.env.SINEW_KEEP_FREE_MB ?? 200) * 1024 * 1024;
}

const DISK_FULL =
  'The disk is full: the clip was not added, and nothing else has changed. ' +
  'Free some space and add it again.';

/** Of a film that is sent, bytes at a time. */
const CHUNK = 256 * 1024;

/** Films are named by their SHA-256; nothing else may become part of a path. */
export const isFilmHash = (text: string) => /^[0-9a-f]{64}$/.test(text);

const bytesOf = (path: string): Promise<number | null> =>
  stat(path).then(
    ({ size }) => size,
    () => null,
  );

export class ClipFiles {
  private readonly incoming: string;
  private readonly kept: string;

  /** @param openFile how a file is opened for writing; tests hand in a disk that runs full */
  constructor(
    readonly folder: string,
    private readonly openFile: (
      path: string,
    ) => Promise<Pick<FileHandle, 'write' | 'sync' | 'close'>> = (path) => open(path, 'wx', 0o600),
  ) {
    this.incoming = join(folder, 'incoming');
    this.kept = join(folder, 'clips');
  }

  /**
   * Write a stream to a temporary file and hash it on the way.
   *
   * @param announced the size the sender claims, bytes, or null
   * @throws ClipFileError when the disk is or runs full, or the stream breaks off or is empty;
   *   the temporary file is gone then
   */
  async receive(stream: ReadableStream<Uint8Array>, announced: number | null): Promise<Incoming> {
    await mkdir(this.incoming, { recursive: true, mode: 0o700 });
    if (announced !== null) {
      const { bavail, bsize } = await statfs(this.incoming);
      if (bavail * bsize - announced < reserve()) throw new ClipFileError(DISK_FULL, 507);
    }
    const path = join(this.incoming, nanoid());
    const hash = createHash('sha256');
    let bytes = 0;
    try {
      const file = await this.openFile(path);
      try {
        for await (const chunk of stream) {
          hash.update(chunk);
          bytes += chunk.byteLength;
          let written = 0;
          while (written < chunk.byteLength) {
            written += (await file.write(chunk, written)).bytesWritten;
          }
        }
        await file.sync();
      } finally {
        await file.close();
      }
    } catch (error) {
      await rm(path, { force: true });
      if ((error as NodeJS.ErrnoException).code === 'ENOSPC') {
        throw new ClipFileError(DISK_FULL, 507);
      }
      throw new ClipFileError('The transfer broke off. Nothing was kept; add the clip again.', 499);
    }
    if (bytes === 0 || (announced !== null && bytes !== announced)) {
      await rm(path, { force: true });
      throw bytes === 0
        ? new ClipFileError('This file is empty: there is no film in it.', 400)
        : new ClipFileError('The transfer broke off. Nothing was kept; add the clip again.', 400);
    }
    return { path, sha256: hash.digest('hex'), bytes };
  }

  /** Move a received file to its place. The same contents twice are one file. */
  async keep({ path, sha256 }: Incoming): Promise<void> {
    const place = this.pathOf(sha256);
    await mkdir(join(place, '..'), { recursive: true, mode: 0o700 });
    await rename(path, place);
    const folder = await open(join(place, '..'));
    await folder.sync().finally(() => folder.close());
  }

  async discard({ path }: Incoming): Promise<void> {
    await rm(path, { force: true });
  }

  /** Remove a kept file; the caller has made sure that no clip uses it. */
  async remove(sha256: string): Promise<void> {
    await rm(this.pathOf(sha256), { force: true });
    await rm(this.readablePathOf(sha256), { force: true });
  }

  /** @returns bytes; null when there is no such film, or no film could be called so */
  async size(sha256: string): Promise<number | null> {
    return isFilmHash(sha256) ? bytesOf(this.pathOf(sha256)) : null;
  }

  /** Where a film lies for browsers, as they can play it; null when there is no such film. */
  async shown(sha256: string): Promise<ShownFilm | null> {
    if (!isFilmHash(sha256)) return null;
    for (const [path, isOriginal] of [
      [this.readablePathOf(sha256), false],
      [this.pathOf(sha256), true],
    ] as const) {
      const bytes = await bytesOf(path);
      if (bytes !== null) return { path, bytes, isOriginal };
    }
    return null;
  }

  /**
   * Bytes `from` to `to`, both included, read as they are asked for: whoever asks may stop at any
   * moment, as a browser does that jumps about in a film, and does not always say so. So the file is open
   * only while a piece of it is read.
   *
   * @throws when there is no such film
   */
  async read(path: string, from: number, to: number): Promise<ReadableStream<Uint8Array>> {
    await access(path);
    let at = from;
    return new ReadableStream({
      async pull(controller) {
        const piece = new Uint8Array(Math.min(CHUNK, to + 1 - at));
        const file = await open(path);
        const { bytesRead } = await file.read(piece, { position: at }).finally(() => file.close());
        at += bytesRead;
        if (bytesRead > 0) controller.enqueue(piece.subarray(0, bytesRead));
        if (bytesRead === 0 || at > to) controller.close();
      },
    });
  }

  /** Of a film that was made anew because not every browser plays it; see `readable.ts`. */
  readablePathOf(sha256: string): string {
    if (!isFilmHash(sha256)) throw new Error('not a SHA-256');
    return join(this.folder, 'readable', sha256.slice(0, 2), `${sha256}.mp4`);
  }

  pathOf(sha256: string): string {
    if (!isFilmHash(sha256)) throw new Error('not a SHA-256');
    return join(this.kept, sha256.slice(0, 2), `${sha256}.bin`);
  }
}
