'use server';

import { revalidatePath } from 'next/cache';
import { database } from '@/data/database/database';
import { bandForm, setBands } from '@/data/student/students';
import { problems, typed } from '@/screens/student/formAnswers';

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
  if (!(await setBands(await database(), id, parsed.data))) {
    return {
      values,
      errors: { form: 'This student is not in the list any more.' },
      isSaved: false,
    };
  }
  revalidatePath('/', 'layout');
  return { values, errors: {}, isSaved: true };
}
