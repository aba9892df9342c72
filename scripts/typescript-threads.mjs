/**
 * Lets threads that are started from TypeScript read TypeScript too: the loader of the tests and of
 * the seed does so for the main thread only. For `node --import`; the built app needs none of it.
 */
import { isMainThread } from 'node:worker_threads';
import { register } from 'tsx/esm/api';

if (!isMainThread) register();
