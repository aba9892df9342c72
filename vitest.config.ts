import { defineConfig, type TestProjectConfiguration } from 'vitest/config';
import { fileURLToPath } from 'node:url';

const at = (path: string) => fileURLToPath(new URL(path, import.meta.url));

const shared = {
  env: { SINEW_LOG: 'silent' },
  testTimeout: 120_000,
  hookTimeout: 60_000,
  execArgv: ['--import', at('./scripts/typescript.mjs')],
};

const projects: TestProjectConfiguration[] = [
  // Core keeps nothing between calls and its tests replace no module: one worker may run them all.
  { test: { ...shared, name: 'core', include: ['core/{src,test}/**/*.test.ts'], isolate: false } },
  {
    resolve: { alias: { '@': at('./web/src') } },
    test: {
      ...shared,
      name: 'rest',
      include: ['{cli,fighters,demo,web}/{src,test}/**/*.test.{ts,tsx}'],
      setupFiles: [at('./web/test/request.ts')],
    },
  },
];

export default defineConfig({
  test: {
    projects,
    globalSetup: at('./scripts/lib/testFolder.mjs'),
    // Vitest leaves a core free, which on two is half of the machine.
    maxWorkers: '100%',
  },
});
