/**
 * Bones have lengths. In a picture a link may look shorter than it is, as it turns to the camera, but
 * never longer: then its far end was seen in the wrong place.
 */
import { sided, type Landmark, type SidedPart } from '../../foundation/body/landmarks';
import { seen, type PoseDetection } from './poseDetection';

/**
 * Links from near to far end, nearest the trunk first, and their lengths as shares of standing
 * height. With a joint, all beyond it is lost.
 *
 * Source: Drillis & Contini (1966), as drawn in Winter, Biomechanics and Motor Control of Human
 * Movement, fig. 4.1; values from memory. Knuckles, heel and toe: common practice, no source.
 */
const LINKS: readonly (readonly [SidedPart, SidedPart, number])[] = [
  ['Shoulder', 'Elbow', 0.186],
  ['Elbow', 'Wrist', 0.146],
  ['Wrist', 'IndexKnuckle', 0.065],
  ['Wrist', 'LittleKnuckle', 0.065],
  ['Hip', 'Knee', 0.245],
  ['Knee', 'Ankle', 0.246],
  ['Ankle', 'Heel', 0.07],
  ['Ankle', 'Toe', 0.13],
];

/** A body's links differ from the table's, and near the camera they look larger. */
const LONGEST = 1.25;
/** A tracker's own idea of where a joint is strays by this share of the height at either end. */
const STRAYS = 0.03;

/**
 * @param stature the body's height, pixels
 * @returns for each landmark the frames on which it is too far off to be where it was seen
 */
export function tooLong(
  detections: readonly PoseDetection[],
  stature: number,
): ReadonlyMap<Landmark, ReadonlySet<number>> {
  const wrong = new Map<Landmark, Set<number>>();
  for (const side of ['left', 'right'] as const) {
    for (const [nearPart, farPart, share] of LINKS) {
      const [near, far] = [sided(side, nearPart), sided(side, farPart)];
      const most = (LONGEST * share + STRAYS) * stature;
      const frames = new Set<number>(wrong.get(near));
      for (const detection of detections) {
        const [a, b] = [seen(detection, near), seen(detection, far)];
        if (Math.hypot(b.x - a.x, b.y - a.y) > most) frames.add(detection.frame);
      }
      if (frames.size > 0) wrong.set(far, frames);
    }
  }
  return wrong;
}
