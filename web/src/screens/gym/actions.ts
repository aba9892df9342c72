'use server';

import { revalidatePath } from 'next/cache';
import { join } from 'node:path';
import { z } from 'zod';
import { backUp, backupFolder, BackupError, restore } from '@/data/backups';
import { closeDatabase, database, dataFolder } from '@/data/database';
import { saveSettings, settingsSchema, type Settings } from '@/data/gym';

const shown = () => revalidatePath('/', 'layout');

/** @returns what is wrong, or null when it is kept */
export async function keepSettings(settings: Settings): Promise<string | null> {
  const parsed = settingsSchema.safeParse(settings);
  if (!parsed.success) return parsed.error.issues[0]!.message;
  await saveSettings(await database(), parsed.data);
  shown();
  return null;
}

/** @returns what went wrong, or null when there is a new backup */
export async function backUpNow(): Promise<string | null> {
  const folder = dataFolder();
  try {
    await backUp(await database(), backupFolder(folder), join(folder, 'clips'), new Date());
  } catch (error) {
    if (error instanceof BackupError) return error.message;
    throw error;
  }
  shown();
  return null;
}

/** Back to a backup; what is there now is backed up before. @returns what went wrong, or null */
export async function goBackTo(name: string): Promise<string | null> {
  const folder = dataFolder();
  const to = backupFolder(folder);
  const wanted = z.string().parse(name);
  try {
    await backUp(await database(), to, join(folder, 'clips'), new Date(), wanted);
    await restore(folder, to, wanted, closeDatabase);
  } catch (error) {
    if (error instanceof BackupError) return error.message;
    throw error;
  }
  await database();
  shown();
  return null;
}
