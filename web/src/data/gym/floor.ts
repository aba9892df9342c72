/** What the Floor shows of everybody, in a handful of queries however many there are. */
import { group } from 'd3-array';
import { sql } from 'kysely';
import type { Verdict } from '@sinew/core/measure/chain/verdict';
import type { Link, View } from '@sinew/core/foundation/technique/techniques';
import type { Db } from '../database/db';
import { COLUMNS } from '../database/columns';
import { retestsOf, type Retest } from '../work/retests';

export interface FloorFacts {
  readonly clips: number;
  /** Films nobody has worked yet, newest first. */
  readonly open: readonly {
    readonly id: string;
    readonly view: View;
    readonly isToConfirm: boolean;
  }[];
  readonly newest: { readonly id: string; readonly technique: string | null } | null;
  /** What each link did in the newest of the last films that tells it. */
  readonly links: Partial<Record<Link, Verdict>>;
  readonly work: readonly {
    readonly name: string;
    readonly technique: string | null;
    readonly nextCheck: string;
    /** Days on which it was worked since it was given. */
    readonly sessions: number;
    readonly retest: Retest | null;
  }[];
}

export const NOTHING: FloorFacts = { clips: 0, open: [], newest: null, links: {}, work: [] };

/** By student. */
export async function floorFacts(db: Db): Promise<ReadonlyMap<string, FloorFacts>> {
  const [clips, links, open, work, retests] = await Promise.all([
    clipsOf(db),
    linksOf(db),
    openClips(db),
    workOf(db),
    retestsOf(db),
  ]);
  const firstStrikes = await strikesOf(
    db,
    clips.map(({ id }) => id),
  );
  const byClip = group(firstStrikes, ({ clip_id }) => clip_id);
  const openBy = group(open, ({ student_id }) => student_id);
  const workBy = group(work, ({ student_id }) => student_id);
  const clipsBy = new Map(clips.map((one) => [one.student_id, one]));
  const facts = new Map<string, FloorFacts>();
  for (const id of new Set([...clipsBy.keys(), ...workBy.keys()])) {
    const newest = clipsBy.get(id);
    const strikes = newest ? (byClip.get(newest.id) ?? []) : [];
    const told = links.get(id);
    facts.set(id, {
      clips: newest?.clips ?? 0,
      open: (openBy.get(id) ?? []).map(({ id: clipId, view, to_confirm }) => ({
        id: clipId,
        view,
        isToConfirm: to_confirm === 1,
      })),
      newest: newest ? { id: newest.id, technique: strikes[0]?.technique ?? null } : null,
      links: COLUMNS.measured.links.readOr(told ?? null, {}) as FloorFacts['links'],
      work: (workBy.get(id) ?? []).map(({ id: workId, name, technique, next_check, sessions }) => ({
        name,
        technique,
        nextCheck: next_check,
        sessions,
        retest: retests.get(workId) ?? null,
      })),
    });
  }
  return facts;
}

/** Each student's newest film, and how many they have. */
async function clipsOf(db: Db) {
  // With max() alone SQLite takes the other columns from the row that has it (sqlite.org, lang_select).
  return db
    .selectFrom('clip')
    .select(['id', 'student_id'])
    .select(({ fn }) => [fn.countAll<number>().as('clips'), fn.max('created_at').as('created_at')])
    .where('deleted_at', 'is', null)
    .groupBy('student_id')
    .execute();
}

/**
 * Films that are open work, newest first: none of their strikes has been marked from ready to home,
 * or was found together with the body and confirmed.
 */
async function openClips(db: Db) {
  return db
    .selectFrom('clip')
    .leftJoin('tracking', 'tracking.clip_id', 'clip.id')
    .select(['clip.id', 'clip.student_id', 'clip.view'])
    .select(
      sql<0 | 1>`exists (
        select 1 from strike where strike.clip_id = clip.id and strike.removed_at is null
          and strike.is_automatic = 1)`.as('to_confirm'),
    )
    .where('clip.deleted_at', 'is', null)
    .where('clip.purged_at', 'is', null)
    .where(
      sql<boolean>`not exists (
        select 1 from strike where strike.clip_id = clip.id and strike.removed_at is null and
          (strike.marks_left = 0 or
           (tracking.state = 'done' and strike.is_automatic = 0)))`,
    )
    .orderBy('clip.created_at', 'desc')
    .orderBy('clip.id')
    .execute();
}

async function strikesOf(db: Db, clipIds: readonly string[]) {
  if (clipIds.length === 0) return [];
  return db
    .selectFrom('strike')
    .select(['strike.clip_id', 'strike.technique'])
    .where('strike.clip_id', 'in', clipIds)
    .where('strike.removed_at', 'is', null)
    .orderBy('strike.position')
    .execute();
}

/** So many films back the chain of a student is looked for. */
const LAST_FILMS = 3;

/** By student: the verdicts of the links in the newest strike that has any. */
async function linksOf(db: Db): Promise<ReadonlyMap<string, string>> {
  const newest = sql<string | null>`(
    select measured.links from clip
      join strike on strike.clip_id = clip.id
      join measured on measured.strike_id = strike.id
    where clip.id in (
        select own.id from clip as own
        where own.student_id = student.id and own.deleted_at is null
        order by own.created_at desc limit ${LAST_FILMS})
      and strike.removed_at is null and measured.links <> '{}'
    order by clip.created_at desc, strike.position limit 1)`;
  const rows = await db
    .selectFrom('student')
    .select(['id', newest.as('links')])
    .where('deleted_at', 'is', null)
    .execute();
  return new Map(rows.flatMap(({ id, links }) => (links === null ? [] : [[id, links]])));
}

async function workOf(db: Db) {
  return db
    .selectFrom('prescription')
    .select(['id', 'student_id', 'name', 'technique', 'next_check'])
    .select((eb) =>
      eb
        .selectFrom('drill_log')
        .whereRef('drill_log.prescription_id', '=', 'prescription.id')
        .where('drill_log.deleted_at', 'is', null)
        .select(({ fn }) => fn.count<number>('drill_log.day').distinct().as('days'))
        .$asScalar()
        .as('sessions'),
    )
    .where('status', '=', 'active')
    .orderBy('next_check')
    .execute()
    .then((rows) => rows.map((row) => ({ ...row, sessions: row.sessions ?? 0 })));
}
