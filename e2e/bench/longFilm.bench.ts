/** Going through a film of ten minutes: how long it takes, and what memory it needs. */
import { test } from '@playwright/test';
import { addStudent, chooseFile } from '../support/gym';
import { longFilm } from '../support/films';
import { memoryOf } from '../support/memory';

test('a film of ten minutes, 720p, 30 frames a second', async ({ page, browser }) => {
  test.setTimeout(900_000);
  await addStudent(page, 'Long Film');
  await chooseFile(page, longFilm(600));
  await page.getByRole('button', { name: 'Add the clip' }).waitFor({ timeout: 60_000 });
  const start = performance.now();
  const held: number[] = [];
  const done = page.locator('[data-check=rate]');
  while ((await done.count()) === 0) {
    await page.waitForTimeout(2000);
    held.push(await memoryOf(browser));
  }
  const seconds = (performance.now() - start) / 1000;
  const [first, most] = [held[1] ?? held[0]!, Math.max(...held)];
  console.log(
    `gone through in ${seconds.toFixed(0)} s; memory of the browser ${first.toFixed(0)} MB after ` +
      `4 s, ${most.toFixed(0)} MB at most`,
  );
});
