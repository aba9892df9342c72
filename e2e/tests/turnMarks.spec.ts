import { readFileSync } from 'node:fs';
import { expect } from '@playwright/test';
import { landmarkName, type Landmark } from '@sinew/core/foundation/body/landmarks';
import { normal, seeded } from '@sinew/core/foundation/uncertainty/random';
import { DEMO_CLIPS } from '@sinew/fighters/film/clips';
import { truthOf } from '@sinew/fighters/film/clipTruth';
import { benchIsOpen, canvas, clickFilm, isSaved } from '../support/bench';
import { addStudent, demoClip, isAccessible, post } from '../support/gym';
import { test } from '../support/test';

const FILM = DEMO_CLIPS.find(({ file }) => file === 'cross-all-at-once.mp4')!;
const POINTS: readonly Landmark[] = ['leftHip', 'rightHip', 'leftShoulder', 'rightShoulder'];
/** Pixels by which a careful hand is off. */
const HAND = 2;

test('one film from the side, nothing worn: the turn is marked frame by frame, and the order of hips and trunk is told', async ({
  page,
  request,
  baseURL,
}) => {
  test.setTimeout(180_000);
  const student = await addStudent(page, 'Turn Marked');
  const about = { name: FILM.file, view: 'side', azimuth: String(Math.PI / 2) };
  const added = await post(request, baseURL!, student, readFileSync(demoClip(FILM.file)), about);
  const { id } = (await added.json()) as { id: string };
  const { frames, strike, calibration, at } = truthOf(FILM);
  const saved = (await (await request.get(`${baseURL}/api/clips/${id}/bench`)).json()) as {
    document: object;
  };
  const marks = { contact: { frame: frames.contact, width: 1 } };
  const strikes = [{ id: `${id}-1`, technique: strike.technique.id, side: strike.side, marks }];
  const { target } = calibration;
  await request.put(`${baseURL}/api/clips/${id}/bench`, {
    data: { ...saved, document: { ...saved.document, target, strikes } },
  });
  await page.goto(`/bench/${id}`);
  await benchIsOpen(page);
  await page.getByRole('tab', { name: 'Film', exact: true }).click();
  await expect(page.getByRole('radio', { name: 'square, chest side' })).toBeChecked();
  await page.getByRole('tab', { name: 'Leaks', exact: true }).click();
  const order = page.getByRole('listitem').filter({ hasText: /^All at once/ });
  await order.getByRole('button', { name: /Mark the turn/ }).click();

  const random = seeded(7);
  const asked = page.getByText(/^Click the /);
  const click = async (point: Landmark, shown: number) => {
    const { x, y } = at(point, shown);
    await clickFilm(page, { x: x + HAND * normal(random), y: y + HAND * normal(random) });
  };
  let shown = frames.contact;
  for (let frame = 1; frame <= 12; frame++) {
    await expect(asked).toContainText(`Frame ${frame} of 12.`);
    // A click on the picture before is nobody's.
    await expect(canvas(page)).not.toHaveAttribute('data-frame', String(shown));
    shown = Number(await canvas(page).getAttribute('data-frame'));
    for (const point of POINTS) {
      await expect(asked).toContainText(`Click the ${landmarkName(point)}`);
      await click(point, shown);
    }
    if (frame === 2) {
      await page.keyboard.press('Control+z');
      await expect(asked).toContainText('Click the right shoulder');
      await expect(canvas(page)).toHaveAttribute('data-frame', String(shown));
      await click('rightShoulder', shown);
    }
  }
  await expect(page.getByText('All is marked.')).toBeVisible();
  await page.keyboard.press('Escape');
  for (const link of ['pelvis', 'trunk']) {
    await expect(page.locator(`[data-half-way=${link}]`)).toBeVisible();
    await expect(page.locator(`[data-rests-on=${link}]`)).toContainText('half-way only');
  }
  await expect(page.getByRole('figure', { name: 'Hips and shoulders from above' })).toBeVisible();
  // Its hips and trunk leave together: found, or likely there.
  const panel = page.getByRole('tabpanel');
  const likely = panel.getByRole('region', { name: 'Likely there' }).getByText(/^All at once/);
  const found = panel.getByText(/The trunk is half-way through its turn/);
  await expect(likely.or(found)).toBeVisible();
  await isSaved(page);
  await isAccessible(page);
});
