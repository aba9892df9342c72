/** `npm start`: the app for real use; the gym is empty the first time. */
import { homedir } from 'node:os';
import { join } from 'node:path';
import { ensureBuild, ensurePackages, keyOf, serve } from './lib/setup.mjs';

const data = process.env.SINEW_DATA ?? join(homedir(), '.sinew');
ensurePackages();
ensureBuild();
await serve({ data, key: keyOf(data) });
