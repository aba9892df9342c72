/**
 * What is done without being asked: the trash emptied, consents kept, leftovers put aside, a backup
 * a day. While the clock or the database is in doubt, backups go on and nothing is taken away.
 */
import {
  backupFolder,
  backups,
  backUp,
  forgetFilms,
  isDue,
  KEPT,
  missingFilmsBack,
} from './backups';
import type { Db } from '../database/db';
import { dayIn, DAY_MS } from '../database/today';
import { dueInTrash, emptyTrash, filmsWithoutConsent, purgeFilms } from './trash';
import { bodyIn, eraseEverywhere } from './erase';
import { readClock, type Clock } from './clock';
import type { Place } from './place';
import { bringBack, emptySetAside, forgetAside } from './setAside';
import {
  clearTransfers,
  doubtfulStrays,
  keptFilms,
  keptFilmsIfTold,
  putStraysAside,
  type Strays,
} from './sweep';

/** What the coach has to know, or to say. */
export interface Upkeep {
  readonly clock: Clock;
  /** What waits until the date is confirmed; null when there is no need to ask. */
  readonly waits: {
    readonly films: number;
    readonly putAway: number;
    readonly backups: number;
  } | null;
  readonly strays: Strays | null;
  /** Films lie in a store elsewhere, and it does not answer: nothing that has to do with them is done. */
  readonly isStoreAway: boolean;
}

/** Look, and change nothing but the last time seen. */
export async function lookAfter({ db, files, folder }: Place, at: Date): Promise<Upkeep> {
  const clock = await readClock(db, folder, at);
  const kept = await keptFilmsIfTold(db, files, at);
  return {
    clock,
    waits: clock.isBelieved ? null : await whatWaits(db, folder, at, clock.since),
    strays: kept && doubtfulStrays(kept.films, kept.strays.length, kept.clips),
    isStoreAway: kept === null,
  };
}

/** A holiday of this length is asked about even when nothing waits, and so is any step back. */
const LONG_AWAY = 30 * DAY_MS;

async function whatWaits(
  db: Db,
  folder: string,
  at: Date,
  since: string,
): Promise<Upkeep['waits']> {
  const [films, putAway, kept] = await Promise.all([
    filmsWithoutConsent(db, dayIn(at)),
    dueInTrash(db, at),
    backups(backupFolder(folder)),
  ]);
  const surplus = Math.max(0, kept.length - KEPT);
  const away = at.getTime() - Date.parse(since);
  const isOrdinary = away >= 0 && away < LONG_AWAY;
  // A few backups more than usual are nothing to ask about.
  if (isOrdinary && films.length === 0 && putAway === 0 && surplus < KEPT) return null;
  return { films: films.length, putAway, backups: surplus };
}

/** Films that may not be kept go from everywhere. */
export async function forget(folder: string, films: readonly string[]): Promise<void> {
  await forgetFilms(backupFolder(folder), films);
  await forgetAside(folder, films);
}

/** Nothing is in doubt: what is old may go. */
export const isSettled = ({ clock, strays, isStoreAway }: Upkeep): boolean =>
  clock.isBelieved && strays === null && !isStoreAway;

async function lookAfterFilms(place: Place, at: Date, upkeep: Upkeep): Promise<void> {
  const { db, files, folder } = place;
  const { missing, erased } = await keptFilms(db, files, at);
  for (const sha256 of erased) await files.remove(sha256);
  const back = await bringBack(files, missing);
  await missingFilmsBack(
    backupFolder(folder),
    files,
    [...missing].filter((sha256) => !back.has(sha256)),
  );
  if (upkeep.clock.isBelieved) {
    const gone = await emptyTrash(db, files, at);
    const due = await filmsWithoutConsent(db, dayIn(at));
    await forget(folder, [...gone.films, ...(await purgeFilms(db, files, due))]);
    await eraseEverywhere(folder, [...gone.rows, ...bodyIn(due.map(({ id }) => id))]);
    await clearTransfers(files, at);
    await emptySetAside(folder, at);
  }
  if (isSettled(upkeep)) {
    await putStraysAside(files, (await keptFilms(db, files, at)).strays, at);
  }
}

/** @returns whether a backup was made */
export async function maintain(place: Place, at: Date, upkeep: Upkeep): Promise<boolean> {
  const { folder } = place;
  const to = backupFolder(folder);
  const isCertain = isSettled(upkeep);
  if (!upkeep.isStoreAway) await lookAfterFilms(place, at, upkeep);
  const isTime = isDue(await backups(to), at);
  if (isTime) await backUp(folder, to, at, { isRotated: isCertain });
  return isTime;
}
