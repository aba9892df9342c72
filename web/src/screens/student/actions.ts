'use server';

import { revalidatePath } from 'next/cache';
import { z } from 'zod';
import { firstWrong } from '@sinew/core/foundation/problem/problem';
import { did } from '@/data/access/deeds';
import { database } from '@/data/database/database';
import { measureLater } from '@/data/finding/measureLater';
import { filmsGoNow } from '@/data/maintenance/here';
import { moveClip, type MoveOutcome } from '@/data/clip/moveClip';
import {
  addStudent,
  birthDate,
  changeConsent,
  consentForm,
  editStudent,
  formKey,
  recordConsent,
  setArchived,
  setBirthDate,
  studentById,
  studentForm,
  withdrawalForm,
  withdrawConsent,
} from '@/data/student/students';
import { changedMeanwhile } from '@/data/database/seen';
import { today } from '@/data/database/today';
import { problems, typed } from '@/ui/formAnswers';
import { MEASURED, seenOf } from './studentValues';
import { setTrashed, TRASH_KINDS, type TrashKind } from '@/data/maintenance/trash';
import { asKept } from '@/manner/manner';

/** What a form shows after it was sent: the texts as typed, and what is wrong with them. */
export interface FormState {
  readonly values: Readonly<Record<string, string>>;
  readonly errors: Readonly<Record<string, string>>;
  /** What was saved; missing when it was not. */
  readonly saved?: string;
}

const shown = () => revalidatePath('/', 'layout');

/** @param id the student to change; null adds one, once however often the form is sent */
export async function saveStudent(
  id: string | null,
  _: FormState,
  form: FormData,
): Promise<FormState> {
  const values = typed(form);
  const parsed = studentForm.safeParse(asKept(values, MEASURED));
  if (!parsed.success) return { values, errors: problems(parsed.error) };
  const db = await database();
  if (id !== null) {
    const present = await studentById(db, id);
    if (!present) return { values, errors: { name: 'This student is not in the list any more.' } };
    if (values.seen !== seenOf(present)) {
      return { values, errors: { form: changedMeanwhile('This student was').message } };
    }
    await editStudent(db, id, parsed.data);
    await did(db, 'changed-student', { studentId: id });
  }
  const saved = id ?? (await addStudent(db, parsed.data, formKey.parse(values.key)));
  // Stance, height and mass are part of what is measured.
  if (id !== null) measureLater(id);
  shown();
  return { values, errors: {}, saved };
}

/** @param consentId the consent to mend; null records a new one, once however often it is sent */
export async function saveConsent(
  studentId: string,
  consentId: string | null,
  _: FormState,
  form: FormData,
): Promise<FormState> {
  const values = typed(form);
  const parsed = consentForm.safeParse(values);
  if (!parsed.success) return { values, errors: problems(parsed.error) };
  const db = await database();
  if (consentId === null) {
    await recordConsent(db, studentId, parsed.data, formKey.parse(values.key));
    await did(db, 'recorded-consent', { studentId });
  } else if (!(await changeConsent(db, consentId, parsed.data))) {
    return { values, errors: { name: 'This consent has been withdrawn meanwhile.' } };
  }
  shown();
  return { values: {}, errors: {}, saved: consentId ?? values.key };
}

/** @returns what is wrong, or null when the consent is withdrawn */
export async function endConsent(
  studentId: string,
  given: z.input<typeof withdrawalForm>,
): Promise<string | null> {
  const parsed = withdrawalForm.safeParse(given);
  if (!parsed.success) return firstWrong(parsed.error);
  const { films, until } = parsed.data;
  await withdrawConsent(await database(), studentId, films === 'erase' ? today() : until!);
  await did(await database(), 'withdrew-consent', { studentId });
  // The coach has said so: no date has to be confirmed for it.
  if (films === 'erase') await filmsGoNow(studentId);
  shown();
  return null;
}

/** @returns what is wrong, or null when it is kept */
export async function saveBirthDate(studentId: string, day: string): Promise<string | null> {
  const parsed = birthDate.safeParse(day);
  if (!parsed.success) return firstWrong(parsed.error);
  await setBirthDate(await database(), studentId, parsed.data);
  shown();
  return null;
}

export async function archive(studentId: string, isArchived: boolean): Promise<void> {
  await setArchived(await database(), studentId, isArchived);
  shown();
}

/** Put a clip or a student away, or bring it back. */
export async function setPutAway(kind: TrashKind, id: string, isAway: boolean): Promise<void> {
  const db = await database();
  const what = z.enum(TRASH_KINDS).parse(kind);
  const which = z.string().min(1).parse(id);
  await setTrashed(db, what, which, isAway);
  const about = { student: { studentId: which }, clip: { clipId: which } };
  await did(db, isAway ? 'put-away' : 'brought-back', {
    ...(what === 'student' || what === 'clip' ? about[what] : {}),
    detail: `a ${what}`,
  });
  shown();
}

const idSchema = z.string().min(1).max(60);

export async function moveTo(clipId: string, studentId: string): Promise<MoveOutcome> {
  const outcome = await moveClip(
    await database(),
    idSchema.parse(clipId),
    idSchema.parse(studentId),
  );
  shown();
  return outcome;
}
