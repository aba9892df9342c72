/** Filming as a coach does it, and what the made-up camera shows. */
import { spawnSync } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { scratchFolder } from '@sinew/demo/scratch';
import { expect, type Page } from '@playwright/test';

/** Opens the capture screen of the student whose page is open. */
export async function openCapture(page: Page): Promise<void> {
  await page.keyboard.press('f');
  await page.waitForURL(/\/capture/);
  await expect(page.getByRole('button', { name: /^Film/ })).toBeVisible();
}

/** The button that starts and ends a take. */
export const recordButton = (page: Page) => page.locator('[data-record]');

export async function useSimulatedCamera(page: Page): Promise<void> {
  await page.getByLabel('Camera', { exact: true }).first().selectOption('simulated');
  await expect(recordButton(page)).toBeEnabled();
}

/** Count, film for so many seconds, stop. */
export async function film(page: Page, seconds: number): Promise<void> {
  await page.keyboard.press('Space');
  await hasFilmed(page, seconds);
  await page.keyboard.press('Space');
  await expect(page.getByRole('button', { name: /Keep it/ })).toBeVisible();
}

/** So many seconds of the take in hand are in the box: the clock on the picture says so. */
export async function hasFilmed(page: Page, seconds: number): Promise<void> {
  const clock = page.getByRole('timer');
  await expect(clock).toBeVisible({ timeout: 15_000 });
  const left = async () => Number(await clock.textContent());
  const all = await left();
  await expect.poll(left, { timeout: 15_000 + 2000 * seconds }).toBeLessThanOrEqual(all - seconds);
}

export interface Probed {
  readonly format: { readonly duration: string; readonly format_name: string };
  readonly streams: readonly {
    readonly codec_type: 'video' | 'audio';
    readonly codec_name: string;
    readonly nb_frames: string;
    readonly duration: string;
  }[];
}

/** What Debian's ffprobe reads in a file, every packet counted. */
export function probed(file: Buffer): Probed {
  const path = join(scratchFolder('probe'), 'take.mp4');
  writeFileSync(path, file);
  const args = ['-v', 'error', '-of', 'json', '-show_format', '-show_streams', path];
  const { stdout, stderr } = spawnSync('ffprobe', args);
  if (stderr.length > 0) throw new Error(`ffprobe: ${stderr.toString()}`);
  return JSON.parse(stdout.toString()) as Probed;
}

/** The file of the clip whose bench is open. */
export async function fileOnBench(page: Page): Promise<Buffer> {
  const id = /\/bench\/([^?]+)/.exec(page.url())![1]!;
  const answer = await page.request.get(`/api/clips/${id}/file`);
  expect(answer.ok()).toBe(true);
  return answer.body();
}

export const checkLine = (page: Page, about: string) => page.locator(`[data-check=${about}]`);
