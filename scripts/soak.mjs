/** `npm run soak`: the app under everything at once for a quarter of an hour; see `e2e/soak`. */
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { bin, ensureBuild, ensurePackages, root, run, seed } from './lib/setup.mjs';

ensurePackages();
ensureBuild();
const seeded = mkdtempSync(join(tmpdir(), 'sinew-seeded-'));
process.once('exit', () => rmSync(seeded, { recursive: true, force: true }));
seed(seeded);
const args = ['soak/soak.ts', ...process.argv.slice(2)];
run(bin('tsx'), args, {
  cwd: join(root, 'e2e'),
  env: { SINEW_SEEDED: seeded },
  title: 'Soak',
});
