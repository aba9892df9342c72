'use server';

import { revalidatePath } from 'next/cache';
import { z, ZodError } from 'zod';
import { Problem, firstWrong } from '@sinew/core/foundation/problem/problem';
import { changeSchema, type LibraryChange } from '@sinew/core/judge/library/edits';
import { schoolSchema } from '@sinew/core/judge/school/schools';
import { did } from '@/data/access/deeds';
import { signedName } from '@/data/access/whoAsks';
import { database } from '@/data/database/database';
import { changeLibrary, libraryOf, setStudentSchool } from '@/data/gym/library';
import type { Effect } from '@/data/finding/foundFaults';
import { ask } from '@/data/threads/ask';
import { measureAllLater, measureLater } from '@/data/finding/measureLater';

const bySchema = z
  .string()
  .trim()
  .min(1, 'Who changes it? The history keeps the name.')
  .max(60, 'The name is too long.');

export type ChangeOutcome =
  | { readonly kind: 'kept'; readonly effect: Effect }
  | { readonly kind: 'wrong'; readonly why: string };

/** @param was what the change is about, as the coach has seen it: `touchedBy` */
export async function change(
  by: string,
  wanted: LibraryChange,
  was: unknown,
): Promise<ChangeOutcome> {
  const db = await database();
  const before = await libraryOf(db);
  try {
    const name = (await signedName()) ?? bySchema.parse(by);
    await changeLibrary(db, name, changeSchema.parse(wanted), { was });
  } catch (error) {
    if (error instanceof ZodError) return { kind: 'wrong', why: firstWrong(error) };
    if (error instanceof Problem) return { kind: 'wrong', why: error.message };
    throw error;
  }
  await did(db, 'changed-library');
  await measureAllLater();
  revalidatePath('/', 'layout');
  return { kind: 'kept', effect: await ask('effectOf', before, await libraryOf(db)) };
}

export async function chooseForStudent(
  studentId: string,
  school: Record<string, string>,
): Promise<void> {
  await setStudentSchool(
    await database(),
    z.string().min(1).max(60).parse(studentId),
    schoolSchema.parse(school),
  );
  measureLater(studentId);
  revalidatePath('/', 'layout');
}
