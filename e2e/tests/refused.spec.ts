/** A camera that is there and not allowed. */
import { expect } from '@playwright/test';
import { openCapture, recordButton } from '../support/capture';
import { flagsOf } from '../support/config';
import { addStudent } from '../support/gym';
import { test } from '../support/test';

test.use({
  launchOptions: {
    executablePath: '/usr/bin/chromium',
    args: [...flagsOf(), '--use-fake-device-for-media-stream', '--deny-permission-prompts'],
  },
});

test('a refused camera is said in plain words, and allowed later it works', async ({
  page,
  context,
  baseURL,
}) => {
  await addStudent(page, 'Refused Camera');
  await openCapture(page);
  await expect(page.getByRole('alert').filter({ hasText: /not allowed here/ })).toBeVisible();
  await expect(recordButton(page)).toBeDisabled();
  await context.grantPermissions(['camera', 'microphone'], { origin: baseURL! });
  await page.getByRole('button', { name: 'Try again' }).click();
  await expect(recordButton(page)).toBeEnabled();
});
