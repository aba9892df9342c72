/**
 * Films damaged where their structure is, of every container: each is described or refused in words,
 * within ten seconds. `SINEW_FUZZ` says how many; `npm run bench` takes five thousand.
 */
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { Worker } from 'node:worker_threads';
import { afterAll, describe, expect, it } from 'vitest';
import { seeded } from '@sinew/core/foundation/uncertainty/random';
import { endlessFilm } from '@sinew/demo/damage/endless';
import { CONTAINER_NAMES, shortFilm, type Container } from '@sinew/demo/damage/films';
import { damaged } from '@sinew/demo/damage/mutations';
import { scratchFolder } from '@sinew/demo/scratch';
import { inspectFile } from '@/data/clip/inspectFile';
import { inspectionLimit, TOO_LONG } from '@/video/inspectionLimit';
import type { Outcome } from './damagedFilms.worker';

const COUNT = Number(process.env.SINEW_FUZZ ?? 300);
const EACH = Math.ceil(COUNT / CONTAINER_NAMES.length);
const isMatroska = (container: Container) => container === 'webm' || container === 'mkv';

let thread: Worker | null = null;
afterAll(() => thread?.terminate());

/** Ends the thread with the film that it cannot be brought back from. */
async function renewed(): Promise<Worker> {
  await thread?.terminate();
  thread = new Worker(new URL('./damagedFilms.worker.ts', import.meta.url));
  return thread;
}

function lookedInto(film: Buffer, worker: Worker, limit: number): Promise<Outcome | 'given up'> {
  return new Promise((resolve) => {
    const done = (answer: Outcome | 'given up') => {
      clearTimeout(timer);
      worker.off('message', done).off('error', failed);
      resolve(answer);
    };
    const failed = (error: Error) => done({ crash: String(error) });
    const timer = setTimeout(() => done('given up'), limit);
    worker.once('message', done);
    worker.once('error', failed);
    worker.postMessage(new Uint8Array(film));
  });
}

describe.each(CONTAINER_NAMES)('a damaged film: %s', (container) => {
  it(`is described or refused, ${EACH} times`, { timeout: EACH * 10_000 }, async () => {
    const whole = shortFilm(container);
    let worker = thread ?? (await renewed());
    const tally = { described: 0, refused: 0, givenUp: 0 };
    expect(await lookedInto(whole, worker, 10_000)).toHaveProperty('frameTimes.length', 60);
    for (let seed = 0; seed < EACH; seed++) {
      const { film, deeds } = damaged(whole, isMatroska(container), seeded(seed));
      const what = `${container} ${seed}: ${deeds.join(', ')}`;
      const answer = await lookedInto(film, worker, inspectionLimit(film.length));
      if (answer === 'given up') {
        tally.givenUp += 1;
        worker = await renewed();
        continue;
      }
      expect(answer, what).not.toHaveProperty('crash');
      if ('message' in answer) {
        tally.refused += 1;
        expect(answer.message, what).toMatch(/\.$/);
      } else if ('frameTimes' in answer) {
        tally.described += 1;
        const { frameTimes } = answer;
        expect(frameTimes.every(Number.isFinite), what).toBe(true);
        expect(frameTimes.at(-1)! - frameTimes[0]!, what).toBeLessThanOrEqual(24 * 3600);
      }
    }
    if (process.env.SINEW_FUZZ) console.error(container, tally);
    // What the reader does not come back from is the exception.
    expect(tally.givenUp).toBeLessThanOrEqual(EACH / 100);
  });
});

describe('a film in which the reader goes round and round', () => {
  const endless = () => {
    const film = endlessFilm();
    const path = join(scratchFolder('endless'), 'film.webm');
    writeFileSync(path, film);
    return { path, bytes: film.length };
  };

  it('is given up after its time, while others are answered', async () => {
    const film = endless();
    let isOver = false;
    const looking = inspectFile(film, 1500).finally(() => (isOver = true));
    looking.catch(() => undefined);
    let ticks = 0;
    while (!isOver) {
      await new Promise((resolve) => setTimeout(resolve, 20));
      ticks += 1;
    }
    await expect(looking).rejects.toThrow(TOO_LONG);
    expect(ticks).toBeGreaterThan(30);
  });
});
