/** The gym's network for real: its machine and a phone as two hosts on one cable, each with its own addresses. */
import { expect } from '@playwright/test';
import { scratchFolder } from '@sinew/demo/scratch';
import { demoClip } from '../support/gym';
import { killAll, open, setUp, stop } from '../support/openGym';
import { TwoHosts } from '../support/twoHosts';
import { test } from '../support/test';

test.afterEach(killAll);

test('a phone comes in at the machine’s own address, films, and follows it to another one; nothing else listens', async () => {
  test.setTimeout(240_000);
  const hosts = TwoHosts.make();
  test.skip(typeof hosts === 'string', `No hosts can be made here: ${String(hosts)}`);
  if (typeof hosts === 'string') return;
  const closing: (() => Promise<void>)[] = [];
  try {
    hosts.gym.addAddress('192.168.77.1/24');
    hosts.phone.addAddress('192.168.77.2/24');
    const gym = await open(scratchFolder('opened'), hosts.gym.through);
    closing.push(() => stop(gym));
    const [machine, handset] = [await hosts.gym.browser(), await hosts.phone.browser()];
    closing.push(
      () => machine.close(),
      () => handset.close(),
    );
    const laptop = await machine.newPage();
    const { port } = new URL(await setUp(laptop, gym));
    const { origin } = new URL(gym.address);
    const shown = laptop.getByLabel('The gym’s network').locator('li').first();
    await expect(shown).toContainText(`https://192.168.77.1:${port}`);
    await laptop.goto(`${origin}/students/new`);
    await laptop.getByLabel('Name').fill('Nila Harrow');
    await laptop.getByLabel('Born on').fill('1999-05-04');
    await laptop.getByRole('button', { name: 'Add the student' }).click();
    await laptop.waitForURL(/\/students\/(?!new)/);
    await laptop.getByRole('button', { name: 'Record consent' }).click();
    await expect(laptop.getByText(/^Consent: given/)).toBeVisible();
    const student = laptop.url();

    const phone = await handset.newPage({ ignoreHTTPSErrors: true, hasTouch: true });
    const pair = async (door: string) => {
      await laptop.goto(`${origin}/gym/people`);
      await laptop.getByRole('button', { name: 'Pair a phone' }).first().click();
      const code = await laptop.getByRole('dialog').locator('strong').first().innerText();
      await phone.goto(`${door}/pair?code=${code}`);
      await phone.getByRole('button', { name: 'Pair this phone' }).click();
      await phone.waitForURL(`${door}/phone`);
    };

    await test.step('what is behind the door is reached from nowhere but the machine', async () => {
      const inside = new URL(gym.address).port;
      const other = await handset.newPage();
      await expect(other.goto(`http://192.168.77.1:${inside}/`)).rejects.toThrow(
        /ERR_CONNECTION_REFUSED/,
      );
      await other.close();
      // Nobody who has not come in sees more than the page that asks who it is.
      await phone.goto(`https://192.168.77.1:${port}/`);
      expect(new URL(phone.url()).pathname).toBe('/sign-in');
    });

    await test.step('the phone is paired and sends a film', async () => {
      await pair(`https://192.168.77.1:${port}`);
      await phone.getByRole('link', { name: /Nila Harrow/ }).tap();
      await phone
        .getByLabel('Choose clips from this phone')
        .setInputFiles([demoClip('cross-jammed.mp4')]);
      await expect(phone.getByText('On the bench, whole and checked.')).toBeVisible({
        timeout: 60_000,
      });
      await laptop.goto(student);
      await expect(laptop.getByRole('link', { name: 'cross-jammed.mp4' }).first()).toBeVisible();
    });

    await test.step('it films a set in its own page, and hears the hits', async () => {
      await phone.getByRole('link', { name: 'Film a set' }).tap();
      await phone.getByRole('button', { name: 'Use the simulated camera' }).tap();
      await phone.getByRole('button', { name: 'Film a set', exact: true }).tap();
      const hits = async () => Number(await phone.locator('[data-hits]').innerText());
      await expect.poll(hits, { timeout: 30_000 }).toBeGreaterThan(1);
      await expect(phone.getByRole('img', { name: /times slower$/ })).toBeVisible();
      await phone.getByRole('button', { name: 'Stop', exact: true }).tap();
      await phone.getByRole('button', { name: 'Throw it away' }).tap();
    });

    await test.step('the router gives the machine another address: the door is there', async () => {
      hosts.gym.addAddress('10.20.30.1/24');
      hosts.phone.addAddress('10.20.30.2/24');
      hosts.gym.dropAddress('192.168.77.1/24');
      await expect(async () => {
        await laptop.goto(`${origin}/gym/people`);
        await expect(shown).toContainText(`https://10.20.30.1:${port}`, { timeout: 2000 });
      }).toPass({ timeout: 60_000 });
      await pair(`https://10.20.30.1:${port}`);
      await expect(phone.getByRole('link', { name: /Nila Harrow/ })).toBeVisible();
    });
  } finally {
    for (const close of closing.reverse()) await close();
    hosts.remove();
  }
});
