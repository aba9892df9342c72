/** Clips: taken in, listed, deleted. */
import { group } from 'd3-array';
import { nanoid } from 'nanoid';
import { sql, type Selectable } from 'kysely';
import type { Side } from '@sinew/core/foundation/body/landmarks';
import type { View } from '@sinew/core/foundation/technique/techniques';
import type { Intent } from '@sinew/core/foundation/drill/intent';
import { UnusableFilm, type Film } from '../../video/inspect';
import type { Purpose } from '@sinew/core/analysis/clipDocument';
import type { ClipFiles, Incoming } from '../film/clipFiles';
import { ClipFileError } from '../film/filmShelf';
import { removeUnused, restoreClip } from './clipEnds';
import { now, stamps, type Db } from '../database/db';
import { inspectFile } from './inspectFile';
import { forgetAltered } from '../maintenance/filmCheck';
import { contactAt, contactIn, decodeTimes, encodeTimes } from '../bench/placedBlob';
import type { ClipTable } from '../database/schema';
import { studentById } from '../student/students';
import { COLUMNS } from '../database/columns';

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
  /** Only its numbers are left: the film is gone with the consent. */
  readonly isPurged: boolean;
}

export interface NewClip {
  readonly studentId: string;
  readonly fileName: string;
  readonly view: View;
  /** Where the camera stood, more exactly: radians, see `Calibration.azimuth`. */
  readonly azimuth?: number;
  readonly captureRate: number | null;
  /** What it was filmed for; null when nobody has said. */
  readonly purpose: Purpose | null;
  readonly intent?: Intent;
  readonly round?: number;
  readonly stream: ReadableStream<Uint8Array>;
  /** The size the sender claims, bytes. */
  readonly announced: number | null;
  /** The hash that the sender has worked out; not asked for when it is left out. */
  readonly sha256?: string;
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
    if (clip.sha256 !== undefined && clip.sha256 !== incoming.sha256) {
      throw new ClipFileError(
        'The film was damaged on its way. Nothing was kept of it; it is still on the phone. Send it again.',
        409,
      );
    }
    const known = await db
      .selectFrom('clip')
      .select(['id', 'deleted_at', 'purged_at'])
      .where('student_id', '=', clip.studentId)
      .where('sha256', '=', incoming.sha256)
      .executeTakeFirst();
    if (known && known.purged_at === null) {
      // Its file may be missing or damaged; this one is known to be right by its hash.
      await files.keep(incoming);
      await forgetAltered(files.folder, incoming.sha256);
      if (known.deleted_at !== null) await restoreClip(db, known.id);
      await sayPurpose(db, known.id, clip.purpose);
      return { id: known.id, isKnown: true };
    }
    const film = await inspect(incoming);
    // Consent may have been withdrawn while the file was on its way.
    await requireConsent(db, clip.studentId);
    await files.keep(incoming);
    if (known) {
      // The film of numbers kept from before: it has come back with a new consent.
      await db
        .updateTable('clip')
        .set({ purged_at: null, deleted_at: null, updated_at: now() })
        .where('id', '=', known.id)
        .execute();
      return { id: known.id, isKnown: true };
    }
    return await insertClip(db, clip, incoming, film).catch(async (error: unknown) => {
      await removeUnused(db, files, incoming.sha256);
      throw error;
    });
  } finally {
    await files.discard(incoming);
  }
}

/** A film added again may be given the purpose it did not have. */
async function sayPurpose(db: Db, id: string, purpose: NewClip['purpose']): Promise<void> {
  if (!purpose) return;
  await db
    .updateTable('clip')
    .set({
      purpose: COLUMNS.clip.purpose.write(purpose),
      revision: sql`revision + 1`,
      updated_at: now(),
    })
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
  try {
    return await inspectFile({ path, bytes });
  } catch (error) {
    if (error instanceof UnusableFilm) {
      throw new ClipFileError(`${error.message} Nothing was kept.`, 415);
    }
    throw error;
  }
}

async function insertClip(
  db: Db,
  clip: NewClip,
  incoming: { sha256: string; bytes: number },
  film: Film,
): Promise<{ id: string; isKnown: boolean }> {
  const id = nanoid();
  const row = {
    id,
    student_id: clip.studentId,
    sha256: incoming.sha256,
    bytes: incoming.bytes,
    file_name: clip.fileName,
    mime_type: film.mimeType,
    view: clip.view,
    azimuth: clip.azimuth ?? null,
    capture_rate: clip.captureRate,
    width: film.width,
    height: film.height,
    codec: film.codec,
    frame_times: encodeTimes(film.frameTimes),
    scale: null,
    target: null,
    purpose: clip.purpose && COLUMNS.clip.purpose.write(clip.purpose),
    rectangle: null,
    lens: null,
    refused: null,
    corrections: null,
    drawings: null,
    note: null,
    intent: clip.intent ?? null,
    round: clip.round ?? null,
    deleted_at: null,
    purged_at: null,
    revision: 0,
    ...stamps(),
  };
  // The same film may be on its way a second time: a hand that clicked twice, a page that tried again.
  return db.transaction().execute(async (trx) => {
    const known = await trx
      .selectFrom('clip')
      .select('id')
      .where('student_id', '=', clip.studentId)
      .where('sha256', '=', incoming.sha256)
      .executeTakeFirst();
    if (known) return { id: known.id, isKnown: true };
    await trx.insertInto('clip').values(row).execute();
    return { id, isKnown: false };
  });
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
    isPurged: row.purged_at !== null,
  };
}

export async function clipById(db: Db, id: string): Promise<Clip | null> {
  const row = await db
    .selectFrom('clip')
    .innerJoin('student', 'student.id', 'clip.student_id')
    .selectAll('clip')
    .where('clip.id', '=', id)
    .where('clip.deleted_at', 'is', null)
    .where('student.deleted_at', 'is', null)
    .executeTakeFirst();
  return row ? fromRow(row) : null;
}

/** The clip of a student that a film is, by its hash; null when there is none. */
export async function clipOfFilm(
  db: Db,
  studentId: string,
  sha256: string,
): Promise<string | null> {
  const row = await db
    .selectFrom('clip')
    .select('id')
    .where('student_id', '=', studentId)
    .where('sha256', '=', sha256)
    .where('deleted_at', 'is', null)
    .where('purged_at', 'is', null)
    .executeTakeFirst();
  return row?.id ?? null;
}

/** How a technique was filmed the last time, so that it can be filmed alike. */
export interface FilmedBefore {
  readonly view: View;
  readonly intent: Intent | null;
  readonly question: string | null;
  /** ISO 8601. */
  readonly at: string;
}

export async function lastFilmOf(
  db: Db,
  studentId: string,
  technique: string,
): Promise<FilmedBefore | null> {
  const row = await db
    .selectFrom('clip')
    .innerJoin('strike', 'strike.clip_id', 'clip.id')
    .select(['clip.view', 'clip.intent', 'clip.purpose', 'clip.created_at'])
    .where('clip.student_id', '=', studentId)
    .where('clip.deleted_at', 'is', null)
    .where('strike.technique', '=', technique)
    .where('strike.removed_at', 'is', null)
    .orderBy('clip.created_at', 'desc')
    .executeTakeFirst();
  if (!row) return null;
  const purpose = COLUMNS.clip.purpose.readOr(row.purpose, null);
  return {
    view: row.view,
    intent: row.intent,
    question: purpose?.question ?? null,
    at: row.created_at,
  };
}

export interface ClipSummary {
  readonly id: string;
  readonly studentId: string;
  readonly fileName: string;
  readonly view: View;
  readonly createdAt: string;
  readonly intent: Intent | null;
  readonly round: number | null;
  /** The body was found in it. */
  readonly isTracked: boolean;
  readonly isPurged: boolean;
  /** The coach's words on it and on its strikes. */
  readonly notes: readonly string[];
  readonly strikes: readonly {
    readonly id: string;
    readonly technique: string;
    readonly side: Side;
    /** Instants of its technique that are not marked yet. */
    readonly marksLeft: number;
    /** Found by the program, and not confirmed. */
    readonly isAutomatic: boolean;
    /** Contact on the film's own clock, seconds; null where it is not marked. */
    readonly contactAt: number | null;
  }[];
}

/** A student's clips, newest first, with how far each has been worked. */
export async function clipSummaries(db: Db, studentId: string): Promise<ClipSummary[]> {
  const clips = await db
    .selectFrom('clip')
    .leftJoin('tracking', 'tracking.clip_id', 'clip.id')
    .select(['clip.id', 'student_id', 'file_name', 'view', 'clip.created_at', 'tracking.state'])
    .select(['intent', 'round', 'purged_at', 'note'])
    .where('student_id', '=', studentId)
    .where('deleted_at', 'is', null)
    .orderBy('clip.created_at', 'desc')
    .orderBy('clip.id')
    .execute();
  const strikes = await db
    .selectFrom('strike')
    .innerJoin('clip', 'clip.id', 'strike.clip_id')
    .leftJoin('mark', (join) =>
      join.onRef('mark.strike_id', '=', 'strike.id').on('mark.event', '=', 'contact'),
    )
    .select(['strike.id', 'strike.clip_id', 'technique', 'side', 'is_automatic', 'marks_left'])
    .select('strike.note')
    .select(contactAt)
    .where('removed_at', 'is', null)
    .where('clip.student_id', '=', studentId)
    .orderBy('position')
    .execute();
  const byClip = group(strikes, ({ clip_id }) => clip_id);
  return clips.map((clip) => ({
    id: clip.id,
    studentId: clip.student_id,
    fileName: clip.file_name,
    view: clip.view,
    createdAt: clip.created_at,
    intent: clip.intent,
    round: clip.round,
    isTracked: clip.state === 'done',
    isPurged: clip.purged_at !== null,
    notes: [clip.note, ...(byClip.get(clip.id) ?? []).map(({ note }) => note)].filter(
      (one) => one !== null,
    ),
    strikes: (byClip.get(clip.id) ?? []).map((strike) => ({
      id: strike.id,
      technique: strike.technique,
      side: strike.side,
      marksLeft: strike.marks_left,
      isAutomatic: strike.is_automatic === 1,
      contactAt: contactIn(strike.contact_at),
    })),
  }));
}
