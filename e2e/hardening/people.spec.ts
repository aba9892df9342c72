/** Students as they are: any age, name and script, hands that click twice, a server that is away. */
import { readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import Database from 'better-sqlite3';
import { expect, type Page } from '@playwright/test';
import { benchIsOpen } from '../support/bench';
import { addStudent, chooseFile, dataOf, demoClip, unfoldConsent } from '../support/gym';
import { filmsIn } from '../support/ownServer';
import { test } from '../support/test';

const day = (years: number, days = 0) => {
  const date = new Date(Date.now() + days * 86_400_000);
  date.setFullYear(date.getFullYear() - years);
  return date.toISOString().slice(0, 10);
};

async function fillNew(page: Page, name: string, bornOn: string): Promise<void> {
  await page.goto('/students/new');
  await page.getByLabel('Name').fill(name);
  await page.getByLabel('Born on').fill(bornOn);
}

const rows = (name: string) => {
  const database = new Database(join(dataOf('main'), 'sinew.db'), { readonly: true });
  try {
    return database.prepare('select id from student where name = ?').all(name);
  } finally {
    database.close();
  }
};

async function addClip(page: Page, name: string): Promise<void> {
  await chooseFile(page, demoClip(name));
  await page.getByRole('button', { name: 'Add the clip' }).click();
  await benchIsOpen(page);
}

test('a double click adds one student, and a form outlives a server that does not answer', async ({
  page,
}) => {
  await fillNew(page, 'Clicked Twice', day(30));
  await page.getByRole('button', { name: 'Add the student' }).dblclick();
  await page.waitForURL(/\/students\/(?!new)/);
  expect(rows('Clicked Twice')).toHaveLength(1);

  await fillNew(page, 'Server Away', day(30));
  await page.getByLabel('Old injuries').fill('left knee');
  await page.route('**/students/new', (route) =>
    route.request().method() === 'POST' ? route.abort() : route.continue(),
  );
  await page.getByRole('button', { name: 'Add the student' }).click();
  await expect(page.getByRole('alert').filter({ hasText: 'does not answer' })).toBeVisible();
  await expect(page.getByLabel('Name')).toHaveValue('Server Away');
  await expect(page.getByLabel('Old injuries')).toHaveValue('left knee');
  await page.unroute('**/students/new');
  await page.getByRole('button', { name: 'Add the student' }).click();
  await page.waitForURL(/\/students\/(?!new)/);
  expect(rows('Server Away')).toHaveLength(1);
});

test('names and file names of any length and script keep inside the page', async ({ page }) => {
  const names = [
    'M'.repeat(80),
    'Aleksandra-Wilhelmina von und zu Harbourstone-Northwater of the Outer Pier Ltd',
    'عبد الرحمن بن يوسف الساحلي',
    '山本の港町太郎',
    '<b>Bold</b> & "Quoted"',
  ];
  for (const name of names) {
    const id = await addStudent(page, name.slice(0, 80));
    await chooseFile(page, {
      name: `${name.replace(/[<>"/&]/g, '')} ${'long '.repeat(30)}.mp4`.slice(-250),
      mimeType: 'video/mp4',
      buffer: readFileSync(demoClip('cross-clean.mp4')),
    });
    await page.getByRole('button', { name: 'Add the clip' }).click();
    await benchIsOpen(page);
    for (const at of [
      `/students/${id}`,
      '/',
      '/gym',
      `/students/${id}/work`,
      `/students/${id}/ledger`,
    ]) {
      await page.goto(at);
      await page.getByRole('link', { name: 'Sinew' }).waitFor();
      const wide = await page.evaluate(() => {
        const root = document.scrollingElement!;
        return root.scrollWidth - root.clientWidth;
      });
      expect(wide, `${name} at ${at}`).toBeLessThanOrEqual(0);
    }
  }
});

test('a student from before birth dates is asked for it, and taken for the younger until then', async ({
  page,
}) => {
  const id = await addStudent(page, 'From Before');
  const database = new Database(join(dataOf('main'), 'sinew.db'));
  database.prepare('update student set born_on = null, is_minor = 1 where id = ?').run(id);
  database.close();
  await page.goto(`/students/${id}`);
  await expect(page.getByText('When was From Before born?')).toBeVisible();
  // An adult's own consent does not hold for a minor.
  await expect(page.getByText(/a guardian must consent/)).toBeVisible();
  await page.getByRole('button', { name: 'Keep' }).click();
  await expect(page.getByText(/The day of birth, as year-month-day/)).toBeVisible();
  await page.getByLabel('Born on').fill(day(33));
  await page.getByRole('button', { name: 'Keep' }).click();
  await expect(page.getByText('When was From Before born?')).toBeHidden();
  await expect(page.getByText(/^Consent: given/)).toBeVisible();
  await expect(page.getByText('33 years')).toBeVisible();
});

test('a consent is mended, refused when it ends in the past, and withdrawn with its films', async ({
  page,
}) => {
  await addStudent(page, 'Change Of Mind');
  const student = page.url();
  await addClip(page, 'lead-hook-slap.mp4');
  await page.goto(student);
  await unfoldConsent(page);
  await page.getByRole('button', { name: 'Change', exact: true }).click();
  await page.getByLabel('Until').fill(day(0, -1));
  await page.getByRole('button', { name: 'Keep' }).click();
  await expect(page.getByText('This day is past: a consent ends on a day to come.')).toBeVisible();
  await page.getByLabel('Until').fill(day(0, 90));
  await page.getByLabel('Given by').fill('Change Of Heart');
  await page.getByRole('button', { name: 'Keep' }).click();
  await expect(page.getByText(/from Change Of Heart.*until/)).toBeVisible();

  const before = filmsIn(join(dataOf('main'), 'clips')).length;
  await page.getByRole('button', { name: 'Withdraw' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('are kept until a day.').check();
  await dialog.getByLabel('They go on').fill(day(0, -1));
  await dialog.getByRole('button', { name: 'Withdraw', exact: true }).click();
  await expect(dialog.getByRole('alert')).toContainText('Choose a day to come');
  await dialog.getByLabel(/are erased now/).check();
  await dialog.getByRole('button', { name: 'Withdraw and erase the films' }).click();
  await expect(page.getByText('the film went with the consent')).toBeVisible();
  // The demo's own student has this very film as well: the file stays for them.
  expect(filmsIn(join(dataOf('main'), 'clips')).length).toBe(before);
  await expect(page.getByRole('button', { name: 'Choose clips' })).toBeHidden();
});

test('a clip of the wrong student is moved, and one whose film is missing is added again', async ({
  page,
}) => {
  await addStudent(page, 'Right Student');
  const right = page.url();
  await addStudent(page, 'Wrong Student');
  const wrong = page.url();
  await addClip(page, 'cross-clean.mp4');
  await page.goto(wrong);
  await page.getByRole('button', { name: 'Move' }).click();
  await page.getByRole('button', { name: 'Move it' }).click();
  await expect(page.getByRole('alert').filter({ hasText: 'Choose a student' })).toBeVisible();
  await page.getByLabel('It shows').selectOption({ label: 'Right Student' });
  await page.getByRole('button', { name: 'Move it' }).click();
  await expect(page.getByText('It is with Right Student now.')).toBeVisible();
  await page.goto(right);
  await expect(page.getByRole('link', { name: 'cross-clean.mp4' })).toBeVisible();

  const database = new Database(join(dataOf('main'), 'sinew.db'), { readonly: true });
  const { sha256 } = database
    .prepare('select clip.sha256 from clip join student on student.id = student_id where name = ?')
    .get('Right Student') as { sha256: string };
  database.close();
  rmSync(join(dataOf('main'), 'clips', sha256.slice(0, 2), `${sha256}.bin`));
  await page.goto('/gym');
  const missing = page.getByRole('region', { name: 'Missing films' });
  await expect(missing.getByRole('listitem').filter({ hasText: 'Right Student' })).toBeVisible();
  await page.goto(right);
  await addClip(page, 'cross-clean.mp4');
  await page.goto('/gym');
  await expect(missing).toBeHidden();
});
