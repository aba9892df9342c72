import { readFileSync } from 'node:fs';
import { expect, type Page } from '@playwright/test';
import { writeTrc } from '@sinew/core/format/trc';
import { detectionOf } from '@sinew/core/observe/track/poseDetection';
import { clean, FAULT_CHANGES } from '@sinew/fighters/fighter/recipe';
import { knownTrack } from '@sinew/fighters/fighter/track';
import { benchIsOpen, dragFilm, isSaved, shows, stepTo } from '../support/bench';
import { decodeDetections, encodeDetections } from '@sinew/web/api/detectionBlob';
import { encode, sideBySide, thinned } from '../support/films';
import { addStudent, chooseFile, demoClip, isAccessible, post } from '../support/gym';
import { test } from '../support/test';

// A core or two without a graphics card find a body four to ten times a second.
test.setTimeout(240_000);
test.use({ looksForBodies: true });
const PATIENCE = { timeout: 150_000 };

/** Drop a film, say what it shows, and be on its bench. */
async function drop(
  page: Page,
  file: Parameters<typeof chooseFile>[1],
  technique: string,
): Promise<void> {
  await chooseFile(page, file);
  await page.getByLabel('It shows').selectOption({ label: technique });
  await page.getByRole('button', { name: 'Add the clip' }).click();
  await benchIsOpen(page);
}

const tab = (page: Page, name: string) => page.getByRole('tab', { name, exact: true }).click();

async function reading(page: Page, name: string): Promise<string> {
  await tab(page, 'Readings');
  return page.getByRole('row').filter({ hasText: name }).first().innerText();
}

test('from a dropped film to its first leak without a click, each thing automatic until confirmed; then a correction', async ({
  page,
}) => {
  await addStudent(page, 'Dropped Here');
  await drop(page, demoClip('cross-jammed.mp4'), 'Cross');
  const bar = page.getByLabel('Body tracking in the background');
  await expect(bar).toContainText('cross-jammed.mp4');

  await expect(page.getByRole('heading', { name: 'Too close for this punch.' })).toBeVisible(
    PATIENCE,
  );
  const asked = page.getByLabel('Found by Sinew');
  await expect(asked).toContainText('Automatic.');
  await expect(page.locator('[data-event=contact]')).toHaveAttribute('data-automatic', 'true');
  await expect(bar).toBeHidden(PATIENCE);
  await isAccessible(page);

  await test.step('doubts are listed, gone through by a key and settled by one', async () => {
    await tab(page, 'Body');
    const doubts = page.getByLabel('Doubtful points').getByRole('listitem');
    const count = await doubts.count();
    expect(count).toBeGreaterThan(0);
    await page.keyboard.press('d');
    await expect(page.getByLabel('Doubtful points').locator('[aria-pressed=true]')).toHaveCount(1);
    await page.keyboard.press('h');
    await expect(doubts).toHaveCount(count - 1);
    await page.keyboard.press('Control+z');
    await expect(doubts).toHaveCount(count);
  });

  await test.step('a point dragged changes the reading that rests on it, and is kept', async () => {
    const contact = Number(await page.locator('[data-event=contact]').getAttribute('data-frame'));
    await page.getByRole('slider', { name: 'Frame' }).focus();
    await stepTo(page, contact);
    const before = await reading(page, 'Reach used');
    // The one drawn on top first: they lie close together.
    for (const landmark of ['rightLittleKnuckle', 'rightIndexKnuckle']) {
      const dot = page.locator(`[data-landmark=${landmark}] circle`).first();
      const at = {
        x: Number(await dot.getAttribute('cx')),
        y: Number(await dot.getAttribute('cy')),
      };
      await dragFilm(page, at, { x: at.x + 60, y: at.y });
      await expect(page.locator(`[data-landmark=${landmark}]`)).toHaveAttribute(
        'data-kind',
        'placed',
      );
    }
    await expect.poll(() => reading(page, 'Reach used')).not.toBe(before);
    const after = await reading(page, 'Reach used');
    expect(Number(/(\d+)/.exec(after.replace(/^\D+/, ''))![1])).toBeGreaterThan(
      Number(/(\d+)/.exec(before.replace(/^\D+/, ''))![1]),
    );
    await isSaved(page);
    await page.reload();
    await shows(page, contact);
    expect(await reading(page, 'Reach used')).toBe(after);
  });

  await test.step('confirmed, it is the coach’s', async () => {
    await page.keyboard.press('y');
    await expect(asked).toBeHidden();
    await expect(page.locator('[data-event=contact]')).toHaveAttribute('data-automatic', 'false');
    await isSaved(page);
  });
});

test('tracking is paused, goes on after the tab was closed with what it had, and is given up', async ({
  page,
  context,
}) => {
  await addStudent(page, 'Broken Off');
  await page.evaluate(() => localStorage.setItem('sinew.tracking.model', 'quick'));
  await drop(page, thinned(demoClip('cross-clean.mp4'), 120), 'Cross');
  const address = page.url();
  await tab(page, 'Body');
  const status = page.getByRole('region', { name: 'Body tracking' }).getByRole('status');
  await expect(status).toContainText('frame by frame', PATIENCE);
  await page.waitForResponse((answer) => /detections$/.test(answer.url()) && answer.ok(), PATIENCE);
  await page
    .getByRole('region', { name: 'Body tracking' })
    .getByRole('button', { name: 'Pause' })
    .click();
  await expect(status).toContainText(/Paused\. \d+ frames/);
  const done = Number(/(\d+) frames/.exec(await status.innerText())![1]);
  expect(done).toBeGreaterThan(0);
  expect(done).toBeLessThan(140);

  await page.close();
  const again = await context.newPage();
  await again.goto(address);
  await benchIsOpen(again);
  await tab(again, 'Body');
  const own = again.getByRole('region', { name: 'Body tracking' });
  await expect(own.getByRole('status')).toContainText(`Paused. ${done} frames`);
  await own.getByRole('button', { name: 'Go on' }).click();
  await expect(own.getByRole('status')).toContainText(/The body was found in \d+ frames/, PATIENCE);
  const all = Number(/(\d+) frames/.exec(await own.getByRole('status').innerText())![1]);
  expect(all).toBeGreaterThan(done);

  await own.getByRole('button', { name: 'Find the body anew' }).click();
  await own.getByRole('button', { name: 'Stop looking' }).click();
  await expect(own.getByRole('button', { name: 'Find the body', exact: true })).toBeVisible();
  await expect(again.locator('[data-kind=tracked]')).toHaveCount(0);
});

test('of two people the one in the coach’s box is followed', async ({ page }) => {
  await addStudent(page, 'One Of Two');
  await page.evaluate(() => localStorage.setItem('sinew.tracking.model', 'quick'));
  const buffer = sideBySide(demoClip('cross-clean.mp4'), demoClip('cross-jammed.mp4'));
  await drop(page, { name: 'two.mp4', mimeType: 'video/mp4', buffer }, 'Cross');
  await tab(page, 'Body');
  const body = page.getByRole('region', { name: 'Body tracking' });
  await expect(body).toContainText('2 people are in the picture', PATIENCE);

  const xOf = async (landmark: string) =>
    Number(await page.locator(`[data-landmark=${landmark}] circle`).first().getAttribute('cx'));
  for (const [from, to] of [
    [660, 1270],
    [10, 620],
  ] as const) {
    await page.keyboard.press('b');
    await dragFilm(page, { x: from, y: 5 }, { x: to, y: 715 });
    await expect(body.getByRole('status')).toContainText(/Waiting|Looking|Finding|Going/);
    await expect(body.getByRole('status')).toContainText('The body was found', PATIENCE);
    await expect(page.locator('[data-landmark=nose]')).toBeAttached();
    await expect.poll(() => xOf('nose')).toBeGreaterThan(from);
    expect(await xOf('nose')).toBeLessThan(to);
    await expect(body).not.toContainText('people are in the picture');
  }
});

test('what is not a pose detection, a request or a series of this film is refused, and nothing is kept', async ({
  page,
  request,
  baseURL,
}) => {
  const student = await addStudent(page, 'Bad Detections');
  const clip = readFileSync(demoClip('cross-clean.mp4'));
  const { id } = (await (await post(request, baseURL!, student, clip)).json()) as { id: string };
  const at = `${baseURL}/api/clips/${id}`;
  const bytes = { 'content-type': 'application/octet-stream' };
  const one = encodeDetections([
    detectionOf(3, () => ({ x: 1, y: 1, visibility: 1, inSpace: [0, 0, 0] })),
  ]);

  const answers = [
    // Nobody has asked for tracking yet.
    [await request.post(`${at}/detections`, { data: Buffer.from(one), headers: bytes }), 404],
    [await request.put(`${at}/tracking`, { data: { kind: 'pause' } }), 404],
    [await request.put(`${at}/tracking`, { data: { kind: 'start', model: 'best' } }), 400],
    [await request.put(`${at}/tracking`, { data: 'start' }), 400],
    [
      await request.put(`${baseURL}/api/clips/none/tracking`, {
        data: { kind: 'start', model: 'quick', person: null },
      }),
      404,
    ],
    [await request.put(`${at}/series`, { data: { fileName: 'x', begins: 0, track: '{}' } }), 422],
    [await request.put(`${at}/series`, { data: { fileName: '', begins: 0, track: '{}' } }), 400],
  ] as const;
  for (const [answer, status] of answers) {
    expect(answer.status(), answer.url()).toBe(status);
    expect(((await answer.json()) as { message: string }).message).toMatch(/\w+.*\./);
  }

  await request.put(`${at}/tracking`, {
    data: { kind: 'start', model: 'quick', person: null },
  });
  for (const data of [Buffer.alloc(0), Buffer.from(one).subarray(0, 40), Buffer.from('no')]) {
    const answer = await request.post(`${at}/detections`, { data, headers: bytes });
    expect(answer.status()).toBe(400);
  }
  const flat = {
    sinew: 'track',
    version: 1,
    space: '2d',
    source: 'measured-2d',
    placingSigma: 1,
    scale: null,
    target: null,
    frameTimes: [0, 0.01],
    points: { nose: { frames: [0, 1], x: [1, 2], y: [1, 2], sigma: [1, 1] } },
  };
  const late = { fileName: 'late.json', begins: 900, track: JSON.stringify(flat) };
  const refused = await request.put(`${at}/series`, { data: late });
  expect(refused.status()).toBe(422);
  expect(await refused.text()).toContain('do not overlap in time');
  const kept = decodeDetections(await (await request.get(`${at}/detections`)).body());
  expect(kept).toEqual([]);
  await request.delete(`${at}/tracking`);
});

test('a film without a person says so, and what to do', async ({ page }) => {
  await addStudent(page, 'Nobody There');
  const buffer = encode('empty.mp4', 60, 120, ['-c:v', 'libx264', '-pix_fmt', 'yuv420p']);
  await drop(page, { name: 'empty.mp4', mimeType: 'video/mp4', buffer }, 'Jab');
  await tab(page, 'Body');
  await expect(
    page.getByRole('alert').filter({ hasText: 'No person was found in this film.' }),
  ).toBeVisible(PATIENCE);
  await expect(page.getByRole('button', { name: 'Box round the student' })).toBeVisible();
});

test('points from a laboratory’s file are named, laid over the film and measured', async ({
  page,
}) => {
  await addStudent(page, 'From The Laboratory');
  await chooseFile(page, demoClip('cross-all-at-once.mp4'));
  await page.getByRole('button', { name: 'Add the clip' }).click();
  await benchIsOpen(page);
  await page.getByRole('button', { name: 'Cross', exact: true }).click();
  await tab(page, 'Body');

  const choose = (name: string, text: string) =>
    page
      .getByLabel('Landmark file')
      .setInputFiles({ name, mimeType: 'text/plain', buffer: Buffer.from(text) });
  await choose('broken.trc', 'PathFileType\t4\nnothing');
  await expect(page.getByRole('alert').filter({ hasText: 'Nothing was kept.' })).toBeVisible();

  const recipe = clean('cross', { ...FAULT_CHANGES['all-at-once'], height: 1.72 });
  const track = knownTrack(recipe, { rate: 240, noise: 0.001, seed: 4 });
  const trc = writeTrc(track, 'lab.trc').replaceAll('rightElbow', 'RELB').replaceAll('nose', 'C7');
  await choose('lab.trc', trc);
  const dialog = page.getByRole('dialog');
  await expect(dialog.getByLabel('RELB is')).toHaveValue('rightElbow');
  await expect(dialog.getByLabel('C7 is')).toHaveValue('');
  await dialog.getByRole('button', { name: 'Bring them in' }).click();
  await expect(page.getByText('Measured in space: lab.trc.')).toBeVisible();

  await tab(page, 'Leaks');
  await expect(page.getByRole('heading', { name: 'All at once' })).toBeVisible();
  expect(await reading(page, 'Speed at contact')).toContain('in space');
  await page.reload();
  expect(await reading(page, 'Speed at contact')).toContain('in space');
});
