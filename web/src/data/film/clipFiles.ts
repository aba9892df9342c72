/**
 * The clips' files, stored by what is in them. A film that comes in is written under a temporary name, hashed
 * on the way and flushed to disk; then the shelf takes it, whole or not at all.
 */
import { createHash } from 'node:crypto';
import { type FileHandle, mkdir, open, rm, statfs } from 'node:fs/promises';
import { join } from 'node:path';
import { nanoid } from 'nanoid';
import { ClipFileError, isFilmHash, type FilmShelf } from './filmShelf';
import { bytesAt, FolderShelf, piecesOf } from './folderShelf';

export interface Incoming {
  /** Temporary path; the caller keeps it with `keep` or removes it with `discard`. */
  readonly path: string;
  readonly sha256: string;
  readonly bytes: number;
}

export interface ShownFilm {
  readonly bytes: number;
  readonly isOriginal: boolean;
  /** Both ends included. */
  read(from: number, to: number): Promise<ReadableStream<Uint8Array>>;
}

/** Space that must stay free on the disk for the rest of the machine, bytes. */
export function reserve(): number {
  return Number(process.env.SINEW_KEEP_FREE_MB ?? 200) * 1024 * 1024;
}

const DISK_FULL =
  'The disk is full: the clip was not added, and nothing else has changed. ' +
  'Free some space and add it again.';

export class ClipFiles {
  private readonly incoming: string;

  /**
   * @param shelf where films lie once they are kept; in this very folder unless another is given
   * @param openFile how a file is opened for writing; tests hand in a disk that runs full
   */
  constructor(
    readonly folder: string,
    readonly shelf: FilmShelf = new FolderShelf(join(folder, 'clips')),
    private readonly openFile: (
      path: string,
    ) => Promise<Pick<FileHandle, 'write' | 'sync' | 'close'>> = (path) => open(path, 'wx', 0o600),
  ) {
    this.incoming = join(folder, 'incoming');
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

  /** Move a received file to its place. The same contents twice are one file. @throws ClipFileError */
  keep({ path, sha256 }: Incoming): Promise<void> {
    return this.shelf.put(path, sha256);
  }

  async discard({ path }: Incoming): Promise<void> {
    await rm(path, { force: true });
  }

  /** Remove a kept film; the caller has made sure that no clip uses it. */
  async remove(sha256: string): Promise<void> {
    await this.shelf.remove(sha256);
    await rm(this.readablePathOf(sha256), { force: true });
  }

  /** @returns bytes; null when there is no such film, or no film could be called so */
  size(sha256: string): Promise<number | null> {
    return this.shelf.size(sha256);
  }

  /** A film for browsers, as they can play it; null when there is no such film. */
  async shown(sha256: string): Promise<ShownFilm | null> {
    if (!isFilmHash(sha256)) return null;
    const path = this.readablePathOf(sha256);
    const readable = await bytesAt(path);
    if (readable !== null) {
      const read = (from: number, to: number) => piecesOf(path, from, to);
      return { bytes: readable, isOriginal: false, read };
    }
    const bytes = await this.shelf.size(sha256);
    if (bytes === null) return null;
    return { bytes, isOriginal: true, read: (from, to) => this.shelf.read(sha256, from, to) };
  }

  /**
   * Work with a film as a file of this machine.
   *
   * @throws when there is no such film, and whatever the work throws
   */
  async withFile<Value>(sha256: string, work: (path: string) => Promise<Value>): Promise<Value> {
    const path = this.shelf.pathOf(sha256);
    if (path !== null) return work(path);
    const size = await this.shelf.size(sha256);
    if (size === null) throw new Error('there is no such film');
    const film = await this.receive(await this.shelf.read(sha256, 0, size - 1), size);
    try {
      return await work(film.path);
    } finally {
      await this.discard(film);
    }
  }

  /** Of a film that was made anew because not every browser plays it; see `readable.ts`. */
  readablePathOf(sha256: string): string {
    if (!isFilmHash(sha256)) throw new Error('not a SHA-256');
    return join(this.folder, 'readable', sha256.slice(0, 2), `${sha256}.mp4`);
  }
}
