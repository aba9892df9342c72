/** What is done without being asked: the trash emptied, consents kept, leftovers swept, a backup a day. */
import { readdir, rm, stat } from 'node:fs/promises';
import { join } from 'node:path';
import { backupFolder, backups, backUp, forgetFilms } from './backups';
import type { ClipFiles } from './clipFiles';
import type { Db } from './database';
import { emptyTrash, purgeWithoutConsent } from './trash';

const HOUR = 3_600_000;
const EVERY = 24 * HOUR;

export interface House {
  readonly db: Db;
  readonly files: ClipFiles;
  /** The data folder. */
  readonly folder: string;
}

/** @returns whether a backup was made */
export async function keepHouse({ db, files, folder }: House, at: Date): Promise<boolean> {
  await emptyTrash(db, files, at);
  const to = backupFolder(folder);
  await forgetFilms(to, await purgeWithoutConsent(db, files));
  await sweep(db, folder, at);
  const [newest] = await backups(to);
  const isTime = !newest || at.getTime() - Date.parse(newest.at) >= EVERY;
  if (isTime) await backUp(db, to, join(folder, 'clips'), at);
  return isTime;
}

/** Films that no clip names and transfers that broke off: left by a machine that stopped half-way. */
async function sweep(db: Db, folder: string, at: Date): Promise<void> {
  const rows = await db
    .selectFrom('clip')
    .select('sha256')
    .where('purged_at', 'is', null)
    .execute();
  const named = new Set(rows.map(({ sha256 }) => `${sha256}.bin`));
  const isOld = async (path: string) =>
    at.getTime() -
      (await stat(path).then(
        (found) => found.mtimeMs,
        () => Infinity,
      )) >
    HOUR;
  const list = (path: string) => readdir(path).catch(() => []);
  for (const shelf of await list(join(folder, 'clips'))) {
    for (const name of await list(join(folder, 'clips', shelf))) {
      const path = join(folder, 'clips', shelf, name);
      if (!named.has(name) && (await isOld(path))) await rm(path, { force: true });
    }
  }
  for (const name of await list(join(folder, 'incoming'))) {
    const path = join(folder, 'incoming', name);
    if (await isOld(path)) await rm(path, { recursive: true, force: true });
  }
}
