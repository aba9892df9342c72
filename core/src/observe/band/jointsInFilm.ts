/** Where the joints that bands sit between are in every frame of a film, of a body that has been found in it. */
import { median } from 'd3-array';
import type { Landmark } from '../../foundation/body/landmarks';
import { lowerBound } from '../../foundation/signal/interpolate';
import type { PictureTrack, Points } from '../track/track';
import { jointsOf, type Joints, type Place } from './frames';

/** A point as close in time as this stands for a frame that has none, seconds. */
const CLOSE = 0.02;
/**
 * Between two points no farther apart than this a joint goes straight on, seconds: what a tracker loses is lost
 * in the turn, for the frames in which the band would tell most.
 */
const BRIDGED = 0.1;

/**
 * Seconds to either side of which a joint's middle place is taken: a tracker took a shoulder for another place for
 * 50 ms, which moved the ribs' middle by 3 cm and their turn by 10°; on films of made-up fighters.
 */
const AROUND = 0.06;

export function jointsInFilm({ points, frameTimes }: PictureTrack): (frame: number) => Joints {
  const steadied = new Map<Landmark, Path | null>();
  const pathOf = (landmark: Landmark) => {
    let path = steadied.get(landmark);
    if (path === undefined) {
      const raw = points[landmark];
      path = raw ? steady(raw, frameTimes) : null;
      steadied.set(landmark, path);
    }
    return path;
  };
  return (frame) =>
    jointsOf((landmark: Landmark): Place | null => {
      const path = pathOf(landmark);
      if (!path) return null;
      const time = frameTimes[frame]!;
      const after = lowerBound(path.frames, frame);
      const known = [after - 1, after].flatMap((i) =>
        i in path.frames
          ? [{ x: path.x[i]!, y: path.y[i]!, time: frameTimes[path.frames[i]!]! }]
          : [],
      );
      const [from, to] = known;
      if (from && to && to.time - from.time <= BRIDGED) {
        const share = (time - from.time) / (to.time - from.time);
        return { x: from.x + share * (to.x - from.x), y: from.y + share * (to.y - from.y) };
      }
      const near = known.find((one) => Math.abs(one.time - time) <= CLOSE);
      return near ? { x: near.x, y: near.y } : null;
    });
}

type Path = Pick<Points, 'frames' | 'x' | 'y'>;

/** Goes with a joint that goes on, and not with one that jumps away and comes back. */
function steady({ frames, x, y }: Path, frameTimes: readonly number[]): Path {
  const times = frames.map((frame) => frameTimes[frame]!);
  const middleOf = (values: readonly number[]) =>
    values.map((_, i) => {
      const before = i - lowerBound(times, times[i]! - AROUND);
      const after = lowerBound(times, times[i]! + AROUND) - 1 - i;
      const half = Math.min(before, after);
      return median(values.slice(i - half, i + half + 1))!;
    });
  return { frames, x: middleOf(x), y: middleOf(y) };
}
