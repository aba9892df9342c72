/** Two clips of one take: which belong together, and how their clocks differ. */
import type { Offset } from '@sinew/core/observe/sound/sync';
import { loadBench, type SavedBench } from '../bench/bench';
import { trackedOf, type SecondFilm } from '@sinew/core/analysis/clipFacts';
import { clipById, type Clip } from './clips';
import { now, stamps, type Db } from '../database/db';
import { detectionsOf } from './trackings';

export interface SecondView {
  readonly clip: Clip;
  readonly bench: SavedBench;
  /** To add to a real time of the clip that was asked about to get this one's. */
  readonly offset: Offset;
}

/** The clip that shows the same take as this one, or null. */
export async function secondViewOf(db: Db, clipId: string): Promise<SecondView | null> {
  const row = await db
    .selectFrom('view_pair')
    .selectAll()
    .where(({ or, eb }) =>
      or([eb('first_clip_id', '=', clipId), eb('second_clip_id', '=', clipId)]),
    )
    .executeTakeFirst();
  if (!row) return null;
  const isFirst = row.first_clip_id === clipId;
  const other = isFirst ? row.second_clip_id : row.first_clip_id;
  const [clip, bench] = await Promise.all([clipById(db, other), loadBench(db, other)]);
  if (!clip || !bench) return null;
  const { seconds, sigma, by, pairs } = row;
  return { clip, bench, offset: { seconds: isFirst ? seconds : -seconds, sigma, by, pairs } };
}

/** The same as the analysis asks for it. */
export async function secondFilmOf(db: Db, clipId: string): Promise<SecondFilm | null> {
  const second = await secondViewOf(db, clipId);
  if (!second) return null;
  const { clip, bench, offset } = second;
  const tracked = trackedOf(await detectionsOf(db, clip.id), clip, bench.document);
  return { document: bench.document, film: { ...clip, tracked }, offset };
}

/**
 * Join two clips of one student; what either was joined with before is parted from it.
 *
 * @param offset from the first's real times to the second's
 * @returns false when one of them is not there or is another student's
 */
export async function joinClips(
  db: Db,
  firstId: string,
  secondId: string,
  { seconds, sigma, by, pairs }: Offset,
): Promise<boolean> {
  return db.transaction().execute(async (trx) => {
    const clips = await trx
      .selectFrom('clip')
      .select(['id', 'student_id'])
      .where('id', 'in', [firstId, secondId])
      .execute();
    const [a, b] = clips;
    if (!a || !b || a.student_id !== b.student_id) return false;
    await part(trx, [firstId, secondId]);
    await trx
      .insertInto('view_pair')
      .values({
        first_clip_id: firstId,
        second_clip_id: secondId,
        seconds,
        sigma,
        by,
        pairs,
        ...stamps(),
      })
      .execute();
    await trx
      .updateTable('clip')
      .set({ updated_at: now() })
      .where('id', 'in', [firstId, secondId])
      .execute();
    return true;
  });
}

export async function partClips(db: Db, clipId: string): Promise<void> {
  await part(db, [clipId]);
}

async function part(db: Db, ids: readonly string[]): Promise<void> {
  await db
    .deleteFrom('view_pair')
    .where(({ or, eb }) => or([eb('first_clip_id', 'in', ids), eb('second_clip_id', 'in', ids)]))
    .execute();
}
