/** A straight line through values that each have their own σ. */
import quantile from '@stdlib/stats-base-dists-t-quantile';

export interface Slope {
  /** Change of the value for one step of x. */
  readonly slope: number;
  /** One standard deviation. */
  readonly sigma: number;
  /** Half-width of the 95 % interval, by Student's t with n − 2 degrees of freedom. */
  readonly halfWidth: number;
  /** The line's value at the weighted mean of x. */
  readonly level: number;
  readonly middle: number;
}

/**
 * Least squares weighted by 1/σ². Points that scatter more than their σ says make the slope less sure
 * by as much (Birge, Physical Review 1932; 40: 207).
 *
 * @returns null with fewer than three points, or all at one x
 */
export function slopeOf(
  points: readonly { readonly x: number; readonly value: number; readonly sigma: number }[],
): Slope | null {
  if (points.length < 3) return null;
  const weights = points.map(({ sigma }) => 1 / Math.max(sigma, 1e-12) ** 2);
  const total = weights.reduce((sum, w) => sum + w, 0);
  const mean = (of: (i: number) => number) =>
    weights.reduce((sum, w, i) => sum + w * of(i), 0) / total;
  const [middle, level] = [mean((i) => points[i]!.x), mean((i) => points[i]!.value)];
  const spread = weights.reduce((sum, w, i) => sum + w * (points[i]!.x - middle) ** 2, 0);
  if (!(spread > 0)) return null;
  const off = (i: number) => points[i]!.value - level;
  const slope =
    weights.reduce((sum, w, i) => sum + w * (points[i]!.x - middle) * off(i), 0) / spread;
  const misfit = weights.reduce(
    (sum, w, i) => sum + w * (off(i) - slope * (points[i]!.x - middle)) ** 2,
    0,
  );
  const freedom = points.length - 2;
  const birge = Math.max(1, Math.sqrt(misfit / freedom));
  const sigma = birge / Math.sqrt(spread);
  return { slope, sigma, halfWidth: quantile(0.975, freedom) * sigma, level, middle };
}
