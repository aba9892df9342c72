/** `test` of the browser tests. */
import { test as base, type APIRequestContext, type BrowserContext } from '@playwright/test';
import type { Job } from '@sinew/web/api/job';

export const test = base.extend<{ looksForBodies: boolean }>({
  /** Whether the pages of this test look for the bodies in what is filmed, as they do by themselves. */
  looksForBodies: [false, { option: true }],
  context: async ({ context, request, looksForBodies }, use) => {
    if (looksForBodies) await lookForNone(request);
    else await leaveBodies(context);
    await use(context);
  },
});

/** No page looks for a body, which takes a core for a minute: as if another tab were at it for good. */
export async function leaveBodies(context: BrowserContext): Promise<void> {
  await context.addInitScript(() => {
    if ('locks' in navigator) {
      void navigator.locks.request('sinew-tracking', () => new Promise(() => undefined));
    }
  });
}

/** Gives up what other tests have left to be looked for: it would come first. */
export async function lookForNone(request: APIRequestContext): Promise<void> {
  const left = (await (await request.get('/api/tracking')).json()) as Job[];
  for (const { clipId } of left) await request.delete(`/api/clips/${clipId}/tracking`);
}
