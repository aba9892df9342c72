/** Body tracking beside the models themselves: what is looked at, what is kept, what the coach says. */
import { EMPTY_DOCUMENT as EMPTY } from '@sinew/core/analysis/clipDocument';
import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { LANDMARKS } from '@sinew/core/foundation/body/landmarks';
import type { Box } from '@sinew/core/observe/track/box';
import { cleanDetections, trackFrom } from '@sinew/core/observe/track/trackFromDetections';
import {
  SEEN_SIZE,
  detectionOf,
  type PoseDetection,
} from '@sinew/core/observe/track/poseDetection';
import { loadBench } from '@/data/bench/bench';
import { keepAsSeen, keepSeries, dropSeries, seriesOf } from '@/data/clip/series';
import {
  addDetections,
  changeJob,
  dropJob,
  jobOf,
  openJobs,
  detectionsOf,
} from '@/data/clip/trackings';
import { takeAutomatically } from '@sinew/core/analysis/strikesFound';
import { keepSurvey } from '@/data/clip/surveys';
import { takeFoundStrikes } from '@/data/clip/takeFoundStrikes';
import { saveBench } from '@/data/bench/bench';
import type { Survey } from '@sinew/core/observe/take/survey';
import { confirmStrike, correct, refuseAutomatic } from '@/screens/bench/document/edits';
import { trackedOnFrame } from '@/screens/bench/picture/pointsOnPicture';
import { findPeople } from '@/tracking/findPeople';
import {
  coarseFrames,
  findIn,
  framesOf,
  overlap,
  stretchesOf,
  whereToLook,
  type Places,
} from '@/tracking/plan';
import { decodeDetections, encodeDetections } from '@/api/detectionBlob';
import { emptyGym, markedClip, student, type TestGym } from './support';

const NUMBERS = LANDMARKS.length * SEEN_SIZE;
const detection = (frame: number, fill = 0.5): PoseDetection => ({
  frame,
  values: new Float32Array(NUMBERS).fill(fill),
});
const every = (rate: number, seconds: number) =>
  Array.from({ length: Math.round(rate * seconds) }, (_, i) => i / rate);

describe('pose detections as bytes', () => {
  it('come back as they were, whatever they hold', () => {
    const numbers = fc.array(fc.float({ noNaN: true, noDefaultInfinity: true }), {
      minLength: NUMBERS,
      maxLength: NUMBERS,
    });
    const one = fc.record({ frame: fc.nat(2_000_000), values: numbers });
    fc.assert(
      fc.property(fc.array(one, { maxLength: 4 }), (list) => {
        const detections = list.map(({ frame, values }) => ({
          frame,
          values: Float32Array.from(values),
        }));
        expect(decodeDetections(encodeDetections(detections))).toEqual(detections);
      }),
      { numRuns: 30, seed: 3 },
    );
  });

  it('are refused when they are cut short, are not ours or hold no numbers', () => {
    const bytes = encodeDetections([detection(3)]);
    expect(() => decodeDetections(bytes.subarray(0, bytes.length - 1))).toThrow('cut short');
    expect(() => decodeDetections(bytes.subarray(0, 5))).toThrow('not a blob');
    expect(() => decodeDetections(new Uint8Array(40))).toThrow('not a blob');
    expect(() => decodeDetections(encodeDetections([detection(3, NaN)]))).toThrow('no number');
  });
});

describe('which frames are looked at', () => {
  it('a minute at 30 a second: six looks a second, then only the strikes', () => {
    const times = every(30, 60);
    expect(coarseFrames(times).length).toBe(361);
    const stretches = stretchesOf(
      [
        { from: 10, to: 11 },
        { from: 11.2, to: 12 },
        { from: 40, to: 41 },
      ],
      times,
    );
    // 200 ms around each; the first two run into each other.
    expect(stretches).toEqual([
      { from: 294, to: 366 },
      { from: 1194, to: 1236 },
    ]);
    expect(framesOf(stretches, times).length).toBe(73 + 43);
  });

  it('never more than 240 a second, and all of a film slower than that', () => {
    const fast = every(960, 1);
    const frames = framesOf([{ from: 0, to: fast.length - 1 }], fast);
    expect(frames.length).toBeGreaterThan(230);
    expect(frames.length).toBeLessThan(275);
    const slow = every(240, 1);
    expect(framesOf([{ from: 0, to: 239 }], slow)).toHaveLength(240);
  });

  it('a short film without a strike is looked at whole, a long one not at all', () => {
    expect(stretchesOf([], every(120, 3))).toEqual([{ from: 0, to: 359 }]);
    expect(stretchesOf([], every(120, 30))).toEqual([]);
  });

  it('an hour of film is not looked at oftener than is of use', () => {
    expect(coarseFrames(every(30, 3600)).length).toBe(400);
  });

  it('looks where the student was before and will be after', () => {
    const box = (x: number): Box => ({ x, y: 100, width: 100, height: 400 });
    const people = [
      { frame: 0, box: box(100) },
      { frame: 20, box: box(300) },
    ];
    const size = { width: 1280, height: 720 };
    const [where] = whereToLook(people, 10, size);
    expect(where.x).toBe(0);
    expect(where.x + where.width).toBe(400 + 100);
    expect(whereToLook(people, 30, size)[0].x).toBe(200);
  });

  it('looks farther round where nobody is found, to the edges of the picture', () => {
    const people = [{ frame: 0, box: { x: 600, y: 200, width: 100, height: 300 } }];
    const places = whereToLook(people, 0, { width: 1280, height: 720 });
    expect(places.map(({ x, width }) => [x, x + width])).toEqual([
      [525, 775],
      [420, 880],
      [240, 1060],
    ]);
    expect(places.at(-1)).toMatchObject({ y: 0, height: 720 });
  });

  it('takes whom it finds farther round only where the student was looked for', () => {
    const places: Places = [
      { x: 500, y: 100, width: 250, height: 500 },
      { x: 400, y: 0, width: 450, height: 700 },
      { x: 200, y: 0, width: 850, height: 720 },
    ];
    const at = (x: number) =>
      detectionOf(3, () => ({ x, y: 300, visibility: 1, inSpace: [0, 0, 0] }));
    const seenIn = (seen: Readonly<Record<number, PoseDetection>>) => (place: Box) =>
      Object.entries(seen)
        .filter(([width]) => Number(width) === place.width)
        .map(([, one]) => one);
    // A body that the picture cuts off has its middle below it.
    expect(findIn(places, seenIn({ 250: at(490) }))).toEqual([at(490)]);
    expect(findIn(places, seenIn({ 450: at(600), 850: at(610) }))).toEqual([at(600)]);
    expect(findIn(places, seenIn({ 450: at(420), 850: at(610) }))).toEqual([at(610)]);
    expect(findIn(places, seenIn({ 850: at(990) }))).toEqual([]);
  });
});

describe('who is followed', () => {
  const size = { width: 1280, height: 720 };
  const frames = [0, 10, 20, 30, 40, 50, 60, 70, 80, 90];
  const at = (x: number, width = 120): Box => ({ x, y: 100, width, height: 3 * width });
  /** Two people: a large one who stands, a small one who walks to the right. */
  const large = () => at(900, 160);
  const small = (frame: number) => at(100 + 2 * frame, 90);
  const isIn = (box: Box, within: Box) =>
    box.x >= within.x - 1 && box.x + box.width <= within.x + within.width + 1;
  const seeBoth = async (frame: number, within: Box) =>
    [large(), small(frame)].filter((box) => isIn(box, within));

  it('the largest when nobody is pointed out, and it is said that there are two', async () => {
    const found = await findPeople(seeBoth, frames, size, null, () => undefined);
    expect(found.most).toBe(2);
    expect(found.people).toHaveLength(frames.length);
    for (const { box } of found.people) expect(box).toEqual(large());
  });

  it('whom the coach has drawn a box round, forward and backward from there', async () => {
    const drawn = { frame: 40, box: small(40) };
    const found = await findPeople(seeBoth, frames, size, drawn, () => undefined);
    expect(found.people.map(({ frame }) => frame)).toEqual(frames);
    for (const { frame, box } of found.people) expect(box).toEqual(small(frame));
  });

  it('somebody small is found in an enlarged part of the picture', async () => {
    const tiny = at(1000, 40);
    const seeLarge = async (_: number, within: Box) =>
      within.width < 700 && isIn(tiny, within) ? [tiny] : [];
    const found = await findPeople(seeLarge, frames, size, null, () => undefined);
    expect(found.people.length).toBeGreaterThan(frames.length / 2);
  });

  it('nobody, when nobody is there; and the work is told of to its end', async () => {
    const shares: number[] = [];
    const found = await findPeople(
      async () => [],
      frames,
      size,
      null,
      (share) => shares.push(share),
    );
    expect(found).toEqual({ people: [], most: 0 });
    expect(shares[shares.length - 1]).toBe(1);
  });

  it('shared parts of boxes are counted as they are', () => {
    expect(overlap(at(0), at(0))).toBe(1);
    expect(overlap(at(0), at(500))).toBe(0);
    expect(overlap(at(0, 100), at(50, 100))).toBeCloseTo(1 / 3, 9);
  });
});

describe('what is kept of a tracking', () => {
  let gym: TestGym;
  let clipId: string;
  beforeEach(async () => {
    gym = await emptyGym();
    clipId = (await markedClip(gym, await student(gym))).clipId;
  });
  afterEach(() => gym.db.destroy());
  const start = () => changeJob(gym.db, clipId, { kind: 'start', model: 'quick', person: null });

  it('goes its way: wanted, paused, on again, done', async () => {
    expect(await jobOf(gym.db, clipId)).toBeNull();
    expect(await start()).toBe(true);
    expect(await openJobs(gym.db)).toMatchObject([{ clipId, state: 'wanted', model: 'quick' }]);
    await changeJob(gym.db, clipId, { kind: 'pause' });
    expect(await openJobs(gym.db)).toMatchObject([{ state: 'paused' }]);
    await changeJob(gym.db, clipId, { kind: 'resume' });
    await changeJob(gym.db, clipId, { kind: 'finish', state: 'done', message: 'x' });
    expect(await openJobs(gym.db)).toEqual([]);
    expect(await jobOf(gym.db, clipId)).toMatchObject({ state: 'done', message: 'x' });
  });

  it('keeps what has come, in the order of the frames, the later look at a frame winning', async () => {
    await start();
    await addDetections(gym.db, clipId, [detection(8), detection(2)]);
    await addDetections(gym.db, clipId, [detection(2, 0.75), detection(5)]);
    const kept = await detectionsOf(gym.db, clipId);
    expect(kept.map(({ frame, values }) => [frame, values[0]])).toEqual([
      [2, 0.75],
      [5, 0.5],
      [8, 0.5],
    ]);
  });

  it('begins anew without what was seen before, and is forgotten when given up', async () => {
    await start();
    await addDetections(gym.db, clipId, [detection(1)]);
    await start();
    expect(await detectionsOf(gym.db, clipId)).toEqual([]);
    await addDetections(gym.db, clipId, [detection(1)]);
    await dropJob(gym.db, clipId);
    expect([await jobOf(gym.db, clipId), await detectionsOf(gym.db, clipId)]).toEqual([null, []]);
  });

  it('takes nothing for a clip that is not tracked, that is gone, or that has no such frame', async () => {
    expect(await addDetections(gym.db, clipId, [detection(1)])).toBe(false);
    await start();
    expect(await addDetections(gym.db, clipId, [detection(1), detection(100_000)])).toBe(false);
    expect(await detectionsOf(gym.db, clipId)).toEqual([]);
    expect(await changeJob(gym.db, 'none', { kind: 'start', model: 'fine', person: null })).toBe(
      false,
    );
    expect(await changeJob(gym.db, 'none', { kind: 'pause' })).toBe(false);
  });

  it('a series in space comes back as it was brought; one in the picture stands for the tracker’s', async () => {
    const points = { nose: { frames: [0, 1], x: [0, 1], y: [1, 1], z: [0, 0], sigma: [0.1, 0.1] } };
    const track = {
      space: '3d' as const,
      source: 'measured-3d' as const,
      frameTimes: [0, 0.01],
      points,
    };
    const series = { fileName: 'lab.trc', begins: 0.25, track };
    expect(await keepSeries(gym.db, clipId, series)).toBe(true);
    expect(await seriesOf(gym.db, clipId)).toMatchObject(series);
    await dropSeries(gym.db, clipId);
    expect(await seriesOf(gym.db, clipId)).toBeNull();
    expect(await keepSeries(gym.db, 'none', series)).toBe(false);

    expect(await keepAsSeen(gym.db, clipId, 'points.csv', [detection(4)])).toBe(true);
    expect(await jobOf(gym.db, clipId)).toMatchObject({
      state: 'done',
      message: 'These points come from points.csv.',
    });
    await expect(keepAsSeen(gym.db, clipId, 'x.csv', [detection(100_000)])).rejects.toThrow();
    // All or nothing: what was there before is still there.
    expect((await detectionsOf(gym.db, clipId)).map(({ frame }) => frame)).toEqual([4]);
  });

  it('the bench’s document keeps corrections and what is automatic', async () => {
    const saved = (await loadBench(gym.db, clipId))!;
    expect(saved.document.corrections).toEqual([]);
    expect(saved.document.strikes[0]).not.toHaveProperty('isAutomatic');
  });
});

describe('strikes of a finished search', () => {
  let gym: TestGym;
  let clipId: string;
  beforeEach(async () => {
    gym = await emptyGym();
    ({ clipId } = await markedClip(gym, await student(gym)));
  });
  afterEach(() => gym.db.destroy());

  /** A film in which something moves twice, a second apart. */
  const surveyFor = (frames: number): Survey => ({
    width: 1280,
    height: 720,
    amounts: Array.from({ length: frames }, (_, i) =>
      [60, 180].some((at) => Math.abs(i - at) < 12) ? 0.2 : 0,
    ),
    repeated: 0,
    light: { middle: 0.5, contrast: 0.5, black: 0, white: 0 },
    edges: { moving: 2, still: 2 },
    shake: null,
    moved: null,
    hasSound: true,
    hits: [60, 180].map((frame) => ({
      time: frame / 120,
      sigma: 0.001,
      rise: 30,
      loudness: -10,
    })),
    breaths: [],
  });

  async function searched(purpose: 'cross' | null) {
    const { document, revision } = (await loadBench(gym.db, clipId))!;
    await saveBench(gym.db, clipId, {
      revision,
      document: {
        ...document,
        strikes: [],
        purpose: purpose && { technique: purpose, question: null },
      },
    });
    const { frame_times } = await gym.db
      .selectFrom('clip')
      .select('frame_times')
      .where('id', '=', clipId)
      .executeTakeFirstOrThrow();
    return frame_times.length / 8;
  }
  const strikes = async () => (await loadBench(gym.db, clipId))!.document.strikes;
  const finish = { kind: 'finish', state: 'done', message: null } as const;
  const start = { kind: 'start', model: 'standard', person: null } as const;

  it('are taken as what it was filmed for, whichever comes last, and once', async () => {
    const frames = await searched('cross');
    expect(await takeFoundStrikes(gym.db, clipId)).toBe(false);
    await changeJob(gym.db, clipId, start);
    await keepSurvey(gym.db, clipId, surveyFor(frames));
    expect(await takeFoundStrikes(gym.db, clipId)).toBe(false);
    await changeJob(gym.db, clipId, finish);
    expect(await takeFoundStrikes(gym.db, clipId)).toBe(true);
    const taken = await strikes();
    expect(taken.length).toBeGreaterThan(0);
    expect(taken.every(({ isAutomatic, technique }) => isAutomatic && technique === 'cross')).toBe(
      true,
    );
    expect(await takeFoundStrikes(gym.db, clipId)).toBe(false);
    expect(await strikes()).toEqual(taken);
  });

  it('are left alone where nobody said what is shown, where the coach has been, or the search failed', async () => {
    const frames = await searched(null);
    await keepSurvey(gym.db, clipId, surveyFor(frames));
    await changeJob(gym.db, clipId, start);
    await changeJob(gym.db, clipId, finish);
    expect(await takeFoundStrikes(gym.db, clipId)).toBe(false);
    await searched('cross');
    const { document, revision } = (await loadBench(gym.db, clipId))!;
    const refused = { ...document, refused: [{ from: 0, to: 10 }] };
    await saveBench(gym.db, clipId, { revision, document: refused });
    expect(await takeFoundStrikes(gym.db, clipId)).toBe(false);
    await saveBench(gym.db, clipId, { revision: revision + 1, document });
    await changeJob(gym.db, clipId, { ...finish, state: 'failed' });
    expect(await takeFoundStrikes(gym.db, clipId)).toBe(false);
    expect(await strikes()).toEqual([]);
    expect(await takeFoundStrikes(gym.db, 'no-such-clip')).toBe(false);
  });
});

describe('the coach’s word on what was found', () => {
  const named = { technique: 'cross', side: 'right' as const };
  const found = (number: number, from: number, contact: number | null) => ({
    number,
    span: { from, to: from + 50 },
    combination: null,
    contact: contact === null ? null : { frame: contact, width: 3 },
  });
  let count = 0;
  const newId = () => `s${count++}`;

  it('takes every strike found, each in its own stretch, all automatic', () => {
    const proposals = [found(1, 10, 30), found(2, 100, null)];
    const { strikes } = takeAutomatically(EMPTY, named, proposals, newId);
    expect(strikes.map(({ span, marks, isAutomatic }) => [span, marks, isAutomatic])).toEqual([
      [{ from: 10, to: 60 }, { contact: { frame: 30, width: 3 } }, true],
      [{ from: 100, to: 150 }, {}, true],
    ]);
  });

  it('a film of one strike, or of none that was found, is that strike’s from end to end', () => {
    for (const proposals of [[found(1, 10, 30)], []]) {
      const { strikes } = takeAutomatically(EMPTY, named, proposals, newId);
      expect(strikes).toHaveLength(1);
      expect(strikes[0]).not.toHaveProperty('span');
    }
  });

  it('confirmed it is the coach’s; refused it goes and is not found again', () => {
    const document = takeAutomatically(EMPTY, named, [found(1, 10, 30), found(2, 100, 120)], newId);
    const [first, second] = document.strikes;
    expect(confirmStrike(document, first!.id).strikes[0]).not.toHaveProperty('isAutomatic');
    const without = refuseAutomatic(document, second!, 999);
    expect(without.strikes).toEqual([first]);
    expect(without.refused).toEqual([{ from: 100, to: 150 }]);
  });

  it('a later word on the same stretch takes the place of an earlier one; swaps add up', () => {
    const range = { landmark: 'leftWrist' as const, from: 10, to: 20 };
    const kept = correct(EMPTY, { kind: 'keep', ...range, from: 12 });
    const dropped = correct(kept, { kind: 'drop', ...range });
    expect(dropped.corrections).toEqual([{ kind: 'drop', ...range }]);
    const swap = { kind: 'swap' as const, ...range };
    expect(correct(correct(dropped, swap), swap).corrections).toHaveLength(3);
  });
});

describe('tracked points on the picture', () => {
  const times = every(120, 1);
  const at = (
    frame: number,
    change: Partial<{ x: number; visibility: number }> = {},
  ): PoseDetection =>
    detectionOf(frame, (landmark) => ({
      x: 100 + frame,
      visibility: 1,
      inSpace: [0, 0, 0],
      // A body upright: one landmark under the other.
      y: 50 + 25 * LANDMARKS.indexOf(landmark),
      ...change,
    }));
  const shown = (detections: readonly PoseDetection[], frame: number) => {
    const tracking = trackFrom(
      cleanDetections(detections, times),
      { placed: [], corrections: [] },
      720,
    );
    return trackedOnFrame(tracking, frame, times, []).find(({ landmark }) => landmark === 'nose');
  };
  const all = times.map((_, frame) => at(frame));

  it('stand where they were seen', () => {
    expect(shown(all, 40)).toEqual({ landmark: 'nose', x: 140, y: 50, kind: 'tracked' });
  });

  it('that were left out stand between their neighbours, as doubtful', () => {
    const away = all.map((one) =>
      one.frame >= 40 && one.frame <= 44 ? at(one.frame, { x: 900 }) : one,
    );
    expect(shown(away, 42)).toEqual({ landmark: 'nose', x: 142, y: 50, kind: 'doubtful' });
  });

  it('that are hidden for long stand where the tracker guessed them, as doubtful', () => {
    const hidden = all.map((one) =>
      one.frame >= 40 && one.frame <= 80 ? at(one.frame, { x: 333, visibility: 0.1 }) : one,
    );
    expect(shown(hidden, 60)).toEqual({ landmark: 'nose', x: 333, y: 50, kind: 'doubtful' });
  });
});

describe('the runtime of the body tracker', () => {
  const script = readFileSync(
    new URL('../src/tracking/prepared/vision.mjs', import.meta.url),
    'utf8',
  );

  it('knows no address outside of this machine, and counts nothing to send every minute', () => {
    expect(script.length).toBeGreaterThan(100_000);
    expect(script.match(/(https?|wss?):\/\/[\w.-]+/g)).toBeNull();
    expect(script).not.toMatch(/setInterval\(\(\)=>\{this\.flush\(\)\}/);
  });
});
