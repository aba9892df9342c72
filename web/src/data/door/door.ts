/** Opens this machine to the gym's network, and shuts it again. Shut whenever the server starts. */
import { mkdir, readFile } from 'node:fs/promises';
import { createServer, isIPv4 } from 'node:net';
import { dirname, join } from 'node:path';
import { Worker } from 'node:worker_threads';
import { refused } from '@sinew/core/foundation/problem/problem';
import { accessDb } from '../access/accessDb';
import { hasOwner } from '../access/people';
import { isDemo } from '../access/whoAsks';
import { dataFolder } from '../database/dataFolder';
import { writeWhole } from '../database/writeWhole';
import { logTrouble } from '../log/log';
import { inAddress, ownNames, ownNumbers } from './addresses';
import { answersTo, doorMark } from './byDoor';
import { certificateFor } from './certificate';

export interface DoorOrder {
  readonly cert: string;
  readonly key: string;
  readonly port: number;
  /** The server that this machine alone can reach. */
  readonly inside: { readonly host: string; readonly port: number };
  readonly mark: string;
}

export type DoorWord =
  { readonly kind: 'open' } | { readonly kind: 'failed'; readonly code: string };

export interface OpenDoor {
  /** Where phones find it, the likeliest first. */
  readonly addresses: readonly string[];
  /** Of its certificate, SHA-256. */
  readonly fingerprint: string;
  /** Browsers ask once whether to believe it. */
  readonly isOwnMade: boolean;
}

interface Opened extends OpenDoor {
  readonly worker: Worker;
}

const shared = globalThis as { sinewDoor?: Promise<Opened> | undefined };

const FIRST_PORT = 4143;

/** @returns null while it is shut */
export async function doorNow(): Promise<OpenDoor | null> {
  const open = await shared.sinewDoor?.catch(() => null);
  return open ? toldOf(open) : null;
}

const toldOf = ({ addresses, fingerprint, isOwnMade }: Opened): OpenDoor => ({
  addresses,
  fingerprint,
  isOwnMade,
});

/** @throws Problem `refused` when it may not or cannot be opened */
export async function openDoor(): Promise<OpenDoor> {
  if (isDemo()) throw refused('The demo stays on this machine.', 'Open your own gym: npm start.');
  if (!(await hasOwner(await accessDb()))) {
    throw refused('Nobody is the owner yet.', 'Set up the owner first, then open the gym.');
  }
  shared.sinewDoor ??= opened().catch((error: unknown) => {
    shared.sinewDoor = undefined;
    throw error;
  });
  return toldOf(await shared.sinewDoor);
}

export async function shutDoor(): Promise<void> {
  const open = shared.sinewDoor;
  shared.sinewDoor = undefined;
  answersTo(new Set());
  await (await open?.catch(() => null))?.worker.terminate();
}

async function opened(): Promise<Opened> {
  const inside = new URL(process.env.SINEW_ADDRESS ?? 'http://127.0.0.1:4100');
  const numbers = ownNumbers();
  const mine = [...numbers, ...ownNames(), '127.0.0.1'];
  const certificate = await certificateFor(dataFolder(), mine);
  const names = certificate.isOwnMade ? [] : certificate.hosts;
  const port = await doorPort();
  const hosts = [...new Set([...names, ...mine])].map((host) => `${inAddress(host)}:${port}`);
  const order: DoorOrder = {
    cert: certificate.cert,
    key: certificate.key,
    port,
    inside: { host: inside.hostname, port: Number(inside.port) },
    mark: doorMark(),
  };
  const worker = await listening(order);
  const looking = setInterval(() => void followAddresses(worker, numbers), LOOKED_EVERY).unref();
  worker.once('exit', () => clearInterval(looking));
  await keepPort(port);
  answersTo(new Set(hosts));
  return {
    worker,
    addresses: hosts
      .filter((host) => names.length > 0 || !/^(localhost|127\.)/.test(host))
      .concat(numbers.length === 0 ? [`127.0.0.1:${port}`] : [])
      .map((host) => `https://${host}`),
    fingerprint: certificate.fingerprint,
    isOwnMade: certificate.isOwnMade,
  };
}

/** Milliseconds between two looks at whether the gym's network has given this machine another address. */
const LOOKED_EVERY = 10_000;

/** Phones ask at the new address, and it must be in the certificate. */
async function followAddresses(worker: Worker, before: readonly string[]): Promise<void> {
  // Numbers of IPv6 come and go by themselves, for privacy; phones are shown those of IPv4.
  const [now, then] = [ownNumbers(), before].map((all) => all.filter(isIPv4));
  // Away from every network it is better to stand where it stood.
  if (now!.length === 0 || now!.join() === then!.join()) return;
  const open = await shared.sinewDoor?.catch(() => null);
  if (open?.worker !== worker) return;
  await shutDoor();
  await openDoor().catch((error: unknown) => logTrouble('door', error));
}

function listening(order: DoorOrder): Promise<Worker> {
  const worker = new Worker(new URL('./door.worker.ts', import.meta.url), { workerData: order });
  worker.unref();
  return new Promise((resolve, reject) => {
    const failed = (why: string) => {
      void worker.terminate();
      reject(refused(`The gym could not be opened: ${why}.`, 'Try again.'));
    };
    worker.once('message', (word: DoorWord) =>
      word.kind === 'open' ? resolve(worker) : failed(word.code),
    );
    worker.once('error', (error) => failed(error.message));
    worker.once('exit', () => void foundShut(worker));
  });
}

/** One that has ended by itself is shut for whoever looks; another one may be open by now. */
async function foundShut(worker: Worker): Promise<void> {
  const open = await shared.sinewDoor?.catch(() => null);
  if (open?.worker === worker) await shutDoor();
}

const portFile = () => join(dataFolder(), 'door', 'port');

/** The gym is open either way. */
async function keepPort(port: number): Promise<void> {
  try {
    await mkdir(dirname(portFile()), { recursive: true, mode: 0o700 });
    await writeWhole(portFile(), String(port));
  } catch (error) {
    logTrouble('door', error);
  }
}

/** The port that was asked for, the one of the last time – phones keep its address – or the first that nobody has. */
async function doorPort(): Promise<number> {
  const asked = Number(process.env.SINEW_GYM_PORT ?? 0);
  if (asked) return asked;
  const last = Number(
    await readFile(/* turbopackIgnore: true */ portFile(), 'utf8').catch(() => 0),
  );
  if (last > 0 && (await isFree(last))) return last;
  for (let port = FIRST_PORT; port < FIRST_PORT + 200; port++) {
    if (await isFree(port)) return port;
  }
  throw refused('No port is free for the gym’s network.', 'Name one with SINEW_GYM_PORT.');
}

const isFree = (port: number) =>
  new Promise<boolean>((resolve) => {
    const probe = createServer()
      .once('error', () => resolve(false))
      .once('listening', () => probe.close(() => resolve(true)))
      .listen(port);
  });
