/**
 * Where a camera stands, how it looks and how strongly it enlarges, from one rectangle of known
 * sides: a taped or tiled piece of floor, or an upright frame.
 *
 * Pixels are square and the optical axis meets the middle of the picture, as in every camera a
 * coach films with once its picture is whole. Source: Zhang, A flexible new technique for camera
 * calibration, IEEE Trans. PAMI 22 (2000) 1330–1334, for the closed form; then least squares.
 */
import { leastSquares } from './leastSquares';
import type { Camera } from './dlt';
import { homography, through, type Homography, type PlanePoint } from './homography';
import type { PictureSize } from './lens';
import { cross, dot, length, scaled, type Vector } from './vector';

/** Focal length in pixels, rotation as axis × angle, translation: world to camera. */
export interface Pose {
  readonly focal: number;
  readonly turn: Vector;
  readonly shift: Vector;
}

export interface Fitted {
  readonly pose: Pose;
  readonly camera: Camera;
  /** Root mean square miss of the known points, pixels. */
  readonly residual: number;
}

/**
 * @param space places of the known points, metres; four or more, the first four in one plane of
 *   equal third coordinate 0
 * @param picture where they are seen, pixels
 * @throws RangeError when the points do not fix a camera, above all when the rectangle is seen
 *   straight on, so that near and far cannot be told apart
 */
export function cameraOfRectangle(
  space: readonly Vector[],
  picture: readonly PlanePoint[],
  size: PictureSize,
): Fitted {
  const flat = space.filter((point) => point[2] === 0);
  const seen = picture.filter((_, i) => space[i]![2] === 0);
  const plane = homography(
    flat.map(([x, y]) => ({ x: x!, y: y! })),
    seen.map((point) => centred(point, size)),
  );
  return fit(start(plane, size), space, picture, size);
}

const centred = ({ x, y }: PlanePoint, { width, height }: PictureSize): PlanePoint => ({
  x: x - width / 2,
  y: y - height / 2,
});

const STRAIGHT_ON =
  'this rectangle is seen so straight on that near and far cannot be told apart; ' +
  'film it from more of a slant, or use a known length';

/** Focal length, rotation and translation from the plane's homography about the picture's middle. */
function start(h: Homography, size: PictureSize): Pose {
  const column = (k: 0 | 1 | 2) => h.map((row) => row[k]);
  const [a, b, c] = [column(0), column(1), column(2)] as [number[], number[], number[]];
  // (a·b) = 0 and |a| = |b| once the first two rows are divided by the focal length.
  const e1 = { flat: a[0]! * b[0]! + a[1]! * b[1]!, deep: a[2]! * b[2]! };
  const e2 = {
    flat: a[0]! ** 2 + a[1]! ** 2 - b[0]! ** 2 - b[1]! ** 2,
    deep: a[2]! ** 2 - b[2]! ** 2,
  };
  const weight = e1.deep ** 2 + e2.deep ** 2;
  const squared = -(e1.flat * e1.deep + e2.flat * e2.deep) / weight;
  const longest = 20 * Math.hypot(size.width, size.height);
  if (!(squared > 0) || !(Math.sqrt(squared) < longest)) throw new RangeError(STRAIGHT_ON);
  const focal = Math.sqrt(squared);
  const unscaled = (v: readonly number[]) => [v[0]! / focal, v[1]! / focal, v[2]!];
  const [r1, r2, t] = [unscaled(a), unscaled(b), unscaled(c)];
  // What is filmed lies in front of the lens.
  const scale = (Math.sign(t[2]!) || 1) / Math.sqrt(length(r1) * length(r2));
  const x = scaled(r1, 1 / length(r1));
  const along = dot(x, scaled(r2, 1 / length(r2)));
  const rest = scaled(r2, 1 / length(r2)).map((value, i) => value - along * x[i]!);
  const sign = Math.sign(scale);
  const [first, second] = [scaled(x, sign), scaled(rest, sign / length(rest))];
  const third = cross(first, second);
  return {
    focal,
    turn: axisAngle([0, 1, 2].map((i) => [first[i]!, second[i]!, third[i]!])),
    shift: scaled(t, scale),
  };
}

function fit(
  from: Pose,
  space: readonly Vector[],
  picture: readonly PlanePoint[],
  size: PictureSize,
): Fitted {
  const misses = (values: readonly number[]) => {
    const pose = poseFrom(values);
    return space.flatMap((point, i) => {
      const { x, y } = seenThrough(pose, point, size);
      return [x - picture[i]!.x, y - picture[i]!.y];
    });
  };
  const solved = leastSquares(misses, valuesOf(from));
  const pose = poseFrom(solved.values);
  return {
    pose,
    camera: cameraOf(pose, size),
    residual: Math.sqrt(solved.cost / space.length),
  };
}

/** As seven numbers: the logarithm of the focal length, turn, shift. */
export function valuesOf({ focal, turn, shift }: Pose): number[] {
  return [Math.log(focal), ...turn, ...shift];
}

export function poseFrom(values: readonly number[]): Pose {
  return { focal: Math.exp(values[0]!), turn: values.slice(1, 4), shift: values.slice(4, 7) };
}

/** Rotation matrix, rows, of an axis × angle. Source: Rodrigues' formula. */
export function rotation(turn: Vector): number[][] {
  const angle = length(turn);
  if (angle < 1e-12) {
    return [
      [1, 0, 0],
      [0, 1, 0],
      [0, 0, 1],
    ];
  }
  const [x, y, z] = scaled(turn, 1 / angle) as [number, number, number];
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  const k = 1 - c;
  return [
    [c + x * x * k, x * y * k - z * s, x * z * k + y * s],
    [y * x * k + z * s, c + y * y * k, y * z * k - x * s],
    [z * x * k - y * s, z * y * k + x * s, c + z * z * k],
  ];
}

function axisAngle(r: readonly (readonly number[])[]): number[] {
  const cosine = Math.min(1, Math.max(-1, (r[0]![0]! + r[1]![1]! + r[2]![2]! - 1) / 2));
  const angle = Math.acos(cosine);
  const axis = [r[2]![1]! - r[1]![2]!, r[0]![2]! - r[2]![0]!, r[1]![0]! - r[0]![1]!];
  const sine = length(axis);
  if (sine > 1e-6) return scaled(axis, angle / sine);
  if (angle < 1) return scaled(axis, 0.5);
  // Half a turn: the axis is the column of R + 1 that is longest.
  const columns = [0, 1, 2].map((k) => r.map((row, i) => row[k]! + (i === k ? 1 : 0)));
  const longest = columns.reduce((best, one) => (length(one) > length(best) ? one : best));
  return scaled(longest, angle / length(longest));
}

/** Where a posed camera sees a point, pixels. */
export function seenThrough(pose: Pose, point: Vector, size: PictureSize): PlanePoint {
  const [x, y, z] = rotation(pose.turn).map((row, i) => dot(row, point) + pose.shift[i]!) as [
    number,
    number,
    number,
  ];
  return {
    x: size.width / 2 + (pose.focal * x) / z,
    y: size.height / 2 + (pose.focal * y) / z,
  };
}

/** The same camera as the eleven numbers of `dlt`. */
export function cameraOf({ focal, turn, shift }: Pose, size: PictureSize): Camera {
  const r = rotation(turn);
  const full = (k: 0 | 1 | 2) => [...r[k]!, shift[k]!];
  const [x, y, z] = [full(0), full(1), full(2)];
  const u = x.map((value, i) => focal * value + (size.width / 2) * z[i]!);
  const v = y.map((value, i) => focal * value + (size.height / 2) * z[i]!);
  return [...u, ...v, ...z.slice(0, 3)].map((value) => value / z[3]!);
}

/**
 * The map from a plane in the world to the picture of a camera.
 *
 * @param origin a point of the plane, @param across @param up unit vectors in it
 */
export function planeSeenBy(l: Camera, origin: Vector, across: Vector, up: Vector): Homography {
  const row = (from: number, constant: number): [number, number, number] => {
    const part = l.slice(from, from + 3);
    return [dot(part, across), dot(part, up), dot(part, origin) + constant];
  };
  return [row(0, l[3]!), row(4, l[7]!), row(8, 1)];
}

/** A homography run the other way. @throws RangeError when it cannot be */
export function inverted(h: Homography): Homography {
  const [[a, b, c], [d, e, f], [g, i, k]] = h as [
    [number, number, number],
    [number, number, number],
    [number, number, number],
  ];
  const determinant = a * (e * k - f * i) - b * (d * k - f * g) + c * (d * i - e * g);
  if (determinant === 0) throw new RangeError('this plane is seen edge on');
  return [
    [(e * k - f * i) / determinant, (c * i - b * k) / determinant, (b * f - c * e) / determinant],
    [(f * g - d * k) / determinant, (a * k - c * g) / determinant, (c * d - a * f) / determinant],
    [(d * i - e * g) / determinant, (b * g - a * i) / determinant, (a * e - b * d) / determinant],
  ];
}

/** How many units of the plane one pixel is worth at a place of the picture, root mean square. */
export function unitsPerPixel(toPlane: Homography, at: PlanePoint): number {
  const here = through(toPlane, at);
  const right = through(toPlane, { x: at.x + 1, y: at.y });
  const down = through(toPlane, { x: at.x, y: at.y + 1 });
  const square =
    (right.x - here.x) ** 2 +
    (right.y - here.y) ** 2 +
    (down.x - here.x) ** 2 +
    (down.y - here.y) ** 2;
  return Math.sqrt(square / 2);
}
