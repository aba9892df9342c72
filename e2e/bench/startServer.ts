/** The built app of this or another checkout on a folder, told how its event loop fares. */
import { spawn } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';

const here = fileURLToPath(new URL('../..', import.meta.url));
const loop = fileURLToPath(new URL('loop.mjs', import.meta.url));

export interface Started {
  readonly url: string;
  /** Milliseconds that a timer came late at most, and in 99 of 100 cases, since asked last. */
  delays(): { readonly p99: number; readonly max: number };
  /** Bytes of memory it holds now. */
  memory(): number;
  stop(): void;
}

/** @param checkout a folder in which the app has been built; this one when it is left out */
export async function start(data: string, port: number, checkout = here): Promise<Started> {
  const report = join(data, `loop-${port}.json`);
  const next = join(checkout, 'node_modules/next/dist/bin/next');
  const server = spawn(process.execPath, [next, 'start', '-H', '127.0.0.1', '-p', String(port)], {
    cwd: join(checkout, 'web'),
    stdio: 'ignore',
    env: {
      ...process.env,
      SINEW_DATA: data,
      SINEW_LOOP_REPORT: report,
      NODE_OPTIONS: `--import ${loop}`,
    },
  });
  const url = `http://127.0.0.1:${port}`;
  await isUp(`${url}/timer`).catch((error: unknown) => {
    server.kill('SIGTERM');
    throw error;
  });
  let seen = 0;
  return {
    url,
    delays() {
      const all = JSON.parse(readFileSync(report, 'utf8')) as number[];
      const since = all.slice(seen).sort((a, b) => a - b);
      seen = all.length;
      const at = (share: number) => since[Math.floor(share * (since.length - 1))] ?? 0;
      return { p99: at(0.99), max: at(1) };
    },
    memory() {
      const status = readFileSync(`/proc/${server.pid}/status`, 'utf8');
      return 1024 * Number(/VmRSS:\s+(\d+)/.exec(status)![1]);
    },
    stop: () => void server.kill('SIGTERM'),
  };
}

/** A large gym is backed up as it starts, and an older build answers nobody meanwhile. */
async function isUp(url: string): Promise<void> {
  for (let i = 0; i < 900; i++) {
    const isGood = await fetch(url).then(
      (answer) => answer.ok,
      () => false,
    );
    if (isGood) return;
    await new Promise((resolve) => setTimeout(resolve, 200));
  }
  throw new Error('The server did not start.');
}
