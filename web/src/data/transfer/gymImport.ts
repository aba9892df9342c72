/** A gym's file, checked, and taken over whole or not at all; see `gymExport.ts`. */
import { mkdir, rm } from 'node:fs/promises';
import { join } from 'node:path';
import { nanoid } from 'nanoid';
import { UnusableFilm } from '../../video/inspect';
import type { ClipFiles } from '../film/clipFiles';
import { inspectFile } from '../clip/inspectFile';
import { have } from '../threads/threads';
import type { Manifest } from './gymManifest';
import type { TableName } from './gymTables';
import type { TakenOver } from './gymTakeOver';
import { wrong } from './gymZip';
import type { Film } from './importParts';

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
  return opened(path, incoming, async ({ manifest, films }) => {
    for await (const { path: film } of films) await rm(film);
    return summary(manifest);
  });
}

/**
 * Take a gym over: into an empty one with its name and library, into another one beside what is there.
 * What is here already stays as it is.
 *
 * @param files of the gym; its database is in the same folder
 * @param incoming where films wait until everything has been checked
 * @param first what is done when the file is known to be sound, before anything of it is taken over
 */
export async function importGym(
  files: ClipFiles,
  path: string,
  incoming: string,
  first: () => Promise<void> = async () => undefined,
): Promise<Imported> {
  return opened(path, incoming, async ({ manifest, films, waiting }) => {
    const all: Film[] = [];
    for await (const film of films) all.push(film);
    await first();
    // Files first: a row never names a film that is not there. A film without a row is put aside later.
    for (const film of all) {
      if ((await files.size(film.sha256)) === null) await files.keep(film);
    }
    const outcome = await have('takeOverStaged', files.folder, waiting, manifest, all);
    return { ...summary(manifest), ...outcome };
  });
}

interface Opened {
  readonly manifest: Manifest;
  /** Taken out one after the other, as they are asked for. */
  readonly films: AsyncIterable<Film>;
  readonly waiting: string;
}

/** Work on a file whose rows are sound, with a folder for what waits, which is put away afterwards. */
async function opened<T>(
  path: string,
  incoming: string,
  work: (file: Opened) => Promise<T>,
): Promise<T> {
  const waiting = join(incoming, `gym-${nanoid()}`);
  try {
    await mkdir(waiting, { recursive: true, mode: 0o700 });
    const manifest = await have('stageGym', path, waiting);
    return await work({ manifest, films: filmsOf(path, manifest, waiting), waiting });
  } finally {
    await rm(waiting, { recursive: true, force: true });
  }
}

/** Checked, and looked into as every film that is added is. */
async function* filmsOf(path: string, manifest: Manifest, waiting: string): AsyncIterable<Film> {
  const names = Object.keys(manifest.files).filter((name) => name.startsWith('clips/'));
  for (const name of names) {
    const { sha256, bytes } = manifest.files[name]!;
    const place = join(waiting, sha256);
    await have('takeFilm', path, name, manifest.files[name]!, place);
    try {
      yield { path: place, sha256, bytes, found: await inspectFile({ path: place, bytes }) };
    } catch (error) {
      if (!(error instanceof UnusableFilm)) throw error;
      throw wrong(`${name} is no film that Sinew can use: ${error.message}`);
    }
  }
}

function summary({ gym, madeAt, counts }: Manifest): Checked {
  const of = (table: TableName) => counts[table] ?? 0;
  return { gym, madeAt, students: of('student'), clips: of('clip'), strikes: of('strike') };
}
