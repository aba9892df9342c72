/** A server of a test's own, on a gym that may be damaged before and looked at behind its back. */
import { spawn } from 'node:child_process';
import { cpSync, existsSync, readdirSync, readFileSync, utimesSync } from 'node:fs';
import { createServer } from 'node:net';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { scratchFolder } from '@sinew/demo/scratch';

const path = (name: string) => fileURLToPath(new URL(name, import.meta.url));

/** A fresh made-up gym whose films have lain there for a day. */
export function freshGym(): string {
  const folder = scratchFolder('gym');
  cpSync(process.env['SINEW_SEEDED']!, folder, { recursive: true, preserveTimestamps: true });
  const yesterday = Date.now() / 1000 - 86_400;
  for (const film of filmsIn(folder)) utimesSync(film, yesterday, yesterday);
  return folder;
}

/** Paths of the films below a folder. */
export function filmsIn(folder: string): string[] {
  return readdirSync(folder, { recursive: true, encoding: 'utf8' })
    .filter((name) => name.endsWith('.bin'))
    .map((name) => join(folder, name));
}

/** How often the gym of a folder has been looked after, by its own log. */
export function timesMaintained(folder: string): number {
  const log = join(folder, 'log');
  if (!existsSync(log)) return 0;
  return readdirSync(log)
    .flatMap((name) => readFileSync(join(log, name), 'utf8').split('\n'))
    .filter((line) => line.includes('"job":"maintenance"') && line.includes('"msg":"done"')).length;
}

export interface OwnServer {
  readonly url: string;
  /** Bytes of memory that it holds. */
  memory(): number;
  /** Ends it and waits until it has ended. */
  stop(): Promise<void>;
}

/**
 * @param clockDays by how many days its clock is wrong
 * @param env what else it is told
 */
export async function startServer(
  data: string,
  clockDays = 0,
  env: Readonly<Record<string, string>> = {},
): Promise<OwnServer> {
  const port = await freePort();
  const url = `http://127.0.0.1:${port}`;
  const next = path('../../node_modules/next/dist/bin/next');
  const child = spawn(process.execPath, [next, 'start', '-H', '127.0.0.1', '-p', String(port)], {
    cwd: path('../../web'),
    stdio: 'ignore',
    env: {
      ...process.env,
      ...env,
      SINEW_DATA: data,
      SINEW_TEST_CLOCK_DAYS: String(clockDays),
      NODE_OPTIONS: `--import ${path('./clock.mjs')}`,
    },
  });
  const ended = new Promise<void>((resolve) => child.once('exit', () => resolve()));
  for (;;) {
    const isUp = await fetch(`${url}/icon.svg`).then(
      () => true,
      () => false,
    );
    if (isUp) break;
    if (child.exitCode !== null) throw new Error('The server did not start.');
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
  return {
    url,
    memory() {
      const status = readFileSync(`/proc/${child.pid}/status`, 'utf8');
      return 1024 * Number(/VmRSS:\s+(\d+)/.exec(status)![1]);
    },
    async stop() {
      child.kill('SIGKILL');
      await ended;
    },
  };
}

export function freePort(): Promise<number> {
  return new Promise((resolve, reject) => {
    const probe = createServer().once('error', reject);
    probe.listen(0, '127.0.0.1', () => {
      const { port } = probe.address() as { port: number };
      probe.close(() => resolve(port));
    });
  });
}
