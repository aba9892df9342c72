/** Films that are not there any more, or not as they were when all were read the last time. */
import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { z } from 'zod';
import { writeWhole } from '../database/writeWhole';
import type { Place } from './place';

const FILE = 'film-check.json';
const checkSchema = z.object({ at: z.iso.datetime(), altered: z.array(z.string()) });

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
  const sizes = new Map<string, number>();
  for await (const { sha256, bytes } of files.shelf.list()) sizes.set(sha256, bytes);
  return rows.flatMap((row): FilmTrouble[] => {
    const size = sizes.get(row.sha256) ?? null;
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

export async function rememberAltered(folder: string, at: Date, altered: string[]): Promise<void> {
  await writeWhole(join(folder, FILE), JSON.stringify({ at: at.toISOString(), altered }));
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
  await rememberAltered(folder, new Date(), rest);
}
