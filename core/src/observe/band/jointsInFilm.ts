/** Where the joints that bands sit between are in every frame of a film, of a body that has been found in it. */
import type { Landmark } from '../../foundation/body/landmarks';
import { lowerBound } from '../../foundation/signal/interpolate';
import type { PictureTrack } from '../track/track';
import { jointsOf, type Joints } from './frames';

/** A point as close in time as this stands for a frame that has none, seconds. */
const CLOSE = 0.02;

export function jointsInFilm({ points, frameTimes }: PictureTrack): (frame: number) => Joints {
  return (frame) =>
    jointsOf((landmark: Landmark) => {
      const path = points[landmark];
      if (!path) return null;
      const after = lowerBound(path.frames, frame);
      const away = (i: number) =>
        i in path.frames ? Math.abs(frameTimes[path.frames[i]!]! - frameTimes[frame]!) : Infinity;
      const nearest = away(after - 1) < away(after) ? after - 1 : after;
      return away(nearest) > CLOSE ? null : { x: path.x[nearest]!, y: path.y[nearest]! };
    });
}
