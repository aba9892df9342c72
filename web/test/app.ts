/** The app's routes without a server: a question of a page goes straight to the handler that answers it. */
import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { vi } from 'vitest';
import { scratchFolder } from '@sinew/demo/scratch';
import { clipFiles } from '@/data/film/clipFilesHere';
import { closeDatabase, database } from '@/data/database/database';
import type { TestGym } from './support';

const APP = fileURLToPath(new URL('../src/app', import.meta.url));
const HOST = '127.0.0.1:4000';

type Handler = (request: Request, context: { params: Promise<object> }) => Promise<Response>;

export interface TestApp {
  /** The gym behind it, empty at first. */
  readonly gym: TestGym;
  /** @param path as in `/api/clips/x/bench?…` */
  readonly fetch: (path: string, init?: RequestInit) => Promise<Response>;
  readonly stop: () => Promise<void>;
}

/** Starts it on an empty gym; `fetch` of the page leads to it until it is stopped. */
export async function startApp(): Promise<TestApp> {
  const folder = scratchFolder('app');
  process.env.SINEW_DATA = folder;
  const gym = { folder, db: await database(), files: clipFiles() };
  const fetch = async (path: string, init: RequestInit = {}) => {
    const url = new URL(path, `http://${HOST}`);
    const { file, params } = routeOf(url.pathname);
    const route = (await import(join(APP, file))) as Record<string, Handler | undefined>;
    const handle = route[init.method ?? 'GET'];
    if (!handle) return new Response(null, { status: 405 });
    const headers = new Headers(init.headers);
    headers.set('host', HOST);
    const request = new Request(url, { ...init, headers, duplex: 'half' } as RequestInit);
    return handle(request, { params: Promise.resolve(params) });
  };
  vi.stubGlobal('fetch', fetch);
  return {
    gym,
    fetch,
    stop: async () => {
      vi.unstubAllGlobals();
      await closeDatabase();
    },
  };
}

const ROUTES = readdirSync(APP, { recursive: true, encoding: 'utf8' })
  .filter((name) => name.endsWith('route.ts'))
  .map((file) => ({ file, parts: file.split('/').slice(0, -1) }));

function routeOf(pathname: string) {
  const asked = pathname.split('/').slice(1).map(decodeURIComponent);
  const found = ROUTES.find(
    ({ parts }) =>
      parts.length === asked.length &&
      parts.every((part, i) => part.startsWith('[') || part === asked[i]),
  );
  if (!found) throw new Error(`no route answers ${pathname}`);
  const named = found.parts.flatMap((part, i) =>
    part.startsWith('[') ? [[part.slice(1, -1), asked[i]!]] : [],
  );
  return { file: found.file, params: Object.fromEntries(named) as object };
}
