/** How tall a tracked body is in the picture. */
import { sided, type Landmark } from '../../foundation/body/landmarks';
import { seen, type PoseDetection } from './poseDetection';
import type { PictureTrack } from './track';

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
  if (detections.length === 0) return 0;
  return statureFrom((near, far) =>
    detections.map((detection) => apart(seen(detection, near), seen(detection, far))),
  );
}

/** The same of points from elsewhere: 0 when a part of the body is never seen. */
export function statureOfTrack({ points }: PictureTrack): number {
  const whole = statureFrom((near, far) => {
    const [a, b] = [points[near], points[far]];
    if (!a || !b) return [];
    const at = new Map(b.frames.map((frame, i) => [frame, i]));
    return a.frames.flatMap((frame, i) => {
      const k = at.get(frame);
      return k === undefined ? [] : [apart({ x: a.x[i]!, y: a.y[i]! }, { x: b.x[k]!, y: b.y[k]! })];
    });
  });
  return Number.isFinite(whole) ? whole : 0;
}

const PARTS = [
  ['Ankle', 'Knee'],
  ['Knee', 'Hip'],
  ['Hip', 'Shoulder'],
] as const;

/** @param lengths of a link by frame, pixels */
function statureFrom(lengths: (near: Landmark, far: Landmark) => readonly number[]): number {
  const whole = PARTS.reduce((sum, [near, far]) => {
    const [left, right] = (['left', 'right'] as const).map((side) =>
      lengths(sided(side, near), sided(side, far)),
    );
    const both = left!.map((one, i) => (one + (right![i] ?? NaN)) / 2);
    both.sort((a, b) => a - b);
    return sum + (both[Math.floor(TALL * (both.length - 1))] ?? NaN);
  }, 0);
  return whole / ANKLE_TO_SHOULDER;
}

const apart = (p: Place, q: Place) => Math.hypot(q.x - p.x, q.y - p.y);

interface Place {
  readonly x: number;
  readonly y: number;
}
