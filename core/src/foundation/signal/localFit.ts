/**
 * Value, slope and curvature of a noisy path at one instant, from the samples of a short window, by
 * least squares with the samples' own σ. Works for dense tracks and for a handful of placed points,
 * and does not look past the instant: a strike's speed at contact must not be smoothed with what
 * the target did to it afterwards.
 *
 * Source: ordinary weighted polynomial least squares; covariance (XᵀWX)⁻¹.
 */
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
 * @returns one fit a list
 */
export function localFit(
  times: readonly number[],
  series: readonly (readonly number[])[],
  sigmas: readonly number[],
  at: number,
  degree: 1 | 2,
): LocalFit[] {
  const size = degree + 1;
  const count = times.length;
  if (count < size) throw new RangeError(`a fit of degree ${degree} needs ${size} samples`);
  // In units of the window's own span the sums are well conditioned at any frame rate.
  let span = 0;
  for (const time of times) span = Math.max(span, Math.abs(time - at));
  span ||= 1;
  const powers = [0, 0, 0, 0, 0];
  for (let k = 0; k < count; k++) {
    const u = (times[k]! - at) / span;
    let term = 1 / sigmas[k]! ** 2;
    for (let i = 0; i <= 2 * degree; i++, term *= u) powers[i]! += term;
  }
  const covariance = inverted(powers, degree);
  return series.map((values) => {
    const moments = [0, 0, 0];
    for (let k = 0; k < count; k++) {
      const u = (times[k]! - at) / span;
      let term = values[k]! / sigmas[k]! ** 2;
      for (let i = 0; i < size; i++, term *= u) moments[i]! += term;
    }
    const coefficient = (i: number) => {
      const row = covariance[i]!;
      return row[0]! * moments[0]! + row[1]! * moments[1]! + row[2]! * moments[2]!;
    };
    const curvatureSigma =
      degree === 2 ? (2 * Math.sqrt(covariance[2]![2]!)) / span ** 2 : Infinity;
    return {
      value: coefficient(0),
      slope: coefficient(1) / span,
      curvature: (2 * coefficient(2)) / span ** 2,
      slopeSigma: Math.sqrt(covariance[1]![1]!) / span,
      curvatureSigma,
    };
  });
}

/** Inverse of the matrix of sums Σ w u^(i+j), by cofactors; rows and columns past `degree` are 0. */
function inverted(s: readonly number[], degree: 1 | 2): readonly (readonly number[])[] {
  const [a, b, c, d, e] = s as [number, number, number, number, number];
  if (degree === 1) {
    const determinant = a * c - b * b;
    return [
      [c / determinant, -b / determinant, 0],
      [-b / determinant, a / determinant, 0],
      [0, 0, 0],
    ];
  }
  const cofactors = [
    [c * e - d * d, c * d - b * e, b * d - c * c],
    [c * d - b * e, a * e - c * c, b * c - a * d],
    [b * d - c * c, b * c - a * d, a * c - b * b],
  ];
  const determinant = a * cofactors[0]![0]! + b * cofactors[0]![1]! + c * cofactors[0]![2]!;
  return cofactors.map((row) => row.map((value) => value / determinant));
}
