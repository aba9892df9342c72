/**
 * Standard deviation of `f(inputs)` for independent inputs, to first order:
 * σ_f² = Σ (∂f/∂x_i · σ_i)².
 *
 * Source: ISO/IEC Guide 98-3 (GUM), clause 5.1.2, with the partial derivatives taken as central
 * differences over ±σ_i (clause 5.1.3, note 2).
 *
 * @param inputs values, any units
 * @param sigmas standard deviation of each input, same length and units as `inputs`
 * @returns standard deviation in the unit of `f`
 */
export function propagate(
  f: (inputs: readonly number[]) => number,
  inputs: readonly number[],
  sigmas: readonly number[],
): number {
  let variance = 0;
  for (let i = 0; i < inputs.length; i++) {
    const sigma = sigmas[i]!;
    if (sigma === 0) continue;
    const nudged = (by: number) => f(inputs.map((x, k) => (k === i ? x + by : x)));
    variance += ((nudged(sigma) - nudged(-sigma)) / 2) ** 2;
  }
  return Math.sqrt(variance);
}
