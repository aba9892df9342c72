'use server';

import { revalidatePath } from 'next/cache';
import { z } from 'zod';
import { firstWrong } from '@sinew/core/foundation/problem/problem';
import { did } from '@/data/access/deeds';
import { database } from '@/data/database/database';
import { endHurt, hurtInput, noteHurt, type HurtInput } from '@/data/student/hurtNotes';
import { studentById } from '@/data/student/students';

/** @returns what is wrong, or null when it is kept */
export async function noteHurtOf(input: HurtInput): Promise<string | null> {
  const parsed = hurtInput.safeParse(input);
  if (!parsed.success) return firstWrong(parsed.error);
  const db = await database();
  if (!(await studentById(db, parsed.data.studentId))) {
    return 'This student is not in the list any more.';
  }
  await noteHurt(db, parsed.data);
  revalidatePath('/', 'layout');
  return null;
}

/** @returns what is wrong, or null when it is over */
export async function endHurtOf(id: string, because: string): Promise<string | null> {
  const why = z.string().trim().min(1).max(300).safeParse(because);
  if (!why.success) return 'Why? Write what the student, or the clinician, says.';
  const db = await database();
  const studentId = await endHurt(db, z.string().min(1).max(60).parse(id), why.data);
  await did(db, 'ended-hurt', { studentId });
  revalidatePath('/', 'layout');
  return null;
}
