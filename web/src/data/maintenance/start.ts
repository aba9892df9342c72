/** What a server does as it starts, and every hour from then on. */
import { clipFiles, storeHere } from '../film/clipFilesHere';
import { makeReadableLater } from '../film/readable';
import { database, databaseProblem } from '../database/database';
import { dataFolder } from '../database/dataFolder';
import { keepPrivate } from '../database/keepPrivate';
import { measureAllLater } from '../finding/measureLater';
import { logTrouble } from '../log/log';
import { hangUpAll } from '../news/news';
import { openAtStart } from '../door/openAtStart';
import { maintainNow } from './here';

const HOUR = 3_600_000;
/** Milliseconds that what is being answered has to come to its end. */
const GRACE = 4000;

/**
 * Next waits for every connection, and a page that is open has one for as long as it is open. What is cut
 * off after a while is a film on its way, which goes on later; whatever is confirmed is on the disk.
 */
function end(code: number): void {
  hangUpAll();
  setTimeout(() => process.exit(code), GRACE).unref();
}

export async function start(): Promise<void> {
  process.once('SIGINT', () => end(130));
  process.once('SIGTERM', () => end(143));
  try {
    storeHere();
  } catch (error) {
    console.error(`\n${error instanceof Error ? error.message : String(error)}\n`);
    process.exit(1);
  }
  await keepPrivate(dataFolder());
  const problem = await databaseProblem();
  if (problem?.kind === 'in use') {
    console.error(`\nThis gym is open already, in ${problem.reason}. Nothing was changed.\n`);
    process.exit(1);
  }
  if (process.env.SINEW_GYM === '1') await openAtStart();
  const keep = () =>
    maintainNow().catch((error: unknown) => {
      console.error('Maintenance failed; it is tried again in an hour.', error);
      logTrouble('maintenance', error);
    });
  void keep();
  // What was measured by an earlier Sinew, or while nobody had it open.
  if (!problem) {
    void measureAllLater();
    void makeReadableLater(await database(), clipFiles()).catch((error: unknown) =>
      logTrouble('films made readable', error),
    );
  }
  setInterval(() => void keep(), HOUR).unref();
}
