/** `npm start`: the app for real use; the gym is empty the first time. */
import { homedir } from 'node:os';
import { join } from 'node:path';
import { ensureBuild, ensurePackages, serve } from './lib/setup.mjs';

ensurePackages();
ensureBuild();
await serve({ data: process.env.SINEW_DATA ?? join(homedir(), '.sinew') });
