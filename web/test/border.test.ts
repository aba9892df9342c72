/** What is asked from outside of Sinew's own pages is refused, whatever it is. */
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import Database from 'better-sqlite3';
import { NextRequest } from 'next/server';
import { describe, expect, it } from 'vitest';
import { scratchFolder } from '@sinew/demo/scratch';
import { closeDatabase } from '@/data/database/database';
import { problemSchema } from '@sinew/core/foundation/problem/problem';
import { ownPagesOnly } from '@/app/api/answers';
import { proxy } from '@/proxy';

const METHODS = ['GET', 'PUT', 'POST', 'PATCH', 'DELETE'] as const;
type Handler = (request: Request, context: { params: Promise<object> }) => Promise<Response>;

const API = fileURLToPath(new URL('../src/app/api', import.meta.url));
const files = readdirSync(API, { recursive: true, encoding: 'utf8' }).filter((name) =>
  name.endsWith('route.ts'),
);
const routes = await Promise.all(
  files.map(async (file) => ({
    file,
    route: (await import(join(API, file))) as Partial<Record<(typeof METHODS)[number], Handler>>,
  })),
);
const handlers = routes.flatMap(({ file, route }) =>
  METHODS.flatMap((method) => {
    const handle = route[method];
    return handle ? [{ name: `${method} ${file}`, method, handle }] : [];
  }),
);

/** A name pointed at this machine, another site's page, and another site's page that says so itself. */
const NOT_APPLICABLE: Record<string, Record<string, string>> = {
  'under another name': { host: 'sinew.invalid:4000' },
  'from another origin': { host: '127.0.0.1:4000', origin: 'http://elsewhere.invalid' },
  'from another site': { host: '127.0.0.1:4000', 'sec-fetch-site': 'cross-site' },
};

const KEY = 'secret';
/** The first eight digits of SHA-256 of "secret", by coreutils' sha256sum. */
const COOKIE = 'sinew-2bb80d53';

describe('a request from outside', () => {
  it('meets every route there is', () => {
    expect(handlers.length).toBeGreaterThan(15);
  });

  it.each(handlers)('is refused: $name', async ({ method, handle }) => {
    for (const [how, headers] of Object.entries(NOT_APPLICABLE)) {
      const request = new Request('http://127.0.0.1:4000/', { method, headers });
      const answer = await handle(request, { params: Promise.resolve({ id: 'x' }) });
      expect(answer.status, how).toBe(403);
    }
  });

  it.each(handlers)('without the key is refused: $name', async ({ method, handle }) => {
    process.env.SINEW_KEY = KEY;
    for (const cookie of ['', `${COOKIE}=wrong`, `${COOKIE}=`, 'sinew-00000000=secret']) {
      const headers = { host: '127.0.0.1:4000', cookie };
      const answer = await handle(new Request('http://127.0.0.1:4000/', { method, headers }), {
        params: Promise.resolve({ id: 'x' }),
      });
      expect(answer.status, cookie).toBe(403);
      expect(await answer.text()).toContain('the address that its terminal shows');
    }
    delete process.env.SINEW_KEY;
  });

  it('gets the page that says how to open the gym, until it brings the key', async () => {
    process.env.SINEW_DATA = scratchFolder('border');
    process.env.SINEW_KEY = KEY;
    const asked = (path: string, cookie = '') =>
      proxy(
        new NextRequest(`http://127.0.0.1:4000${path}`, {
          headers: { host: '127.0.0.1:4000', cookie },
        }),
      );
    for (const path of ['/', '/students/x', '/recovery', '/recovery/save', '/?key=wrong']) {
      const locked = await asked(path);
      expect(locked.status, path).toBe(401);
      expect(await locked.text()).toContain('This gym is locked.');
    }
    const opened = await asked(`/students/x?key=${KEY}&as=list`);
    expect(opened.status).toBe(303);
    expect(opened.headers.get('location')).toBe('http://127.0.0.1:4000/students/x?as=list');
    const kept = opened.headers.get('set-cookie')!;
    expect(kept).toMatch(/^sinew-[0-9a-f]{8}=secret; Path=\/; .*HttpOnly; SameSite=Strict$/);
    expect((await asked('/students/x', `other=1; ${kept.split(';')[0]}`)).status).toBe(200);
    // Another gym's key opens another gym.
    process.env.SINEW_KEY = 'another';
    expect((await asked('/', kept.split(';')[0])).status).toBe(401);
    delete process.env.SINEW_KEY;
    await closeDatabase();
  });

  it('gets no page under another name', async () => {
    process.env.SINEW_DATA = scratchFolder('border');
    const asked = async (host: string) =>
      (await proxy(new NextRequest('http://127.0.0.1:4000/', { headers: { host } }))).status;
    expect(await asked('sinew.invalid')).toBe(403);
    expect(await asked('localhost:4000')).toBe(200);
    await closeDatabase();
  });
});

describe('a disk that fails', () => {
  const told = async (error: unknown) => {
    const failing = ownPagesOnly(async () => {
      throw error;
    });
    const request = new Request('http://127.0.0.1:4000/', { headers: { host: '127.0.0.1:4000' } });
    const answer = await failing(request, {});
    return { status: answer.status, ...problemSchema.parse(await answer.json()) };
  };
  const thrownBy = (work: () => void): unknown => {
    try {
      work();
    } catch (error) {
      return error;
    }
    throw new Error('nothing was thrown');
  };

  it('is told as full when it is, by SQLite as by the system', async () => {
    const database = new Database(':memory:');
    database.exec('create table t (x); pragma max_page_count = 4');
    const full = thrownBy(() => database.exec('insert into t values (zeroblob(100000))'));
    database.close();
    for (const error of [full, Object.assign(new Error('no space'), { code: 'ENOSPC' })]) {
      const { status, code, message } = await told(error);
      expect([status, code]).toEqual([507, 'disk-full']);
      expect(message).toMatch(/^The disk is full\. .*nothing was half kept\. Free some space/);
    }
  });

  it('is told as one that does not take what is written', async () => {
    const folder = scratchFolder('readonly');
    new Database(join(folder, 'x.db')).exec('create table t (x)').close();
    const database = new Database(join(folder, 'x.db'), { readonly: true });
    const refused = thrownBy(() => database.exec('insert into t values (1)'));
    database.close();
    const denied = thrownBy(() => readFileSync(folder));
    expect((await told(refused)).message).toMatch(/^The disk does not take what Sinew writes\./);
    expect((await told(Object.assign(new Error('io'), { code: 'EIO' }))).happened).toMatch(/disk/);
    // A folder that is read as a file is a fault of ours.
    expect((await told(denied)).message).toMatch(/^This went wrong inside Sinew\./);
  });
});
