/** A take from two sides: brought, joined by its sound, calibrated, and read in metres. */
import { expect, type Page } from '@playwright/test';
import { DEMO_TAKE, hitsOf, type TakeFilm } from '@sinew/fighters/film/takes';
import { eventFrames, matSeen, placedIn } from '@sinew/fighters/film/takeTruth';
import { project } from '@sinew/fighters/film/camera';
import { benchIsOpen, clickFilm, dragFilm, isSaved, stepTo } from '../support/bench';
import { addStudent, chooseFile, demoClip } from '../support/gym';
import { test } from '../support/test';

const [side, front] = DEMO_TAKE.films as [TakeFilm, TakeFilm];

async function bring(page: Page, file: string, view: string): Promise<void> {
  await chooseFile(page, demoClip(file));
  const section = page.getByRole('region', { name: file });
  await section.getByLabel('Filmed').selectOption({ label: view });
  await section.getByRole('button', { name: 'Add the clip' }).click();
}

async function markMat(page: Page, film: TakeFilm): Promise<void> {
  const { corners, width, depth } = matSeen(DEMO_TAKE, film);
  await page.keyboard.press('r');
  for (const corner of corners) await clickFilm(page, corner);
  await page.getByLabel('From corner 1 to corner 2').fill(String(width).replace('.', ','));
  await page.getByLabel('From corner 2 to corner 3').fill(String(depth));
  await page.getByRole('button', { name: 'Set the rectangle' }).click();
}

/** To the other film, at the same moment. */
async function swap(page: Page): Promise<void> {
  const from = new URL(page.url()).pathname;
  await page.keyboard.press('v');
  await page.waitForURL((url) => url.pathname !== from);
  await benchIsOpen(page);
}

test('two films of one take become one body', async ({ page }) => {
  test.setTimeout(180_000);
  await addStudent(page, 'Two Cameras');
  await bring(page, 'take-side.mp4', 'From the side');
  await benchIsOpen(page);
  await page.getByRole('link', { name: 'Two Cameras' }).click();
  await page.waitForURL(/\/students\//);
  await bring(page, 'take-front.mp4', 'From the target');
  await benchIsOpen(page);

  await test.step('calibrated by a taped rectangle, and kept for the next time', async () => {
    await markMat(page, front);
    await page.getByRole('tab', { name: 'Set-up' }).click();
    await expect(page.locator('[data-camera-found]')).toContainText(/The camera stood \d\.\d m/);
    await page.getByLabel('Name of this camera set-up').fill('Front corner');
    await page.getByRole('button', { name: 'Keep', exact: true }).click();
    await expect(page.getByText('Kept as “Front corner”.')).toBeVisible();
    await isSaved(page);
  });

  await page.getByRole('link', { name: 'Two Cameras' }).click();
  await page.getByRole('link', { name: 'take-side.mp4' }).click();
  await benchIsOpen(page);
  await markMat(page, side);

  await test.step('the ruler reads metres back from the slanting picture', async () => {
    // A metre upright in the middle of the mat, where the student stands.
    const [foot, top] = [0.3, 1.3].map((height) => project(side.camera, [0.1, height, 0]));
    await page.keyboard.press('m');
    await dragFilm(page, foot!, top!);
    const label = await page.locator('svg text').filter({ hasText: '±' }).textContent();
    const [cm, half] = /([\d.]+) ± ([\d.]+) cm/.exec(label!)!.slice(1).map(Number);
    expect(Math.abs(cm! - 100)).toBeLessThan(3);
    expect(Math.abs(cm! - 100)).toBeLessThan(half!);
    await page.keyboard.press('Escape');
  });

  await test.step('joined by the sound of the hits', async () => {
    await page.getByRole('tab', { name: 'Film' }).click();
    await page.getByLabel('Clip of the same take').selectOption({ index: 1 });
    await page.getByRole('button', { name: 'Join by sound' }).click({ timeout: 60_000 });
    const says = page.getByText(/Its clock runs/);
    await expect(says).toBeVisible({ timeout: 60_000 });
    const [, seconds, half] = /runs ([\d.]+) s behind .* ± ([\d.]+) ms/.exec(
      (await says.textContent())!,
    )!;
    const error = Math.abs(Number(seconds) - (front.starts - side.starts));
    expect(error).toBeLessThan(Number(half) / 1000);
    expect(Number(half)).toBeLessThan(5);
  });

  await test.step('the strikes are found where they land', async () => {
    const truth = hitsOf(DEMO_TAKE).map(({ time }) => Math.round(time * side.rate));
    const slider = page.getByRole('slider', { name: 'Frame' });
    for (const [index, frame] of truth.entries()) {
      await expect(page.locator(`[data-proposal="${index + 1}"]`)).toBeVisible();
      await expect
        .poll(async () => Math.abs(Number(await slider.getAttribute('aria-valuenow')) - frame))
        .toBeLessThanOrEqual(1);
      await page.keyboard.press('y');
    }
    await expect(page.locator('[data-companion]')).toHaveCount(1);
    await isSaved(page);
  });

  await test.step('a point placed in both films is measured in space', async () => {
    await page.getByRole('button', { name: /^Strike 2/ }).click();
    const place = async (film: TakeFilm) => {
      const { contact } = eventFrames(DEMO_TAKE, film, 1);
      for (const frame of [contact - 4, contact]) {
        await stepTo(page, frame);
        const [point] = placedIn(DEMO_TAKE, film, [frame], ['rightWrist']);
        await page.keyboard.press('p');
        await page.getByLabel('Point to place').selectOption('rightWrist');
        await clickFilm(page, point!);
        await page.keyboard.press('Escape');
      }
      await isSaved(page);
    };
    await place(side);
    await page.getByRole('tab', { name: 'Film' }).click();
    await expect(page.getByText(/No point is placed in both films/)).toBeVisible();
    await swap(page);
    // The other bench has strikes of its own; its points count for this one's.
    await place(front);
    await swap(page);
    await page.getByRole('tab', { name: 'Film' }).click();
    await expect(page.getByText('1 point is measured in space.')).toBeVisible();
  });
});
