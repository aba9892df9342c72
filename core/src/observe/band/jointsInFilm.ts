/** Where the joints that bands sit between are in every frame of a film, of a body that has been found in it. */
import type { Landmark } from '../../foundation/body/landmarks';
import { lowerBound } from '../../foundation/signal/interpolate';
import type { PictureTrack } from '../track/track';
import { jointsOf, type Joints, type Place } from './frames';

/** A point as close in time as this stands for a frame that has none, seconds. */
const CLOSE = 0.02;
/**
 * Between two points no farther apart than this a joint goes straight on, seconds: what a tracker loses is lost
 * in the turn, for the frames in which the band would tell most.
 */
const BRIDGED = 0.1;

export function jointsInFilm({ points, frameTimes }: PictureTrack): (frame: number) => Joints {
  return (frame) =>
    jointsOf((landmark: Landmark): Place | null => {
      const path = points[landmark];
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
