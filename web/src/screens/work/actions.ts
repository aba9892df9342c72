'use server';

import { revalidatePath } from 'next/cache';
import { z } from 'zod';
import { firstWrong, refused, saidBy } from '@sinew/core/foundation/problem/problem';
import { daySchema } from '@sinew/core/foundation/calendar/day';
import { techniqueById } from '@sinew/core/foundation/technique/techniques';
import { did } from '@/data/access/deeds';
import { whoIsHere } from '@/data/access/whoAsks';
import { database } from '@/data/database/database';
import { closeFault } from '@/data/finding/studentFaults';
import { setDeleted } from '@/data/database/softDelete';
import {
  endPrescription,
  overrideGate,
  overrideInput,
  prescribe,
  prescribeFor,
  prescriptionInput,
  setNextCheck,
  type PrescribeOutcome,
  type PrescriptionInput,
} from '@/data/work/work';
import { logInput, logWork, type LogInput } from '@/data/work/drillLog';

const id = z.string().min(1).max(60);
const shown = () => revalidatePath('/', 'layout');

const faultSchema = z.object({ studentId: id, technique: id, fault: id });

/** What the page shows when something typed does not fit. */
export type GiveOutcome = PrescribeOutcome | { readonly kind: 'wrong'; readonly reason: string };

export async function give(input: PrescriptionInput): Promise<GiveOutcome> {
  const parsed = prescriptionInput.safeParse(input);
  if (!parsed.success) return { kind: 'wrong', reason: firstWrong(parsed.error) };
  const outcome = await prescribe(await database(), parsed.data);
  const { studentId, override } = parsed.data;
  if (outcome.kind === 'given' && override) {
    await did(await database(), 'gave-work', { studentId, detail: override });
  }
  if (outcome.kind === 'given') shown();
  return outcome;
}

/** The catalogue's work for a fault, unchanged. */
export async function giveFor(worksOn: z.infer<typeof faultSchema>): Promise<PrescribeOutcome> {
  const { studentId, technique, fault } = faultSchema.parse(worksOn);
  const outcome = await prescribeFor(await database(), studentId, technique, fault);
  if (outcome.kind === 'given') shown();
  return outcome;
}

/** @returns what is wrong, or null when it is kept */
export async function log(input: LogInput): Promise<string | null> {
  const parsed = logInput.safeParse(input);
  if (!parsed.success) return firstWrong(parsed.error);
  const wrong = await logWork(await database(), parsed.data);
  if (!wrong) shown();
  return wrong;
}

/** All of them or none. @returns what is wrong, or null when they are kept */
export async function logAll(inputs: readonly LogInput[]): Promise<string | null> {
  const parsed = z.array(logInput).max(2000).safeParse(inputs);
  if (!parsed.success) return firstWrong(parsed.error);
  const db = await database();
  const logged = db.transaction().execute(async (trx) => {
    for (const input of parsed.data) {
      const problem = await logWork(trx, input);
      if (problem) throw refused(problem);
    }
  });
  const problem = await saidBy(logged);
  if (problem === null) shown();
  return problem;
}

export async function setLogGone(logId: string, isGone: boolean): Promise<void> {
  await setDeleted(await database(), 'drill_log', id.parse(logId), isGone);
  shown();
}

export async function endWork(
  prescriptionId: string,
  status: 'active' | 'done' | 'stopped',
): Promise<void> {
  const db = await database();
  await endPrescription(
    db,
    id.parse(prescriptionId),
    z.enum(['active', 'done', 'stopped']).parse(status),
  );
  shown();
}

export async function checkOn(prescriptionId: string, day: string): Promise<void> {
  await setNextCheck(await database(), id.parse(prescriptionId), daySchema.parse(day));
  shown();
}

/** @returns what is wrong, or null when the gate is set */
export async function setGate(input: z.infer<typeof overrideInput>): Promise<string | null> {
  const parsed = overrideInput.safeParse(input);
  if (!parsed.success) return firstWrong(parsed.error);
  const wrong = await overrideGate(await database(), parsed.data);
  const { studentId, technique, reason } = parsed.data;
  if (!wrong) {
    const detail = `${techniqueById(technique).name}: ${reason}`;
    await did(await database(), 'set-gate', { studentId, detail });
  }
  if (!wrong) shown();
  return wrong;
}

/** @returns what is wrong, or null when the fault is closed */
export async function close(
  fault: z.infer<typeof faultSchema>,
  because: string,
): Promise<string | null> {
  const why = z.string().trim().min(1).max(300).safeParse(because);
  if (!why.success) return 'Why? The ledger keeps the reason.';
  const { studentId } = faultSchema.parse(fault);
  const by = (await whoIsHere())?.name ?? null;
  await closeFault(await database(), faultSchema.parse(fault), why.data, by);
  await did(await database(), 'closed', { studentId, detail: why.data });
  shown();
  return null;
}
