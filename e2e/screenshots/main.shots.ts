/** The pictures of `docs/screenshots`, one per main view, from the made-up gym. */
import { fileURLToPath } from 'node:url';
import { test, type Page } from '@playwright/test';
import { benchIsOpen, shows } from '../support/bench';

const shot = async (page: Page, name: string) => {
  await page.evaluate(() => document.fonts.ready);
  await page.mouse.move(0, 0);
  // Films are drawn small as they come into sight, one after the other.
  await page.waitForFunction(() =>
    [...document.querySelectorAll('[data-thumb=waiting]')].every(
      (one) => one.getBoundingClientRect().top > innerHeight,
    ),
  );
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
  test.setTimeout(400_000);
  // The take that is left half-way for its picture.
  await page.addLocatorHandler(
    page.getByRole('dialog', { name: 'A take was not finished' }),
    (dialog) => dialog.getByRole('button', { name: 'Throw it away' }).click(),
  );
  await page.goto('/');
  await page.getByText('Seven students').waitFor();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('ArrowDown');
  await shot(page, 'floor');

  await page.getByRole('link', { name: 'Maren Voss' }).click();
  await page.getByText('Choose clips').waitFor();
  await page.getByRole('link', { name: 'Trend' }).waitFor();
  await shot(page, 'student');

  await openBench(page, 'Maren Voss', 'cross-all-at-once.mp4');
  await page.goto(`${page.url().split('?')[0]}?frame=167`);
  await benchIsOpen(page);
  await shows(page, 167);
  await shot(page, 'bench');
  await page.setViewportSize({ width: 390, height: 844 });
  await shot(page, 'phone');
  await page.setViewportSize({ width: 1280, height: 800 });

  await openBench(page, 'Ragna Sorn', 'take-side.mp4');
  await page.locator('[data-proposal]').waitFor({ timeout: 60_000 });
  await page.keyboard.press('z');
  await page.keyboard.press('g');
  await page.locator('canvas[data-second="118"]').waitFor();
  await shot(page, 'bench-take');
  for (const number of [1, 3, 4]) {
    await page.locator(`[data-proposal="${number}"]`).waitFor();
    await page.getByLabel('It is a').selectOption(number === 3 ? 'jab' : 'cross');
    await page.keyboard.press('y');
  }
  await page.getByRole('button', { name: /^Strike 2/ }).click();
  await page.getByRole('tab', { name: 'Set', exact: true }).click();
  await page
    .getByText(/^Shows in/)
    .first()
    .waitFor({ timeout: 60_000 });
  await shot(page, 'bench-set');
  await page.getByRole('tab', { name: 'What-if' }).click();
  await page.getByLabel('trunk starts later').fill('45');
  await page.getByLabel('shoulder starts later').fill('80');
  await page.getByText(/% more momentum/).waitFor({ timeout: 60_000 });
  await shot(page, 'bench-what-if');
  await page.getByRole('tab', { name: 'Eye' }).click();
  for (const key of ['q', 'q', 'e', 'a']) await page.keyboard.press(key);
  await shot(page, 'bench-eye');
  for (let i = 0; i < 4; i++) await page.keyboard.press('Control+z');
  await openBench(page, 'Perrin Oake', 'cross-bands.mp4');
  await page
    .getByRole('heading', { name: 'Hips and trunk leave together.' })
    .waitFor({ timeout: 60_000 });
  await shows(page, 84);
  await shot(page, 'bench-bands');
  await page.goto('/');
  await page.getByRole('link', { name: 'Perrin Oake' }).click();
  await page.getByText('Choose clips').waitFor();
  await page.keyboard.press('f');
  await page.getByRole('button', { name: 'Use the simulated camera' }).click();
  await page.locator('[data-check=light]').waitFor();
  await page.keyboard.press('Space');
  await page.getByRole('timer').waitFor({ timeout: 10_000 });
  await page.waitForTimeout(1500);
  await shot(page, 'capture');
  await page.goto('/library');
  await page.getByRole('button', { name: 'All at once' }).click();
  await shot(page, 'library');

  await page.goto('/');
  await page.getByRole('link', { name: 'Maren Voss' }).click();
  await page.getByText('Choose clips').waitFor();
  await page.keyboard.press('w');
  await page.getByText(/strikes this week/).waitFor();
  await shot(page, 'work');
  await page.getByRole('link', { name: 'Ledger' }).click();
  await page.getByText('Filmed alike').waitFor();
  await shot(page, 'ledger');
  await page
    .getByRole('row')
    .filter({ hasText: '0 ± 3 ms' })
    .getByRole('link', { name: 'compare with the newest' })
    .click();
  await page.locator('[data-second]').nth(1).waitFor();
  await page.getByLabel('Time from contact').fill('-0.15');
  await page.waitForTimeout(1500);
  await shot(page, 'compare');
  await page.getByRole('link', { name: 'Card' }).click();
  await page.waitForURL(/card/);
  await page.locator('canvas[data-second]').waitFor();
  await shot(page, 'card');

  await page.goto('/plan');
  await page.getByText('Today, in the order you walk').waitFor();
  await shot(page, 'plan');
  await page.goto('/gym');
  await page.getByText('The gym as one file').waitFor();
  // Not where this machine happens to keep it.
  await page
    .locator('code')
    .first()
    .evaluate((path) => (path.textContent = '~/.sinew/backups'));
  await shot(page, 'gym');
  await page.goto('/timer');
  await page.getByRole('button', { name: 'Start' }).click();
  await page.getByRole('button', { name: 'Next' }).click();
  await page.getByText(/^\d(-\d)+/).waitFor();
  await shot(page, 'timer');

  await page.setViewportSize({ width: 390, height: 844 });
  await page.goto('/phone');
  await page.getByRole('link', { name: 'Perrin Oake' }).click();
  await page.getByLabel('They show').selectOption({ label: 'Cross' });
  await page.getByRole('link', { name: 'Film a set' }).click();
  await page.getByRole('button', { name: 'Use the simulated camera' }).click();
  await page.getByRole('button', { name: 'Film a set', exact: true }).click();
  await page.getByText(/^Hit \d+\. (Hips|Other hand)/).waitFor({ timeout: 60_000 });
  // The replay of the newest hit is half-way out.
  await page.waitForTimeout(1500);
  await shot(page, 'mat');
});
