/** The maintenance of this server's gym: looked at as it starts, every hour, and when the coach has spoken. */
import { accessDb } from '../access/accessDb';
import { sweepLessons } from '../access/lessons';
import { sweepTalks } from '../clip/talks';
import { backUp, backupFolder, restore } from './backups';
import { clipFiles, storeHere } from '../film/clipFilesHere';
import { database, replacingDatabase } from '../database/database';
import { dataFolder } from '../database/dataFolder';
import { confirmClock } from './clock';
import { checkFilms } from './checkFilms';
import { filmTroubles, type FilmTrouble } from './filmCheck';
import { filmsWithoutConsent, purgeFilms } from './trash';
import { today } from '../database/today';
import { bodyIn, eraseEverywhere } from './erase';
import { forget, isSettled, lookAfter, maintain, type Upkeep } from './maintain';
import type { Place } from './place';
import { isUnanswered } from '../film/filmShelf';
import { keptFilms, putStraysAside } from './sweep';
import { logDone, logTrouble } from '../log/log';

/** One for pages and start-up alike, which are bundled apart. */
const shared = globalThis as {
  sinewUpkeep?: Upkeep;
  sinewMaintaining?: Promise<unknown>;
  sinewCarrying?: Promise<unknown> | undefined;
};

async function here(): Promise<Place> {
  return { db: await database(), files: clipFiles(), folder: dataFolder() };
}

/** One after the other: two sweeps at once would stumble over each other. */
function inTurn<T>(work: () => Promise<T>): Promise<T> {
  const turn = (shared.sinewMaintaining ?? Promise.resolve()).then(work, work);
  shared.sinewMaintaining = turn.catch(() => undefined);
  return turn;
}

async function lookAndMaintain(): Promise<void> {
  const place = await here();
  const at = new Date();
  const found = await lookAt(place, at);
  const isNight = await maintain(place, at, found);
  if (found.clock.isBelieved) await sweepLessons(await accessDb(), place.db, place.folder);
  await sweepTalks(place.db, place.folder);
  if (!found.isStoreAway) carryOverLater();
  // Reading all films takes its time; nobody waits for it.
  if (isNight) {
    void checkFilms(place, at).catch((error: unknown) => {
      console.error('The films could not be read; they are tried again tomorrow.', error);
      logTrouble('film check', error);
    });
  }
  // What has been put right is no longer told.
  await lookAt(place, at);
  logDone('maintenance');
}

/** Films of before there was a store go there, one after the other; nobody waits for them. */
function carryOverLater(): void {
  const store = storeHere();
  if (!store) return;
  shared.sinewCarrying ??= store
    .carryOver()
    .then((count) => count > 0 && logDone('films carried over'))
    .catch((error: unknown) => logTrouble('films carried over', error))
    .finally(() => (shared.sinewCarrying = undefined));
}

async function lookAt(place: Place, at: Date): Promise<Upkeep> {
  shared.sinewUpkeep = await lookAfter(place, at);
  return shared.sinewUpkeep;
}

export const maintainNow = (): Promise<void> => inTurn(lookAndMaintain);

/** None while nobody can tell: the notice says so. */
export async function filmTroublesHere(): Promise<FilmTrouble[]> {
  try {
    return (await upkeepNow()).isStoreAway ? [] : await filmTroubles(await here());
  } catch (error) {
    if (isUnanswered(error)) return [];
    throw error;
  }
}

/** As it was when last looked at; a doubt is looked at anew, for it may have been put right. */
export async function upkeepNow(): Promise<Upkeep> {
  const known = shared.sinewUpkeep;
  const isSure = known && isSettled(known) && !storeHere()?.isAway;
  return isSure ? known : lookAt(await here(), new Date());
}

/** The coach says that the date is right: what has waited for that is done at once. */
export const confirmToday = (): Promise<void> =>
  inTurn(async () => {
    const { db, folder } = await here();
    await confirmClock(db, folder, new Date());
    await lookAndMaintain();
  });

/** The coach says that the films without a clip are not needed: they are put aside. */
export const putAllStraysAside = (): Promise<void> =>
  inTurn(async () => {
    const { db, files } = await here();
    const at = new Date();
    const { clips, strays } = await keptFilms(db, files, at);
    // Of a gym without any clip the films are all there is.
    if (clips > 0) await putStraysAside(files, strays, at);
    await lookAndMaintain();
  });

/** A student's consent was withdrawn and the films are to go at once, whatever the date is. */
export const filmsGoNow = (studentId: string): Promise<void> =>
  inTurn(async () => {
    const { db, files, folder } = await here();
    const films = await filmsWithoutConsent(db, today());
    const own = films.filter(({ student_id }) => student_id === studentId);
    await forget(folder, await purgeFilms(db, files, own));
    await eraseEverywhere(folder, bodyIn(own.map(({ id }) => id)));
  });

/** @throws BackupError */
export const backUpHere = (): Promise<void> =>
  inTurn(async () => {
    const { folder } = await here();
    // What was certain an hour ago may be in doubt now.
    const isRotated = isSettled(await lookAt(await here(), new Date()));
    await backUp(folder, backupFolder(folder), new Date(), { isRotated });
  });

/** Go back to a backup; what is there now is backed up before. @throws BackupError */
export const goBackHere = (name: string): Promise<void> =>
  inTurn(async () => {
    const { folder } = await here();
    const to = backupFolder(folder);
    // What was certain an hour ago may be in doubt now.
    const isRotated = isSettled(await lookAt(await here(), new Date()));
    await replacingDatabase(async (close) => {
      await backUp(folder, to, new Date(), { isRotated, spared: name });
      await restore(folder, to, name, close);
    });
    await lookAt(await here(), new Date());
  });
