/** `npm start` as a coach has it: a key that only they know, and one server a gym. */
import { spawn, type ChildProcess } from 'node:child_process';
import { readFileSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { expect } from '@playwright/test';
import { scratchFolder } from '@sinew/demo/scratch';
import { freePort } from '../support/ownServer';
import { test } from '../support/test';

const START = fileURLToPath(new URL('../../scripts/start.mjs', import.meta.url));

interface Started {
  readonly child: ChildProcess;
  /** All that the terminal has shown. */
  said(): string;
  /** The address in it. */
  readonly address: string;
}

async function start(data: string): Promise<Started> {
  const child = spawn(process.execPath, [START], {
    env: { ...process.env, SINEW_DATA: data, PORT: String(await freePort()) },
  });
  let said = '';
  for (const stream of [child.stdout, child.stderr]) stream.on('data', (part) => (said += part));
  await expect.poll(() => said, { timeout: 60_000 }).toMatch(/Ready in|is open already/);
  return { child, said: () => said, address: /Sinew: +(\S+)/.exec(said)![1]! };
}

async function stop({ child }: Started): Promise<void> {
  const ended = new Promise((resolve) => child.once('exit', resolve));
  child.kill('SIGTERM');
  await ended;
}

test('another user of the machine reads nothing; the coach opens the gym once and for all', async ({
  page,
  browser,
}) => {
  const data = scratchFolder('door');
  let server = await start(data);
  const { origin } = new URL(server.address);
  expect(statSync(join(data, 'key')).mode & 0o777).toBe(0o600);

  await page.goto(origin);
  await expect(page.getByRole('heading', { name: 'This gym is locked.' })).toBeVisible();
  expect((await page.request.get(`${origin}/api/gym`)).status()).toBe(403);

  await page.goto(server.address);
  await expect(page.getByRole('heading', { name: 'An empty Floor.' })).toBeVisible();
  expect(page.url()).toBe(`${origin}/`);
  expect((await page.request.get(`${origin}/api/students`)).status()).toBe(200);

  const other = await (await browser.newContext()).newPage();
  await other.goto(`${origin}/gym`);
  await expect(other.getByRole('heading', { name: 'This gym is locked.' })).toBeVisible();

  await test.step('a second server on the same gym says where it is open', async () => {
    const second = await start(data);
    const open = `This gym is open already, in the Sinew at ${origin}`;
    await expect.poll(() => second.said()).toContain(open);
    await new Promise((resolve) =>
      second.child.exitCode === null ? second.child.once('exit', resolve) : resolve(null),
    );
    expect(second.child.exitCode).not.toBe(0);
  });

  await test.step('the key outlives a restart', async () => {
    await stop(server);
    server = await start(data);
    await page.goto(`${new URL(server.address).origin}/gym`);
    await expect(page.getByRole('heading', { name: 'This gym is locked.' })).toBeHidden();
    await expect(page.getByRole('link', { name: 'Floor' })).toBeVisible();
  });
  await stop(server);
});

/** By what the built app knows the action that keeps the gym's settings. */
function actionId(): string {
  const manifest = new URL(
    '../../web/.next/server/server-reference-manifest.json',
    import.meta.url,
  );
  const { node } = JSON.parse(readFileSync(manifest, 'utf8')) as {
    node: Record<string, { readonly exportedName: string }>;
  };
  return Object.entries(node).find(([, { exportedName }]) => exportedName === 'keepSettings')![0];
}

test('what a page’s form does is done at no address for who has no key, not even at one that is none', async ({
  page,
}) => {
  const data = scratchFolder('door');
  const server = await start(data);
  const { origin } = new URL(server.address);
  const seen = { name: 'Your gym', className: '', grades: [], from: {}, sessions: [] };
  const wanted = JSON.stringify([{ ...seen, name: 'Somebody else’s' }, seen]);
  const id = actionId();
  const places = ['/gym', '/students/x.svg', '/bench/x.css', '/x.svg', '/plain.css', '/api/nothing']
    .concat([
      '/api/gym',
      '/api/clips/x/file',
      '/tracker/x',
      '/_next/static/x',
      '/_next/data/x.json',
    ])
    .concat(['/_next/image', '/icon.svg', '/recovery', '/sign-in/x', '/phone/x.mp4']);
  for (const place of places) {
    const byHeader = await page.request.post(origin + place, {
      headers: { 'next-action': id, 'content-type': 'text/plain;charset=UTF-8' },
      data: wanted,
      maxRedirects: 0,
    });
    expect([401, 403], `${place} by header`).toContain(byHeader.status());
    const byForm = await page.request.post(origin + place, {
      multipart: { [`$ACTION_ID_${id}`]: '', 1: wanted },
      maxRedirects: 0,
    });
    expect([401, 403], `${place} by form`).toContain(byForm.status());
    const typed = await page.request.post(origin + place, {
      form: { [`$ACTION_ID_${id}`]: '' },
      maxRedirects: 0,
    });
    expect([401, 403], `${place} by typed form`).toContain(typed.status());
  }
  await page.goto(server.address);
  await page.goto(`${origin}/gym`);
  await expect(page.getByRole('heading', { name: 'Your gym.' })).toBeVisible();
  // With the key it is what the page asks for.
  const kept = await page.request.post(`${origin}/gym`, {
    headers: { 'next-action': id, 'content-type': 'text/plain;charset=UTF-8', origin },
    data: wanted,
  });
  expect(kept.status()).toBe(200);
  await page.reload();
  await expect(page.getByRole('heading', { name: 'Somebody else’s.' })).toBeVisible();
  await stop(server);
});
