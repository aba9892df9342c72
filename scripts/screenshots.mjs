/** `npm run screenshots`: the pictures in `docs/screenshots`, from the made-up gym. */
import { join } from 'node:path';
import { bin, ensureBrowser, ensureBuild, ensurePackages, root, run } from './lib/setup.mjs';

ensurePackages();
ensureBrowser();
ensureBuild();
run(bin('playwright'), ['test', '--config', 'screenshots/playwright.config.ts'], {
  cwd: join(root, 'e2e'),
});
