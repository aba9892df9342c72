/** Where a person is in a picture. */
import { LANDMARKS } from '../../foundation/body/landmarks';
import { seen, type PoseDetection } from './poseDetection';

/** Pixels from the left and top, and size. */
export interface Box {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** The box round all landmarks. */
export function boxOf(detection: PoseDetection): Box {
  const points = LANDMARKS.map((landmark) => seen(detection, landmark));
  const [left, top] = [
    Math.min(...points.map(({ x }) => x)),
    Math.min(...points.map(({ y }) => y)),
  ];
  return {
    x: left,
    y: top,
    width: Math.max(...points.map(({ x }) => x)) - left,
    height: Math.max(...points.map(({ y }) => y)) - top,
  };
}

export function isMiddleIn(box: Box, around: Box): boolean {
  const [x, y] = [box.x + box.width / 2 - around.x, box.y + box.height / 2 - around.y];
  return x >= 0 && x <= around.width && y >= 0 && y <= around.height;
}

/**
 * A box with room around it, cut off at the picture's edges.
 *
 * @param room added on every side, as a share of the longer side
 */
export function withRoom(box: Box, room: number, size: Pick<Box, 'width' | 'height'>): Box {
  const more = room * Math.max(box.width, box.height);
  const [left, top] = [Math.max(0, box.x - more), Math.max(0, box.y - more)];
  return {
    x: left,
    y: top,
    width: Math.min(size.width, box.x + box.width + more) - left,
    height: Math.min(size.height, box.y + box.height + more) - top,
  };
}
