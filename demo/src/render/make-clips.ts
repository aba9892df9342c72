/**
 * Renders the demo films to `demo/clips` as H.264 MP4 at their true rate. Needs Debian's chromium
 * and ffmpeg; the films are committed, so only someone who changes a fighter runs this:
 *
 *   npm run clips -w demo [-- NAME …]
 */
import { spawn, spawnSync } from 'node:child_process';
import { once } from 'node:events';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { chromium } from '@playwright/test';
import { build } from 'esbuild';
import { frameTimesOf } from '../fighter/track';
import { DEMO_CLIPS } from '../gym/clips';
import { DEMO_TAKE, type TakeFilm } from '../gym/takes';
import type { Subject } from './scene';
import { heardBy, SOUND_RATE, wav } from './sound';

const here = (path: string) => fileURLToPath(new URL(path, import.meta.url));

async function sceneScript(): Promise<string> {
  const bundle = await build({
    entryPoints: [here('./scene.ts')],
    bundle: true,
    write: false,
    format: 'iife',
    target: 'chrome120',
  });
  return bundle.outputFiles[0]!.text;
}

interface Job {
  readonly file: string;
  readonly rate: number;
  readonly times: readonly number[];
  readonly subject: Subject;
  /** A WAV file that is mixed in. */
  readonly sound?: string;
}

const JOBS: readonly Job[] = [
  ...DEMO_CLIPS.map((clip) => ({
    file: clip.file,
    rate: clip.rate,
    times: frameTimesOf(clip.recipe, clip.rate),
    subject: clip,
  })),
  ...DEMO_TAKE.films.map((film) => {
    const count = Math.floor((DEMO_TAKE.duration - film.starts) * film.rate);
    return {
      file: film.file,
      rate: film.rate,
      times: Array.from({ length: count }, (_, i) => film.starts + i / film.rate),
      subject: { take: DEMO_TAKE, film },
      sound: writeSound(film),
    };
  }),
];

/** What the film's microphone hears, as a file of its own. */
function writeSound(film: TakeFilm): string {
  const path = join(mkdtempSync(join(tmpdir(), 'sinew-sound-')), 'heard.wav');
  writeFileSync(path, wav(heardBy(DEMO_TAKE, film), SOUND_RATE));
  return path;
}

/** x264 with B-frames and a key frame every quarter second: what a phone writes, and harder to step. */
function encoder(file: string, rate: number, sound?: string) {
  const args = ['-y', '-loglevel', 'error', '-f', 'image2pipe', '-c:v', 'mjpeg']
    .concat(['-framerate', String(rate), '-i', '-'])
    .concat(sound ? ['-i', sound, '-c:a', 'aac', '-b:a', '96k'] : [])
    .concat(['-c:v', 'libx264', '-preset', 'slow'])
    .concat(['-crf', '21', '-bf', '2', '-g', String(rate / 4), '-pix_fmt', 'yuv420p'])
    .concat(['-movflags', '+faststart', file]);
  return spawn('ffmpeg', args, { stdio: ['pipe', 'inherit', 'inherit'] });
}

async function film(script: string, job: Job): Promise<void> {
  const browser = await chromium.launch({
    executablePath: '/usr/bin/chromium',
    args: ['--no-sandbox', '--disable-quic', '--no-first-run', '--disable-background-networking']
      .concat(['--disable-component-update', '--disable-sync', '--use-gl=angle'])
      .concat(['--use-angle=swiftshader', '--enable-unsafe-swiftshader']),
  });
  try {
    const page = await browser.newPage();
    await page.setContent('<body></body>');
    await page.addScriptTag({ content: script });
    await page.evaluate((one) => window.sinewScene(one), job.subject);
    const ffmpeg = encoder(here(`../../clips/${job.file}`), job.rate, job.sound);
    for (const time of job.times) {
      const url = await page.evaluate((t) => window.sinewFrame(t), time);
      const picture = Buffer.from(url.slice(url.indexOf(',') + 1), 'base64');
      if (!ffmpeg.stdin.write(picture)) await once(ffmpeg.stdin, 'drain');
    }
    ffmpeg.stdin.end();
    const [code] = (await once(ffmpeg, 'exit')) as [number];
    if (code !== 0) throw new Error(`ffmpeg ended with code ${code} on ${job.file}`);
    console.log(`${job.file}: ${job.times.length} frames`);
  } finally {
    await browser.close();
  }
}

/** The app's own simulated camera plays the side view of the take, as a phone would stream it. */
function streamed(): void {
  const [from, to] = ['../../clips/take-side.mp4', '../../../web/public/simulated-camera.mp4'];
  const args = ['-y', '-loglevel', 'error', '-i', here(from), '-r', '60', '-c:v', 'libx264']
    .concat(['-preset', 'slow', '-crf', '23', '-g', '30', '-pix_fmt', 'yuv420p', '-c:a', 'copy'])
    .concat(['-movflags', '+faststart', here(to)]);
  spawnSync('ffmpeg', args, { stdio: 'inherit' });
}

const wanted = process.argv.slice(2);
const script = await sceneScript();
for (const job of JOBS) {
  if (wanted.length === 0 || wanted.includes(job.file)) await film(script, job);
}
streamed();
