/**
 * A real S3-compatible store for a test: OpenStack Swift of Debian's `python3-swift` with its `s3api`, one proxy
 * and one server each for accounts, containers and objects, on loopback and in a folder of the test's own. Only
 * the library is asked for: Debian's packages of the servers would start them as services.
 */
import { spawn, spawnSync, type ChildProcess } from 'node:child_process';
import { mkdirSync, openSync, readFileSync, writeFileSync } from 'node:fs';
import { createServer, type AddressInfo } from 'node:net';
import { userInfo } from 'node:os';
import { join } from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { CreateBucketCommand, S3Client } from '@aws-sdk/client-s3';
import type { S3Place } from '@sinew/web/data/film/s3Place';
import { scratchFolder } from '../scratch';

const KINDS = ['account', 'container', 'object'] as const;
/** Milliseconds until it must answer. */
const PATIENCE = 60_000;

/** Debian's own, which has the library. */
const PYTHON = '/usr/bin/python3';

/** It reads its arguments as the command of that name. */
const BUILDER =
  "import sys; sys.argv[0] = 'swift-ring-builder'; from swift.cli.ringbuilder import main; main()";

const python = (code: string, args: readonly string[], cwd: string) =>
  spawnSync(PYTHON, ['-c', code, ...args], { cwd });

export interface Swift {
  /** Its bucket is there, and empty. */
  readonly place: S3Place;
  readonly client: S3Client;
  /** Ends all its servers, and waits until they are gone. */
  stop(): Promise<void>;
  /** The same store again, at the same address. */
  start(): Promise<void>;
}

export async function swift(): Promise<Swift> {
  const folder = scratchFolder('swift');
  const [proxy, ...ports] = await Promise.all([freePort(), ...KINDS.map(freePort)]);
  mkdirSync(join(folder, 'disks', 'one'), { recursive: true });
  KINDS.forEach((kind, i) => {
    const ring = (...args: string[]) => {
      const { status, stderr } = python(BUILDER, args, folder);
      // 1 is a warning: a ring of one disk is not what it advises.
      if (status !== 0 && status !== 1) throw new Error(`ring builder: ${String(stderr)}`);
    };
    ring(`${kind}.builder`, 'create', '4', '1', '1');
    ring(`${kind}.builder`, 'add', `r1z1-127.0.0.1:${ports[i]}/one`, '1');
    ring(`${kind}.builder`, 'rebalance');
    write(folder, kind, server(folder, kind, ports[i]!));
  });
  writeFileSync(join(folder, 'swift.conf'), '[swift-hash]\nswift_hash_path_suffix = test\n');
  write(folder, 'proxy', front(folder, proxy));
  const place: S3Place = {
    endpoint: `http://127.0.0.1:${proxy}`,
    bucket: 'boathouse',
    region: 'us-east-1',
    prefix: 'clips/',
    key: 'gym:coach',
    secret: 'harbour',
  };
  let running: ChildProcess[] = [];
  const start = async () => {
    running = [...KINDS, 'proxy'].map((kind) => {
      const log = openSync(join(folder, `${kind}.log`), 'a');
      const run = [
        'from swift.common.utils import set_swift_dir',
        'from swift.common.storage_policy import reload_storage_policies',
        'from swift.common.wsgi import run_wsgi',
        `set_swift_dir('${folder}')`,
        'reload_storage_policies()',
        `run_wsgi('${join(folder, kind)}.conf', '${kind}-server')`,
      ].join('; ');
      return spawn(PYTHON, ['-c', run], { cwd: folder, stdio: ['ignore', log, log] });
    });
    const end = Date.now() + PATIENCE;
    // The front answers before those behind it do.
    while (!(await Promise.all([proxy, ...ports].map(answers))).every(Boolean)) {
      const dead = running.find(({ exitCode }) => exitCode !== null);
      if (dead || Date.now() > end) {
        const said = readFileSync(join(folder, 'proxy.log'), 'utf8').slice(-2000);
        throw new Error(`Swift does not start: ${said}`);
      }
      await pause(100);
    }
  };
  const stop = async () => {
    await Promise.all(
      running.map(
        (child) =>
          new Promise<void>((resolve) => {
            if (child.exitCode !== null) return resolve();
            child.once('exit', () => resolve());
            child.kill('SIGKILL');
          }),
      ),
    );
  };
  // Whoever is ended in the middle leaves no server behind.
  process.once('exit', () => running.forEach((child) => child.kill('SIGKILL')));
  await start();
  const client = new S3Client({
    endpoint: place.endpoint,
    region: place.region,
    credentials: { accessKeyId: place.key, secretAccessKey: place.secret },
    forcePathStyle: true,
  });
  await client.send(new CreateBucketCommand({ Bucket: place.bucket }));
  return { place, client, start, stop };
}

const answers = (port: number | undefined) =>
  fetch(`http://127.0.0.1:${port}`).then(
    () => true,
    () => false,
  );

const freePort = () =>
  new Promise<number>((resolve) => {
    const probe = createServer().listen(0, '127.0.0.1', () => {
      const { port } = probe.address() as AddressInfo;
      probe.close(() => resolve(port));
    });
  });

const write = (folder: string, kind: string, parts: Readonly<Record<string, string[]>>) =>
  writeFileSync(
    join(folder, `${kind}.conf`),
    Object.entries(parts)
      .map(([name, lines]) => `[${name}]\n${lines.join('\n')}\n`)
      .join('\n'),
  );

const common = (folder: string, port: number) => [
  'bind_ip = 127.0.0.1',
  `bind_port = ${port}`,
  // In this one process, which is ended with the test.
  'workers = 0',
  `user = ${userInfo().username}`,
  `swift_dir = ${folder}`,
];

const server = (folder: string, kind: string, port: number) => ({
  DEFAULT: [
    ...common(folder, port),
    `devices = ${join(folder, 'disks')}`,
    'mount_check = false',
    `recon_cache_path = ${folder}`,
  ],
  'pipeline:main': [`pipeline = ${kind}-server`],
  [`app:${kind}-server`]: [`use = egg:swift#${kind}`],
});

const front = (folder: string, port: number) => ({
  DEFAULT: common(folder, port),
  'pipeline:main': ['pipeline = catch_errors cache s3api tempauth proxy-server'],
  'app:proxy-server': ['use = egg:swift#proxy', 'account_autocreate = true'],
  'filter:catch_errors': ['use = egg:swift#catch_errors'],
  'filter:cache': ['use = egg:swift#memcache', 'memcache_servers = 127.0.0.1:1'],
  'filter:s3api': [
    'use = egg:swift#s3api',
    'location = us-east-1',
    // Fewer than a real one gives at once, so that a test need not fill a thousand.
    'max_bucket_listing = 50',
  ],
  'filter:tempauth': ['use = egg:swift#tempauth', 'user_gym_coach = harbour .admin'],
});
