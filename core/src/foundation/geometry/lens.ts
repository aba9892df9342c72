/**
 * A lens that bows straight lines, and how to straighten them again: one radial coefficient about
 * the middle of the picture, with distances in half diagonals.
 *
 *   straight = middle + (seen − middle) · (1 + bend · r²)
 *
 * Source: the plumb-line method, Brown, Close-range camera calibration, Photogrammetric Engineering
 * 37 (1971) 855–866, with its first radial term only.
 */
import type { PlanePoint } from './homography';

export interface Lens {
  /** The radial coefficient: positive for barrel-shaped pictures, 0 for none. */
  readonly bend: number;
}

export interface PictureSize {
  /** Pixels. */
  readonly width: number;
  readonly height: number;
}

const halfDiagonal = ({ width, height }: PictureSize) => Math.hypot(width, height) / 2;

/** Where a point of the picture would be if the lens bowed nothing. */
export function straightened(point: PlanePoint, size: PictureSize, { bend }: Lens): PlanePoint {
  const [cx, cy] = [size.width / 2, size.height / 2];
  const [x, y] = [point.x - cx, point.y - cy];
  const factor = 1 + (bend * (x * x + y * y)) / halfDiagonal(size) ** 2;
  return { x: cx + x * factor, y: cy + y * factor };
}

/** Where the lens shows a point that without it would be here: the inverse of `straightened`. */
export function bowed(point: PlanePoint, size: PictureSize, { bend }: Lens): PlanePoint {
  const [cx, cy] = [size.width / 2, size.height / 2];
  const wanted = Math.hypot(point.x - cx, point.y - cy) / halfDiagonal(size);
  if (wanted === 0) return point;
  let r = wanted;
  for (let pass = 0; pass < 12; pass++) {
    r -= (r * (1 + bend * r * r) - wanted) / (1 + 3 * bend * r * r);
  }
  return { x: cx + ((point.x - cx) * r) / wanted, y: cy + ((point.y - cy) * r) / wanted };
}

/** No lens a coach owns bows more. */
const MOST = 0.6;
const FEWEST = 4;

/**
 * The lens under which lines that are straight in the world become straight in the picture.
 *
 * @param lines points along each, pixels; at least one line of four points
 * @throws RangeError with fewer
 */
export function lensFromLines(
  lines: readonly (readonly PlanePoint[])[],
  size: PictureSize,
): Lens & { readonly residual: number } {
  const usable = lines.filter((line) => line.length >= FEWEST);
  if (usable.length === 0) {
    throw new RangeError('a lens needs four or more points along a line that is straight in truth');
  }
  const count = usable.reduce((sum, line) => sum + line.length, 0);
  // A strong coefficient also shrinks or stretches the line: misses count as shares of its length.
  const cost = (bend: number) =>
    usable.reduce((sum, line) => {
      const straight = line.map((point) => straightened(point, size, { bend }));
      return sum + misses(straight) / spread(straight);
    }, 0);
  const bend = goldenSection(cost, -MOST, MOST);
  const left = usable.reduce(
    (sum, line) => sum + misses(line.map((point) => straightened(point, size, { bend }))),
    0,
  );
  return { bend, residual: Math.sqrt(left / count) };
}

/** Second moments of points about their middle: xx, xy, yy. */
function moments(points: readonly PlanePoint[]): [number, number, number] {
  const n = points.length;
  const x = points.reduce((sum, point) => sum + point.x, 0) / n;
  const y = points.reduce((sum, point) => sum + point.y, 0) / n;
  return points.reduce(
    ([xx, xy, yy], p) => [xx + (p.x - x) ** 2, xy + (p.x - x) * (p.y - y), yy + (p.y - y) ** 2],
    [0, 0, 0],
  );
}

/** Sum of squared distances from the best line: the smaller eigenvalue of the second moments. */
function misses(points: readonly PlanePoint[]): number {
  const [xx, xy, yy] = moments(points);
  return Math.max(0, (xx + yy) / 2 - Math.hypot((xx - yy) / 2, xy));
}

function spread(points: readonly PlanePoint[]): number {
  const [xx, , yy] = moments(points);
  return Math.max(xx + yy, 1e-9);
}

function goldenSection(cost: (value: number) => number, low: number, high: number): number {
  const share = (Math.sqrt(5) - 1) / 2;
  let [a, b] = [low, high];
  for (let pass = 0; pass < 60; pass++) {
    const [c, d] = [b - share * (b - a), a + share * (b - a)];
    if (cost(c) < cost(d)) b = d;
    else a = c;
  }
  return (a + b) / 2;
}
