/** `npm run soak`: the app under everything at once for a quarter of an hour; see `e2e/soak`. */
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { ensureBuild, ensurePackages, root, runTypescript, seed } from './lib/setup.mjs';

ensurePackages();
ensureBuild();
const seeded = mkdtempSync(join(tmpdir(), 'sinew-seeded-'));
process.once('exit', () => rmSync(seeded, { recursive: true, force: true }));
seed(seeded);
runTypescript('soak/soak.ts', process.argv.slice(2), {
  cwd: join(root, 'e2e'),
  env: { SINEW_SEEDED: seeded },
  title: 'Soak',
});
