/**
 * Which cutoff a signal wants: residual analysis. What a low-pass takes away is noise alone at
 * high cutoffs, where it falls in a straight line as the cutoff rises, and movement too at low
 * ones, where it rises above that line. The line, drawn back to 0 Hz, tells the size of the noise;
 * the cutoff at which as much is taken away balances what is left of the noise against what is
 * lost of the movement.
 *
 * Source: Wells & Winter 1980; Winter, Biomechanics and Motor Control of Human Movement, 4th ed.
 * (2009), ch. 3.
 */
import { lowpassed } from './butterworth';

export interface CutoffRange {
  /** Hz. */
  readonly floor: number;
  readonly cap: number;
}

/** RMS difference between a signal and its low-passed self. */
function residual(signal: Float64Array, cutoff: number, rate: number): number {
  const smooth = lowpassed(signal, cutoff, rate);
  let sum = 0;
  for (let i = 0; i < signal.length; i++) sum += (signal[i]! - smooth[i]!) ** 2;
  return Math.sqrt(sum / signal.length);
}

/** Cutoffs tried, as steps between floor and the highest that the rate allows. */
const STEPS = 5;

/**
 * @param values evenly sampled
 * @param rate samples per second
 * @returns Hz, within the range; the cap when there is no noise to speak of
 */
export function residualCutoff(
  values: readonly number[],
  rate: number,
  { floor, cap }: CutoffRange,
): number {
  // The straight part lies well above the movement; a fifth of the rate leaves it room.
  const highest = 0.34 * rate;
  const lowest = 0.2 * rate;
  if (values.length < 8 || cap <= floor || lowest <= floor) return cap;
  const signal = Float64Array.from(values);
  const tail = Array.from(
    { length: STEPS },
    (_, i) => lowest + (i * (highest - lowest)) / (STEPS - 1),
  );
  const removed = tail.map((cutoff) => residual(signal, cutoff, rate));
  const noise = intercept(tail, removed);
  if (!(noise > 0)) return cap;
  let [below, above] = [floor, cap];
  if (residual(signal, floor, rate) <= noise) return floor;
  if (residual(signal, cap, rate) > noise) return cap;
  while (above - below > 1) {
    const middle = (below + above) / 2;
    if (residual(signal, middle, rate) > noise) below = middle;
    else above = middle;
  }
  return above;
}

/** Where the least-squares line through the points meets 0 Hz. */
function intercept(x: readonly number[], y: readonly number[]): number {
  const n = x.length;
  const [mx, my] = [x.reduce((a, b) => a + b, 0) / n, y.reduce((a, b) => a + b, 0) / n];
  const slope =
    x.reduce((sum, value, i) => sum + (value - mx) * (y[i]! - my), 0) /
    x.reduce((sum, value) => sum + (value - mx) ** 2, 0);
  return my - slope * mx;
}
