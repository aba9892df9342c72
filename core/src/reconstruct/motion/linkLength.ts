/** How long a link is, as far as a motion shows. */
import { framesTogether } from '../../foundation/signal/noise';
import { distance } from '../../foundation/geometry/vector';
import type { Motion, Path } from './motion';
import { shared } from './where';

export interface LinkLength {
  /** Metres (pixels without a scale). */
  readonly length: number;
  readonly sigma: number;
}

/**
 * In space the mean over all frames. In a picture a link that points at the camera looks shorter
 * than it is, never longer: then the mean of the longest tenth, which is less driven by noise than
 * the longest alone.
 *
 * @returns null when no frame shows both ends
 */
export function linkLength(motion: Motion, near: Path, far: Path): LinkLength | null {
  const seen = shared(near, far).map(([i, k]) => ({
    length: distance(
      near.along.map((v) => v[i]!),
      far.along.map((v) => v[k]!),
    ),
    sigma: Math.hypot(near.sigma[i]!, far.sigma[k]!),
    bias: Math.hypot(near.bias[i]!, far.bias[k]!),
  }));
  if (seen.length === 0) return null;
  const sorted = seen.sort((a, b) => b.length - a.length);
  const best = motion.view === '3d' ? sorted : sorted.slice(0, Math.ceil(sorted.length / 10));
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
