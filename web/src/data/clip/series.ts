/** Landmark series measured elsewhere, kept with the clip they belong to. */
import { readTrackJson, writeTrackJson } from '@sinew/core/format/trackJson';
import type { PoseDetection } from '@sinew/core/observe/track/poseDetection';
import type { SpaceTrack } from '@sinew/core/observe/track/track';
import type { ImportedSeries } from '@sinew/core/analysis/clipFacts';
import { now, stamps, type Db } from '../database/db';
import { addDetections, changeJob } from './trackings';

export async function seriesOf(db: Db, clipId: string): Promise<ImportedSeries | null> {
  const row = await db
    .selectFrom('series')
    .selectAll()
    .where('clip_id', '=', clipId)
    .executeTakeFirst();
  if (!row) return null;
  const { space, ...track } = readTrackJson(row.track);
  if (space !== '3d') throw new Error('a series in the picture was kept as one in space');
  return { fileName: row.file_name, begins: row.begins, track: { ...track, space } as SpaceTrack };
}

/** @returns false when the clip is gone */
export async function keepSeries(
  db: Db,
  clipId: string,
  { fileName, begins, track }: ImportedSeries,
): Promise<boolean> {
  const clip = await db.selectFrom('clip').select('id').where('id', '=', clipId).executeTakeFirst();
  if (!clip) return false;
  const values = { file_name: fileName, begins, track: writeTrackJson(track) };
  await db
    .insertInto('series')
    .values({ clip_id: clipId, ...values, ...stamps() })
    .onConflict((conflict) =>
      conflict.column('clip_id').doUpdateSet({ ...values, updated_at: now() }),
    )
    .execute();
  return true;
}

export async function dropSeries(db: Db, clipId: string): Promise<void> {
  await db.deleteFrom('series').where('clip_id', '=', clipId).execute();
}

/** Points in the picture take the place of what the program's own tracker has seen. */
export async function keepAsSeen(
  db: Db,
  clipId: string,
  fileName: string,
  detections: readonly PoseDetection[],
): Promise<boolean> {
  return db.transaction().execute(async (trx) => {
    if (!(await changeJob(trx, clipId, { kind: 'start', model: 'standard', person: null }))) {
      return false;
    }
    const message = `These points come from ${fileName}.`;
    await changeJob(trx, clipId, { kind: 'finish', state: 'done', message });
    if (!(await addDetections(trx, clipId, detections))) {
      throw new Error('the series has frames that the film does not have');
    }
    return true;
  });
}
