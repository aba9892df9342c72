/**
 * Links by which a student reads their lesson on their own phone. Who has the address sees one student's card,
 * with picture and review, until a day, until it is withdrawn, or until the consent it rests on has ended.
 */
import { mkdir, readdir, readFile, rm, stat } from 'node:fs/promises';
import { join } from 'node:path';
import { nanoid } from 'nanoid';
import { z } from 'zod';
import { plusDays, type Day } from '@sinew/core/foundation/calendar/day';
import { saidPiece, type SaidPiece } from '@/api/said';
import { now, type Db } from '../database/db';
import { today } from '../database/today';
import { writeWhole } from '../database/writeWhole';
import { sharingOf } from '../student/sharing';
import { studentById, type Student } from '../student/students';
import type { AccessDb } from './accessDb';
import { hashOf, newToken } from './secrets';

/** A link works this long after the next check, and so long at least and at most; days. */
const AFTER_CHECK = 7;
const LEAST = 14;
const MOST = 60;
/** Milliseconds in which files may lie there without a row. */
const BEING_MADE = 3_600_000;

export interface LessonLink {
  readonly id: string;
  readonly studentId: string;
  /** Whose film the review was made of; null without one. */
  readonly clipId: string | null;
  readonly madeBy: string;
  readonly madeOn: Day;
  /** The last day on which it works. */
  readonly endsOn: Day;
  /** ISO 8601; null while nobody has opened it. */
  readonly openedAt: string | null;
}

/** What the page shows beside the card, as the coach's browser has made it. */
export interface LessonMedia {
  /** JPEG. */
  readonly picture: Uint8Array | null;
  /** MP4. */
  readonly film: Uint8Array | null;
  /** What is said in the film, from and to in seconds. */
  readonly said: readonly SaidPiece[];
}

export const lessonFolder = (data: string) => join(data, 'lessons');

export const MEDIA = { picture: 'picture.jpg', film: 'review.mp4', said: 'said.json' } as const;

export const mediaPath = (data: string, { id }: Pick<LessonLink, 'id'>, what: keyof typeof MEDIA) =>
  join(lessonFolder(data), id, MEDIA[what]);

/** The last day of a link whose work is next looked at on a day. */
export function endOfLink(nextCheck: Day | null): Day {
  const day = today();
  const after = nextCheck === null ? day : plusDays(nextCheck, AFTER_CHECK);
  const [least, most] = [plusDays(day, LEAST), plusDays(day, MOST)];
  return after < least ? least : after > most ? most : after;
}

/**
 * Files first, then the row that names them: a machine that goes off in between leaves files that the next
 * sweep takes.
 *
 * @returns what stands at the end of the address; it is kept as a hash only
 */
export async function newLesson(
  db: AccessDb,
  data: string,
  about: Pick<LessonLink, 'studentId' | 'clipId' | 'madeBy' | 'endsOn'>,
  media: LessonMedia,
): Promise<string> {
  const [id, token] = [nanoid(), newToken()];
  await mkdir(join(lessonFolder(data), id), { recursive: true, mode: 0o700 });
  if (media.picture) await writeWhole(mediaPath(data, { id }, 'picture'), media.picture);
  if (media.film) await writeWhole(mediaPath(data, { id }, 'film'), media.film);
  await writeWhole(mediaPath(data, { id }, 'said'), JSON.stringify(media.said));
  await db
    .insertInto('lesson')
    .values({
      id,
      token: hashOf(token),
      student_id: about.studentId,
      clip_id: about.clipId,
      made_by: about.madeBy,
      made_on: today(),
      ends_on: about.endsOn,
      opened_at: null,
    })
    .execute();
  return token;
}

/** Those that work, the newest first. */
export async function lessonsOf(db: AccessDb, studentId: string): Promise<LessonLink[]> {
  const rows = await db
    .selectFrom('lesson')
    .selectAll()
    .where('student_id', '=', studentId)
    .where('ends_on', '>=', today())
    .orderBy('made_on', 'desc')
    .execute();
  return rows.map(fromRow);
}

/** Whose link an address is, and that it may still be shown; null in every other case, whatever the reason. */
export async function lessonBy(
  access: AccessDb,
  gym: Db,
  token: string,
): Promise<{ readonly link: LessonLink; readonly student: Student } | null> {
  const row = await access
    .selectFrom('lesson')
    .selectAll()
    .where('token', '=', hashOf(token))
    .where('ends_on', '>=', today())
    .executeTakeFirst();
  const student = row && (await studentById(gym, row.student_id));
  if (!student || !(await sharingOf(gym, student))) return null;
  return { link: fromRow(row), student };
}

export async function wasOpened(db: AccessDb, id: string): Promise<void> {
  await db
    .updateTable('lesson')
    .set({ opened_at: now() })
    .where('id', '=', id)
    .where('opened_at', 'is', null)
    .execute();
}

/** What was made of a film is shown as long as the film may be, and is this student's: a clip may be moved. */
export async function isFilmThere(gym: Db, { clipId, studentId }: LessonLink): Promise<boolean> {
  if (clipId === null) return false;
  const row = await gym
    .selectFrom('clip')
    .select('id')
    .where('id', '=', clipId)
    .where('student_id', '=', studentId)
    .where('deleted_at', 'is', null)
    .where('purged_at', 'is', null)
    .executeTakeFirst();
  return row !== undefined;
}

/** @returns none when it cannot be read */
export async function saidIn(data: string, link: LessonLink): Promise<readonly SaidPiece[]> {
  const text = await readFile(mediaPath(data, link, 'said'), 'utf8').catch(() => '[]');
  try {
    return z.array(saidPiece).parse(JSON.parse(text));
  } catch {
    return [];
  }
}

/** From now on none of this student's links works, and what they showed is gone. */
export async function endLessons(db: AccessDb, data: string, studentId: string): Promise<void> {
  const rows = await db
    .selectFrom('lesson')
    .select('id')
    .where('student_id', '=', studentId)
    .execute();
  await db.deleteFrom('lesson').where('student_id', '=', studentId).execute();
  await forgetMedia(data, rows);
}

/** Links that have ended go, with what they showed; so does what was made of a film that is gone. */
export async function sweepLessons(access: AccessDb, gym: Db, data: string): Promise<void> {
  const ended = await access
    .deleteFrom('lesson')
    .where('ends_on', '<', today())
    .returning('id')
    .execute();
  await forgetMedia(data, ended);
  const rows = await access.selectFrom('lesson').selectAll().execute();
  const kept = new Set<string>();
  for (const link of rows.map(fromRow)) {
    const student = await studentById(gym, link.studentId);
    if (!student || !(await sharingOf(gym, student))) {
      await endLessons(access, data, link.studentId);
      continue;
    }
    kept.add(link.id);
    if (await isFilmThere(gym, link)) continue;
    for (const what of Object.keys(MEDIA) as (keyof typeof MEDIA)[]) {
      await rm(mediaPath(data, link, what), { force: true });
    }
  }
  const folders = await readdir(lessonFolder(data)).catch(() => []);
  for (const id of folders.filter((one) => !kept.has(one))) {
    const { mtimeMs } = await stat(join(lessonFolder(data), id));
    // A link that is being made just now has its files before its row.
    if (Date.now() - mtimeMs > BEING_MADE) await forgetMedia(data, [{ id }]);
  }
}

async function forgetMedia(data: string, links: readonly { readonly id: string }[]): Promise<void> {
  for (const { id } of links)
    await rm(join(lessonFolder(data), id), { recursive: true, force: true });
}

const fromRow = (row: {
  id: string;
  student_id: string;
  clip_id: string | null;
  made_by: string;
  made_on: Day;
  ends_on: Day;
  opened_at: string | null;
}): LessonLink => ({
  id: row.id,
  studentId: row.student_id,
  clipId: row.clip_id,
  madeBy: row.made_by,
  madeOn: row.made_on,
  endsOn: row.ends_on,
  openedAt: row.opened_at,
});
