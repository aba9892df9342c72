/**
 * Where kept films lie, each under the SHA-256 of what is in it: behind this one door is a folder of this
 * machine, or a store of the organisation's that several machines share.
 */
import { Problem } from '@sinew/core/foundation/problem/problem';

export interface ShelvedFilm {
  readonly sha256: string;
  readonly bytes: number;
  /** When it was put there. */
  readonly at: Date;
}

export interface FilmShelf {
  /**
   * Takes in a whole file whose hash has been worked out, and uses it up. It is there whole or not at all; the
   * same film twice is one.
   *
   * @throws ClipFileError when it cannot be kept; the file is where it was then
   */
  put(path: string, sha256: string): Promise<void>;

  /** Gives a film back as a file, and has it no longer. @throws when it is not there */
  takeOut(sha256: string, path: string): Promise<void>;

  /** @returns bytes; null when there is no such film. @throws when nobody can tell */
  size(sha256: string): Promise<number | null>;

  /**
   * Bytes `from` to `to`, both included, fetched as they are asked for: whoever asks may stop at any moment,
   * as a browser does that jumps about in a film, and does not always say so. So nothing stays open between
   * two pieces.
   *
   * @throws when there is no such film
   */
  read(sha256: string, from: number, to: number): Promise<ReadableStream<Uint8Array>>;

  /** The caller has made sure that no clip uses it. */
  remove(sha256: string): Promise<void>;

  list(): AsyncIterable<ShelvedFilm>;

  /** Where a film lies on a disk of this machine; null for a shelf that is elsewhere. */
  pathOf(sha256: string): string | null;
}

/** What went wrong with a file, in words for the coach, and the HTTP status that fits. */
export class ClipFileError extends Problem {
  constructor(
    happened: string,
    /** As HTTP has it. */
    readonly status: 400 | 409 | 413 | 415 | 422 | 499 | 503 | 507,
  ) {
    super('refused', { happened });
  }
}

/** Silence of a store elsewhere: nobody can tell what is there. */
export const isUnanswered = (error: unknown): boolean =>
  error instanceof ClipFileError && error.status === 503;

/** Films are named by their SHA-256; nothing else may become part of a path or of a key. */
export const isFilmHash = (text: string) => /^[0-9a-f]{64}$/.test(text);

/** "ab/abcd….bin": no folder holds too many. */
export function shelfPlace(sha256: string): string {
  if (!isFilmHash(sha256)) throw new Error('not a SHA-256');
  return `${sha256.slice(0, 2)}/${sha256}.bin`;
}

/** The film's hash of such a place; null for whatever else lies there. */
export const filmAt = (place: string): string | null =>
  /(?:^|\/)([0-9a-f]{64})\.bin$/.exec(place)?.[1] ?? null;

/** Pieces fetched one by one, as somebody asks for them. */
export function inPieces(
  from: number,
  to: number,
  size: number,
  fetch: (from: number, to: number) => Promise<Uint8Array>,
): ReadableStream<Uint8Array> {
  let at = from;
  return new ReadableStream({
    async pull(controller) {
      const piece = await fetch(at, Math.min(to, at + size - 1));
      at += piece.byteLength;
      if (piece.byteLength > 0) controller.enqueue(piece);
      if (piece.byteLength === 0 || at > to) controller.close();
    },
  });
}
