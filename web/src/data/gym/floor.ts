/** What the Floor shows of everybody, in a handful of queries however many there are. */
import { group } from 'd3-array';
import { sql } from 'kysely';
import type { Verdict } from '@sinew/core/measure/chain/verdict';
import type { Link, View } from '@sinew/core/foundation/technique/techniques';
import type { Db } from '../database/db';
import { contactAt, contactIn } from '../bench/placedBlob';
import { COLUMNS } from '../database/columns';
import type { OpenClip, Undecided, WorkInHand } from '@sinew/core/train/work/nextThing';
import { dayIn } from '../database/today';
import { retestsOf } from '../work/retests';

export interface FloorFacts {
  readonly clips: number;
  /** Films nobody has gone through yet, newest first. */
  readonly open: readonly (OpenClip & { readonly view: View })[];
  readonly undecided: Undecided | null;
  readonly newest: {
    readonly id: string;
    readonly technique: string | null;
    /** Contact of its first strike, seconds of the film; null where it is not marked. */
    readonly contactAt: number | null;
    /** Only its numbers are left. */
    readonly isPurged: boolean;
  } | null;
  /** What each link did in the newest of the last films that tells it. */
  readonly links: Partial<Record<Link, Verdict>>;
  readonly work: readonly WorkInHand[];
}

export const NOTHING: FloorFacts = {
  clips: 0,
  open: [],
  undecided: null,
  newest: null,
  links: {},
  work: [],
};

/** By student; one student's or everybody's. */
export async function floorFacts(
  db: Db,
  studentId?: string,
): Promise<ReadonlyMap<string, FloorFacts>> {
  const [clips, links, open, undecided, work, retests] = await Promise.all([
    clipsOf(db, studentId),
    linksOf(db, studentId),
    openClips(db, studentId),
    undecidedOf(db, studentId),
    workOf(db, studentId),
    retestsOf(db, studentId),
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
      open: (openBy.get(id) ?? []).map(({ id: clipId, view, to_confirm, searched }) => ({
        id: clipId,
        view,
        isToConfirm: to_confirm === 1,
        isSearched: searched === 1,
      })),
      undecided: undecided.get(id) ?? null,
      newest: newest
        ? {
            id: newest.id,
            technique: strikes[0]?.technique ?? null,
            contactAt: contactIn(strikes[0]?.contact_at),
            isPurged: newest.purged_at !== null,
          }
        : null,
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
async function clipsOf(db: Db, studentId?: string) {
  // With max() alone SQLite takes the other columns from the row that has it (sqlite.org, lang_select).
  return db
    .selectFrom('clip')
    .select(['id', 'student_id', 'purged_at'])
    .select(({ fn }) => [fn.countAll<number>().as('clips'), fn.max('created_at').as('created_at')])
    .where('deleted_at', 'is', null)
    .$if(studentId !== undefined, (query) => query.where('student_id', '=', studentId!))
    .groupBy('student_id')
    .execute();
}

/**
 * Films that are open work, newest first: none of their strikes has been marked from ready to home, or
 * was found together with the body and confirmed, and the coach has said nothing of any of them: a word
 * on a leak, an answer to what only the eye can tell.
 */
async function openClips(db: Db, studentId?: string) {
  return db
    .selectFrom('clip')
    .leftJoin('tracking', 'tracking.clip_id', 'clip.id')
    .select(['clip.id', 'clip.student_id', 'clip.view'])
    .select(
      sql<0 | 1>`exists (
        select 1 from strike where strike.clip_id = clip.id and strike.removed_at is null
          and strike.is_automatic = 1)`.as('to_confirm'),
    )
    .select(sql<0 | 1>`coalesce(tracking.state = 'wanted', 0)`.as('searched'))
    .$if(studentId !== undefined, (query) => query.where('clip.student_id', '=', studentId!))
    .where('clip.deleted_at', 'is', null)
    .where('clip.purged_at', 'is', null)
    .where(
      sql<boolean>`not exists (
        select 1 from strike where strike.clip_id = clip.id and strike.removed_at is null and
          (strike.marks_left = 0 or coalesce(strike.audit, '{}') <> '{}' or
           exists (select 1 from finding where finding.strike_id = strike.id) or
           (tracking.state = 'done' and strike.is_automatic = 0)))`,
    )
    .orderBy('clip.created_at', 'desc')
    .orderBy('clip.id')
    .execute();
}

/**
 * By student: leaks that the newest film shows and on which nothing has been said in that film. Where a
 * cue is in work for the technique the others wait for it: one cue at a time.
 */
async function undecidedOf(db: Db, studentId?: string): Promise<ReadonlyMap<string, Undecided>> {
  const { rows } = await sql<{
    student_id: string;
    clip_id: string;
    strike_id: string;
    technique: string;
    created_at: string;
    fault: string;
  }>`
    select clip.student_id, clip.id as clip_id, strike.id as strike_id, strike.technique,
      clip.created_at, leak.value as fault
    from student
      join clip on clip.id = (
        select own.id from clip as own
        where own.student_id = student.id and own.deleted_at is null
        order by own.created_at desc limit 1)
      join strike on strike.clip_id = clip.id
        and strike.removed_at is null and strike.is_automatic = 0
      join measured on measured.strike_id = strike.id
      join json_each(
        case when json_valid(measured.shows) then measured.shows else '{}' end, '$.found') as leak
    where (${studentId ?? null} is null or student.id = ${studentId ?? null})
      and not exists (
        select 1 from finding join strike as other on other.id = finding.strike_id
        where other.clip_id = clip.id and other.technique = strike.technique
          and finding.fault = leak.value)
      and not exists (
        select 1 from cue where cue.student_id = student.id
          and cue.technique = strike.technique and cue.status = 'active')
    order by strike.position`.execute(db);
  return new Map(
    [...group(rows, ({ student_id }) => student_id)].map(([id, leaks]) => {
      const { clip_id: clipId, strike_id: strikeId, technique, created_at } = leaks[0]!;
      const kinds = new Set(leaks.flatMap((one) => (one.technique === technique ? one.fault : [])));
      const day = dayIn(new Date(created_at));
      return [id, { clipId, strikeId, technique, leaks: kinds.size, day }];
    }),
  );
}

async function strikesOf(db: Db, clipIds: readonly string[]) {
  if (clipIds.length === 0) return [];
  return db
    .selectFrom('strike')
    .innerJoin('clip', 'clip.id', 'strike.clip_id')
    .leftJoin('mark', (join) =>
      join.onRef('mark.strike_id', '=', 'strike.id').on('mark.event', '=', 'contact'),
    )
    .select(['strike.clip_id', 'strike.technique', contactAt])
    .where('strike.clip_id', 'in', clipIds)
    .where('strike.removed_at', 'is', null)
    .orderBy('strike.position')
    .execute();
}

/** So many films back the chain of a student is looked for. */
const LAST_FILMS = 6;

/** By student: the verdicts of the links in the newest strike that has any. */
async function linksOf(db: Db, studentId?: string): Promise<ReadonlyMap<string, string>> {
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
    .$if(studentId !== undefined, (query) => query.where('id', '=', studentId!))
    .execute();
  return new Map(rows.flatMap(({ id, links }) => (links === null ? [] : [[id, links]])));
}

async function workOf(db: Db, studentId?: string) {
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
    .$if(studentId !== undefined, (query) => query.where('student_id', '=', studentId!))
    .orderBy('next_check')
    .execute()
    .then((rows) => rows.map((row) => ({ ...row, sessions: row.sessions ?? 0 })));
}
