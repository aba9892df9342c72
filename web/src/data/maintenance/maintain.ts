/**
 * What is done without being asked: the trash emptied, consents kept, leftovers put aside, a backup
 * a day. While the clock or the database is in doubt, backups go on and nothing is taken away.
 */
import { join } from 'node:path';
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
import { clearTransfers, doubtfulStrays, keptFilms, putStraysAside, type Strays } from './sweep';

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
}

/** Look, and change nothing but the last time seen. */
export async function lookAfter({ db, folder }: Place, at: Date): Promise<Upkeep> {
  const clock = await readClock(db, folder, at);
  const { films, clips, strays } = await keptFilms(db, folder, at);
  return {
    clock,
    waits: clock.isBelieved ? null : await whatWaits(db, folder, at, clock.since),
    strays: doubtfulStrays(films, strays.length, clips),
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

/** @returns whether a backup was made */
export async function maintain(place: Place, at: Date, upkeep: Upkeep): Promise<boolean> {
  const { db, files, folder } = place;
  const to = backupFolder(folder);
  const { missing } = await keptFilms(db, folder, at);
  const back = await bringBack(folder, missing, (sha256) => files.pathOf(sha256));
  await missingFilmsBack(
    to,
    join(folder, 'clips'),
    [...missing].filter((sha256) => !back.has(sha256)),
  );
  const isCertain = upkeep.clock.isBelieved && upkeep.strays === null;
  if (upkeep.clock.isBelieved) {
    const gone = await emptyTrash(db, files, at);
    const due = await filmsWithoutConsent(db, dayIn(at));
    await forget(folder, [...gone.films, ...(await purgeFilms(db, files, due))]);
    await eraseEverywhere(folder, [...gone.rows, ...bodyIn(due.map(({ id }) => id))]);
    await clearTransfers(folder, at);
    await emptySetAside(folder, at);
  }
  if (isCertain) await putStraysAside(folder, (await keptFilms(db, folder, at)).strays, at);
  const isTime = isDue(await backups(to), at);
  if (isTime) await backUp(folder, to, at, { isRotated: isCertain });
  return isTime;
}
