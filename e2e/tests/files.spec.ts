import { readdirSync, readFileSync, existsSync } from 'node:fs';
import { join } from 'node:path';
import { expect } from '@playwright/test';
import { benchIsOpen } from '../support/bench';
import { addressOf, type Server } from '../support/config';
import { encode, foreignCodec, soundOnly } from '../support/films';
import { addStudent, chooseFile, dataOf, demoClip, post } from '../support/gym';
import { test } from '../support/test';

const demo = readFileSync(demoClip('cross-clean.mp4'));
const half = demo.subarray(0, demo.length / 2);
/** The list of frames at the end of the file is lost when it is cut. */
const withoutIndex = () => {
  const film = encode('late.mp4', 60, 60, ['-c:v', 'libx264', '-pix_fmt', 'yuv420p']);
  return film.subarray(0, film.length * 0.8);
};

const BAD: [string, () => Buffer, RegExp][] = [
  ['an empty file', () => Buffer.alloc(0), /empty/],
  ['text renamed to .mp4', () => Buffer.from('not a film at all\n'.repeat(50)), /not a video file/],
  [
    'a film cut in half',
    () => half,
    /cut short: it lists 279 frames, but only the first \d+ are there/,
  ],
  ['a film without its list of frames', withoutIndex, /cut short|not a video file/],
  ['a code no browser plays', foreignCodec, /coded as|cannot decode/],
  ['sound without a picture', soundOnly, /only sound/],
];

/** Files of the data folder: kept clips, and what is left of transfers. */
function filesOf(server: Server) {
  const list = (folder: string) => {
    const path = join(dataOf(server), folder);
    return existsSync(path)
      ? readdirSync(path, { recursive: true })
          .map(String)
          .filter((one) => /\w{20}/.test(one))
      : [];
  };
  return { kept: list('clips').sort(), incoming: list('incoming') };
}

test('files that cannot be used are refused in plain words, before and after the transfer', async ({
  page,
  request,
  baseURL,
}) => {
  const student = await addStudent(page, 'Bad Files');
  const before = filesOf('main');
  for (const [name, make, message] of BAD) {
    await test.step(name, async () => {
      const buffer = make();
      await chooseFile(page, { name: 'film.mp4', mimeType: 'video/mp4', buffer });
      const alert = page.getByRole('alert').filter({ hasText: message });
      await expect(alert).toBeVisible();
      await page.getByRole('button', { name: 'Leave it out' }).click();
      await expect(alert).toBeHidden();
      const answer = await post(request, baseURL!, student, buffer);
      expect(answer.status(), name).toBeGreaterThanOrEqual(400);
      expect(((await answer.json()) as { message: string }).message).toMatch(/\w+.*\./);
    });
  }
  expect(filesOf('main')).toEqual(before);
  await page.reload();
  await expect(page.getByText('No clip yet.')).toBeVisible();
});

test('the same file twice is one clip for a student and one file on disk for two', async ({
  page,
}) => {
  await addStudent(page, 'First Twin');
  const kept = filesOf('main').kept;
  for (let i = 0; i < 2; i++) {
    await chooseFile(page, demoClip('cross-clean.mp4'));
    await page.getByRole('button', { name: 'Add the clip' }).click();
    await benchIsOpen(page);
    await page.getByRole('link', { name: 'First Twin' }).click();
    await expect(page.getByRole('link', { name: 'cross-clean.mp4' })).toHaveCount(1);
  }
  await addStudent(page, 'Second Twin');
  await chooseFile(page, demoClip('cross-clean.mp4'));
  await page.getByRole('button', { name: 'Add the clip' }).click();
  await benchIsOpen(page);
  // The made-up gym holds this very film already.
  expect(filesOf('main').kept).toEqual(kept);
  await page.getByRole('link', { name: 'Second Twin' }).click();
  await page.getByRole('listitem').getByRole('button', { name: 'Delete' }).click();
  await expect(page.getByText('No clip yet.')).toBeVisible();
  expect(filesOf('main').kept).toEqual(kept);
});

test('a slow-motion file is measured in the time in which it was shot', async ({ page }) => {
  await addStudent(page, 'Slow Motion');
  const buffer = encode('slow.mp4', 90, 30, ['-c:v', 'libx264', '-pix_fmt', 'yuv420p']);
  await chooseFile(page, { name: 'slow.mp4', mimeType: 'video/mp4', buffer });
  await page.getByLabel('The film runs').selectOption('slow');
  await page.getByLabel('Shot at, frames a second').fill('20');
  await expect(page.getByText('A number from 30 up')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Add the clip' })).toBeDisabled();
  await page.getByLabel('Shot at, frames a second').fill('240');
  await page.getByRole('button', { name: 'Add the clip' }).click();
  await benchIsOpen(page);
  await page.keyboard.press('End');
  await expect(page.getByText('of 89, 0.371 s, 240 per second')).toBeVisible();
});

test('a transfer can be cancelled and leaves nothing behind', async ({ page }) => {
  await addStudent(page, 'Cancelled');
  const before = filesOf('main');
  let release: () => void = () => undefined;
  const held = new Promise<void>((resolve) => (release = resolve));
  await page.route('**/api/clips?*', async (route) => {
    await held;
    await route.continue().catch(() => undefined);
  });
  await chooseFile(page, demoClip('lead-hook-slap.mp4'));
  await page.getByRole('button', { name: 'Add the clip' }).click();
  await page.getByRole('button', { name: 'Cancel' }).click();
  await expect(page.getByText('lead-hook-slap.mp4 was not added.')).toBeVisible();
  release();
  await page.unroute('**/api/clips?*');
  expect(filesOf('main')).toEqual(before);
});

test('a full disk refuses the clip and keeps what is there', async ({ page }) => {
  await page.goto(`${addressOf('fullDisk')}/students/new`);
  await page.getByLabel('Name').fill('Full Disk');
  await page.getByLabel('Born on').fill('1996-03-14');
  await page.getByRole('button', { name: 'Add the student' }).click();
  await page.getByRole('button', { name: 'Record consent' }).click();
  await chooseFile(page, demoClip('cross-clean.mp4'));
  await page.getByRole('button', { name: 'Add the clip' }).click();
  await expect(page.getByRole('alert').filter({ hasText: 'The disk is full' })).toBeVisible();
  expect(filesOf('fullDisk').incoming).toEqual([]);
});

test('a clip’s bytes are served in ranges, and only to Sinew’s own pages', async ({
  page,
  request,
  baseURL,
}) => {
  const student = await addStudent(page, 'Ranges');
  const added = await post(request, baseURL!, student, demo);
  const { id } = (await added.json()) as { id: string };
  const url = `${baseURL}/api/clips/${id}/file`;
  const get = (range?: string) => request.get(url, { headers: range ? { range } : {} });

  const part = await get('bytes=100-199');
  expect(part.status()).toBe(206);
  expect(part.headers()['content-range']).toBe(`bytes 100-199/${demo.length}`);
  expect((await part.body()).equals(demo.subarray(100, 200))).toBe(true);
  expect((await (await get('bytes=-50')).body()).equals(demo.subarray(-50))).toBe(true);
  expect((await get(`bytes=${demo.length}-`)).status()).toBe(416);
  expect((await (await get()).body()).equals(demo)).toBe(true);

  const foreign: Record<string, string>[] = [
    { origin: 'http://example.invalid' },
    { host: 'sinew.invalid' },
  ];
  for (const headers of foreign) {
    const refused = await request.get(url, { headers });
    expect(refused.status()).toBe(403);
  }
  expect((await request.get(baseURL!, { headers: { host: 'sinew.invalid' } })).status()).toBe(403);
  const none = await post(request, baseURL!, 'nobody', demo);
  expect(none.status()).toBe(400);
});

test('a file is gone through on its card, and the body in it says from where it was filmed', async ({
  page,
}) => {
  await addStudent(page, 'Seen Before');
  await chooseFile(page, demoClip('cross-bands.mp4'));
  const card = page.getByRole('region', { name: 'cross-bands.mp4' });
  const filmed = card.getByLabel('Filmed');
  await expect(filmed).toHaveValue('behind', { timeout: 60_000 });
  await expect(card.getByText('By the body in it, from behind.')).toBeVisible();

  const through = card.getByRole('slider', { name: 'Go through the film' });
  const picture = card.getByRole('img', { name: /^The film, frame/ });
  const pixels = () =>
    picture.evaluate((canvas: HTMLCanvasElement) => canvas.toDataURL('image/jpeg', 0.5));
  await through.focus();
  await through.press('Home');
  await expect(picture).toBeVisible();
  const first = await pixels();
  await through.press('End');
  await expect(picture).toHaveAccessibleName('The film, frame 139');
  await expect.poll(pixels).not.toBe(first);

  // What is declared and does not fit is said so; the coach’s word stands.
  await filmed.selectOption('above');
  await expect(card.getByText('This looks filmed from behind.')).toBeVisible();
  await card.getByRole('button', { name: 'Add the clip' }).click();
  await benchIsOpen(page);
  await expect(page.getByText('from above').first()).toBeVisible();
});
