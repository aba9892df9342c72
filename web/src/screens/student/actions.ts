'use server';

import { redirect } from 'next/navigation';
import { revalidatePath } from 'next/cache';
import { z } from 'zod';
import { database } from '@/data/database';
import {
  addStudent,
  consentForm,
  editStudent,
  recordConsent,
  setArchived,
  studentForm,
  withdrawConsent,
} from '@/data/students';
import { setTrashed, TRASH_KINDS, type TrashKind } from '@/data/trash';

/** What a form shows after it was sent and not accepted: the texts as typed, and what is wrong. */
export interface FormState {
  readonly values: Readonly<Record<string, string>>;
  readonly errors: Readonly<Record<string, string>>;
}

function typed(form: FormData): Record<string, string> {
  return Object.fromEntries(
    [...form].flatMap(([key, value]) => (typeof value === 'string' ? [[key, value]] : [])),
  );
}

function problems(error: z.ZodError): Record<string, string> {
  return Object.fromEntries(error.issues.map((issue) => [String(issue.path[0]), issue.message]));
}

/** @param id the student to change; null adds one */
export async function saveStudent(
  id: string | null,
  _: FormState,
  form: FormData,
): Promise<FormState> {
  const values = typed(form);
  const parsed = studentForm.safeParse(values);
  if (!parsed.success) return { values, errors: problems(parsed.error) };
  const db = await database();
  if (id !== null && !(await editStudent(db, id, parsed.data))) {
    return { values, errors: { name: 'This student is not in the list any more.' } };
  }
  const saved = id ?? (await addStudent(db, parsed.data));
  revalidatePath('/', 'layout');
  redirect(`/students/${saved}`);
}

export async function saveConsent(
  studentId: string,
  _: FormState,
  form: FormData,
): Promise<FormState> {
  const values = typed(form);
  const parsed = consentForm.safeParse(values);
  if (!parsed.success) return { values, errors: problems(parsed.error) };
  await recordConsent(await database(), studentId, parsed.data);
  revalidatePath('/', 'layout');
  return { values: {}, errors: {} };
}

export async function endConsent(studentId: string): Promise<void> {
  await withdrawConsent(await database(), studentId);
  revalidatePath('/', 'layout');
}

export async function archive(studentId: string, isArchived: boolean): Promise<void> {
  await setArchived(await database(), studentId, isArchived);
  revalidatePath('/', 'layout');
}

/** Put a clip or a student away, or bring it back. */
export async function setPutAway(kind: TrashKind, id: string, isAway: boolean): Promise<void> {
  await setTrashed(
    await database(),
    z.enum(TRASH_KINDS).parse(kind),
    z.string().min(1).parse(id),
    isAway,
  );
  revalidatePath('/', 'layout');
}
