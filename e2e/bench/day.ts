/**
 * How many coaches one machine carries: each opens the floor, a student and a bench, saves marks and adds a film,
 * one deed after the other with two seconds to think between. The same with films in a store that speaks S3.
 */
import { randomBytes, randomUUID } from 'node:crypto';
import { readFileSync, rmSync } from 'node:fs';
import { scratchFolder } from '@sinew/demo/scratch';
import { swift } from '@sinew/demo/store/swift';
import { demoClip } from '../support/gym';
import { fillGym } from './fillGym';
import { start, type Started } from './startServer';

const PORT = 4317;
const COACHES = [1, 4, 8, 16, 32, 64];
/** Seconds of each, after a warm-up. */
const SECONDS = 30;
/** Milliseconds between a deed and the next; a coach at work takes more. */
const THINKS = 2000;
/** Milliseconds that a coach does not mind to wait for. */
const PATIENCE = 1000;

const film = readFileSync(demoClip('cross-clean.mp4'));
/** Bytes: a film of some seconds as phones shoot it. */
const AS_LARGE = 16e6;

/** The same film with bytes of its own at the end, in a box that every reader skips: another hash. */
function anotherFilm(): Buffer {
  const filling = randomBytes(AS_LARGE - film.length - 8);
  const box = Buffer.alloc(8);
  box.writeUInt32BE(8 + filling.length);
  box.write('free', 4, 'latin1');
  return Buffer.concat([film, box, filling]);
}

type Deed = (i: number) => Promise<void>;

function deedsOf({ url }: Started, ids: readonly string[]): Readonly<Record<string, Deed>> {
  const asked = async (path: string, init: RequestInit = {}) => {
    const headers = { connection: 'close', ...init.headers };
    const answer = await fetch(url + path, { ...init, headers });
    const body = Buffer.from(await answer.arrayBuffer());
    if (!answer.ok)
      throw new Error(`${path}: ${answer.status} ${body.subarray(0, 200).toString()}`);
    return body;
  };
  const clip = (i: number) => `clip-${i % ids.length}-${i % 20}`;
  return {
    floor: async () => void (await asked('/')),
    student: async (i) => void (await asked(`/students/${ids[i % ids.length]}`)),
    bench: async (i) => void (await asked(`/bench/${clip(i)}`)),
    save: async (i) => {
      const facts = JSON.parse((await asked(`/api/clips/${clip(i)}/facts`)).toString()) as {
        bench: { revision: number; document: object };
      };
      await fetch(`${url}/api/clips/${clip(i)}/bench`, {
        method: 'PUT',
        headers: { 'content-type': 'application/json', connection: 'close' },
        body: JSON.stringify({ revision: facts.bench.revision, document: facts.bench.document }),
      });
    },
    'add a film': async (i) => {
      const about = new URLSearchParams({
        student: ids[i % ids.length]!,
        name: `${randomUUID()}.mp4`,
        view: 'side',
      });
      const headers = { 'content-type': 'application/octet-stream' };
      const body = new Uint8Array(anotherFilm());
      await asked(`/api/clips?${about}`, { method: 'POST', headers, body });
    },
  };
}

/** @returns whether everybody was answered in time */
async function day(name: string, server: Started, ids: readonly string[], coaches: number) {
  const deeds = Object.entries(deedsOf(server, ids));
  const took = new Map(deeds.map(([what]) => [what, [] as number[]]));
  const end = performance.now() + 1000 * SECONDS;
  let count = 0;
  const coach = async (number: number) => {
    await new Promise((resolve) => setTimeout(resolve, (THINKS * number) / coaches));
    for (let i = number * 31; performance.now() < end; i++) {
      const [what, deed] = deeds[i % deeds.length]!;
      const began = performance.now();
      await deed(i);
      took.get(what)!.push(performance.now() - began);
      count += 1;
      await new Promise((resolve) => setTimeout(resolve, THINKS));
    }
  };
  await Promise.all(Array.from({ length: coaches }, (_, i) => coach(i)));
  const slow = [...took].map(([what, all]) => {
    all.sort((a, b) => a - b);
    return { what, p95: Math.round(all[Math.floor(0.95 * (all.length - 1))] ?? 0) };
  });
  const films = (took.get('add a film')!.length / SECONDS) * 60;
  console.log(
    `${name}, ${coaches} coaches: ${(count / SECONDS).toFixed(1)} deeds a second, ${films.toFixed(0)} films a minute; p95 ` +
      slow.map(({ what, p95 }) => `${what} ${p95} ms`).join(', '),
  );
  return slow.every(({ p95 }) => p95 <= PATIENCE);
}

async function days(name: string, env: Readonly<Record<string, string>>) {
  const folder = scratchFolder('day');
  const ids = await fillGym(folder);
  Object.assign(process.env, env);
  const server = await start(folder, PORT);
  for (const variable of Object.keys(env)) delete process.env[variable];
  try {
    // The backup that a start makes, and what it measures, are over before anything is timed.
    await new Promise((resolve) => setTimeout(resolve, 45_000));
    await day(`${name}, warming up`, server, ids, 2);
    let most = 0;
    for (const coaches of COACHES) {
      if (!(await day(name, server, ids, coaches))) break;
      most = coaches;
    }
    console.log(
      `${name}: ${most} coaches are answered within ${PATIENCE} ms in 95 of 100 cases; memory ${Math.round(server.memory() / 1e6)} MB`,
    );
  } finally {
    server.stop();
    rmSync(folder, { recursive: true, force: true });
  }
}

await days('films on this machine', {});
const store = await swift();
try {
  const { endpoint, bucket, region, prefix, key, secret } = store.place;
  await days('films in a store', {
    SINEW_S3_ENDPOINT: endpoint,
    SINEW_S3_BUCKET: bucket,
    SINEW_S3_REGION: region,
    SINEW_S3_PREFIX: prefix,
    SINEW_S3_KEY: key,
    SINEW_S3_SECRET: secret,
  });
} finally {
  await store.stop();
}
