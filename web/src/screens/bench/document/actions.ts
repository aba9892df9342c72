'use server';

import { revalidatePath } from 'next/cache';
import { z } from 'zod';
import { firstWrong, saidBy } from '@sinew/core/foundation/problem/problem';
import { calibrationSchema, type SavedCalibration } from '@sinew/core/analysis/clipDocument';
import { keepCameraSetup, removeCameraSetup } from '@/data/gym/cameraSetups';
import type { DeedKind } from '@/data/access/deedKinds';
import { didToStrike } from '@/data/access/deeds';
import { whoIsHere } from '@/data/access/whoAsks';
import { faultById } from '@sinew/core/judge/fault/faults';
import { libraryOf } from '@/data/gym/library';
import { database } from '@/data/database/database';
import { ask } from '@/data/threads/ask';
import {
  acceptFinding,
  cueTextSchema,
  putAside,
  editCue,
  reopenFinding,
  type AcceptOutcome,
} from '@/data/finding/findings';

const id = z.string().min(1).max(60);
const reasonSchema = z.string().trim().min(1).max(300);

const shown = () => revalidatePath('/', 'layout');

export async function accept(
  strikeId: string,
  fault: string,
  isReplacing: boolean,
  of: 'strike' | 'set',
): Promise<AcceptOutcome> {
  const about = [id.parse(strikeId), id.parse(fault)] as const;
  const found = ask('findingOf', ...about, z.enum(['strike', 'set']).parse(of));
  const isInPlace = z.boolean().parse(isReplacing);
  const by = await nameHere();
  const outcome = await acceptFinding(await database(), ...about, isInPlace, found, by);
  if (outcome.kind === 'accepted') {
    await said('accepted', strikeId, fault);
    shown();
  }
  return outcome;
}

/** @returns false when the strike has no such finding any more */
export async function dismiss(strikeId: string, fault: string, reason: string): Promise<boolean> {
  return aside(strikeId, fault, 'dismissed', reasonSchema.parse(reason));
}

/** @returns false when the strike has no such finding any more */
export async function notNow(strikeId: string, fault: string): Promise<boolean> {
  return aside(strikeId, fault, 'later', '');
}

const nameHere = async (): Promise<string | null> => (await whoIsHere())?.name ?? null;

/** Written down with the name that the leak has in the library. */
async function said(what: DeedKind, strikeId: string, fault: string): Promise<void> {
  const db = await database();
  await didToStrike(
    db,
    what,
    strikeId,
    faultById(fault, (await libraryOf(db)).catalogue)?.name ?? fault,
  );
}

async function aside(
  strikeId: string,
  fault: string,
  how: 'dismissed' | 'later',
  why: string,
): Promise<boolean> {
  const about = [id.parse(strikeId), id.parse(fault)] as const;
  const found = ask('findingOf', ...about, 'strike');
  const isDone = await putAside(await database(), ...about, how, why, found, await nameHere());
  if (isDone) await said(how === 'later' ? 'postponed' : how, strikeId, fault);
  shown();
  return isDone;
}

export async function reopen(strikeId: string, fault: string): Promise<void> {
  await reopenFinding(await database(), id.parse(strikeId), id.parse(fault));
  await said('reopened', strikeId, fault);
  shown();
}

/**
 * @param seen the words that are to be said otherwise
 * @returns what is wrong, or null when it is saved
 */
export async function rewordCue(cueId: string, text: string, seen: string): Promise<string | null> {
  const parsed = cueTextSchema.safeParse(text);
  if (!parsed.success) return firstWrong(parsed.error);
  const edited = editCue(await database(), id.parse(cueId), parsed.data, z.string().parse(seen));
  const problem = await saidBy(edited);
  if (problem === null) shown();
  return problem;
}

const setupSchema = z.object({
  name: z.string().trim().min(1, 'A set-up needs a name.').max(60, 'The name is too long.'),
  width: z.number().int().positive(),
  height: z.number().int().positive(),
  calibration: calibrationSchema,
});

/** @returns what is wrong, or null when the set-up is kept */
export async function keepSetup(setup: {
  name: string;
  width: number;
  height: number;
  calibration: SavedCalibration;
}): Promise<string | null> {
  const parsed = setupSchema.safeParse(setup);
  if (!parsed.success) return firstWrong(parsed.error);
  await keepCameraSetup(await database(), parsed.data);
  shown();
  return null;
}

export async function forgetSetup(setupId: string): Promise<void> {
  await removeCameraSetup(await database(), id.parse(setupId));
  shown();
}
