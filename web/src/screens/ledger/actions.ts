'use server';

import { revalidatePath } from 'next/cache';
import type { z } from 'zod';
import { firstWrong } from '@sinew/core/foundation/problem/problem';
import { database } from '@/data/database/database';
import { addNote, addTest, noteInput, testInput } from '@/data/progress/ledger';

/** @returns what is wrong, or null when it is kept */
export async function note(input: z.infer<typeof noteInput>): Promise<string | null> {
  const parsed = noteInput.safeParse(input);
  if (!parsed.success) return firstWrong(parsed.error);
  await addNote(await database(), parsed.data);
  revalidatePath('/', 'layout');
  return null;
}

/** @returns what is wrong, or null when it is kept */
export async function keepTest(input: z.input<typeof testInput>): Promise<string | null> {
  const parsed = testInput.safeParse(input);
  if (!parsed.success) {
    return firstWrong(parsed.error);
  }
  await addTest(await database(), parsed.data);
  revalidatePath('/', 'layout');
  return null;
}
