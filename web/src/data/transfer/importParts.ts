/** The parts of taking a gym's file over that take long. They run on a thread. */
import { createWriteStream } from 'node:fs';
import { stat } from 'node:fs/promises';
import { encodeTimes } from '../bench/placedBlob';
import { servedType } from '../../video/filmTypes';
import type { Film as FoundFilm } from '../../video/inspect';
import { openSecond } from '../database/openSecond';
import type { Manifest } from './gymManifest';
import type { Row } from './gymTables';
import { takeOver, type TakenOver } from './gymTakeOver';
import { hashed, openZip, wrong, type Zip } from './gymZip';
import { isOfRows, openStaged, stage } from './stagedTables';

/** A film of the file: where it waits, and what was found in it. */
export interface Film {
  readonly path: string;
  readonly sha256: string;
  readonly bytes: number;
  readonly found: FoundFilm;
}

async function inZip<T>(path: string, work: (zip: Zip) => Promise<T>): Promise<T> {
  const zip = await openZip(path, (await stat(path)).size);
  return work(zip).finally(() => zip.close());
}

/**
 * Check all of a file but its films, and put its rows into a database that waits.
 *
 * @param folder where it waits; its keeper removes it
 * @throws GymFileError
 */
export const stageGym = (path: string, folder: string): Promise<Manifest> =>
  inZip(path, (zip) => stage(zip, folder));

/**
 * @param about what the manifest says of it
 * @throws GymFileError when it is not that
 */
export const takeFilm = (
  path: string,
  name: string,
  about: Manifest['files'][string],
  to: string,
): Promise<void> =>
  inZip(path, (zip) =>
    hashed(zip, name, about, () => createWriteStream(to, { mode: 0o600, flush: true })),
  );

/**
 * Put the rows that wait beside those of the gym, all of them or none.
 *
 * @param data the gym's folder, whose films are there already
 * @param folder where `stageGym` has put the rows
 * @throws GymFileError
 */
export async function takeOverStaged(
  data: string,
  folder: string,
  manifest: Manifest,
  films: readonly Film[],
): Promise<TakenOver> {
  const bySha = new Map(films.map((film) => [film.sha256, film]));
  const staged = openStaged(folder);
  const db = openSecond(data);
  try {
    const tables = { rows: staged.rows, manifest };
    return await db
      .transaction()
      .execute((trx) => takeOver(trx, tables, (clip) => asFound(clip, bySha)));
  } catch (error) {
    throw isOfRows(error) ? wrong('Its rows do not fit together.') : error;
  } finally {
    await db.destroy();
    staged.close();
  }
}

/** A clip as its film is, whatever the file says of it. */
function asFound(clip: Row, films: ReadonlyMap<string, Film>): Row {
  const film = films.get(String(clip.sha256));
  if (!film) return { ...clip, mime_type: servedType(String(clip.mime_type)) };
  const { mimeType, width, height, codec, frameTimes } = film.found;
  return {
    ...clip,
    mime_type: mimeType,
    bytes: film.bytes,
    width,
    height,
    codec,
    frame_times: encodeTimes(frameTimes),
  };
}
