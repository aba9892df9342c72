'use server';

import { revalidatePath } from 'next/cache';
import { z } from 'zod';
import { firstWrong, saidBy } from '@sinew/core/foundation/problem/problem';
import { database } from '@/data/database/database';
import { changeSettings, settingsSchema, type Settings } from '@/data/gym/gym';
import { backUpHere, confirmToday, goBackHere, putAllStraysAside } from '@/data/maintenance/here';
import { today } from '@/data/database/today';

const shown = () => revalidatePath('/', 'layout');

/**
 * @param seen the settings as they were when the coach began
 * @returns what is wrong, or null when it is kept
 */
export async function keepSettings(settings: Settings, seen: Settings): Promise<string | null> {
  const parsed = settingsSchema.safeParse(settings);
  if (!parsed.success) return firstWrong(parsed.error);
  const before = settingsSchema.parse(seen);
  const db = await database();
  return done(changeSettings(db, parsed.data, before));
}

/** @returns what went wrong, or null when there is a new backup */
export const backUpNow = async (): Promise<string | null> => done(backUpHere());

/** Back to a backup; what is there now is backed up before. @returns what went wrong, or null */
export const goBackTo = async (name: string): Promise<string | null> =>
  done(goBackHere(z.string().parse(name)));

/** @param day the day that the coach has seen and confirmed. @returns what went wrong, or null */
export async function confirmDate(day: string): Promise<string | null> {
  if (day !== today()) return 'This machine’s clock has been set meanwhile. Look again.';
  return done(confirmToday());
}

/** @returns what went wrong, or null when films without a clip are put aside */
export const putFilmsAside = async (): Promise<string | null> => done(putAllStraysAside());

async function done(work: Promise<void>): Promise<string | null> {
  const problem = await saidBy(work);
  if (problem === null) shown();
  return problem;
}
