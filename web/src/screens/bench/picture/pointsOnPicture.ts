/** Where each landmark stands on a given frame: as placed, as tracked, or between its neighbours. */
import { LANDMARKS, type Landmark } from '@sinew/core/foundation/body/landmarks';
import { LONGEST_GAP } from '@sinew/core/reconstruct/motion/where';
import { interpolate, lowerBound } from '@sinew/core/foundation/signal/interpolate';
import type { Tracking } from '@sinew/core/observe/track/trackFromDetections';
import { seen } from '@sinew/core/observe/track/poseDetection';
import type { Placed, Points } from '@sinew/core/observe/track/track';

export interface ShownPoint {
  readonly landmark: Landmark;
  readonly x: number;
  readonly y: number;
  /** Placed by the coach, worked out between two placed points, tracked, or tracked and doubted. */
  readonly kind: 'placed' | 'between' | 'tracked' | 'doubtful';
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
    if (exact) return [{ landmark, x: exact.x, y: exact.y, kind: 'placed' }];
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
    return [{ landmark, x: along('x'), y: along('y'), kind: 'between' }];
  });
}

/**
 * What the body tracker has on a frame, but for landmarks the coach has placed there. One that is
 * doubted and left out of the track stands between its neighbours there; without any, where the
 * tracker saw it.
 */
export function trackedOnFrame(
  { track, doubts, detections }: Tracking,
  frame: number,
  times: readonly number[],
  placed: readonly ShownPoint[],
): ShownPoint[] {
  const at = lowerBound(
    detections.map((detection) => detection.frame),
    frame,
  );
  const detection = detections[at]?.frame === frame ? detections[at] : null;
  const isPlaced = new Set(
    placed.flatMap(({ kind, landmark }) => (kind === 'placed' ? [landmark] : [])),
  );
  return LANDMARKS.flatMap((landmark): ShownPoint[] => {
    if (isPlaced.has(landmark)) return [];
    const isDoubted = doubts.some(
      (doubt) => doubt.landmark === landmark && frame >= doubt.from && frame <= doubt.to,
    );
    const points = track.points[landmark];
    const i = points ? lowerBound(points.frames, frame) : -1;
    if (points?.frames[i] === frame) {
      const kind = isDoubted ? 'doubtful' : 'tracked';
      return [{ landmark, x: points.x[i]!, y: points.y[i]!, kind }];
    }
    if (!isDoubted || !detection) return [];
    const bridged = points && between(points, i, times, frame);
    const { x, y } = bridged ?? seen(detection, landmark);
    return [{ landmark, x, y, kind: 'doubtful' }];
  });
}

/** Between the points before and behind a gap, if it is short enough to be measured across. */
function between(
  { frames, x, y }: Points,
  after: number,
  times: readonly number[],
  frame: number,
): { x: number; y: number } | null {
  const [from, to] = [frames[after - 1], frames[after]];
  if (from === undefined || to === undefined || times[to]! - times[from]! > LONGEST_GAP)
    return null;
  const share = (times[frame]! - times[from]!) / (times[to]! - times[from]!);
  const along = (values: readonly number[]) =>
    values[after - 1]! + share * (values[after]! - values[after - 1]!);
  return { x: along(x), y: along(y) };
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
