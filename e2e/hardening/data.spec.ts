/** A gym whose database is lost, damaged or newer, or whose clock is wrong: nothing goes, and it is said. */
import { readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import Database from 'better-sqlite3';
import { expect, type Page } from '@playwright/test';
import {
  filmsIn,
  freshGym,
  startServer,
  timesMaintained,
  type OwnServer,
} from '../support/ownServer';
import { isAccessible } from '../support/gym';
import { test } from '../support/test';

let server: OwnServer | null = null;
test.afterEach(async () => {
  await server?.stop();
  server = null;
});

const restarted = async (data: string, clockDays = 0) => {
  await server?.stop();
  server = await startServer(data, clockDays);
  return server;
};

/** The first maintenance is over when its backup is there. */
async function maintained(page: Page, url: string): Promise<void> {
  await page.goto(`${url}/gym`);
  const backup = page.getByRole('region', { name: 'Backups' }).getByRole('listitem').first();
  await expect(async () => {
    await page.reload();
    await expect(backup).toBeVisible({ timeout: 1000 });
  }).toPass();
}

const losing = (data: string) => {
  for (const end of ['', '-wal', '-shm']) rmSync(join(data, `sinew.db${end}`), { force: true });
};

test('a lost database takes no film with it, and its backup brings everybody back', async ({
  page,
}) => {
  const data = freshGym();
  const first = await restarted(data);
  await maintained(page, first.url);
  const films = filmsIn(join(data, 'clips')).length;
  await first.stop();
  losing(data);
  const swept = timesMaintained(data);
  const { url } = await restarted(data);
  await page.goto(url);
  const said = page
    .getByRole('alert')
    .filter({ hasText: 'The gym is empty, but its films are here' });
  await expect(said).toBeVisible();
  await isAccessible(page);
  // The sweep at the start is what once emptied the folder.
  await expect.poll(() => timesMaintained(data)).toBeGreaterThan(swept);
  expect(filmsIn(join(data, 'clips'))).toHaveLength(films);
  await said.getByRole('link', { name: 'See the backups' }).click();
  const backups = page.getByRole('region', { name: 'Backups' }).getByRole('listitem');
  // The newest is the empty gym's own.
  await backups.last().getByRole('button', { name: 'Go back to it' }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Go back' }).click();
  await expect(page.getByText('The gym is as it was.')).toBeVisible();
  await page.goto(url);
  await expect(page.getByRole('row').filter({ hasText: 'Maren Voss' })).toBeVisible();
  await expect(said).toBeHidden();
});

test('a clock that runs 400 days ahead takes nothing; confirmed, what is due goes', async ({
  page,
}) => {
  const data = freshGym();
  const database = new Database(join(data, 'sinew.db'));
  const inTwoMonths = new Date(Date.now() + 60 * 86_400_000).toISOString().slice(0, 10);
  database.prepare("update consent set expires_on = ? where name like 'Maren%'").run(inTwoMonths);
  database.close();
  const first = await restarted(data);
  await maintained(page, first.url);
  const films = filmsIn(join(data, 'clips')).length;
  // A backup is listed once its database is there; its films follow one by one.
  await expect.poll(() => filmsIn(join(data, 'backups')).length).toBe(films);

  const swept = timesMaintained(data);
  const ahead = await restarted(data, 400);
  await page.goto(ahead.url);
  const asked = page.getByRole('alert').filter({ hasText: /^Is today / });
  await expect(asked).toContainText('2 films whose consent has ended');
  await isAccessible(page);
  await expect.poll(() => timesMaintained(data)).toBeGreaterThan(swept);
  expect(filmsIn(join(data, 'clips'))).toHaveLength(films);
  expect(filmsIn(join(data, 'backups'))).toHaveLength(films);

  // Set right, it asks nothing.
  const right = await restarted(data);
  await page.goto(right.url);
  await expect(page.getByRole('row').filter({ hasText: 'Maren Voss' })).toBeVisible();
  await expect(asked).toBeHidden();

  // And when the day has truly come, the coach's word is enough.
  const later = await restarted(data, 61);
  await page.goto(later.url);
  await asked.getByRole('button', { name: /^Yes, it is/ }).click();
  await expect(page.getByText('What was due has been done.')).toBeVisible();
  await expect(asked).toBeHidden();
  expect(filmsIn(join(data, 'clips'))).toHaveLength(films - 2);
  expect(filmsIn(join(data, 'backups'))).toHaveLength(films - 2);
});

test('a damaged database gives way to a page that needs none, on every address', async ({
  page,
}) => {
  const data = freshGym();
  const first = await restarted(data);
  await maintained(page, first.url);
  await first.stop();
  const whole = readFileSync(join(data, 'sinew.db'));
  losing(data);
  writeFileSync(join(data, 'sinew.db'), whole.subarray(0, whole.length / 3));
  const { url } = await restarted(data);
  for (const address of ['/', '/gym', '/students/anybody', '/bench/anything']) {
    const answer = await page.goto(url + address);
    expect(answer!.status(), address).toBe(503);
    await expect(page.getByRole('heading', { level: 1 })).toHaveText(
      'The gym’s database is damaged.',
    );
  }
  await isAccessible(page);
  const [saved] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'Save what is there' }).click(),
  ]);
  expect(saved.suggestedFilename()).toMatch(/^sinew-database-.*\.zip$/);
  const api = await page.request.get(`${url}/api/students`);
  expect([api.status(), ((await api.json()) as { message: string }).message]).toEqual([
    503,
    expect.stringContaining('cannot be opened'),
  ]);
  await page.getByRole('button', { name: 'Go back to it' }).first().click();
  await expect(page.getByRole('row').filter({ hasText: 'Maren Voss' })).toBeVisible();
});

test('a gym of a newer Sinew is left alone', async ({ page }) => {
  const data = freshGym();
  const database = new Database(join(data, 'sinew.db'));
  database.prepare("insert into kysely_migration values ('0099-later', '2099')").run();
  database.pragma('journal_mode = DELETE');
  database.close();
  const before = readFileSync(join(data, 'sinew.db'));
  const { url } = await restarted(data);
  await page.goto(url);
  await expect(page.getByRole('heading', { level: 1 })).toHaveText(
    'The gym was last open in a newer Sinew.',
  );
  await expect(page.getByText('There is no backup')).toBeVisible();
  expect(readFileSync(join(data, 'sinew.db')).equals(before)).toBe(true);
});

test('an address that cannot be read is none, for pages and for what they ask', async ({
  request,
}) => {
  for (const path of [
    '/api/clips/%ff/bench',
    '/api/clips/%ff/file',
    '/api/strikes/%ff/set',
    '/api/students/%ff/ledger',
    '/bench/%ff',
    '/bench/%00',
    '/students/%ff/ledger',
    '/compare?a=%ff&b=%ff',
    '/api/clips/..%2f..%2fsinew.db/file',
  ]) {
    expect((await request.get(path)).status(), path).toBe(404);
  }
});
