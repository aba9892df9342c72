/** Folders for what is made on the way: gone when the process ends. */
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

const made: string[] = [];

process.once('exit', () => {
  for (const folder of made) rmSync(folder, { recursive: true, force: true });
});

/** @param name what it is for, one word */
export function scratchFolder(name: string): string {
  const folder = mkdtempSync(join(tmpdir(), `sinew-${name}-`));
  made.push(folder);
  return folder;
}
