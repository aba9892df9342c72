/** Short sound films of every container that Sinew takes in, made by Debian's ffmpeg. */
import { spawnSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { scratchFolder } from '../scratch';

const H264 = ['-c:v', 'libx264', '-pix_fmt', 'yuv420p', '-preset', 'ultrafast', '-bf', '2'];
const AAC = ['-c:a', 'aac'];

const CONTAINERS = {
  mp4: ['film.mp4', ...H264, ...AAC, '-movflags', 'faststart'],
  fragmented: ['film.mp4', ...H264, ...AAC, '-movflags', 'frag_keyframe+empty_moov'],
  mov: ['film.mov', ...H264, '-c:a', 'pcm_s16le'],
  webm: [
    'film.webm',
    '-c:v',
    'libvpx',
    '-deadline',
    'realtime',
    '-cpu-used',
    '8',
    '-c:a',
    'libopus',
  ],
  mkv: ['film.mkv', ...H264, ...AAC],
} as const;

export type Container = keyof typeof CONTAINERS;
export const CONTAINER_NAMES = Object.keys(CONTAINERS) as Container[];

/** 60 frames of 64 × 48 pixels with key frames every 20, and a tone. */
export function shortFilm(container: Container): Buffer {
  const [name, ...coding] = CONTAINERS[container];
  const path = join(scratchFolder('film'), name);
  const picture = ['-f', 'lavfi', '-i', 'testsrc=size=64x48:rate=60:duration=1'];
  const sound = ['-f', 'lavfi', '-i', 'sine=frequency=440:duration=1'];
  const all = ['-y', '-loglevel', 'error', ...picture, ...sound, '-g', '20', ...coding, path];
  const { status, stderr } = spawnSync('ffmpeg', all);
  if (status !== 0) throw new Error(`ffmpeg: ${String(stderr)}`);
  return readFileSync(path);
}
