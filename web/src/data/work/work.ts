/** The work a student has been given, what was done of it, and how fast they may go. */
import { group } from 'd3-array';
import { nanoid } from 'nanoid';
import { z } from 'zod';
import { daysBetween, daySchema, type Day } from '@sinew/core/foundation/calendar/day';
import { faultById } from '@sinew/core/judge/fault/faults';
import { TECHNIQUES } from '@sinew/core/foundation/technique/techniques';
import {
  leavesOut,
  NO_POWER_UNDER_16,
  slowOnly,
  type Condition,
} from '@sinew/core/train/work/condition';
import { doseOf } from '@sinew/core/train/work/dose';
import { gateOf, type Gate, type GateEvent } from '@sinew/core/train/work/gate';
import { drillById } from '@sinew/core/foundation/drill/drills';
import { CAUTIONS } from '@sinew/core/foundation/drill/demand';
import { INTENTS } from '@sinew/core/foundation/drill/intent';
import {
  checkOf,
  comesBefore,
  prescriptionFor,
  STANCES,
  tooHard,
  type Check,
  type Prescription,
} from '@sinew/core/train/work/prescription';
import type { Answer } from '@sinew/core/train/work/nextThing';
import { ENOUGH, inWords, todaysDose } from '@sinew/core/train/work/todaysDose';
import { volumeOf, type Volume } from '@sinew/core/train/work/volume';
import { resolve } from '@sinew/core/judge/school/resolve';
import { now, stamps, type Db } from '../database/db';
import { logsOf, type Log } from './drillLog';
import { settingsOf } from '../gym/gym';
import {
  injuriesOf,
  studentFaultsOf,
  type Injury,
  type StudentFault,
} from '../finding/studentFaults';
import { libraryOf } from '../gym/library';
import { retestsOf } from './retests';
import { openHurts, type OpenHurt } from '../student/hurtNotes';
import { studentById } from '../student/students';
import { today } from '../database/today';

const id = z.string().min(1).max(60);
const text = (most: number) => z.string().trim().max(most);
const techniqueId = z.enum(TECHNIQUES.map((technique) => technique.id));

export const prescriptionInput = z.object({
  studentId: id,
  /** The fault it is for; null for work given for itself. */
  worksOn: z.object({ technique: techniqueId, fault: id }).nullable(),
  drill: id,
  name: text(120).min(1, 'The work needs a name.'),
  dose: text(120),
  stances: z.enum(STANCES),
  intent: z.enum(INTENTS),
  gate: text(200),
  nextCheck: daySchema,
  /** Why although order or gate say no; empty when they do not. */
  override: text(300),
});
export type PrescriptionInput = z.infer<typeof prescriptionInput>;

export interface Given extends Prescription {
  readonly id: string;
  readonly technique: string | null;
  readonly fault: string | null;
  readonly givenOn: Day;
  readonly override: string;
  readonly check: Check;
  /** A newer film that shows whether it has changed anything. */
  readonly retest: Answer | null;
  /** Days on which it was worked. */
  readonly sessions: number;
  /** How much of it today, in words; null where nothing in the dose can be counted. */
  readonly todaysDose: string | null;
  /** What is to be heeded with this drill. */
  readonly cautions: readonly string[];
  readonly doneToday: { readonly strikes: number; readonly seconds: number };
  /** Days that the student has ticked on their own phone, newest first. */
  readonly atHome: readonly Day[];
}

/** A fault that has a cue and no work yet, with what the catalogue would prescribe. */
export interface Proposal {
  readonly worksOn: StudentFault;
  readonly name: string;
  readonly prescription: Prescription;
  /** Faults to mend first, by name. */
  readonly first: readonly string[];
}

export interface Work {
  readonly given: readonly Given[];
  readonly proposals: readonly Proposal[];
  /** By technique in work. */
  readonly gates: readonly { readonly technique: string; readonly gate: Gate }[];
  readonly injuries: readonly Injury[];
  /** What hurts and is not over, newest first. */
  readonly hurts: readonly OpenHurt[];
  /** Of the student as a whole: every injury of every technique. */
  readonly condition: Condition;
  readonly volume: Volume;
  /** Newest first. */
  readonly logs: readonly Log[];
}

const LOGS_SHOWN = 40;

/** @returns null when there is no such student */
export async function workOf(db: Db, studentId: string): Promise<Work | null> {
  const student = await studentById(db, studentId);
  if (!student) return null;
  const day = today();
  const [library, faults, rows, logs, settings, steps, retests, hurts] = await Promise.all([
    libraryOf(db),
    studentFaultsOf(db, studentId),
    db
      .selectFrom('prescription')
      .selectAll()
      .where('student_id', '=', studentId)
      .where('status', '=', 'active')
      .orderBy('created_at')
      .execute(),
    logsOf(db, studentId),
    settingsOf(db),
    db.selectFrom('gate_step').selectAll().where('student_id', '=', studentId).execute(),
    retestsOf(db, studentId),
    openHurts(db, studentId),
  ]);
  const { catalogue } = library;
  const injuries = await injuriesOf(db, studentId, catalogue, faults);
  const conditionWith = (some: readonly Injury[]): Condition => ({
    isJunior: student.isJunior,
    grade: student.grade,
    injuries: some.map(({ name }) => name),
    hurts,
  });
  const volume = volumeOf(
    logs.map((log) => ({ day: log.day, strikes: log.strikes, isPower: log.intent === 'power' })),
    day,
  );
  const byPrescription = group(logs, ({ prescriptionId }) => prescriptionId);
  const given = rows.map((row): Given => {
    const own = byPrescription.get(row.id) ?? [];
    const sessions = new Set(own.map((log) => log.day)).size;
    const sum = (of: 'strikes' | 'seconds') =>
      own.filter((log) => log.day === day).reduce((n, log) => n + log[of], 0);
    return {
      id: row.id,
      technique: row.technique,
      fault: row.fault,
      override: row.override,
      drill: row.drill,
      name: row.name,
      dose: row.dose,
      stances: row.stances,
      intent: row.intent,
      gate: row.gate,
      nextCheck: row.next_check,
      givenOn: row.given_on,
      sessions,
      check: checkOf(row.next_check, sessions, day),
      retest: retests.get(row.id) ?? null,
      todaysDose: doseToday(row, day, volume),
      cautions: (drillById(row.drill, catalogue.drills)?.asks ?? []).map((one) => CAUTIONS[one]),
      doneToday: { strikes: sum('strikes'), seconds: sum('seconds') },
      atHome: own.flatMap((log) => (log.countedBy === 'home' ? [log.day] : [])),
    };
  });
  const school = resolve({
    gym: library.school,
    student: student.school,
    strike: {},
    situation: 'not-said',
    range: null,
  });
  const order = school.readingOrder?.choice === 'top-down' ? 'top-down' : 'ground-up';
  const open = faults.filter(({ state }) => state !== 'closed');
  const proposals = open.flatMap((worksOn): Proposal[] => {
    const fault = faultById(worksOn.fault, catalogue);
    const isGiven = given.some(
      (one) => one.fault === worksOn.fault && one.technique === worksOn.technique,
    );
    if (!fault || isGiven || worksOn.state !== 'working') return [];
    const others = open
      .filter(({ technique }) => technique === worksOn.technique)
      .flatMap((one) => faultById(one.fault, catalogue) ?? []);
    return [
      {
        worksOn,
        name: fault.name,
        prescription: prescriptionFor(fault, catalogue, day),
        first: comesBefore(fault, others, order).map(({ name }) => name),
      },
    ];
  });
  const techniques = new Set(
    [...given, ...open, ...steps, ...logs].flatMap(({ technique }) => technique ?? []),
  );
  const gates = [...techniques].map((technique) => ({
    technique,
    gate: gateOf(
      eventsOf(technique, logs, steps),
      conditionWith(injuries.filter((one) => one.technique === technique)),
      settings,
    ),
  }));
  const condition = conditionWith(injuries);
  const shown = logs.slice(0, LOGS_SHOWN);
  return { given, proposals, gates, injuries, hurts, condition, volume, logs: shown };
}

/** A new drill begins at a third of its dose; see `todaysDose`. */
function doseToday(
  { dose, given_on: givenOn }: { dose: string; given_on: Day },
  day: Day,
  volume: Volume,
): string | null {
  const whole = doseOf(dose);
  if (!whole) return null;
  const now = todaysDose(whole, daysBetween(givenOn, day), volume);
  return now ? inWords(now) : ENOUGH;
}

type StepRow = {
  technique: string;
  kind: string;
  at: string;
  to_intent: string | null;
  reason: string;
};

function eventsOf(technique: string, logs: readonly Log[], steps: readonly StepRow[]): GateEvent[] {
  return [
    ...logs
      .filter((log) => log.technique === technique && log.clean !== null)
      .map(({ at, intent, clean, strikes }): GateEvent => ({
        kind: 'set',
        at,
        intent,
        clean: clean!,
        of: strikes,
      })),
    ...steps
      .filter((step) => step.technique === technique)
      .map(({ kind, at, to_intent: to, reason }): GateEvent =>
        kind === 'override'
          ? { kind, at, to: INTENTS.find((one) => one === to)!, reason }
          : { kind: 'injury', at },
      ),
  ];
}

/** Work in hand, as a class sheet shows it. */
export interface SheetWork extends Pick<Prescription, 'name' | 'dose' | 'intent' | 'nextCheck'> {
  readonly id: string;
  readonly studentId: string;
}

/** Everybody's. */
export async function workInHand(db: Db): Promise<SheetWork[]> {
  return db
    .selectFrom('prescription')
    .select(['id', 'student_id as studentId', 'name', 'dose', 'intent', 'next_check as nextCheck'])
    .where('status', '=', 'active')
    .orderBy('created_at')
    .execute();
}

export type PrescribeOutcome =
  | { readonly kind: 'given'; readonly id: string }
  /** Order or gate say no; the coach may say why it is given all the same. */
  | { readonly kind: 'asks-why'; readonly reasons: readonly string[] }
  /** No reason opens this. */
  | { readonly kind: 'refused'; readonly reason: string };

/** Give work. What can hurt shuts out all but slow; order and gate are opened by a reason. */
export async function prescribe(db: Db, input: PrescriptionInput): Promise<PrescribeOutcome> {
  const { studentId, worksOn, intent, override } = input;
  const work = await workOf(db, studentId);
  if (!work) return { kind: 'refused', reason: 'This student is not in the gym’s list any more.' };
  const technique = worksOn?.technique ?? null;
  const injuries = work.injuries
    .filter((one) => technique === null || one.technique === technique)
    .map(({ name }) => name);
  const condition = { ...work.condition, injuries };
  const slow = intent === 'slow' ? null : slowOnly(condition);
  if (slow) return { kind: 'refused', reason: slow };
  if (intent === 'power' && condition.isJunior) {
    return { kind: 'refused', reason: NO_POWER_UNDER_16 };
  }
  const { catalogue } = await libraryOf(db);
  const asks = drillById(input.drill, catalogue.drills)?.asks ?? [];
  const leaves = leavesOut({ intent, asks }, condition);
  // A grade is the coach's to give, or to do without.
  const isOfGrade =
    leaves !== null && leavesOut({ intent, asks }, { ...condition, grade: '-' }) === null;
  if (leaves && !isOfGrade) return { kind: 'refused', reason: `Left out: ${leaves}.` };
  const level = work.gates.find((one) => one.technique === technique)?.gate.level ?? 'slow';
  const proposal = work.proposals.find(
    (one) => one.worksOn.fault === worksOn?.fault && one.worksOn.technique === technique,
  );
  const reasons = [
    isOfGrade ? `Left out: ${leaves}.` : null,
    ...(technique === null ? [] : [tooHard(intent, level)]),
    proposal && proposal.first.length > 0 ? `First: ${proposal.first.join(', ')}.` : null,
  ].filter((reason) => reason !== null);
  if (reasons.length > 0 && override === '') return { kind: 'asks-why', reasons };
  const made = nanoid();
  await db.transaction().execute(async (trx) => {
    const cue = worksOn && (await cueOf(trx, studentId, worksOn.technique, worksOn.fault));
    await trx
      .insertInto('prescription')
      .values({
        id: made,
        student_id: studentId,
        cue_id: cue ?? null,
        technique,
        fault: worksOn?.fault ?? null,
        drill: input.drill,
        name: input.name,
        dose: input.dose,
        stances: input.stances,
        intent,
        gate: input.gate,
        given_on: today(),
        next_check: input.nextCheck,
        status: 'active',
        override,
        ...stamps(),
      })
      .execute();
  });
  return { kind: 'given', id: made };
}

/** Give what the catalogue prescribes for a fault, as it stands. */
export async function prescribeFor(
  db: Db,
  studentId: string,
  technique: string,
  fault: string,
): Promise<PrescribeOutcome> {
  const work = await workOf(db, studentId);
  const proposal = work?.proposals.find(
    ({ worksOn }) => worksOn.technique === technique && worksOn.fault === fault,
  );
  if (!proposal) return { kind: 'refused', reason: 'There is no cue for this leak any more.' };
  const worksOn = { technique, fault };
  return prescribe(db, { ...proposal.prescription, studentId, worksOn, override: '' });
}

async function cueOf(db: Db, studentId: string, technique: string, fault: string) {
  const row = await db
    .selectFrom('cue')
    .innerJoin('finding', 'finding.id', 'cue.finding_id')
    .select('cue.id')
    .where('cue.student_id', '=', studentId)
    .where('cue.technique', '=', technique)
    .where('cue.status', '=', 'active')
    .where('finding.fault', '=', fault)
    .executeTakeFirst();
  return row?.id;
}

export async function endPrescription(
  db: Db,
  prescriptionId: string,
  status: 'active' | 'done' | 'stopped',
): Promise<void> {
  await db
    .updateTable('prescription')
    .set({ status, updated_at: now() })
    .where('id', '=', prescriptionId)
    .execute();
}

/** Look again later: by default a week from today. */
export async function setNextCheck(db: Db, prescriptionId: string, day: Day): Promise<void> {
  await db
    .updateTable('prescription')
    .set({ next_check: day, updated_at: now() })
    .where('id', '=', prescriptionId)
    .execute();
}

export const overrideInput = z.object({
  studentId: id,
  technique: techniqueId,
  to: z.enum(INTENTS),
  reason: text(300).min(1, 'Why? The ledger keeps the reason.'),
});

/** Open or shut the gate by hand; not to full power under 16. @returns why not, or null */
export async function overrideGate(
  db: Db,
  { studentId, technique, to, reason }: z.infer<typeof overrideInput>,
): Promise<string | null> {
  const student = await studentById(db, studentId);
  if (to === 'power' && student?.isJunior) return NO_POWER_UNDER_16;
  await db
    .insertInto('gate_step')
    .values({
      id: nanoid(),
      student_id: studentId,
      technique,
      kind: 'override',
      at: now(),
      to_intent: to,
      reason,
      ...stamps(),
    })
    .execute();
  return null;
}
