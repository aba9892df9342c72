/**
 * Zero-lag low-pass filter for movement signals: a 2nd-order Butterworth run forwards and then
 * backwards, which cancels the delay and makes it 4th order.
 */

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
 * Run a biquad forwards, starting in the steady state of its first sample, so that a constant
 * passes unchanged. (Direct form II transposed; initial state as SciPy's `lfilter_zi`.)
 */
function run(signal: readonly number[], { b, a }: Biquad): number[] {
  const first = signal[0] ?? 0;
  let s2 = (b[2] - a[2]) * first;
  let s1 = (b[1] - a[1]) * first + s2;
  return signal.map((x) => {
    const y = b[0] * x + s1;
    s1 = b[1] * x - a[1] * y + s2;
    s2 = b[2] * x - a[2] * y;
    return y;
  });
}

/** Mirror `count` samples through each end point, keeping value and slope there. */
function padOdd(signal: readonly number[], count: number): number[] {
  const first = signal[0]!;
  const last = signal[signal.length - 1]!;
  const before = Array.from({ length: count }, (_, i) => 2 * first - signal[count - i]!);
  const after = Array.from({ length: count }, (_, i) => 2 * last - signal[signal.length - 2 - i]!);
  return [...before, ...signal, ...after];
}

/**
 * Forward and backward filtering with odd reflection at the ends, as SciPy's `filtfilt` with its
 * default padding of three times the filter length.
 *
 * @param signal evenly sampled, at least 2 samples; shorter than the padding, the padding shrinks
 */
export function filtfilt(signal: readonly number[], filter: Biquad): number[] {
  if (signal.length < 2) return [...signal];
  const padding = Math.min(9, signal.length - 1);
  const forward = run(padOdd(signal, padding), filter);
  const backward = run(forward.reverse(), filter).reverse();
  return backward.slice(padding, padding + signal.length);
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
  // The correction is exact for the analogue filter; applying it to the prewarped frequency keeps
  // it exact for the digital one too.
  const warped = Math.tan((Math.PI * cutoff) / rate) * passCorrection(2);
  const corrected = (Math.atan(warped) * rate) / Math.PI;
  if (cutoff >= rate / 2 || corrected > 0.45 * rate) return [...signal];
  return filtfilt(signal, butterworth2(corrected, rate));
}
