/** Films that are not there any more, or not as they were: once a day all of them are read. */
import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { Worker } from 'node:worker_threads';
import { z } from 'zod';
import { isFilmHash } from '../clip/clipFiles';
import { writeWhole } from '../database/writeWhole';
import type { NamedFilm } from './hashFilms.worker';
import type { Place } from './place';

const FILE = 'film-check.json';
const checkSchema = z.object({ at: z.iso.datetime(), altered: z.array(z.string()) });

/** Read every film that a clip names, on a thread of its own, and remember those that are altered. */
export async function checkFilms({ db, files, folder }: Place, at: Date): Promise<string[]> {
  const rows = await db
    .selectFrom('clip')
    .select('sha256')
    .distinct()
    .where('purged_at', 'is', null)
    .execute();
  const films = rows
    .filter(({ sha256 }) => isFilmHash(sha256))
    .map(({ sha256 }): NamedFilm => ({ sha256, path: files.pathOf(sha256) }));
  const altered = await hashed(films);
  await writeWhole(join(folder, FILE), JSON.stringify({ at: at.toISOString(), altered }));
  return altered;
}

function hashed(films: readonly NamedFilm[]): Promise<string[]> {
  const worker = new Worker(new URL('./hashFilms.worker.ts', import.meta.url));
  worker.unref();
  return new Promise<string[]>((resolve, reject) => {
    worker.once('message', resolve).once('error', reject);
    worker.once('exit', () => reject(new Error('The thread that reads films ended.')));
    worker.postMessage(films);
  }).finally(() => worker.terminate());
}

export interface FilmTrouble {
  readonly clipId: string;
  readonly studentId: string;
  readonly student: string;
  readonly fileName: string;
  readonly createdAt: string;
  readonly trouble: 'missing' | 'altered';
}

/** Clips whose film is missing, cut short or altered, the newest first. */
export async function filmTroubles({ db, files, folder }: Place): Promise<FilmTrouble[]> {
  const altered = new Set(await lastAltered(folder));
  const rows = await db
    .selectFrom('clip')
    .innerJoin('student', 'student.id', 'clip.student_id')
    .select(['clip.id', 'clip.sha256', 'clip.bytes', 'clip.file_name', 'clip.created_at'])
    .select(['clip.student_id', 'student.name'])
    .where('clip.purged_at', 'is', null)
    .where('clip.deleted_at', 'is', null)
    .where('student.deleted_at', 'is', null)
    .orderBy('clip.created_at', 'desc')
    .execute();
  const sizes = await Promise.all(rows.map(({ sha256 }) => files.size(sha256)));
  return rows.flatMap((row, i): FilmTrouble[] => {
    const size = sizes[i]!;
    if (size === row.bytes && !altered.has(row.sha256)) return [];
    return [
      {
        clipId: row.id,
        studentId: row.student_id,
        student: row.name,
        fileName: row.file_name,
        createdAt: row.created_at,
        trouble: size === null ? 'missing' : 'altered',
      },
    ];
  });
}

async function lastAltered(folder: string): Promise<string[]> {
  try {
    return checkSchema.parse(JSON.parse(await readFile(join(folder, FILE), 'utf8'))).altered;
  } catch {
    return [];
  }
}

/** A film that was added again is as it was. */
export async function forgetAltered(folder: string, sha256: string): Promise<void> {
  const altered = await lastAltered(folder);
  if (!altered.includes(sha256)) return;
  const rest = altered.filter((one) => one !== sha256);
  await writeWhole(
    join(folder, FILE),
    JSON.stringify({ at: new Date().toISOString(), altered: rest }),
  );
}
