/** From the bench to the student's own phone: drawn on, looked at closely, made into something to send. */
import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { scratchFolder } from '@sinew/demo/scratch';
import { expect, type Download, type Page } from '@playwright/test';
import { benchIsOpen, canvas, clickFilm, dragFilm, isSaved, shows, stepTo } from '../support/bench';
import { addStudent, isAccessible } from '../support/gym';
import { marked } from '../support/marked';
import { test } from '../support/test';

const folder = scratchFolder('review');
async function saved(download: Download): Promise<string> {
  const path = join(folder, download.suggestedFilename());
  await download.saveAs(path);
  return path;
}
/** What Debian's ffprobe says of a file's only stream. */
function probed(path: string): Record<string, string> {
  const asked = 'stream=codec_name,width,height,nb_read_frames,duration';
  const { stdout, status, stderr } = spawnSync(
    'ffprobe',
    ['-v', 'error', '-count_frames', '-show_entries', asked, '-of', 'default=nw=1', path],
    { encoding: 'utf8' },
  );
  expect(status, stderr).toBe(0);
  return Object.fromEntries(
    stdout
      .trim()
      .split('\n')
      .map((line) => line.split('=')),
  ) as Record<string, string>;
}
const drawings = (page: Page) => page.locator('[data-drawing]');

test('a coach draws on the strike, and it is there tomorrow, in the file too', async ({ page }) => {
  const student = await addStudent(page, 'Drawn On');
  const clip = await marked(page, student, 'cross-all-at-once.mp4');
  await page.goto(`/bench/${clip}`);
  await benchIsOpen(page);
  // A bench opens at contact, with every phase named over the lanes.
  const contact = Number(await canvas(page).getAttribute('data-frame'));
  expect(contact).toBe(
    Number(await page.locator('[data-event=contact]').getAttribute('data-frame')),
  );
  for (const phase of ['Load', 'Explode', 'Accelerate', 'Follow-through', 'Recover']) {
    await expect(page.locator('[data-phase] text').filter({ hasText: phase })).toBeVisible();
  }

  await page.keyboard.press('i');
  await dragFilm(page, { x: 300, y: 200 }, { x: 500, y: 300 });
  await page.getByLabel('What to draw').selectOption('words');
  await clickFilm(page, { x: 100, y: 100 });
  await page.getByLabel('Words').fill('Wait for the hips');
  await page.keyboard.press('Enter');
  await page.keyboard.press('Escape');
  await expect(drawings(page)).toHaveCount(2);
  await page.keyboard.press('ArrowRight');
  await expect(drawings(page)).toHaveCount(0);
  await isSaved(page);
  await page.reload();
  await benchIsOpen(page);
  await stepTo(page, contact);
  await expect(drawings(page)).toHaveCount(2);
  await expect(page.locator('[data-drawn]')).toHaveAttribute('data-drawn', String(contact));

  const [picture] = await Promise.all([
    page.waitForEvent('download'),
    page.keyboard.press('Shift+S'),
  ]);
  const file = await saved(picture);
  expect(probed(file)).toMatchObject({ codec_name: 'png', width: '1280', height: '720' });
  const [lines] = await Promise.all([
    page.waitForEvent('download'),
    (async () => {
      await page.keyboard.press('Control+k');
      await page.keyboard.type('as SVG');
      await page.keyboard.press('Enter');
    })(),
  ]);
  const svg = await page.context().newPage();
  await svg.goto(pathToFileURL(await saved(lines)).href);
  await expect(svg.getByText('Wait for the hips')).toBeVisible();
  await svg.close();

  await drawings(page).filter({ hasText: 'Wait for the hips' }).locator('text').click();
  await page.keyboard.press('Delete');
  await expect(drawings(page)).toHaveCount(1);
  await page.keyboard.press('Control+z');
  await expect(drawings(page)).toHaveCount(2);
  await isSaved(page);
  await isAccessible(page);
});

test('a phase is played round and round, at the speed the coach wants', async ({ page }) => {
  const student = await addStudent(page, 'Looped');
  const clip = await marked(page, student, 'cross-in-order.mp4');
  await page.goto(`/bench/${clip}`);
  await benchIsOpen(page);
  const at = async (event: string) =>
    Number(await page.locator(`[data-event=${event}]`).getAttribute('data-frame'));
  const [trunk, contact] = [await at('trunk'), await at('contact')];
  await page.getByRole('button', { name: '1 of true speed' }).click();
  await page.locator('[data-phase=accelerate] text').click();
  const seen = new Set<number>();
  for (let i = 0; i < 40; i++) {
    await page.waitForTimeout(50);
    seen.add(
      Number(await page.getByRole('slider', { name: 'Frame' }).getAttribute('aria-valuenow')),
    );
  }
  // A second and more at true speed of a phase of a fifth of one: it has gone round, and never left it.
  expect(Math.min(...seen)).toBeGreaterThanOrEqual(trunk - 1);
  expect(Math.max(...seen)).toBeLessThanOrEqual(contact + 1);
  expect(seen.size).toBeGreaterThan(3);
  await page.getByRole('button', { name: 'Stop going round in Accelerate' }).click();
  await page.keyboard.press(' ');
  await shows(
    page,
    Number(await page.getByRole('slider', { name: 'Frame' }).getAttribute('aria-valuenow')),
  );
});

test('what is sent home needs consent of its own, and opens anywhere without a network', async ({
  page,
  browser,
}) => {
  test.slow();
  const student = await addStudent(page, 'Sent Home');
  const clip = await marked(page, student, 'cross-all-at-once.mp4');
  await page.goto(`/bench/${clip}`);
  await benchIsOpen(page);
  await expect(page.getByRole('heading', { name: 'Hips and trunk leave together.' })).toBeVisible();
  // Three keys as fast as a coach presses them: none waits for what the one before has saved, none
  // is lost. Without consent the last ends at the question for it.
  await page.keyboard.press('Enter');
  await page.keyboard.press('u');
  await page.keyboard.press('Shift+R');
  await page.waitForURL(/card#review$/);
  await expect(page.getByText(/cannot be called back/)).toBeVisible();
  await expect(page.getByRole('button', { name: 'Make the review' })).toBeHidden();
  await isAccessible(page);
  await page.getByRole('button', { name: 'It may be sent home' }).click();

  const save = page.getByRole('button', { name: /^Save the page/ });
  await expect(save).toBeVisible({ timeout: 60_000 });
  const [film] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: /^Save the film/ }).click(),
  ]);
  const { codec_name, width, height, nb_read_frames, duration } = probed(await saved(film));
  expect([codec_name, width]).toEqual(['h264', '1280']);
  expect(Number(height)).toBeGreaterThan(720);
  expect(Number(duration)).toBeGreaterThan(10);
  expect(Number(duration)).toBeLessThan(30);
  expect(Math.abs(Number(nb_read_frames) - 30 * Number(duration))).toBeLessThanOrEqual(1);

  const [lesson] = await Promise.all([page.waitForEvent('download'), save.click()]);
  const path = await saved(lesson);
  const home = await browser.newContext({ offline: true, viewport: { width: 390, height: 844 } });
  const phone = await home.newPage();
  const asked: string[] = [];
  phone.on('request', (request) => asked.push(request.url()));
  await phone.goto(pathToFileURL(path).href);
  await expect(phone.getByText('Hips leave first; the hand is late on purpose.')).toBeVisible();
  const length = () => phone.locator('video').evaluate((one: HTMLVideoElement) => one.duration);
  await expect.poll(length).toBeCloseTo(Number(duration), 0);
  expect(await phone.evaluate(() => document.documentElement.scrollWidth)).toBe(390);
  await isAccessible(phone);
  const box = phone.getByRole('checkbox').first();
  await box.check();
  await phone.reload();
  await expect(box).toBeChecked();
  expect(asked.filter((one) => !/^(file|data|blob):/.test(one))).toEqual([]);
  await home.close();

  // Withdrawn in another window meanwhile: nothing more is made.
  const other = await page.context().newPage();
  await other.goto(`/students/${student}/card`);
  await other.getByRole('button', { name: 'Withdraw' }).click();
  await expect(other.getByText(/Nothing more is sent/)).toBeVisible();
  await other.close();
  await page.reload();
  await expect(page.getByRole('button', { name: 'It may be sent home' })).toBeVisible();
});

/** A microphone that hums, where the browser of a test has none. */
const humming = () => {
  navigator.mediaDevices.getUserMedia = async () => {
    const device = new AudioContext();
    const [hum, out] = [device.createOscillator(), device.createMediaStreamDestination()];
    hum.connect(out);
    hum.start();
    return out.stream;
  };
};

test('a coach talks over the strike: what is looked at, drawn and said is one film, on the card', async ({
  page,
}) => {
  test.slow();
  const student = await addStudent(page, 'Talked Over');
  const clip = await marked(page, student, 'cross-all-at-once.mp4');
  await page.goto(`/bench/${clip}`);
  await benchIsOpen(page);
  await expect(page.getByRole('heading', { name: 'Hips and trunk leave together.' })).toBeVisible();
  // Without a microphone nothing is recorded, and it is said what to do.
  await page.keyboard.press('Shift+T');
  await expect(page.getByText(/^No microphone/)).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: 'Talk' })).toBeVisible();
  await isSaved(page);

  await page.evaluate(humming);
  await page.keyboard.press('Shift+T');
  const talking = page.getByRole('status', { name: 'Talking over the strike' });
  const seconds = async () =>
    Number((await talking.locator('[data-seconds]').innerText()).split(':')[1]);
  await expect.poll(seconds).toBeGreaterThan(0);
  await isAccessible(page);
  await stepTo(page, 120);
  await page.keyboard.press('+');
  await expect.poll(seconds).toBeGreaterThan(4);
  await page.keyboard.press('Shift+T');
  const dialog = page.getByRole('dialog', { name: 'What you said over it' });
  await expect(dialog.locator('video')).toBeVisible();
  await dialog.getByRole('button', { name: 'Keep it' }).click();
  await expect(page.getByText('Kept: what you said of this cross.')).toBeVisible();

  // Said again, the first words give way only to a coach who says so.
  await page.keyboard.press('Shift+T');
  await expect(talking).toBeVisible();
  await expect.poll(seconds).toBeGreaterThan(3);
  await page.keyboard.press('Shift+T');
  await dialog.getByRole('button', { name: 'Keep it' }).click();
  await expect(dialog.getByRole('alert')).toContainText('has talked over this strike before');
  await dialog.getByRole('button', { name: 'Put it in its place' }).click();
  await expect(dialog).toBeHidden();
  await page.goto(`/students/${student}`);
  await page.getByRole('link', { name: /^Hear what was said, 0:\d\d/ }).click();
  const film = page.getByLabel('What was said over it');
  const length = () => film.evaluate((one: HTMLVideoElement) => one.duration);
  await expect.poll(length).toBeGreaterThan(3.5);
  await isAccessible(page);
  await page.getByRole('button', { name: 'It may be sent home' }).click();
  await expect(page.getByLabel(/^With what .* said over it/)).toBeChecked();
  await page.getByRole('button', { name: 'Make the review' }).click();
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: /^Save the film/ }).click({ timeout: 60_000 }),
  ]);
  const path = await saved(download);
  const ask = [
    '-v',
    'error',
    '-show_entries',
    'stream=codec_type,duration',
    '-of',
    'csv=p=0',
    path,
  ];
  const streams = spawnSync('ffprobe', ask, { encoding: 'utf8' }).stdout.trim().split('\n');
  const lengths = new Map(streams.map((line) => line.split(',') as [string, string]));
  const [seen, heard] = ['video', 'audio'].map((type) => Number(lengths.get(type)));
  expect(seen).toBeCloseTo(await length(), 0);
  expect(Math.abs(seen! - heard!)).toBeLessThan(0.5);

  await page.getByRole('button', { name: 'Delete' }).first().click();
  await expect(film).toBeHidden();

  // Gone elsewhere while talking: nothing said is lost.
  await page.goto(`/bench/${clip}`);
  await benchIsOpen(page);
  await page.evaluate(humming);
  await page.keyboard.press('Shift+T');
  await expect.poll(seconds).toBeGreaterThan(1);
  await page.getByRole('link', { name: 'Floor' }).click();
  await expect(
    page.getByText('You left the bench: what you said of this cross is kept.'),
  ).toBeVisible();
});

test('a note on a strike is found again among the films of the gym', async ({ page }) => {
  const student = await addStudent(page, 'Noted Down');
  const clip = await marked(page, student, 'cross-all-at-once.mp4');
  await page.goto(`/bench/${clip}`);
  await benchIsOpen(page);
  await page.keyboard.press('Shift+N');
  await expect(page.getByLabel('Note on this strike')).toBeFocused();
  await page.keyboard.type('breath held on the way in #Sparring');
  await page.keyboard.press('Enter');
  await isSaved(page);

  await page.keyboard.press('Control+k');
  await page.keyboard.type('breath held');
  await page.getByRole('option', { name: 'Films: “breath held”' }).click();
  await expect(page.getByRole('heading', { name: 'One film.' })).toBeVisible();
  await expect(page.getByText('breath held on the way in')).toBeVisible();
  await isAccessible(page);
  await page.getByRole('button', { name: '#sparring' }).click();
  await expect(page.getByRole('searchbox')).toHaveValue('#sparring');
  await page.keyboard.press('Escape');
  await page.getByRole('searchbox').fill('noted cros nothing');
  await expect(page.getByRole('heading', { name: 'No film of which that is said.' })).toBeVisible();
  await page.getByRole('searchbox').fill('noted cros');
  await expect(page.getByRole('heading', { name: 'One film.' })).toBeVisible();
  await page.getByRole('link', { name: 'Cross', exact: true }).click();
  await benchIsOpen(page);
});
