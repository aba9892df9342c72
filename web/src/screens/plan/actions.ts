'use server';

import { revalidatePath } from 'next/cache';
import { z } from 'zod';
import { Problem, firstWrong } from '@sinew/core/foundation/problem/problem';
import { daySchema } from '@sinew/core/foundation/calendar/day';
import { database } from '@/data/database/database';
import {
  addItem,
  blockInput,
  itemInput,
  moveItem,
  planBlock,
  removeBlock,
  removeItem,
  setDone,
} from '@/data/work/plan';

const id = z.string().min(1).max(60);
const shown = () => revalidatePath('/', 'layout');

/** @returns what is wrong, or null when it is planned */
export async function plan(input: z.infer<typeof itemInput>): Promise<string | null> {
  const parsed = itemInput.safeParse(input);
  if (!parsed.success) return firstWrong(parsed.error);
  await addItem(await database(), parsed.data);
  shown();
  return null;
}

/** @returns what is wrong, or how many things were planned */
export async function planWeeks(input: z.infer<typeof blockInput>): Promise<string | number> {
  const parsed = blockInput.safeParse(input);
  if (!parsed.success) return firstWrong(parsed.error);
  try {
    const count = await planBlock(await database(), parsed.data);
    shown();
    return count;
  } catch (error) {
    if (error instanceof Problem) return error.message;
    throw error;
  }
}

export async function move(itemId: string, day: string, beforeId: string | null): Promise<void> {
  await moveItem(
    await database(),
    id.parse(itemId),
    daySchema.parse(day),
    id.nullable().parse(beforeId),
  );
  shown();
}

export async function tick(itemId: string, isDone: boolean): Promise<void> {
  await setDone(await database(), id.parse(itemId), z.boolean().parse(isDone));
  shown();
}

export async function unplan(itemId: string): Promise<void> {
  await removeItem(await database(), id.parse(itemId));
  shown();
}

export async function unplanBlock(block: string): Promise<void> {
  await removeBlock(await database(), id.parse(block));
  shown();
}
