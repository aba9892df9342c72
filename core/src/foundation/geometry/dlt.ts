/**
 * A camera as eleven numbers, found from points whose places in space and in the picture are known;
 * and points in space from what two or more such cameras see.
 *
 *   u = (l1 X + l2 Y + l3 Z + l4) / (l9 X + l10 Y + l11 Z + 1)
 *   v = (l5 X + l6 Y + l7 Z + l8) / (l9 X + l10 Y + l11 Z + 1)
 *
 * Source: Abdel-Aziz & Karara, ASP Symposium on Close-Range Photogrammetry (1971) 1–18.
 */
import { inverse, Matrix, SingularValueDecomposition, solve } from 'ml-matrix';
import type { PlanePoint } from './homography';
import type { Vector } from './vector';

/** l1 to l11. */
export type Camera = readonly number[];

/** Points used to find a camera must not lie in one plane: the 11 numbers would not be fixed. */
const FLAT = 1e-7;

/**
 * @param space places of six or more points, not all in one plane, any unit of length
 * @param picture the same points in the picture, pixels
 * @throws RangeError when there are too few, or they lie in one plane
 */
export function cameraFrom(space: readonly Vector[], picture: readonly PlanePoint[]): Camera {
  if (space.length !== picture.length || space.length < 6) {
    throw new RangeError(`a camera needs six or more known points, not ${space.length}`);
  }
  // Centred and of unit size, points and pixels give equations of like weight.
  const middle = [0, 1, 2].map((k) => space.reduce((sum, p) => sum + p[k]!, 0) / space.length);
  const size = Math.max(...space.map((p) => Math.hypot(...p.map((v, k) => v - middle[k]!)))) || 1;
  const scale = Math.max(...picture.map(({ x, y }) => Math.hypot(x, y))) || 1;
  const rows: number[][] = [];
  const right: number[] = [];
  space.forEach((point, i) => {
    const [x, y, z] = point.map((value, k) => (value - middle[k]!) / size) as [
      number,
      number,
      number,
    ];
    const [u, v] = [picture[i]!.x / scale, picture[i]!.y / scale];
    rows.push([x, y, z, 1, 0, 0, 0, 0, -u * x, -u * y, -u * z]);
    rows.push([0, 0, 0, 0, x, y, z, 1, -v * x, -v * y, -v * z]);
    right.push(u, v);
  });
  const sizes = new SingularValueDecomposition(new Matrix(rows)).diagonal;
  if (sizes[10]! < FLAT * sizes[0]!) {
    throw new RangeError('these points lie in one plane; add one in front of or behind it');
  }
  const own = solve(new Matrix(rows), Matrix.columnVector(right), true).to1DArray();
  return inUnits(own, middle, size, scale);
}

/** From centred unit coordinates back to the caller's: l · (p − middle) / size. */
function inUnits(own: readonly number[], middle: Vector, size: number, scale: number): Camera {
  const row = (a: readonly number[], constant: number) => {
    const scaled = a.map((value) => value / size);
    const rest = constant - scaled.reduce((sum, value, k) => sum + value * middle[k]!, 0);
    return [...scaled, rest];
  };
  const u = row(own.slice(0, 3), own[3]!).map((value) => value * scale);
  const v = row(own.slice(4, 7), own[7]!).map((value) => value * scale);
  const w = row(own.slice(8, 11), 1);
  const last = w[3]!;
  return [...u, ...v, ...w.slice(0, 3)].map((value) => value / last);
}

/** Where a camera sees a point, pixels. */
export function seenBy(l: Camera, [x, y, z]: Vector): PlanePoint {
  const depth = l[8]! * x! + l[9]! * y! + l[10]! * z! + 1;
  return {
    x: (l[0]! * x! + l[1]! * y! + l[2]! * z! + l[3]!) / depth,
    y: (l[4]! * x! + l[5]! * y! + l[6]! * z! + l[7]!) / depth,
  };
}

export interface Triangulated {
  readonly point: Vector;
  /** Standard deviation of each coordinate for pixels of the given σ, same unit as the point. */
  readonly sigma: Vector;
  /** Root mean square distance between what the cameras saw and see now, pixels. */
  readonly residual: number;
}

/**
 * The point whose pictures are nearest to what the cameras saw: linear least squares, then weighted
 * by each camera's own depth so that errors count in pixels.
 *
 * @param pixelSigma how exactly the pictures' points are placed, pixels
 * @throws RangeError with fewer than two cameras, or when they see it along one line
 */
export function triangulate(
  cameras: readonly Camera[],
  seen: readonly PlanePoint[],
  pixelSigma: number,
): Triangulated {
  if (cameras.length !== seen.length || cameras.length < 2) {
    throw new RangeError('a point in space needs two cameras that see it');
  }
  let point: Vector = [0, 0, 0];
  let normal = new Matrix(3, 3);
  for (let pass = 0; pass < 3; pass++) {
    const rows: number[][] = [];
    const right: number[] = [];
    cameras.forEach((l, i) => {
      const { x: u, y: v } = seen[i]!;
      const depth = pass === 0 ? 1 : l[8]! * point[0]! + l[9]! * point[1]! + l[10]! * point[2]! + 1;
      const line = (a: number, at: number) => {
        rows.push([0, 1, 2].map((k) => (l[a + k]! - at * l[8 + k]!) / depth));
        right.push((at - l[a + 3]!) / depth);
      };
      line(0, u);
      line(4, v);
    });
    const design = new Matrix(rows);
    const sizes = new SingularValueDecomposition(design).diagonal;
    if (!(sizes[2]! > 1e-9 * sizes[0]!)) {
      throw new RangeError('the cameras see this point along one line; move one of them');
    }
    normal = design.transpose().mmul(design);
    point = solve(design, Matrix.columnVector(right), true).to1DArray();
  }
  const covariance = inverse(normal);
  const misses = cameras.map((l, i) => {
    const now = seenBy(l, point);
    return (now.x - seen[i]!.x) ** 2 + (now.y - seen[i]!.y) ** 2;
  });
  return {
    point,
    sigma: [0, 1, 2].map((k) => pixelSigma * Math.sqrt(covariance.get(k, k))),
    residual: Math.sqrt(misses.reduce((sum, one) => sum + one, 0) / cameras.length),
  };
}
