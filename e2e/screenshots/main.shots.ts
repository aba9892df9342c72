/** The pictures of `docs/screenshots`, one per main view, from the made-up gym. */
import { fileURLToPath } from 'node:url';
import { test, type Page } from '@playwright/test';
import { benchIsOpen, shows } from '../support/bench';

const shot = async (page: Page, name: string) => {
  await page.evaluate(() => document.fonts.ready);
  await page.mouse.move(0, 0);
  await page.screenshot({
    path: fileURLToPath(new URL(`../../docs/screenshots/${name}.png`, import.meta.url)),
  });
};

async function openBench(page: Page, student: string, clip: string): Promise<void> {
  await page.goto('/');
  await page.getByRole('link', { name: student }).click();
  await page.getByRole('link', { name: clip }).click();
  await benchIsOpen(page);
}

test('screenshots', async ({ page }) => {
  await page.goto('/');
  await page.getByText('Six students').waitFor();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('ArrowDown');
  await shot(page, 'floor');

  await page.getByRole('link', { name: 'Maren Voss' }).click();
  await page.getByText('Choose clips').waitFor();
  await shot(page, 'student');

  await openBench(page, 'Maren Voss', 'cross-all-at-once.mp4');
  await page.goto(`${page.url().split('?')[0]}?frame=167`);
  await benchIsOpen(page);
  await shows(page, 167);
  await shot(page, 'bench');
  await page.getByRole('tab', { name: 'Readings' }).click();
  await shot(page, 'bench-readings');

  await openBench(page, 'Tobiah Renn', 'lead-hook-slap.mp4');
  await page.goto(`${page.url().split('?')[0]}?frame=160`);
  await benchIsOpen(page);
  await shows(page, 160);
  await page.keyboard.press('p');
  await shot(page, 'bench-above');

  await openBench(page, 'Perrin Oake', 'cross-clean.mp4');
  await page.getByRole('button', { name: 'Round kick' }).waitFor();
  await shot(page, 'bench-strikes');

  await page.goto('/');
  await page.getByRole('link', { name: 'Maren Voss' }).click();
  await page.getByRole('link', { name: 'Card to print' }).click();
  await page.getByRole('button', { name: 'Print' }).waitFor();
  await shot(page, 'card');
});
