/** A coach's walk from a dropped film to the cue and what is sent home: actions, and how long each answer takes. */
import { test, type Page } from '@playwright/test';
import { benchIsOpen } from '../support/bench';
import { addStudent, chooseFile, demoClip } from '../support/gym';
import { marked } from '../support/marked';

const FAULT = 'Too close for this punch.';
const seconds = (from: number) => (performance.now() - from) / 1000;

/** Counts what the coach does: a choice, a press, a key. */
function walker() {
  let actions = 0;
  return {
    did: async (act: Promise<unknown>) => {
      actions += 1;
      await act;
    },
    actions: () => actions,
  };
}

test('from a drop to the cue, one clip', async ({ page }) => {
  test.setTimeout(600_000);
  await addStudent(page, 'Walked Alone');
  const { did, actions } = walker();
  const dropped = performance.now();
  await did(chooseFile(page, demoClip('cross-jammed.mp4')));
  await did(page.getByLabel('It shows').selectOption({ label: 'Cross' }));
  await did(page.getByRole('button', { name: 'Add the clip' }).click());
  await page.getByRole('heading', { name: FAULT }).waitFor({ timeout: 500_000 });
  const found = seconds(dropped);
  await did(page.keyboard.press('Enter'));
  await page.getByRole('heading', { name: 'Cue', exact: true }).waitFor();
  console.log(
    `one clip: ${actions() - 1} actions and ${found.toFixed(0)} s to the finding, ` +
      `${actions()} actions and ${seconds(dropped).toFixed(0)} s to the cue`,
  );
});

test('from a drop to the cue, three other clips queued before it', async ({ page }) => {
  test.setTimeout(1_200_000);
  await addStudent(page, 'Walked Among Others');
  const { did, actions } = walker();
  const others = ['cross-clean.mp4', 'cross-in-order.mp4', 'cross-all-at-once.mp4'];
  const dropped = performance.now();
  await did(chooseFile(page, [...others, 'cross-jammed.mp4'].map(demoClip)));
  const card = page.getByRole('region', { name: others[0]! });
  await did(card.getByLabel('It shows').selectOption({ label: 'Cross' }));
  await did(card.getByRole('button', { name: 'Add all 4 like this' }).click());
  await did(page.getByRole('link', { name: 'cross-jammed.mp4' }).click({ timeout: 120_000 }));
  await benchIsOpen(page);
  await page.getByRole('heading', { name: FAULT }).waitFor({ timeout: 900_000 });
  console.log(
    `with others queued: ${actions()} actions and ${seconds(dropped).toFixed(0)} s to the finding`,
  );
});

/** Milliseconds from Enter to the drawings in which the leak is accepted, and its cue stands in the panel. */
const enterAnswered = (page: Page) =>
  page.evaluate(async () => {
    const start = performance.now();
    document.body.dispatchEvent(
      new KeyboardEvent('keydown', { key: 'Enter', code: 'Enter', bubbles: true }),
    );
    const until = async (isThere: () => boolean) => {
      while (!isThere()) await new Promise((resolve) => requestAnimationFrame(resolve));
      return performance.now() - start;
    };
    const said = await until(() => document.body.textContent.includes('Accepted.'));
    return [said, await until(() => document.querySelector('[data-cue-of-the-day]') !== null)];
  });

test('Enter, zooming, and the review', async ({ page }) => {
  test.setTimeout(600_000);
  const student = await addStudent(page, 'Walked On');
  const clip = await marked(page, student, 'cross-all-at-once.mp4');
  await page.goto(`/bench/${clip}`);
  await benchIsOpen(page);
  await page.getByRole('heading', { name: 'Hips and trunk leave together.' }).waitFor();
  const [said, kept] = await enterAnswered(page);
  console.log(`Enter: accepted after ${said!.toFixed(0)} ms, the cue after ${kept!.toFixed(0)} ms`);

  const metrics = await page.context().newCDPSession(page);
  await metrics.send('Performance.enable');
  const script = async () => {
    const { metrics: all } = await metrics.send('Performance.getMetrics');
    return 1000 * all.find(({ name }) => name === 'ScriptDuration')!.value;
  };
  const before = await script();
  const frames = 60;
  await page.evaluate(async (count) => {
    const stage = document.querySelector('[data-moved]')!.parentElement!;
    const { left, top, width, height } = stage.getBoundingClientRect();
    for (let i = 0; i < count; i++) {
      const deltaY = i < count / 2 ? -40 : 40;
      const at = { clientX: left + 0.6 * width, clientY: top + 0.4 * height };
      stage.dispatchEvent(new WheelEvent('wheel', { ...at, deltaY, bubbles: true }));
      await new Promise((resolve) => requestAnimationFrame(resolve));
    }
  }, frames);
  const each = ((await script()) - before) / frames;
  console.log(`zooming: ${each.toFixed(1)} ms of script a frame`);

  await page.goto(`/students/${student}/card`);
  await page.getByRole('button', { name: 'It may be sent home' }).click();
  const make = page.getByRole('button', { name: 'Make the review' });
  await make.waitFor();
  const began = performance.now();
  await make.click();
  const film = page.getByLabel('The review', { exact: true });
  await film.waitFor({ timeout: 300_000 });
  const took = seconds(began);
  await page.waitForFunction(() => document.querySelector('video')!.duration > 0);
  const length = await film.evaluate((one: HTMLVideoElement) => one.duration);
  console.log(
    `the review: ${took.toFixed(1)} s for ${length.toFixed(1)} s of film, ${(took / length).toFixed(2)} × its length`,
  );
});
