'use server';

import { revalidatePath } from 'next/cache';
import { z } from 'zod';
import { firstWrong, saidBy } from '@sinew/core/foundation/problem/problem';
import type { DeedKind } from '@/data/access/deedKinds';
import { did } from '@/data/access/deeds';
import { mustBe } from '@/data/access/whoAsks';
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
  return done(changeSettings(db, parsed.data, before), 'changed-settings');
}

/** @returns what went wrong, or null when there is a new backup */
export const backUpNow = async (): Promise<string | null> => done(backUpHere());

/** Back to a backup; what is there now is backed up before. @returns what went wrong, or null */
export async function goBackTo(name: string): Promise<string | null> {
  return done(
    asOwner(() => goBackHere(z.string().parse(name))),
    'went-back',
  );
}

/** @param day the day that the coach has seen and confirmed. @returns what went wrong, or null */
export async function confirmDate(day: string): Promise<string | null> {
  if (day !== today()) return 'This machine’s clock has been set meanwhile. Look again.';
  return done(asOwner(confirmToday));
}

/** @returns what went wrong, or null when films without a clip are put aside */
export async function putFilmsAside(): Promise<string | null> {
  return done(asOwner(putAllStraysAside));
}

/** Others are told who may. */
async function asOwner(work: () => Promise<void>): Promise<void> {
  await mustBe('owner');
  await work();
}

async function done(work: Promise<void>, deed?: DeedKind): Promise<string | null> {
  const problem = await saidBy(work);
  if (problem === null && deed) await did(await database(), deed);
  if (problem === null) shown();
  return problem;
}
