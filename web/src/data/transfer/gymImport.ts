/** A gym's file, checked, and taken over whole or not at all; see `gymExport.ts`. */
import { createWriteStream } from 'node:fs';
import { mkdir, rm, stat } from 'node:fs/promises';
import { join } from 'node:path';
import { nanoid } from 'nanoid';
import { servedType } from '../../video/filmTypes';
import { UnusableFilm, type Film as FoundFilm } from '../../video/inspect';
import { encodeTimes } from '../bench/placedBlob';
import type { ClipFiles } from '../clip/clipFiles';
import { inspectFile } from '../clip/inspectFile';
import type { Db } from '../database/db';
import type { Manifest } from './gymManifest';
import type { Row, TableName } from './gymTables';
import { takeOver, type TakenOver } from './gymTakeOver';
import { hashed, openZip, wrong, type Zip } from './gymZip';
import { isOfRows, staged, type Staged } from './stagedTables';

export interface Checked {
  readonly gym: string;
  readonly madeAt: string;
  readonly students: number;
  readonly clips: number;
  readonly strikes: number;
}

export interface Imported extends Checked, TakenOver {}

/**
 * Check every byte, row and film of a file, and take nothing over.
 *
 * @param incoming where a film waits while it is looked into
 */
export async function verifyGym(path: string, incoming: string): Promise<Checked> {
  return opened(path, incoming, async (zip, waiting, tables) => {
    const { manifest } = tables;
    for (const name of filmNames(manifest)) {
      const { path: film } = await filmOf(zip, name, manifest, waiting);
      await rm(film);
    }
    return summary(manifest);
  });
}

/**
 * Take a gym over: into an empty one with its name and library, into another one beside what is there.
 * What is here already stays as it is.
 *
 * @param incoming where films wait until everything has been checked
 * @param first what is done when the file is known to be sound, before anything of it is taken over
 */
export async function importGym(
  db: Db,
  files: ClipFiles,
  path: string,
  incoming: string,
  first: () => Promise<void> = async () => undefined,
): Promise<Imported> {
  return opened(path, incoming, async (zip, waiting, tables) => {
    const { manifest } = tables;
    const films: Film[] = [];
    for (const name of filmNames(manifest)) films.push(await filmOf(zip, name, manifest, waiting));
    await first();
    // Files first: a row never names a film that is not there. A film without a row is put aside later.
    for (const film of films) {
      if ((await files.size(film.sha256)) === null) await files.keep(film);
    }
    const bySha = new Map(films.map((film) => [film.sha256, film]));
    const outcome = await db
      .transaction()
      .execute((trx) => takeOver(trx, tables, (clip) => asFound(clip, bySha)))
      .catch((error: unknown) => {
        throw isOfRows(error) ? wrong('Its rows do not fit together.') : error;
      });
    return { ...summary(manifest), ...outcome };
  });
}

/** Work on a file with a folder for what waits, both put away afterwards. */
async function opened<T>(
  path: string,
  incoming: string,
  work: (zip: Zip, waiting: string, tables: Staged) => Promise<T>,
): Promise<T> {
  const zip = await openZip(path, (await stat(path)).size);
  const waiting = join(incoming, `gym-${nanoid()}`);
  try {
    await mkdir(waiting, { recursive: true, mode: 0o700 });
    const tables = await staged(zip, waiting);
    return await work(zip, waiting, tables).finally(() => tables.close());
  } finally {
    zip.close();
    await rm(waiting, { recursive: true, force: true });
  }
}

/** A film of the file: where it waits, and what was found in it. */
interface Film {
  readonly path: string;
  readonly sha256: string;
  readonly bytes: number;
  readonly found: FoundFilm;
}

/** Taken out of the file, checked, and looked into as every film that is added is. */
async function filmOf(zip: Zip, name: string, manifest: Manifest, waiting: string): Promise<Film> {
  const { sha256, bytes } = manifest.files[name]!;
  const path = join(waiting, sha256);
  await hashed(zip, name, manifest, createWriteStream(path, { mode: 0o600, flush: true }));
  try {
    return { path, sha256, bytes, found: await inspectFile({ path, bytes }) };
  } catch (error) {
    if (!(error instanceof UnusableFilm)) throw error;
    throw wrong(`${name} is no film that Sinew can use: ${error.message}`);
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

const filmNames = ({ files }: Manifest) =>
  Object.keys(files).filter((name) => name.startsWith('clips/'));

function summary({ gym, madeAt, counts }: Manifest): Checked {
  const of = (table: TableName) => counts[table] ?? 0;
  return { gym, madeAt, students: of('student'), clips: of('clip'), strikes: of('strike') };
}
