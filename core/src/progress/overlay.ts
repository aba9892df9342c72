/** One strike's picture laid over another's by the body in it, wherever the camera stood. */
import type { Landmark } from '../body/landmarks';
import type { PlanePoint } from '../geometry/homography';
import { similarity, type Similarity } from '../geometry/similarity';

/** Landmarks at the same instant of a strike, pixels. */
export type Places = Partial<Readonly<Record<Landmark, PlanePoint>>>;

/** What stands stillest comes first: two strikes differ above all in the arms. */
const STANDING = /(Hip|Knee|Ankle|Heel|Toe)$/;
const TRUNK = /(Hip|Shoulder|Ear|Knee|Ankle|Heel|Toe)$|^nose$/;
const FEWEST = 3;

/**
 * @returns what takes the second picture onto the first; null where too little of the body is known
 *   in both
 */
export function overlayOf(first: Places, second: Places): Similarity | null {
  const common = (Object.keys(first) as Landmark[]).filter((name) => second[name]);
  const among = (pattern: RegExp) => common.filter((name) => pattern.test(name));
  const chosen = [among(STANDING), among(TRUNK)].find((names) => names.length >= FEWEST) ?? common;
  return similarity(
    chosen.map((name) => second[name]!),
    chosen.map((name) => first[name]!),
  );
}
