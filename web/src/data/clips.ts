/** Clips: taken in, listed, deleted. */
import { open } from 'node:fs/promises';
import { FilePathSource } from 'mediabunny';
import { nanoid } from 'nanoid';
import { sql, type Selectable } from 'kysely';
import type { View } from '@sinew/core/technique/catalogue';
import { inspectFilm, UnusableFilm, type Film } from '../video/inspect';
import type { Purpose } from './benchDocument';
import { ClipFileError, type ClipFiles, type Incoming } from './clipFiles';
import { now, stamps, type Db } from './database';
import { decodeTimes, encodeTimes } from './placedBlob';
import type { ClipTable } from './schema';
import { studentById } from './students';

export interface Clip {
  readonly id: string;
  readonly studentId: string;
  readonly fileName: string;
  readonly sha256: string;
  readonly mimeType: string;
  readonly bytes: number;
  readonly view: View;
  readonly captureRate: number | null;
  readonly width: number;
  readonly height: number;
  readonly frameTimes: readonly number[];
  readonly createdAt: string;
}

export interface NewClip {
  readonly studentId: string;
  readonly fileName: string;
  readonly view: View;
  readonly captureRate: number | null;
  /** What it was filmed for; null when nobody has said. */
  readonly purpose: Purpose | null;
  readonly stream: ReadableStream<Uint8Array>;
  /** The size the sender claims, bytes. */
  readonly announced: number | null;
}

/**
 * Take in a file for a student: receive, look inside, keep the file, then write the row. Whatever
 * fails, neither a file without a row that names it nor a row without its file is left.
 *
 * @returns the clip, and whether this student had this very file already
 * @throws ClipFileError with a message for the coach
 */
export async function addClip(
  db: Db,
  files: ClipFiles,
  clip: NewClip,
): Promise<{ id: string; isKnown: boolean }> {
  await requireConsent(db, clip.studentId);
  const incoming = await files.receive(clip.stream, clip.announced);
  try {
    const known = await db
      .selectFrom('clip')
      .select('id')
      .where('student_id', '=', clip.studentId)
      .where('sha256', '=', incoming.sha256)
      .executeTakeFirst();
    if (known) {
      await sayPurpose(db, known.id, clip.purpose);
      return { id: known.id, isKnown: true };
    }
    const film = await inspect(incoming);
    // Consent may have been withdrawn while the file was on its way.
    await requireConsent(db, clip.studentId);
    await files.keep(incoming);
    const id = await insertClip(db, clip, incoming, film).catch(async (error: unknown) => {
      await removeUnused(db, files, incoming.sha256);
      throw error;
    });
    return { id, isKnown: false };
  } finally {
    await files.discard(incoming);
  }
}

/** A film added again may be given the purpose it did not have. */
async function sayPurpose(db: Db, id: string, purpose: NewClip['purpose']): Promise<void> {
  if (!purpose) return;
  await db
    .updateTable('clip')
    .set({ purpose: JSON.stringify(purpose), revision: sql`revision + 1`, updated_at: now() })
    .where('id', '=', id)
    .where('purpose', 'is', null)
    .execute();
}

async function requireConsent(db: Db, studentId: string): Promise<void> {
  const student = await studentById(db, studentId);
  if (!student) throw new ClipFileError('This student is not in the gym’s list any more.', 400);
  if (!student.consent) {
    throw new ClipFileError(
      student.isMinor
        ? `${student.name} is under 18: record a guardian’s consent before adding a clip.`
        : `Record ${student.name}’s consent to be filmed before adding a clip.`,
      422,
    );
  }
}

async function inspect({ path, bytes }: Incoming): Promise<Film> {
  const file = await open(path);
  const read = async (from: number, to: number) => {
    const { buffer, bytesRead } = await file.read(new Uint8Array(to - from), 0, to - from, from);
    return buffer.subarray(0, bytesRead);
  };
  try {
    return await inspectFilm({ source: new FilePathSource(path), read, size: bytes });
  } catch (error) {
    if (error instanceof UnusableFilm) {
      throw new ClipFileError(`${error.message} Nothing was kept.`, 415);
    }
    throw error;
  } finally {
    await file.close();
  }
}

async function insertClip(
  db: Db,
  clip: NewClip,
  incoming: { sha256: string; bytes: number },
  film: Film,
): Promise<string> {
  const id = nanoid();
  await db
    .insertInto('clip')
    .values({
      id,
      student_id: clip.studentId,
      sha256: incoming.sha256,
      bytes: incoming.bytes,
      file_name: clip.fileName,
      mime_type: film.mimeType,
      view: clip.view,
      capture_rate: clip.captureRate,
      width: film.width,
      height: film.height,
      codec: film.codec,
      frame_times: encodeTimes(film.frameTimes),
      scale: null,
      target: null,
      purpose: clip.purpose && JSON.stringify(clip.purpose),
      rectangle: null,
      lens: null,
      refused: null,
      corrections: null,
      revision: 0,
      ...stamps(),
    })
    .execute();
  return id;
}

async function removeUnused(db: Db, files: ClipFiles, sha256: string): Promise<void> {
  const user = await db
    .selectFrom('clip')
    .select('id')
    .where('sha256', '=', sha256)
    .executeTakeFirst();
  if (!user) await files.remove(sha256);
}

/** Remove a clip with its marks, and its file when no other student's clip is the same film. */
export async function deleteClip(db: Db, files: ClipFiles, id: string): Promise<void> {
  const row = await db.selectFrom('clip').select('sha256').where('id', '=', id).executeTakeFirst();
  if (!row) return;
  await db.deleteFrom('clip').where('id', '=', id).execute();
  await removeUnused(db, files, row.sha256);
}

function fromRow(row: Selectable<ClipTable>): Clip {
  return {
    id: row.id,
    studentId: row.student_id,
    fileName: row.file_name,
    sha256: row.sha256,
    mimeType: row.mime_type,
    bytes: row.bytes,
    view: row.view,
    captureRate: row.capture_rate,
    width: row.width,
    height: row.height,
    frameTimes: decodeTimes(row.frame_times),
    createdAt: row.created_at,
  };
}

export async function clipById(db: Db, id: string): Promise<Clip | null> {
  const row = await db.selectFrom('clip').selectAll().where('id', '=', id).executeTakeFirst();
  return row ? fromRow(row) : null;
}

export interface ClipSummary {
  readonly id: string;
  readonly studentId: string;
  readonly fileName: string;
  readonly view: View;
  readonly createdAt: string;
  /** The body was found in it. */
  readonly isTracked: boolean;
  readonly strikes: readonly {
    readonly technique: string;
    readonly marks: number;
    /** Found by the program, and not confirmed. */
    readonly isAutomatic: boolean;
  }[];
}

/** All clips, newest first, with how far each has been worked; one student's or everybody's. */
export async function clipSummaries(db: Db, studentId?: string): Promise<ClipSummary[]> {
  const clips = await db
    .selectFrom('clip')
    .leftJoin('tracking', 'tracking.clip_id', 'clip.id')
    .select(['clip.id', 'student_id', 'file_name', 'view', 'clip.created_at', 'tracking.state'])
    .$if(studentId !== undefined, (query) => query.where('student_id', '=', studentId!))
    .orderBy('clip.created_at', 'desc')
    .orderBy('clip.id')
    .execute();
  const strikes = await db
    .selectFrom('strike')
    .innerJoin('clip', 'clip.id', 'strike.clip_id')
    .leftJoin('mark', 'mark.strike_id', 'strike.id')
    .where('strike.removed_at', 'is', null)
    .$if(studentId !== undefined, (query) => query.where('clip.student_id', '=', studentId!))
    .select(({ fn }) => [
      'strike.clip_id',
      'strike.technique',
      'strike.is_automatic',
      fn.count<number>('mark.event').as('marks'),
    ])
    .groupBy('strike.id')
    .orderBy('strike.position')
    .execute();
  return clips.map((clip) => ({
    id: clip.id,
    studentId: clip.student_id,
    fileName: clip.file_name,
    view: clip.view,
    createdAt: clip.created_at,
    isTracked: clip.state === 'done',
    strikes: strikes
      .filter((strike) => strike.clip_id === clip.id)
      .map(({ technique, marks, is_automatic }) => ({
        ...{ technique, marks },
        isAutomatic: is_automatic === 1,
      })),
  }));
}
