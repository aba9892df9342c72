/** Body tracking of clips: done in the coach's browser, kept here as it comes. */
import type { Selectable } from 'kysely';
import type { PoseDetection } from '@sinew/core/observe/track/poseDetection';
import type { Job, JobRequest } from '../../api/job';
import { decodeDetections, encodeDetections } from '../../api/detectionBlob';
import { now, stamps, type Db } from '../database/db';
import { dropBandTurns } from './bandTurns';
import type { TrackingTable } from '../database/schema';
import { COLUMNS } from '../database/columns';

/** In a transaction of its own, or as part of the one it is called in. */
function inOneGo<T>(db: Db, work: (trx: Db) => Promise<T>): Promise<T> {
  return db.isTransaction ? work(db) : db.transaction().execute(work);
}

const jobs = (db: Db) =>
  db
    .selectFrom('tracking')
    .innerJoin('clip', 'clip.id', 'tracking.clip_id')
    .where('clip.deleted_at', 'is', null)
    .selectAll('tracking')
    .select('clip.file_name');

/** Every tracking that is not over, oldest first. */
export async function openJobs(db: Db): Promise<Job[]> {
  const rows = await jobs(db)
    .where('tracking.state', 'in', ['wanted', 'paused'])
    .orderBy('tracking.created_at')
    .execute();
  return rows.map(fromRow);
}

export async function jobOf(db: Db, clipId: string): Promise<Job | null> {
  const row = await jobs(db).where('tracking.clip_id', '=', clipId).executeTakeFirst();
  return row ? fromRow(row) : null;
}

function fromRow(row: Selectable<TrackingTable> & { file_name: string }): Job {
  return {
    clipId: row.clip_id,
    fileName: row.file_name,
    model: row.model,
    state: row.state,
    message: row.message,
    person: COLUMNS.tracking.person.readOr(row.person, null),
    found: COLUMNS.tracking.found.readOr(row.found, null),
  };
}

/** @returns false when the clip is gone, or nothing is being tracked of which this could be said */
export async function changeJob(db: Db, clipId: string, request: JobRequest): Promise<boolean> {
  if (request.kind === 'start') return startJob(db, clipId, request);
  if (request.kind === 'bands') await dropBandTurns(db, clipId);
  const values = {
    pause: { state: 'paused' as const },
    resume: { state: 'wanted' as const, message: null },
    bands: { state: 'wanted' as const, message: null },
    found: { found: request.kind === 'found' ? COLUMNS.tracking.found.write(request.found) : null },
    finish: request.kind === 'finish' ? { state: request.state, message: request.message } : {},
  }[request.kind];
  const { numUpdatedRows } = await db
    .updateTable('tracking')
    .set({ ...values, updated_at: now() })
    .where('clip_id', '=', clipId)
    .executeTakeFirst();
  return numUpdatedRows > 0n;
}

/** Track a clip, or track it anew: what was seen before goes. */
async function startJob(
  db: Db,
  clipId: string,
  { model, person }: Extract<JobRequest, { kind: 'start' }>,
): Promise<boolean> {
  return inOneGo(db, async (trx) => {
    const clip = await trx
      .selectFrom('clip')
      .select('id')
      .where('id', '=', clipId)
      .executeTakeFirst();
    if (!clip) return false;
    await forget(trx, clipId);
    await trx
      .insertInto('tracking')
      .values({
        clip_id: clipId,
        model,
        state: 'wanted',
        message: null,
        person: person && COLUMNS.tracking.person.write(person),
        found: null,
        ...stamps(),
      })
      .execute();
    return true;
  });
}

/** Give up a tracking and forget what was seen. */
export async function dropJob(db: Db, clipId: string): Promise<void> {
  await db.transaction().execute((trx) => forget(trx, clipId));
}

/** The body, and the bands, which are read where the body is. */
async function forget(trx: Db, clipId: string): Promise<void> {
  await dropBandTurns(trx, clipId);
  await trx.deleteFrom('detection').where('clip_id', '=', clipId).execute();
  await trx.deleteFrom('tracking').where('clip_id', '=', clipId).execute();
}

/**
 * @returns false when the clip is not being tracked (any more), or has no such frame
 */
export async function addDetections(
  db: Db,
  clipId: string,
  detections: readonly PoseDetection[],
): Promise<boolean> {
  return inOneGo(db, async (trx) => {
    const clip = await trx
      .selectFrom('tracking')
      .innerJoin('clip', 'clip.id', 'tracking.clip_id')
      .select('clip.frame_times')
      .where('tracking.clip_id', '=', clipId)
      .executeTakeFirst();
    const count = (clip?.frame_times.length ?? 0) / 8;
    if (detections.some(({ frame }) => frame >= count)) return false;
    const points = Buffer.from(encodeDetections(detections));
    await trx
      .insertInto('detection')
      .values({ clip_id: clipId, points, ...stamps() })
      .execute();
    return true;
  });
}

/** All that was seen of a clip, frames ascending; of a frame seen twice the later one. */
export async function detectionsOf(db: Db, clipId: string): Promise<PoseDetection[]> {
  const rows = await db
    .selectFrom('detection')
    .select('points')
    .where('clip_id', '=', clipId)
    .orderBy('id')
    .execute();
  const byFrame = new Map<number, PoseDetection>();
  for (const { points } of rows) {
    for (const detection of decodeDetections(points)) byFrame.set(detection.frame, detection);
  }
  return [...byFrame.values()].sort((a, b) => a.frame - b.frame);
}
