/**
 * Renders the demo films to `demo/clips` as H.264 MP4 at their true rate. Needs Debian's chromium
 * and ffmpeg; the films are committed, so only someone who changes a fighter runs this:
 *
 *   npm run clips -w demo [-- NAME …]
 */
import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { fileURLToPath } from 'node:url';
import { chromium } from '@playwright/test';
import { build } from 'esbuild';
import { frameTimesOf } from '../fighter/track';
import { DEMO_CLIPS, type DemoClip } from '../gym/clips';

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

/** x264 with B-frames and a key frame every quarter second: what a phone writes, and harder to step. */
function encoder(file: string, rate: number) {
  const args = ['-y', '-loglevel', 'error', '-f', 'image2pipe', '-c:v', 'mjpeg']
    .concat(['-framerate', String(rate), '-i', '-', '-c:v', 'libx264', '-preset', 'slow'])
    .concat(['-crf', '21', '-bf', '2', '-g', String(rate / 4), '-pix_fmt', 'yuv420p'])
    .concat(['-movflags', '+faststart', file]);
  return spawn('ffmpeg', args, { stdio: ['pipe', 'inherit', 'inherit'] });
}

async function film(script: string, clip: DemoClip): Promise<void> {
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
    await page.evaluate((one) => window.sinewScene(one), clip);
    const ffmpeg = encoder(here(`../../clips/${clip.file}`), clip.rate);
    const times = frameTimesOf(clip.recipe, clip.rate);
    for (const time of times) {
      const url = await page.evaluate((t) => window.sinewFrame(t), time);
      const picture = Buffer.from(url.slice(url.indexOf(',') + 1), 'base64');
      if (!ffmpeg.stdin.write(picture)) await once(ffmpeg.stdin, 'drain');
    }
    ffmpeg.stdin.end();
    const [code] = (await once(ffmpeg, 'exit')) as [number];
    if (code !== 0) throw new Error(`ffmpeg ended with code ${code} on ${clip.file}`);
    console.log(`${clip.file}: ${times.length} frames`);
  } finally {
    await browser.close();
  }
}

const wanted = process.argv.slice(2);
const script = await sceneScript();
for (const clip of DEMO_CLIPS) {
  if (wanted.length === 0 || wanted.includes(clip.file)) await film(script, clip);
}
