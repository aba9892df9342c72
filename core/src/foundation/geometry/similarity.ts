/** Two upright pictures laid over one another: made larger or smaller and shifted, never turned. */
import type { PlanePoint } from './homography';

/** Takes p to scale · p + (x, y). */
export interface Similarity {
  readonly scale: number;
  readonly x: number;
  readonly y: number;
}

/**
 * The one under which points come nearest to their partners, in the sum of squares.
 *
 * Source: Umeyama, IEEE Trans. Pattern Anal. 13 (1991) 376–380, with the rotation held at none.
 *
 * @param to partners of `from`, in the same order
 * @returns null for fewer than two points, for points in one place, or where only a mirror would fit
 */
export function similarity(
  from: readonly PlanePoint[],
  to: readonly PlanePoint[],
): Similarity | null {
  if (from.length < 2) return null;
  const [a, b] = [middle(from), middle(to)];
  let [together, own] = [0, 0];
  from.forEach((point, i) => {
    const [x, y] = [point.x - a.x, point.y - a.y];
    together += x * (to[i]!.x - b.x) + y * (to[i]!.y - b.y);
    own += x * x + y * y;
  });
  const scale = together / own;
  return scale > 0 && Number.isFinite(scale)
    ? { scale, x: b.x - scale * a.x, y: b.y - scale * a.y }
    : null;
}

function middle(points: readonly PlanePoint[]): PlanePoint {
  const mean = (of: (point: PlanePoint) => number) =>
    points.reduce((sum, point) => sum + of(point), 0) / points.length;
  return { x: mean(({ x }) => x), y: mean(({ y }) => y) };
}
