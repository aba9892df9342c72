/**
 * Two recordings of the same hits laid over each other: by how much one camera's clock is ahead of
 * the other's.
 */
import type { Hit } from './onsets';

/** Metres a second in air of 20 °C. */
export const SPEED_OF_SOUND = 343;

export interface Offset {
  /** Seconds to add to a time of the first film to get the same moment's time in the second. */
  readonly seconds: number;
  /** Standard deviation, seconds. */
  readonly sigma: number;
  readonly by: 'sound' | 'eye';
  /** How many hits, or pairs of marks, it rests on. */
  readonly pairs: number;
}

export type OffsetProblem = 'no hits' | 'no match' | 'ambiguous';

/** Hits of one moment lie this close together once the offset is right, seconds. */
const TOGETHER = 0.015;
/** Offsets farther apart than this are different answers. */
const APART = 0.05;
/** When nobody has measured, one camera stands up to this much farther from the bag, metres. */
const UNKNOWN_DISTANCE = 2.5;

/** Where a hit lands is known no better than this, metres. */
const KNOWN_WITHIN = 0.3;

/**
 * The offset under which most hits of the first film meet one of the second, hits of like loudness
 * first where a steady rhythm allows several.
 *
 * @param distances metres from each camera to where the hits land, where known: sound needs 2.9 ms
 *   a metre, and of unknown distances the offset is that much less sure
 */
export function offsetBySound(
  first: readonly Hit[],
  second: readonly Hit[],
  distances: readonly [number, number] | null,
): Offset | OffsetProblem {
  if (first.length === 0 || second.length === 0) return 'no hits';
  const tried = first
    .flatMap((a) => second.map((b) => matchAt(first, second, b.time - a.time)))
    .sort((a, b) => b.pairs.length - a.pairs.length || a.unlike - b.unlike);
  const best = tried[0]!;
  if (best.pairs.length < Math.min(2, first.length, second.length)) return 'no match';
  const rival = tried.find(
    (one) => Math.abs(one.offset - best.offset) > APART && one.pairs.length >= best.pairs.length,
  );
  if (rival && !(best.unlike < rival.unlike / 2)) return 'ambiguous';
  const differences = best.pairs.map(([a, b]) => b.time - a.time);
  const mean = differences.reduce((sum, one) => sum + one, 0) / differences.length;
  const spread = Math.sqrt(
    differences.reduce((sum, one) => sum + (one - mean) ** 2, 0) /
      Math.max(1, differences.length - 1),
  );
  const single = Math.max(...best.pairs.map(([a, b]) => Math.hypot(a.sigma, b.sigma)));
  const travel = distances ? (distances[1] - distances[0]) / SPEED_OF_SOUND : 0;
  const travelSigma = distances
    ? (KNOWN_WITHIN * Math.SQRT2) / SPEED_OF_SOUND
    : UNKNOWN_DISTANCE / Math.sqrt(3) / SPEED_OF_SOUND;
  return {
    seconds: mean - travel,
    sigma: Math.hypot(Math.max(spread, single) / Math.sqrt(differences.length), travelSigma),
    by: 'sound',
    pairs: differences.length,
  };
}

interface Match {
  readonly offset: number;
  readonly pairs: readonly (readonly [Hit, Hit])[];
  /** Spread of the loudness ratios over the pairs, decibels: how little the hits are alike. */
  readonly unlike: number;
}

function matchAt(first: readonly Hit[], second: readonly Hit[], offset: number): Match {
  const pairs = first.flatMap((a): (readonly [Hit, Hit])[] => {
    const away = (b: Hit) => Math.abs(b.time - a.time - offset);
    const nearest = second.reduce((best, b) => (away(b) < away(best) ? b : best));
    return away(nearest) <= TOGETHER ? [[a, nearest]] : [];
  });
  const ratios = pairs.map(([a, b]) => 20 * Math.log10(b.loudness / a.loudness));
  const mean = ratios.reduce((sum, one) => sum + one, 0) / Math.max(1, ratios.length);
  const unlike = Math.sqrt(
    ratios.reduce((sum, one) => sum + (one - mean) ** 2, 0) / Math.max(1, ratios.length),
  );
  return { offset, pairs, unlike };
}

/** The offset from one instant that the coach has seen in both films, a clap or a contact. */
export function offsetByEye(
  first: { readonly time: number; readonly sigma: number },
  second: { readonly time: number; readonly sigma: number },
): Offset {
  return {
    seconds: second.time - first.time,
    sigma: Math.hypot(first.sigma, second.sigma),
    by: 'eye',
    pairs: 1,
  };
}
