/** What is looked after: a gym's database, its films, and the folder they are in. */
import type { ClipFiles } from '../film/clipFiles';
import type { Db } from '../database/db';

export interface Place {
  readonly db: Db;
  readonly files: ClipFiles;
  /** The data folder. */
  readonly folder: string;
}
