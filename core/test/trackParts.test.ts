/** What a tracker saw, part by part: what is left out, how far the rest is trusted, what is asked. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { LANDMARKS, type Landmark } from '../src/foundation/body/landmarks';
import { doubtsOf, type Reason } from '../src/observe/track/doubts';
import { withoutJumps, type SeenPoint } from '../src/observe/track/jumps';
import { tooLong } from '../src/observe/track/lengths';
import { pulled, REACH, type Dense } from '../src/observe/track/pull';
import { SEEN_SIZE, type PoseDetection } from '../src/observe/track/poseDetection';
import { biasSigma, jitterSigma } from '../src/observe/track/pointSigma';

const RATE = 60;
const STATURE = 500;
const RUN = Array.from({ length: 60 }, (_, i) => i);

/** A fist that goes out and home at up to some six heights a second. */
const path = (change: (frame: number) => Partial<SeenPoint> = () => ({})): SeenPoint[] =>
  RUN.map((frame) => ({
    frame,
    time: frame / RATE,
    visibility: 0.9,
    x: 300 + 150 * Math.sin((Math.PI * frame) / 30),
    y: 200,
    ...change(frame),
  }));

const keptOf = (points: readonly SeenPoint[]) => {
  const kept = withoutJumps(points, STATURE);
  return points.filter((_, i) => kept[i]).map(({ frame }) => frame);
};

describe('jumps', () => {
  it('are not seen in a movement that a body can make', () => {
    expect(keptOf(path())).toEqual(RUN);
  });

  it.each([1, 2, 4, 8])('of %i frames are left out, and nothing else', (length) => {
    const [from, to] = [20, 20 + length];
    const jumped = path((frame) =>
      frame >= from && frame < to ? { y: 480, visibility: 0.6 } : {},
    );
    expect(keptOf(jumped)).toEqual(RUN.filter((frame) => frame < from || frame >= to));
  });

  it('lose to what was surely seen', () => {
    // The first third is somewhere else, and hardly seen: all of the rest is kept, and of the first
    // third no more than a body can come from in the time.
    const lost = path((frame) => (frame < 12 ? { y: 480, visibility: 0.1 } : {}));
    const kept = keptOf(lost);
    expect(kept.filter((frame) => frame >= 12)).toEqual(RUN.filter((frame) => frame >= 12));
    expect(kept.filter((frame) => frame >= 6 && frame < 12)).toEqual([]);
  });

  it('are not told over a gap: nobody knows where the hand has been', () => {
    const parted = path((frame) => (frame < 30 ? {} : { y: 480 })).filter(
      ({ frame }) => frame < 24 || frame >= 37,
    );
    expect(keptOf(parted)).toHaveLength(parted.length);
  });

  it('leave a shaking point alone', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: -8, max: 8 }), { minLength: 60, maxLength: 60 }),
        (by) => {
          expect(keptOf(path((frame) => ({ y: 200 + by[frame]! })))).toEqual(RUN);
        },
      ),
    );
  });
});

/** A detection with every landmark at its own place, some elsewhere. */
function detection(
  frame: number,
  places: Partial<Record<Landmark, readonly [number, number]>>,
): PoseDetection {
  const values = new Float32Array(LANDMARKS.length * SEEN_SIZE);
  LANDMARKS.forEach((landmark, i) => {
    const [x, y] = places[landmark] ?? [0, 0];
    values.set([x, y, 1], i * SEEN_SIZE);
  });
  return { frame, values };
}

describe('lengths', () => {
  const arm = (wristAt: number) => ({
    leftShoulder: [100, 100] as const,
    leftElbow: [100, 190] as const,
    leftWrist: [100, wristAt] as const,
    leftIndexKnuckle: [100, wristAt] as const,
  });

  it('of a link that turns to the camera are short, and nothing is wrong', () => {
    expect(
      tooLong([detection(0, arm(195)), detection(1, arm(255))], STATURE).has('leftWrist'),
    ).toBe(false);
  });

  it('that no forearm has are told, and all beyond them is lost', () => {
    const wrong = tooLong([detection(0, arm(255)), detection(7, arm(400))], STATURE);
    expect([...wrong.get('leftWrist')!]).toEqual([7]);
    expect([...wrong.get('leftIndexKnuckle')!]).toEqual([7]);
    expect(wrong.has('leftElbow')).toBe(false);
  });
});

describe('trust', () => {
  it('reads the shake off the path, as much as was put in', () => {
    // A triangle wave of ±3 px along and down: each coordinate lies 6 px from the line
    // between its neighbours, so the median of the deviations is 6 whichever way it is taken.
    const shaken = path((frame) => ({
      x: 300 + 5 * frame + (frame % 2 === 0 ? -3 : 3),
      y: frame % 2 === 0 ? 197 : 203,
      visibility: 1,
    }));
    const [sigma] = jitterSigma(shaken, STATURE);
    expect(sigma).toBeCloseTo(6 / 0.6745 / Math.sqrt(1.5), 6);
  });

  it('never holds a point stiller than a tracker can, and less where it is hardly seen', () => {
    const still = path(() => ({ x: 300, y: 200, visibility: 1 }));
    expect(jitterSigma(still, STATURE)[0]).toBeCloseTo(0.0005 * STATURE, 9);
    const dim = path((frame) => ({ x: 300, y: 200, visibility: 1 - frame / 60 }));
    const sigmas = jitterSigma(dim, STATURE);
    sigmas.slice(1).forEach((sigma, i) => expect(sigma).toBeGreaterThanOrEqual(sigmas[i]!));
  });

  it('leans alike on both sides, and more the less is seen', () => {
    for (const landmark of LANDMARKS) {
      const [sure, unsure] = [biasSigma(landmark, 1), biasSigma(landmark, 0.4)];
      expect(sure).toBeGreaterThan(0);
      expect(unsure).toBeGreaterThan(sure);
      const other = landmark.replace(/^left/, 'right') as Landmark;
      expect(biasSigma(other, 0.7)).toBe(biasSigma(landmark, 0.7));
    }
  });
});

describe('a point placed by the coach', () => {
  const tracked: Dense = {
    frames: RUN,
    times: RUN.map((frame) => frame / RATE),
    x: RUN.map((frame) => 10 * frame),
    y: RUN.map(() => 50),
    sigma: RUN.map(() => 1),
    bias: RUN.map(() => 8),
    isTracked: true,
  };
  const placed = (frames: readonly number[], by: readonly number[]) => ({
    frames,
    times: frames.map((frame) => frame / RATE),
    x: frames.map((frame, k) => 10 * frame + by[k]!),
    y: frames.map(() => 50),
    sigma: 0.5,
  });
  const moved = (dense: Dense) => dense.x.map((x, i) => x - 10 * dense.frames[i]!);

  it('pulls its neighbours less the further they are, and none beyond its reach', () => {
    const by = moved(pulled(tracked, placed([30], [12])));
    expect(by[30]).toBeCloseTo(12, 9);
    expect(by[32]).toBeCloseTo(12 * (1 - 2 / RATE / REACH), 9);
    RUN.filter((frame) => Math.abs(frame - 30) / RATE >= REACH).forEach((frame) =>
      expect(by[frame]).toBeCloseTo(0, 9),
    );
  });

  it('settles with another near it all that lies between, and their lean is gone', () => {
    const dense = pulled(tracked, placed([24, 34], [4, 10]));
    const by = moved(dense);
    for (let frame = 24; frame <= 34; frame++) {
      expect(by[frame]).toBeCloseTo(4 + (6 * (frame - 24)) / 10, 9);
      expect(dense.bias[frame]).toBeLessThanOrEqual(0.5);
    }
    expect(dense.bias[50]).toBe(8);
  });

  it('stands on frames that the tracker never saw', () => {
    const gap = { ...tracked };
    for (const key of ['frames', 'times', 'x', 'y', 'sigma', 'bias'] as const) {
      (gap as unknown as Record<string, readonly number[]>)[key] = tracked[key].filter(
        (_, i) => i < 20 || i > 40,
      );
    }
    const dense = pulled(gap, placed([30], [0]));
    expect(dense.frames).toContain(30);
    expect(dense.frames).toEqual([...dense.frames].sort((a, b) => a - b));
  });

  it('changes nothing where there is none', () => {
    expect(pulled(tracked, placed([], []))).toBe(tracked);
  });
});

describe('doubts', () => {
  const times = RUN.map((frame) => frame / RATE);
  const doubted = (frames: readonly number[], why: Reason = 'unsure') =>
    new Map<Landmark, Map<number, Reason>>([
      ['leftWrist', new Map(frames.map((frame) => [frame, why]))],
    ]);
  const from = (a: number, b: number) => RUN.filter((frame) => frame >= a && frame <= b);
  const none = new Map<Landmark, readonly number[]>();

  it('are stretches, parted only by a real break, and none is a single frame', () => {
    const found = doubtsOf(
      doubted([...from(3, 8), ...from(10, 14), ...from(30, 33), 50]),
      none,
      times,
    );
    expect(found.map(({ from: a, to }) => [a, to])).toEqual([
      [3, 14],
      [30, 33],
    ]);
  });

  it('name what most of the stretch is', () => {
    const frames = doubted(from(3, 12));
    for (const frame of [3, 4, 5, 6, 7, 8]) frames.get('leftWrist')!.set(frame, 'swapped');
    expect(doubtsOf(frames, none, times)[0]!.why).toBe('swapped');
  });

  it('are settled by points placed at both ends, and around a placed point', () => {
    const by = (frames: readonly number[]) =>
      doubtsOf(doubted(from(10, 20)), new Map([['leftWrist', frames] as const]), times);
    expect(by([])).toHaveLength(1);
    expect(by([10, 20])).toEqual([]);
    expect(by([10])[0]).toMatchObject({ to: 20 });
    expect(by([10])[0]!.from).toBeGreaterThan(10);
  });
});
