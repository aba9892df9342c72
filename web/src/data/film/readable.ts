/**
 * Films as phones shoot them – HEVC, 10 bits, HDR – made readable for every browser: the machine's own
 * ffmpeg writes them anew as H.264 beside the original, which stays what is kept, backed up and handed on.
 * A frame of the new film is the frame of the old one at the same instant, or the new film is thrown away.
 */
import { execFile, spawn } from 'node:child_process';
import { mkdir, rename, rm, stat } from 'node:fs/promises';
import { constants, setPriority } from 'node:os';
import { dirname } from 'node:path';
import { promisify } from 'node:util';
import { nanoid } from 'nanoid';
import PQueue from 'p-queue';
import type { Db } from '../database/db';
import { logTrouble } from '../log/log';
import { announce } from '../news/news';
import { decodeTimes } from '../bench/placedBlob';
import type { ClipFiles } from './clipFiles';
import { inspectFile } from '../clip/inspectFile';

/** Codes that some browsers do not play, as films name them. */
const UNREADABLE = new Set(['hevc', 'prores']);

const isUnreadable = (codec: string): boolean => UNREADABLE.has(codec);

/** `SINEW_FFMPEG` names another one than the machine's own; empty for none. */
const ffmpeg = () => process.env.SINEW_FFMPEG ?? 'ffmpeg';

/** Seconds that a frame of the new film may be from the old one: a fiftieth of a frame at 1000 a second. */
const OFF = 1e-5 + 1 / 90_000;
/** Milliseconds after which a film is given up. */
const PATIENCE = 30 * 60_000;

const run = promisify(execFile);

const shared = globalThis as {
  sinewReading?: { readonly queue: PQueue; readonly states: Map<string, 'being-made' | 'failed'> };
};
const reading = (shared.sinewReading ??= {
  // Alone: it takes every core there is.
  queue: new PQueue({ concurrency: 1 }),
  states: new Map<string, 'being-made' | 'failed'>(),
});

/** Whether this machine can make films readable. */
export async function canMakeReadable(): Promise<boolean> {
  if (ffmpeg() === '') return false;
  return run(ffmpeg(), ['-hide_banner', '-loglevel', 'error', '-h', 'encoder=libx264']).then(
    ({ stdout }) => stdout.includes('libx264'),
    () => false,
  );
}

export type ReadableState =
  /** Every browser plays it as it is, or there is another film of it by now. */
  'ready' | 'being-made' | 'failed';

export async function readableState(
  db: Db,
  files: ClipFiles,
  clipId: string,
): Promise<ReadableState> {
  const film = await db
    .selectFrom('clip')
    .select(['sha256', 'codec'])
    .where('id', '=', clipId)
    .executeTakeFirst();
  if (!film || !isUnreadable(film.codec)) return 'ready';
  if (await isThere(files.readablePathOf(film.sha256))) return 'ready';
  return reading.states.get(film.sha256) ?? 'failed';
}

const isThere = (path: string) =>
  stat(path).then(
    () => true,
    () => false,
  );

/** Have a film made readable when it is its turn, where it is needed and can be done. */
async function makeLater(files: ClipFiles, row: Row): Promise<void> {
  const { id, student_id, sha256 } = row;
  if (await isThere(files.readablePathOf(sha256))) return;
  if (reading.states.get(sha256) === 'being-made' || !(await canMakeReadable())) return;
  reading.states.set(sha256, 'being-made');
  void reading.queue.add(async () => {
    try {
      await makeReadable(files, { sha256, frameTimes: decodeTimes(row.frame_times) });
      reading.states.delete(sha256);
    } catch (error) {
      reading.states.set(sha256, 'failed');
      logTrouble('film made readable', error);
    }
    announce({ kind: 'clip', clipId: id, studentId: student_id });
  });
}

interface Row {
  readonly id: string;
  readonly student_id: string;
  readonly sha256: string;
  readonly frame_times: Buffer;
}

/**
 * Comes back as soon as they wait for their turn.
 *
 * @param clipId one clip, else all that nobody has made readable yet: the server was stopped, or had no
 *   ffmpeg
 */
export async function makeReadableLater(db: Db, files: ClipFiles, clipId?: string): Promise<void> {
  const rows = await db
    .selectFrom('clip')
    .select(['id', 'student_id', 'sha256', 'frame_times'])
    .where('codec', 'in', [...UNREADABLE])
    .where('deleted_at', 'is', null)
    .where('purged_at', 'is', null)
    .$if(clipId !== undefined, (query) => query.where('id', '=', clipId!))
    .execute();
  await Promise.all(rows.map((row) => makeLater(files, row)));
}

/** @throws when it cannot be made, or is not the same film frame by frame */
export async function makeReadable(
  files: ClipFiles,
  { sha256, frameTimes }: { readonly sha256: string; readonly frameTimes: readonly number[] },
): Promise<void> {
  const place = files.readablePathOf(sha256);
  const making = `${place}.${nanoid()}.mp4`;
  await mkdir(dirname(place), { recursive: true, mode: 0o700 });
  try {
    await files.withFile(sha256, async (from) => encode(await argumentsFor(from, making)));
    const { size } = await stat(making);
    const made = await inspectFile({ path: making, bytes: size });
    if (!areSame(made.frameTimes, frameTimes)) {
      throw new Error('The film made anew has other frames than the original.');
    }
    await rename(making, place);
  } finally {
    await rm(making, { force: true });
  }
}

export const areSame = (made: readonly number[], wanted: readonly number[]): boolean =>
  made.length === wanted.length && made.every((time, i) => Math.abs(time - wanted[i]!) <= OFF);

/**
 * High-dynamic pictures become ordinary ones: linear light, the tone curve of Hable, BT.709.
 * Source: ITU-R BT.2100 for the transfers, FFmpeg's filters zscale and tonemap.
 */
const TO_STANDARD =
  'zscale=t=linear:npl=203,format=gbrpf32le,zscale=p=bt709,tonemap=hable:desat=0,zscale=t=bt709:m=bt709:r=tv';

async function argumentsFor(from: string, to: string): Promise<string[]> {
  const isHigh = await isHighDynamic(from);
  return [
    ...['-hide_banner', '-nostdin', '-loglevel', 'error'],
    // A film asks for no other file and for no network.
    ...['-protocol_whitelist', 'file', '-i', from],
    ...['-map', '0:v:0', '-map', '0:a:0?'],
    // Each frame at its own instant, none doubled, none left out.
    ...['-fps_mode', 'passthrough', '-enc_time_base', '1:90000', '-video_track_timescale', '90000'],
    ...['-vf', `${isHigh ? `${TO_STANDARD},` : ''}format=yuv420p`],
    // A picture that is stepped through: short groups, little lost.
    ...['-c:v', 'libx264', '-preset', 'veryfast', '-crf', '17', '-g', '60', '-bf', '0'],
    ...['-c:a', 'aac', '-b:a', '160k', '-movflags', '+faststart', '-f', 'mp4', to],
  ];
}

async function isHighDynamic(path: string): Promise<boolean> {
  const probe = ffmpeg().replace(/ffmpeg$/, 'ffprobe');
  const asked = ['-v', 'error', '-select_streams', 'v:0', '-show_entries', 'stream=color_transfer'];
  return run(probe, [...asked, '-of', 'csv=p=0', path]).then(
    ({ stdout }) => /smpte2084|arib-std-b67/.test(stdout),
    () => false,
  );
}

function encode(given: readonly string[]): Promise<void> {
  return new Promise((resolve, reject) => {
    const child = spawn(ffmpeg(), given, {
      stdio: ['ignore', 'ignore', 'pipe'],
      timeout: PATIENCE,
    });
    // Coaches at the bench come first.
    if (child.pid) {
      try {
        setPriority(child.pid, constants.priority.PRIORITY_LOW);
      } catch {
        // It may be over already.
      }
    }
    let said = '';
    child.stderr.on('data', (part) => (said = `${said}${String(part)}`.slice(-2000)));
    child.once('error', reject);
    child.once('exit', (code) =>
      code === 0 ? resolve() : reject(new Error(`ffmpeg ended with ${code}: ${said}`)),
    );
  });
}
