/** A student's lesson on their own phone: who has the address sees one card, for as long as it may be seen. */
import { existsSync, mkdirSync, readdirSync, utimesSync } from 'node:fs';
import { join } from 'node:path';
import { NextRequest } from 'next/server';
import { afterAll, beforeAll, beforeEach, describe, expect, it, vi } from 'vitest';
import { plusDays } from '@sinew/core/foundation/calendar/day';
import { accessDb, closeAccess } from '@/data/access/accessDb';
import { addPerson } from '@/data/access/people';
import { deeds } from '@/data/access/deeds';
import {
  endLessons,
  endOfLink,
  lessonFolder,
  lessonsOf,
  sweepLessons,
} from '@/data/access/lessons';
import { today } from '@/data/database/today';
import { acceptFinding } from '@/data/finding/findings';
import { allowSharing, endSharing } from '@/data/student/sharing';
import { logsOf } from '@/data/work/drillLog';
import { prescribe, workOf } from '@/data/work/work';
import { proxy } from '@/proxy';
import { startApp, type TestApp } from '../app';
import { markedClip, student } from '../support';

const door = vi.hoisted(() => ({ isOpen: true }));
vi.mock('next/cache', () => ({ revalidatePath: vi.fn() }));
vi.mock('@/data/door/door', () => ({
  doorNow: async () =>
    door.isOpen
      ? { addresses: ['https://192.168.7.20:4143'], fingerprint: '', isOwnMade: true }
      : null,
}));

const PICTURE = Buffer.from('a picture');
const FILM = Buffer.from('a film of nineteen');
let app: TestApp;
let who: string;
let clipId: string;
let workId: string;

beforeAll(async () => {
  app = await startApp();
  who = await student(app.gym);
  const marked = await markedClip(app.gym, who);
  clipId = marked.clipId;
  await acceptFinding(app.gym.db, marked.strikeId, 'all-at-once', false);
  const proposal = (await workOf(app.gym.db, who))!.proposals[0]!;
  const worksOn = { technique: 'cross', fault: 'all-at-once' };
  await prescribe(app.gym.db, { ...proposal.prescription, studentId: who, worksOn, override: '' });
  workId = (await workOf(app.gym.db, who))!.given[0]!.id;
});
afterAll(async () => {
  await closeAccess();
  await app.stop();
});

const allowed = () =>
  allowSharing(app.gym.db, { id: who, isMinor: false }, { id: crypto.randomUUID(), name: 'Ada' });
const make = (change: object = {}) =>
  app.fetch(`/api/students/${who}/lessons`, {
    method: 'POST',
    body: JSON.stringify({
      clipId,
      picture: PICTURE.toString('base64'),
      film: FILM.toString('base64'),
      said: [{ from: 0, to: 2, words: 'Hips first.' }],
      ...change,
    }),
  });
async function link(): Promise<string> {
  const answer = await make();
  expect(answer.status, await answer.clone().text()).toBe(200);
  const { url } = (await answer.json()) as { url: string };
  expect(url).toMatch(/^https:\/\/192\.168\.7\.20:4143\/lesson\/[\w-]{43}$/);
  return new URL(url).pathname;
}
const tick = (path: string, box: string, isDone = true) =>
  app.fetch(`${path}/ticks`, { method: 'POST', body: JSON.stringify({ box, isDone }) });

beforeEach(async () => {
  door.isOpen = true;
  await endLessons(await accessDb(), app.gym.folder, who);
  await endSharing(app.gym.db, who);
  await allowed();
});

describe('the page', () => {
  it('shows the card with picture and film, and its own policy lets nothing else in', async () => {
    const path = await link();
    const answer = await app.fetch(path);
    const page = await answer.text();
    for (const words of [
      'Somebody',
      `src="${path}/film"`,
      `src="${path}/picture"`,
      'Hips first.',
    ]) {
      expect(page).toContain(words);
    }
    const policy = answer.headers.get('content-security-policy')!;
    const nonce = /script-src 'nonce-([^']+)'/.exec(policy)![1]!;
    expect(page).toContain(`<script nonce="${nonce}">`);
    expect(policy).not.toMatch(/script-src[^;]*unsafe/);
    expect(answer.headers.get('referrer-policy')).toBe('no-referrer');
    expect(answer.headers.get('cache-control')).toBe('no-store');
    expect(page).not.toContain(who);
    expect((await lessonsOf(await accessDb(), who))[0]!.openedAt).not.toBeNull();
  });

  it('serves picture and film, and a part of it as players ask for', async () => {
    const path = await link();
    expect(await (await app.fetch(`${path}/picture`)).text()).toBe('a picture');
    const part = await app.fetch(`${path}/film`, { headers: { range: 'bytes=2-5' } });
    expect(part.status).toBe(206);
    expect(await part.text()).toBe('film');
    expect(part.headers.get('content-range')).toBe(`bytes 2-5/${FILM.length}`);
  });

  it('is not there for an address that is wrong, the same way as for one that has ended', async () => {
    const path = await link();
    const wrong = await app.fetch(path.slice(0, -1) + (path.endsWith('A') ? 'B' : 'A'));
    await endLessons(await accessDb(), app.gym.folder, who);
    const ended = await app.fetch(path);
    expect([wrong.status, ended.status]).toEqual([404, 404]);
    expect(await wrong.text()).toBe(await ended.text());
  });

  it('is kept as a hash: who reads the database cannot open it', async () => {
    const token = (await link()).split('/').at(-1)!;
    const rows = await (await accessDb()).selectFrom('lesson').selectAll().execute();
    expect(JSON.stringify(rows)).not.toContain(token);
  });
});

describe('a tick', () => {
  const day = today();

  it('reaches the ledger once, shows on the page, and can be taken back', async () => {
    const path = await link();
    const box = `${workId} ${day}`;
    for (let i = 0; i < 2; i++) expect((await tick(path, box)).status).toBe(200);
    const home = async () =>
      (await logsOf(app.gym.db, who)).filter(({ countedBy }) => countedBy === 'home');
    expect(await home()).toMatchObject([{ prescriptionId: workId, day, strikes: 0, clean: null }]);
    expect((await workOf(app.gym.db, who))!.given[0]!.sessions).toBe(1);
    expect(await (await app.fetch(path)).text()).toContain(`data-box="${workId} ${day}" checked`);
    expect((await tick(path, box, false)).status).toBe(200);
    expect(await home()).toEqual([]);
  });

  it('is of a box on that page, and of no day to come', async () => {
    const path = await link();
    const boxes = [`${workId} ${plusDays(day, 1)}`, `another ${day}`, '', `${workId} 2020-01-01`];
    for (const box of boxes) expect((await tick(path, box)).status, box).toBe(404);
    const nonsense = await app.fetch(`${path}/ticks`, { method: 'POST', body: 'x' });
    expect(nonsense.status).toBe(400);
    expect(await (await app.fetch(path)).text()).toContain(
      `data-box="${workId} ${plusDays(day, 1)}" disabled`,
    );
  });

  it('of another site’s page is refused', async () => {
    const path = await link();
    const answer = await app.fetch(`${path}/ticks`, {
      method: 'POST',
      headers: { origin: 'https://elsewhere.invalid' },
      body: JSON.stringify({ box: `${workId} ${day}`, isDone: true }),
    });
    expect(answer.status).toBe(403);
  });
});

describe('a link ends', () => {
  it('with the consent, at once, also when it is given anew and the link is swept', async () => {
    const path = await link();
    await endSharing(app.gym.db, who);
    for (const at of [path, `${path}/film`, `${path}/picture`]) {
      expect((await app.fetch(at)).status, at).toBe(404);
    }
    expect((await tick(path, `${workId} ${today()}`)).status).toBe(404);
    await sweepLessons(await accessDb(), app.gym.db, app.gym.folder);
    expect(readdirSync(lessonFolder(app.gym.folder))).toEqual([]);
    await allowed();
    expect((await app.fetch(path)).status).toBe(404);
  });

  it('with its last day, and what it showed goes', async () => {
    const path = await link();
    const access = await accessDb();
    await access
      .updateTable('lesson')
      .set({ ends_on: plusDays(today(), -1) })
      .execute();
    expect((await app.fetch(path)).status).toBe(404);
    await sweepLessons(access, app.gym.db, app.gym.folder);
    expect(readdirSync(lessonFolder(app.gym.folder))).toEqual([]);
  });

  it('leaves the files of a link that is being made just now, and no older ones', async () => {
    const folder = join(lessonFolder(app.gym.folder), 'being-made');
    mkdirSync(folder, { recursive: true });
    const sweep = async () => sweepLessons(await accessDb(), app.gym.db, app.gym.folder);
    await sweep();
    expect(existsSync(folder)).toBe(true);
    const before = Date.now() / 1000 - 7200;
    utimesSync(folder, before, before);
    await sweep();
    expect(existsSync(folder)).toBe(false);
  });

  it('when the coach withdraws it; whoever did is written down', async () => {
    const path = await link();
    const answer = await app.fetch(`/api/students/${who}/lessons`, { method: 'DELETE' });
    expect(answer.status).toBe(200);
    expect((await app.fetch(path)).status).toBe(404);
    const done = (await deeds(app.gym.db, 50)).map(({ what }) => what);
    expect(done).toEqual(expect.arrayContaining(['made-link', 'ended-links']));
  });

  it('film and picture go with the clip, and the card stays', async () => {
    const path = await link();
    const { db } = app.gym;
    await db
      .updateTable('clip')
      .set({ deleted_at: '2026-01-01' })
      .where('id', '=', clipId)
      .execute();
    expect((await app.fetch(`${path}/film`)).status).toBe(404);
    expect(await (await app.fetch(path)).text()).not.toContain('/film');
    const [kept] = await lessonsOf(await accessDb(), who);
    await sweepLessons(await accessDb(), db, app.gym.folder);
    expect(existsSync(`${lessonFolder(app.gym.folder)}/${kept!.id}/review.mp4`)).toBe(false);
    await db.updateTable('clip').set({ deleted_at: null }).where('id', '=', clipId).execute();
  });

  it('film and picture are not shown once the clip was moved to another student', async () => {
    const path = await link();
    const { db } = app.gym;
    const other = await student(app.gym);
    const move = (to: string) =>
      db.updateTable('clip').set({ student_id: to }).where('id', '=', clipId).execute();
    await move(other);
    expect((await app.fetch(`${path}/film`)).status).toBe(404);
    expect((await app.fetch(`${path}/picture`)).status).toBe(404);
    await move(who);
    expect((await app.fetch(`${path}/film`)).status).toBe(200);
  });

  it('a week after the next check, two weeks from now at least and sixty days at most', () => {
    const day = today();
    expect(endOfLink(plusDays(day, 20))).toBe(plusDays(day, 27));
    expect(endOfLink(null)).toBe(plusDays(day, 14));
    expect(endOfLink(plusDays(day, 300))).toBe(plusDays(day, 60));
  });
});

describe('a link is not made', () => {
  const said = async (answer: Response) => ((await answer.json()) as { happened: string }).happened;

  it('without consent that something leaves the machine', async () => {
    await endSharing(app.gym.db, who);
    expect(await said(await make())).toMatch(/Nobody has consented/);
  });

  it('while the gym is shut to its network', async () => {
    door.isOpen = false;
    expect(await said(await make())).toMatch(/not open to its network/);
  });

  it('of what is no lesson, and nothing is left of the try', async () => {
    for (const change of [{ film: 'not base64!' }, { said: [{}] }, { clipId: 7 }]) {
      expect((await make(change)).status).toBe(400);
    }
    expect(await lessonsOf(await accessDb(), who)).toEqual([]);
  });
});

// Last: from here on people sign in.
describe('where people sign in', () => {
  it('is reached without a sign-in, and nothing else under its name is', async () => {
    const host = { headers: { host: '127.0.0.1:4000' } };
    const path = await link();
    const asked = async (at: string) =>
      (await proxy(new NextRequest(`http://127.0.0.1:4000${at}`, host))).headers.get('location');
    expect(await asked(path)).toBeNull();
    await addPerson(await accessDb(), { name: 'Ilse', role: 'owner', passcode: 'harbour-42' });
    expect(await asked(path)).toBeNull();
    for (const other of [
      '/',
      `${path}/more`,
      `${path}x`,
      '/lesson',
      path.replace('lesson', 'bench'),
    ]) {
      expect(await asked(other), other).toContain('/sign-in');
    }
    // Nor does what a page's form does go by its address.
    const action = await proxy(
      new NextRequest(`http://127.0.0.1:4000${path}/ticks`, {
        method: 'POST',
        headers: { ...host.headers, 'next-action': 'x' },
      }),
    );
    expect(action.status).toBe(401);
    const foreign = { headers: { host: 'elsewhere.invalid' } };
    const answer = await proxy(new NextRequest(`http://elsewhere.invalid${path}`, foreign));
    expect(answer.status).toBe(403);
  });
});
