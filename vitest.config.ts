import { defineConfig } from 'vitest/config';
import { fileURLToPath } from 'node:url';

export default defineConfig({
  resolve: { alias: { '@': fileURLToPath(new URL('./web/src', import.meta.url)) } },
  test: {
    include: ['{core,cli,fighters,demo,web}/{src,test}/**/*.test.{ts,tsx}'],
    env: { SINEW_LOG: 'silent' },
    setupFiles: [fileURLToPath(new URL('./web/test/request.ts', import.meta.url))],
    globalSetup: fileURLToPath(new URL('./scripts/lib/testFolder.mjs', import.meta.url)),
    // Vitest leaves a core free, which on two is half of the machine.
    maxWorkers: '100%',
    testTimeout: 120_000,
    hookTimeout: 60_000,
    execArgv: ['--import', fileURLToPath(new URL('./scripts/typescript.mjs', import.meta.url))],
  },
});
