/** What the coach says about tracked points, beside placing them anew. */
import type { Landmark } from '../../foundation/body/landmarks';

export const CORRECTIONS = ['keep', 'drop', 'swap'] as const;

/**
 * - `keep`: the landmark is right as it was tracked.
 * - `drop`: it cannot be seen there; what was tracked is left out.
 * - `swap`: its limb and the other side's are exchanged.
 */
export interface Correction {
  readonly kind: (typeof CORRECTIONS)[number];
  readonly landmark: Landmark;
  /** Frames, both included. */
  readonly from: number;
  readonly to: number;
}

export function covers({ from, to }: Pick<Correction, 'from' | 'to'>, frame: number): boolean {
  return frame >= from && frame <= to;
}
