/** The app's own decoder and body tracker in Chromium, without the app. */
import { readFileSync } from 'node:fs';
import { basename, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { chromium, type Route } from '@playwright/test';
import { build } from 'esbuild';
import type { Found } from '@sinew/web/api/job';
import type { Model } from '@sinew/web/api/models';
import type { Survey } from '@sinew/core/observe/take/survey';
import type { Task, TrackedFilm, TrackedPicture } from './track.worker';

const here = (path: string) => fileURLToPath(new URL(path, import.meta.url));
const ORIGIN = 'http://localhost';

export interface TrackerBrowser {
  /** All of a film, as the app goes through it. */
  track(file: string, model: Model): Promise<TrackedFilm>;
  /** What going through a film tells. */
  survey(file: string): Promise<Survey>;
  /** One photograph. */
  look(file: string, model: Model): Promise<TrackedPicture>;
  /** Milliseconds that the model alone takes for a picture, `count` times the film's first. */
  bare(file: string, model: Model, count: number): Promise<number>;
  close(): Promise<void>;
}

export async function trackerBrowser(): Promise<TrackerBrowser> {
  const bundle = await build({
    entryPoints: [here('./track.worker.ts')],
    bundle: true,
    write: false,
    format: 'esm',
    target: 'chrome120',
  });
  const script = bundle.outputFiles[0]!.text;
  const browser = await chromium.launch({
    executablePath: '/usr/bin/chromium',
    args: [
      '--no-sandbox',
      '--disable-quic',
      '--no-first-run',
      '--disable-background-networking',
    ].concat(['--disable-component-update', '--disable-sync', '--enable-unsafe-swiftshader']),
  });

  /** Nothing comes from a network: every address is answered from this machine's files. */
  const answer = (route: Route, file: string) => {
    const name = basename(new URL(route.request().url()).pathname);
    if (name === '') return route.fulfill({ contentType: 'text/html', body: '' });
    if (name === 'worker.js')
      return route.fulfill({ contentType: 'text/javascript', body: script });
    const path = name === 'shown' ? file : join(here('../../../web/public/tracker'), name);
    const contentType = name.endsWith('.js') ? 'text/javascript' : 'application/octet-stream';
    return route.fulfill({ contentType, body: readFileSync(path) });
  };
  const run = async <T>(file: string, task: Task): Promise<T> => {
    const page = await browser.newPage();
    try {
      await page.route(`${ORIGIN}/**`, (route) => answer(route, file));
      await page.goto(ORIGIN);
      const result = await page.evaluate(
        (one) =>
          new Promise<unknown>((resolve, reject) => {
            const worker = new Worker('/worker.js', { type: 'module' });
            worker.onmessage = ({ data }) =>
              'result' in data ? resolve(data.result) : reject(new Error(data.error));
            worker.onerror = ({ message }) => reject(new Error(message));
            worker.postMessage(one);
          }),
        task,
      );
      return result as T;
    } finally {
      await page.close();
    }
  };
  const address = '/shown';
  return {
    track: async (file, model) => {
      const people = await run<Found['people']>(file, { kind: 'people', address });
      return run(file, { kind: 'film', address, model, people });
    },
    survey: (file) => run(file, { kind: 'survey', address }),
    look: (file, model) => run(file, { kind: 'picture', address, model }),
    bare: (file, model, count) => run(file, { kind: 'bare', address, model, count }),
    close: () => browser.close(),
  };
}
