/** `npm test`: installs what is missing, then types, lint, format, unit tests and the browser tests. */
import { join } from 'node:path';
import { runBeside } from './lib/beside.mjs';
import { bin, ensureBrowser, ensureBuild, ensurePackages, root, run } from './lib/setup.mjs';

ensurePackages();
ensureBrowser();
console.log('\n== Types, lint, the house, format, dead code');
const inTurn = async (...checks) => {
  const results = [];
  for (const check of checks) results.push(await runBeside(...check));
  return results.every(Boolean);
};
const results = await Promise.all([
  inTurn(
    ['types', process.execPath, ['scripts/types.mjs']],
    ['the house', 'npm', ['run', 'house', '--silent']],
    ['Node that the packages ask for', process.execPath, ['scripts/engines.mjs']],
  ),
  inTurn(
    ['lint', bin('eslint'), ['.', '--max-warnings', '0']],
    ['format', bin('prettier'), ['--check', '--log-level', 'warn', '.']],
    ['dead code', bin('knip'), ['--no-progress']],
  ),
]);
if (!results.every(Boolean)) process.exit(1);
run(bin('vitest'), ['run'], { title: 'Unit tests' });
ensureBuild();
run(bin('playwright'), ['test'], { cwd: join(root, 'e2e'), title: 'Browser tests' });
run(bin('playwright'), ['test', '--config', 'alone/playwright.config.ts'], {
  cwd: join(root, 'e2e'),
  title: 'Browser tests that go by the clock',
});
