/** Worn bands: printed to scale, typed in, and what one phone then tells without a click. */
import { expect } from '@playwright/test';
import { DEMO_CLIPS } from '@sinew/fighters/film/clips';
import { girthsAt } from '@sinew/fighters/film/wornBands';
import { addStudent, chooseFile, demoClip, isAccessible } from '../support/gym';
import { benchIsOpen } from '../support/bench';
import { test } from '../support/test';

test.setTimeout(240_000);
const PATIENCE = { timeout: 150_000 };
const FILM = DEMO_CLIPS.find((clip) => clip.look.bands)!;
/** Pixels of a screen and of a page a millimetre, by CSS. */
const PX = 96 / 25.4;

test('bands are printed to scale, on as many sheets as go round', async ({ page }) => {
  const student = await addStudent(page, 'Printing Bands');
  await page.getByRole('link', { name: 'Bands' }).click();
  await page.waitForURL(/\/bands$/);
  await expect(page.locator('[data-sheet]')).toHaveCount(4);
  await isAccessible(page);

  for (const [paper, width, height] of [
    ['A4', 297, 210],
    ['Letter', 279.4, 215.9],
  ] as const) {
    await page.getByRole('link', { name: paper, exact: true }).click();
    await page.waitForURL(new RegExp(`paper=${paper.toLowerCase()}`));
    await page.emulateMedia({ media: 'print' });
    const bar = await page.locator('[data-band=hips] [data-bar]').nth(3).boundingBox();
    expect(bar!.width / PX).toBeCloseTo(30, 1);
    expect(bar!.height / PX).toBeCloseTo(70, 1);
    // As drawn, without the width of its pen.
    const ruler = await page
      .locator('[data-ruler]')
      .first()
      .evaluate((path: SVGPathElement) => path.getBBox().width * path.getCTM()!.a);
    expect(ruler / PX).toBeCloseTo(100, 1);
    const pdf = (await page.pdf({ preferCSSPageSize: true })).toString('latin1');
    expect(pdf.match(/\/Type\s*\/Page\b/g)).toHaveLength(4);
    const [, w, h] = /MediaBox \[0 0 ([\d.]+) ([\d.]+)\]/.exec(pdf)!;
    expect((Number(w) / 72) * 25.4).toBeCloseTo(width, 0);
    expect((Number(h) / 72) * 25.4).toBeCloseTo(height, 0);
    await page.emulateMedia({ media: 'screen' });
  }

  await page.getByLabel('Hips, cm').fill('12');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('The hips’ band goes 40 to 200 centimetres round.')).toBeVisible();
  await page.goto(`/students/${student}/bands`);
  await page.getByLabel('Hips, cm').fill('104,5');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByRole('status')).toContainText('Kept');
  // 104.5 cm ask for a fifth sheet.
  await expect(page.locator('[data-sheet]')).toHaveCount(5);
});

test.describe('found by itself', () => {
  test.use({ looksForBodies: true });

  test('one phone and two bands: from a dropped film to who moved first, without a click', async ({
    page,
  }) => {
    const student = await addStudent(page, 'Wearing Bands');
    const { hips, ribs } = girthsAt(FILM.recipe.height);
    await page.goto(`/students/${student}/bands`);
    await page.getByLabel('Hips, cm').fill(String(Math.round(100 * hips)));
    await page.getByLabel('Ribs, cm').fill(String(Math.round(100 * ribs)));
    await page.getByRole('button', { name: 'Save' }).click();
    await expect(page.getByRole('status')).toContainText('Kept');

    await page.goto(`/students/${student}`);
    await chooseFile(page, demoClip(FILM.file));
    await page.getByLabel('It shows').selectOption({ label: 'Cross' });
    await page.getByLabel('Filmed').selectOption({ label: 'From behind' });
    await page.getByRole('button', { name: 'Add the clip' }).click();
    await benchIsOpen(page);

    await expect(page.getByRole('heading', { name: 'Hips and trunk leave together.' })).toBeVisible(
      PATIENCE,
    );
    await expect(page.getByRole('listitem').filter({ hasText: 'All at once' })).toContainText(
      /The trunk starts \d+ ± \d+ ms before the hips\..*\(off the bands\)/,
    );
    for (const link of ['pelvis', 'trunk']) {
      await expect(page.locator(`[data-rests-on=${link}]`)).toHaveText('bands');
    }
    await page.getByRole('tab', { name: 'Body', exact: true }).click();
    const section = page.getByRole('region', { name: 'Bands' });
    await expect(section).toContainText(/Hips: read in/);
    await expect(section).toContainText(/Ribs: read in/);
  });
});
