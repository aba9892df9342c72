/** Measures what was seen around a hit, off the main thread; see `glimpseReader.ts`. */
import { expose } from 'comlink';
import { glimpseAtTheMat } from '@sinew/core/analysis/atTheMat';

const api = { glimpseAtTheMat };

export type GlimpseWorker = typeof api;

expose(api);
