/** Landmark series from elsewhere, laid over the frames of a film. */
import { LANDMARKS, type Landmark } from '../../foundation/body/landmarks';
import { interpolate, lowerBound } from '../../foundation/signal/interpolate';
import { detectionOf, type PoseDetection } from './poseDetection';
import type { PictureTrack, Points, SpaceTrack } from './track';

/** Between two samples of a series further apart than this nothing is worked out, seconds. */
const LONGEST_GAP = 0.1;

/**
 * A series in space at the frames of a film.
 *
 * @param filmTimes real time of every frame, seconds
 * @param begins the film's time at which the series' own time is 0
 */
export function spaceOnFilm(
  series: SpaceTrack,
  filmTimes: readonly number[],
  begins: number,
): SpaceTrack {
  const points: Partial<Record<Landmark, Points>> = {};
  for (const [landmark, own] of Object.entries(series.points) as [Landmark, Points][]) {
    const times = own.frames.map((frame) => series.frameTimes[frame]! + begins);
    const frames = filmTimes.flatMap((time, frame) => (isCovered(times, time) ? [frame] : []));
    if (frames.length === 0) continue;
    const along = (values: readonly number[]) =>
      frames.map((frame) => interpolate(times, values, filmTimes[frame]!));
    const sigma = Math.max(...own.sigma);
    points[landmark] = {
      frames,
      x: along(own.x),
      y: along(own.y),
      sigma: frames.map(() => sigma),
      ...(own.z && { z: along(own.z) }),
    };
  }
  return { ...series, frameTimes: filmTimes, points };
}

/** A series in the picture as detections: what it has no point of is hidden. */
export function detectionsOnFilm(
  series: PictureTrack,
  filmTimes: readonly number[],
  begins: number,
): PoseDetection[] {
  const paths = new Map(
    (Object.entries(series.points) as [Landmark, Points][]).map(([landmark, own]) => [
      landmark,
      { own, times: own.frames.map((frame) => series.frameTimes[frame]! + begins) },
    ]),
  );
  return filmTimes.flatMap((time, frame) => {
    const there = LANDMARKS.filter((one) => {
      const path = paths.get(one);
      return path && isCovered(path.times, time);
    });
    if (there.length === 0) return [];
    return [
      detectionOf(frame, (landmark) => {
        const path = paths.get(landmark);
        if (!path || !there.includes(landmark)) {
          return { x: 0, y: 0, visibility: 0, inSpace: [0, 0, 0] };
        }
        const { own, times } = path;
        return {
          x: interpolate(times, own.x, time),
          y: interpolate(times, own.y, time),
          visibility: 1,
          inSpace: [0, 0, 0],
        };
      }),
    ];
  });
}

const SAME = 1e-6;

function isCovered(times: readonly number[], time: number): boolean {
  const right = lowerBound(times, time - SAME);
  if (right >= times.length) return false;
  if (Math.abs(times[right]! - time) <= SAME) return true;
  return right > 0 && times[right]! - times[right - 1]! <= LONGEST_GAP;
}
