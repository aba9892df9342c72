/** Films made on the spot with Debian's ffmpeg, some with their frame number burnt in. */
import { spawnSync } from 'node:child_process';
import { readFileSync, writeFileSync } from 'node:fs';
import { basename, join } from 'node:path';
import { scratchFolder } from '@sinew/demo/scratch';
import { fileURLToPath } from 'node:url';

export const BITS = 10;
const BLOCK = 32;
const WIDTH = BITS * BLOCK;
const HEIGHT = 96;

/** Grey pictures in which block k is white when bit k of the frame's number is 1. */
function numbered(count: number): Buffer {
  const frames = Buffer.alloc(count * WIDTH * HEIGHT);
  for (let n = 0; n < count; n++) {
    for (let y = 0; y < HEIGHT; y++) {
      for (let x = 0; x < WIDTH; x++) {
        const isOn = (n >> Math.floor(x / BLOCK)) & 1;
        frames[(n * HEIGHT + y) * WIDTH + x] = isOn ? 235 : 16;
      }
    }
  }
  return frames;
}

/** Encode with ffmpeg; `args` stand between input and output. */
export function encode(name: string, count: number, rate: number, args: readonly string[]): Buffer {
  const path = join(scratchFolder('film'), name);
  const input = [
    '-f',
    'rawvideo',
    '-pix_fmt',
    'gray',
    '-s',
    `${WIDTH}x${HEIGHT}`,
    '-r',
    String(rate),
  ];
  const all = ['-y', '-loglevel', 'error', ...input, '-i', '-', ...args, path];
  const result = spawnSync('ffmpeg', all, { input: numbered(count), maxBuffer: 1 << 26 });
  if (result.status !== 0) throw new Error(`ffmpeg: ${result.stderr.toString()}`);
  return readFileSync(path);
}

/** The same film with a note that it is to be shown turned by a quarter. */
function turned(film: Buffer): Buffer {
  const folder = scratchFolder('film');
  const [from, to] = [join(folder, 'level.mp4'), join(folder, 'turned.mov')];
  writeFileSync(from, film);
  const note = ['-c', 'copy', '-metadata:s:v:0', 'rotate=90'];
  spawnSync('ffmpeg', ['-y', '-loglevel', 'error', '-i', from, ...note, to]);
  return readFileSync(to);
}

const H264 = ['-c:v', 'libx264', '-pix_fmt', 'yuv420p', '-preset', 'veryfast'];

export const FILMS = {
  'H.264 with B-frames': () =>
    encode('b.mp4', 150, 240, [...H264, '-bf', '3', '-b_strategy', '0', '-g', '60']),
  'H.264 at a variable rate': () =>
    encode('vfr.mov', 120, 60, [
      ...H264,
      ...['-bf', '2', '-g', '40', '-fps_mode', 'passthrough', '-enc_time_base', '1:9000'],
      // Every frame waits a different while: 1, 2 or 3 sixtieths.
      ...['-vf', "settb=1/9000,setpts='(N+floor(N/3)+2*floor(N/5))*150'"],
    ]),
  'H.264 with 10 bits': () =>
    encode('ten.mp4', 120, 60, [
      '-c:v',
      'libx264',
      '-pix_fmt',
      'yuv420p10le',
      '-bf',
      '2',
      '-g',
      '50',
    ]),
  'H.264 filmed upright on a phone': () => turned(encode('t.mp4', 120, 60, [...H264, '-g', '50'])),
  VP9: () =>
    encode('v.webm', 120, 60, [
      '-c:v',
      'libvpx-vp9',
      '-deadline',
      'realtime',
      '-cpu-used',
      '8',
      '-g',
      '50',
    ]),
} as const;

/** A film in a code that browsers do not play, and a sound without a picture. */
export const foreignCodec = () => encode('m.mp4', 30, 30, ['-c:v', 'mpeg4']);

export function soundOnly(): Buffer {
  const path = join(scratchFolder('film'), 's.mp4');
  spawnSync('ffmpeg', [
    '-y',
    '-loglevel',
    'error',
    '-f',
    'lavfi',
    '-i',
    'sine=d=1',
    '-c:a',
    'aac',
    path,
  ]);
  return readFileSync(path);
}

/** A take of the simulated camera at 30 frames a second, over and over for so many seconds. */
export function longFilm(seconds: number): string {
  const folder = scratchFolder('film');
  const [once, long] = [join(folder, 'once.mp4'), join(folder, 'long.mp4')];
  const from = fileURLToPath(new URL('../../web/public/simulated-camera.mp4', import.meta.url));
  const run = (args: readonly string[]) => {
    const { status, stderr } = spawnSync('ffmpeg', ['-y', '-loglevel', 'error', ...args]);
    if (status !== 0) throw new Error(`ffmpeg: ${stderr.toString()}`);
  };
  run(['-i', from, '-r', '30', ...H264, '-c:a', 'copy', once]);
  run([
    '-stream_loop',
    String(Math.ceil(seconds / 6)),
    '-i',
    once,
    '-t',
    String(seconds),
    '-c',
    'copy',
    long,
  ]);
  return long;
}

/** A film with fewer frames a second and no sound: its body is found so much sooner. */
export function thinned(film: string, rate: number) {
  const name = basename(film);
  const path = join(scratchFolder('film'), name);
  const args = ['-y', '-loglevel', 'error', '-i', film, '-vf', `fps=${rate}`, '-an'];
  spawnSync('ffmpeg', [...args, ...H264, path]);
  return { name, mimeType: 'video/mp4', buffer: readFileSync(path) };
}

/** Two films beside each other, the middle half of each: two people in one picture. */
export function sideBySide(left: string, right: string): Buffer {
  const path = join(scratchFolder('film'), 'two.mp4');
  const half = 'fps=60,crop=640:720:320:0';
  const filter = `[0:v]${half}[a];[1:v]${half}[b];[a][b]hstack`;
  const args = ['-y', '-loglevel', 'error', '-i', left, '-i', right, '-filter_complex', filter];
  spawnSync('ffmpeg', [...args, ...H264, '-t', '1', path]);
  return readFileSync(path);
}
