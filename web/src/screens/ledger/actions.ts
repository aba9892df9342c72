'use server';

import { revalidatePath } from 'next/cache';
import type { z } from 'zod';
import { database } from '@/data/database/database';
import { addNote, addTest, noteInput, testInput } from '@/data/progress/ledger';

/** @returns what is wrong, or null when it is kept */
export async function note(input: z.infer<typeof noteInput>): Promise<string | null> {
  const parsed = noteInput.safeParse(input);
  if (!parsed.success) return parsed.error.issues[0]!.message;
  await addNote(await database(), parsed.data);
  revalidatePath('/', 'layout');
  return null;
}

/** @returns what is wrong, or null when it is kept */
export async function keepTest(input: z.input<typeof testInput>): Promise<string | null> {
  const parsed = testInput.safeParse(input);
  if (!parsed.success) {
    const [issue] = parsed.error.issues;
    return `${issue!.path.slice(1).join(', ')}: ${issue!.message}`;
  }
  await addTest(await database(), parsed.data);
  revalidatePath('/', 'layout');
  return null;
}
