/** `npm test`: installs what is missing, then types, lint, format, unit tests and the browser tests. */
import { join } from 'node:path';
import { bin, ensureBrowser, ensureBuild, ensurePackages, root, run } from './lib/setup.mjs';

ensurePackages();
ensureBrowser();
run(process.execPath, ['scripts/engines.mjs'], { title: 'Node that the packages ask for' });
run('npm', ['run', 'types', '--silent'], { title: 'Types' });
run('npm', ['run', 'lint', '--silent'], { title: 'Lint, and the house' });
run(bin('prettier'), ['--check', '--log-level', 'warn', '.'], { title: 'Format' });
run(bin('knip'), ['--no-progress'], { title: 'Dead code' });
run(bin('vitest'), ['run'], { title: 'Unit tests' });
ensureBuild();
run(bin('playwright'), ['test'], { cwd: join(root, 'e2e'), title: 'Browser tests' });
