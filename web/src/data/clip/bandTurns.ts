/** What worn bands have told of a clip: read in the coach's browser, kept with the film. */
import type { KeptBands } from '@sinew/core/observe/band/bandTurns';
import { now, stamps, type Db } from '../database/db';
import { COLUMNS } from '../database/columns';

export async function bandTurnsOf(db: Db, clipId: string): Promise<KeptBands | null> {
  const row = await db
    .selectFrom('band_turn')
    .select('turns')
    .where('clip_id', '=', clipId)
    .executeTakeFirst();
  return COLUMNS.band_turn.turns.readOr(row?.turns ?? null, null);
}

/** @returns false when there is no such clip, or it has no such frame */
export async function keepBandTurns(db: Db, clipId: string, kept: KeptBands): Promise<boolean> {
  const clip = await db
    .selectFrom('clip')
    .select('frame_times')
    .where('id', '=', clipId)
    .executeTakeFirst();
  if (!clip) return false;
  const count = clip.frame_times.length / 8;
  const isOfFilm = Object.values(kept.bands).every(
    ({ turn }) => turn === null || turn.frames[turn.frames.length - 1]! < count,
  );
  if (!isOfFilm) return false;
  const turns = COLUMNS.band_turn.turns.write(kept);
  await db
    .insertInto('band_turn')
    .values({ clip_id: clipId, turns, ...stamps() })
    .onConflict((conflict) => conflict.column('clip_id').doUpdateSet({ turns, updated_at: now() }))
    .execute();
  return true;
}

export async function dropBandTurns(db: Db, clipId: string): Promise<void> {
  await db.deleteFrom('band_turn').where('clip_id', '=', clipId).execute();
}
