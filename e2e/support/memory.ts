import { readFileSync } from 'node:fs';
import type { Browser } from '@playwright/test';

/** Resident memory of all processes of a browser, MB; shared pages count once for each. */
export async function memoryOf(browser: Browser): Promise<number> {
  const cdp = await browser.newBrowserCDPSession();
  const { processInfo } = (await cdp.send('SystemInfo.getProcessInfo')) as {
    processInfo: readonly { readonly id: number }[];
  };
  await cdp.detach();
  return processInfo.reduce((sum, { id }) => {
    try {
      const status = readFileSync(`/proc/${id}/status`, 'utf8');
      return sum + Number(/VmRSS:\s+(\d+)/.exec(status)?.[1] ?? 0) / 1024;
    } catch {
      // It has ended meanwhile.
      return sum;
    }
  }, 0);
}
