import { defineConfig, type PlaywrightTestConfig } from '@playwright/test';

/** Ports of the servers the browser tests start, each on a fresh made-up gym. */
export const PORT = { main: 4311, fullDisk: 4312, bench: 4313, screenshots: 4314 } as const;

type Server = keyof typeof PORT;

/** @param settings environment of the server, as KEY=VALUE */
const server = (name: Server, settings: readonly string[]) => ({
  command: `node ../scripts/serve-fresh.mjs ${[PORT[name], name, ...settings].join(' ')}`,
  cwd: new URL('..', import.meta.url).pathname,
  url: `http://127.0.0.1:${PORT[name]}/students/new`,
  timeout: 180_000,
});

/** What Chromium is started with, everywhere. */
export const flagsOf = () =>
  ['--no-sandbox', '--disable-quic', '--no-first-run', '--disable-background-networking'].concat([
    '--disable-component-update',
    '--disable-sync',
  ]);

/** The real built app in Debian's Chromium, one test at a time. */
export function inChromium(
  testDir: string,
  servers: Partial<Record<Server, readonly string[]>>,
  rest: PlaywrightTestConfig = {},
) {
  const names = Object.keys(servers) as Server[];
  return defineConfig({
    testDir,
    workers: 1,
    fullyParallel: false,
    // What fails once in a while is a fault of the app or of its test.
    retries: 0,
    timeout: 150_000,
    expect: { timeout: 15_000 },
    reporter: 'list',
    outputDir: new URL('../test-results', import.meta.url).pathname,
    webServer: names.map((name) => server(name, servers[name] ?? [])),
    ...rest,
    use: {
      baseURL: `http://127.0.0.1:${PORT[names[0]!]}`,
      viewport: { width: 1280, height: 800 },
      // Nothing is looked at while it fades in.
      contextOptions: { reducedMotion: 'reduce' },
      launchOptions: {
        executablePath: '/usr/bin/chromium',
        args: flagsOf(),
      },
      ...rest.use,
    },
  });
}
