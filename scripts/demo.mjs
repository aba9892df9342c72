/** `npm run demo`: the app with the made-up gym, in a data folder of its own. */
import { homedir } from 'node:os';
import { join } from 'node:path';
import { ensureBuild, ensurePackages, seed, serve } from './lib/setup.mjs';

const data = process.env.SINEW_DATA ?? join(homedir(), '.sinew-demo');
ensurePackages();
ensureBuild();
seed(data);
await serve({ data, env: { SINEW_DEMO: '1' } });
