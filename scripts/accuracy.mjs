/** `npm run accuracy`: writes docs/accuracy.md from made-up strikes whose truth is known; half an hour. */
import { join } from 'node:path';
import { bin, ensureBrowser, ensurePackages, root, run, runTypescript } from './lib/setup.mjs';

ensurePackages();
ensureBrowser();
runTypescript('src/accuracy/write.ts', process.argv.slice(2), { cwd: join(root, 'demo') });
run(bin('prettier'), ['--write', '--log-level', 'warn', 'docs/accuracy.md']);
