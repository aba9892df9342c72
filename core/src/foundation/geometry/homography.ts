/**
 * The map from one plane to another that a camera makes: a floor or wall seen at a slant, laid flat.
 *
 * Source: direct linear transform with normalised points, Hartley & Zisserman, Multiple View
 * Geometry, 2nd ed. (2004), algorithm 4.2.
 */
import { Matrix, SingularValueDecomposition } from 'ml-matrix';

export interface PlanePoint {
  readonly x: number;
  readonly y: number;
}

/** Rows of a 3 × 3 matrix, scaled so that the last entry is 1. */
export type Homography = readonly (readonly [number, number, number])[];

/**
 * @param from, to at least four corresponding points, no three of the first four on a line
 * @throws RangeError when there are too few, or they do not fix a plane
 */
export function homography(from: readonly PlanePoint[], to: readonly PlanePoint[]): Homography {
  if (from.length !== to.length || from.length < 4) {
    throw new RangeError(`a plane needs four or more pairs of points, not ${from.length}`);
  }
  const [a, b] = [normaliser(from), normaliser(to)];
  const rows = from.flatMap((point, i) => {
    const { x, y } = through(a, point);
    const { x: u, y: v } = through(b, to[i]!);
    return [
      [-x, -y, -1, 0, 0, 0, u * x, u * y, u],
      [0, 0, 0, -x, -y, -1, v * x, v * y, v],
    ];
  });
  // Eight equations for nine unknowns: a row of zeros keeps the decomposition square.
  const svd = new SingularValueDecomposition(new Matrix([...rows, new Array<number>(9).fill(0)]));
  const sizes = svd.diagonal;
  if (sizes[7]! < 1e-9 * sizes[0]!) {
    throw new RangeError('these points do not fix a plane: three or more lie on one line');
  }
  const solved = svd.rightSingularVectors.getColumn(8);
  const flat = new Matrix([solved.slice(0, 3), solved.slice(3, 6), solved.slice(6)]);
  const full = inverse3(b)
    .mmul(flat)
    .mmul(new Matrix(a.map((row) => [...row])));
  const scale = full.get(2, 2);
  return full.to2DArray().map((row) => row.map((value) => value / scale)) as unknown as Homography;
}

/** Where a point goes. */
export function through(h: Homography, { x, y }: PlanePoint): PlanePoint {
  const [u, v, w] = h.map((row) => row[0] * x + row[1] * y + row[2]) as [number, number, number];
  return { x: u / w, y: v / w };
}

/** Moves the points' middle to 0 and their mean distance to √2, so that the equations weigh alike. */
function normaliser(points: readonly PlanePoint[]): Homography {
  const n = points.length;
  const x = points.reduce((sum, point) => sum + point.x, 0) / n;
  const y = points.reduce((sum, point) => sum + point.y, 0) / n;
  const mean = points.reduce((sum, point) => sum + Math.hypot(point.x - x, point.y - y), 0) / n;
  if (mean === 0) throw new RangeError('these points do not fix a plane: they are one point');
  const s = Math.SQRT2 / mean;
  return [
    [s, 0, -s * x],
    [0, s, -s * y],
    [0, 0, 1],
  ];
}

function inverse3(h: Homography): Matrix {
  const [s, , tx] = h[0]!;
  const ty = h[1]![2];
  return new Matrix([
    [1 / s, 0, -tx / s],
    [0, 1 / s, -ty / s],
    [0, 0, 1],
  ]);
}
