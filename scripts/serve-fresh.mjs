/**
 * A server on a fresh, seeded data folder, for the browser tests: `serve-fresh.mjs PORT NAME [KEY=VALUE …]`.
 * The gym is made once in `SINEW_SEEDED`, and copied from there.
 */
import { cpSync, existsSync, renameSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { ensureBuild, seed, serve } from './lib/setup.mjs';

const [port, name, ...settings] = process.argv.slice(2);
const data = join(tmpdir(), `sinew-${name}-${port}`);
rmSync(data, { recursive: true, force: true });
ensureBuild();
const seeded = process.env.SINEW_SEEDED;
if (!existsSync(seeded)) {
  seed(`${seeded}-half`);
  renameSync(`${seeded}-half`, seeded);
}
cpSync(seeded, data, { recursive: true, preserveTimestamps: true });
await serve({
  data,
  port: Number(port),
  env: Object.fromEntries(settings.map((one) => one.split('='))),
});
