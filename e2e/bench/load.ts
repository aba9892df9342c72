/**
 * The large gym under load: eight pages at once, and what pages and the event loop do while heavy work
 * goes on. With SINEW_BENCH_BEFORE, the folder of an older build, both are measured in turns.
 */
import { rmSync } from 'node:fs';
import { join } from 'node:path';
import { scratchFolder } from '@sinew/demo/scratch';
import { fillGym } from './fillGym';
import { start, type Started } from './startServer';

const SECONDS = 10;
const AT_ONCE = 8;
const PORT = 4316;

/** A gym as the build itself knows it: an older one reads no newer tables. */
async function filledBy(checkout: string | undefined, folder: string): Promise<string[]> {
  const older = checkout && (await import(join(checkout, 'e2e/bench/fillGym.ts')));
  return ((older as { fillGym: typeof fillGym } | undefined)?.fillGym ?? fillGym)(folder);
}

/** Pages of a path, eight at a time; `until` is asked before each. */
async function load(url: (i: number) => string, until: () => boolean) {
  const took: number[] = [];
  let next = 0;
  const began = performance.now();
  const one = async () => {
    while (!until()) {
      const start = performance.now();
      // A connection that is kept is closed now and then by a server that is busy.
      const answer = await fetch(url(next++), { headers: { connection: 'close' } });
      await answer.arrayBuffer();
      if (!answer.ok) throw new Error(`${answer.url}: ${answer.status}`);
      took.push(performance.now() - start);
    }
  };
  await Promise.all(Array.from({ length: AT_ONCE }, one));
  took.sort((a, b) => a - b);
  const at = (share: number) => Math.round(took[Math.floor(share * (took.length - 1))]!);
  const perSecond = took.length / ((performance.now() - began) / 1000);
  return { perSecond, p50: at(0.5), p95: at(0.95) };
}

const pages = {
  Floor: () => '/',
  Ledger: (i: number, ids: readonly string[]) => `/students/${ids[i % ids.length]}/ledger`,
};

async function pagesOf(name: string, server: Started, ids: readonly string[]) {
  for (const [page, path] of Object.entries(pages)) {
    const url = (i: number) => server.url + path(i, ids);
    const warm = performance.now() + 2000;
    await load(url, () => performance.now() > warm);
    const until = performance.now() + 1000 * SECONDS;
    const { perSecond, p50, p95 } = await load(url, () => performance.now() > until);
    console.log(
      `${name}, ${page}, ${AT_ONCE} at once: ${perSecond.toFixed(1)} a second, median ${p50} ms, p95 ${p95} ms`,
    );
  }
}

/** One page after the other while something heavy goes on. */
async function beside(
  name: string,
  server: Started,
  one: string,
  what: string,
  work: () => Promise<unknown>,
) {
  const quiet = await page(server, one, 3);
  server.delays();
  let isOver = false;
  const began = performance.now();
  const working = work().finally(() => (isOver = true));
  const took: number[] = [];
  while (!isOver) took.push(await page(server, one, 1));
  await working;
  const seconds = ((performance.now() - began) / 1000).toFixed(1);
  await new Promise((resolve) => setTimeout(resolve, 600));
  const { p99, max } = server.delays();
  took.sort((a, b) => a - b);
  console.log(
    `${name}, ${what} (${seconds} s): event loop late p99 ${p99} ms, most ${max} ms; ` +
      `a page ${Math.round(took[took.length >> 1]!)} ms (quiet ${Math.round(quiet)} ms), longest ${Math.round(took[took.length - 1]!)} ms`,
  );
}

async function page(server: Started, id: string, times: number): Promise<number> {
  const start = performance.now();
  for (let i = 0; i < times; i++) await (await fetch(`${server.url}/students/${id}`)).text();
  return (performance.now() - start) / times;
}

const builds = {
  ...(process.env.SINEW_BENCH_BEFORE && { before: process.env.SINEW_BENCH_BEFORE }),
  now: undefined,
};
for (const [name, checkout] of Object.entries(builds)) {
  const folder = scratchFolder('load');
  const ids = await filledBy(checkout, folder);
  const server = await start(folder, PORT, checkout);
  try {
    // The backup that a start makes, and what it measures, are over before anything is timed.
    await new Promise((resolve) => setTimeout(resolve, 45_000));
    const memory = server.memory();
    await pagesOf(name, server, ids);
    const get = async (path: string) => (await fetch(server.url + path)).arrayBuffer();
    let zip = new ArrayBuffer(0);
    await beside(
      name,
      server,
      ids[3]!,
      'a gym taken out',
      async () => (zip = await get('/api/gym')),
    );
    await beside(name, server, ids[3]!, 'its file checked', () =>
      fetch(`${server.url}/api/gym?check`, { method: 'PUT', body: zip }),
    );
    await beside(name, server, ids[3]!, 'a ledger as CSV', () =>
      get(`/api/students/${ids[5]}/ledger?as=csv`),
    );
    await beside(name, server, ids[3]!, 'a set judged', () => get('/api/strikes/clip-4-4-0/set'));
    // Backed up first, as every gym is before another takes its place.
    await beside(name, server, ids[3]!, 'a backup made and its file taken in', async () => {
      const answer = await fetch(`${server.url}/api/gym`, { method: 'PUT', body: zip });
      if (!answer.ok) console.log(`${name}: not taken in: ${await answer.text()}`);
    });
    console.log(
      `${name}: memory ${Math.round(memory / 1e6)} MB at the start, ${Math.round(server.memory() / 1e6)} MB at the end`,
    );
  } finally {
    server.stop();
    rmSync(folder, { recursive: true, force: true });
  }
}
