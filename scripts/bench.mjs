/** `npm run bench`: times of the core and of the bench screen on this machine. */
import { join } from 'node:path';
import { bin, ensureBrowser, ensureBuild, ensurePackages, root, run } from './lib/setup.mjs';

ensurePackages();
ensureBrowser();
run(bin('tsx'), ['--expose-gc', 'bench/analysis.ts'], {
  cwd: join(root, 'e2e'),
  title: 'Analysis of a strike, and of a take',
});
run(bin('tsx'), ['bench/judging.ts'], {
  cwd: join(root, 'e2e'),
  title: 'Judging, costs and what-if',
});
ensureBuild();
run(bin('tsx'), ['bench/largeGym.ts'], {
  cwd: join(root, 'e2e'),
  title: 'Server times in a large gym',
});
run(bin('playwright'), ['test', '--config', 'bench/playwright.config.ts'], {
  cwd: join(root, 'e2e'),
  title: 'Stepping through film',
});
