/** Films as phones shoot them, made readable: frame by frame the same, the original kept. */
import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import { scratchFolder } from '@sinew/demo/scratch';
import { closeAccess } from '@/data/access/accessDb';
import { inspectFile } from '@/data/clip/inspectFile';
import { areSame, makeReadable, readableState } from '@/data/film/readable';
import { clearTransfers } from '@/data/maintenance/sweep';
import { onNews } from '@/data/news/news';
import { startApp, type TestApp } from './app';
import { student } from './support';

vi.mock('next/cache', () => ({ revalidatePath: vi.fn() }));

let app: TestApp;
beforeAll(async () => {
  app = await startApp();
});
afterAll(async () => {
  await closeAccess();
  await app.stop();
});

/** A film of Debian's ffmpeg, coded by x265. */
function film(name: string, input: readonly string[], output: readonly string[]): string {
  const path = join(scratchFolder('hevc'), name);
  const given = ['-y', '-loglevel', 'error', ...input, ...output];
  const { status, stderr } = spawnSync('ffmpeg', [...given, path]);
  if (status !== 0) throw new Error(String(stderr));
  return path;
}
const pattern = (rate: number, frames: number) => [
  ...['-f', 'lavfi', '-i', `testsrc2=s=320x240:r=${rate}`, '-frames:v', String(frames)],
];
const HEVC = ['-c:v', 'libx265', '-preset', 'ultrafast', '-x265-params', 'log-level=error'];

/** @returns the path of what is shown, and both as they are inspected */
async function made(path: string) {
  const bytes = readFileSync(path);
  const sha256 = createHash('sha256').update(bytes).digest('hex');
  const original = await inspectFile({ path, bytes: bytes.length });
  const { files } = app.gym;
  await files.keep({ path, sha256, bytes: bytes.length });
  await makeReadable(files, { sha256, frameTimes: original.frameTimes });
  const shown = files.readablePathOf(sha256);
  const anew = await inspectFile({ path: shown, bytes: readFileSync(shown).length });
  return { shown, original, anew, sha256 };
}

/** Frames as the reference decoder sees them, in 8 bits of brightness, small. */
function pictures(path: string): Buffer {
  const given = ['-v', 'error', '-i', path, '-fps_mode', 'passthrough', '-vf', 'scale=32:24'];
  return spawnSync('ffmpeg', [...given, '-f', 'rawvideo', '-pix_fmt', 'gray', '-'], {
    maxBuffer: 1e8,
  }).stdout;
}

describe('a film that not every browser plays', () => {
  it.each([30, 120, 240])('at %i a second keeps every frame at its instant', async (rate) => {
    const path = film('a.mp4', pattern(rate, 48), [
      ...HEVC,
      '-pix_fmt',
      'yuv420p10le',
      '-tag:v',
      'hvc1',
    ]);
    const before = pictures(path);
    const { original, anew, shown } = await made(path);
    expect([original.codec, anew.codec]).toEqual(['hevc', 'avc']);
    expect(anew.frameTimes).toHaveLength(48);
    for (const [i, time] of anew.frameTimes.entries()) {
      expect(Math.abs(time - original.frameTimes[i]!)).toBeLessThan(2.2e-5);
    }
    // Each is the picture that it was: far nearer to it than to its neighbours.
    const after = pictures(shown);
    expect(after.length).toBe(before.length);
    let off = 0;
    for (let i = 0; i < after.length; i++) off += Math.abs(after[i]! - before[i]!);
    expect(off / after.length).toBeLessThan(3);
  });

  it('with an uneven rate, its sound and a turned picture stays as uneven, with sound, upright', async () => {
    const input = [
      ...['-f', 'lavfi', '-i', 'testsrc2=s=320x240:r=60:d=1'],
      ...['-f', 'lavfi', '-i', 'sine=frequency=440:duration=1', '-shortest'],
    ];
    const uneven = [
      ...['-vf', "settb=1/9000,setpts='(N+0.4*mod(N,3))/60/TB'"],
      ...['-fps_mode', 'passthrough', '-enc_time_base', '1:9000'],
    ];
    const level = film('level.mp4', input, [...uneven, ...HEVC, '-c:a', 'aac']);
    const path = film('turned.mp4', ['-i', level], ['-c', 'copy', '-metadata:s:v:0', 'rotate=90']);
    const { original, anew, shown } = await made(path);
    expect([original.width, original.height]).toEqual([240, 320]);
    expect([anew.width, anew.height]).toEqual([240, 320]);
    const steps = new Set(
      anew.frameTimes.slice(1).map((t, i) => (t - anew.frameTimes[i]!).toFixed(3)),
    );
    expect(steps.size).toBeGreaterThan(1);
    const sound = spawnSync('ffprobe', [
      '-v',
      'error',
      '-show_entries',
      'stream=codec_name',
      shown,
    ]);
    expect(String(sound.stdout)).toContain('aac');
  });

  it('of high dynamic range becomes an ordinary picture, not a washed-out one', async () => {
    const hlg = 'transfer=arib-std-b67:colorprim=bt2020:colormatrix=bt2020nc:log-level=error';
    const path = film('hdr.mp4', pattern(60, 12), [
      ...['-c:v', 'libx265', '-preset', 'ultrafast', '-x265-params', hlg],
      ...['-pix_fmt', 'yuv420p10le', '-color_trc', 'arib-std-b67', '-color_primaries', 'bt2020'],
      ...['-colorspace', 'bt2020nc'],
    ]);
    const { shown, anew } = await made(path);
    expect(anew.frameTimes).toHaveLength(12);
    const asked = [
      '-v',
      'error',
      '-show_entries',
      'stream=pix_fmt,color_transfer',
      '-of',
      'csv=p=0',
    ];
    const told = String(spawnSync('ffprobe', [...asked, shown]).stdout);
    expect(told).toContain('yuv420p');
    expect(told).not.toContain('arib-std-b67');
  });

  it('is thrown away when it is not the same frame by frame', async () => {
    const path = film('b.mp4', pattern(60, 12), HEVC);
    const bytes = readFileSync(path);
    const sha256 = createHash('sha256').update(bytes).digest('hex');
    const { files } = app.gym;
    await files.keep({ path, sha256, bytes: bytes.length });
    const wrong = Array.from({ length: 13 }, (_, i) => i / 60);
    await expect(makeReadable(files, { sha256, frameTimes: wrong })).rejects.toThrow(
      /other frames/,
    );
    expect(readdirSync(dirname(files.readablePathOf(sha256)))).toEqual([]);
    expect(areSame([0, 0.1], [0, 0.1 + 5e-5])).toBe(false);
    expect(areSame([0, 0.1], [0, 0.1 + 1e-5])).toBe(true);
  });

  it('is shown as soon as it is made; the original is what is kept, and takes it along when it goes', async () => {
    const path = film('c.mp4', pattern(60, 24), HEVC);
    const bytes = readFileSync(path);
    const who = await student(app.gym);
    const heard = new Promise<void>((resolve) => {
      let times = 0;
      const stop = onNews(() => {
        times += 1;
        if (times < 2) return;
        stop();
        resolve();
      });
    });
    const query = new URLSearchParams({ student: who, name: 'c.mp4', view: 'side' });
    const answer = await app.fetch(`/api/clips?${query}`, { method: 'POST', body: bytes });
    const { id } = (await answer.json()) as { id: string };
    const state = () => readableState(app.gym.db, app.gym.files, id);
    // Nobody may look into it while it is being made.
    const lease = async () => {
      const init = { method: 'POST', body: JSON.stringify({ worker: 'laptop-one' }) };
      return (
        (await (await app.fetch(`/api/clips/${id}/lease`, init)).json()) as { isYours: boolean }
      ).isYours;
    };
    expect(await state()).toBe('being-made');
    expect(await lease()).toBe(false);
    await heard;
    expect(await state()).toBe('ready');
    expect(await lease()).toBe(true);
    const served = await app.fetch(`/api/clips/${id}/file`);
    expect(served.headers.get('content-type')).toBe('video/mp4');
    expect(served.headers.get('etag')).toMatch(/-readable"$/);
    const shown = new Uint8Array(await served.arrayBuffer());
    expect(shown).not.toEqual(new Uint8Array(bytes));
    const sha256 = createHash('sha256').update(bytes).digest('hex');
    const { files } = app.gym;
    expect(readFileSync(files.shelf.pathOf(sha256)!)).toEqual(bytes);
    await files.remove(sha256);
    expect(existsSync(files.readablePathOf(sha256))).toBe(false);
  });

  it('whose original is gone is swept', async () => {
    const { sha256, shown } = await made(film('d.mp4', pattern(60, 13), HEVC));
    const later = new Date(Date.now() + 2 * 3_600_000);
    await clearTransfers(app.gym.files, later);
    expect(existsSync(shown)).toBe(true);
    rmSync(app.gym.files.shelf.pathOf(sha256)!);
    await clearTransfers(app.gym.files, later);
    expect(existsSync(shown)).toBe(false);
  });

  it('stays as it is where there is no ffmpeg', async () => {
    process.env.SINEW_FFMPEG = '/nowhere/ffmpeg';
    const told = await (await app.fetch('/api/readable')).json();
    expect(told).toEqual({ isAble: false });
    delete process.env.SINEW_FFMPEG;
    expect(await (await app.fetch('/api/readable')).json()).toEqual({ isAble: true });
  });
});
