/** Films in a folder of this machine: `clips/ab/abcdef….bin`. */
import { access, mkdir, open, readdir, rename, rm, stat } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import {
  filmAt,
  inPieces,
  isFilmHash,
  shelfPlace,
  type FilmShelf,
  type ShelvedFilm,
} from './filmShelf';

/** Bytes of a film that are read at a time. */
const PIECE = 256 * 1024;

export class FolderShelf implements FilmShelf {
  constructor(private readonly folder: string) {}

  async put(path: string, sha256: string): Promise<void> {
    const place = this.pathOf(sha256);
    await mkdir(dirname(place), { recursive: true, mode: 0o700 });
    await rename(path, place);
    const folder = await open(dirname(place));
    await folder.sync().finally(() => folder.close());
  }

  async takeOut(sha256: string, path: string): Promise<void> {
    await rename(this.pathOf(sha256), path);
  }

  async size(sha256: string): Promise<number | null> {
    return isFilmHash(sha256) ? bytesAt(this.pathOf(sha256)) : null;
  }

  async read(sha256: string, from: number, to: number): Promise<ReadableStream<Uint8Array>> {
    return piecesOf(this.pathOf(sha256), from, to);
  }

  async remove(sha256: string): Promise<void> {
    await rm(this.pathOf(sha256), { force: true });
  }

  async *list(): AsyncIterable<ShelvedFilm> {
    for (const shelf of await readdir(this.folder).catch(() => [])) {
      for (const name of await readdir(join(this.folder, shelf)).catch(() => [])) {
        const sha256 = filmAt(name);
        if (sha256 === null) continue;
        const found = await stat(join(this.folder, shelf, name)).catch(() => null);
        if (found) yield { sha256, bytes: found.size, at: found.mtime };
      }
    }
  }

  pathOf(sha256: string): string {
    return join(this.folder, shelfPlace(sha256));
  }
}

/** @returns null when nothing is there */
export const bytesAt = (path: string): Promise<number | null> =>
  stat(path).then(
    ({ size }) => size,
    () => null,
  );

/**
 * Bytes of any file, both ends included; it is open only while a piece of it is read.
 *
 * @throws when it is not there
 */
export async function piecesOf(
  path: string,
  from: number,
  to: number,
): Promise<ReadableStream<Uint8Array>> {
  await access(path);
  return inPieces(from, to, PIECE, (first, last) => pieceOf(path, first, last));
}

/** @returns fewer bytes where the file ends before. @throws when it is not there */
export async function pieceOf(path: string, first: number, last: number): Promise<Uint8Array> {
  const piece = new Uint8Array(last + 1 - first);
  const file = await open(path);
  const { bytesRead } = await file.read(piece, { position: first }).finally(() => file.close());
  return piece.subarray(0, bytesRead);
}
