/** The coach's word on a finding, and the one cue that follows from it. */
import { nanoid } from 'nanoid';
import { z } from 'zod';
import type { Finding } from '@sinew/core/judge/fault/finding';
import { drillById } from '@sinew/core/foundation/drill/drills';
import { cueOf, faultById } from '@sinew/core/judge/fault/faults';
import { findingOf, type FoundFinding } from './judging';
import { contactAt, contactIn } from '../bench/placedBlob';
import { now, stamps, type Db } from '../database/db';
import { changedMeanwhile } from '../database/seen';
import type { FindingTable } from '../database/schema';
import { COLUMNS } from '../database/columns';

export const cueTextSchema = z.string().trim().min(1, 'A cue needs words.').max(200);

export interface Cue {
  readonly id: string;
  readonly studentId: string;
  readonly technique: string;
  readonly text: string;
  readonly drill: string;
  readonly fault: string;
  readonly evidence: string;
  readonly strikeId: string;
  readonly clipId: string;
  readonly updatedAt: string;
  /** Work has been given for it. */
  readonly isWorked: boolean;
  /** Null where it was erased. */
  readonly film: {
    /** Contact of the strike on the film's own clock, seconds; null where it is not marked. */
    readonly contactAt: number | null;
  } | null;
}

export interface Decision {
  readonly fault: string;
  readonly status: FindingTable['status'];
  readonly reason: string;
  /** Whose word it is, by name, where that is known. */
  readonly by: string | null;
  /** ISO 8601; null where it is not. */
  readonly at: string | null;
}

async function decide(
  db: Db,
  strikeId: string,
  finding: Finding,
  { status, reason, by }: Pick<Decision, 'status' | 'reason' | 'by'>,
): Promise<string> {
  const values = {
    status,
    reason,
    decided_by: by,
    decided_at: now(),
    evidence: finding.evidence,
    judged_by: COLUMNS.finding.judged_by.write(finding.judgedBy),
    judged_as: COLUMNS.finding.judged_as.write([...finding.judgedAs]),
    cost: COLUMNS.finding.cost.write(finding.cost),
    cleared_at: null,
    cleared_because: null,
  };
  const row = await db
    .insertInto('finding')
    .values({ id: nanoid(), strike_id: strikeId, fault: finding.fault, ...values, ...stamps() })
    .onConflict((conflict) =>
      conflict.columns(['strike_id', 'fault']).doUpdateSet({ ...values, updated_at: now() }),
    )
    .returning('id')
    .executeTakeFirstOrThrow();
  return row.id;
}

export type AcceptOutcome =
  | { readonly kind: 'accepted' }
  /** The student works on another cue for this technique already: which one stays? */
  | { readonly kind: 'other-cue'; readonly text: string }
  | { readonly kind: 'not-found' };

/**
 * Accept a finding: its cue becomes the student's one active cue for the technique.
 *
 * @param isReplacing the coach has said that this cue takes the place of the present one
 * @param judged what the strike, or the set it belongs to, shows
 * @param by whoever accepts it, by name
 */
export async function acceptFinding(
  db: Db,
  strikeId: string,
  fault: string,
  isReplacing: boolean,
  judged: Promise<FoundFinding | null> = findingOf(db, strikeId, fault, 'strike'),
  by: string | null = null,
): Promise<AcceptOutcome> {
  const found = await judged;
  const catalogued = found && faultById(fault, found.catalogue);
  if (!catalogued || found.finding.status !== 'found') return { kind: 'not-found' };
  const { studentId, technique, catalogue } = found;
  return db.transaction().execute(async (trx): Promise<AcceptOutcome> => {
    const drill = drillById(catalogued.drill, catalogue.drills);
    const present = await trx
      .selectFrom('cue')
      .innerJoin('finding', 'finding.id', 'cue.finding_id')
      .select(['cue.id', 'cue.text', 'finding.fault'])
      .where('cue.student_id', '=', studentId)
      .where('cue.technique', '=', technique)
      .where('cue.status', '=', 'active')
      .executeTakeFirst();
    const isSameFault = present?.fault === fault;
    if (catalogued.injury) {
      // What can hurt sends the student back to slow, whichever cue stays.
      await trx
        .insertInto('gate_step')
        .values({
          id: nanoid(),
          student_id: studentId,
          technique,
          kind: 'injury',
          at: now(),
          to_intent: null,
          reason: catalogued.name,
          ...stamps(),
        })
        .execute();
    }
    if (present && !isSameFault && !isReplacing) return { kind: 'other-cue', text: present.text };
    const findingId = await decide(trx, strikeId, found.finding, {
      status: 'accepted',
      reason: '',
      by,
    });
    if (present && isSameFault) {
      // The same fault seen again: the coach's own wording of the cue stays.
      await trx
        .updateTable('cue')
        .set({ finding_id: findingId, updated_at: now() })
        .where('id', '=', present.id)
        .execute();
      return { kind: 'accepted' };
    }
    if (present) {
      await trx
        .updateTable('cue')
        .set({
          status: 'closed',
          closed_at: now(),
          closed_because: 'replaced',
          updated_at: now(),
        })
        .where('id', '=', present.id)
        .execute();
    }
    await trx
      .insertInto('cue')
      .values({
        id: nanoid(),
        student_id: studentId,
        finding_id: findingId,
        technique,
        text: cueOf(catalogued, found.finding.way),
        drill: drill ? [drill.name, drill.dose].filter(Boolean).join(': ') : '',
        status: 'active',
        closed_at: null,
        closed_because: null,
        ...stamps(),
      })
      .execute();
    return { kind: 'accepted' };
  });
}

/** Dismiss a finding with a reason, or leave it for later. A cue that came from it is closed. */
export async function putAside(
  db: Db,
  strikeId: string,
  fault: string,
  status: 'dismissed' | 'later',
  reason: string,
  judged: Promise<FoundFinding | null> = findingOf(db, strikeId, fault, 'strike'),
  by: string | null = null,
): Promise<boolean> {
  const found = await judged;
  if (!found) return false;
  return db.transaction().execute(async (trx) => {
    const findingId = await decide(trx, strikeId, found.finding, { status, reason, by });
    await trx
      .updateTable('cue')
      .set({
        status: 'closed',
        closed_at: now(),
        closed_because: 'put aside',
        updated_at: now(),
      })
      .where('finding_id', '=', findingId)
      .where('status', '=', 'active')
      .execute();
    return true;
  });
}

/** Take the coach's word back: the finding is open again and a cue from it is closed. */
export async function reopenFinding(db: Db, strikeId: string, fault: string): Promise<void> {
  await db
    .deleteFrom('finding')
    .where('strike_id', '=', strikeId)
    .where('fault', '=', fault)
    .execute();
}

export async function decisionsOf(db: Db, clipId: string): Promise<Record<string, Decision[]>> {
  const rows = await db
    .selectFrom('finding')
    .innerJoin('strike', 'strike.id', 'finding.strike_id')
    .select(['finding.strike_id', 'finding.fault', 'finding.status', 'finding.reason'])
    .select(['finding.decided_by as by', 'finding.decided_at as at'])
    .where('strike.clip_id', '=', clipId)
    .execute();
  const byStrike: Record<string, Decision[]> = {};
  for (const { strike_id, ...decision } of rows) (byStrike[strike_id] ??= []).push(decision);
  return byStrike;
}

/** Active cues, newest first; one student's or everybody's. */
export async function activeCues(db: Db, studentId?: string): Promise<Cue[]> {
  const rows = await db
    .selectFrom('cue')
    .innerJoin('finding', 'finding.id', 'cue.finding_id')
    .innerJoin('strike', 'strike.id', 'finding.strike_id')
    .innerJoin('clip', 'clip.id', 'strike.clip_id')
    .leftJoin('mark', (join) =>
      join.onRef('mark.strike_id', '=', 'strike.id').on('mark.event', '=', 'contact'),
    )
    .select([
      'clip.purged_at as purgedAt',
      contactAt,
      'cue.id',
      'cue.student_id as studentId',
      'cue.technique',
      'cue.text',
      'cue.drill',
      'cue.updated_at as updatedAt',
      'finding.fault',
      'finding.evidence',
      'finding.strike_id as strikeId',
      'strike.clip_id as clipId',
    ])
    .select((eb) =>
      eb
        .exists(
          eb
            .selectFrom('prescription')
            .select('prescription.id')
            .whereRef('prescription.cue_id', '=', 'cue.id')
            .where('prescription.status', '=', 'active'),
        )
        .as('isWorked'),
    )
    .where('cue.status', '=', 'active')
    .$if(studentId !== undefined, (query) => query.where('cue.student_id', '=', studentId!))
    .orderBy('cue.updated_at', 'desc')
    .execute();
  return rows.map(({ purgedAt, contact_at, ...row }) => ({
    ...row,
    isWorked: Boolean(row.isWorked),
    film: purgedAt === null ? { contactAt: contactIn(contact_at) } : null,
  }));
}

/**
 * @param seen the words that are to be said otherwise
 * @throws Problem `conflict` when they are others by now
 */
export async function editCue(db: Db, id: string, text: string, seen: string): Promise<void> {
  const { numUpdatedRows } = await db
    .updateTable('cue')
    .set({ text, updated_at: now() })
    .where('id', '=', id)
    .where('text', '=', seen)
    .executeTakeFirst();
  if (numUpdatedRows === 0n) throw changedMeanwhile('This cue was');
}
