/** One strike's picture laid over another's by the body in it, wherever the camera stood. */
import type { Landmark } from '../../foundation/body/landmarks';
import type { PlanePoint } from '../../foundation/geometry/homography';
import { similarity, type Similarity } from '../../foundation/geometry/similarity';

/** Landmarks at the same instant of a strike, pixels. */
export type Places = Partial<Readonly<Record<Landmark, PlanePoint>>>;

/** What stands stillest comes first: two strikes differ above all in the arms. */
const STANDING = /(Hip|Knee|Ankle|Heel|Toe)$/;
const TRUNK = /(Hip|Shoulder|Ear|Knee|Ankle|Heel|Toe)$|^nose$/;
const FEWEST = 3;

export interface Overlay extends Similarity {
  /** Whether legs or trunk carry it; else it is only as good as one limb that moves. */
  readonly isByBody: boolean;
}

/**
 * @returns what takes the second picture onto the first; null where too little of the body is known
 *   in both
 */
export function overlayOf(first: Places, second: Places): Overlay | null {
  const common = (Object.keys(first) as Landmark[]).filter((name) => second[name]);
  const among = (pattern: RegExp) => common.filter((name) => pattern.test(name));
  const body = [among(STANDING), among(TRUNK)].find((names) => names.length >= FEWEST);
  const chosen = body ?? common;
  const found = similarity(
    chosen.map((name) => second[name]!),
    chosen.map((name) => first[name]!),
  );
  return found && { ...found, isByBody: body !== undefined };
}
