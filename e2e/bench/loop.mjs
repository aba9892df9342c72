/** For `node --import`: writes down how late a timer of ten milliseconds comes. */
import { renameSync, writeFileSync } from 'node:fs';
import { isMainThread } from 'node:worker_threads';

const report = process.env.SINEW_LOOP_REPORT;
const STEP = 10;

if (isMainThread && report && process.argv[1]?.includes('next')) {
  const late = [];
  let last = performance.now();
  setInterval(() => {
    const now = performance.now();
    late.push(Math.round(10 * Math.max(0, now - last - STEP)) / 10);
    last = now;
  }, STEP).unref();
  setInterval(() => {
    // Whoever reads it reads all of it.
    writeFileSync(`${report}.new`, JSON.stringify(late));
    renameSync(`${report}.new`, report);
  }, 500).unref();
}
