/**
 * First derivative by differences over the neighbours, exact for parabolas also at uneven times;
 * at the two ends the parabola through the three nearest samples is used.
 *
 * @param values one number a sample
 * @param times seconds, strictly ascending, same length
 * @returns change per second; zeros for fewer than 2 samples
 */
export function derivative(values: readonly number[], times: readonly number[]): number[] {
  const n = values.length;
  if (n < 2) return values.map(() => 0);
  if (n === 2) {
    const slope = (values[1]! - values[0]!) / (times[1]! - times[0]!);
    return [slope, slope];
  }
  return values.map((_, i) => {
    const centre = Math.min(Math.max(i, 1), n - 2);
    const h0 = times[centre]! - times[centre - 1]!;
    const h1 = times[centre + 1]! - times[centre]!;
    const left = (values[centre]! - values[centre - 1]!) / h0;
    const right = (values[centre + 1]! - values[centre]!) / h1;
    const curvature = (2 * (right - left)) / (h0 + h1);
    const slope = (left * h1 + right * h0) / (h0 + h1);
    return slope + curvature * (times[i]! - times[centre]!);
  });
}
