/** A made-up film of a hanging bag that is hit and swings; where it hangs and how far is known. */
import { spawnSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { scratchFolder } from '@sinew/demo/scratch';
import { join } from 'node:path';

const WIDTH = 640;
const HEIGHT = 480;
const RATE = 60;
const FRAMES = 150;
/** Seconds: when it is hit, and how long a whole swing lasts. */
const HIT = 0.5;
const PERIOD = 2;

/** Pixels. */
export const HOOK = { x: 320, y: 30 };
export const MARK = { x: 320, y: 330 };
/** Largest angle, degrees. */
export const SWING = 12;

const angleAt = (time: number) =>
  time < HIT ? 0 : (SWING * Math.PI * Math.sin((2 * Math.PI * (time - HIT)) / PERIOD)) / 180;

function frame(angle: number): Buffer {
  const grey = Buffer.alloc(WIDTH * HEIGHT);
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  for (let y = 0; y < HEIGHT; y++) {
    for (let x = 0; x < WIDTH; x++) {
      const [dx, dy] = [x - HOOK.x, y - HOOK.y];
      const [across, down] = [dx * c - dy * s, dx * s + dy * c];
      const isBag = Math.abs(across) < 60 && down > 120 && down < 420;
      const isChain = Math.abs(across) < 3 && down > 0 && down <= 120;
      const painted = 110 + 50 * Math.sin(across / 7) + 40 * Math.cos(down / 9);
      const wall = 190 + 20 * Math.sin(x / 40) * Math.cos(y / 55);
      grey[y * WIDTH + x] = isBag ? painted : isChain ? 40 : wall;
    }
  }
  return grey;
}

export function bagFilm(): Buffer {
  const frames = Array.from({ length: FRAMES }, (_, i) => frame(angleAt(i / RATE)));
  const path = join(scratchFolder('bag'), 'bag.mp4');
  const input = ['-f', 'rawvideo', '-pix_fmt', 'gray', '-s', `${WIDTH}x${HEIGHT}`];
  const output = ['-c:v', 'libx264', '-pix_fmt', 'yuv420p', '-preset', 'veryfast', path];
  const result = spawnSync(
    'ffmpeg',
    ['-y', '-loglevel', 'error', ...input, '-r', String(RATE), '-i', '-', ...output],
    { input: Buffer.concat(frames), maxBuffer: 1 << 28 },
  );
  if (result.status !== 0) throw new Error(`ffmpeg: ${result.stderr.toString()}`);
  return readFileSync(path);
}
