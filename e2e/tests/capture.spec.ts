/** Filming where there is no camera: the simulated one, and what is said of the others. */
import { expect } from '@playwright/test';
import { benchIsOpen, isSaved, shows } from '../support/bench';
import {
  checkLine,
  film,
  fileOnBench,
  openCapture,
  probed,
  recordButton,
  useSimulatedCamera,
} from '../support/capture';
import { addressOf } from '../support/config';
import { addStudent, isAccessible } from '../support/gym';
import { test } from '../support/test';

test('a take filmed with the simulated camera is checked, kept, and split into strikes', async ({
  page,
}) => {
  await addStudent(page, 'Simulated Student');
  await openCapture(page);
  // No camera is plugged in: said so, with a way on.
  await expect(
    page.getByRole('alert').filter({ hasText: /no camera on this machine/ }),
  ).toBeVisible();
  await expect(recordButton(page)).toBeDisabled();
  await page.getByRole('button', { name: 'Use the simulated camera' }).click();
  await expect(recordButton(page)).toBeEnabled();

  // Counted, not believed, and held against the question.
  await expect(checkLine(page, 'rate')).toContainText(/\d\d frames a second/);
  await page.getByLabel(/How fast does it arrive/).check();
  await expect(page.locator('[data-view=side]')).toHaveAttribute('data-answer', 'measured');
  await expect(page.locator('[data-view=front]')).toHaveAttribute('data-answer', 'hidden');
  await page.keyboard.press('1');
  await expect(page).toHaveURL(/view=side.*|question=speed/);
  await page.keyboard.press('m');
  await expect(page.getByLabel('Camera, mirrored')).toBeVisible();
  await isAccessible(page);

  // Longer than the made-up film, so that each of its strikes is in the take once in whole;
  // at the ends one may be cut before it is heard.
  await film(page, 9);
  await expect(checkLine(page, 'rate')).toContainText(/How fast does it arrive/, {
    timeout: 60_000,
  });
  await expect(checkLine(page, 'sound')).toContainText(/There is sound/);
  await expect(
    page.getByRole('heading', { name: /strikes?, (each one|\d+ of them) heard/ }),
  ).toBeVisible();
  await isAccessible(page);

  await page.keyboard.press('Enter');
  await benchIsOpen(page);
  const { format, streams } = probed(await fileOnBench(page));
  const video = streams.find((one) => one.codec_type === 'video')!;
  expect(video.codec_name).toBe('h264');
  expect(Number(format.duration)).toBeGreaterThan(5);
  expect(Number(video.nb_frames)).toBeGreaterThan(100);
  expect(streams.some((one) => one.codec_type === 'audio')).toBe(true);

  // Strikes are taken and refused with one key each.
  const found = page.locator('[data-proposal]');
  await expect(found).toBeVisible();
  let refused = 0;
  for (; !/A hit is heard/.test(await found.innerText()); refused++) {
    const number = await found.getAttribute('data-proposal');
    await page.keyboard.press('x');
    await expect(found).not.toHaveAttribute('data-proposal', number!);
  }
  const first = Number(await found.getAttribute('data-heart'));
  expect(first).toBeGreaterThan(0);
  await shows(page, first);
  await page.keyboard.press('y');
  await expect(page.getByRole('button', { name: /^Strike 1: Cross/ })).toBeVisible();
  await expect(page.locator('[data-event=contact]')).toHaveAttribute('data-frame', String(first));
  await expect(page.locator('[data-heard=hit]').first()).toBeAttached();
  // A busy machine keeps few frames, and the take may hold no other strike.
  if (await found.isVisible()) {
    const number = await found.getAttribute('data-proposal');
    await page.keyboard.press('x');
    refused++;
    await expect(page.locator(`[data-proposal="${number}"]`)).toHaveCount(0);
  }
  await isSaved(page);
  await page.reload();
  await benchIsOpen(page);
  await expect(page.getByRole('button', { name: /^Strike 1: Cross/ })).toBeVisible();
  await page.getByRole('tab', { name: 'Film' }).click();
  await expect(page.getByText(/^Heard: /)).toContainText(
    refused > 0 ? `Set aside as no strike: ${refused}` : 'breath',
  );
  await isAccessible(page);
  await page.getByRole('tab', { name: 'Set-up' }).click();
  await isAccessible(page);
});

test('a student who has not agreed is not filmed', async ({ page }) => {
  await page.goto('/students/new');
  await page.getByLabel('Name').fill('Not Asked Yet');
  await page.getByLabel('Born on').fill('1996-03-14');
  await page.getByRole('button', { name: 'Add the student' }).click();
  await page.waitForURL(/\/students\/(?!new)/);
  const id = page.url().split('/').pop()!;
  await page.goto(`/capture?student=${id}`);
  await expect(page.getByText(/Not Asked Yet cannot be filmed yet/)).toBeVisible();
  await expect(recordButton(page)).toHaveCount(0);
});

test('a take for which the server has no room stays in the browser', async ({ page }) => {
  const base = addressOf('fullDisk');
  await page.goto(`${base}/students/new`);
  await page.getByLabel('Name').fill('No Room');
  await page.getByLabel('Born on').fill('1996-03-14');
  await page.getByRole('button', { name: 'Add the student' }).click();
  await page.waitForURL(/\/students\/(?!new)/);
  await page.getByRole('button', { name: 'Record consent' }).click();
  await expect(page.getByText(/^Consent: given/)).toBeVisible();
  await openCapture(page);
  await page.getByRole('button', { name: 'Use the simulated camera' }).click();
  await expect(recordButton(page)).toBeEnabled();
  await film(page, 2);
  await page.getByRole('button', { name: /Keep it/ }).click();
  await expect(
    page.getByRole('alert').filter({ hasText: /disk is full.*still in this browser/ }),
  ).toBeVisible();
  await page.reload();
  await expect(page.getByText('A take was not finished')).toBeVisible();
  await page.getByRole('button', { name: 'Look at it' }).click();
  await expect(page.getByRole('button', { name: /Keep it/ })).toBeEnabled();
  await page.keyboard.press('r');
  await useSimulatedCamera(page);
  await page.reload();
  await expect(recordButton(page)).toBeVisible();
  await expect(page.getByText('A take was not finished')).toBeHidden();
});

test('the browser’s own disk running full ends the take and keeps what was recorded', async ({
  page,
}) => {
  await addStudent(page, 'Full Browser');
  await openCapture(page);
  await useSimulatedCamera(page);
  const cdp = await page.context().newCDPSession(page);
  const origin = new URL(page.url()).origin;
  await cdp.send('Storage.overrideQuotaForOrigin', { origin, quotaSize: 400_000 });
  await page.keyboard.press('Space');
  await expect(page.getByRole('alert').filter({ hasText: /disk is full/ })).toBeVisible({
    timeout: 40_000,
  });
  await cdp.send('Storage.overrideQuotaForOrigin', { origin });
});
