/** Types of every workspace. */
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { bin, root, run, typescript } from './lib/setup.mjs';

const { workspaces } = JSON.parse(readFileSync(join(root, 'package.json'), 'utf8'));
run(bin('next'), ['typegen'], { cwd: join(root, 'web') });
for (const workspace of workspaces) {
  run(process.execPath, [typescript, '-p', join(root, workspace)]);
}
