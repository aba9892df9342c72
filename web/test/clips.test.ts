import { existsSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { beforeEach, describe, expect, it } from 'vitest';
import { ClipFiles } from '@/data/film/clipFiles';
import { loadBench, saveBench } from '@/data/bench/bench';
import { addClip, clipById, clipSummaries } from '@/data/clip/clips';
import { destroyClip } from '@/data/clip/clipEnds';
import { withdrawConsent } from '@/data/student/students';
import {
  AT_ONCE,
  emptyGym,
  film,
  markedClip,
  newClip,
  streamOf,
  student,
  type TestGym,
} from './support';

const demo = film('cross-clean.mp4');
let gym: TestGym;
beforeEach(async () => {
  gym = await emptyGym();
});

const kept = () => {
  const path = join(gym.folder, 'clips');
  return existsSync(path)
    ? readdirSync(path, { recursive: true }).filter((one) => String(one).endsWith('.bin'))
    : [];
};
const leftovers = () => {
  const path = join(gym.folder, 'incoming');
  return existsSync(path) ? readdirSync(path) : [];
};
const rows = async () =>
  (await gym.db.selectFrom('clip').select('id').where('deleted_at', 'is', null).execute()).length;
const add = (studentId: string, bytes: Uint8Array = demo) =>
  addClip(gym.db, gym.files, newClip(studentId, bytes));

describe('taking in a clip', () => {
  it('keeps the file by its contents and knows its frames', async () => {
    const { id, isKnown } = await add(await student(gym));
    const clip = (await clipById(gym.db, id))!;
    expect(isKnown).toBe(false);
    expect(clip).toMatchObject({ width: 1280, height: 720, bytes: demo.length });
    expect(clip.frameTimes).toHaveLength(279);
    // 240 frames a second: the film's own clock, read from its tables.
    expect(clip.frameTimes[240]! - clip.frameTimes[0]!).toBeCloseTo(1, 6);
    expect(kept()).toHaveLength(1);
    expect(leftovers()).toEqual([]);
  });

  it('takes the same file twice as one clip, and one file for two students', async () => {
    const [first, second] = [await student(gym), await student(gym)];
    const { id } = await add(first);
    expect(await add(first)).toEqual({ id, isKnown: true });
    await add(second);
    expect([await rows(), kept().length, leftovers()]).toEqual([2, 1, []]);
    await destroyClip(gym.db, gym.files, id);
    expect([await rows(), kept().length]).toEqual([1, 1]);
    const [left] = await clipSummaries(gym.db, second);
    await destroyClip(gym.db, gym.files, left!.id);
    expect([await rows(), kept().length]).toEqual([0, 0]);
  });

  it('sent four times at once is one clip, for everybody who sent it', async () => {
    const id = await student(gym);
    const bytes = film('cross-jammed.mp4');
    const all = await Promise.all(
      Array.from({ length: 4 }, () => addClip(gym.db, gym.files, newClip(id, bytes))),
    );
    expect(new Set(all.map((one) => one.id)).size).toBe(1);
    expect(all.filter(({ isKnown }) => !isKnown)).toHaveLength(1);
    const rows = await gym.db
      .selectFrom('clip')
      .select('id')
      .where('student_id', '=', id)
      .execute();
    expect(rows).toHaveLength(1);
    expect(readdirSync(join(gym.folder, 'incoming'))).toEqual([]);
    expect(await gym.files.size((await clipById(gym.db, all[0]!.id))!.sha256)).toBe(bytes.length);
  });

  it('leaves nothing of a file that is not a film', async () => {
    const id = await student(gym);
    const cases: [Uint8Array, RegExp][] = [
      [Buffer.from('words'), /not a video file/],
      [demo.subarray(0, demo.length / 3), /cut short/],
      [new Uint8Array(0), /empty/],
    ];
    for (const [bytes, message] of cases) await expect(add(id, bytes)).rejects.toThrow(message);
    expect([await rows(), kept().length, leftovers()]).toEqual([0, 0, []]);
  });

  it('needs consent, a guardian’s for a minor, also when it ends on the way', async () => {
    const minor = await student(gym, { isMinor: true, consent: 'student' });
    await expect(add(minor)).rejects.toThrow(/guardian/);
    await expect(add(await student(gym, { consent: null }))).rejects.toThrow(
      /consent to be filmed/,
    );
    await expect(add('nobody')).rejects.toThrow(/not in the gym/);
    const late = await student(gym);
    const stream = new ReadableStream<Uint8Array>({
      async start(controller) {
        controller.enqueue(demo);
        await withdrawConsent(gym.db, late, '2027-01-01');
        controller.close();
      },
    });
    const clip = newClip(late, demo, { stream });
    await expect(addClip(gym.db, gym.files, clip)).rejects.toThrow(/consent/);
    expect([await rows(), kept().length, leftovers()]).toEqual([0, 0, []]);
  });

  it('leaves nothing when the transfer breaks off or says another size', async () => {
    const id = await student(gym);
    const broken = new ReadableStream<Uint8Array>({
      start(controller) {
        controller.enqueue(demo.subarray(0, 1000));
        controller.error(new Error('gone'));
      },
    });
    const cut = newClip(id, demo, { stream: broken });
    await expect(addClip(gym.db, gym.files, cut)).rejects.toThrow(/broke off/);
    const short = newClip(id, demo, { stream: streamOf(demo.subarray(0, 5000)) });
    await expect(addClip(gym.db, gym.files, short)).rejects.toThrow(/broke off/);
    expect([kept().length, leftovers()]).toEqual([0, []]);
  });

  it('says so when the disk runs full in the middle, and clears away what it wrote', async () => {
    let isClosed = false;
    const files = new ClipFiles(gym.folder, undefined, async () => ({
      write: (() =>
        Promise.reject(Object.assign(new Error('no space'), { code: 'ENOSPC' }))) as never,
      sync: async () => {},
      close: async () => {
        isClosed = true;
      },
    }));
    const clip = newClip(await student(gym), demo);
    await expect(addClip(gym.db, files, clip)).rejects.toMatchObject({
      status: 507,
      message: expect.stringContaining('The disk is full'),
    });
    expect(isClosed).toBe(true);
    expect([await rows(), leftovers()]).toEqual([0, []]);
  });
});

describe('a kept film', () => {
  it('is read in parts, and holds nothing open for who asks and never reads on', async () => {
    const { id } = await add(await student(gym));
    const { sha256 } = (await clipById(gym.db, id))!;
    const { shelf } = gym.files;
    const part = await new Response(await shelf.read(sha256, 100, 899)).bytes();
    expect(Buffer.from(part)).toEqual(Buffer.from(demo.subarray(100, 900)));
    const before = readdirSync('/proc/self/fd').length;
    const left = await Promise.all(
      Array.from({ length: 40 }, () => shelf.read(sha256, 0, demo.length - 1)),
    );
    const readers = left.map((stream) => stream.getReader());
    await Promise.all(readers.map((reader) => reader.read()));
    // Each stream still reads one piece ahead.
    await expect.poll(() => readdirSync('/proc/self/fd').length).toBeLessThan(before + 20);
    await expect(shelf.read('0'.repeat(64), 0, 1)).rejects.toThrow(/no such file/);
  });
});

describe('what is set on the bench', () => {
  it('comes back exactly as it was saved', async () => {
    const { clipId } = await markedClip(gym, await student(gym));
    const document = {
      view: 'above' as const,
      captureRate: 480,
      purpose: { technique: 'jab', question: 'order' },
      rectangle: {
        kind: 'floor' as const,
        corners: [0, 1, 2, 3].map((i) => ({ x: 10.125 * i, y: i % 2 })),
        width: 2,
        depth: 1.5,
        height: 1,
      },
      lens: { bend: -0.04 },
      refused: [{ from: 3, to: 40 }],
      scale: { from: { x: 1.125, y: 2 }, to: { x: 300.5, y: 7.875 }, metres: 0.3 },
      target: { from: { x: 0, y: 0 }, to: { x: 1000.25, y: 3 } },
      placed: [
        { landmark: 'leftElbow' as const, frame: 12, x: 640.125, y: 359.875 },
        { landmark: 'nose' as const, frame: 0, x: -3.5, y: 0 },
      ],
      corrections: [
        { kind: 'swap' as const, landmark: 'leftKnee' as const, from: 12, to: 20 },
        { kind: 'keep' as const, landmark: 'rightWrist' as const, from: 3, to: 3 },
      ],
      strikes: [
        {
          id: 'b',
          technique: 'jab',
          side: 'left' as const,
          marks: {},
          span: { from: 12, to: 90 },
          combination: 'b',
          isAutomatic: true as const,
        },
        { id: 'a', technique: 'cross', side: 'right' as const, marks: AT_ONCE },
      ],
      drawings: [
        { id: 'd', frame: 168, kind: 'words' as const, points: [{ x: 4, y: 5.5 }], text: 'Closer' },
      ],
    };
    expect(await saveBench(gym.db, clipId, { revision: 1, document })).toEqual({
      kind: 'saved',
      revision: 2,
    });
    expect(await loadBench(gym.db, clipId)).toEqual({ revision: 2, document });
  });

  it('is not overwritten from an older state', async () => {
    const { clipId, document } = await markedClip(gym, await student(gym));
    const late = { ...document, strikes: [] };
    expect(await saveBench(gym.db, clipId, { revision: 0, document: late })).toEqual({
      kind: 'conflict',
    });
    expect((await loadBench(gym.db, clipId))!.document.strikes).toHaveLength(1);
    expect(await saveBench(gym.db, 'none', { revision: 0, document })).toEqual({ kind: 'gone' });
  });

  it('is saved whole or not at all', async () => {
    const { clipId, document, strikeId } = await markedClip(gym, await student(gym));
    const other = await markedClip(gym, await student(gym));
    // A strike that belongs to another clip must not be taken over, and nothing else be saved.
    const strikes = [{ ...document.strikes[0]!, id: other.strikeId }];
    const stolen = { ...document, view: 'front' as const, strikes };
    await expect(saveBench(gym.db, clipId, { revision: 1, document: stolen })).rejects.toThrow(
      /another clip/,
    );
    const after = (await loadBench(gym.db, clipId))!;
    expect(after.revision).toBe(1);
    expect(after.document.view).toBe('side');
    expect(after.document.strikes[0]!.id).toBe(strikeId);
  });

  it('stores the real time and σ of each mark with it', async () => {
    const { strikeId } = await markedClip(gym, await student(gym));
    const arm = await gym.db
      .selectFrom('mark')
      .selectAll()
      .where('strike_id', '=', strikeId)
      .where('event', '=', 'arm')
      .executeTakeFirstOrThrow();
    expect(arm.time).toBeCloseTo(112 / 240, 6);
    expect(arm.sigma).toBeCloseTo(3 / 240 / Math.sqrt(12), 6);
  });
});
