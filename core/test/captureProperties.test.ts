/** What must hold for any camera, any lens, any two clocks: checked on random ones. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { floorCamera, standing } from '../src/reconstruct/calibration/camera';
import type { Calibration } from '../src/reconstruct/calibration/calibration';
import { pictureMap } from '../src/reconstruct/calibration/picture';
import { bowed, straightened } from '../src/foundation/geometry/lens';
import { inverted, rotation, seenThrough, type Pose } from '../src/foundation/geometry/pose';
import { through } from '../src/foundation/geometry/homography';
import { length, minus, scaled, cross, dot, type Vector } from '../src/foundation/geometry/vector';
import { offsetBySound } from '../src/observe/sound/sync';
import { findStrikes } from '../src/observe/take/strikes';
import { realClock, realFrameTimes } from '../src/observe/track/time';

const SIZE = { width: 1280, height: 720 };
const number = (min: number, max: number) => fc.double({ min, max, noNaN: true });

/** A camera at a height, aimed at a place over the floor; z up. */
const cameraFrom = (least: number, most: number) =>
  fc
    .record({
      around: number(least, most),
      away: number(3.5, 7),
      height: number(0.8, 2.6),
      aim: number(0.3, 1.1),
      focal: number(850, 1600),
    })
    .map(({ around, away, height, aim, focal }) => {
      const position: Vector = [
        1 + away * Math.cos(around),
        0.75 + away * Math.sin(around),
        height,
      ];
      return { position, focal, target: [1, 0.75, aim] as Vector };
    });

const anyCamera = cameraFrom(0, 2 * Math.PI);
/** Not along the plane of the strike, which then shows nothing. */
const cameraBeside = cameraFrom(0.6, Math.PI - 0.6);

/** Rotation as axis × angle from a matrix (Rodrigues; angles below π here). */
function turnOf(rows: readonly Vector[]): Vector {
  const trace = rows[0]![0]! + rows[1]![1]! + rows[2]![2]!;
  const angle = Math.acos(Math.max(-1, Math.min(1, (trace - 1) / 2)));
  const axis: Vector = [
    rows[2]![1]! - rows[1]![2]!,
    rows[0]![2]! - rows[2]![0]!,
    rows[1]![0]! - rows[0]![1]!,
  ];
  return scaled(axis, angle / (2 * Math.sin(angle)));
}

function poseOf({
  position,
  target,
  focal,
}: {
  position: Vector;
  target: Vector;
  focal: number;
}): Pose {
  const ahead = minus(target, position);
  const forward = scaled(ahead, 1 / length(ahead));
  const side = cross(forward, [0, 0, 1]);
  const right = scaled(side, 1 / length(side));
  const down = cross(forward, right);
  const rows = [right, down, forward];
  return { focal, turn: turnOf(rows), shift: rows.map((row) => -dot(row, position)) };
}

const MAT: readonly Vector[] = [
  [0, 0, 0],
  [2, 0, 0],
  [2, 1.5, 0],
  [0, 1.5, 0],
];

function calibrationBy(pose: Pose, view: Calibration['view']): Calibration {
  return {
    view,
    scale: null,
    target: null,
    rectangle: {
      kind: 'floor',
      corners: MAT.map((corner) => seenThrough(pose, corner, SIZE)),
      width: 2,
      depth: 1.5,
      height: 1,
    },
    size: SIZE,
  };
}

describe('any camera that sees the rectangle', () => {
  it('is found where it stands, or refused', () => {
    let refused = 0;
    let all = 0;
    fc.assert(
      fc.property(anyCamera, (camera) => {
        all += 1;
        const calibration = calibrationBy(poseOf(camera), 'side');
        try {
          const { position } = floorCamera(calibration);
          position.forEach((value, k) => expect(value).toBeCloseTo(camera.position[k]!, 2));
        } catch (error) {
          // Seen straight along a side, near and far cannot be told apart.
          expect(error).toBeInstanceOf(RangeError);
          refused += 1;
        }
      }),
      { seed: 5, numRuns: 120 },
    );
    expect(refused).toBeLessThan(0.1 * all);
  });

  it('shows lengths in the plane of the strike as long as they are', () => {
    fc.assert(
      fc.property(
        cameraBeside,
        number(-0.6, 0.6),
        number(0.3, 1.6),
        number(0, Math.PI),
        (camera, x, y, lean) => {
          const pose = poseOf(camera);
          const calibration = calibrationBy(pose, 'side');
          let map;
          try {
            map = pictureMap(calibration, 1);
          } catch (error) {
            expect(error).toBeInstanceOf(RangeError);
            return;
          }
          const { at } = standing(calibration, floorCamera(calibration));
          const from: Vector = [at[0]! + x, at[1]!, y];
          const to: Vector = [from[0]! + 0.5 * Math.cos(lean), from[1]!, y + 0.5 * Math.sin(lean)];
          const [a, b] = [from, to].map((point) => map.place(seenThrough(pose, point, SIZE)));
          expect(Math.hypot(a![0]! - b![0]!, a![1]! - b![1]!)).toBeCloseTo(0.5, 2);
        },
      ),
      { seed: 6, numRuns: 80 },
    );
  });

  it('has a rotation that turns back: RᵀR = 1', () => {
    fc.assert(
      fc.property(fc.array(number(-1.5, 1.5), { minLength: 3, maxLength: 3 }), (turn) => {
        const rows = rotation(turn);
        rows.forEach((row, i) =>
          rows.forEach((other, j) => expect(dot(row, other)).toBeCloseTo(i === j ? 1 : 0, 9)),
        );
      }),
      { seed: 7, numRuns: 50 },
    );
  });
});

describe('any plane', () => {
  it('is laid flat and seen again: H⁻¹H = 1', () => {
    fc.assert(
      fc.property(
        number(-1e-3, 1e-3),
        number(0.5, 2),
        number(0, 1280),
        number(0, 720),
        (bend, zoom, x, y) => {
          const h = [
            [zoom, 0.1, 20],
            [-0.2, zoom, 5],
            [bend, bend / 2, 1],
          ] as const;
          fc.pre(Math.abs(bend * x + (bend / 2) * y + 1) > 0.2);
          const back = through(inverted(h), through(h, { x, y }));
          expect(back.x).toBeCloseTo(x, 5);
          expect(back.y).toBeCloseTo(y, 5);
        },
      ),
      { seed: 8, numRuns: 100 },
    );
  });
});

describe('any lens', () => {
  // r (1 + b r²) rises up to r = 1 / √(−3 b), where it is 1 for b = −4/27: below, the corners of the
  // picture are seen nowhere.
  it('is undone by its inverse over the whole picture', () => {
    fc.assert(
      fc.property(number(-0.14, 0.5), number(0, 1280), number(0, 720), (bend, x, y) => {
        const there = bowed({ x, y }, SIZE, { bend });
        const back = straightened(there, SIZE, { bend });
        expect(Math.hypot(back.x - x, back.y - y)).toBeLessThan(1e-3);
      }),
      { seed: 9, numRuns: 200 },
    );
  });
});

describe('any two clocks', () => {
  const hits = fc
    .array(fc.record({ gap: number(0.3, 2.5), loudness: number(0.05, 0.5) }), {
      minLength: 4,
      maxLength: 9,
    })
    .map((list) => {
      let time = 0;
      return list.map(({ gap, loudness }) => {
        time += gap;
        return { time, sigma: 0.0002, rise: 30, loudness };
      });
    });

  it('are told apart wherever the second was started, or nothing is claimed', () => {
    let joined = 0;
    fc.assert(
      fc.property(hits, number(-20, 20), (first, offset) => {
        const second = first.map((hit) => ({ ...hit, time: hit.time + offset }));
        const found = offsetBySound(first, second, [4, 4]);
        if (typeof found === 'string') return;
        joined += 1;
        expect(found.seconds).toBeCloseTo(offset, 6);
        // The other way round the clocks differ the other way.
        const turned = offsetBySound(second, first, [4, 4]);
        expect(typeof turned === 'string' ? NaN : turned.seconds).toBeCloseTo(-offset, 6);
      }),
      { seed: 10, numRuns: 100 },
    );
    expect(joined).toBeGreaterThan(90);
  });
});

describe('any take', () => {
  it('of a busy machine, which kept few frames and some twice, has the strikes that it shows', () => {
    const moves = (time: number) =>
      0.002 + [5, 7.5].reduce((sum, at) => sum + Math.exp(-(((time - at) / 0.12) ** 2)), 0);
    // First one in seven tenths of a second, then eight a second; each eighth is there twice.
    const kept = [0, 0.7, 1.4, 2.1, ...Array.from({ length: 60 }, (_, i) => 2.5 + i / 8)];
    const times = kept.flatMap((time, i) => (i % 8 === 3 ? [time, time + 0.0003] : [time]));
    const amounts = times.map((time, i) => {
      if (i === 0) return 0;
      const lasts = time - times[i - 1]!;
      const between = Array.from({ length: 50 }, (_, k) => moves(time - (lasts * (k + 0.5)) / 50));
      // Coding a frame changes it a little, however soon it comes.
      return between.reduce((sum, one) => sum + one, 0) / 50 + 0.004 / lasts;
    });
    const found = findStrikes({ times, amounts }, []);
    expect(found).toHaveLength(2);
    [5, 7.5].forEach((at, i) => {
      expect(found[i]!.from).toBeLessThan(at);
      expect(found[i]!.to).toBeGreaterThan(at);
    });
  });

  it('that starts later has the same strikes, later', () => {
    const times = Array.from({ length: 600 }, (_, i) => i / 60);
    const bump = (at: number, time: number) => Math.exp(-(((time - at) / 0.12) ** 2));
    const amounts = times.map((time) => 0.002 + bump(2, time) + bump(5, time) + bump(7.5, time));
    const found = findStrikes({ times, amounts }, []);
    expect(found).toHaveLength(3);
    fc.assert(
      fc.property(number(0, 100), (late) => {
        const moved = findStrikes({ times: times.map((time) => time + late), amounts }, []);
        moved.forEach((one, i) => {
          expect(one.from).toBeCloseTo(found[i]!.from + late, 6);
          expect(one.to).toBeCloseTo(found[i]!.to + late, 6);
          expect(one.combination).toBe(found[i]!.combination);
        });
      }),
      { seed: 11, numRuns: 30 },
    );
  });
});

describe('any slow-motion file', () => {
  it('has one clock for its frames and its sound', () => {
    fc.assert(
      fc.property(number(0, 5), number(24, 60), number(60, 480), (start, playback, capture) => {
        const times = Array.from({ length: 50 }, (_, i) => start + i / playback);
        const real = realFrameTimes(times, capture);
        const clock = realClock(times, capture);
        expect(real[0]).toBe(0);
        expect(real[49]).toBeCloseTo(49 / capture, 9);
        expect(clock(times[17]!)).toBeCloseTo(real[17]!, 12);
        expect(realClock(times, null)(times[17]!)).toBeCloseTo(17 / playback, 9);
      }),
      { seed: 12, numRuns: 50 },
    );
  });
});
