/**
 * From the phone at the mat to the bench: the gym opened as a coach opens it, over HTTPS, with a laptop, a
 * phone and a second coach; and every screen held to what a thumb and an eye need.
 */
import { expect, type Browser, type Page } from '@playwright/test';
import { benchIsOpen, shows } from '../support/bench';
import { encode } from '../support/films';
import { addStudent as addStudentWithConsent, demoClip, isAccessible, post } from '../support/gym';
import { killAll, open, openAgain, setUp, stop } from '../support/openGym';
import { leaveBodies, test } from '../support/test';

const PHONE = { width: 390, height: 844 };

test.afterEach(killAll);

async function addStudent(page: Page, origin: string, name: string, bornOn: string): Promise<void> {
  await page.goto(`${origin}/students/new`);
  await page.getByLabel('Name').fill(name);
  await page.getByLabel('Born on').fill(bornOn);
  await page.getByRole('button', { name: 'Add the student' }).click();
  await page.waitForURL(/\/students\/(?!new)/);
}

/** A phone that has come in by the code on the laptop's screen. */
async function pairPhone(browser: Browser, laptop: Page, origin: string, door: string) {
  await laptop.goto(`${origin}/gym/people`);
  await laptop.getByRole('button', { name: 'Pair a phone' }).first().click();
  const code = await laptop.getByRole('dialog').locator('strong').first().innerText();
  const context = await browser.newContext({
    viewport: PHONE,
    isMobile: true,
    hasTouch: true,
    ignoreHTTPSErrors: true,
  });
  await leaveBodies(context);
  const phone = await context.newPage();
  await phone.goto(`${door}/pair?code=${code}`);
  await isAccessible(phone);
  await phone.getByRole('button', { name: 'Pair this phone' }).click();
  await phone.waitForURL(/\/phone$/);
  await expect(laptop.getByText('The phone is paired.')).toBeVisible();
  return { context, phone };
}

const signIn = async (page: Page, name: string, passcode: string) => {
  await page.getByLabel('Name').fill(name);
  await page.getByLabel('Passcode').fill(passcode);
  await page.getByRole('button', { name: 'Sign in' }).click();
};

test.describe('a day', () => {
  test.use({ looksForBodies: true });

  test('a clip goes from the phone at the mat to the bench of the laptop, through bad Wi-Fi', async ({
    page,
    browser,
  }) => {
    // A whole day: what its steps may each wait for is more than a test has.
    test.setTimeout(300_000);
    let gym = await open();
    const { origin } = new URL(gym.address);
    const door = await setUp(page, gym);
    await isAccessible(page);
    await addStudent(page, origin, 'Nila Harrow', '2012-05-04');
    const student = page.url();
    const { context, phone } = await pairPhone(browser, page, origin, door);

    await test.step('the phone films, and sees nothing else', async () => {
      for (const path of ['/', '/gym', '/gym/people', new URL(student).pathname]) {
        await phone.goto(door + path);
        expect(new URL(phone.url()).pathname).toBe('/phone');
      }
      expect((await phone.request.get(`${door}/api/gym`)).status()).toBe(403);
      await isAccessible(phone);
    });

    await test.step('a guardian consents there and then', async () => {
      await phone.getByRole('link', { name: /Nila Harrow/ }).click();
      await expect(phone.getByText('is under 18: a guardian consents')).toBeVisible();
      await isAccessible(phone);
      await phone.getByLabel('The guardian’s name').fill('Mara Harrow');
      await phone.getByLabel('I am the guardian, and I consent.').check();
      await phone.getByRole('button', { name: 'Record the consent' }).click();
      await expect(phone.getByText('Choose clips from this phone')).toBeVisible();
      await isAccessible(phone);
    });

    await test.step('Wi-Fi that goes away, and a machine that is killed, cost nothing', async () => {
      await page.goto(student);
      await phone.getByLabel('They show').selectOption({ label: 'Cross' });
      const cuts = { left: 6 };
      // A piece breaks off at its beginning, as Wi-Fi does.
      await phone.route('**/api/uploads/*', async (route) => {
        if (route.request().method() !== 'PATCH' || cuts.left === 0) return route.continue();
        cuts.left -= 1;
        return route.abort('connectionreset');
      });
      await phone
        .getByLabel('Choose clips from this phone')
        .setInputFiles([demoClip('cross-jammed.mp4'), demoClip('cross-clean.mp4')]);
      await expect.poll(() => cuts.left, { timeout: 60_000 }).toBeLessThan(4);
      await stop(gym, 'SIGKILL');
      gym = await openAgain(gym);
      const there = phone.getByText('On the bench, whole and checked.');
      // Away for longer than the phone tries by itself, as on a busy machine: somebody presses once.
      await expect(async () => {
        for (const again of await phone.getByRole('button', { name: 'Send it again' }).all()) {
          await again.click();
        }
        await expect(there).toHaveCount(2, { timeout: 5000 });
      }).toPass({ timeout: 150_000 });
      expect(cuts.left).toBe(0);
    });

    await test.step('the laptop shows them by itself, and looks for the body', async () => {
      await page.goto(student);
      await expect(page.getByRole('link', { name: 'cross-jammed.mp4' })).toBeVisible();
      await phone
        .getByLabel('Choose clips from this phone')
        .setInputFiles(demoClip('elbow-side.mp4'));
      await expect(page.getByRole('link', { name: 'elbow-side.mp4' })).toBeVisible({
        timeout: 60_000,
      });
      await expect(page.getByLabel('Body tracking in the background')).toBeVisible();
      await page.goto(origin);
      await expect(page.getByRole('row', { name: /Nila Harrow/ })).toContainText('Mark 3 clips');
      await phone
        .getByLabel('Choose clips from this phone')
        .setInputFiles(demoClip('cross-in-order.mp4'));
      await expect(page.getByRole('row', { name: /Nila Harrow/ })).toContainText('Mark 4 clips', {
        timeout: 60_000,
      });
      await page.goto(`${origin}/gym/people`);
      await expect(page.getByText('Ilse Brandt added a film').first()).toBeVisible();
    });

    await test.step('a lost phone is unpaired, and is out at once', async () => {
      await page.getByRole('button', { name: 'Unpair' }).click();
      await expect(page.getByText('Unpaired.')).toBeVisible();
      await phone.goto(`${door}/phone`);
      await expect(phone.getByRole('heading', { name: 'Who is it?' })).toBeVisible();
      expect((await phone.request.post(`${door}/api/uploads`)).status()).toBe(401);
      await isAccessible(phone);
    });

    await test.step('its owner signs in on it, and signs out', async () => {
      await signIn(phone, 'Ilse Brandt', 'wrong-one-1');
      await expect(phone.getByRole('alert')).toContainText('do not belong together');
      await signIn(phone, 'Ilse Brandt', 'harbour-42');
      await phone.waitForURL(/\/phone$/);
      await phone.getByRole('link', { name: 'Floor' }).click();
      await expect(phone.getByRole('link', { name: 'Nila Harrow' })).toBeVisible();
      await phone.getByRole('button', { name: 'Sign out' }).click();
      await expect(phone.getByRole('heading', { name: 'Who is it?' })).toBeVisible();
    });

    await test.step('shut, the gym is this machine’s alone', async () => {
      await page.getByRole('button', { name: 'Shut it' }).click();
      await expect(page.getByRole('heading', { name: 'Open on this machine only' })).toBeVisible();
      await expect(phone.goto(`${door}/phone`)).rejects.toThrow(/ERR_CONNECTION_REFUSED/);
    });
    await context.close();
    await stop(gym);
  });
});

test('two coaches in one clip: the later one is told who, and keeps theirs, mine or both', async ({
  page,
  browser,
}) => {
  const gym = await open();
  const { origin } = new URL(gym.address);
  const door = await setUp(page, gym);
  await page.getByRole('button', { name: 'Add somebody' }).click();
  await page.getByLabel('Name', { exact: true }).fill('Tomas Reed');
  await page.getByLabel('First passcode').fill('boathouse7');
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(page.getByText('Tomas Reed', { exact: true })).toBeVisible();
  await addStudent(page, origin, 'Sunniva Lund', '1996-03-14');
  await page.getByRole('button', { name: 'Record consent' }).click();
  await page.getByLabel('Video files').setInputFiles(demoClip('cross-clean.mp4'));
  await page.getByRole('button', { name: 'Add the clip' }).click();
  await benchIsOpen(page);
  await page.getByRole('button', { name: /^Cross/ }).click();
  await expect(page.getByRole('status').filter({ hasText: 'Saved' })).toBeVisible();
  const bench = new URL(page.url()).pathname;

  const context = await browser.newContext({
    viewport: { width: 1280, height: 800 },
    ignoreHTTPSErrors: true,
  });
  await leaveBodies(context);
  const other = await context.newPage();
  await other.goto(door + bench);
  await signIn(other, 'Tomas Reed', 'boathouse7');
  await benchIsOpen(other);

  await test.step('what one saves appears in the other, by itself', async () => {
    await page.keyboard.press('6');
    await expect(other.getByText('Ilse Brandt has changed this clip.')).toBeVisible();
    await expect(other.locator('[aria-label="Chain strip"] [data-event="contact"]')).toBeVisible();
  });

  // From now on nothing is told to the second coach.
  await other.route('**/api/news', (route) => route.abort());
  await other.reload();
  await benchIsOpen(other);

  await test.step('apart, both are kept', async () => {
    await page.keyboard.press('7');
    await expect(page.getByRole('status').filter({ hasText: 'Saved' })).toBeVisible();
    await other.keyboard.press('8');
    const met = other.getByRole('dialog', {
      name: /^Ilse Brandt has changed this clip at \d\d:\d\d\.$/,
    });
    await expect(met).toBeVisible();
    await isAccessible(other);
    await met.getByRole('button', { name: 'Keep both' }).click();
    await expect(other.getByRole('status').filter({ hasText: 'Saved' })).toBeVisible();
    for (const event of ['end', 'home']) {
      const mark = page.locator(`[aria-label="Chain strip"] [data-event="${event}"]`);
      await expect(mark).toBeVisible();
    }
  });

  await test.step('on the same mark, one of the two', async () => {
    const contact = '[aria-label="Chain strip"] [data-event="contact"]';
    const at = (one: Page) => one.locator(contact).getAttribute('data-frame');
    await page.keyboard.press('Shift+ArrowRight');
    await page.keyboard.press('6');
    await expect(page.getByRole('status').filter({ hasText: 'Saved' })).toBeVisible();
    const theirs = await at(page);
    await other.keyboard.press('ArrowRight');
    await other.keyboard.press('6');
    const met = other.getByRole('dialog', { name: /has changed this clip/ });
    await expect(met).toContainText('Both of you have set “contact” of strike 1');
    await expect(met.getByRole('button', { name: 'Keep both' })).toBeHidden();
    await met.getByRole('button', { name: 'Take theirs' }).click();
    await expect.poll(() => at(other)).toBe(theirs);
  });
  await context.close();
  await stop(gym);
});

test('a film that this browser does not play is made readable', async ({ page }) => {
  const film = encode('phone.mp4', 60, 60, [
    ...['-c:v', 'libx265', '-x265-params', 'log-level=error', '-pix_fmt', 'yuv420p10le'],
    ...['-tag:v', 'hvc1'],
  ]);
  await page.goto('/');
  await page.getByRole('link', { name: 'Sunniva Lund' }).click();
  const file = { name: 'phone.mp4', mimeType: 'video/mp4', buffer: film };
  await page.getByLabel('Video files').setInputFiles(file);
  await expect(page.getByText('the gym’s machine makes it readable frame by frame')).toBeVisible();
  await page.getByRole('button', { name: 'Add the clip' }).click();
  await benchIsOpen(page);
  // What moves in it has been found, and the picture has gone there.
  const found = page.locator('[data-proposal]');
  await expect(found).toBeVisible({ timeout: 60_000 });
  const heart = Number(await found.getAttribute('data-heart'));
  await shows(page, heart);
  await page.keyboard.press('ArrowRight');
  await shows(page, heart + 1);
});

test('every screen of a phone fits it: nothing sideways, a thumb finds everything, the picture is wide', async ({
  page: laptop,
  browser,
  baseURL,
}) => {
  // Lists that are empty fit anywhere.
  const file = encode('sideways-with-a-name-that-goes-on-and-on.mp4', 30, 30, []);
  await laptop.goto('/gym');
  await laptop.getByRole('button', { name: 'Back up now' }).click();
  await expect(laptop.getByText('The backup is made.')).toBeVisible();
  const studentId = await addStudentWithConsent(laptop, 'A name that goes on and on and on and on');
  const name = 'a-file-of-a-name-that-goes-on-and-on-and-on.mp4';
  const added = await post(laptop.request, baseURL!, studentId, file, { name });
  expect(added.ok()).toBe(true);
  await laptop.goto(`/students/${studentId}`);
  await laptop.getByRole('listitem').getByRole('button', { name: 'Delete' }).click();
  await expect(laptop.getByText(/is put away/)).toBeVisible();

  const context = await browser.newContext({
    baseURL,
    viewport: PHONE,
    isMobile: true,
    hasTouch: true,
    reducedMotion: 'reduce',
  });
  const page = await context.newPage();
  await page.goto('/');
  await page.getByRole('link', { name: 'Maren Voss' }).click();
  await page.waitForURL(/\/students\//);
  const student = new URL(page.url()).pathname;
  const bench = await page
    .getByRole('link', { name: 'cross-all-at-once.mp4' })
    .getAttribute('href');
  const id = student.split('/').pop()!;
  const screens = [
    '/',
    '/plan',
    '/films',
    '/timer',
    '/library',
    '/gym',
    '/gym/people',
    '/card',
    '/marking',
  ]
    .concat([
      '/compare',
      '/students/new',
      `/capture?student=${id}`,
      '/phone',
      `/phone/${id}`,
      `/phone/${id}/set`,
      bench!,
    ])
    .concat(
      ['', '/edit', '/work', '/ledger', '/tests', '/card', '/bands'].map((end) => student + end),
    );
  for (const screen of screens) {
    await page.goto(screen);
    await page.waitForLoadState('load');
    if (screen === bench) await benchIsOpen(page);
    const found = await page.evaluate(() => {
      const isText = (one: Element) => getComputedStyle(one).display === 'inline';
      const boxes = [...document.querySelectorAll('a, button, select, summary, [role=tab], input')]
        .filter(
          (one) =>
            !one.matches('.sr-only, [type=hidden], [type=checkbox], [type=radio], [type=range]'),
        )
        .filter((one) => !(one.matches('a') && isText(one)) && !one.closest('[aria-hidden=true]'))
        .map((one) => ({ one, box: one.getBoundingClientRect() }))
        .filter(({ box }) => box.width > 0 && box.height > 0);
      return {
        sideways: document.documentElement.scrollWidth,
        small: boxes
          .filter(({ box }) => box.height < 43.5)
          .map(
            ({ one, box }) => `${(one.textContent ?? '').trim() || one.ariaLabel} ${box.height}`,
          ),
        picture:
          document.querySelector('canvas[data-frame]')?.getBoundingClientRect().width ?? null,
      };
    });
    expect(found.sideways, screen).toBeLessThanOrEqual(PHONE.width);
    expect(found.small, screen).toEqual([]);
    if (screen === bench) expect(found.picture).toBeGreaterThan(0.9 * PHONE.width);
  }
  await page.goto(bench!);
  await benchIsOpen(page);
  const before = await page.locator('canvas[data-frame]').getAttribute('data-frame');
  await page.getByRole('button', { name: 'Ten frames on' }).tap();
  await expect(page.locator(`canvas[data-frame="${Number(before) + 10}"]`)).toBeVisible();
  await isAccessible(page);
  await context.close();
});
