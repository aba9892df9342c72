/** A student's faults over time: opened when accepted, in work, closed by the coach's word. */
import { group, min } from 'd3-array';
import type { Catalogue } from '@sinew/core/judge/fault/schema';
import { faultById } from '@sinew/core/judge/fault/faults';
import { now, type Db } from '../database/db';
import { putAside } from './findings';
import { libraryOf } from '../gym/library';
import { openHurts } from '../student/hurtNotes';
import { shownNow } from './measured';

export interface StudentFault {
  readonly studentId: string;
  readonly technique: string;
  readonly fault: string;
  readonly state: 'working' | 'open' | 'closed';
  readonly openedAt: string;
  readonly closedAt: string | null;
  readonly closedBecause: string | null;
  /** The newest strike that showed it, and what was seen there. */
  readonly evidence: string;
  readonly strikeId: string;
  readonly clipId: string;
  /** In how many strikes it was accepted. */
  readonly strikes: number;
}

/** Newest first; one student's or everybody's. */
export async function studentFaultsOf(db: Db, studentId?: string): Promise<StudentFault[]> {
  const [rows, cues, work] = await Promise.all([
    db
      .selectFrom('finding')
      .innerJoin('strike', 'strike.id', 'finding.strike_id')
      .innerJoin('clip', 'clip.id', 'strike.clip_id')
      .select(['finding.fault', 'finding.evidence', 'finding.created_at', 'finding.strike_id'])
      .select(['finding.cleared_at', 'finding.cleared_because'])
      .select(['clip.student_id', 'strike.technique', 'strike.clip_id'])
      .where('finding.status', '=', 'accepted')
      .where('clip.deleted_at', 'is', null)
      .$if(studentId !== undefined, (query) => query.where('clip.student_id', '=', studentId!))
      .orderBy('finding.created_at', 'desc')
      .execute(),
    db
      .selectFrom('cue')
      .innerJoin('finding', 'finding.id', 'cue.finding_id')
      .select(['cue.student_id', 'cue.technique', 'finding.fault'])
      .where('cue.status', '=', 'active')
      .execute(),
    db
      .selectFrom('prescription')
      .select(['student_id', 'technique', 'fault'])
      .where('status', '=', 'active')
      .execute(),
  ]);
  type Named = {
    readonly student_id: string;
    readonly technique: string | null;
    readonly fault: string | null;
  };
  const key = ({ student_id, technique, fault }: Named) => `${student_id} ${technique} ${fault}`;
  const inWork = new Set([...cues, ...work].map(key));
  // What was closed and came back is a fault of its own.
  const byFault = group(rows, (row) => `${key(row)} ${row.cleared_at ?? ''}`);
  return [...byFault.values()].map((same): StudentFault => {
    const newest = same[0]!;
    const isClosed = newest.cleared_at !== null;
    return {
      studentId: newest.student_id,
      technique: newest.technique,
      fault: newest.fault,
      state: isClosed ? 'closed' : inWork.has(key(newest)) ? 'working' : 'open',
      openedAt: min(same, (one) => one.created_at)!,
      closedAt: newest.cleared_at,
      closedBecause: newest.cleared_because,
      evidence: newest.evidence,
      strikeId: newest.strike_id,
      clipId: newest.clip_id,
      strikes: same.length,
    };
  });
}

export interface Injury {
  readonly technique: string;
  readonly fault: string;
  readonly name: string;
  readonly caution: string;
  readonly clipId: string;
  readonly strikeId: string;
}

/**
 * Faults that can hurt and stand open: accepted and not cleared, or found in a strike and not yet
 * decided on.
 */
export async function injuriesOf(
  db: Db,
  studentId: string,
  catalogue: Catalogue,
  faults: readonly StudentFault[],
): Promise<Injury[]> {
  const undecided = await undecidedInjuries(db, studentId, catalogue);
  const all = [...faults.filter(({ state }) => state !== 'closed'), ...undecided];
  const named = all.flatMap(({ technique, fault, clipId, strikeId }): Injury[] => {
    const known = faultById(fault, catalogue);
    if (!known?.injury) return [];
    return [{ technique, fault, name: known.name, caution: known.caution ?? '', clipId, strikeId }];
  });
  return [...group(named, ({ technique, fault }) => `${technique} ${fault}`).values()].map(
    ([first]) => first!,
  );
}

/** What may be measured while somebody waits for the answer, ms. */
const PATIENCE = 1500;

/** What can hurt and was found in a strike, and on which the coach has not said a word. */
async function undecidedInjuries(db: Db, studentId: string, { faults }: Catalogue) {
  const hurting = new Set(faults.filter(({ injury }) => injury).map(({ id }) => id));
  const strikes = await shownNow(db, studentId, PATIENCE);
  const shown = strikes.flatMap(({ id, clipId, technique, shows }) =>
    shows.found
      .filter((fault) => hurting.has(fault))
      .map((fault) => ({ technique, fault, clipId, strikeId: id })),
  );
  if (shown.length === 0) return [];
  const decided = await db
    .selectFrom('finding')
    .select(['strike_id', 'fault'])
    .where(
      'strike_id',
      'in',
      shown.map(({ strikeId }) => strikeId),
    )
    .execute();
  const isDecided = new Set(decided.map(({ strike_id, fault }) => `${strike_id} ${fault}`));
  return shown.filter(({ strikeId, fault }) => !isDecided.has(`${strikeId} ${fault}`));
}

/**
 * The coach's word that a fault is gone, or that what could hurt is cleared: its cue and its work end,
 * and strikes that still wait for a decision on it are put aside with the same reason.
 */
export async function closeFault(
  db: Db,
  { studentId, technique, fault }: Pick<StudentFault, 'studentId' | 'technique' | 'fault'>,
  because: string,
  by: string | null = null,
): Promise<void> {
  const { catalogue } = await libraryOf(db);
  for (const one of await undecidedInjuries(db, studentId, catalogue)) {
    if (one.technique === technique && one.fault === fault) {
      await putAside(db, one.strikeId, fault, 'dismissed', because, undefined, by);
    }
  }
  await db.transaction().execute(async (trx) => {
    const ofFault = trx
      .selectFrom('finding')
      .innerJoin('strike', 'strike.id', 'finding.strike_id')
      .innerJoin('clip', 'clip.id', 'strike.clip_id')
      .select('finding.id')
      .where('clip.student_id', '=', studentId)
      .where('strike.technique', '=', technique)
      .where('finding.fault', '=', fault);
    await trx
      .updateTable('cue')
      .set({ status: 'closed', closed_at: now(), closed_because: 'mended', updated_at: now() })
      .where('status', '=', 'active')
      .where('finding_id', 'in', ofFault)
      .execute();
    await trx
      .updateTable('finding')
      .set({ cleared_at: now(), cleared_because: because, updated_at: now() })
      .where('id', 'in', ofFault)
      .where('status', '=', 'accepted')
      .where('cleared_at', 'is', null)
      .execute();
    await trx
      .updateTable('prescription')
      .set({ status: 'done', updated_at: now() })
      .where('student_id', '=', studentId)
      .where('technique', '=', technique)
      .where('fault', '=', fault)
      .where('status', '=', 'active')
      .execute();
  });
}

/** Accepted faults that can hurt and are not cleared, by student. */
export async function openInjuries(db: Db): Promise<ReadonlyMap<string, readonly string[]>> {
  const { catalogue } = await libraryOf(db);
  const faults = catalogue.faults.filter(({ injury }) => injury).map(({ id }) => id);
  if (faults.length === 0) return new Map();
  const rows = await db
    .selectFrom('finding')
    .innerJoin('strike', 'strike.id', 'finding.strike_id')
    .innerJoin('clip', 'clip.id', 'strike.clip_id')
    .select(['clip.student_id', 'finding.fault'])
    .distinct()
    .where('finding.status', '=', 'accepted')
    .where('finding.cleared_at', 'is', null)
    .where('finding.fault', 'in', faults)
    .where('clip.deleted_at', 'is', null)
    .execute();
  const byStudent = group(rows, ({ student_id }) => student_id);
  return new Map([...byStudent].map(([id, own]) => [id, own.map(({ fault }) => fault)]));
}

/** Students of whom an accepted fault that can hurt is not cleared, or whom something hurts. */
export async function hurtingStudents(db: Db): Promise<ReadonlySet<string>> {
  const [injuries, hurts] = await Promise.all([openInjuries(db), openHurts(db)]);
  return new Set([...injuries.keys(), ...hurts.map(({ studentId }) => studentId)]);
}
