'use server';

import { revalidatePath } from 'next/cache';
import type { z } from 'zod';
import { saidBy, wrongWith } from '@sinew/core/foundation/problem/problem';
import { sessionSchema, type Session } from '@sinew/core/train/work/session';
import { database } from '@/data/database/database';
import { keepSession } from '@/data/gym/gym';

/**
 * @param seen the session as it was when the coach began
 * @returns what is wrong, or null when it is kept
 */
export async function saveSession(session: Session, seen: Session): Promise<string | null> {
  const parsed = sessionSchema.safeParse(session);
  if (!parsed.success) return wrongInSession(parsed.error);
  return kept(parsed.data, sessionSchema.parse(seen));
}

/** A part is named by its place: that is how the editor shows it. */
function wrongInSession(error: z.ZodError): string {
  const issue = error.issues[0]!;
  const [list, place, ...field] = issue.path;
  if (list !== 'blocks' || place === undefined) return wrongWith(issue, NAMES);
  const within = { ...issue, path: field };
  return `Part ${Number(place) + 1}: ${wrongWith(within, NAMES)}`;
}

const NAMES = {
  name: 'The session’s name',
  about: 'What the session is for',
  blocks: 'What the session is made of',
  title: 'The title',
  parts: 'The list of rounds',
  work: 'The work of a round, in seconds,',
  rest: 'The rest, in seconds,',
};

/** What comes with Sinew is back; a session of the gym's own is gone. @returns as `saveSession` */
export const resetSession = async (seen: Session): Promise<string | null> =>
  kept(null, sessionSchema.parse(seen));

async function kept(session: Session | null, seen: Session): Promise<string | null> {
  const problem = await saidBy(keepSession(await database(), session, seen));
  if (problem === null) revalidatePath('/', 'layout');
  return problem;
}
