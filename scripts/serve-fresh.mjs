/** A server on a fresh, seeded data folder, for the browser tests: `serve-fresh.mjs PORT NAME [KEY=VALUE …]`. */
import { rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { ensureBuild, seed, serve } from './lib/setup.mjs';

const [port, name, ...settings] = process.argv.slice(2);
const data = join(tmpdir(), `sinew-${name}-${port}`);
rmSync(data, { recursive: true, force: true });
ensureBuild();
seed(data);
await serve({
  data,
  port: Number(port),
  env: Object.fromEntries(settings.map((one) => one.split('='))),
});
