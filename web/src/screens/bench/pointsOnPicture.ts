/** Where each placed landmark stands on a given frame: as placed, or between its neighbours. */
import type { Landmark } from '@sinew/core/body/landmarks';
import { LONGEST_GAP } from '@sinew/core/motion/where';
import { interpolate } from '@sinew/core/signal/interpolate';
import type { Placed } from '@sinew/core/track/track';

export interface ShownPoint {
  readonly landmark: Landmark;
  readonly x: number;
  readonly y: number;
  /** False for a place worked out between two placed points. */
  readonly isPlaced: boolean;
}

/** Points of one landmark each, frames ascending. */
export type PlacedByLandmark = ReadonlyMap<Landmark, readonly Placed[]>;

export function groupPlaced(placed: readonly Placed[]): PlacedByLandmark {
  const groups = new Map<Landmark, Placed[]>();
  for (const point of [...placed].sort((a, b) => a.frame - b.frame)) {
    const group = groups.get(point.landmark);
    if (group) group.push(point);
    else groups.set(point.landmark, [point]);
  }
  return groups;
}

/** @param times real time of every frame, seconds */
export function pointsOnFrame(
  groups: PlacedByLandmark,
  frame: number,
  times: readonly number[],
): ShownPoint[] {
  return [...groups].flatMap(([landmark, points]): ShownPoint[] => {
    const exact = points.find((point) => point.frame === frame);
    if (exact) return [{ landmark, x: exact.x, y: exact.y, isPlaced: true }];
    const after = points.find((point) => point.frame > frame);
    const before = points.findLast((point) => point.frame < frame);
    const timeOf = (point: Placed) => times[point.frame] ?? 0;
    if (!after || !before || timeOf(after) - timeOf(before) > LONGEST_GAP) return [];
    const at = times[frame]!;
    const along = (axis: 'x' | 'y') =>
      interpolate(
        points.map(timeOf),
        points.map((point) => point[axis]),
        at,
      );
    return [{ landmark, x: along('x'), y: along('y'), isPlaced: false }];
  });
}

/** Pairs of landmarks joined by a line on the picture. */
export const BONES: readonly (readonly [Landmark, Landmark])[] = [
  ['leftShoulder', 'rightShoulder'],
  ['leftHip', 'rightHip'],
  ...(['left', 'right'] as const).flatMap((side): (readonly [Landmark, Landmark])[] => [
    [`${side}Shoulder`, `${side}Elbow`],
    [`${side}Elbow`, `${side}Wrist`],
    [`${side}Wrist`, `${side}IndexKnuckle`],
    [`${side}Shoulder`, `${side}Hip`],
    [`${side}Hip`, `${side}Knee`],
    [`${side}Knee`, `${side}Ankle`],
    [`${side}Ankle`, `${side}Heel`],
    [`${side}Heel`, `${side}Toe`],
  ]),
];
