/** The lesson on the student's own phone, on the gym's network: a link from the card, ticks that reach the work. */
import { expect } from '@playwright/test';
import { isAccessible } from '../support/gym';
import { killAll, open, setUp } from '../support/openGym';
import { freshGym } from '../support/ownServer';
import { test } from '../support/test';

test.afterEach(killAll);

test('a student reads the lesson by a link, ticks a day, and the coach sees it; withdrawn, it is gone', async ({
  page,
  browser,
}) => {
  test.setTimeout(240_000);
  const gym = await open(freshGym());
  const { origin } = new URL(gym.address);
  const door = await setUp(page, gym);
  await page.goto(origin);
  await page.getByRole('link', { name: 'Maren Voss' }).click();
  await page.getByRole('link', { name: 'Card', exact: true }).click();
  await page.getByRole('button', { name: 'It may be sent home' }).click();
  await page.getByRole('button', { name: 'Make the review' }).click();
  await page.getByRole('button', { name: 'A link for their phone' }).click({ timeout: 90_000 });
  await expect(page.getByRole('img', { name: 'The address of this lesson' })).toBeVisible();
  const shown = await page.getByText(/^https:.*\/lesson\//).innerText();
  const address = door + new URL(shown).pathname;
  await expect(page.getByText(/A link works until .*not opened yet/)).toBeVisible();

  const context = await browser.newContext({
    viewport: { width: 390, height: 844 },
    isMobile: true,
    hasTouch: true,
    ignoreHTTPSErrors: true,
  });
  const phone = await context.newPage();
  const wrong: string[] = [];
  phone.on('console', (message) => message.type() === 'error' && wrong.push(message.text()));
  await phone.goto(address);
  await expect(phone.getByText('Hips leave first; the hand is late on purpose.')).toBeVisible();
  await expect
    .poll(() => phone.locator('video').evaluate((video: HTMLVideoElement) => video.duration))
    .toBeGreaterThan(5);
  await isAccessible(phone);
  const isWide = await phone.evaluate(() => document.documentElement.scrollWidth > innerWidth);
  expect(isWide).toBe(false);
  const box = phone.locator('[data-box]:not([disabled]):not(:checked)').first();
  const name = (await box.getAttribute('data-box'))!;
  const answered = phone.waitForResponse(/\/ticks$/);
  await box.check();
  expect((await answered).status()).toBe(200);
  await phone.reload();
  await expect(phone.locator(`[data-box="${name}"]`)).toBeChecked();
  // Nothing else of the gym is there for who has only this.
  await phone.goto(door);
  await expect(phone.getByRole('button', { name: 'Sign in' })).toBeVisible();
  expect(wrong).toEqual([]);

  await page.getByRole('link', { name: 'Work', exact: true }).click();
  await expect(page.getByText(/Worked on \d+ days?, ticked at home:/)).toBeVisible();
  await page.getByRole('link', { name: 'Card', exact: true }).click();
  await expect(page.getByText(/A link works until .*first opened/)).toBeVisible();
  await page.getByRole('button', { name: 'Withdraw the link' }).click();
  await expect(page.getByText('The link does not work any more.')).toBeVisible();
  expect((await phone.goto(address))!.status()).toBe(404);
  await expect(phone.getByText('This page is not there')).toBeVisible();
  await context.close();
});
