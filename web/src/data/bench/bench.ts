/** What the coach has set on a clip's bench: loaded and saved whole. */
import { nanoid } from 'nanoid';
import { eventsOf, type EventMark, type EventName } from '@sinew/core/measure/events/events';
import { techniqueById } from '@sinew/core/foundation/technique/techniques';
import { realFrameTimes } from '@sinew/core/observe/track/time';
import { marksOf } from '@sinew/core/analysis/analyzeClip';
import { type ClipDocument, type StrikeDocument } from '@sinew/core/analysis/clipDocument';
import { refused } from '@sinew/core/foundation/problem/problem';
import { now, stamps, type Db } from '../database/db';
import { decodePlaced, decodeTimes, encodePlaced } from './placedBlob';
import { COLUMNS } from '../database/columns';

export interface SavedBench {
  readonly revision: number;
  readonly document: ClipDocument;
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
    .selectAll()
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
      ...(clip.azimuth !== null && { azimuth: clip.azimuth }),
      captureRate: clip.capture_rate,
      purpose: COLUMNS.clip.purpose.readOr(clip.purpose, null),
      ...(clip.intent !== null && { intent: clip.intent }),
      ...(clip.round !== null && { round: clip.round }),
      scale: COLUMNS.clip.scale.readOr(clip.scale, null),
      target: COLUMNS.clip.target.readOr(clip.target, null),
      rectangle: COLUMNS.clip.rectangle.readOr(clip.rectangle, null),
      lens: COLUMNS.clip.lens.readOr(clip.lens, null),
      refused: COLUMNS.clip.refused.readOr(clip.refused, []),
      placed: track ? decodePlaced(track.points) : [],
      corrections: COLUMNS.clip.corrections.readOr(clip.corrections, []),
      ...(clip.drawings !== null && {
        drawings: COLUMNS.clip.drawings.readOr(clip.drawings, []),
      }),
      ...(clip.note !== null && { note: clip.note }),
      strikes: strikes.map((strike) => ({
        id: strike.id,
        technique: strike.technique as StrikeDocument['technique'],
        side: strike.side,
        ...(strike.from_frame !== null &&
          strike.to_frame !== null && { span: { from: strike.from_frame, to: strike.to_frame } }),
        ...(strike.combination !== null && { combination: strike.combination }),
        ...(strike.is_automatic === 1 && { isAutomatic: true as const }),
        ...(strike.school !== null && { school: COLUMNS.strike.school.readOr(strike.school, {}) }),
        ...(strike.situation !== null && { situation: strike.situation }),
        ...(strike.range !== null && { range: strike.range }),
        ...(strike.audit !== null && {
          audit: COLUMNS.strike.audit.readOr(strike.audit, {}),
        }),
        ...(strike.looks !== null && {
          looks: COLUMNS.strike.looks.readOr(strike.looks, []),
        }),
        ...(strike.note !== null && { note: strike.note }),
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
      .select(['revision', 'frame_times', 'purpose', 'scale', 'target', 'rectangle', 'lens'])
      .select(['refused', 'corrections', 'drawings'])
      .where('id', '=', clipId)
      .executeTakeFirst();
    if (!clip) return { kind: 'gone' };
    if (clip.revision !== revision) return { kind: 'conflict' };
    const realTimes = realFrameTimes(decodeTimes(clip.frame_times), document.captureRate);
    await trx
      .updateTable('clip')
      .set({
        view: document.view,
        azimuth: document.azimuth ?? null,
        capture_rate: document.captureRate,
        purpose: COLUMNS.clip.purpose.over(clip.purpose, document.purpose),
        intent: document.intent ?? null,
        round: document.round ?? null,
        scale: COLUMNS.clip.scale.over(clip.scale, document.scale),
        target: COLUMNS.clip.target.over(clip.target, document.target),
        rectangle: COLUMNS.clip.rectangle.over(clip.rectangle, document.rectangle),
        lens: COLUMNS.clip.lens.over(clip.lens, document.lens),
        refused: COLUMNS.clip.refused.over(clip.refused, document.refused),
        corrections: COLUMNS.clip.corrections.over(clip.corrections, document.corrections),
        drawings: COLUMNS.clip.drawings.over(clip.drawings, document.drawings ?? null),
        note: document.note ?? null,
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
  if (foreign) {
    throw refused(
      'A strike of another clip came with these marks; nothing was saved.',
      'Reload the page.',
    );
  }
  await trx
    .updateTable('strike')
    .set({ removed_at: now() })
    .where('clip_id', '=', clipId)
    .where('removed_at', 'is', null)
    .$if(ids.length > 0, (query) => query.where('id', 'not in', ids))
    .execute();
  const before = await trx
    .selectFrom('strike')
    .select(['id', 'school', 'audit', 'looks'])
    .where('id', 'in', ids)
    .execute();
  const kept = new Map(before.map((row) => [row.id, row]));
  for (const [position, strike] of strikes.entries()) {
    const { id, technique, side, span, combination = null, isAutomatic = false } = strike;
    const { school = null, situation = null, range = null, audit = null, looks = null } = strike;
    const { note = null } = strike;
    const marks = Object.entries(marksOf(strike, realTimes)) as [EventName, EventMark][];
    const isMarked = new Set(marks.map(([event]) => event));
    const missing = eventsOf(techniqueById(technique)).filter((event) => !isMarked.has(event));
    const values = {
      school: COLUMNS.strike.school.over(kept.get(id)?.school ?? null, school),
      situation,
      range,
      audit: COLUMNS.strike.audit.over(kept.get(id)?.audit ?? null, audit),
      looks: COLUMNS.strike.looks.over(kept.get(id)?.looks ?? null, looks),
      note,
      technique,
      side,
      position,
      combination,
      removed_at: null,
      marks_left: missing.length,
      from_frame: span?.from ?? null,
      to_frame: span?.to ?? null,
      is_automatic: isAutomatic ? (1 as const) : (0 as const),
    };
    await trx
      .insertInto('strike')
      .values({ id, clip_id: clipId, ...values, ...stamps() })
      .onConflict((conflict) => conflict.column('id').doUpdateSet({ ...values, updated_at: now() }))
      .execute();
    await trx.deleteFrom('mark').where('strike_id', '=', id).execute();
    const rows = marks.map(([event, mark]) => ({
      strike_id: id,
      event,
      width: strike.marks[event]!.width,
      ...mark,
      ...stamps(),
    }));
    if (rows.length > 0) await trx.insertInto('mark').values(rows).execute();
  }
}
