/** How long a link is, as far as a motion shows. */
import { mean } from 'd3-array';
import { nearestFrame } from '../../observe/track/time';
import { framesTogether } from '../../foundation/signal/noise';
import { distance } from '../../foundation/geometry/vector';
import type { Motion, Path } from './motion';
import { shared } from './where';

export interface LinkLength {
  /** Metres (pixels without a scale). */
  readonly length: number;
  readonly sigma: number;
}

/** Smoothed noise is as good as new after this, seconds. */
const BESIDE = 0.025;

/**
 * In space the mean over all frames. In a picture a link that points at the camera looks shorter
 * than it is, never longer: then the mean of the tenth that is longest by what stands on either side of
 * each frame. By the frames themselves noise would pick, and lengthen: by 6 % a forearm of 65 pixels that stays
 * in the picture, with 1.5 pixels of noise.
 *
 * @returns null when no frame shows both ends
 */
export function linkLength(motion: Motion, near: Path, far: Path): LinkLength | null {
  const seen = shared(near, far).map(([i, k]) => ({
    time: near.times[i]!,
    length: distance(
      near.along.map((v) => v[i]!),
      far.along.map((v) => v[k]!),
    ),
    sigma: Math.hypot(near.sigma[i]!, far.sigma[k]!),
    bias: Math.hypot(near.bias[i]!, far.bias[k]!),
  }));
  if (seen.length === 0) return null;
  const best = motion.view === '3d' ? seen : longestTenth(seen);
  const spacing = (near.times[near.times.length - 1]! - near.times[0]!) / near.times.length;
  const together = Math.min(best.length, framesTogether(spacing, near.hangs));
  return {
    length: best.reduce((sum, one) => sum + one.length, 0) / best.length,
    // The shake of many frames averages out, less so where it hangs together; what stays does not.
    sigma: Math.hypot(
      Math.sqrt(together * best.reduce((sum, one) => sum + one.sigma ** 2, 0)) / best.length,
      Math.max(...best.map(({ bias }) => bias)),
    ),
  };
}

function longestTenth<T extends { readonly time: number; readonly length: number }>(
  seen: readonly T[],
): T[] {
  const times = seen.map(({ time }) => time);
  const beside = seen.map(({ time, length }) => {
    const others = [time - BESIDE, time + BESIDE]
      .map((at) => seen[nearestFrame(times, at)]!)
      .filter((one) => one.time !== time && Math.abs(one.time - time) < 2 * BESIDE);
    return mean(others, (one) => one.length) ?? length;
  });
  const order = seen.map((_, i) => i).sort((a, b) => beside[b]! - beside[a]!);
  return order.slice(0, Math.ceil(seen.length / 10)).map((i) => seen[i]!);
}
