/**
 * `npm run owner`: a new passcode for the gym's owner, at the machine itself, when it is forgotten. Whoever
 * can read the data folder can read the data anyway.
 */
import { homedir } from 'node:os';
import { join } from 'node:path';
import { ensurePackages, root, runTypescript } from './lib/setup.mjs';

const data = process.env.SINEW_DATA ?? join(homedir(), '.sinew');
ensurePackages();
runTypescript('src/data/access/ownerCommand.ts', [], {
  cwd: join(root, 'web'),
  env: { SINEW_DATA: data },
});
