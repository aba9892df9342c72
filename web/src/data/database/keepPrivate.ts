/** Clips show people, minors among them: only who runs Sinew may read what it keeps. */
import { chmod, lstat, readdir } from 'node:fs/promises';
import { join } from 'node:path';
import { backupFolder } from '../maintenance/backups';

const FOLDER = 0o700;
const FILE = 0o600;
/** What Sinew keeps in its folders; the rest of another disk is not its business. */
const OWN =
  /^(sinew\.db.*|access\.db.*|door|lessons|talks|uploads|readable|in-use\.lock|key|clips|incoming|set-aside|backups|.*\.json|\d{4}-\d\d-\d\dT.*\.db)$/;

/** From now on, and for what is there already. */
export async function keepPrivate(data: string): Promise<void> {
  process.umask(0o077);
  try {
    await chmod(data, FOLDER);
    for (const folder of new Set([data, backupFolder(data)])) {
      const names = await readdir(folder).catch(() => []);
      for (const name of names.filter((one) => OWN.test(one))) await mend(join(folder, name));
    }
  } catch (error) {
    const isNew = (error as NodeJS.ErrnoException).code === 'ENOENT';
    if (!isNew) console.error('The data could not be made private to you.', error);
  }
}

async function mend(path: string): Promise<void> {
  const found = await lstat(path);
  // What a link points at may be somebody else's.
  if (!found.isDirectory() && !found.isFile()) return;
  const wanted = found.isDirectory() ? FOLDER : FILE;
  if ((found.mode & 0o777) !== wanted) await chmod(path, wanted);
  if (!found.isDirectory()) return;
  for (const name of await readdir(path)) await mend(join(path, name));
}
