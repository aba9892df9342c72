/** Filming with a camera: Chromium's made-up device, which gives a test picture and beeps. */
import { expect } from '@playwright/test';
import { benchIsOpen } from '../support/bench';
import {
  checkLine,
  film,
  fileOnBench,
  hasFilmed,
  openCapture,
  probed,
  recordButton,
} from '../support/capture';
import { flagsOf } from '../support/config';
import { addStudent } from '../support/gym';
import { test } from '../support/test';

test.use({
  launchOptions: {
    executablePath: '/usr/bin/chromium',
    args: [
      ...flagsOf(),
      '--use-fake-ui-for-media-stream',
      '--use-fake-device-for-media-stream',
      '--autoplay-policy=no-user-gesture-required',
    ],
  },
});

test('a camera is chosen, its rate counted, a take filmed again and kept', async ({ page }) => {
  await addStudent(page, 'Fake Camera');
  await openCapture(page);
  await expect(recordButton(page)).toBeEnabled();
  const cameras = page.getByLabel('Camera', { exact: true }).first().locator('option');
  await expect(cameras.filter({ hasText: /fake/i }).first()).toBeAttached();
  await expect(
    page.getByLabel('Microphone').locator('option').filter({ hasText: /fake/i }).first(),
  ).toBeAttached();
  // 60 were asked for; the device gives 20.
  await expect(checkLine(page, 'rate')).toContainText(/^poor20 frames a second/);

  await film(page, 2);
  await page.keyboard.press('r');
  await expect(recordButton(page)).toBeEnabled();
  await film(page, 3);
  await page.keyboard.press('Enter');
  await benchIsOpen(page);
  const { format, streams } = probed(await fileOnBench(page));
  expect(Number(format.duration)).toBeGreaterThan(2);
  expect(Number(format.duration)).toBeLessThan(6);
  expect(streams.map((one) => one.codec_type).sort()).toEqual(['audio', 'video']);
});

test('a tab closed while recording loses no more than its last moment', async ({
  page,
  context,
}) => {
  const student = await addStudent(page, 'Closed Tab');
  await openCapture(page);
  await expect(recordButton(page)).toBeEnabled();
  await page.keyboard.press('Space');
  await hasFilmed(page, 4);
  await page.close();

  const again = await context.newPage();
  await again.goto(`/capture?student=${student}`);
  await expect(again.getByText('A take was not finished')).toBeVisible();
  await again.getByRole('button', { name: 'Look at it' }).click();
  await again.getByRole('button', { name: /Keep it/ }).click();
  await benchIsOpen(again);
  const { format } = probed(await fileOnBench(again));
  expect(Number(format.duration)).toBeGreaterThan(2.5);
  await again.goto(`/capture?student=${student}`);
  await expect(recordButton(again)).toBeEnabled();
  await expect(again.getByText('A take was not finished')).toBeHidden();
});

test('a clap starts the count when it is asked to', async ({ page }) => {
  await addStudent(page, 'Clapping');
  await openCapture(page);
  await expect(recordButton(page)).toBeEnabled();
  // The device beeps once a second, sharply; without being asked to, nothing starts.
  await page.waitForFunction(() => (document.querySelector('video')?.currentTime ?? 0) > 2.5);
  await expect(recordButton(page)).toContainText('Film');
  await page.keyboard.press('c');
  await hasFilmed(page, 2);
  await page.keyboard.press('Space');
  await expect(page.getByRole('button', { name: /Film again/ })).toBeVisible();
});
