/**
 * A track: where landmarks were seen, frame by frame, with exact times, noise and source. It may be
 * dense (a point in every frame) or a handful of points placed by hand.
 */
import type { Landmark } from '../../foundation/body/landmarks';
import { lowerBound } from '../../foundation/signal/interpolate';

/** Points of one landmark, frames ascending. Pixels (x right, y down) in 2D, metres in 3D. */
export interface Points {
  readonly frames: readonly number[];
  readonly x: readonly number[];
  readonly y: readonly number[];
  /** Only in 3D. */
  readonly z?: readonly number[];
  /** Standard deviation of each coordinate, same unit as the coordinates. */
  readonly sigma: readonly number[];
  /**
   * Standard deviation of an error that stays from frame to frame, which no smoothing lessens; none
   * when missing.
   */
  readonly bias?: readonly number[];
  /** A body tracker saw them; not so when missing. */
  readonly isTracked?: boolean;
}

interface Common {
  /** Real (capture) time of every frame of the clip, seconds, strictly ascending. */
  readonly frameTimes: readonly number[];
  readonly points: Partial<Record<Landmark, Points>>;
}

/** Pixels of one picture. */
export interface PictureTrack extends Common {
  readonly space: '2d';
  /** How exactly a point set in this picture is placed, pixels (one standard deviation). */
  readonly placingSigma: number;
  readonly source: 'measured-2d';
  /** All points were placed by hand; not so when missing. */
  readonly isByHand?: boolean;
}

/** World coordinates: X toward the target, Y up, Z to the student's right, metres. */
export interface SpaceTrack extends Common {
  readonly space: '3d';
  readonly source: 'measured-3d' | 'estimated-3d';
  /** Relative standard deviation of all lengths together; 0 when missing. */
  readonly scaleSigma?: number;
  /** By how much less sure a place is along each axis than its σ says; once when missing. */
  readonly deep?: PerAxis;
}

export type PerAxis = readonly [number, number, number];

export type Track = PictureTrack | SpaceTrack;

/** One point placed by the coach. */
export interface Placed {
  readonly landmark: Landmark;
  readonly frame: number;
  /** Pixels from the left. */
  readonly x: number;
  /** Pixels from the top. */
  readonly y: number;
}

/**
 * How exactly a person places a point on a paused picture, as a share of the picture's height
 * (3 px of 720). Common practice, no source; to be replaced by the coach's own repeat-marking
 * error once that is measured.
 */
export const HAND_PLACING_SIGMA = 3 / 720;

/** The same in pixels of a picture, from its height in pixels. */
export function placingSigmaOf(pictureHeight: number): number {
  return HAND_PLACING_SIGMA * pictureHeight;
}

/**
 * A track made of points placed by hand.
 *
 * @param frameTimes real time of every frame of the clip, seconds
 * @param pictureHeight pixels
 */
export function trackFromPlaced(
  placed: readonly Placed[],
  frameTimes: readonly number[],
  pictureHeight: number,
): PictureTrack {
  const sigma = placingSigmaOf(pictureHeight);
  const points: Partial<Record<Landmark, Points>> = {};
  const byFrame = [...placed].sort((a, b) => a.frame - b.frame);
  for (const landmark of new Set(placed.map((p) => p.landmark))) {
    const own = byFrame.filter((p) => p.landmark === landmark);
    points[landmark] = {
      frames: own.map((p) => p.frame),
      x: own.map((p) => p.x),
      y: own.map((p) => p.y),
      sigma: own.map(() => sigma),
    };
  }
  return {
    space: '2d',
    source: 'measured-2d',
    isByHand: true,
    placingSigma: sigma,
    frameTimes,
    points,
  };
}

/**
 * How long a frame stands for at `frame`: the mean distance to its neighbours, seconds. This, not
 * an average rate, is what an event's uncertainty rests on, since rates may vary within a clip.
 */
export function frameSpacing(frameTimes: readonly number[], frame: number): number {
  const from = Math.max(0, frame - 1);
  const to = Math.min(frameTimes.length - 1, frame + 1);
  if (to === from) return 0;
  return (frameTimes[to]! - frameTimes[from]!) / (to - from);
}

/** The part of a track from one time to another, seconds, both included; frames keep their numbers. */
export function cutTrack<T extends Track>(track: T, [from, to]: readonly [number, number]): T {
  const points = Object.entries(track.points).flatMap(([landmark, all]) => {
    const first = lowerBound(
      all.frames.map((frame) => track.frameTimes[frame] ?? Infinity),
      from,
    );
    let last = first;
    while (last < all.frames.length && (track.frameTimes[all.frames[last]!] ?? Infinity) <= to) {
      last += 1;
    }
    if (first === last) return [];
    const cut = (values: readonly number[]) => values.slice(first, last);
    return [
      [
        landmark,
        {
          frames: cut(all.frames),
          x: cut(all.x),
          y: cut(all.y),
          sigma: cut(all.sigma),
          ...(all.z && { z: cut(all.z) }),
          ...(all.bias && { bias: cut(all.bias) }),
          ...(all.isTracked && { isTracked: true }),
        },
      ] as const,
    ];
  });
  return { ...track, points: Object.fromEntries(points) };
}
