/** A film of ten minutes: gone through in the background, in bounded memory, and called off. */
import { expect } from '@playwright/test';
import { benchIsOpen } from '../support/bench';
import { longFilm } from '../support/films';
import { addStudent, chooseFile } from '../support/gym';
import { memoryOf } from '../support/memory';
import { test } from '../support/test';

/** Megabytes by which the browser may grow while the film goes by; the film is 90 MB, its frames 24 GB. */
const GROWTH = 250;

test('ten minutes of 720p are gone through with time left, little memory, and a way out', async ({
  page,
  browser,
}) => {
  test.setTimeout(150_000);
  await addStudent(page, 'Ten Minutes');
  await chooseFile(page, longFilm(600));
  const check = page.getByRole('progressbar', { name: 'Film check' });
  await expect(check).toBeVisible({ timeout: 60_000 });
  await expect(page.getByText(/\d+ (s|min) left/)).toBeVisible({ timeout: 60_000 });
  const early = await memoryOf(browser);
  const share = Number(await check.getAttribute('value'));
  await expect
    .poll(async () => Number(await check.getAttribute('value')), { timeout: 60_000 })
    .toBeGreaterThan(share + 5);
  expect((await memoryOf(browser)) - early).toBeLessThan(GROWTH);

  await page.getByRole('button', { name: 'Cancel' }).click();
  await expect(check).toBeHidden();
  await page.getByRole('button', { name: 'Add the clip' }).click();
  await benchIsOpen(page);
  await page.getByRole('tab', { name: 'Film' }).click();
  const again = page.getByRole('progressbar', { name: 'Film check' });
  await expect(again).toBeVisible();
  await page.getByRole('button', { name: 'Cancel' }).click();
  await expect(page.getByText(/has not been gone through/)).toBeVisible();
  await page.getByRole('button', { name: 'Go through it' }).click();
  await expect(again).toBeVisible();
});
