import { homedir } from 'node:os';
import { join } from 'node:path';

/** Where database, clips and log live: `SINEW_DATA`, else a folder in the user's home. */
export function dataFolder(): string {
  return process.env.SINEW_DATA ?? join(homedir(), '.sinew');
}

export const databasePath = (folder: string) => join(folder, 'sinew.db');
