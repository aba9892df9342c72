/** Server times of every screen in the large gym. The goal is 150 ms a screen. */
import { rmSync } from 'node:fs';
import { scratchFolder } from '@sinew/demo/scratch';
import { CLIPS, fillGym, STRIKES, STUDENTS } from './fillGym';
import { start } from './startServer';

const GOAL = 150;
const RUNS = 15;
const PORT = 4315;

/** Milliseconds until the whole page has come, its HTML as a browser asks for it. */
async function timeOf(url: string): Promise<number> {
  const start = performance.now();
  const answer = await fetch(url);
  await answer.text();
  if (!answer.ok) throw new Error(`${url}: ${answer.status}`);
  return performance.now() - start;
}

const folder = scratchFolder('large');
const began = performance.now();
const ids = await fillGym(folder);
console.log(
  `${STUDENTS} students, ${STUDENTS * CLIPS} clips, ${STUDENTS * CLIPS * STRIKES} strikes made in ${Math.round((performance.now() - began) / 1000)} s`,
);
const server = await start(folder, PORT);
const base = server.url;
try {
  // The backup that a start makes, and what it measures, are over before anything is timed.
  await new Promise((resolve) => setTimeout(resolve, 45_000));
  const home = `/students/${ids[7]}`;
  const screens = {
    Floor: '/',
    Plan: '/plan',
    Timer: '/timer',
    Library: '/library',
    'All films': '/films?words=cross',
    Gym: '/gym',
    'Class sheet': '/card',
    Films: home,
    Work: `${home}/work`,
    Ledger: `${home}/ledger`,
    Tests: `${home}/tests`,
    Card: `${home}/card`,
    Bench: '/bench/clip-7-3',
    Compare: '/compare?a=clip-7-0-0&b=clip-7-24-0',
    'Mark again': '/marking',
  };
  for (const [name, path] of Object.entries(screens)) {
    for (let i = 0; i < 3; i++) await timeOf(base + path);
    const all: number[] = [];
    for (let i = 0; i < RUNS; i++) all.push(await timeOf(base + path));
    all.sort((a, b) => a - b);
    const [middle, most] = [all[RUNS >> 1]!, all[RUNS - 2]!];
    const verdict = middle <= GOAL ? '' : `  over ${GOAL} ms`;
    console.log(`${name}: median ${middle.toFixed(0)} ms, most ${most.toFixed(0)} ms${verdict}`);
  }
} finally {
  server.stop();
  rmSync(folder, { recursive: true, force: true });
}
