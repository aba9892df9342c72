/** Every route and page there is, asked as nobody, as each role, with what held once, and through the door. */
import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { NextRequest } from 'next/server';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import { accessDb, closeAccess } from '@/data/access/accessDb';
import { newPairing, pair } from '@/data/access/pairings';
import { deeds } from '@/data/access/deeds';
import { addPerson, people } from '@/data/access/people';
import { ROLES, reaches, type Role } from '@/data/access/roles';
import { endSignIns, signIn } from '@/data/access/signIns';
import { answersTo, doorMark, FROM, MARK } from '@/data/door/byDoor';
import { proxy } from '@/proxy';
import { startApp, type TestApp } from '../app';

vi.mock('next/cache', () => ({ revalidatePath: vi.fn() }));
vi.mock('@/data/finding/measureLater', () => ({
  measureLater: vi.fn(),
  measureClipLater: vi.fn(async () => undefined),
  measureAllLater: vi.fn(async () => undefined),
}));

const METHODS = ['GET', 'HEAD', 'PUT', 'POST', 'PATCH', 'DELETE', 'OPTIONS'] as const;
type Handler = (request: Request, context: { params: Promise<object> }) => Promise<Response>;

const APP = fileURLToPath(new URL('../../src/app', import.meta.url));
const files = readdirSync(APP, { recursive: true, encoding: 'utf8' });
/**
 * Those by which people come in ask for themselves, and so does a student's lesson (lessons.test.ts); the page that
 * needs no database is asked through the proxy.
 */
const BY_THEMSELVES = /^(sign-in|sign-out|pair|recovery|lesson\/.*)\/route\.ts$/;
const routes = files.filter((name) => name.endsWith('route.ts') && !BY_THEMSELVES.test(name));
const handlers = (
  await Promise.all(
    routes.map(async (file) => {
      const route = (await import(join(APP, file))) as Partial<Record<string, Handler>>;
      return METHODS.flatMap((method) => {
        const handle = route[method];
        return handle
          ? [{ name: `${method} /${file.replace(/\/route\.ts$/, '')}`, method, handle }]
          : [];
      });
    }),
  )
).flat();

/** Written by hand: who may ask what, where it is not a coach and whoever does more. */
const LEAST: Readonly<Record<string, Role>> = {
  'POST /api/uploads': 'assistant',
  'OPTIONS /api/uploads': 'assistant',
  'HEAD /api/uploads/[id]': 'assistant',
  'PATCH /api/uploads/[id]': 'assistant',
  'DELETE /api/uploads/[id]': 'assistant',
  'POST /api/uploads/[id]/done': 'assistant',
  'POST /api/phone/consents': 'assistant',
  'GET /api/gym': 'owner',
  'PUT /api/gym': 'owner',
  'GET /recovery/save': 'owner',
};

const PASSCODE = 'harbour-42';
let app: TestApp;
const tokens = new Map<string, string>();

beforeAll(async () => {
  app = await startApp();
  const db = await accessDb();
  for (const role of [...ROLES].reverse()) {
    const { id } = await addPerson(db, { name: role, role, passcode: PASSCODE });
    tokens.set(role, (await signIn(db, { name: role, passcode: PASSCODE }, null, '')).token);
    if (role === 'coach') {
      tokens.set('phone', (await pair(db, await newPairing(db, id), null, '')).token);
      const stale = await signIn(db, { name: role, passcode: PASSCODE }, null, '');
      await endSignIns(db, { id: stale.asker.signInId! });
      tokens.set('stale', stale.token);
    }
  }
});
afterAll(async () => {
  await closeAccess();
  await app.stop();
});

/** SHA-256 of nothing begins like this (FIPS 180-4): the gym of a test has no key. */
const GYM = 'e3b0c442';
const cookie = (who: string, prefix = '') =>
  `${prefix}sinew-${who === 'phone' ? 'phone' : 'in'}-${GYM}=${tokens.get(who) ?? 'nothing'}`;

const WHO = ['nobody', 'stale', 'phone', ...ROLES] as const;
const roleOf = (who: (typeof WHO)[number]): Role | null =>
  who === 'nobody' || who === 'stale' ? null : who === 'phone' ? 'assistant' : who;

const HOST = '127.0.0.1:4000';
const DOOR = '192.168.7.20:4143';

describe('a route', () => {
  it('is among those that are asked, and the table names no other', () => {
    expect(handlers.length).toBeGreaterThan(40);
    const names = handlers.map(({ name }) => name);
    for (const name of Object.keys(LEAST)) expect(names).toContain(name);
  });

  it.each(handlers)('answers those who may: $name', async ({ name, method, handle }) => {
    const asked = async (headers: Record<string, string>) => {
      const controller = new AbortController();
      const { signal } = controller;
      const request = new Request(`http://${HOST}/`, { method, headers, signal });
      const answer = await handle(request, { params: Promise.resolve({ id: 'x' }) });
      controller.abort();
      return answer.status;
    };
    const least = LEAST[name] ?? 'coach';
    for (const who of WHO) {
      const role = roleOf(who);
      const wanted = role === null ? [401] : reaches(role, least) ? 'in' : [403];
      const inside = await asked({ host: HOST, cookie: cookie(who) });
      if (wanted === 'in') expect([401, 403], who).not.toContain(inside);
      else expect(wanted, who).toContain(inside);
      // What the door brings is held to the same, by the cookies of its own.
      const through = { host: DOOR, [MARK]: doorMark(), [FROM]: '192.168.7.31' };
      answersTo(new Set([DOOR]));
      expect(await asked({ ...through, cookie: cookie(who) }), `${who} without __Host-`).toBe(401);
      const byDoor = await asked({ ...through, cookie: cookie(who, '__Host-') });
      if (wanted === 'in') expect([401, 403], who).not.toContain(byDoor);
      else expect(wanted, who).toContain(byDoor);
    }
    const asOwner = { cookie: cookie('owner', '__Host-'), [MARK]: doorMark() };
    const elsewhere = {
      'a host that is not the door’s': { ...asOwner, host: 'sinew.invalid:4143' },
      'a door that is not ours': { ...asOwner, host: DOOR, [MARK]: `${doorMark()}x` },
      'another origin': { ...asOwner, host: DOOR, origin: 'https://elsewhere.invalid' },
      'the same host without encryption': { ...asOwner, host: DOOR, origin: `http://${DOOR}` },
      'another site': { ...asOwner, host: DOOR, 'sec-fetch-site': 'cross-site' },
    };
    for (const [how, headers] of Object.entries(elsewhere))
      expect(await asked(headers), how).toBe(403);
    answersTo(new Set());
    expect(await asked({ ...asOwner, host: DOOR }), 'a door that is shut').toBe(403);
  });
});

describe('a page', () => {
  const pages = files
    .filter((name) => /(^|\/)page\.tsx$/.test(name))
    .map((name) => `/${name.replace(/\/?page\.tsx$/, '').replaceAll(/\[\w+\]/g, 'x')}`)
    .concat('/recovery', '/recovery/save');

  const opened = (path: string, who: (typeof WHO)[number], method = 'GET') =>
    proxy(
      new NextRequest(`http://${HOST}${path}`, {
        method,
        headers: { host: HOST, cookie: cookie(who) },
      }),
    );

  it.each(pages)('%s is shown to those who may see it', async (path) => {
    const isPhone = path.startsWith('/phone');
    for (const who of ['nobody', 'stale'] as const) {
      const answer = await opened(path, who);
      expect(answer.status, who).toBe(303);
      const to = `http://${HOST}/sign-in?to=${encodeURIComponent(path)}`;
      expect(answer.headers.get('location')).toBe(to);
      // What a form of a page does.
      expect((await opened(path, who, 'POST')).status).toBe(401);
    }
    for (const who of ['phone', 'assistant'] as const) {
      expect((await opened(path, who)).status, who).toBe(isPhone ? 200 : 303);
      expect((await opened(path, who, 'POST')).status, who).toBe(403);
    }
    const isOwners = path.startsWith('/recovery');
    expect((await opened(path, 'coach')).status).toBe(isOwners ? 403 : 200);
    expect((await opened(path, 'owner')).status).toBe(200);
  });

  it('is never reached past the door by who brings only the key of the machine', async () => {
    process.env.SINEW_KEY = 'secret';
    answersTo(new Set([DOOR]));
    const headers = { host: DOOR, [MARK]: doorMark() };
    const answer = await proxy(new NextRequest(`https://${DOOR}/?key=secret`, { headers }));
    expect(answer.headers.get('set-cookie')).toBeNull();
    expect(answer.headers.get('location')).toMatch(/^https:.*\/sign-in/);
    delete process.env.SINEW_KEY;
    answersTo(new Set());
  });
});

describe('coming in', () => {
  const form = (fields: Record<string, string>) => {
    const body = new FormData();
    for (const [name, value] of Object.entries(fields)) body.set(name, value);
    return { method: 'POST', body };
  };
  const post = (
    path: string,
    fields: Record<string, string>,
    headers: Record<string, string> = {},
  ) => app.fetch(path, { ...form(fields), headers });

  it('leads on within Sinew, and nowhere else', async () => {
    const to = async (wanted: string) => {
      const fields = { name: 'coach', passcode: PASSCODE, to: wanted };
      const answer = await post('/sign-in', fields);
      expect(answer.status).toBe(303);
      expect(answer.headers.get('set-cookie')).toMatch(
        /^sinew-in-[0-9a-f]{8}=[\w-]{43}; Path=\/; Max-Age=43200; HttpOnly; SameSite=Strict$/,
      );
      return answer.headers.get('location');
    };
    expect(await to('/bench/x?frame=3')).toBe(`http://${HOST}/bench/x?frame=3`);
    for (const bad of [
      'https://elsewhere.invalid/',
      '//elsewhere.invalid',
      '/\\elsewhere.invalid',
      'x',
    ]) {
      expect(await to(bad), bad).toBe(`http://${HOST}/`);
    }
  });

  it('is refused in words, with the name still there', async () => {
    const answer = await post('/sign-in', { name: '<b>coach', passcode: 'wrong-one-1', to: '/' });
    expect(answer.status).toBe(403);
    const page = await answer.text();
    expect(page).toContain('Name and passcode do not belong together.');
    expect(page).toContain('value="&#60;b&#62;coach"');
    expect(answer.headers.get('set-cookie')).toBeNull();
  });

  it('is not begun by a page of another site', async () => {
    const fields = { name: 'coach', passcode: PASSCODE, to: '/' };
    for (const path of ['/sign-in', '/sign-out', '/pair']) {
      const answer = await post(path, fields, { origin: 'https://elsewhere.invalid' });
      expect(answer.status, path).toBe(403);
    }
  });

  it('is remembered on a paired phone only', async () => {
    const fields = { name: 'coach', passcode: PASSCODE, to: '/', remember: 'yes' };
    const days = (answer: Response) =>
      Number(/Max-Age=(\d+)/.exec(answer.headers.get('set-cookie') ?? '')?.[1]) / 86_400;
    expect(days(await post('/sign-in', fields))).toBe(0.5);
    expect(days(await post('/sign-in', fields, { cookie: cookie('phone') }))).toBe(30);
  });

  it('ends by signing out: the token holds no more, the phone stays paired', async () => {
    const { token } = await signIn(
      await accessDb(),
      { name: 'coach', passcode: PASSCODE },
      null,
      '',
    );
    const kept = `sinew-in-${GYM}=${token}; ${cookie('phone')}`;
    const answer = await post('/sign-out', {}, { cookie: kept });
    expect(answer.headers.get('set-cookie')).toMatch(/Max-Age=0/);
    const after = await app.fetch('/api/students', { headers: { cookie: kept } });
    // What is left is the phone, which sees no list of this kind.
    expect(after.status).toBe(403);
  });

  it('by a code asks first, and says when the code is wrong', async () => {
    const shown = await app.fetch('/pair?code=%3Cscript%3E');
    expect(await shown.text()).not.toContain('<script>');
    const wrong = await post('/pair', { code: 'AAAAA-AAAAA' });
    expect(wrong.status).toBe(403);
    expect(await wrong.text()).toContain('This code does not work');
    const { id } = (await people(await accessDb())).find(({ role }) => role === 'coach')!;
    const code = await newPairing(await accessDb(), id);
    const right = await post('/pair', { code });
    expect(right.headers.get('location')).toBe(`http://${HOST}/phone`);
    expect(right.headers.get('set-cookie')).toMatch(/^sinew-phone-.*; HttpOnly; SameSite=Strict$/);
    const [last] = await deeds(app.gym.db, 1);
    expect([last!.by, last!.what]).toEqual(['coach', 'paired-phone']);
  });
});
