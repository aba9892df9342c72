/** Nothing leaves the machine: every page, and a whole search for the body, watched by a proxy. */
import { createServer, type Server } from 'node:http';
import { chromium, expect, type Page } from '@playwright/test';
import { benchIsOpen } from '../support/bench';
import { flagsOf } from '../support/config';
import { thinned } from '../support/films';
import { addStudent, chooseFile, demoClip } from '../support/gym';
import { lookForNone, test } from '../support/test';

test.setTimeout(240_000);

/** What the browser asks for itself, whatever page is open: updates, sign-in, form filling. */
const BROWSERS_OWN = new RegExp(
  '\\b(update|accounts|clients\\d*|content-autofill|optimizationguide-pa|safebrowsing|android|www)' +
    '\\.(google|googleapis)\\.com',
);

let proxy: Server;
let asked: string[];
let refused: string[];

/** A browser that would have to go through the proxy for anything but this machine. */
async function watched(baseURL: string, work: (page: Page) => Promise<void>): Promise<void> {
  const { port } = proxy.address() as { port: number };
  const browser = await chromium.launch({
    executablePath: '/usr/bin/chromium',
    args: flagsOf(),
    proxy: { server: `http://127.0.0.1:${port}`, bypass: '127.0.0.1' },
  });
  try {
    const page = await browser.newPage({ baseURL, viewport: { width: 1280, height: 800 } });
    page.on('console', (message) => {
      if (/Content Security Policy/i.test(message.text())) refused.push(message.text());
    });
    page.on('request', (request) => {
      const { protocol, hostname } = new URL(request.url());
      if (/^https?:|^wss?:/.test(protocol) && hostname !== '127.0.0.1') asked.push(request.url());
    });
    await work(page);
  } finally {
    await browser.close();
  }
}

test.beforeEach(async () => {
  asked = [];
  refused = [];
  const note = (what: string) => {
    if (!BROWSERS_OWN.test(what)) asked.push(what);
  };
  proxy = createServer((request, response) => {
    note(`${request.method} ${request.url}`);
    response.writeHead(403).end();
  }).on('connect', (request, socket) => {
    note(`CONNECT ${request.url}`);
    socket.end('HTTP/1.1 403 Forbidden\r\n\r\n');
  });
  await new Promise<void>((resolve) => proxy.listen(0, '127.0.0.1', resolve));
});
test.afterEach(() => new Promise<void>((resolve) => void proxy.close(() => resolve())));

test('the proxy sees what leaves', async ({ baseURL }) => {
  await watched(baseURL!, async (page) => {
    await page.goto('http://elsewhere.invalid/').catch(() => undefined);
  });
  expect(asked.some((one) => one.includes('elsewhere.invalid'))).toBe(true);
});

test('no page asks anybody but Sinew for anything', async ({ baseURL }) => {
  await watched(baseURL!, async (page) => {
    await page.goto('/');
    await page.getByRole('link', { name: 'Maren Voss' }).click();
    await page.waitForURL(/\/students\//);
    const student = new URL(page.url()).pathname;
    await page.getByRole('link', { name: 'cross-all-at-once.mp4' }).click();
    await benchIsOpen(page);
    const screens = [
      '/',
      '/plan',
      '/films',
      '/timer',
      '/library',
      '/gym',
      '/card',
      '/marking',
      '/recovery',
    ]
      .concat(['/students/new', `/capture?student=${student.split('/').pop()}`, '/compare'])
      .concat(['', '/edit', '/work', '/ledger', '/tests', '/card'].map((end) => student + end));
    for (const screen of screens) {
      await page.goto(screen);
      await page.waitForLoadState('networkidle');
    }
  });
  expect(asked).toEqual([]);
  expect(refused).toEqual([]);
});

test('a whole search for the body sends nothing, to its end', async ({ baseURL, request }) => {
  await lookForNone(request);
  await watched(baseURL!, async (page) => {
    await addStudent(page, 'Watched');
    await page.evaluate(() => localStorage.setItem('sinew.tracking.model', 'quick'));
    await chooseFile(page, thinned(demoClip('cross-jammed.mp4'), 60));
    await page.getByLabel('It shows').selectOption({ label: 'Cross' });
    await page.getByRole('button', { name: 'Add the clip' }).click();
    await benchIsOpen(page);
    const bar = page.getByLabel('Body tracking in the background');
    await expect(bar).toContainText('cross-jammed.mp4');
    // The runtime would send what it has counted when it is closed.
    await expect(bar).toBeHidden({ timeout: 200_000 });
  });
  expect(asked).toEqual([]);
  expect(refused).toEqual([]);
});

test('a worker of a page cannot talk to anybody else, even if it would', async ({ baseURL }) => {
  await watched(baseURL!, async (page) => {
    await page.goto('/');
    const said = await page.evaluate(async () => {
      const source = `fetch('http://elsewhere.invalid/').then(() => postMessage('sent'), () => postMessage('stopped'))`;
      const worker = new Worker(URL.createObjectURL(new Blob([source])));
      return new Promise((resolve) => (worker.onmessage = ({ data }) => resolve(data)));
    });
    expect(said).toBe('stopped');
    const own = await page.evaluate(() =>
      fetch('http://elsewhere.invalid/').then(
        () => 'sent',
        () => 'stopped',
      ),
    );
    expect(own).toBe('stopped');
  });
  expect(asked).toEqual([]);
  expect(refused.length).toBeGreaterThan(0);
});
