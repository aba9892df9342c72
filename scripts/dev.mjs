/** `npm run dev`: the app with the made-up gym, rebuilding as files change. */
import { homedir } from 'node:os';
import { join } from 'node:path';
import { ensurePackages, seed, serve } from './lib/setup.mjs';

const data = process.env.SINEW_DATA ?? join(homedir(), '.sinew-demo');
ensurePackages();
seed(data);
await serve({ data, mode: 'dev' });
