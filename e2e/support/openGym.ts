/** A gym of a test's own that is open to its network, as `npm start -- --gym` opens it. */
import { spawn, type ChildProcess } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import { expect, type Page } from '@playwright/test';
import { scratchFolder } from '@sinew/demo/scratch';
import { freePort } from './ownServer';

const START = fileURLToPath(new URL('../../scripts/start.mjs', import.meta.url));

export interface OpenGym {
  readonly child: ChildProcess;
  /** The address with the key in it. */
  readonly address: string;
  /** Its own, and of no other test that runs beside it. */
  readonly env: Readonly<Record<'SINEW_DATA' | 'PORT' | 'SINEW_GYM_PORT', string>>;
  /** The command that everything of it is run through. */
  readonly through: readonly string[];
}

/** Whatever a test has left running. */
const running = new Set<ChildProcess>();

export function killAll(): void {
  for (const { pid } of running) process.kill(-pid!, 'SIGKILL');
  running.clear();
}

/** @param through the command to run it through, where it is to stand on a host of its own */
export async function open(
  data = scratchFolder('opened'),
  through: readonly string[] = [],
): Promise<OpenGym> {
  const [port, door] = [await freePort(), await freePort()];
  return start({ SINEW_DATA: data, PORT: String(port), SINEW_GYM_PORT: String(door) }, through);
}

/** A gym that has ended, at the same addresses. */
export const openAgain = ({ env, through }: OpenGym): Promise<OpenGym> => start(env, through);

async function start(env: OpenGym['env'], through: readonly string[]): Promise<OpenGym> {
  const [command, ...args] = [...through, process.execPath, START, '--gym'];
  // A group of its own: the server is a child of this one, and is killed with it.
  const child = spawn(command!, args, {
    env: { ...process.env, ...env },
    detached: true,
  });
  running.add(child);
  child.once('exit', () => running.delete(child));
  let said = '';
  for (const stream of [child.stdout, child.stderr]) stream.on('data', (part) => (said += part));
  await expect.poll(() => said, { timeout: 60_000 }).toMatch(/Ready in/);
  return { child, env, through, address: /Sinew: +(\S+)/.exec(said)![1]! };
}

export async function stop({ child }: OpenGym, signal: NodeJS.Signals = 'SIGTERM'): Promise<void> {
  const ended = new Promise((resolve) => child.once('exit', resolve));
  process.kill(-child.pid!, signal);
  await ended;
}

/** The owner is set up on the machine itself. @returns the door's address */
export async function setUp(page: Page, { address }: OpenGym): Promise<string> {
  const { origin } = new URL(address);
  await page.goto(address);
  await page.goto(`${origin}/gym/people`);
  await page.getByLabel('The owner’s name').fill('Ilse Brandt');
  await page.getByLabel('Passcode').fill('harbour-42');
  await page.getByLabel('The same again').fill('harbour-42');
  await page.getByRole('button', { name: 'Set up and open' }).click();
  await expect(page.getByRole('heading', { name: 'Open to the gym’s network' })).toBeVisible();
  const shown = await page.getByLabel('The gym’s network').locator('li').first().innerText();
  // Whatever network a machine of tests has: loopback goes through the door as well.
  return `https://127.0.0.1:${new URL(shown).port}`;
}
