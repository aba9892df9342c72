/** A student's ledger for other programs: JSON with a published schema, and a long table as CSV. */
import Papa from 'papaparse';
import { z } from 'zod';
import { faultById } from '@sinew/core/judge/fault/faults';
import { MEASURE_IDS, MEASURE_NAMES } from '@sinew/core/measure/measures/allMeasures';
import { isAbsent, SOURCES } from '@sinew/core/foundation/reading/reading';
import { VIEWS } from '@sinew/core/foundation/technique/techniques';
import { INTENTS } from '@sinew/core/foundation/drill/intent';
import type { Db } from '../database/db';
import { studentFaultsOf } from '../finding/studentFaults';
import { notesOf, testsOf } from './ledger';
import { libraryOf } from '../gym/library';
import { strikesNow, type MeasuredStrike } from '../finding/measured';
import { studentById } from '../student/students';
import { logsOf } from '../work/drillLog';

const day = z.iso.date();
const time = z.iso.datetime();
const intent = z.enum(INTENTS);

/** SI units, angles in radians; σ is one standard deviation. */
export const ledgerSchema = z.object({
  format: z.literal('sinew-ledger'),
  version: z.literal(2),
  student: z.object({ id: z.string(), name: z.string(), stance: z.string() }),
  strikes: z.array(
    z.object({
      id: z.string(),
      clip: z.string(),
      technique: z.string(),
      side: z.enum(['left', 'right']),
      view: z.enum(VIEWS),
      intent: intent.nullable(),
      round: z.number().int().nullable(),
      filmedOn: day,
      readings: z.record(
        z.string(),
        z.union([
          z.object({
            value: z.number(),
            sigma: z.number(),
            unit: z.string(),
            source: z.enum(SOURCES),
          }),
          z.object({ absent: z.string() }),
        ]),
      ),
      links: z.record(z.string(), z.enum(['drives', 'neutral', 'drags'])),
    }),
  ),
  faults: z.array(
    z.object({
      technique: z.string(),
      fault: z.string(),
      name: z.string(),
      state: z.enum(['open', 'working', 'closed']),
      openedAt: time,
      closedAt: time.nullable(),
      closedBecause: z.string().nullable(),
      evidence: z.string(),
    }),
  ),
  work: z.array(
    z.object({
      name: z.string(),
      technique: z.string().nullable(),
      day,
      at: time,
      intent,
      strikes: z.number().int(),
      seconds: z.number().int(),
      clean: z.number().int().nullable(),
    }),
  ),
  tests: z.array(z.object({ day, given: z.unknown(), results: z.record(z.string(), z.string()) })),
  notes: z.array(z.object({ day, technique: z.string().nullable(), text: z.string() })),
});

export type LedgerFile = z.infer<typeof ledgerSchema>;

function readingsOf({ readings }: MeasuredStrike): LedgerFile['strikes'][number]['readings'] {
  const found: LedgerFile['strikes'][number]['readings'] = {};
  for (const id of MEASURE_IDS) {
    const one = readings[id];
    if (isAbsent(one)) {
      if (!one.isNotApplicable) found[id] = { absent: one.absent };
    } else {
      const { value, sigma, unit, source } = one;
      found[id] = { value, sigma, unit, source };
    }
  }
  return found;
}

/** A ledger as it is sent. */
export interface LedgerText {
  readonly student: string;
  readonly text: string;
}

/** @returns null when there is no such student */
export async function ledgerText(
  db: Db,
  studentId: string,
  as: 'csv' | 'json',
): Promise<LedgerText | null> {
  const file = await ledgerFileOf(db, studentId);
  if (!file) return null;
  const text = as === 'csv' ? ledgerCsv(file) : JSON.stringify(file, null, 2);
  return { student: file.student.name, text };
}

/** @returns null when there is no such student */
export async function ledgerFileOf(db: Db, studentId: string): Promise<LedgerFile | null> {
  const student = await studentById(db, studentId);
  if (!student) return null;
  const [{ strikes }, faults, logs, tests, notes, { catalogue }] = await Promise.all([
    strikesNow(db, studentId),
    studentFaultsOf(db, studentId),
    logsOf(db, studentId),
    testsOf(db, studentId),
    notesOf(db, studentId),
    libraryOf(db),
  ]);
  return {
    format: 'sinew-ledger',
    version: 2,
    student: { id: student.id, name: student.name, stance: student.stance },
    strikes: strikes.map((strike) => ({
      id: strike.id,
      clip: strike.clipId,
      technique: strike.technique,
      side: strike.side,
      view: strike.view,
      intent: strike.intent,
      round: strike.round,
      filmedOn: strike.day,
      readings: readingsOf(strike),
      links: strike.links,
    })),
    faults: faults.map((fault) => ({
      technique: fault.technique,
      fault: fault.fault,
      state: fault.state,
      name: faultById(fault.fault, catalogue)?.name ?? fault.fault,
      openedAt: fault.openedAt,
      closedAt: fault.closedAt,
      closedBecause: fault.closedBecause,
      evidence: fault.evidence,
    })),
    work: logs.map(
      ({ name, technique, day: on, at, intent: meant, strikes: count, seconds, clean }) => ({
        name,
        technique,
        day: on,
        at,
        intent: meant,
        strikes: count,
        seconds,
        clean,
      }),
    ),
    tests: tests.map(({ day: on, given, results }) => ({
      day: on,
      given,
      results: Object.fromEntries(results.map(({ name, text }) => [name, text])),
    })),
    notes: notes.map(({ day: on, technique, text }) => ({ day: on, technique, text })),
  };
}

/** One row a reading; readings that are absent say why instead of a value. */
export function ledgerCsv({ student, strikes }: LedgerFile): string {
  const rows = strikes.flatMap((strike) =>
    Object.entries(strike.readings).map(([id, one]) => ({
      student: student.name,
      filmedOn: strike.filmedOn,
      technique: strike.technique,
      side: strike.side,
      view: strike.view,
      intent: strike.intent ?? '',
      round: strike.round ?? '',
      clip: strike.clip,
      strike: strike.id,
      reading: id,
      name: MEASURE_NAMES[id as keyof typeof MEASURE_NAMES],
      ...('absent' in one
        ? { value: '', sigma: '', unit: '', source: '', absent: one.absent }
        : { ...one, absent: '' }),
    })),
  );
  // Texts that a spreadsheet would run as a formula are made harmless.
  return Papa.unparse(rows, { escapeFormulae: true, newline: '\n' });
}
