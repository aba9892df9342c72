/** The bench as a coach's hands use it. */
import { expect, type Page } from '@playwright/test';
import type { PixelPoint } from '@sinew/core/reconstruct/calibration/calibration';

export const canvas = (page: Page) => page.locator('canvas[data-frame]');

/** Wait until the picture shows a frame. */
export async function shows(page: Page, frame: number): Promise<void> {
  await expect(canvas(page)).toHaveAttribute('data-frame', String(frame));
}

export async function benchIsOpen(page: Page): Promise<void> {
  await page.waitForURL(/\/bench\//);
  await expect(canvas(page)).toHaveAttribute('data-frame', /\d+/);
}

/** Go to a frame with the keys, in steps of ten and of one. */
export async function stepTo(page: Page, frame: number): Promise<void> {
  const slider = page.getByRole('slider', { name: 'Frame' });
  let at = Number(await slider.getAttribute('aria-valuenow'));
  while (at !== frame) {
    const isFar = Math.abs(frame - at) >= 10;
    const key = frame > at ? 'ArrowRight' : 'ArrowLeft';
    await page.keyboard.press(isFar ? `Shift+${key}` : key);
    at += (isFar ? 10 : 1) * (frame > at ? 1 : -1);
  }
  await shows(page, frame);
}

/** Screen position of a pixel of the film. */
export async function onScreen(page: Page, { x, y }: PixelPoint): Promise<PixelPoint> {
  const box = (await canvas(page).boundingBox())!;
  const size = await canvas(page).evaluate((c: HTMLCanvasElement) => [c.width, c.height]);
  return { x: box.x + (x / size[0]!) * box.width, y: box.y + (y / size[1]!) * box.height };
}

export async function clickFilm(page: Page, at: PixelPoint): Promise<void> {
  const { x, y } = await onScreen(page, at);
  await page.mouse.click(x, y);
}

export async function dragFilm(page: Page, from: PixelPoint, to: PixelPoint): Promise<void> {
  const [a, b] = [await onScreen(page, from), await onScreen(page, to)];
  await page.mouse.move(a.x, a.y);
  await page.mouse.down();
  await page.mouse.move((a.x + b.x) / 2, (a.y + b.y) / 2);
  await page.mouse.move(b.x, b.y);
  await page.mouse.up();
}

export async function isSaved(page: Page): Promise<void> {
  await expect(page.getByRole('status').filter({ hasText: /^Saved$/ })).toBeVisible();
}

/** Everything the bench keeps of this clip, as the strip and the picture show it. */
export async function marksShown(page: Page): Promise<Record<string, string | null>> {
  return page
    .locator('[data-event]')
    .evaluateAll((all) =>
      Object.fromEntries(
        all.map((one) => [one.getAttribute('data-event')!, one.getAttribute('data-frame')]),
      ),
    );
}

export async function pointsShown(page: Page): Promise<string[]> {
  return page.locator('[data-landmark]').evaluateAll((all) =>
    all
      .map((one) => {
        const dot = one.querySelector('circle')!;
        return `${one.getAttribute('data-landmark')} ${dot.getAttribute('cx')} ${dot.getAttribute('cy')}`;
      })
      .sort(),
  );
}
