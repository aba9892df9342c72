/** How tall a tracked body is in the picture. */
import { sided, type Landmark } from '../../foundation/body/landmarks';
import { seen, type PoseDetection } from './poseDetection';
import type { PictureTrack } from './track';

/** A bent or turned body looks shorter than it is: of all detections the tall ones tell. */
const TALL = 0.9;

/**
 * Standing height, pixels, from the lengths of shank, thigh and trunk where they look longest.
 *
 * Source of the shares: Drillis & Contini (1966), as drawn in Winter, Biomechanics and Motor Control
 * of Human Movement, fig. 4.1 (shoulder 0.818, hip 0.53, knee 0.285, ankle 0.039 of height); value from memory.
 *
 * @returns 0 without detections
 */
export function statureOf(detections: readonly PoseDetection[]): number {
  return statureFrom((near, far) =>
    detections.map((detection) => apart(seen(detection, near), seen(detection, far))),
  );
}

/** The same of points from elsewhere: 0 when no link of legs or trunk is seen. */
export function statureOfTrack({ points }: PictureTrack): number {
  return statureFrom((near, far) => {
    const [a, b] = [points[near], points[far]];
    if (!a || !b) return [];
    const at = new Map(b.frames.map((frame, i) => [frame, i]));
    return a.frames.flatMap((frame, i) => {
      const k = at.get(frame);
      return k === undefined ? [] : [apart({ x: a.x[i]!, y: a.y[i]! }, { x: b.x[k]!, y: b.y[k]! })];
    });
  });
}

/** Links, and their shares of standing height. */
const PARTS = [
  ['Ankle', 'Knee', 0.285 - 0.039],
  ['Knee', 'Hip', 0.53 - 0.285],
  ['Hip', 'Shoulder', 0.818 - 0.53],
] as const;

/** @param lengths of a link by frame, pixels; none where it is not seen */
function statureFrom(lengths: (near: Landmark, far: Landmark) => readonly number[]): number {
  let [whole, shares] = [0, 0];
  for (const [near, far, share] of PARTS) {
    const [left, right] = (['left', 'right'] as const).map((side) =>
      lengths(sided(side, near), sided(side, far)),
    );
    const count = Math.min(left!.length, right!.length);
    if (count === 0) continue;
    const both = Array.from({ length: count }, (_, i) => (left![i]! + right![i]!) / 2);
    both.sort((a, b) => a - b);
    whole += both[Math.floor(TALL * (count - 1))]!;
    shares += share;
  }
  return shares === 0 ? 0 : whole / shares;
}

const apart = (p: Place, q: Place) => Math.hypot(q.x - p.x, q.y - p.y);

interface Place {
  readonly x: number;
  readonly y: number;
}
