/**
 * What every strike measures, kept so that a ledger need not measure a year anew. A cache: each row
 * says what it was measured from, and one that says something else is measured again.
 */
import { group } from 'd3-array';
import { sql } from 'kysely';
import { z } from 'zod';
import type { Day } from '@sinew/core/foundation/calendar/day';
import type { Side } from '@sinew/core/foundation/body/landmarks';
import type { Verdict } from '@sinew/core/measure/chain/verdict';
import type { Readings } from '@sinew/core/measure/measures/allMeasures';
import type { Link, View } from '@sinew/core/foundation/technique/techniques';
import type { Intent } from '@sinew/core/foundation/drill/intent';
import { measureInClip, type MeasuredInClip } from '@sinew/core/analysis/analyzeClip';
import { judgeMeasured } from '@sinew/core/analysis/analyze';
import { rulesFor } from '@sinew/core/analysis/rules';
import type { Finding } from '@sinew/core/judge/fault/finding';
import { now, stamps, type Db } from '../database/database';
import { clipInputOf } from '../clip/clipInput';
import { packed, unpacked } from './packedReadings';
import { judgeStudent, rulesOf, shownBy, showsSchema, type Shows } from './foundFaults';
import { dayIn } from '../database/today';

/** Raised when the core measures otherwise than before. */
const VERSION = 1;

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

const stamp = sql<string>`${VERSION} || '/' || clip.revision || '/' || student.stance || '/' ||
  coalesce(student.height_m, '') || '/' || coalesce(student.mass_kg, '') || '/' ||
  coalesce(tracking.updated_at, '') || '/' || coalesce(series.updated_at, '') || '/' ||
  coalesce((
    select view_pair.updated_at || other.revision from view_pair
      join clip as other on other.id <> clip.id
        and other.id in (view_pair.first_clip_id, view_pair.second_clip_id)
    where view_pair.first_clip_id = clip.id or view_pair.second_clip_id = clip.id), '')`;

/** Strikes of a student that were never measured, or were changed since. */
async function staleOf(db: Db, studentId: string) {
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
    .where(({ or, eb }) =>
      or([eb('measured.stamp', 'is', null), eb('measured.stamp', '!=', stamp)]),
    )
    .orderBy('clip.created_at', 'desc')
    .execute();
}

/**
 * Measure what is stale, newest film first, for about so long; and judge what was measured before
 * and judged by other rules.
 *
 * @param milliseconds after which no further strike is begun
 * @returns how many strikes are left
 */
export async function measureStudent(
  db: Db,
  studentId: string,
  milliseconds = Infinity,
): Promise<number> {
  const stale = await staleOf(db, studentId);
  const until = Date.now() + milliseconds;
  let left = stale.length;
  for (const [clipId, strikes] of group(stale, ({ clip_id }) => clip_id)) {
    if (Date.now() >= until) break;
    const found = await clipInputOf(db, clipId);
    for (const { id, stamp: from } of strikes) {
      if (Date.now() >= until) break;
      const strike = found?.clip.document.strikes.find((one) => one.id === id);
      left -= 1;
      if (!found || !strike) continue;
      const { clip, library } = found;
      const { document, student } = clip;
      const measured = measureInClip(clip, strike);
      const rules = rulesFor(strike, document.strikes, student, library);
      const findings = judgeMeasured(measured, measured.facts.strike, rules);
      await keep(db, id, { from, rules: rulesOf(library, student.school) }, measured, findings);
    }
  }
  await judgeStudent(db, studentId);
  return left;
}

async function keep(
  db: Db,
  id: string,
  { from, rules }: { readonly from: string; readonly rules: string },
  { readings, links, problems }: MeasuredInClip,
  findings: readonly Finding[],
): Promise<void> {
  const values = {
    ...{ stamp: from, rules, shows: JSON.stringify(shownBy(findings)) },
    // Marks that contradict each other measure nothing.
    readings: problems.length > 0 ? '{}' : packed(readings),
    links: JSON.stringify(
      Object.fromEntries(Object.entries(links).map(([link, { verdict }]) => [link, verdict])),
    ),
  };
  await db
    .insertInto('measured')
    .values({ strike_id: id, ...values, ...stamps() })
    .onConflict((conflict) =>
      conflict.column('strike_id').doUpdateSet({ ...values, updated_at: now() }),
    )
    .execute();
}

export const linksSchema = z.record(z.string(), z.enum(['drives', 'neutral', 'drags']));

/** Measured strikes, oldest first; of one technique or all, of one clip or all. */
export async function measuredStrikes(
  db: Db,
  studentId: string,
  technique?: string,
  clipId?: string,
): Promise<MeasuredStrike[]> {
  const rows = await db
    .selectFrom('measured')
    .innerJoin('strike', 'strike.id', 'measured.strike_id')
    .innerJoin('clip', 'clip.id', 'strike.clip_id')
    .select(['strike.id', 'strike.clip_id', 'strike.technique', 'strike.side'])
    .select(['clip.view', 'clip.intent', 'clip.round', 'clip.created_at'])
    .select(['measured.readings', 'measured.links', 'measured.shows'])
    .where('clip.student_id', '=', studentId)
    .where('clip.deleted_at', 'is', null)
    .where('strike.removed_at', 'is', null)
    .$if(technique !== undefined, (query) => query.where('strike.technique', '=', technique!))
    .$if(clipId !== undefined, (query) => query.where('clip.id', '=', clipId!))
    .orderBy('clip.created_at')
    .orderBy('strike.position')
    .execute();
  return rows.map((row) => ({
    id: row.id,
    clipId: row.clip_id,
    technique: row.technique,
    side: row.side,
    view: row.view,
    intent: row.intent,
    round: row.round,
    day: dayIn(new Date(row.created_at)),
    filmedAt: row.created_at,
    readings: unpacked(row.readings),
    links: linksSchema.parse(JSON.parse(row.links)) as MeasuredStrike['links'],
    shows: showsSchema.parse(JSON.parse(row.shows)),
  }));
}
