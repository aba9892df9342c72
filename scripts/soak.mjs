/** `npm run soak`: the app under everything at once for a quarter of an hour; see `e2e/soak`. */
import { join } from 'node:path';
import { bin, ensureBuild, ensurePackages, root, run } from './lib/setup.mjs';

ensurePackages();
ensureBuild();
const args = ['soak/soak.ts', ...process.argv.slice(2)];
run(bin('tsx'), args, { cwd: join(root, 'e2e'), title: 'Soak' });
