'use server';

import { revalidatePath } from 'next/cache';
import { database } from '@/data/database/database';
import { changedMeanwhile } from '@/data/database/seen';
import { bandForm, setBands, studentById } from '@/data/student/students';
import { problems, typed } from '@/ui/formAnswers';

/** What the form shows after it was sent. */
export interface BandsState {
  readonly values: Readonly<Record<string, string>>;
  readonly errors: Readonly<Record<string, string>>;
  readonly isSaved: boolean;
}

export async function saveBands(id: string, _: BandsState, form: FormData): Promise<BandsState> {
  const values = typed(form);
  const parsed = bandForm.safeParse(values);
  if (!parsed.success) return { values, errors: problems(parsed.error), isSaved: false };
  const refused = (form: string) => ({ values, errors: { form }, isSaved: false });
  const db = await database();
  const present = await studentById(db, id);
  if (!present) return refused('This student is not in the list any more.');
  if (values.seen !== JSON.stringify(present.bands)) {
    return refused(changedMeanwhile('These girths were').message);
  }
  await setBands(db, id, parsed.data);
  revalidatePath('/', 'layout');
  return { values, errors: {}, isSaved: true };
}
