/** From a flat picture to places, and from places to speeds, by closed forms: which way is which. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { doubtsOf } from '../src/observe/track/doubts';
import { REACH } from '../src/observe/track/pull';
import type { Calibration, PixelPoint } from '../src/reconstruct/calibration/calibration';
import { lengthOf, pictureMap } from '../src/reconstruct/calibration/picture';
import { excerpt } from '../src/reconstruct/motion/motion';
import { movingAround, movingAt } from '../src/reconstruct/motion/moving';
import { motionOf, pathOf, RATE, TIMES } from './spaceMotion';

const at = (x: number, y: number): PixelPoint => ({ x, y });
/** 100 pixels a metre. */
const scale = { from: at(0, 0), to: at(0, 200), metres: 2 };
const toTarget = (x: number, y: number) => ({ from: at(300, 300), to: at(300 + x, 300 + y) });
const set = (view: Calibration['view'], target: Calibration['target'] = null): Calibration => ({
  view,
  scale,
  target,
});
/** A step of a metre in the picture, along the axes of its view. */
const stepOf = (calibration: Calibration, x: number, y: number) => {
  const { place } = pictureMap(calibration, 1);
  const [from, to] = [place(at(400, 400)), place(at(400 + 100 * x, 400 + 100 * y))];
  return to.map((value, i) => Math.round((value - from[i]!) * 1e9) / 1e9 + 0);
};

describe('a picture from the side', () => {
  it('has the target where the line goes, and up against it, whichever way the student faces', () => {
    const { axes } = pictureMap(set('side', toTarget(100, 0)), 1);
    expect(axes).toEqual(['toward', 'up']);
    expect(stepOf(set('side', toTarget(100, 0)), 1, 0)).toEqual([1, 0]);
    expect(stepOf(set('side', toTarget(100, 0)), 0, -1)).toEqual([0, 1]);
    expect(stepOf(set('side', toTarget(-100, 0)), -1, 0)).toEqual([1, 0]);
    expect(stepOf(set('side', toTarget(-100, 0)), 0, -1)).toEqual([0, 1]);
  });

  it('of a camera that is tilted has both turned with the line', () => {
    // 3-4-5: the line falls to the right.
    expect(stepOf(set('side', toTarget(80, 60)), 0.8, 0.6)).toEqual([1, 0]);
    expect(stepOf(set('side', toTarget(80, 60)), 0.6, -0.8)).toEqual([0, 1]);
    expect(stepOf(set('side', toTarget(-80, 60)), -0.6, -0.8)).toEqual([0, 1]);
  });

  it('without a line, or with one of no length, knows no way to measure along', () => {
    for (const target of [null, toTarget(0, 0)]) {
      const map = pictureMap(set('side', target), 1);
      expect(map.axes).toEqual([]);
      expect(map.place(at(1, 2))).toEqual([]);
    }
  });
});

describe('a picture from the front, from behind and from above', () => {
  it('needs no line from the front: the student’s right is at the left', () => {
    expect(pictureMap(set('front'), 1).axes).toEqual(['up', 'right']);
    expect(stepOf(set('front'), 0, -1)).toEqual([1, 0]);
    expect(stepOf(set('front'), -1, 0)).toEqual([0, 1]);
  });

  it('from behind has it at the right', () => {
    expect(stepOf(set('behind'), 0, -1)).toEqual([1, 0]);
    expect(stepOf(set('behind'), 1, 0)).toEqual([0, 1]);
  });

  it('from above has it a quarter turn clockwise from the target', () => {
    expect(pictureMap(set('above', toTarget(100, 0)), 1).axes).toEqual(['toward', 'right']);
    expect(stepOf(set('above', toTarget(100, 0)), 0, 1)).toEqual([0, 1]);
    expect(stepOf(set('above', toTarget(0, -100)), 0, -1)).toEqual([1, 0]);
    expect(stepOf(set('above', toTarget(0, -100)), 1, 0)).toEqual([0, 1]);
  });

  it('keeps lengths, whatever the view and the line', () => {
    const views = fc.constantFrom('side', 'front', 'behind', 'above');
    const way = fc.double({ min: -Math.PI, max: Math.PI, noNaN: true });
    const step = fc.double({ min: -5, max: 5, noNaN: true });
    fc.assert(
      fc.property(views, way, step, step, (view, angle, x, y) => {
        const line = toTarget(100 * Math.cos(angle), 100 * Math.sin(angle));
        const { place } = pictureMap(set(view, line), 1);
        const [from, to] = [place(at(0, 0)), place(at(100 * x, 100 * y))];
        const long = Math.hypot(...to.map((value, i) => value - from[i]!));
        expect(long).toBeCloseTo(Math.hypot(x, y), 9);
      }),
    );
  });
});

describe('the scale', () => {
  it('is metres a pixel, everywhere, and as unsure as its two ends are', () => {
    const map = pictureMap(set('front'), 1.5);
    expect(map.metric).toBe(true);
    expect(map.unitAt(at(0, 0))).toBeCloseTo(0.01, 12);
    expect(map.unitAt(at(900, 700))).toBeCloseTo(0.01, 12);
    expect(map.scaleSigma).toBeCloseTo((Math.SQRT2 * 1.5) / 200, 12);
    const told = { ...set('front'), scale: { ...scale, sigma: 0.04 } };
    expect(pictureMap(told, 1.5).scaleSigma).toBe(0.04);
  });

  it('that is missing, or of no length, leaves pixels', () => {
    for (const none of [null, { ...scale, to: scale.from }]) {
      const map = pictureMap({ ...set('front'), scale: none }, 1);
      expect(map.metric).toBe(false);
      expect(map.unitAt(at(5, 5))).toBe(1);
      expect(map.scaleSigma).toBe(0);
    }
  });

  it('by an upright frame is the frame’s, also where a pixel is worth more', () => {
    // Two metres wide and one high, square on, from the lower edge: 100 pixels a metre.
    const corners = [at(100, 200), at(300, 200), at(300, 100), at(100, 100)] as const;
    const framed: Calibration = {
      ...set('side', toTarget(100, 0)),
      rectangle: { kind: 'upright', corners, width: 2, depth: 1, height: 0 },
    };
    const map = pictureMap(framed, 1);
    expect(map.unitAt(at(200, 150))).toBeCloseTo(0.01, 9);
    expect(map.unitAt(at(250, 120))).toBeCloseTo(0.01, 9);
    expect(map.scaleSigma).toBeCloseTo(Math.SQRT2 / 200, 9);
    expect(stepOf(framed, 1, 0)).toEqual([1, 0]);
    expect(stepOf(framed, 0, -1)).toEqual([0, 1]);
  });

  it('gives a line its length with the ± of its ends and of the scale together', () => {
    const measured = lengthOf(set('front'), { from: at(0, 0), to: at(300, 400) }, 2);
    expect(measured!.metres).toBeCloseTo(5, 9);
    // Ends 2 px each, scale √2 · 2 / 200 of 5 m, and 95 % of both.
    const sigma = Math.hypot(Math.SQRT2 * 2 * 0.01, 5 * ((Math.SQRT2 * 2) / 200));
    expect(measured!.halfWidth).toBeCloseTo(1.96 * sigma, 2);
    expect(
      lengthOf({ ...set('front'), scale: null }, { from: at(0, 0), to: at(1, 1) }, 2),
    ).toBeNull();
  });
});

describe('the speed of a path', () => {
  it('on a straight way is its rate, before and around any instant', () => {
    const path = pathOf((t) => [3 * t, -2 * t, 1]);
    for (const moving of [movingAt(path, 0.5)!, movingAround(path, 0.5, 0.9)!]) {
      [1.5, -1, 1].forEach((value, i) => expect(moving.at[i]!).toBeCloseTo(value, 9));
      [3, -2, 0].forEach((value, i) => expect(moving.velocity[i]!).toBeCloseTo(value, 9));
    }
  });

  it('on a parabola is its rate around the instant, with its acceleration', () => {
    const moving = movingAround(
      pathOf((t) => [20 * t * t, 0, 0]),
      0.5,
      0.9,
    )!;
    // To what the noise of its points leaves open.
    expect(moving.velocity[0]!).toBeCloseTo(20, 2);
    expect(moving.acceleration[0]!).toBeCloseTo(40, 0);
    expect(Math.abs(moving.velocity[0]! - 20)).toBeLessThan(moving.velocitySigma);
    expect(Math.abs(moving.acceleration[0]! - 40)).toBeLessThan(moving.accelerationSigma);
  });

  it('takes nothing from behind the wall that stops it', () => {
    const stopped = pathOf((t) => [t < 0.5 ? 10 * t : 5, 0, 0]);
    expect(movingAt(stopped, 0.5 - 1 / RATE)!.velocity[0]!).toBeCloseTo(10, 6);
    expect(movingAround(stopped, 0.495, 0.497)!.velocity[0]!).toBeCloseTo(10, 6);
    expect(movingAround(stopped, 0.53, 0.5)!.velocity[0]!).toBeCloseTo(0, 6);
  });

  it('is not told from a single point, and from three is less than it is, and unsure', () => {
    const path = pathOf((t) => [20 * t * t, 0, 0]);
    const few = (count: number) => {
      const cut = excerpt(
        motionOf({ leftWrist: path }),
        0.5 - (count - 0.5) / RATE,
        0.5 + 0.5 / RATE,
      );
      return movingAt(cut.raw.leftWrist!, 0.5);
    };
    expect(few(1)).toBeNull();
    // Three points give the mean speed of the last two frames, more or less, and no acceleration.
    const [three, ten] = [few(3)!, few(10)!];
    expect(three.velocity[0]!).toBeGreaterThan(20 - 40 / RATE);
    expect(Math.abs(three.velocity[0]! - 20)).toBeLessThan(1.96 * three.velocitySigma);
    expect(three.velocitySigma).toBeGreaterThan(2 * ten.velocitySigma);
    expect(three.accelerationSigma).toBe(Infinity);
    expect(Number.isFinite(ten.accelerationSigma)).toBe(true);
  });
});

describe('a stretch of a motion', () => {
  it('has the frames from one time to before the other, with all that belongs to them', () => {
    const path = {
      ...pathOf((t) => [t, 2 * t, 3 * t]),
      sigma: TIMES.map((t) => t / 10),
      bias: TIMES.map((t) => t / 20),
      isTracked: true,
    };
    const { raw, paths } = excerpt(motionOf({ leftWrist: path }), 0.25, 0.5);
    const cut = raw.leftWrist!;
    expect(cut.frames).toEqual(Array.from({ length: 60 }, (_, i) => 60 + i));
    expect(cut.times[0]).toBe(0.25);
    expect(cut.along.map((values) => values.length)).toEqual([60, 60, 60]);
    expect(cut.along.map((values) => values[0])).toEqual([0.25, 0.5, 0.75]);
    expect(cut.sigma[0]).toBeCloseTo(0.025, 12);
    expect(cut.bias[59]).toBeCloseTo(TIMES[119]! / 20, 12);
    expect(cut.isTracked).toBe(true);
    expect(paths).toBe(raw);
  });

  it('leaves out a landmark that is not seen in it', () => {
    expect(excerpt(motionOf({ leftWrist: pathOf(() => [0, 0, 0]) }), 2, 3).raw).toEqual({});
  });
});

it('a placed point settles a doubt as far as half of what it pulls, on either side', () => {
  // Frames 4.9 ms apart: half of 80 ms is eight of them, and not nine.
  const times = Array.from({ length: 81 }, (_, i) => 0.0049 * i);
  expect(REACH / 2).toBeGreaterThan(8 * 0.0049);
  expect(REACH / 2).toBeLessThan(9 * 0.0049);
  const doubted = new Map(times.map((_, frame) => [frame, 'hidden'] as const));
  const found = doubtsOf(
    new Map([['leftWrist', doubted] as const]),
    new Map([['leftWrist', [40]] as const]),
    times,
  );
  expect(found.map(({ from, to }) => [from, to])).toEqual([
    [0, 31],
    [49, 80],
  ]);
});
