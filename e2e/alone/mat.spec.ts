/** A set at the mat on a phone: counted as it is heard, every hit seen again at once, and kept or thrown away. */
import { spawnSync } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect, test, type Page } from '@playwright/test';
import { EnvelopeMaker } from '@sinew/core/observe/sound/envelope';
import { findHits } from '@sinew/core/observe/sound/onsets';
import { scratchFolder } from '@sinew/demo/scratch';
import { benchIsOpen } from '../support/bench';
import { fileOnBench, probed } from '../support/capture';
import { addStudent, isAccessible } from '../support/gym';

test.use({ viewport: { width: 390, height: 844 }, hasTouch: true });

const hits = async (page: Page) => Number(await page.locator('[data-hits]').innerText());
const filmASet = (page: Page) => page.getByRole('button', { name: 'Film a set', exact: true });
const ended = (page: Page) => page.getByRole('button', { name: 'Stop', exact: true });

/** The mat of a new student, who throws crosses, with the simulated camera. */
async function atTheMat(page: Page, name: string): Promise<string> {
  const id = await addStudent(page, name);
  await page.goto(`/phone/${id}`);
  await page.getByLabel('They show').selectOption({ label: 'Cross' });
  await page.getByRole('link', { name: 'Film a set' }).tap();
  await expect(page.getByText(/no camera on this machine/)).toBeVisible();
  await page.getByRole('button', { name: 'Use the simulated camera' }).tap();
  await expect(filmASet(page)).toBeEnabled();
  return id;
}

const took = (page: Page, name: string) =>
  page.evaluate((of) => performance.getEntriesByName(of).map(({ duration }) => duration), name);

/** Debian's ffmpeg hears the same film. */
function heardIn(film: Buffer): number {
  const path = join(scratchFolder('heard'), 'set.mp4');
  writeFileSync(path, film);
  const args = ['-v', 'error', '-i', path, '-ac', '1', '-ar', '48000', '-f', 'f32le', '-'];
  const { stdout } = spawnSync('ffmpeg', args, { maxBuffer: 1 << 28 });
  const samples = new Float32Array(new Uint8Array(stdout).buffer);
  const maker = new EnvelopeMaker(48_000);
  maker.add(samples, 0);
  return findHits(maker.finish()).length;
}

/** Seconds for which the page does nothing else while it films. */
const BUSY = 1.5;

test('a set is filmed with one tap, every hit comes again within three seconds and is told, and the set is kept', async ({
  page,
}) => {
  test.setTimeout(180_000);
  const student = await atTheMat(page, 'At The Mat');
  await isAccessible(page);
  await filmASet(page).tap();
  await expect.poll(() => hits(page), { timeout: 30_000 }).toBeGreaterThan(1);
  await expect(page.getByRole('img', { name: /^Hit \d+, 4 times slower$/ })).toBeVisible();
  await isAccessible(page);
  const said = page.getByRole('status', { name: 'What was seen' });
  await expect(said).toHaveText(/^Hit \d+\. (Other hand, |Hips: |\d+ ± \d+ % of the reach).+\.$/, {
    timeout: 60_000,
  });
  await expect.poll(() => hits(page), { timeout: 60_000 }).toBeGreaterThan(4);
  // Hits may come faster than they can be shown slowly.
  const shown = async () => (await took(page, 'hit shown again')).length;
  await expect.poll(shown, { timeout: 60_000 }).toBeGreaterThan(2);
  expect(Math.max(...(await took(page, 'hit shown again')))).toBeLessThan(3000);
  await page.evaluate((busy) => {
    for (const until = performance.now() + busy; performance.now() < until;);
  }, 1000 * BUSY);
  const before = await hits(page);
  await expect.poll(() => hits(page), { timeout: 60_000 }).toBeGreaterThan(before);
  await ended(page).tap();
  await expect(page.getByRole('button', { name: 'Keep the set' })).toBeVisible();
  const counted = await hits(page);

  await page.getByRole('button', { name: 'Keep the set' }).tap();
  await expect(page.getByText('On the bench, whole and checked.')).toBeVisible({
    timeout: 60_000,
  });
  await page.goto(`/students/${student}`);
  await page
    .getByRole('link', { name: /^At The Mat .*\.mp4$/ })
    .first()
    .click();
  await benchIsOpen(page);
  const film = await fileOnBench(page);
  expect(
    probed(film)
      .streams.map((one) => one.codec_type)
      .sort(),
  ).toEqual(['audio', 'video']);
  // One at either end may be heard in the film only, or only before its sound was written.
  expect(Math.abs(counted - heardIn(film))).toBeLessThanOrEqual(1);
  await page.goto(`/phone/${student}/set`);
  await expect(page.getByText('unkept')).toBeHidden();
});

test('a set that nobody wants is gone with one tap, and one that a closed page left is offered', async ({
  page,
  context,
}) => {
  test.setTimeout(120_000);
  const student = await atTheMat(page, 'Not Wanted');
  await filmASet(page).tap();
  await expect.poll(() => hits(page), { timeout: 30_000 }).toBeGreaterThan(0);
  await ended(page).tap();
  await page.getByRole('button', { name: 'Throw it away' }).tap();
  await expect(filmASet(page)).toBeEnabled();
  await page.reload();
  await page.getByRole('button', { name: 'Use the simulated camera' }).tap();
  await expect(filmASet(page)).toBeEnabled();
  await expect(page.getByRole('dialog')).toBeHidden();

  // What happened just now is to be seen again also when nothing was heard.
  await filmASet(page).tap();
  await expect.poll(() => hits(page), { timeout: 30_000 }).toBeGreaterThan(0);
  await page.getByRole('button', { name: 'Just now, again' }).tap();
  await expect(page.getByRole('img', { name: 'Just now, 4 times slower' })).toBeVisible();
  await page.close();

  const later = await context.newPage();
  await later.goto(`/phone/${student}/set`);
  await expect(later.getByText('A take was not finished')).toBeVisible();
  await later.getByRole('button', { name: 'Look at it' }).tap();
  await later.getByRole('button', { name: 'Keep the set' }).tap();
  await expect(later.getByText('On the bench, whole and checked.')).toBeVisible({
    timeout: 60_000,
  });
});
