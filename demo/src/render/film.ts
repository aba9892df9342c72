/** Renders made-up films to H.264 MP4 at their true rate, with Debian's chromium and ffmpeg. */
import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { fileURLToPath } from 'node:url';
import { chromium } from '@playwright/test';
import { build } from 'esbuild';
import type { Subject } from './scene';

export interface FilmJob {
  /** Where it goes. */
  readonly path: string;
  readonly rate: number;
  readonly times: readonly number[];
  readonly subject: Subject;
  /** A WAV file that is mixed in. */
  readonly sound?: string;
  /** x264's constant rate factor: the larger, the worse the picture; 21 when missing. */
  readonly crf?: number;
  /** How long the shutter is open, seconds; a moment when missing. */
  readonly exposure?: number;
}

async function sceneScript(): Promise<string> {
  const bundle = await build({
    entryPoints: [fileURLToPath(new URL('./scene.ts', import.meta.url))],
    bundle: true,
    write: false,
    format: 'iife',
    target: 'chrome120',
  });
  return bundle.outputFiles[0]!.text;
}

/** x264 with B-frames and a key frame every quarter second: what a phone writes, and harder to step. */
function encoder({ path, rate, sound, crf = 21 }: FilmJob) {
  const args = ['-y', '-loglevel', 'error', '-f', 'image2pipe', '-c:v', 'mjpeg']
    .concat(['-framerate', String(rate), '-i', '-'])
    .concat(sound ? ['-i', sound, '-c:a', 'aac', '-b:a', '96k'] : [])
    .concat(['-c:v', 'libx264', '-preset', 'slow'])
    .concat(['-crf', String(crf), '-bf', '2', '-g', String(rate / 4), '-pix_fmt', 'yuv420p'])
    .concat(['-movflags', '+faststart', path]);
  return spawn('ffmpeg', args, { stdio: ['pipe', 'inherit', 'inherit'] });
}

/** @returns a function that renders one film after the other, each in a browser of its own */
export async function filmMaker(): Promise<(job: FilmJob) => Promise<void>> {
  const script = await sceneScript();
  return async (job) => {
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
      const ffmpeg = encoder(job);
      for (const time of job.times) {
        const url = await page.evaluate(
          ([t, exposure]) => window.sinewFrame(t!, exposure!),
          [time, job.exposure ?? 0],
        );
        const picture = Buffer.from(url.slice(url.indexOf(',') + 1), 'base64');
        if (!ffmpeg.stdin.write(picture)) await once(ffmpeg.stdin, 'drain');
      }
      ffmpeg.stdin.end();
      const [code] = (await once(ffmpeg, 'exit')) as [number];
      if (code !== 0) throw new Error(`ffmpeg ended with code ${code} on ${job.path}`);
    } finally {
      await browser.close();
    }
  };
}
