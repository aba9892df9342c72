/**
 * Value, slope and curvature of a noisy path at one instant, from the samples of a short window, by
 * least squares with the samples' own σ. Works for dense tracks and for a handful of placed points,
 * and does not look past the instant: a strike's speed at contact must not be smoothed with what
 * the target did to it afterwards.
 *
 * Noise that hangs together is whitened first: each row loses what the one before tells of it, so that
 * the fit is the best there is and its σ the true one.
 *
 * Source: generalised polynomial least squares, covariance (XᵀΩ⁻¹X)⁻¹; whitening after Prais & Winsten
 * (1954).
 */
import { keptOver } from './noise';

export interface LocalFit {
  readonly value: number;
  readonly slope: number;
  readonly curvature: number;
  readonly slopeSigma: number;
  /** Infinite for a line, which has no say on it. */
  readonly curvatureSigma: number;
}

/**
 * @param times seconds, at least `degree` + 1, distinct
 * @param series lists of values, one number a time each, all with the same σ
 * @param sigmas standard deviation of each value, above 0
 * @param at seconds; the instant at which value and slope are wanted
 * @param degree 1 (line) or 2 (parabola, needs at least 3 samples)
 * @param hangs seconds over which the noise falls to 1/e of its likeness with itself
 * @returns one fit a list
 */
export function localFit(
  times: readonly number[],
  series: readonly (readonly number[])[],
  sigmas: readonly number[],
  at: number,
  degree: 1 | 2,
  hangs = 0,
): LocalFit[] {
  const size = degree + 1;
  const count = times.length;
  if (count < size) throw new RangeError(`a fit of degree ${degree} needs ${size} samples`);
  // In units of the window's own span the sums are well conditioned at any frame rate.
  let span = 0;
  for (const time of times) span = Math.max(span, Math.abs(time - at));
  span ||= 1;
  const keeps = new Float64Array(count);
  const weights = new Float64Array(count);
  for (let k = 0; k < count; k++) {
    keeps[k] = k === 0 || hangs <= 0 ? 0 : keptOver(times[k]! - times[k - 1]!, hangs);
    weights[k] = 1 / Math.sqrt(1 - keeps[k]! ** 2);
  }
  /** Of a row of anything, what the row before does not tell. */
  const whitened = (row: (k: number) => number, k: number) => {
    const own = row(k) / sigmas[k]!;
    return keeps[k] === 0 ? own : (own - (keeps[k]! * row(k - 1)) / sigmas[k - 1]!) * weights[k]!;
  };
  const columns = [0, 1, 2].slice(0, size).map((power) => {
    const column = (k: number) => ((times[k]! - at) / span) ** power;
    return Float64Array.from({ length: count }, (_, k) => whitened(column, k));
  });
  const covariance = inverted(columns.map((a) => columns.map((b) => product(a, b))));
  return series.map((values) => {
    const own = Float64Array.from({ length: count }, (_, k) => whitened((i) => values[i]!, k));
    const moments = columns.map((column) => product(column, own));
    const coefficient = (i: number) => {
      const row = covariance[i]!;
      return moments.reduce((sum, moment, k) => sum + row[k]! * moment, 0);
    };
    return {
      value: coefficient(0),
      slope: coefficient(1) / span,
      curvature: degree === 2 ? (2 * coefficient(2)) / span ** 2 : 0,
      slopeSigma: Math.sqrt(covariance[1]![1]!) / span,
      curvatureSigma: degree === 2 ? (2 * Math.sqrt(covariance[2]![2]!)) / span ** 2 : Infinity,
    };
  });
}

function product(a: Float64Array, b: Float64Array): number {
  let sum = 0;
  for (let k = 0; k < a.length; k++) sum += a[k]! * b[k]!;
  return sum;
}

/** Inverse of a symmetric matrix of two or three rows, by cofactors. */
function inverted(m: readonly (readonly number[])[]): readonly (readonly number[])[] {
  const [a, b, d] = [m[0]![0]!, m[0]![1]!, m[1]![1]!];
  if (m.length === 2) {
    const determinant = a * d - b * b;
    return [
      [d / determinant, -b / determinant],
      [-b / determinant, a / determinant],
    ];
  }
  const [c, e, f] = [m[2]![0]!, m[2]![1]!, m[2]![2]!];
  const cofactors = [
    [d * f - e * e, c * e - b * f, b * e - c * d],
    [c * e - b * f, a * f - c * c, b * c - a * e],
    [b * e - c * d, b * c - a * e, a * d - b * b],
  ];
  const determinant = a * cofactors[0]![0]! + b * cofactors[0]![1]! + c * cofactors[0]![2]!;
  return cofactors.map((row) => row.map((value) => value / determinant));
}
