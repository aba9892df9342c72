/** `node --import scripts/typescript.mjs program.ts` runs TypeScript, and so do the threads that it starts. */
import { register } from 'node:module';

register('./lib/typescriptHooks.mjs', import.meta.url);
