/** What a fresh machine needs before anything runs. Only Node's own modules: nothing is installed yet. */
import { spawnSync, spawn } from 'node:child_process';
import { createHash, randomBytes } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, readdirSync, statSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

export const root = join(dirname(fileURLToPath(import.meta.url)), '..', '..');
process.env.NEXT_TELEMETRY_DISABLED = '1';

/** Run a command in the foreground; ends this process when it fails. */
export function run(command, args, { cwd = root, env = {}, title } = {}) {
  if (title) console.log(`\n== ${title}`);
  const result = spawnSync(command, args, {
    cwd,
    stdio: 'inherit',
    env: { ...process.env, ...env },
  });
  if (result.error || result.status !== 0) {
    console.error(
      `\n${command} ${args.join(' ')} failed${result.error ? `: ${result.error.message}` : ''}.`,
    );
    process.exit(result.status || 1);
  }
}

/** Run a program in TypeScript, likewise. */
export function runTypescript(program, args, { flags = [], ...settings } = {}) {
  const threads = join(root, 'scripts', 'typescript.mjs');
  run(process.execPath, [...flags, '--import', threads, program, ...args], settings);
}

/** `npm ci` when packages are missing or older than the lock file; and what is made from them. */
export function ensurePackages() {
  const installed = join(root, 'node_modules', '.package-lock.json');
  const lock = join(root, 'package-lock.json');
  if (!existsSync(installed) || statSync(installed).mtimeMs < statSync(lock).mtimeMs) {
    run('npm', ['ci', '--no-audit', '--no-fund'], { title: 'Installing packages' });
  }
  run(process.execPath, [join(root, 'scripts', 'pose-models.mjs')]);
}

/**
 * Debian's Chromium, with a window and without one, and ffmpeg, for the tests and the screenshots; for the tests its
 * photographs, and a store that speaks S3.
 */
export function ensureBrowser() {
  const missing = [
    ['/usr/bin/chromium', 'chromium'],
    // Named together, so that both are of one version.
    ['/usr/bin/chromium-headless-shell', 'chromium', 'chromium-headless-shell'],
    ['/usr/bin/ffmpeg', 'ffmpeg'],
    ['/usr/share/doc/opencv-doc/examples/data/basketball1.png', 'opencv-doc'],
    ['/usr/lib/python3/dist-packages/swift/__init__.py', 'python3-swift'],
  ].filter(([path]) => !existsSync(path));
  if (missing.length === 0) return;
  const names = [...new Set(missing.flatMap(([, ...packages]) => packages))];
  if (process.getuid?.() !== 0 || !existsSync('/usr/bin/apt-get')) {
    console.error(
      `The tests need ${names.join(' and ')}. Install with: sudo apt-get install ${names.join(' ')}`,
    );
    process.exit(1);
  }
  const env = { DEBIAN_FRONTEND: 'noninteractive' };
  run('apt-get', ['update', '-qq'], { env, title: `Installing ${names.join(', ')}` });
  run('apt-get', ['install', '-y', '-qq', '--no-install-recommends', ...names], { env });
}

function* sources(folder) {
  for (const entry of readdirSync(folder, { withFileTypes: true })) {
    if (['node_modules', '.next', 'test'].includes(entry.name)) continue;
    const path = join(folder, entry.name);
    if (entry.isDirectory()) yield* sources(path);
    else if (
      /\.(ts|tsx|css|svg|json|mjs)$/.test(entry.name) &&
      !/next-env|tsbuildinfo/.test(entry.name)
    )
      yield path;
  }
}

/** Build the app unless this very source has been built already. */
export function ensureBuild() {
  const hash = createHash('sha256').update(readFileSync(join(root, 'package-lock.json')));
  for (const folder of ['core/src', 'web']) {
    for (const path of sources(join(root, folder)))
      hash.update(path.slice(root.length)).update(readFileSync(path));
  }
  const wanted = hash.digest('hex');
  const stamp = join(root, 'web', '.next', 'sinew-build');
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === wanted) return;
  run(bin('next'), ['build'], {
    cwd: join(root, 'web'),
    title: 'Building the app (once, about a minute)',
  });
  writeFileSync(stamp, wanted);
}

/** The compiler that is written for speed: ESLint's rules need the other one, and both call themselves `tsc`. */
export const typescript = join(root, 'node_modules', 'typescript7', 'bin', 'tsc');

export function bin(name) {
  return join(root, 'node_modules', '.bin', name);
}

/** What Sinew keeps shows people: only who runs it may read it. */
const keepPrivate = () => process.umask(0o077);

export function seed(data) {
  keepPrivate();
  runTypescript('src/gym/seed.ts', [], { cwd: join(root, 'demo'), env: { SINEW_DATA: data } });
}

/** What opens the gym in a browser, made once: other users of the machine cannot read it. */
export function keyOf(data) {
  keepPrivate();
  mkdirSync(data, { recursive: true });
  const path = join(data, 'key');
  try {
    writeFileSync(path, randomBytes(24).toString('base64url'), { flag: 'wx', mode: 0o600 });
  } catch (error) {
    if (error.code !== 'EEXIST') throw error;
  }
  return readFileSync(path, 'utf8').trim();
}

function isFree(port) {
  return new Promise((resolve) => {
    const server = createServer()
      .once('error', () => resolve(false))
      .once('listening', () => server.close(() => resolve(true)))
      .listen(port, '127.0.0.1');
  });
}

/**
 * The app on 127.0.0.1 and nowhere else; stops with this process.
 *
 * @param key without which it answers nobody; empty for none
 */
export async function serve({
  data,
  mode = 'start',
  port = Number(process.env.PORT ?? 0),
  key = '',
  env = {},
}) {
  let chosen = port || 4100;
  while (!(await isFree(chosen))) {
    if (port) {
      console.error(`Port ${port} is in use. Choose another with PORT=…`);
      process.exit(1);
    }
    chosen += 1;
  }
  keepPrivate();
  const address = `http://127.0.0.1:${chosen}`;
  console.log(`\nSinew:  ${address}${key ? `/?key=${key}` : ''}`);
  console.log(`Data:   ${data}\nStop:   Ctrl C\n`);
  const child = spawn(bin('next'), [mode, '-H', '127.0.0.1', '-p', String(chosen)], {
    cwd: join(root, 'web'),
    stdio: 'inherit',
    env: { ...process.env, SINEW_DATA: data, SINEW_ADDRESS: address, SINEW_KEY: key, ...env },
  });
  for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => child.kill(signal));
  child.on('exit', (code) => process.exit(code ?? 0));
}
