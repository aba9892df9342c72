/** What the coach has set on a clip's bench: loaded and saved whole. */
import { nanoid } from 'nanoid';
import { realFrameTimes } from '@sinew/core/track/time';
import { marksOf } from './benchAnalysis';
import { lineSchema, scaleSchema, type BenchDocument, type StrikeDocument } from './benchDocument';
import { now, stamps, type Db } from './database';
import { decodePlaced, decodeTimes, encodePlaced } from './placedBlob';

export interface SavedBench {
  readonly revision: number;
  readonly document: BenchDocument;
}

export async function loadBench(db: Db, clipId: string): Promise<SavedBench | null> {
  const clip = await db.selectFrom('clip').selectAll().where('id', '=', clipId).executeTakeFirst();
  if (!clip) return null;
  const track = await db
    .selectFrom('track')
    .select('points')
    .where('clip_id', '=', clipId)
    .where('source', '=', 'hand')
    .executeTakeFirst();
  const strikes = await db
    .selectFrom('strike')
    .select(['id', 'technique', 'side'])
    .where('clip_id', '=', clipId)
    .where('removed_at', 'is', null)
    .orderBy('position')
    .execute();
  const marks = await db
    .selectFrom('mark')
    .innerJoin('strike', 'strike.id', 'mark.strike_id')
    .select(['mark.strike_id', 'mark.event', 'mark.frame', 'mark.width'])
    .where('strike.clip_id', '=', clipId)
    .execute();
  return {
    revision: clip.revision,
    document: {
      view: clip.view,
      captureRate: clip.capture_rate,
      scale: clip.scale === null ? null : scaleSchema.parse(JSON.parse(clip.scale)),
      target: clip.target === null ? null : lineSchema.parse(JSON.parse(clip.target)),
      placed: track ? decodePlaced(track.points) : [],
      strikes: strikes.map((strike) => ({
        id: strike.id,
        technique: strike.technique as StrikeDocument['technique'],
        side: strike.side,
        marks: Object.fromEntries(
          marks
            .filter((mark) => mark.strike_id === strike.id)
            .map(({ event, frame, width }) => [event, { frame, width }]),
        ),
      })),
    },
  };
}

export type SaveOutcome =
  | { readonly kind: 'saved'; readonly revision: number }
  | { readonly kind: 'conflict' }
  | { readonly kind: 'gone' };

/**
 * Save the bench's document whole, in one transaction, if nobody has saved since `revision`.
 */
export async function saveBench(
  db: Db,
  clipId: string,
  { revision, document }: SavedBench,
): Promise<SaveOutcome> {
  return db.transaction().execute(async (trx): Promise<SaveOutcome> => {
    const clip = await trx
      .selectFrom('clip')
      .select(['revision', 'frame_times'])
      .where('id', '=', clipId)
      .executeTakeFirst();
    if (!clip) return { kind: 'gone' };
    if (clip.revision !== revision) return { kind: 'conflict' };
    const realTimes = realFrameTimes(decodeTimes(clip.frame_times), document.captureRate);
    await trx
      .updateTable('clip')
      .set({
        view: document.view,
        capture_rate: document.captureRate,
        scale: document.scale && JSON.stringify(document.scale),
        target: document.target && JSON.stringify(document.target),
        revision: revision + 1,
        updated_at: now(),
      })
      .where('id', '=', clipId)
      .execute();
    const points = encodePlaced(document.placed);
    await trx
      .insertInto('track')
      .values({ id: nanoid(), clip_id: clipId, source: 'hand', points, ...stamps() })
      .onConflict((conflict) =>
        conflict.columns(['clip_id', 'source']).doUpdateSet({ points, updated_at: now() }),
      )
      .execute();
    await saveStrikes(trx, clipId, document.strikes, realTimes);
    return { kind: 'saved', revision: revision + 1 };
  });
}

async function saveStrikes(
  trx: Db,
  clipId: string,
  strikes: readonly StrikeDocument[],
  realTimes: readonly number[],
): Promise<void> {
  const ids = strikes.map((strike) => strike.id);
  const foreign = await trx
    .selectFrom('strike')
    .select('id')
    .where('id', 'in', ids)
    .where('clip_id', '!=', clipId)
    .executeTakeFirst();
  if (foreign) throw new Error(`strike ${foreign.id} belongs to another clip`);
  await trx
    .updateTable('strike')
    .set({ removed_at: now() })
    .where('clip_id', '=', clipId)
    .where('removed_at', 'is', null)
    .$if(ids.length > 0, (query) => query.where('id', 'not in', ids))
    .execute();
  for (const [position, { id, technique, side, ...strike }] of strikes.entries()) {
    const values = { technique, side, position, removed_at: null };
    await trx
      .insertInto('strike')
      .values({ id, clip_id: clipId, ...values, ...stamps() })
      .onConflict((conflict) => conflict.column('id').doUpdateSet({ ...values, updated_at: now() }))
      .execute();
    await trx.deleteFrom('mark').where('strike_id', '=', id).execute();
    const marks = marksOf({ id, technique, side, ...strike }, realTimes);
    const rows = Object.entries(marks).map(([event, mark]) => ({
      strike_id: id,
      event: event as keyof typeof marks,
      width: strike.marks[event as keyof typeof marks]!.width,
      ...mark,
      ...stamps(),
    }));
    if (rows.length > 0) await trx.insertInto('mark').values(rows).execute();
  }
}
