import { expect } from '@playwright/test';
import { EVENTS } from '@sinew/core/measure/events/events';
import { DEMO_CLIPS } from '@sinew/fighters/film/clips';
import { truthOf } from '@sinew/fighters/film/clipTruth';
import {
  benchIsOpen,
  clickFilm,
  dragFilm,
  isSaved,
  marksShown,
  onScreen,
  pointsShown,
  shows,
  stepTo,
} from '../support/bench';
import { addStudent, chooseFile, demoClip, isAccessible, unfoldConsent } from '../support/gym';
import { test } from '../support/test';

const FILM = DEMO_CLIPS.find((clip) => clip.file === 'cross-all-at-once.mp4')!;

test('from a clip to a cue', async ({ page }) => {
  const truth = truthOf(FILM);
  const { contact } = truth.frames;
  const reading = (name: string) => page.getByRole('row').filter({ hasText: name });

  await test.step('import the clip', async () => {
    await addStudent(page, 'Jorun Vik');
    await chooseFile(page, demoClip(FILM.file));
    await expect(page.getByText('1280 × 720, 279 frames, plays at 240 a second.')).toBeVisible();
    await page.getByRole('button', { name: 'Add the clip' }).click();
    await benchIsOpen(page);
  });

  await test.step('mark the instants where they are', async () => {
    await page.getByRole('button', { name: /^Cross/ }).click();
    for (const [index, event] of EVENTS.entries()) {
      await stepTo(page, truth.frames[event]);
      await page.keyboard.press(String(index + 1));
    }
    const expected = Object.fromEntries(EVENTS.map((e) => [e, String(truth.frames[e])]));
    await expect.poll(() => marksShown(page)).toEqual(expected);
    await expect(page.getByText(/The trunk starts within 3 ms of the hips/)).toBeVisible();
    await expect(page.getByText('Film from the front or from behind.')).toBeVisible();
  });

  await test.step('set scale and target, place the arm', async () => {
    const { scale, target } = truth.calibration;
    await page.keyboard.press('l');
    await dragFilm(page, scale!.from, scale!.to);
    await page.getByLabel('Length, cm').fill(String(scale!.metres * 100));
    await page.keyboard.press('Enter');
    await page.keyboard.press('t');
    await dragFilm(page, target!.from, target!.to);
    for (const frame of [contact - 8, contact - 6, contact - 4, contact - 2, contact]) {
      await stepTo(page, frame);
      await page.keyboard.press('p');
      for (const part of ['Shoulder', 'Elbow', 'Wrist', 'IndexKnuckle'] as const) {
        await clickFilm(page, truth.at(`right${part}`, frame));
      }
      await page.keyboard.press('Escape');
    }
  });

  await test.step('read what was measured', async () => {
    await page.getByRole('tab', { name: 'Readings' }).click();
    const number = async (name: string) =>
      Number((await reading(name).getByRole('cell').nth(1).innerText()).replace('−', '-'));
    // The fighter was made to use 95 % of the arm; a side view and a hand-placed point are good
    // to a few per cent, which is what the reading says of itself.
    expect(Math.abs((await number('Reach used')) - 95)).toBeLessThan(6);
    // 3.8 m/s is this fighter's own speed along the target at contact, from the generator.
    expect(Math.abs((await number('Speed at contact')) - 3.8)).toBeLessThan(1);
    await expect(reading('Speed at contact')).toContainText('m/s');
    await page.getByRole('tab', { name: 'Leaks' }).click();
    await page.getByText(/^Looked for and not there/).click();
    await expect(page.getByText(/Jammed: no/)).toBeVisible();
  });

  await test.step('undo, redo, and find everything again after a reload', async () => {
    await stepTo(page, contact);
    const points = await pointsShown(page);
    expect(points).toHaveLength(4);
    const [x, y] = points
      .find((one) => one.startsWith('rightElbow'))!
      .split(' ')
      .slice(1)
      .map(Number);
    const elbow = await onScreen(page, { x: x!, y: y! });
    await page.mouse.move(elbow.x, elbow.y);
    await page.mouse.down();
    await page.mouse.move(elbow.x + 20, elbow.y + 12);
    await page.mouse.move(elbow.x + 40, elbow.y + 25);
    await page.mouse.up();
    const moved = await pointsShown(page);
    expect(moved).not.toEqual(points);
    await page.keyboard.press('Control+z');
    await expect.poll(() => pointsShown(page)).toEqual(points);
    await page.keyboard.press('Control+Shift+z');
    await expect.poll(() => pointsShown(page)).toEqual(moved);
    await page.keyboard.press('Control+z');
    await isSaved(page);
    const marks = await marksShown(page);
    await page.waitForURL(new RegExp(`frame=${contact}`));
    await page.reload();
    await benchIsOpen(page);
    expect(await marksShown(page)).toEqual(marks);
    expect(await pointsShown(page)).toEqual(points);
  });

  await test.step('accept the leak, reword the cue', async () => {
    await page.keyboard.press('Enter');
    await expect(page.getByText('Accepted.')).toBeVisible();
    await page.getByRole('button', { name: 'Reword' }).click();
    await page.getByLabel('Cue', { exact: true }).fill('Hips first, Jorun; the hand is late.');
    await page.getByRole('button', { name: 'Save the cue' }).click();
    await expect(page.getByText('Hips first, Jorun; the hand is late.')).toBeVisible();
  });

  await test.step('it stands on the Floor and on the card', async () => {
    await page.goto('/');
    const row = page.getByRole('row').filter({ hasText: 'Jorun Vik' });
    await expect(row).toContainText('Hips first, Jorun; the hand is late.');
    await page.reload();
    await expect(row).toContainText('Cross');
    await row.getByRole('link', { name: 'Jorun Vik' }).click();
    await page.getByRole('link', { name: 'Card', exact: true }).click();
    await expect(page.getByText('Hips first, Jorun; the hand is late.')).toBeVisible();
    await expect(page.getByText(/The trunk starts within 3 ms/)).toBeVisible();
  });
});

test('a kick has its own links, keys and points', async ({ page }) => {
  await addStudent(page, 'Odila Brandt');
  await chooseFile(page, demoClip('cross-clean.mp4'));
  await page.getByRole('button', { name: 'Add the clip' }).click();
  await benchIsOpen(page);
  await page.getByRole('button', { name: 'Round kick' }).click();
  await expect(page.getByText('Round kick, right leg')).toBeVisible();
  const strip = page.getByRole('region', { name: 'Chain strip' });
  for (const link of ['Foot', 'Shank', 'Thigh', 'Pelvis', 'Knees', 'Feet']) {
    await expect(strip.getByText(link, { exact: true })).toBeVisible();
  }
  await expect(strip.getByText('Trunk', { exact: true })).toHaveCount(0);
  await strip.getByRole('button', { name: 'thigh' }).click();
  await expect.poll(() => marksShown(page)).toEqual({ trunk: '0' });
  await page.keyboard.press('p');
  await expect(page.getByRole('combobox')).toHaveValue('rightHip');
  await expect(page.getByText('Support foot does not turn')).toBeVisible();
  await page.getByRole('tab', { name: 'Readings' }).click();
  await expect(page.getByText('Striking knee at contact')).toBeVisible();
  await expect(page.getByText('Elbow at contact')).toHaveCount(0);
});

test('a finding can be dismissed with a reason, and taken back', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('link', { name: 'Tobiah Renn' }).click();
  await page.getByRole('link', { name: 'lead-hook-slap.mp4' }).click();
  await benchIsOpen(page);
  await page.getByRole('button', { name: 'Take it back' }).click();
  await expect(page.getByRole('button', { name: 'Wrong', exact: true })).toBeVisible();
  await page.keyboard.press('n');
  await page.getByRole('button', { name: 'It is meant that way' }).click();
  await expect(page.getByText('Wrong: It is meant that way.')).toBeVisible();
  await page.reload();
  await expect(page.getByText('Wrong: It is meant that way.')).toBeVisible();
  await page.getByRole('button', { name: 'Take it back' }).click();
  await expect(page.getByRole('button', { name: /Use this cue/ })).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(page.getByText('Accepted.')).toBeVisible();
});

test('marks are dragged on the strip, and a second cue asks which one stays', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('link', { name: 'Maren Voss' }).click();
  await page.getByRole('link', { name: 'cross-all-at-once.mp4' }).click();
  await benchIsOpen(page);
  const home = page.locator('[data-event="home"]');
  const before = Number(await home.getAttribute('data-frame'));
  const box = (await home.locator('rect').boundingBox())!;
  await page.keyboard.press('z');
  await page.keyboard.press('z');
  await page.mouse.move(box.x + box.width / 2, box.y + 6);
  await page.mouse.down();
  await page.mouse.move(box.x + 60, box.y + 6, { steps: 6 });
  await page.mouse.up();
  const after = Number(await home.getAttribute('data-frame'));
  expect(after).toBeGreaterThan(before);
  await page.keyboard.press('Control+z');
  await expect(home).toHaveAttribute('data-frame', String(before));

  // Set the arm earlier than the hips: now the hand leaves first.
  await page.keyboard.press('Home');
  for (let i = 0; i < 3; i++) await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Shift+ArrowLeft');
  await page.keyboard.press('5');
  await expect(page.getByRole('heading', { name: 'Arm first' })).toBeVisible();
  await page.getByRole('button', { name: /Use this cue/ }).click();
  await expect(page.getByText('One cue at a time.')).toBeVisible();
  await page.getByRole('button', { name: 'Keep the present one' }).click();
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('heading', { name: 'Arm first' })).toBeHidden();
  await isSaved(page);
});

test('Back brings up the bench as it was last saved, and keys work after a click', async ({
  page,
}) => {
  await addStudent(page, 'Back And Forth');
  await chooseFile(page, demoClip('cross-clean.mp4'));
  await page.getByRole('button', { name: 'Add the clip' }).click();
  await benchIsOpen(page);
  await page.getByRole('button', { name: /^Cross/ }).click();
  await stepTo(page, 30);
  await page.keyboard.press('2');
  await page.getByRole('tab', { name: 'Readings' }).click();
  await page.keyboard.press('ArrowRight');
  await shows(page, 31);
  await expect(page.getByRole('tab', { name: 'Readings' })).toHaveAttribute(
    'aria-selected',
    'true',
  );
  await page.keyboard.press('3');
  await isSaved(page);
  const marks = await marksShown(page);
  expect(Object.keys(marks).sort()).toEqual(['hips', 'load']);
  await page.getByRole('link', { name: 'Floor' }).click();
  await page.getByRole('row').filter({ hasText: 'Back And Forth' }).waitFor();
  await page.goBack();
  await benchIsOpen(page);
  await expect.poll(() => marksShown(page)).toEqual(marks);
  await page.keyboard.press('4');
  await isSaved(page);
  await page.reload();
  await benchIsOpen(page);
  expect(Object.keys(await marksShown(page)).sort()).toEqual(['hips', 'load', 'trunk']);
});

test('two tabs cannot overwrite each other', async ({ page, context }) => {
  await page.goto('/');
  await page.getByRole('link', { name: 'Perrin Oake' }).click();
  await page.getByRole('link', { name: 'cross-clean.mp4' }).click();
  await benchIsOpen(page);
  const other = await context.newPage();
  await other.goto(page.url());
  await benchIsOpen(other);
  await page.getByRole('button', { name: /^Jab/ }).click();
  await isSaved(page);
  // It is there as well, and goes on from it.
  await expect(other.getByRole('heading', { name: 'Jab, left hand' })).toBeVisible();
  await other.keyboard.press('6');
  await isSaved(other);
  await expect(
    page.locator('[aria-label="Chain strip"] [data-event="contact"]:not([data-automatic="true"])'),
  ).toBeVisible();
  await other.close();
  await page.reload();
  await expect(page.getByRole('heading', { name: 'Jab, left hand' })).toBeVisible();
});

test('a minor needs a guardian, a withdrawn consent closes the door, an archived student leaves the Floor', async ({
  page,
}) => {
  await page.goto('/students/new');
  await page.getByRole('button', { name: 'Add the student' }).click();
  await expect(page.getByText('A name is needed')).toBeVisible();
  await page.getByLabel('Name').fill('Small Finn');
  await page.getByLabel('Height, cm').fill('15');
  const bornOn = `${new Date().getFullYear() - 12}-03-14`;
  await page.getByLabel('Born on').fill(bornOn);
  await page.getByRole('button', { name: 'Add the student' }).click();
  await expect(page.getByText('Height: 80 to 250 cm.')).toBeVisible();
  await expect(page.getByLabel('Name')).toHaveValue('Small Finn');
  await expect(page.getByLabel('Born on')).toHaveValue(bornOn);
  await page.getByLabel('Height, cm').fill('150,5');
  await page.getByRole('button', { name: 'Add the student' }).click();
  await expect(page.getByText(/a guardian must consent/)).toBeVisible();
  await expect(page.getByText(/under 16/)).toBeVisible();
  await expect(page.getByRole('button', { name: 'Choose clips' })).toBeHidden();
  await page.getByRole('button', { name: 'Record consent' }).click();
  await expect(page.getByText('Who gave it?')).toBeVisible();
  await page.getByLabel('Guardian’s name').fill('Old Finn');
  await page.getByRole('button', { name: 'Record consent' }).click();
  await unfoldConsent(page);
  await expect(page.getByText(/from the guardian Old Finn/)).toBeVisible();
  await expect(page.getByRole('button', { name: 'Choose clips' })).toBeVisible();
  await page.getByRole('button', { name: 'Withdraw' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('are kept until a day.').check();
  await dialog.getByRole('button', { name: 'Withdraw', exact: true }).click();
  await expect(page.getByRole('button', { name: 'Choose clips' })).toBeHidden();
  await page.getByRole('link', { name: 'Edit' }).click();
  await expect(page.getByLabel('Height, cm')).toHaveValue('150.5');
  await page.getByLabel('Stance').selectOption('southpaw');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText(/southpaw/)).toBeVisible();
  await page.getByRole('button', { name: 'Archive' }).click();
  await expect(page.getByText('Archived: not on the Floor')).toBeVisible();
  await page.goto('/');
  await expect(page.getByRole('row').filter({ hasText: 'Small Finn' })).toBeHidden();
});

test('no screen has an accessibility fault that a machine can find, by day or dimmed', async ({
  page,
}) => {
  test.slow();
  await page.goto('/');
  await page.getByRole('link', { name: 'Maren Voss' }).click();
  await page.waitForURL(/\/students\//);
  const student = new URL(page.url()).pathname;
  await page.getByRole('link', { name: 'cross-all-at-once.mp4' }).click();
  await benchIsOpen(page);
  const bench = new URL(page.url()).pathname;
  const ofStudent = ['', '/edit', '/bands', '/work', '/ledger', '/tests', '/card'];
  const screens = ['/', '/plan', '/films', '/timer', '/library', '/gym', '/card', '/marking']
    .concat(['/students/new', bench, `/capture?student=${student.split('/').pop()}`])
    .concat(ofStudent.map((path) => student + path));
  const dim = page.getByRole('switch', { name: 'Dim screen' });
  for (const screen of screens) {
    await page.goto(screen);
    await page.getByRole('link', { name: 'Sinew' }).waitFor();
    await expect(dim).toBeChecked({ checked: false });
    await isAccessible(page);
    await dim.click();
    await expect(dim).toBeChecked();
    // The light changes nothing but colours.
    await isAccessible(page, ['color-contrast']);
    await dim.click();
    await expect(dim).toBeChecked({ checked: false });
  }
});

test('a few letters lead from anywhere to anywhere, and “?” names the keys', async ({ page }) => {
  await page.goto('/library');
  await page.keyboard.press('Control+k');
  const box = page.getByRole('dialog', { name: 'Go to' });
  await page.keyboard.type('voss le');
  await expect(box.getByRole('option')).toHaveText(['Maren Voss, ledger', 'Films: “voss le”']);
  await isAccessible(page);
  await page.keyboard.press('Enter');
  await page.waitForURL(/\/students\/.*\/ledger/);
  await page.keyboard.press('Control+k');
  await page.keyboard.type('nobody of this name');
  await expect(box.getByRole('option')).toHaveText(['Films: “nobody of this name”']);
  await page.keyboard.press('Escape');
  await expect(box).toBeHidden();
  // Where the students cannot be looked up, the screens can.
  await page.route('**/api/students', (route) => route.fulfill({ status: 500, json: {} }));
  await page.keyboard.press('Control+k');
  await expect(box.getByRole('alert')).toContainText('cannot be looked up');
  await page.keyboard.type('floor');
  await page.keyboard.press('Enter');
  await page.waitForURL((url) => url.pathname === '/');
  await page.getByRole('row').nth(1).waitFor();
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog', { name: 'Keys' })).toContainText('class sheet');
  await isAccessible(page);
});
