/** One folder for all that a run of tests writes, gone with it: workers are ended before they could tidy up. */
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

export default function setup() {
  const folder = mkdtempSync(join(tmpdir(), 'sinew-tests-'));
  process.env.TMPDIR = folder;
  return () => rmSync(folder, { recursive: true, force: true });
}
