/** From a link's series to its speed, as free of noise as its own noise asks for. */
import { isDense } from '../../reconstruct/motion/prepare';
import type { Series } from '../../reconstruct/motion/speeds';
import { ebbing, lowpass, roundedRatio } from '../../foundation/signal/butterworth';
import { derivative } from '../../foundation/signal/derivative';
import { lowerBound } from '../../foundation/signal/interpolate';
import { keptOver } from '../../foundation/signal/noise';
import { resampleEvenly, type Uniform } from '../../foundation/signal/resample';
import { residualCutoff, type CutoffRange } from '../../foundation/signal/residual';

/** Hz. Starts need the edge of the speed more than its size. */
export const SPEED_CUTOFFS: CutoffRange = { floor: 10, cap: 20 };

export interface Speed {
  readonly times: readonly number[];
  readonly values: readonly number[];
  /** Standard deviation of `values` from noise. */
  readonly noise: number;
}

/**
 * Only samples up to `until` go in: contact is a break, and nothing behind it may fault back.
 *
 * @param until seconds
 * @param hangs seconds over which the noise falls to 1/e of its likeness with itself
 * @returns null when there are too few samples, or too few of the frames
 */
export function speedOf(series: Series | null, until: number, hangs = 0): Speed | null {
  if (!series) return null;
  const end = lowerBound(series.times, until + 1e-9);
  if (!isDense({ frames: series.frames.slice(0, end) })) return null;
  const even = resampleEvenly(series.times.slice(0, end), series.values.slice(0, end));
  const wanted = residualCutoff(even.values, even.rate, SPEED_CUTOFFS);
  const first = smoothedSpeed(even, wanted, hangs);
  const isShaken = first.noise > SHAKEN * Math.max(...first.values);
  return isShaken && wanted > SPEED_CUTOFFS.floor
    ? smoothedSpeed(even, SPEED_CUTOFFS.floor, hangs)
    : first;
}

/** Noise of this share of the peak makes one of its own: then the speed is smoothed as far as may be. */
const SHAKEN = 0.05;

function smoothedSpeed(even: Uniform, cutoff: number, hangs: number): Speed {
  const smooth = lowpass(even.values, cutoff, even.rate);
  const left = even.values.map((value, i) => value - smooth[i]!);
  const shake = Math.sqrt(left.reduce((sum, value) => sum + value * value, 0) / left.length);
  return {
    times: even.times,
    values: derivative(smooth, even.times),
    noise: shake * rateGain(cutoff, even.rate, keptOver(1 / even.rate, hangs)),
  };
}

/** Known gains by what they were worked out for; the same always gives the same gain. */
const gains = new Map<string, number>();

/**
 * Standard deviation of the low-passed signal's speed ÷ that of what the low-pass takes away, per second.
 *
 * @param keeps share of the noise of one sample that is still in the next
 */
function rateGain(cutoff: number, rate: number, keeps: number): number {
  const ratio = roundedRatio(cutoff, rate);
  const kept = Math.round(100 * keeps) / 100;
  const key = `${ratio} ${kept}`;
  const gain = gains.get(key) ?? gainPerSample(ratio, kept);
  gains.set(key, gain);
  return gain * rate;
}

function gainPerSample(ratio: number, keeps: number): number {
  const half = Math.ceil(2 / ratio);
  const shock = ebbing(2 * half + 1, half, keeps);
  const smooth = lowpass(shock, ratio, 1);
  const size = (values: readonly number[]) => Math.hypot(...values);
  const speed = derivative(
    smooth,
    shock.map((_, i) => i),
  );
  return size(speed) / size(shock.map((value, i) => value - smooth[i]!));
}
