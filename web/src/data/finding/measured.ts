/**
 * What every strike measures, kept so that a ledger need not measure a year anew. A cache: each row
 * says what it was measured and judged by, and one that says something else is worked out again: by
 * the stage that keeps it (`measureStudent`), and by whoever reads before that has run (`strikesNow`).
 */
import { MEASURE_IDS } from '@sinew/core/measure/measures/allMeasures';
import { group } from 'd3-array';
import { sql } from 'kysely';
import type { Day } from '@sinew/core/foundation/calendar/day';
import type { Side } from '@sinew/core/foundation/body/landmarks';
import type { Verdict } from '@sinew/core/measure/chain/verdict';
import type { Readings } from '@sinew/core/measure/measures/allMeasures';
import type { Link, View } from '@sinew/core/foundation/technique/techniques';
import type { Intent } from '@sinew/core/foundation/drill/intent';
import { measureInClip } from '@sinew/core/analysis/analyzeClip';
import type { StrikeDocument } from '@sinew/core/analysis/clipDocument';
import { judgeMeasured } from '@sinew/core/analysis/analyze';
import { rulesFor } from '@sinew/core/analysis/rules';
import { now, stamps, type Db } from '../database/db';
import { clipInputOf, type ClipAndLibrary } from '../clip/clipInput';
import { packed, unpacked } from './packedReadings';
import { judgedAnew, rulesOf, shownBy, type Shows } from './foundFaults';
import { dayIn } from '../database/today';
import { COLUMNS } from '../database/columns';

/** Raised when the core measures otherwise than before; a reading more raises it by itself. */
export const VERSION = `17.${MEASURE_IDS.length}`;

export interface MeasuredStrike {
  readonly id: string;
  readonly clipId: string;
  readonly technique: string;
  readonly side: Side;
  readonly view: View;
  readonly intent: Intent | null;
  readonly round: number | null;
  /** The day it was filmed, as the gym's calendar has it. */
  readonly day: Day;
  readonly filmedAt: string;
  readonly readings: Readings;
  readonly links: Partial<Record<Link, Verdict>>;
  readonly shows: Shows;
}

/** What a strike is measured from, as text: another text, another measuring. */
const stamp = sql<string>`${VERSION} || '/' || clip.revision || '/' || student.stance || '/' ||
  coalesce(student.height_m, '') || '/' || coalesce(student.mass_kg, '') || '/' ||
  coalesce(tracking.updated_at, '') || '/' || coalesce(series.updated_at, '') || '/' ||
  coalesce((
    select band_turn.updated_at from band_turn where band_turn.clip_id = clip.id), '') || '/' ||
  coalesce((
    select view_pair.updated_at || other.revision from view_pair
      join clip as other on other.id <> clip.id
        and other.id in (view_pair.first_clip_id, view_pair.second_clip_id)
    where view_pair.first_clip_id = clip.id or view_pair.second_clip_id = clip.id), '')`;

/** A strike worked out anew; null where what was kept still holds. */
interface Update {
  readonly id: string;
  readonly measured: {
    readonly stamp: string;
    /** See `packedReadings.ts`. */
    readonly readings: string;
    readonly links: MeasuredStrike['links'];
  } | null;
  readonly rules: string;
  readonly shows: Shows;
}

interface Asked {
  readonly clipId?: string;
  /** After which no further strike is begun. */
  readonly milliseconds: number;
}

/** Strikes of a student that were never measured, or were changed since; newest film first. */
async function staleOf(db: Db, studentId: string, clipId?: string) {
  return db
    .selectFrom('strike')
    .innerJoin('clip', 'clip.id', 'strike.clip_id')
    .innerJoin('student', 'student.id', 'clip.student_id')
    .leftJoin('tracking', 'tracking.clip_id', 'clip.id')
    .leftJoin('series', 'series.clip_id', 'clip.id')
    .leftJoin('measured', 'measured.strike_id', 'strike.id')
    .select(['strike.id', 'strike.clip_id', stamp.as('stamp')])
    .where('clip.student_id', '=', studentId)
    .where('clip.deleted_at', 'is', null)
    .where('clip.purged_at', 'is', null)
    .where('strike.removed_at', 'is', null)
    .where('strike.is_automatic', '=', 0)
    .$if(clipId !== undefined, (query) => query.where('clip.id', '=', clipId!))
    .where(({ or, eb }) =>
      or([eb('measured.stamp', 'is', null), eb('measured.stamp', '!=', stamp)]),
    )
    .orderBy('clip.created_at', 'desc')
    .execute();
}

/**
 * Works out what is not kept as it is now, and writes nothing. What was measured and is only judged by
 * other rules than today's comes last.
 *
 * @returns how many strikes there was no time for
 */
async function* updates(
  db: Db,
  studentId: string,
  { clipId, milliseconds }: Asked,
): AsyncGenerator<Update, number> {
  const stale = await staleOf(db, studentId, clipId);
  const until = Date.now() + milliseconds;
  let left = stale.length;
  for (const [filmId, strikes] of group(stale, ({ clip_id }) => clip_id)) {
    if (Date.now() >= until) break;
    const found = await clipInputOf(db, filmId);
    for (const { id, stamp: from } of strikes) {
      if (Date.now() >= until) break;
      const strike = found?.clip.document.strikes.find((one) => one.id === id);
      left -= 1;
      if (!found || !strike) continue;
      yield measuredAnew(found, strike, from);
    }
  }
  const again = new Set(stale.map(({ id }) => id));
  for (const one of await judgedAnew(db, studentId, clipId)) {
    if (!again.has(one.id)) yield { ...one, measured: null };
  }
  return left;
}

function measuredAnew(
  { clip, library }: ClipAndLibrary,
  strike: StrikeDocument,
  from: string,
): Update {
  const { document, student } = clip;
  const { facts, problems, ...measured } = measureInClip(clip, strike);
  const rules = rulesFor(strike, document.strikes, student, library);
  const findings = judgeMeasured({ ...measured, problems }, facts.strike, rules);
  return {
    id: strike.id,
    measured: {
      stamp: from,
      // Marks that contradict each other measure nothing.
      readings: problems.length > 0 ? '{}' : packed(measured.readings),
      links: Object.fromEntries(
        Object.entries(measured.links).map(([link, { verdict }]) => [link, verdict]),
      ),
    },
    rules: rulesOf(library, student.school),
    shows: shownBy(findings),
  };
}

/** What is to be kept of a student's strikes, and how many strikes there was no time for. */
export interface ToKeep {
  readonly updates: readonly Update[];
  readonly left: number;
}

/**
 * Measures what is stale, and judges what was judged by other rules, for about so long.
 *
 * @param milliseconds after which no further strike is begun
 */
export async function toKeep(db: Db, studentId: string, milliseconds: number): Promise<ToKeep> {
  const { anew, left } = await updatesIn(db, studentId, { milliseconds });
  return { updates: [...anew.values()], left };
}

export async function keepMeasured(db: Db, { updates: all }: ToKeep): Promise<void> {
  if (all.length === 0) return;
  await db.transaction().execute(async (trx) => {
    for (const one of all) await keep(trx, one);
  });
}

/**
 * The stage: both, for everything.
 *
 * @returns how many strikes are left
 */
export async function measureStudent(
  db: Db,
  studentId: string,
  milliseconds = Infinity,
): Promise<number> {
  const found = await toKeep(db, studentId, milliseconds);
  await keepMeasured(db, found);
  return found.left;
}

async function keep(db: Db, { id, measured, rules, shows }: Update): Promise<void> {
  const judged = { rules, shows: COLUMNS.measured.shows.write(shows) };
  if (!measured) {
    await db
      .updateTable('measured')
      .set({ ...judged, updated_at: now() })
      .where('strike_id', '=', id)
      .execute();
    return;
  }
  const values = {
    ...judged,
    stamp: measured.stamp,
    readings: measured.readings,
    links: COLUMNS.measured.links.write(measured.links as Record<string, Verdict>),
  };
  await db
    .insertInto('measured')
    .values({ strike_id: id, ...values, ...stamps() })
    .onConflict((conflict) =>
      conflict.column('strike_id').doUpdateSet({ ...values, updated_at: now() }),
    )
    .execute();
}

/** A student's strikes with what is kept of each, oldest first. */
export const strikesOf = (db: Db, studentId: string) =>
  db
    .selectFrom('strike')
    .innerJoin('clip', 'clip.id', 'strike.clip_id')
    .leftJoin('measured', 'measured.strike_id', 'strike.id')
    .select(['strike.id', 'strike.clip_id', 'strike.technique', 'strike.side'])
    .select(['clip.view', 'clip.intent', 'clip.round', 'clip.created_at'])
    .where('clip.student_id', '=', studentId)
    .where('clip.deleted_at', 'is', null)
    .where('strike.removed_at', 'is', null)
    .orderBy('clip.created_at')
    .orderBy('strike.position');

/** Whether all of a student's strikes are kept as they are now. */
export async function isKept(db: Db, studentId: string): Promise<boolean> {
  const [stale, otherwise] = await Promise.all([staleOf(db, studentId), judgedAnew(db, studentId)]);
  return stale.length === 0 && otherwise.length === 0;
}

/** Which strikes are asked for; all where nothing is said. */
export interface Which {
  readonly technique?: string;
  readonly clipId?: string;
  /** What may be worked out while somebody waits, ms. */
  readonly milliseconds?: number;
}

export interface StrikesNow {
  /** Oldest first. */
  readonly strikes: readonly MeasuredStrike[];
  /** Strikes that there was no time to measure. */
  readonly left: number;
}

/** Measured strikes as they are now, whether that is kept yet or not. Nothing is written. */
export async function strikesNow(
  db: Db,
  studentId: string,
  { technique, clipId, milliseconds = Infinity }: Which = {},
): Promise<StrikesNow> {
  const { anew, left } = await updatesIn(db, studentId, { clipId, milliseconds });
  const rows = await strikesOf(db, studentId)
    .select(['measured.readings', 'measured.links', 'measured.shows'])
    .$if(technique !== undefined, (query) => query.where('strike.technique', '=', technique!))
    .$if(clipId !== undefined, (query) => query.where('clip.id', '=', clipId!))
    .execute();
  const found = rows.flatMap((row): MeasuredStrike[] => {
    const update = anew.get(row.id);
    const kept = row.readings === null || row.links === null ? null : row;
    if (!update?.measured && !kept) return [];
    return [
      {
        id: row.id,
        clipId: row.clip_id,
        technique: row.technique,
        side: row.side,
        view: row.view,
        intent: row.intent,
        round: row.round,
        day: dayIn(new Date(row.created_at)),
        filmedAt: row.created_at,
        readings: unpacked(update?.measured?.readings ?? kept!.readings!),
        links:
          update?.measured?.links ??
          (COLUMNS.measured.links.readOr(kept!.links, {}) as MeasuredStrike['links']),
        shows:
          update?.shows ?? COLUMNS.measured.shows.readOr(kept!.shows, { found: [], clear: [] }),
      },
    ];
  });
  return { strikes: found, left };
}

/** What each strike shows now, without its readings. */
export async function shownNow(
  db: Db,
  studentId: string,
  milliseconds = Infinity,
): Promise<readonly Pick<MeasuredStrike, 'id' | 'clipId' | 'technique' | 'shows'>[]> {
  const { anew } = await updatesIn(db, studentId, { milliseconds });
  const rows = await strikesOf(db, studentId).select('measured.shows').execute();
  return rows.flatMap(({ id, clip_id, technique, shows: kept }) => {
    const shows = anew.get(id)?.shows ?? COLUMNS.measured.shows.readOr(kept, null);
    return shows ? [{ id, clipId: clip_id, technique, shows }] : [];
  });
}

async function updatesIn(db: Db, studentId: string, asked: Asked) {
  const anew = new Map<string, Update>();
  const work = updates(db, studentId, asked);
  for (;;) {
    const next = await work.next();
    if (next.done) return { anew, left: next.value };
    anew.set(next.value.id, next.value);
  }
}
