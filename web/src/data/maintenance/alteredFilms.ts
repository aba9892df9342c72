/** Reads films and holds them against the hashes by which they are named. Runs on a thread. */
import { createHash } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { pipeline } from 'node:stream/promises';

export interface NamedFilm {
  readonly path: string;
  readonly sha256: string;
}

async function isAltered({ path, sha256 }: NamedFilm): Promise<boolean> {
  const hash = createHash('sha256');
  try {
    await pipeline(createReadStream(path, { highWaterMark: 1 << 20 }), hash);
  } catch (error) {
    // One that has gone meanwhile is missing, not altered.
    return (error as NodeJS.ErrnoException).code !== 'ENOENT';
  }
  return hash.digest('hex') !== sha256;
}

/** @returns the hashes of those that are not as they were */
export async function alteredFilms(films: readonly NamedFilm[]): Promise<string[]> {
  const found: string[] = [];
  for (const film of films) if (await isAltered(film)) found.push(film.sha256);
  return found;
}
