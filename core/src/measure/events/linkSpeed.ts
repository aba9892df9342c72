/** From a link's series to its speed, as free of noise as its own noise asks for. */
import { isDense } from '../../reconstruct/motion/prepare';
import type { Series } from '../../reconstruct/motion/speeds';
import { lowpass, roundedRatio } from '../../foundation/signal/butterworth';
import { derivative } from '../../foundation/signal/derivative';
import { lowerBound } from '../../foundation/signal/interpolate';
import { resampleEvenly } from '../../foundation/signal/resample';
import { residualCutoff, type CutoffRange } from '../../foundation/signal/residual';

/** Hz. Starts need the edge of the speed more than its size. */
export const SPEED_CUTOFFS: CutoffRange = { floor: 10, cap: 20 };

export interface Speed {
  readonly times: readonly number[];
  readonly values: readonly number[];
  /** Standard deviation of `values` from noise. */
  readonly noise: number;
  /** The same speed after a second pass: how far the filter itself moves things. */
  readonly again: readonly number[];
}

/**
 * Only samples up to `until` go in: contact is a break, and nothing behind it may fault back.
 *
 * @param until seconds
 * @returns null when there are too few samples, or too few of the frames
 */
export function speedOf(series: Series | null, until: number): Speed | null {
  if (!series) return null;
  const end = lowerBound(series.times, until + 1e-9);
  if (!isDense({ frames: series.frames.slice(0, end) })) return null;
  const even = resampleEvenly(series.times.slice(0, end), series.values.slice(0, end));
  const cutoff = residualCutoff(even.values, even.rate, SPEED_CUTOFFS);
  const smooth = lowpass(even.values, cutoff, even.rate);
  const twice = lowpass(smooth, cutoff, even.rate);
  const left = even.values.map((value, i) => value - smooth[i]!);
  const shake = Math.sqrt(left.reduce((sum, value) => sum + value * value, 0) / left.length);
  return {
    times: even.times,
    values: derivative(smooth, even.times),
    again: derivative(twice, even.times),
    noise: shake * rateGain(cutoff, even.rate),
  };
}

/** Known gains by the ratio they were worked out for; the same ratio always gives the same gain. */
const gains = new Map<number, number>();

/** Standard deviation of the low-passed signal's speed ÷ that of independent noise, per second. */
function rateGain(cutoff: number, rate: number): number {
  const ratio = roundedRatio(cutoff, rate);
  const gain = gains.get(ratio) ?? gainPerSample(ratio);
  gains.set(ratio, gain);
  return gain * rate;
}

function gainPerSample(ratio: number): number {
  const half = Math.ceil(2 / ratio);
  const impulse = Array.from({ length: 2 * half + 1 }, (_, i) => (i === half ? 1 : 0));
  const answer = derivative(
    lowpass(impulse, ratio, 1),
    impulse.map((_, i) => i),
  );
  return Math.sqrt(answer.reduce((sum, value) => sum + value * value, 0));
}
