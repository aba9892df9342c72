import { inverse, Matrix } from 'ml-matrix';

/**
 * Value and slope of a noisy path at one instant, from the samples of a short window, by least
 * squares with the samples' own σ. Works for dense tracks and for a handful of placed points, and
 * does not look past the instant: a strike's speed at contact must not be smoothed with what the
 * target did to it afterwards.
 *
 * Source: ordinary weighted polynomial least squares; covariance (XᵀWX)⁻¹.
 */
export interface LocalFit {
  readonly value: number;
  readonly slope: number;
  readonly curvature: number;
  readonly slopeSigma: number;
}

/**
 * @param times seconds, at least 2, distinct
 * @param values one number a time
 * @param sigmas standard deviation of each value, above 0
 * @param at seconds; the instant at which value and slope are wanted
 * @param degree 1 (line) or 2 (parabola, needs at least 3 samples)
 */
export function localFit(
  times: readonly number[],
  values: readonly number[],
  sigmas: readonly number[],
  at: number,
  degree: 1 | 2,
): LocalFit {
  const size = degree + 1;
  if (times.length < size) throw new RangeError(`a fit of degree ${degree} needs ${size} samples`);
  const scale = times.map((_, k) => 1 / sigmas[k]!);
  const design = new Matrix(
    times.map((time, k) => Array.from({ length: size }, (_, i) => (time - at) ** i * scale[k]!)),
  );
  const observed = Matrix.columnVector(values.map((value, k) => value * scale[k]!));
  const covariance = inverse(design.transpose().mmul(design));
  const coefficient = covariance.mmul(design.transpose()).mmul(observed).to1DArray();
  return {
    value: coefficient[0]!,
    slope: coefficient[1]!,
    curvature: 2 * (coefficient[2] ?? 0),
    slopeSigma: Math.sqrt(covariance.get(1, 1)),
  };
}
