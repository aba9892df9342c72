/** Questions to this server's own database, answered on a thread; see `threads.ts`. */
import { database } from '../database/database';
import { dataFolder } from '../database/dataFolder';
import { askIn, type Rest, type Told } from './threads';
import type { Questions } from './work.worker';

export async function ask<Name extends keyof Questions>(
  name: Name,
  ...given: Rest<Questions[Name]>
): Promise<Told<Questions[Name]>> {
  await database();
  return askIn(dataFolder(), name, ...given);
}
