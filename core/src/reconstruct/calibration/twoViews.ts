/** Two calibrated pictures of the same movement made into one body in space. */
import { triangulate } from '../../foundation/geometry/dlt';
import { seenThrough } from '../../foundation/geometry/pose';
import { targetFrame } from '../../foundation/geometry/targetFrame';
import { plus, type Vector } from '../../foundation/geometry/vector';
import type { Landmark } from '../../foundation/body/landmarks';
import { interpolate, lowerBound } from '../../foundation/signal/interpolate';
import type { Offset } from '../../observe/sound/sync';
import { seeded, normals } from '../../foundation/uncertainty/random';
import {
  frameSpacing,
  type PictureTrack,
  type Points,
  type SpaceTrack,
} from '../../observe/track/track';
import type { Calibration } from './calibration';
import { floorCamera, seenStraight, standing, UP, type FloorCamera } from './camera';

export interface Picture {
  readonly track: PictureTrack;
  readonly calibration: Calibration;
}

/** A landmark that the two pictures place differently. */
export interface Disagreement {
  readonly landmark: Landmark;
  /** Frame of the first film. */
  readonly frame: number;
  /** Root mean square miss in the two pictures, pixels. */
  readonly pixels: number;
}

export interface TwoViews {
  readonly track: SpaceTrack;
  readonly disagreements: readonly Disagreement[];
}

/** Between two points of the second film farther apart than this nothing is worked out, seconds. */
const LONGEST_GAP = 0.1;
/** A miss this many times the placing's own uncertainty is no accident. */
const TOO_FAR = 4;

/**
 * Landmarks that both films show, at the frames of the first, in the student's own axes.
 *
 * The rectangle is the same piece of floor in both pictures, its corners taken in the same order.
 *
 * @param offset from the first film's times to the second's
 * @throws RangeError in words for the coach when a picture's rectangle fixes no camera
 */
export function joinViews(first: Picture, second: Picture, offset: Offset): TwoViews {
  const cameras = [floorCamera(first.calibration), floorCamera(second.calibration)] as const;
  const toStudent = studentAxes(first.calibration, cameras[0]);
  const points: Partial<Record<Landmark, Points>> = {};
  const disagreements: Disagreement[] = [];
  for (const [landmark, a] of Object.entries(first.track.points) as [Landmark, Points][]) {
    const b = second.track.points[landmark];
    if (!b) continue;
    const found = inSpace({ first, second, cameras, toStudent, offset }, a, b);
    disagreements.push(...found.misses.map((miss) => ({ landmark, ...miss })));
    if (found.points.frames.length > 0) points[landmark] = found.points;
  }
  return {
    track: {
      space: '3d',
      source: 'measured-3d',
      frameTimes: first.track.frameTimes,
      scaleSigma: lengthSigma(first, second),
      points,
    },
    disagreements,
  };
}

/** From the world of the rectangle to the student's axes. */
function studentAxes(calibration: Calibration, camera: FloorCamera) {
  const { at, toward } = standing(calibration, camera);
  return targetFrame(at, plus(at, toward), UP);
}

interface Pair {
  readonly first: Picture;
  readonly second: Picture;
  readonly cameras: readonly [FloorCamera, FloorCamera];
  readonly toStudent: (point: Vector) => Vector;
  readonly offset: Offset;
}

function inSpace({ first, second, cameras, toStudent, offset }: Pair, a: Points, b: Points) {
  const found = {
    frames: [] as number[],
    places: [] as Vector[],
    sigma: [] as number[],
    bias: [] as number[],
  };
  const misses: Omit<Disagreement, 'landmark'>[] = [];
  const times = b.frames.map((frame) => second.track.frameTimes[frame]!);
  a.frames.forEach((frame, i) => {
    const there = first.track.frameTimes[frame]! + offset.seconds;
    const seen = pointAt(second.track.frameTimes, b, times, there);
    if (!seen) return;
    // Not knowing the offset exactly shifts the second point along its way.
    const late = seen.speed * offset.sigma;
    const sigma = Math.hypot(a.sigma[i]!, seen.sigma, late) / Math.SQRT2;
    const lasting = Math.hypot(a.bias?.[i] ?? 0, seen.bias) / Math.SQRT2;
    const {
      point,
      sigma: spread,
      residual,
    } = triangulate(
      cameras.map(({ camera }) => camera),
      [
        seenStraight(first.calibration, { x: a.x[i]!, y: a.y[i]! }),
        seenStraight(second.calibration, seen),
      ],
      sigma,
    );
    found.frames.push(frame);
    found.places.push(toStudent(point));
    const inMetres = Math.hypot(...spread) / Math.sqrt(3);
    found.sigma.push(inMetres);
    found.bias.push((inMetres * lasting) / sigma);
    if (residual > TOO_FAR * Math.hypot(sigma, lasting)) misses.push({ frame, pixels: residual });
  });
  const along = (k: 0 | 1 | 2) => found.places.map((place) => place[k]!);
  return {
    points: {
      frames: found.frames,
      x: along(0),
      y: along(1),
      z: along(2),
      sigma: found.sigma,
      bias: found.bias,
      isTracked: a.isTracked === true || b.isTracked === true,
    },
    misses,
  };
}

/** Past its first and last point by less than half a frame a landmark still counts as seen there. */
const HALF = 0.5;

/** Where a landmark is at a time between its points, and how fast it moves, pixels a second. */
function pointAt(
  frameTimes: readonly number[],
  points: Points,
  times: readonly number[],
  at: number,
) {
  const right = lowerBound(times, at);
  const [low, high] = [Math.max(0, right - 1), Math.min(times.length - 1, Math.max(1, right))];
  const [from, to] = [times[low]!, times[high]!];
  const nearest = Math.abs(at - from) <= Math.abs(at - to) ? low : high;
  const beyond = Math.max(0, times[0]! - at, at - times[times.length - 1]!);
  const frame = frameSpacing(frameTimes, points.frames[nearest]!);
  const isOn = Math.abs(times[nearest]! - at) <= HALF * frame;
  if (beyond > HALF * frame || (!isOn && to - from > LONGEST_GAP)) return null;
  const within = Math.min(Math.max(at, times[0]!), times[times.length - 1]!);
  const place = (time: number) => ({
    x: interpolate(times, points.x, time),
    y: interpolate(times, points.y, time),
  });
  const [before, after] = [place(from), place(to)];
  const speed = to > from ? Math.hypot(after.x - before.x, after.y - before.y) / (to - from) : 0;
  return {
    ...place(within),
    speed,
    sigma: Math.hypot(points.sigma[nearest]!, speed * beyond),
    bias: points.bias?.[nearest] ?? 0,
  };
}

const DRAWS = 24;
/** Lengths are compared at the height of a shoulder, metres. */
const SHOULDER = 1.4;

/**
 * Relative standard deviation of a length in space because the corners were placed by hand: the
 * cameras are found again from corners drawn about where they stand, and a metre is measured.
 */
function lengthSigma(first: Picture, second: Picture): number {
  const random = normals(seeded(1));
  const shaken = ({ calibration, track }: Picture): FloorCamera =>
    floorCamera({
      ...calibration,
      rectangle: {
        ...calibration.rectangle!,
        corners: calibration.rectangle!.corners.map(({ x, y }) => ({
          x: x + track.placingSigma * random(),
          y: y + track.placingSigma * random(),
        })),
      },
    });
  const told = [floorCamera(first.calibration), floorCamera(second.calibration)];
  const { at, toward } = standing(first.calibration, told[0]!);
  const ends: Vector[] = [
    [at[0]!, at[1]!, SHOULDER],
    [at[0]! + toward[0]!, at[1]! + toward[1]!, SHOULDER],
  ];
  const seen = ends.map((end) =>
    told.map(({ pose }, i) => seenByPose(pose, end, [first, second][i]!)),
  );
  const lengths: number[] = [];
  for (let draw = 0; draw < DRAWS; draw++) {
    try {
      const cameras = [shaken(first), shaken(second)].map(({ camera }) => camera);
      const [a, b] = seen.map((pixels) => triangulate(cameras, pixels, 1).point) as [
        Vector,
        Vector,
      ];
      lengths.push(Math.hypot(...a.map((value, k) => value - b[k]!)));
    } catch (error) {
      // Corners drawn so that they fix no camera tell nothing of those that do.
      if (!(error instanceof RangeError)) throw error;
    }
  }
  return Math.sqrt(lengths.reduce((sum, one) => sum + (one - 1) ** 2, 0) / lengths.length);
}

function seenByPose(pose: FloorCamera['pose'], point: Vector, { calibration }: Picture) {
  return seenThrough(pose, point, calibration.size!);
}
