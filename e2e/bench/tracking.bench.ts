/** Body tracking: a frame against the bare model, from drop to finding, memory, and a long take. */
import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { scratchFolder } from '@sinew/demo/scratch';
import { test, type Page } from '@playwright/test';
import { trackerBrowser } from '@sinew/demo/accuracy/tracked';
import { benchIsOpen } from '../support/bench';
import { addStudent, chooseFile, demoClip } from '../support/gym';
import { memoryOf } from '../support/memory';

const PATIENCE = { timeout: 1_500_000 };
const CLIP = { file: 'cross-jammed.mp4', frames: 279, seconds: 279 / 240 };

async function drop(page: Page, file: string): Promise<void> {
  await chooseFile(page, file);
  await page.getByLabel('It shows').selectOption({ label: 'Cross' });
  await page.getByRole('button', { name: 'Add the clip' }).click();
  await benchIsOpen(page);
}

test('a strike of a little more than a second at 240 a second', async ({ page, browser }) => {
  test.setTimeout(600_000);
  const alone = await trackerBrowser();
  const bare = await alone.bare(demoClip(CLIP.file), 'standard', 60);
  await alone.close();

  await addStudent(page, 'Tracked Once');
  const dropped = performance.now();
  await drop(page, demoClip(CLIP.file));
  let first = 0;
  let last = 0;
  page.on('request', (request) => {
    if (!/detections$/.test(request.url()) || request.method() !== 'POST') return;
    first ||= performance.now();
    last = performance.now();
  });
  const held: number[] = [];
  const fault = page.getByRole('heading', { name: 'Too close for this punch.' });
  let found = 0;
  const bar = page.getByLabel('Body tracking in the background');
  await bar.waitFor();
  while (await bar.isVisible()) {
    held.push(await memoryOf(browser));
    if (!found && (await fault.isVisible())) found = performance.now();
    await page.waitForTimeout(1000);
  }
  // The first parcel holds 24 frames that are counted with the loading of the model.
  const each = (last - first) / (CLIP.frames - 24);
  const seconds = ((found || performance.now()) - dropped) / 1000;
  console.log(
    `the model alone ${bare.toFixed(0)} ms a picture, in the app ${each.toFixed(0)} ms a frame ` +
      `(${(each / bare).toFixed(2)} ×); from drop to finding ${seconds.toFixed(0)} s, ` +
      `${(seconds / CLIP.seconds).toFixed(0)} × the clip; browser at most ${Math.max(...held).toFixed(0)} MB`,
  );
});

test('a take of a minute at 30 a second', async ({ page, browser }) => {
  test.setTimeout(1_800_000);
  const path = join(scratchFolder('take'), 'minute.mp4');
  const args = ['-y', '-loglevel', 'error', '-stream_loop', '-1', '-i', demoClip('take-side.mp4')];
  spawnSync('ffmpeg', [...args, '-t', '60', '-r', '30', '-c:v', 'libx264', path]);
  await addStudent(page, 'Tracked Long');
  const dropped = performance.now();
  await drop(page, path);
  const held: number[] = [];
  const bar = page.getByLabel('Body tracking in the background');
  await bar.waitFor();
  while (await bar.isVisible()) {
    held.push(await memoryOf(browser));
    await page.waitForTimeout(2000);
  }
  await page.getByRole('tab', { name: 'Body', exact: true }).click();
  const said = await page.getByText(/The body was found in \d+ frames/).innerText(PATIENCE);
  const seconds = (performance.now() - dropped) / 1000;
  console.log(
    `${/\d+ frames/.exec(said)![0]} of 1800 tracked in ${seconds.toFixed(0)} s; ` +
      `browser at most ${Math.max(...held).toFixed(0)} MB`,
  );
});
