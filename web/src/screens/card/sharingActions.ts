'use server';

import { revalidatePath } from 'next/cache';
import type { z } from 'zod';
import { firstWrong } from '@sinew/core/foundation/problem/problem';
import { accessDb } from '@/data/access/accessDb';
import { did } from '@/data/access/deeds';
import { endLessons } from '@/data/access/lessons';
import { dataFolder } from '@/data/database/dataFolder';
import { database } from '@/data/database/database';
import { allowSharing, endSharing, sharingInput, sharingOf } from '@/data/student/sharing';
import { studentById } from '@/data/student/students';

const GONE = 'This student is not in the list any more.';

/** @returns what is wrong, or null when the consent is recorded */
export async function allow(
  studentId: string,
  input: z.input<typeof sharingInput>,
): Promise<string | null> {
  const parsed = sharingInput.safeParse(input);
  if (!parsed.success) return firstWrong(parsed.error);
  const db = await database();
  const student = await studentById(db, studentId);
  if (!student) return GONE;
  if (!student.consent) return 'First the consent to be filmed: it stands on the student’s page.';
  await allowSharing(db, student, parsed.data);
  await did(db, 'allowed-sharing', { studentId });
  revalidatePath('/', 'layout');
  return null;
}

/** @returns what is wrong, or null when nothing more is sent */
export async function stopSharing(studentId: string): Promise<string | null> {
  const db = await database();
  await endSharing(db, studentId);
  await endLessons(await accessDb(), dataFolder(), studentId);
  await did(db, 'ended-sharing', { studentId });
  revalidatePath('/', 'layout');
  return null;
}

/**
 * Asked before anything is made: consent may have been withdrawn since the page was opened.
 *
 * @returns what is wrong, or null when it may be made; that it was is written down
 */
export async function mayBeSent(studentId: string, what: string): Promise<string | null> {
  const db = await database();
  const student = await studentById(db, studentId);
  if (!student) return GONE;
  if (!(await sharingOf(db, student))) {
    return 'Nothing was made: nobody has consented that films leave this machine, or not any more.';
  }
  await did(db, 'sent-home', { studentId, detail: what.slice(0, 60) });
  return null;
}
