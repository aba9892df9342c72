/** Films that are damaged, endless or no films at all: refused in words while everybody is answered. */
import { createHash } from 'node:crypto';
import { readFileSync, statSync } from 'node:fs';
import { join } from 'node:path';
import Database from 'better-sqlite3';
import { expect } from '@playwright/test';
import { seeded } from '@sinew/core/foundation/uncertainty/random';
import { endlessFilm } from '@sinew/demo/damage/endless';
import { shortFilm } from '@sinew/demo/damage/films';
import { damaged } from '@sinew/demo/damage/mutations';
import { partsOf } from '@sinew/demo/damage/parts';
import { addStudent, chooseFile, dataOf, demoClip, post } from '../support/gym';
import { test } from '../support/test';

test('an endless film is given up in words, before and after the transfer, and stops nobody', async ({
  page,
  request,
  baseURL,
}) => {
  const student = await addStudent(page, 'Endless Film');
  const looking = post(request, baseURL!, student, endlessFilm(), { name: 'film.webm' });
  let slowest = 0;
  let isOver = false;
  void looking.finally(() => (isOver = true));
  while (!isOver) {
    const began = Date.now();
    expect((await request.get(`${baseURL}/api/students`)).status()).toBe(200);
    slowest = Math.max(slowest, Date.now() - began);
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
  const answer = await looking;
  expect(answer.status()).toBe(415);
  expect(((await answer.json()) as { message: string }).message).toMatch(/no end is found in it/);
  expect(slowest).toBeLessThan(2000);

  await chooseFile(page, { name: 'film.webm', mimeType: 'video/webm', buffer: endlessFilm() });
  await expect(page.getByText('no end is found in it')).toBeVisible({ timeout: 12_000 });
});

test('damaged words of a film’s tables are answered at once', async ({
  page,
  request,
  baseURL,
}) => {
  const student = await addStudent(page, 'Damaged Words');
  const whole = readFileSync(demoClip('cross-clean.mp4'));
  const tables = partsOf(whole, false).filter(({ name }) => /^(st|ct|co|el)/.test(name));
  for (const { name, from, to, isMaster } of tables) {
    if (isMaster) continue;
    for (let at = from; at + 4 <= Math.min(to, from + 24); at += 4) {
      const film = Buffer.from(whole);
      film.writeUInt32BE(0x80000001, at);
      const began = Date.now();
      const answer = await post(request, baseURL!, student, film, { name: `${name}-${at}.mp4` });
      expect([200, 201, 415], `${name} at ${at}`).toContain(answer.status());
      expect(Date.now() - began, `${name} at ${at}`).toBeLessThan(10_000);
    }
  }
  for (let seed = 0; seed < 20; seed++) {
    const { film } = damaged(shortFilm('fragmented'), false, seeded(seed));
    const answer = await post(request, baseURL!, student, film, { name: `f-${seed}.mp4` });
    expect([200, 201, 400, 415], String(seed)).toContain(answer.status());
  }
});

test('what is stored is sent as a film and as nothing else', async ({ page, request, baseURL }) => {
  const student = await addStudent(page, 'Sent As Film');
  const added = await post(request, baseURL!, student, readFileSync(demoClip('cross-clean.mp4')));
  const { id } = (await added.json()) as { id: string };
  const database = new Database(join(dataOf('main'), 'sinew.db'));
  database.prepare("update clip set mime_type = 'text/html' where id = ?").run(id);
  database.close();
  const answer = await request.get(`${baseURL}/api/clips/${id}/file`);
  const headers = answer.headers();
  expect(headers['content-type']).toBe('application/octet-stream');
  expect(headers['x-content-type-options']).toBe('nosniff');
  expect(headers['content-security-policy']).toContain('sandbox');
  expect(
    createHash('sha256')
      .update(await answer.body())
      .digest('hex'),
  ).toBe(
    createHash('sha256')
      .update(readFileSync(demoClip('cross-clean.mp4')))
      .digest('hex'),
  );
});

test('every kind of answer carries its headers, and data are for their owner only', async ({
  page,
  request,
  baseURL,
}) => {
  await page.goto('/');
  const script = await page.locator('script[src]').first().getAttribute('src');
  for (const [at, policy] of [
    ['/', "connect-src 'self'"],
    ['/gym', "frame-ancestors 'none'"],
    ['/nothing-here', "frame-ancestors 'none'"],
    ['/api/students', "default-src 'none'"],
    [script!, "connect-src 'self'"],
    ['/tracker/vision_wasm_module_internal.js', "connect-src 'self'"],
    ['/simulated-camera.mp4', "default-src 'none'"],
    ['/recovery', "default-src 'none'"],
  ] as const) {
    const headers = (await request.get(baseURL + at)).headers();
    expect(headers['content-security-policy'], at).toContain(policy);
    expect(headers['content-security-policy'], at).toContain("frame-ancestors 'none'");
    expect(headers['x-content-type-options'], at).toBe('nosniff');
    expect(headers['referrer-policy'], at).toBe('same-origin');
    expect(headers['cross-origin-resource-policy'], at).toBe('same-origin');
  }
  const mode = (name: string) => (statSync(join(dataOf('main'), name)).mode & 0o777).toString(8);
  expect([mode('.'), mode('clips'), mode('sinew.db')]).toEqual(['700', '700', '600']);
});
