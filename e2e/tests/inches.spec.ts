/** A gym that thinks in inches: nothing that anybody reads is left in centimetres. */
import { expect, type Page } from '@playwright/test';
import { benchIsOpen } from '../support/bench';
import { freshGym, startServer, type OwnServer } from '../support/ownServer';
import { test } from '../support/test';

let server: OwnServer | null = null;
test.afterEach(() => server?.stop());

/** A number and a metric unit, or a day before its month. */
const METRIC = /\d ?(cm|m\/s|kg|m)\b|\b\d{1,2} (Jan|Feb|Mar|Apr|May|Jun|Jul|Aug|Sep|Oct|Nov|Dec)\b/;

async function readsInInches(page: Page): Promise<void> {
  const main = page.locator('main').first();
  await expect(main).toBeVisible();
  const drawn = await main
    .locator('svg text, [aria-label]')
    .evaluateAll((all) => all.map((one) => one.getAttribute('aria-label') ?? one.textContent));
  const lines = [...(await main.innerText()).split('\n'), ...drawn];
  // The way to write days that was not chosen stands among the ways.
  const left = lines.filter((line) => METRIC.test(line) && line !== '25 Nov 2026');
  expect(left, page.url()).toEqual([]);
}

test('inches and pounds, and the month first, on every screen and in every field', async ({
  page,
}) => {
  test.setTimeout(240_000);
  server = await startServer(freshGym());
  const { url } = server;
  await page.goto(`${url}/gym`);
  await page.getByLabel('Measures').selectOption({ label: 'inches, pounds' });
  await page.getByLabel('Days').selectOption({ label: 'Nov 25, 2026' });
  await page.getByRole('button', { name: 'Keep', exact: true }).first().click();
  await expect(page.locator('html')).toHaveAttribute('data-measures', 'inches');
  await readsInInches(page);

  await page.goto(url);
  await page.getByRole('link', { name: 'Maren Voss' }).click();
  await page.waitForURL(/\/students\//);
  const student = page.url();
  await expect(page.getByText(/\d in, \d+ lb/)).toBeVisible();
  for (const at of ['', '/work', '/ledger', '/tests', '/card']) {
    await page.goto(student + at);
    await page.waitForLoadState('networkidle');
    await readsInInches(page);
  }
  for (const at of ['/', '/films', '/plan', '/library']) {
    await page.goto(url + at);
    await page.waitForLoadState('networkidle');
    await readsInInches(page);
  }

  await page.goto(`${student}/edit`);
  const height = page.getByLabel('Height, in');
  const before = await height.inputValue();
  await page.getByLabel('Grade').fill('second class');
  await page.getByRole('button', { name: 'Save' }).click();
  await page.waitForURL(student);
  await page.goto(`${student}/edit`);
  // Saved again it has not moved.
  await expect(height).toHaveValue(before);

  await page.goto(`${student}/tests`);
  await page.getByLabel('Standing, how far, ft', { exact: true }).fill('20');
  await page.getByLabel('Seated, how far, ft', { exact: true }).fill('15');
  await page.getByRole('button', { name: 'Keep the test' }).click();
  await expect(page.getByText('The test is kept.')).toBeVisible();

  await page.goto(student);
  await page.getByRole('link', { name: 'cross-all-at-once.mp4' }).first().click();
  await benchIsOpen(page);
  for (const name of ['Readings', 'Film', 'Leaks']) {
    await page.getByRole('tab', { name }).click();
    await readsInInches(page);
  }
});
