/**
 * What a coach has said over a strike: a film of the bench with the voice in it, one for a strike. It shows the
 * student, so it is there as long as the clip is, for that student only, and goes with it. It is part of no
 * backup and of no gym’s file, as it lies beside the clips: who wants it elsewhere saves it as a film.
 */
import { mkdir, readdir, readFile, rm, stat } from 'node:fs/promises';
import { join } from 'node:path';
import { z } from 'zod';
import { Problem } from '@sinew/core/foundation/problem/problem';
import { now, type Db } from '../database/db';
import { writeWhole } from '../database/writeWhole';

/** Bytes: two minutes at three times the rate at which they are made. */
export const MOST_TALK = 96 * 1024 * 1024;

const aboutSchema = z.object({
  studentId: z.string(),
  technique: z.string().max(40),
  /** The cue at the time; empty for none. */
  cue: z.string().max(200),
  seconds: z.number().positive().max(600),
  madeBy: z.string().max(80),
  /** ISO 8601. */
  madeAt: z.string(),
});

export const talkAbout = aboutSchema.pick({ technique: true, cue: true, seconds: true });

export interface Talk extends Readonly<z.infer<typeof aboutSchema>> {
  readonly clipId: string;
  readonly strikeId: string;
  readonly bytes: number;
}

interface Of {
  readonly clipId: string;
  readonly strikeId: string;
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
export async function talkOf(data: string, of: Of, studentId: string): Promise<Talk | null> {
  try {
    const about = aboutSchema.parse(JSON.parse(await readFile(pathOf(data, of, 'json'), 'utf8')));
    if (about.studentId !== studentId) return null;
    return { ...about, ...of, bytes: (await stat(pathOf(data, of, 'mp4'))).size };
  } catch {
    return null;
  }
}

/** All that was said over this student’s strikes, the newest first. */
export async function talksOf(db: Db, data: string, studentId: string): Promise<Talk[]> {
  const clips = await db
    .selectFrom('clip')
    .select('id')
    .where('student_id', '=', studentId)
    .where('deleted_at', 'is', null)
    .where('purged_at', 'is', null)
    .execute();
  const found = clips.map(async ({ id: clipId }) => {
    const names = await readdir(join(data, FOLDER, clipId)).catch(() => []);
    const strikes = names.filter((name) => name.endsWith('.json')).map((name) => name.slice(0, -5));
    return Promise.all(strikes.map((strikeId) => talkOf(data, { clipId, strikeId }, studentId)));
  });
  return (await Promise.all(found))
    .flat()
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
