/** From pixels to metres: a rectangle on the floor, an upright frame, a bowed lens, two views. */
import { describe, expect, it } from 'vitest';
import { calibrated, lengthTrials, spaceTrials } from '@sinew/fighters/trials/capture';
import { eventFrames, filmTimes, matSeen, placedIn } from '@sinew/fighters/film/takeTruth';
import { DEMO_TAKE, takeMover, type TakeFilm } from '@sinew/fighters/film/takes';
import { project } from '@sinew/fighters/film/camera';
import { contradictsView, floorCamera, standing } from '../src/reconstruct/calibration/camera';
import type { Calibration } from '../src/reconstruct/calibration/calibration';
import { lengthOf, pictureMap } from '../src/reconstruct/calibration/picture';
import { joinViews } from '../src/reconstruct/calibration/twoViews';
import { bowed, lensFromLines, straightened } from '../src/foundation/geometry/lens';
import { seenBy } from '../src/foundation/geometry/dlt';
import { cameraOfRectangle } from '../src/foundation/geometry/pose';
import { trackFromPlaced } from '../src/observe/track/track';
import { seeded } from '../src/foundation/uncertainty/random';
import opencv from './fixtures/capture.json';

const SIZE = { width: 1280, height: 720 };
const xy = ([x, y]: readonly number[]) => ({ x: x!, y: y! });
const [side, front] = DEMO_TAKE.films as [TakeFilm, TakeFilm];
const exact = (film: TakeFilm, view: 'side' | 'front') => calibrated(film, view, 0, seeded(1));

describe('the camera behind a rectangle (fixture: OpenCV projectPoints and solvePnP)', () => {
  const { rectangle } = opencv;
  const mat = [
    [0, 0, 0],
    [2, 0, 0],
    [2, 1.5, 0],
    [0, 1.5, 0],
  ];
  const calibration = (corners: readonly (readonly number[])[]): Calibration => ({
    view: 'side',
    scale: null,
    target: null,
    rectangle: { kind: 'floor', corners: corners.map(xy), width: 2, depth: 1.5, height: 1 },
    size: SIZE,
  });

  it('is found exactly from exact corners, its focal length with it', () => {
    const { camera, pose, residual } = cameraOfRectangle(mat, rectangle.corners.map(xy), SIZE);
    expect(pose.focal).toBeCloseTo(rectangle.focal, 3);
    expect(residual).toBeLessThan(1e-6);
    rectangle.control.forEach((point, i) => {
      const seen = seenBy(camera, point);
      expect(seen.x).toBeCloseTo(rectangle.seen[i]![0]!, 4);
      expect(seen.y).toBeCloseTo(rectangle.seen[i]![1]!, 4);
    });
  });

  it('stands where OpenCV says, from corners a pixel off', () => {
    // OpenCV is told the focal length and we are not: they agree to what that costs.
    const { position } = floorCamera(calibration(rectangle.noisy));
    rectangle.solvePnPPosition.forEach((value, k) => {
      expect(Math.abs(position[k]! - value)).toBeLessThan(0.35);
    });
    expect(floorCamera(calibration(rectangle.corners)).position[2]).toBeCloseTo(1.4, 6);
  });

  it('stands over the floor, whichever way around the corners are taken', () => {
    const [a, b, c, d] = rectangle.corners as [number[], number[], number[], number[]];
    const mirrored = calibration([b, a, d, c]);
    expect(floorCamera(mirrored).position[2]).toBeCloseTo(1.4, 6);
  });

  it('is refused, in words for the coach, where the rectangle fixes none', () => {
    const flat = [
      [100, 500],
      [900, 500],
      [900, 100],
      [100, 100],
    ];
    expect(() => floorCamera(calibration(flat))).toThrow(/straight on/);
    expect(() => floorCamera({ ...calibration(flat), rectangle: null })).toThrow(
      /mark a rectangle/,
    );
    const point = [
      [5, 5],
      [5, 5],
      [5, 5],
      [5, 5],
    ];
    expect(() => floorCamera(calibration(point))).toThrow(RangeError);
  });
});

describe('metres in one picture', () => {
  it('are read back exactly from an oblique view over a rectangle on the floor', () => {
    const calibration = exact(side, 'side');
    const ends = [
      [0.1, 0.4, 0],
      [0.7, 1.2, 0],
    ] as const;
    const [from, to] = ends.map((end) => project(side.camera, end));
    const found = lengthOf(calibration, { from: from!, to: to! }, 3)!;
    expect(found.metres).toBeCloseTo(1, 3);
    expect(found.halfWidth).toBeGreaterThan(0.01);
    expect(found.halfWidth).toBeLessThan(0.15);
  });

  it('lie within their ± when corners and ends are clicked a pixel or three off', () => {
    const seeds = Array.from({ length: 40 }, (_, i) => i + 1);
    for (const sigma of [1, 3]) {
      const { errors, covered } = lengthTrials(sigma, seeds);
      expect(covered).toBeGreaterThanOrEqual(0.9 * errors.length);
      const sizes = errors.map(Math.abs).sort((a, b) => a - b);
      // A pixel is about 3 mm here: a metre from two ends and four corners a pixel off.
      expect(sizes[errors.length >> 1]!).toBeLessThan(0.006 * sigma);
    }
  });

  it('come from an upright frame in the plane of the strike as well', () => {
    const frame = [
      [-0.5, 0, 0],
      [1.0, 0, 0],
      [1.0, 2, 0],
      [-0.5, 2, 0],
    ] as const;
    const calibration: Calibration = {
      view: 'side',
      scale: null,
      target: null,
      rectangle: {
        kind: 'upright',
        corners: frame.map((corner) => project(side.camera, corner)),
        width: 1.5,
        depth: 2,
        height: 1,
      },
      size: SIZE,
    };
    const ends = [
      [0, 0.5, 0],
      [0.6, 1.3, 0],
    ] as const;
    const [from, to] = ends.map((end) => project(side.camera, end));
    expect(lengthOf(calibration, { from: from!, to: to! }, 1)!.metres).toBeCloseTo(1, 6);
  });

  it('are not claimed without a scale', () => {
    const bare: Calibration = { view: 'side', scale: null, target: null, size: SIZE };
    expect(lengthOf(bare, { from: { x: 0, y: 0 }, to: { x: 9, y: 9 } }, 3)).toBeNull();
    expect(pictureMap(bare, 3).metric).toBe(false);
  });

  it('run toward the target along the line that was drawn on the floor', () => {
    const onFloor = (x: number, z: number) => project(side.camera, [x, 0, z]);
    const calibration = {
      ...exact(side, 'side'),
      target: { from: onFloor(0, 0.3), to: onFloor(0.8, -0.3) },
    };
    const { at, toward } = standing(calibration, floorCamera(calibration));
    // World of the mat: x from its first corner along the first side, y into the depth.
    expect(at[0]).toBeCloseTo(0.9, 3);
    expect(at[1]).toBeCloseTo(0.45, 3);
    expect(toward[0]).toBeCloseTo(0.8, 3);
    expect(toward[1]).toBeCloseTo(0.6, 3);
  });
});

describe('a bowed lens (fixture: OpenCV’s first radial coefficient)', () => {
  const { straight, bowed: seen, elsewhere } = opencv.lens;

  it('is straightened from its edges to a pixel, also elsewhere in the picture', () => {
    const lens = lensFromLines(
      seen.map((edge) => edge.map(xy)),
      SIZE,
    );
    expect(lens.bend).toBeGreaterThan(0);
    expect(lens.residual).toBeLessThan(0.3);
    // OpenCV bows the straight picture, we straighten the bowed one; the scale in the middle is free.
    const points = [...seen.flat(), ...elsewhere.bowed];
    const wanted = [...straight.flat(), ...elsewhere.straight];
    points.forEach((point, i) => {
      const back = straightened(xy(point), SIZE, lens);
      expect(Math.hypot(back.x - wanted[i]![0]!, back.y - wanted[i]![1]!)).toBeLessThan(1.5);
    });
  });

  it('shows a point again where it was seen', () => {
    for (const bend of [-0.2, 0.05, 0.3]) {
      const there = bowed({ x: 1200, y: 80 }, SIZE, { bend });
      const back = straightened(there, SIZE, { bend });
      expect(back.x).toBeCloseTo(1200, 6);
      expect(back.y).toBeCloseTo(80, 6);
    }
  });

  it('is not told from three places', () => {
    expect(() => lensFromLines([[1, 2, 3].map((x) => ({ x, y: x }))], SIZE)).toThrow(
      /four or more/,
    );
  });
});

describe('two views', () => {
  const frames = eventFrames(DEMO_TAKE, side, 1);
  const pictures = ([side, front] as const).map((film, i) => {
    const { load, end } = eventFrames(DEMO_TAKE, film, 1);
    const wanted = Array.from({ length: end - load + 1 }, (_, k) => load + k);
    return {
      track: trackFromPlaced(
        placedIn(DEMO_TAKE, film, wanted, ['rightWrist', 'leftHip']),
        filmTimes(DEMO_TAKE, film),
        720,
      ),
      calibration: exact(film, i === 0 ? 'side' : 'front'),
    };
  });
  const offset = {
    seconds: side.starts - front.starts,
    sigma: 0.0005,
    by: 'sound',
    pairs: 4,
  } as const;

  it('give a body in space, in the student’s own axes', () => {
    const { track, disagreements } = joinViews(pictures[0]!, pictures[1]!, offset);
    const wrist = track.points.rightWrist!;
    const at = wrist.frames.indexOf(frames.contact);
    const truth = takeMover(DEMO_TAKE)(track.frameTimes[frames.contact]!).rightWrist;
    // Toward the target, up, and to the right from the middle of the mat; eighths of a pixel.
    [wrist.x[at]! - (truth[0] - 0.1), wrist.y[at]! - truth[1], wrist.z![at]! - truth[2]].forEach(
      (error) => expect(Math.abs(error)).toBeLessThan(0.003),
    );
    expect(disagreements).toEqual([]);
    expect(track.source).toBe('measured-3d');
    expect(track.scaleSigma).toBeGreaterThan(0);
  });

  it('whose corners were taken in another order disagree, or contradict the view', () => {
    const { calibration, track } = pictures[1]!;
    const taken = (order: readonly number[]) => {
      const corners = order.map((i) => calibration.rectangle!.corners[i]!);
      return { ...calibration, rectangle: { ...calibration.rectangle!, corners } };
    };
    const around = { track, calibration: taken([3, 2, 1, 0]) };
    const { disagreements } = joinViews(pictures[0]!, around, offset);
    expect(disagreements.length).toBeGreaterThan(20);
    // Half a turn fits a body that stands in the middle almost as well, but from the wrong side.
    const opposite = taken([2, 3, 0, 1]);
    expect(contradictsView(opposite, floorCamera(opposite))).toBe(true);
    expect(contradictsView(calibration, floorCamera(calibration))).toBe(false);
  });

  it('claim no better than their ± allows', () => {
    const { errors, covered } = spaceTrials(3, [1, 2]);
    expect(covered / errors.length).toBeGreaterThan(0.88);
  });

  it('need the rectangle in both pictures', () => {
    const bare = { ...pictures[1]!, calibration: { ...pictures[1]!.calibration, rectangle: null } };
    expect(() => joinViews(pictures[0]!, bare, offset)).toThrow(/mark a rectangle/);
    expect(matSeen(DEMO_TAKE, front).corners).toHaveLength(4);
  });
});
