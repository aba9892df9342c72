import { rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { defineConfig, type PlaywrightTestConfig } from '@playwright/test';

/** Ports of the servers the browser tests start, each on a fresh made-up gym; of `main` the first. */
const PORT = { fullDisk: 4311, bench: 4313, screenshots: 4314, main: 4321 } as const;

/** Where the made-up gym lies that every server begins with a copy of. */
if (process.env['SINEW_SEEDED'] === undefined) {
  const seeded = join(tmpdir(), `sinew-seeded-${process.pid}`);
  process.env['SINEW_SEEDED'] = seeded;
  const clear = () => {
    for (const one of [seeded, `${seeded}-half`]) rmSync(one, { recursive: true, force: true });
  };
  // Of a run that was killed, whose number this one has again, nothing is taken over.
  clear();
  process.once('exit', clear);
}

export type Server = keyof typeof PORT;

/** Which of the workers this is; 0 outside of them. */
const worker = Number(process.env['TEST_PARALLEL_INDEX'] ?? 0);

/** The port of a server: every worker has a `main` of its own. */
export const portOf = (name: Server): number => PORT[name] + (name === 'main' ? worker : 0);

export const addressOf = (name: Server): string => `http://127.0.0.1:${portOf(name)}`;

/** @param settings environment of the server, as KEY=VALUE */
const server = (name: Server, port: number, settings: readonly string[]) => ({
  command: `node ../scripts/serve-fresh.mjs ${[port, name, ...settings].join(' ')}`,
  cwd: new URL('..', import.meta.url).pathname,
  url: `http://127.0.0.1:${port}/students/new`,
  timeout: 180_000,
});

/** What Chromium is started with, everywhere. */
export const flagsOf = () =>
  ['--no-sandbox', '--disable-quic', '--no-first-run', '--disable-background-networking'].concat([
    '--disable-component-update',
    '--disable-sync',
  ]);

/**
 * The real built app in Debian's Chromium: the build of it that draws no window, which loads a page in half of the
 * time. Tests of a camera's permission, and of what a browser sends, start the one with a window.
 *
 * @param workers that test side by side, each file in one of them; one where time is measured
 */
export function inChromium(
  testDir: string,
  servers: Partial<Record<Server, readonly string[]>>,
  { workers = 1, ...rest }: PlaywrightTestConfig & { readonly workers?: number } = {},
) {
  const names = Object.keys(servers) as Server[];
  return defineConfig({
    testDir,
    workers,
    fullyParallel: false,
    // What fails once in a while is a fault of the app or of its test.
    retries: 0,
    timeout: 150_000,
    expect: { timeout: 15_000 },
    reporter: 'list',
    outputDir: new URL('../test-results', import.meta.url).pathname,
    webServer: names.flatMap((name) =>
      Array.from({ length: name === 'main' ? workers : 1 }, (_, i) =>
        server(name, PORT[name] + i, servers[name] ?? []),
      ),
    ),
    ...rest,
    use: {
      baseURL: addressOf(names[0]!),
      viewport: { width: 1280, height: 800 },
      // Nothing is looked at while it fades in.
      contextOptions: { reducedMotion: 'reduce' },
      launchOptions: {
        executablePath: '/usr/bin/chromium-headless-shell',
        args: flagsOf(),
      },
      ...rest.use,
    },
  });
}
