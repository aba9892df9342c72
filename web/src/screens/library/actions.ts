'use server';

import { revalidatePath } from 'next/cache';
import { z, ZodError } from 'zod';
import { changeSchema, type LibraryChange } from '@sinew/core/library/edits';
import { schoolSchema } from '@sinew/core/school/catalogue';
import { database } from '@/data/database';
import { changeLibrary, setStudentSchool } from '@/data/library';

const bySchema = z
  .string()
  .trim()
  .min(1, 'Who changes it? The history keeps the name.')
  .max(60, 'The name is too long.');

/** @returns what is wrong, or null when it is kept */
export async function change(by: string, wanted: LibraryChange): Promise<string | null> {
  try {
    await changeLibrary(await database(), bySchema.parse(by), changeSchema.parse(wanted));
  } catch (error) {
    if (error instanceof ZodError) return error.issues[0]!.message;
    if (error instanceof RangeError) return error.message;
    throw error;
  }
  revalidatePath('/', 'layout');
  return null;
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
  revalidatePath('/', 'layout');
}
