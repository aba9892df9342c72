'use server';

import { revalidatePath } from 'next/cache';
import { sessionSchema, type Session } from '@sinew/core/train/work/session';
import { database } from '@/data/database/database';
import { keepSession } from '@/data/gym/gym';

/** @returns what is wrong, or null when it is kept */
export async function saveSession(session: Session): Promise<string | null> {
  const parsed = sessionSchema.safeParse(session);
  if (!parsed.success) {
    const [issue] = parsed.error.issues;
    return issue!.path[0] === 'name'
      ? 'The session needs a name.'
      : `Part ${Number(issue!.path[1]) + 1}: ${issue!.message}`;
  }
  await keepSession(await database(), parsed.data.id, parsed.data);
  revalidatePath('/', 'layout');
  return null;
}

/** What comes with Sinew is back; a session of the gym's own is gone. */
export async function resetSession(id: string): Promise<void> {
  await keepSession(await database(), sessionSchema.shape.id.parse(id), null);
  revalidatePath('/', 'layout');
}
