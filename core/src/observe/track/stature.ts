/** How tall a tracked body is in the picture. */
import { sided, type Landmark } from '../../foundation/body/landmarks';
import { seen, type PoseDetection } from './poseDetection';

/** From ankle over knee and hip to shoulder, each length as a share of standing height: 0.779. */
const ANKLE_TO_SHOULDER = 0.818 - 0.039;
/** A bent or turned body looks shorter than it is: of all detections the tall ones tell. */
const TALL = 0.9;

/**
 * Standing height, pixels, from the lengths of shank, thigh and trunk where they look longest.
 *
 * Source of the shares: Drillis & Contini (1966), as drawn in Winter, Biomechanics and Motor Control
 * of Human Movement, fig. 4.1 (shoulder 0.818, ankle 0.039 of height); value from memory.
 *
 * @returns 0 without detections
 */
export function statureOf(detections: readonly PoseDetection[]): number {
  const parts = [
    ['Ankle', 'Knee'],
    ['Knee', 'Hip'],
    ['Hip', 'Shoulder'],
  ] as const;
  const whole = parts.reduce((sum, [near, far]) => {
    const lengths = detections.map((detection) => {
      const sides = (['left', 'right'] as const).map((side) =>
        apart(detection, sided(side, near), sided(side, far)),
      );
      return (sides[0]! + sides[1]!) / 2;
    });
    lengths.sort((a, b) => a - b);
    return sum + (lengths[Math.floor(TALL * (lengths.length - 1))] ?? 0);
  }, 0);
  return whole / ANKLE_TO_SHOULDER;
}

function apart(detection: PoseDetection, a: Landmark, b: Landmark): number {
  const [p, q] = [seen(detection, a), seen(detection, b)];
  return Math.hypot(q.x - p.x, q.y - p.y);
}
