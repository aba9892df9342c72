/** How long after a key the frame it asked for is on the screen: 720p, 240 frames a second. */
import { test, type Page } from '@playwright/test';
import { benchIsOpen, shows } from '../support/bench';

/**
 * Press keys one after the other, each when the frame before is painted.
 *
 * @returns milliseconds from each key to the animation frame after its picture was drawn
 */
async function latencies(page: Page, keys: readonly string[]): Promise<number[]> {
  return page.evaluate(async (presses) => {
    const canvas = document.querySelector('canvas')!;
    const slider = document.querySelector('[role=slider]')!;
    const painted = async () => {
      while (canvas.dataset.frame !== slider.getAttribute('aria-valuenow')) {
        await new Promise((resolve) => requestAnimationFrame(resolve));
      }
    };
    const times: number[] = [];
    for (const press of presses) {
      const shiftKey = press.startsWith('Shift+');
      const code = press.replace('Shift+', '');
      const before = slider.getAttribute('aria-valuenow');
      const start = performance.now();
      for (const type of ['keydown', 'keyup']) {
        document.body.dispatchEvent(
          new KeyboardEvent(type, { key: code, code, shiftKey, bubbles: true }),
        );
      }
      while (slider.getAttribute('aria-valuenow') === before) {
        await new Promise((resolve) => requestAnimationFrame(resolve));
      }
      await painted();
      times.push(performance.now() - start);
    }
    return times;
  }, keys);
}

function report(name: string, times: number[]): void {
  const sorted = [...times].sort((a, b) => a - b);
  const at = (share: number) => sorted[Math.floor(share * (sorted.length - 1))]!.toFixed(0);
  console.log(`${name}: median ${at(0.5)} ms, 95 % under ${at(0.95)} ms (${times.length} steps)`);
}

test('stepping', async ({ page }) => {
  test.setTimeout(400_000);
  await page.goto('/');
  await page.getByRole('link', { name: 'Perrin Oake' }).click();
  await page.getByRole('link', { name: 'cross-clean.mp4' }).click();
  await benchIsOpen(page);
  const anew = async () => {
    await page.goto(page.url().split('?')[0]!);
    await benchIsOpen(page);
  };
  const forward = () => latencies(page, Array<string>(100).fill('ArrowRight'));
  report('one frame forward, while bodies are looked for', await forward());
  await page.getByLabel('Body tracking in the background').waitFor({ state: 'hidden' });
  await page.goto(page.url().split('?')[0]!);
  await benchIsOpen(page);
  await page.getByRole('tab', { name: 'Film', exact: true }).click();
  await page.getByRole('region', { name: 'Film check' }).waitFor();
  await page.keyboard.press('Home');
  await shows(page, 0);
  report('one frame forward', await forward());
  report('one frame back', await latencies(page, Array<string>(100).fill('ArrowLeft')));
  await anew();
  await page.keyboard.press('End');
  await shows(page, 278);
  report(
    'one frame back, nothing decoded before',
    await latencies(page, Array<string>(150).fill('ArrowLeft')),
  );
  await anew();
  report('ten frames forward', await latencies(page, Array<string>(20).fill('Shift+ArrowRight')));

  const random: number[] = [];
  await anew();
  let seed = 7;
  for (let i = 0; i < 30; i++) {
    seed = (seed * 1103515245 + 12345) % 2147483648;
    const times = await page.evaluate(
      async (share) => {
        const canvas = document.querySelector('canvas')!;
        const slider = document.querySelector('[role=slider]')!;
        const { left, top, width } = slider.getBoundingClientRect();
        const at = { clientX: left + 14 + (width - 28) * share, clientY: top + 60 };
        const start = performance.now();
        slider.dispatchEvent(
          new PointerEvent('pointerdown', { ...at, buttons: 1, pointerId: 1, bubbles: true }),
        );
        do await new Promise((resolve) => requestAnimationFrame(resolve));
        while (canvas.dataset.frame !== slider.getAttribute('aria-valuenow'));
        return performance.now() - start;
      },
      (seed >> 8) / 8388608,
    );
    random.push(times);
  }
  report('a random frame', random);
});
