import { fileURLToPath } from 'node:url';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import AxeBuilder from '@axe-core/playwright';
import { expect, type APIRequestContext, type Page } from '@playwright/test';
import { portOf, type Server } from './config';

export const demoClip = (name: string) =>
  fileURLToPath(new URL(`../../demo/clips/${name}`, import.meta.url));

/** The data folder of a test server. */
export const dataOf = (server: Server) => join(tmpdir(), `sinew-${server}-${portOf(server)}`);

/** Add a student through the form and record the consent; ends on the student's page. */
export async function addStudent(page: Page, name: string): Promise<string> {
  await page.goto('/students/new');
  await page.getByLabel('Name').fill(name);
  await page.getByLabel('Born on').fill('1996-03-14');
  await page.getByRole('button', { name: 'Add the student' }).click();
  await page.waitForURL(/\/students\/(?!new)/);
  await page.getByRole('button', { name: 'Record consent' }).click();
  await expect(page.getByText(/^Consent: given/)).toBeVisible();
  return page.url().split('/').pop()!;
}

/** Unfolds the consent on a student's page. */
export async function unfoldConsent(page: Page): Promise<void> {
  await page.getByText(/^Consent: given/).click();
}

export async function chooseFile(
  page: Page,
  file: string | string[] | { name: string; mimeType: string; buffer: Buffer },
): Promise<void> {
  await page.getByLabel('Video files').setInputFiles(file);
}

/** Hand a file to the server without the browser's own look inside. */
export async function post(
  request: APIRequestContext,
  base: string,
  student: string,
  data: Buffer,
  query: Record<string, string> = {},
) {
  const params = new URLSearchParams({ student, name: 'film.mp4', view: 'side', ...query });
  return request.post(`${base}/api/clips?${params}`, {
    data,
    headers: { 'content-type': 'application/octet-stream' },
    timeout: 60_000,
  });
}

/**
 * No fault that a machine can find on the screen once it has come to rest.
 *
 * @param rules those that are asked; all when not given
 */
export async function isAccessible(page: Page, rules?: string[]): Promise<void> {
  await page.evaluate(async () => {
    const passing = document
      .getAnimations()
      .filter((one) => one.effect?.getComputedTiming().endTime !== Infinity);
    await Promise.allSettled(passing.map((one) => one.finished));
  });
  const all = new AxeBuilder({ page });
  const { violations } = await (rules ? all.withRules(rules) : all).analyze();
  const at = new URL(page.url()).pathname;
  expect(violations.map((one) => `${at}: ${one.id} ${one.nodes[0]?.html}`)).toEqual([]);
}
