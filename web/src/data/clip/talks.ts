/**
 * What a coach has said over a strike: a film of the bench with the voice in it, one for a strike. It shows the
 * student, so it is there as long as the clip is, for that student only, and goes with it. It is part of no
 * backup and of no gym’s file: it leaves with what is sent home.
 */
import { mkdir, readdir, readFile, rm, stat } from 'node:fs/promises';
import { join } from 'node:path';
import { z } from 'zod';
import { Problem } from '@sinew/core/foundation/problem/problem';
import { now, type Db } from '../database/db';
import { writeWhole } from '../database/writeWhole';

/** Bytes: nearly four times what two minutes take. */
export const MOST_TALK = 96 * 1024 * 1024;

const aboutSchema = z.object({
  studentId: z.string(),
  seconds: z.number().positive().max(600),
  madeBy: z.string().max(80),
  /** ISO 8601. */
  madeAt: z.string(),
});

export const talkSeconds = aboutSchema.shape.seconds;

interface Of {
  readonly clipId: string;
  readonly strikeId: string;
}

interface Said extends Readonly<z.infer<typeof aboutSchema>> {
  readonly bytes: number;
}

export interface Talk extends Said, Of {
  /** Of the strike. */
  readonly technique: string;
}

const FOLDER = 'talks';
const ID = /^[\w-]{1,80}$/;

function pathOf(data: string, { clipId, strikeId }: Of, end: 'mp4' | 'json'): string {
  if (!ID.test(clipId) || !ID.test(strikeId)) throw new RangeError('no such strike');
  return join(data, FOLDER, clipId, `${strikeId}.${end}`);
}

/** MP4 begins with its kind. Source: ISO/IEC 14496-12, 4.3, file type box. */
const isMp4 = (film: Uint8Array) => Buffer.from(film.subarray(4, 8)).toString('latin1') === 'ftyp';

/**
 * In the place of what was said before. The film is written first: what is cut off in between shows the
 * earlier words with the newer film, or none.
 *
 * @throws Problem `not-understood` when it is no film
 */
export async function keepTalk(
  data: string,
  of: Of,
  film: Uint8Array,
  about: Omit<z.infer<typeof aboutSchema>, 'madeAt'>,
): Promise<void> {
  if (!isMp4(film)) {
    throw new Problem('not-understood', {
      happened: 'This is no film.',
      safe: 'Nothing was kept, and what was said before is still there.',
    });
  }
  await mkdir(join(data, FOLDER, of.clipId), { recursive: true, mode: 0o700 });
  await writeWhole(pathOf(data, of, 'mp4'), film);
  await writeWhole(pathOf(data, of, 'json'), JSON.stringify({ ...about, madeAt: now() }));
}

/** @returns null where nothing has been said, or it was said of somebody else’s strike: a clip may be moved */
export async function talkOf(data: string, of: Of, studentId: string): Promise<Said | null> {
  try {
    const about = aboutSchema.parse(JSON.parse(await readFile(pathOf(data, of, 'json'), 'utf8')));
    if (about.studentId !== studentId) return null;
    return { ...about, bytes: (await stat(pathOf(data, of, 'mp4'))).size };
  } catch {
    return null;
  }
}

/** All that was said over this student’s strikes that are still there, the newest first. */
export async function talksOf(db: Db, data: string, studentId: string): Promise<Talk[]> {
  const talked = await readdir(join(data, FOLDER)).catch(() => []);
  if (talked.length === 0) return [];
  const strikes = await db
    .selectFrom('strike')
    .innerJoin('clip', 'clip.id', 'strike.clip_id')
    .select(['strike.id as strikeId', 'strike.clip_id as clipId', 'strike.technique'])
    .where('clip.student_id', '=', studentId)
    .where('clip.deleted_at', 'is', null)
    .where('clip.purged_at', 'is', null)
    .where('strike.removed_at', 'is', null)
    .execute();
  const clips = new Set(talked);
  const found = strikes
    .filter(({ clipId }) => clips.has(clipId))
    .map(async (strike) => {
      const said = await talkOf(data, strike, studentId);
      return said && { ...said, ...strike };
    });
  return (await Promise.all(found))
    .filter((talk) => talk !== null)
    .sort((a, b) => b.madeAt.localeCompare(a.madeAt));
}

export const talkPath = (data: string, of: Of): string => pathOf(data, of, 'mp4');

export async function forgetTalk(data: string, of: Of): Promise<void> {
  await rm(pathOf(data, of, 'json'), { force: true });
  await rm(pathOf(data, of, 'mp4'), { force: true });
}

/** With a clip goes what was said over it. */
export async function forgetTalks(data: string, clipId: string): Promise<void> {
  if (ID.test(clipId)) await rm(join(data, FOLDER, clipId), { recursive: true, force: true });
}

/**
 * What was said over films that have been erased since, when the machine went off in between. Without a row for
 * the clip nothing is known, and nothing is taken: the database may be another one.
 */
export async function sweepTalks(gym: Db, data: string): Promise<void> {
  for (const clipId of await readdir(join(data, FOLDER)).catch(() => [])) {
    const row = await gym
      .selectFrom('clip')
      .select('purged_at')
      .where('id', '=', clipId)
      .executeTakeFirst();
    if (row && row.purged_at !== null) await forgetTalks(data, clipId);
  }
}
