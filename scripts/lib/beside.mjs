/** Commands that run beside each other. */
import { spawn } from 'node:child_process';
import { root } from './setup.mjs';

const began = performance.now();

/**
 * Run a command without waiting for it; what it says is shown when it fails.
 *
 * @returns {Promise<boolean>} whether it was good
 */
export function runBeside(name, command, args, cwd = root) {
  return new Promise((resolve) => {
    const child = spawn(command, args, { cwd });
    let said = '';
    for (const stream of [child.stdout, child.stderr]) stream.on('data', (part) => (said += part));
    child.on('error', (error) => (said += error.message));
    child.on('close', (status) => {
      const seconds = ((performance.now() - began) / 1000).toFixed(0);
      console.log(`${status === 0 ? 'good' : 'FAIL'}  ${name} (${seconds} s)`);
      if (status !== 0) console.log(said);
      resolve(status === 0);
    });
  });
}
