'use server';

import { revalidatePath } from 'next/cache';
import { z } from 'zod';
import { signedName } from '@/data/access/whoAsks';
import { database } from '@/data/database/database';
import { keepRepeatMarking, repeatMarkingInput } from '@/data/progress/repeatMarkings';

/** @returns what is wrong, or null when it is kept */
export async function keepMarks(
  strikeId: string,
  input: z.infer<typeof repeatMarkingInput>,
): Promise<string | null> {
  const by = (await signedName()) ?? input.by;
  const parsed = repeatMarkingInput.safeParse({ ...input, by });
  if (!parsed.success) return 'Who marks? Write your name.';
  const isKept = await keepRepeatMarking(await database(), z.string().parse(strikeId), parsed.data);
  revalidatePath('/', 'layout');
  return isKept ? null : 'This strike is not there any more.';
}
