/** `npm run bench`: times of the core and of the screens on this machine; damaged films by the thousand. */
import { join } from 'node:path';
import {
  bin,
  ensureBrowser,
  ensureBuild,
  ensurePackages,
  root,
  run,
  runTypescript,
} from './lib/setup.mjs';

ensurePackages();
ensureBrowser();
runTypescript('bench/analysis.ts', [], {
  flags: ['--expose-gc'],
  cwd: join(root, 'e2e'),
  title: 'Analysis of a strike, and of a take',
});
runTypescript('bench/judging.ts', [], {
  cwd: join(root, 'e2e'),
  title: 'Judging, costs and what-if',
});
runTypescript('bench/bands.ts', [], { cwd: join(root, 'e2e'), title: 'Worn bands' });
run(bin('vitest'), ['run', 'web/test/damagedFilms.test.ts'], {
  env: { SINEW_FUZZ: '5000' },
  title: 'Five thousand damaged films',
});
ensureBuild();
runTypescript('bench/largeGym.ts', [], {
  cwd: join(root, 'e2e'),
  title: 'Server times in a large gym',
});
runTypescript('bench/load.ts', [], {
  cwd: join(root, 'e2e'),
  title: 'The large gym under load',
});
runTypescript('bench/day.ts', [], {
  cwd: join(root, 'e2e'),
  title: 'How many coaches one machine carries',
});
run(bin('playwright'), ['test', '--config', 'bench/playwright.config.ts'], {
  cwd: join(root, 'e2e'),
  title: 'Stepping through film',
});
