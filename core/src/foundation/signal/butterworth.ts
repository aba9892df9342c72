/**
 * Zero-lag low-pass filter for movement signals: a 2nd-order Butterworth run forwards and then
 * backwards, which cancels the delay and makes it 4th order.
 */

import { keptOver } from './noise';

export interface Biquad {
  /** Numerator, z⁰ to z⁻². */
  readonly b: readonly [number, number, number];
  /** Denominator, z⁰ to z⁻², first entry 1. */
  readonly a: readonly [number, number, number];
}

/**
 * 2nd-order Butterworth low-pass by the bilinear transform with prewarping.
 *
 * Source: the standard design (Oppenheim & Schafer); agrees with SciPy's `signal.butter(2, wn)`.
 *
 * @param cutoff Hz, between 0 and half of `rate`
 * @param rate samples per second
 * @throws RangeError when the cutoff lies outside that range
 */
export function butterworth2(cutoff: number, rate: number): Biquad {
  if (!(cutoff > 0 && cutoff < rate / 2)) {
    throw new RangeError(`cutoff ${cutoff} Hz must lie between 0 and ${rate / 2} Hz`);
  }
  const warped = Math.tan((Math.PI * cutoff) / rate);
  const norm = 1 / (1 + Math.SQRT2 * warped + warped * warped);
  const b0 = warped * warped * norm;
  return {
    b: [b0, 2 * b0, b0],
    a: [1, 2 * (warped * warped - 1) * norm, (1 - Math.SQRT2 * warped + warped * warped) * norm],
  };
}

/**
 * Run a biquad over a signal in place, from its first sample to its last or the other way, starting
 * in the steady state of the first one met, so that a constant passes unchanged. (Direct form II
 * transposed; initial state as SciPy's `lfilter_zi`.)
 */
function run(signal: Float64Array, { b, a }: Biquad, isBackward: boolean): void {
  const last = signal.length - 1;
  const first = signal[isBackward ? last : 0]!;
  let s2 = (b[2] - a[2]) * first;
  let s1 = (b[1] - a[1]) * first + s2;
  for (let k = 0; k <= last; k++) {
    const i = isBackward ? last - k : k;
    const x = signal[i]!;
    const y = b[0] * x + s1;
    s1 = b[1] * x - a[1] * y + s2;
    s2 = b[2] * x - a[2] * y;
    signal[i] = y;
  }
}

/** Mirror `count` samples through each end point, keeping value and slope there. */
function padOdd(signal: ArrayLike<number>, count: number): Float64Array {
  const n = signal.length;
  const padded = new Float64Array(n + 2 * count);
  const [first, last] = [signal[0]!, signal[n - 1]!];
  for (let i = 0; i < n; i++) padded[count + i] = signal[i]!;
  for (let i = 0; i < count; i++) {
    padded[i] = 2 * first - signal[count - i]!;
    padded[count + n + i] = 2 * last - signal[n - 2 - i]!;
  }
  return padded;
}

/**
 * Forward and backward filtering with odd reflection at the ends, as SciPy's `filtfilt` with its
 * default padding of three times the filter length.
 *
 * @param signal evenly sampled, at least 2 samples; shorter than the padding, the padding shrinks
 * @param wanted samples of padding at each end
 */
export function filtfilt(signal: ArrayLike<number>, filter: Biquad, wanted = 9): Float64Array {
  if (signal.length < 2) return Float64Array.from(signal);
  const padding = Math.min(wanted, signal.length - 1);
  const padded = padOdd(signal, padding);
  run(padded, filter, false);
  run(padded, filter, true);
  return padded.subarray(padding, padding + signal.length);
}

/**
 * Factor by which the cutoff of each pass must be raised so that `passes` passes together are
 * 3 dB down at the wanted cutoff: 1 / (2^(1/n) − 1)^(1/4); 1/0.802 for two passes.
 *
 * Source: Winter, Biomechanics and Motor Control of Human Movement, 4th ed. (2009), ch. 3.
 */
export function passCorrection(passes: number): number {
  return 1 / (2 ** (1 / passes) - 1) ** 0.25;
}

/**
 * Zero-lag 4th-order Butterworth low-pass, 3 dB down at `cutoff`.
 *
 * A cutoff too high for the rate (above 45 % of it after the double-pass correction) would change
 * nothing, so the signal is returned as it came.
 *
 * @param signal evenly sampled
 * @param cutoff Hz
 * @param rate samples per second
 */
export function lowpass(signal: readonly number[], cutoff: number, rate: number): number[] {
  return Array.from(lowpassed(signal, cutoff, rate));
}

/** The same, for who only looks at it. */
export function lowpassed(signal: ArrayLike<number>, cutoff: number, rate: number): Float64Array {
  const corrected = corrected2(cutoff, rate);
  if (corrected === null) return Float64Array.from(signal);
  // A slow filter rings for about a period of its cutoff; the padding outlasts that.
  const padding = Math.max(9, Math.ceil(rate / cutoff - 1e-6));
  return filtfilt(signal, butterworth2(corrected, rate), padding);
}

/** The cutoff each of two passes must have; null where it is out of the rate's reach. */
function corrected2(cutoff: number, rate: number): number | null {
  if (cutoff >= rate / 2) return null;
  // The correction is exact for the analogue filter; applying it to the prewarped frequency keeps
  // it exact for the digital one too.
  const warped = Math.tan((Math.PI * cutoff) / rate) * passCorrection(2);
  const corrected = (Math.atan(warped) * rate) / Math.PI;
  return corrected > 0.45 * rate ? null : corrected;
}

/** Cutoff ÷ rate to three places, so that what is worked out for it depends on nothing else. */
export function roundedRatio(cutoff: number, rate: number): number {
  return Math.max(1, Math.round((1000 * cutoff) / rate)) / 1000;
}

/** Known gains by what they were worked out for; the same always gives the same gain. */
const gains = new Map<string, readonly number[]>();

/**
 * What `lowpass` leaves of noise: its standard deviation after ÷ before, at the 1st, 2nd, … sample from either
 * end, the last entry standing for all further in. The ends keep more, since there is nothing beyond them to
 * average with.
 *
 * By the filter's own answer to single impulses: σ²_out(i) = Σ_j S_ij² σ²; noise that hangs together is a sum
 * of impulses that each ebb away. Only cutoff ÷ rate and what is kept from sample to sample matter; taken to
 * three and two places, a step of them changes the gain by less than 1 %.
 *
 * @param hangs seconds over which the noise falls to 1/e of its likeness with itself
 */
export function noiseGain(cutoff: number, rate: number, hangs = 0): readonly number[] {
  const ratio = roundedRatio(cutoff, rate);
  const keeps = Math.round(100 * keptOver(1 / rate, hangs)) / 100;
  const key = `${ratio} ${keeps}`;
  const known = gains.get(key);
  if (known) return known;
  if (corrected2(ratio, 1) === null) return [1];
  const edge = Math.ceil(1.5 / ratio);
  const squares = new Array<number>(edge + 1).fill(0);
  for (let j = 0; j < 2 * edge + 1; j++) {
    const answer = lowpassed(ebbing(3 * edge, j, keeps), ratio, 1);
    squares.forEach((_, i) => (squares[i]! += answer[i]! ** 2));
  }
  const found = squares.map(Math.sqrt);
  gains.set(key, found);
  return found;
}

/**
 * What one shock at a sample is to the samples behind it, in noise of variance 1 that keeps a share from
 * sample to sample; the first one stands for all that were before.
 */
export function ebbing(length: number, at: number, keeps: number): number[] {
  const size = at === 0 ? 1 : Math.sqrt(1 - keeps ** 2);
  return Array.from({ length }, (_, i) => (i < at ? 0 : size * keeps ** (i - at)));
}
