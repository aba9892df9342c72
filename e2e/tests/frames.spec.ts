import { expect, type Page } from '@playwright/test';
import { canvas, benchIsOpen, shows } from '../support/bench';
import { BITS, FILMS } from '../support/films';
import { addStudent, post } from '../support/gym';
import { test } from '../support/test';

/** The number burnt into the picture that is on the screen now. */
async function burntIn(page: Page): Promise<number> {
  return canvas(page).evaluate((element: HTMLCanvasElement, bits) => {
    const { width, height } = element;
    // A film turned by a quarter has its row of blocks as a column, the first at the bottom (so does
    // ffmpeg's own decoding of this very file).
    const isTurned = height > width;
    const long = isTurned ? height : width;
    const context = element.getContext('2d')!;
    const middle = isTurned
      ? context.getImageData(width >> 1, 0, 1, height).data
      : context.getImageData(0, height >> 1, width, 1).data;
    let number = 0;
    for (let bit = 0; bit < bits; bit++) {
      const share = (bit + 0.5) / bits;
      const at = Math.floor((isTurned ? 1 - share : share) * long);
      if (middle[at * 4]! > 125) number |= 1 << bit;
    }
    return number;
  }, BITS);
}

/** Random access by the address, as a link to a moment is opened. */
const JUMPS = [97, 3, 61, 60, 59, 118, 0, 44, 119, 88];

for (const [name, make] of Object.entries(FILMS)) {
  test(`the frame shown is the frame numbered: ${name}`, async ({ page, request, baseURL }) => {
    const student = await addStudent(page, `Frames ${name}`);
    const added = await post(request, baseURL!, student, make());
    expect(added.status(), await added.text()).toBe(201);
    const { id } = (await added.json()) as { id: string };
    await page.goto(`/bench/${id}`);
    await benchIsOpen(page);
    // A bench at its first frame goes to where a strike lands as soon as one is found; whoever steps stays.
    await expect(async () => {
      await page.keyboard.press('Home');
      await shows(page, 0);
      expect(await burntIn(page)).toBe(0);
      await page.keyboard.press('ArrowRight');
      await shows(page, 1);
      expect(await burntIn(page)).toBe(1);
    }).toPass();
    const size = await canvas(page).evaluate((c: HTMLCanvasElement) => [c.width, c.height]);
    expect(size).toEqual(name.includes('upright') ? [96, 320] : [320, 96]);

    const step = async (key: string, frame: number) => {
      await page.keyboard.press(key);
      await shows(page, frame);
      expect(await burntIn(page), `${key} to ${frame}`).toBe(frame);
    };
    for (let frame = 2; frame <= 70; frame++) await step('ArrowRight', frame);
    for (let frame = 69; frame >= 20; frame--) await step('ArrowLeft', frame);
    await step('Shift+ArrowRight', 30);
    await step('Shift+ArrowLeft', 20);
    await page.keyboard.press('End');
    const last = Number(
      await page.getByRole('slider', { name: 'Frame' }).getAttribute('aria-valuemax'),
    );
    await shows(page, last);
    expect(await burntIn(page)).toBe(last);

    const slider = (await page.getByRole('slider', { name: 'Frame' }).boundingBox())!;
    for (const jump of JUMPS) {
      await page.mouse.click(slider.x + 14 + ((slider.width - 28) * jump) / 120, slider.y + 60);
      const asked = await page.getByRole('slider', { name: 'Frame' }).getAttribute('aria-valuenow');
      await shows(page, Number(asked));
      expect(await burntIn(page), `jump to ${asked}`).toBe(Number(asked));
    }
  });
}
