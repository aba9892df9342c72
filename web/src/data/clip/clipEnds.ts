/** How a clip goes: put away and brought back, gone for good, or only its film. */
import type { ClipFiles } from '../film/clipFiles';
import { isUnanswered } from '../film/filmShelf';
import { now, type Db } from '../database/db';
import { forgetTalks } from './talks';

/** Put a clip away: it and its cues are gone for the coach, and can be brought back for 30 days. */
export async function deleteClip(db: Db, id: string): Promise<void> {
  await db.transaction().execute(async (trx) => {
    await trx
      .updateTable('clip')
      .set({ deleted_at: now(), updated_at: now() })
      .where('id', '=', id)
      .where('deleted_at', 'is', null)
      .execute();
    await trx
      .updateTable('cue')
      .set({ status: 'closed', closed_at: now(), closed_because: 'film deleted' })
      .where('status', '=', 'active')
      .where('finding_id', 'in', findingsOfClip(trx, id))
      .execute();
  });
}

/** Bring a clip back, and its cues where the student has no other one by now. */
export async function restoreClip(db: Db, id: string): Promise<void> {
  await db.transaction().execute(async (trx) => {
    await trx
      .updateTable('clip')
      .set({ deleted_at: null, updated_at: now() })
      .where('id', '=', id)
      .execute();
    const cues = await trx
      .selectFrom('cue')
      .select(['id', 'student_id', 'technique'])
      .where('closed_because', '=', 'film deleted')
      .where('finding_id', 'in', findingsOfClip(trx, id))
      .execute();
    for (const cue of cues) {
      const other = await trx
        .selectFrom('cue')
        .select('id')
        .where('student_id', '=', cue.student_id)
        .where('technique', '=', cue.technique)
        .where('status', '=', 'active')
        .executeTakeFirst();
      await trx
        .updateTable('cue')
        .set(
          other
            ? { closed_because: 'replaced' }
            : { status: 'active', closed_at: null, closed_because: null },
        )
        .where('id', '=', cue.id)
        .execute();
    }
  });
}

const findingsOfClip = (db: Db, clipId: string) =>
  db
    .selectFrom('finding')
    .innerJoin('strike', 'strike.id', 'finding.strike_id')
    .select('finding.id')
    .where('strike.clip_id', '=', clipId);

/**
 * Remove a clip with its marks for good, and its file when no other clip is the same film.
 *
 * @returns the film whose file is gone, or null
 */
export async function destroyClip(db: Db, files: ClipFiles, id: string): Promise<string | null> {
  const row = await db.selectFrom('clip').select('sha256').where('id', '=', id).executeTakeFirst();
  if (!row) return null;
  await forgetTalks(files.folder, id);
  await db.deleteFrom('clip').where('id', '=', id).execute();
  return (await removeUnused(db, files, row.sha256)) ? row.sha256 : null;
}

/** Tables of where a body is seen in a film. */
export const OF_A_BODY = [
  'track',
  'detection',
  'band_turn',
  'series',
  'survey',
  'tracking',
] as const;

/**
 * Remove a film and every point of the body in it; instants and readings stay, which are numbers.
 *
 * @returns whether its file is gone: another student may have the same film
 */
export async function purgeFilm(db: Db, files: ClipFiles, id: string): Promise<boolean> {
  const sha256 = await db.transaction().execute(async (trx) => {
    const clip = await trx
      .updateTable('clip')
      .set({ purged_at: now(), drawings: null, updated_at: now() })
      .where('id', '=', id)
      .where('purged_at', 'is', null)
      .returning('sha256')
      .executeTakeFirst();
    for (const table of OF_A_BODY) {
      await trx.deleteFrom(table).where('clip_id', '=', id).execute();
    }
    return clip?.sha256;
  });
  if (sha256 !== undefined) await forgetTalks(files.folder, id);
  return sha256 !== undefined && (await removeUnused(db, files, sha256));
}

/** Remove a film's file unless another clip is the same film. @returns whether it goes */
export async function removeUnused(db: Db, files: ClipFiles, sha256: string): Promise<boolean> {
  const user = await db
    .selectFrom('clip')
    .select('id')
    .where('sha256', '=', sha256)
    .where('purged_at', 'is', null)
    .executeTakeFirst();
  if (user) return false;
  // Of a store that does not answer maintenance removes it: an erased row says that it must go.
  await files.remove(sha256).catch((error: unknown) => {
    if (!isUnanswered(error)) throw error;
  });
  return true;
}
