/**
 * The noise of a track, read off the track itself: how large it is, and for how long it hangs together.
 *
 * Movement hardly shows in second differences, x(t − d) − 2x(t) + x(t + d), least where a body stands; noise
 * does. Noise that falls to 1/e of its likeness with itself within τ (an Ornstein–Uhlenbeck process, or
 * AR(1) once sampled) gives them the variance σ² (6 − 8ρ + 2ρ²) with ρ = e^(−d/τ): how it grows with the
 * distance d tells τ, and then its size tells σ.
 *
 * Source: moments of an AR(1) process (Box & Jenkins, Time Series Analysis, ch. 3).
 */

export interface Noise {
  /** Standard deviation of each list of values, in their own unit. */
  readonly sigmas: readonly number[];
  /** τ, seconds; null where it cannot be read: too few values, or smoothed by somebody before. */
  readonly hangs: number | null;
}

/** Values at their frames, without gaps filled. */
export interface Samples {
  readonly frames: readonly number[];
  readonly values: readonly number[];
}

/** Distances that are looked at, frames; and the longest of them, seconds. */
const DISTANCES = [1, 2, 4, 8];
const LONGEST = 0.025;
/** This share of the smallest differences is looked at: those of a body that stands. */
const QUIET = 0.4;
/** The size below which that share of normal deviates lies (SciPy: norm.ppf(0.7)). */
const QUIET_SIZE = 0.524400512708041;
/** More values than this tell no more, and fewer than that too little. */
const MOST = 500;
const FEWEST = 24;
/** τ that are held against what is seen, seconds. */
const TRIED = [0, ...Array.from({ length: 48 }, (_, i) => 0.001 * 40 ** (i / 47))];
/** Second differences over twice the distance grow by at most 2 in any such process; beyond, it is smooth. */
const SMOOTH = 2.15;

/** Variance of second differences over `distance` ÷ that of the noise. */
export function differenceVariance(distance: number, hangs: number): number {
  const keeps = hangs > 0 ? Math.exp(-distance / hangs) : 0;
  return 6 - 8 * keeps + 2 * keeps ** 2;
}

/** @param spacing seconds from frame to frame */
export function readNoise(all: readonly Samples[], spacing: number): Noise {
  const distances = DISTANCES.filter((d) => d === 1 || d * spacing <= LONGEST);
  const seen = all.map((samples) => distances.map((d) => quietVariance(samples, d)));
  const hangs = hangsOf(seen, distances, spacing);
  const nearest = differenceVariance(spacing, hangs ?? 0);
  return { sigmas: seen.map(([first]) => Math.sqrt((first ?? 0) / nearest)), hangs };
}

/** Standard deviation of the noise of one list, where it is known for how long it hangs together. */
export function noiseSigma(samples: Samples, spacing: number, hangs: number): number | null {
  const variance = quietVariance(samples, 1);
  return variance === null ? null : Math.sqrt(variance / differenceVariance(spacing, hangs));
}

/** Variance of the second differences over a distance, as the quiet ones have it; null for too few. */
function quietVariance({ frames, values }: Samples, distance: number): number | null {
  const step = Math.max(1, Math.ceil(frames.length / MOST));
  const sizes = new Float64Array(Math.ceil(frames.length / step));
  let count = 0;
  for (let i = distance; i < frames.length; i += step) {
    const isWhole =
      frames[i]! - frames[i - distance]! === distance &&
      frames[i + distance]! - frames[i]! === distance;
    if (!isWhole) continue;
    sizes[count++] = Math.abs(values[i - distance]! - 2 * values[i]! + values[i + distance]!);
  }
  if (count < FEWEST) return null;
  const quiet = sizes.subarray(0, count).sort()[Math.floor(QUIET * count)]!;
  return (quiet / QUIET_SIZE) ** 2;
}

function hangsOf(
  seen: readonly (readonly (number | null)[])[],
  distances: readonly number[],
  spacing: number,
): number | null {
  // How much larger than over one frame; the middle of all lists, whichever moved meanwhile.
  const growth = distances.slice(1).map((_, k) => {
    const ratios = seen.flatMap(([first, ...others]) =>
      first && others[k] ? [others[k] / first] : [],
    );
    ratios.sort((a, b) => a - b);
    return ratios[ratios.length >> 1] ?? null;
  });
  if (growth[0] === null) return null;
  if (growth.length === 0) return seen.some(([first]) => first) ? 0 : null;
  if (growth[0]! > SMOOTH) return null;
  let best = { hangs: 0, misfit: Infinity };
  for (const hangs of TRIED) {
    let misfit = 0;
    growth.forEach((seenGrowth, k) => {
      if (seenGrowth === null) return;
      const distance = distances[k + 1]!;
      const expected =
        differenceVariance(distance * spacing, hangs) / differenceVariance(spacing, hangs);
      // The farther, the more of it is movement.
      misfit += Math.log(seenGrowth / expected) ** 2 / distance;
    });
    if (misfit < best.misfit) best = { hangs, misfit };
  }
  return best.hangs;
}

/** How much of the noise of one frame is still in the next. */
export const keptOver = (seconds: number, hangs: number): number =>
  hangs > 0 ? Math.exp(-seconds / hangs) : 0;

/**
 * Over how many frames the noise is as good as the same: the variance of a mean of many frames is so many
 * times what it were if each had noise of its own.
 */
export function framesTogether(spacing: number, hangs: number): number {
  const keeps = keptOver(spacing, hangs);
  return (1 + keeps) / (1 - keeps);
}
