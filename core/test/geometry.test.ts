import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { cameraFrom, seenBy, triangulate } from '../src/foundation/geometry/dlt';
import { homography, through, type Homography } from '../src/foundation/geometry/homography';
import { headingOf, offLine, wrapped, yawOf } from '../src/foundation/geometry/angles';
import { targetFrame } from '../src/foundation/geometry/targetFrame';
import { distance } from '../src/foundation/geometry/vector';
import opencv from './fixtures/opencv.json';

const xy = ([x, y]: readonly number[]) => ({ x: x!, y: y! });
const expectClose = (found: readonly number[], wanted: readonly number[], digits: number) =>
  found.forEach((value, i) => expect(value).toBeCloseTo(wanted[i]!, digits));

describe('a plane seen at a slant (fixture: OpenCV findHomography)', () => {
  const { plane, exact, noisy, fitted } = opencv.homography;
  const cells = (h: Homography) => h.flat();

  it('is laid flat exactly where nothing is off', () => {
    const h = homography(plane.map(xy), exact.map(xy));
    expectClose(cells(h), opencv.homography.true.flat(), 6);
    plane.forEach((point, i) => {
      const { x, y } = through(h, xy(point));
      expectClose([x, y], exact[i]!, 6);
    });
  });

  it('fits noisy points as OpenCV’s own least squares does', () => {
    const h = homography(plane.map(xy), noisy.map(xy));
    // Both minimise an algebraic error first; OpenCV then refines. They agree far inside the noise.
    plane.forEach((point) => {
      const own = through(h, xy(point));
      const theirs = through(fitted as unknown as Homography, xy(point));
      expect(Math.hypot(own.x - theirs.x, own.y - theirs.y)).toBeLessThan(0.15);
    });
  });

  it('goes back the way it came', () => {
    const there = homography(plane.map(xy), exact.map(xy));
    const back = homography(exact.map(xy), plane.map(xy));
    const { x, y } = through(back, through(there, { x: 0.77, y: 0.31 }));
    expectClose([x, y], [0.77, 0.31], 9);
  });

  it('is refused where the points do not fix it', () => {
    const line = [0, 1, 2, 3].map((x) => ({ x, y: 2 * x }));
    const square = [
      { x: 0, y: 0 },
      { x: 1, y: 0 },
      { x: 1, y: 1 },
      { x: 0, y: 1 },
    ];
    expect(() => homography(square.slice(1), square.slice(1))).toThrow(/four or more/);
    expect(() => homography(line, square)).toThrow(/on one line/);
    expect(() => homography([square[0]!, square[0]!, square[0]!, square[0]!], square)).toThrow(
      /one point/,
    );
  });
});

describe('a camera from known points (fixture: OpenCV projectPoints)', () => {
  it('sees what the true camera sees', () => {
    for (const { control, matrix } of opencv.cameras) {
      const camera = cameraFrom(opencv.space, control.map(xy));
      const scale = matrix[2]![3]!;
      expectClose(
        camera,
        matrix
          .flat()
          .slice(0, 11)
          .map((value) => value / scale),
        6,
      );
      opencv.space.forEach((point, i) => {
        const { x, y } = seenBy(camera, point);
        expectClose([x, y], control[i]!, 6);
      });
    }
  });

  it('is refused from too few points, or from points of one plane', () => {
    const [camera] = opencv.cameras;
    const control = camera!.control.map(xy);
    expect(() => cameraFrom(opencv.space.slice(0, 5), control.slice(0, 5))).toThrow(/six or more/);
    const flat = opencv.space.map(([x, y]) => [x!, y!, 0]);
    expect(() => cameraFrom(flat, control)).toThrow(/in one plane/);
  });
});

describe('a point seen by two cameras (fixture: OpenCV triangulatePoints)', () => {
  const cameras = opencv.cameras.map(({ control }) => cameraFrom(opencv.space, control.map(xy)));

  it('lies where OpenCV puts it, and within its own σ of the truth', () => {
    let covered = 0;
    opencv.points.forEach((truth, i) => {
      const seen = opencv.cameras.map((camera) => xy(camera.seen[i]!));
      const found = triangulate(cameras, seen, 0.5);
      // OpenCV’s answer is the algebraic one; ours counts errors in pixels. Half a pixel at 4 m is 2 mm.
      expect(distance(found.point, opencv.triangulated[i]!)).toBeLessThan(0.001);
      found.point.forEach((value, k) => {
        if (Math.abs(value - truth[k]!) <= 1.96 * found.sigma[k]!) covered += 1;
      });
      expect(found.residual).toBeLessThan(2);
    });
    expect(covered / 24).toBeGreaterThan(0.85);
  });

  it('comes back exactly from where it was seen, wherever it is', () => {
    const coordinate = fc.double({ min: -1, max: 1.8, noNaN: true });
    fc.assert(
      fc.property(fc.tuple(coordinate, coordinate, coordinate), (point) => {
        const seen = cameras.map((camera) => seenBy(camera, point));
        const found = triangulate(cameras, seen, 1);
        expect(distance(found.point, point)).toBeLessThan(1e-6);
        expect(found.residual).toBeLessThan(1e-5);
      }),
    );
  });

  it('is refused from one camera, or from two at one place', () => {
    const seen = { x: 600, y: 300 };
    expect(() => triangulate([cameras[0]!], [seen], 1)).toThrow(/two cameras/);
    expect(() => triangulate([cameras[0]!, cameras[0]!], [seen, seen], 1)).toThrow(/one line/);
  });
});

describe('the student’s own axes', () => {
  it('are right-handed, X toward the target, Y up: X × Y = Z', () => {
    const toOwn = targetFrame([1, 2, 0], [1, 5, 0.4], [0, 0, 2]);
    expectClose(toOwn([1, 2, 0]), [0, 0, 0], 12);
    expectClose(toOwn([1, 3, 0]), [1, 0, 0], 12);
    expectClose(toOwn([1, 2, 1]), [0, 1, 0], 12);
    expectClose(toOwn([2, 2, 0]), [0, 0, 1], 12);
  });

  it('keep distances', () => {
    const toOwn = targetFrame([0.3, 1, -2], [4, 1.5, 3], [0, 1, 0.05]);
    const [a, b] = [
      [1, 2, 3],
      [-2, 0.5, 1],
    ];
    expect(distance(toOwn(a!), toOwn(b!))).toBeCloseTo(distance(a!, b!), 12);
    expect(() => targetFrame([0, 0, 0], [0, 2, 0], [0, 1, 0])).toThrow(/straight above/);
  });
});

describe('angles of the body’s lines', () => {
  it('are 0 square to the target and positive with the right side forward', () => {
    expect(yawOf([0, 1, -0.1], [0, 1, 0.1])).toBe(0);
    expect(yawOf([0, 1, -0.1], [0.1, 1, 0])).toBeCloseTo(Math.PI / 4, 12);
    expect(headingOf([0, 0, 0], [1, 0, 1])).toBeCloseTo(Math.PI / 4, 12);
    expect(wrapped(3 * Math.PI + 0.1)).toBeCloseTo(-Math.PI + 0.1, 12);
    expect(offLine([1, 3, 0], [0, 0, 0], [5, 0, 0])).toBe(3);
  });
});
