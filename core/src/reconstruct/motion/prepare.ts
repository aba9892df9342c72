/**
 * A motion made ready to be measured: short gaps filled, dense paths freed of the shake of
 * tracking. Points placed by hand, a handful per strike, pass unchanged.
 */
import { fillGaps } from '../../foundation/signal/gaps';
import { lowpass, noiseGain } from '../../foundation/signal/butterworth';
import { residualCutoff, type CutoffRange } from '../../foundation/signal/residual';
import { interpolate, lowerBound } from '../../foundation/signal/interpolate';
import { resampleEvenly } from '../../foundation/signal/resample';
import type { Landmark } from '../../foundation/body/landmarks';
import type { Motion, Path } from './motion';

/** Hz: below, a strike itself is smoothed away; above, nothing of a body's movement is left. */
export const CUTOFFS: CutoffRange = { floor: 10, cap: 30 };
/** A path with a smaller share of its frames filled was placed by hand. */
const DENSE = 0.8;
const FEWEST = 12;

/**
 * @param contact seconds, or null when not known: a target stops the strike within a frame, so
 *   the two sides of contact are smoothed apart
 * @param cutoff Hz, when the coach has fixed one
 */
export function prepared(motion: Motion, contact: number | null, cutoff?: number): Motion {
  const paths: Partial<Record<Landmark, Path>> = {};
  for (const [landmark, path] of Object.entries(motion.raw) as [Landmark, Path][]) {
    paths[landmark] = smoothed(path, motion.frameTimes, contact, cutoff);
  }
  return { ...motion, paths };
}

export function isDense({ frames }: Pick<Path, 'frames'>): boolean {
  const span = frames[frames.length - 1]! - frames[0]! + 1;
  return frames.length >= FEWEST && frames.length >= DENSE * span;
}

function smoothed(
  path: Path,
  frameTimes: readonly number[],
  contact: number | null,
  cutoff?: number,
): Path {
  if (!isDense(path)) return path;
  const filled = withGapsFilled(path, frameTimes);
  const { frames, times } = filled;
  const along = filled.along.map((values) => [...values]);
  const sigma = [...filled.sigma];
  for (const [from, to] of stretches(frames, times, contact)) {
    if (to - from < FEWEST) continue;
    const own = times.slice(from, to);
    const gains = along.map((values) => {
      const even = resampleEvenly(own, values.slice(from, to));
      const wanted = cutoff ?? residualCutoff(even.values, even.rate, CUTOFFS);
      const smooth = lowpass(even.values, wanted, even.rate);
      const isSame = own.every((t, i) => Math.abs(t - even.times[i]!) < 1e-9);
      own.forEach(
        (t, i) => (values[from + i] = isSame ? smooth[i]! : interpolate(even.times, smooth, t)),
      );
      return noiseGain(wanted, even.rate, path.hangs);
    });
    for (let i = from; i < to; i++) {
      const depth = Math.min(i - from, to - 1 - i);
      sigma[i]! *= Math.max(...gains.map((gain) => gain[Math.min(depth, gain.length - 1)]!));
    }
  }
  return { ...filled, along, sigma };
}

/** A value put into a gap is less sure than its neighbours. */
const GAP_SIGMA = 2;

/** Short gaps filled, as unsure as their neighbours twice over. */
export function withGapsFilled(path: Path, frameTimes: readonly number[]): Path {
  const along = path.along.map((values) => fillGaps(path.frames, values, frameTimes));
  const frames = along[0]?.frames ?? [...path.frames];
  if (frames.length === path.frames.length) return path;
  const filled = (values: readonly number[]) =>
    frames.map((frame) => {
      const i = lowerBound(path.frames, frame);
      return path.frames[i] === frame
        ? values[i]!
        : GAP_SIGMA * Math.max(values[i - 1]!, values[i]!);
    });
  return {
    frames,
    times: frames.map((frame) => frameTimes[frame]!),
    along: along.map((one) => one.values),
    sigma: filled(path.sigma),
    bias: filled(path.bias),
    hangs: path.hangs,
    isTracked: path.isTracked,
  };
}

/** Runs of samples without an open gap, parted at contact: from and to (not included). */
function stretches(
  frames: readonly number[],
  times: readonly number[],
  contact: number | null,
): [number, number][] {
  const cuts = [0];
  for (let i = 1; i < frames.length; i++) {
    const isGap = frames[i]! - frames[i - 1]! > 1;
    const isContact =
      contact !== null && times[i]! > contact + 1e-9 && times[i - 1]! <= contact + 1e-9;
    if (isGap || isContact) cuts.push(i);
  }
  return cuts.map((from, i) => [from, cuts[i + 1] ?? frames.length]);
}
