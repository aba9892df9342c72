/** What a flawless coach would set on the bench for a demo film: its known answers, in pixels. */
import { EVENTS, type EventName } from '@sinew/core/measure/events/events';
import type { Landmark } from '@sinew/core/foundation/body/landmarks';
import type { Calibration, PixelPoint } from '@sinew/core/reconstruct/calibration/calibration';
import { pointsToPlace } from '@sinew/core/foundation/technique/points';
import { techniqueById } from '@sinew/core/foundation/technique/techniques';
import { strikingSide, type Strike } from '@sinew/core/foundation/technique/strike';
import { nearestFrame } from '@sinew/core/observe/track/time';
import type { Placed } from '@sinew/core/observe/track/track';
import { knownTimes, mover } from '../fighter/pose';
import { mix, type Point } from '../fighter/space';
import { frameTimesOf } from '../fighter/track';
import { CAMERAS, project } from './camera';
import type { DemoClip } from './clips';

export interface ClipTruth {
  readonly strike: Strike;
  readonly frames: Readonly<Record<EventName, number>>;
  readonly calibration: Calibration;
  /** Pixels of a landmark on a frame. */
  at(landmark: Landmark, frame: number): PixelPoint;
  /** The points of this strike and view on every `step`th frame from the hips' start to contact. */
  placed(step: number): Placed[];
}

const rounded = ({ x, y }: PixelPoint): PixelPoint => ({
  x: Math.round(x * 8) / 8,
  y: Math.round(y * 8) / 8,
});

export function truthOf(clip: DemoClip): ClipTruth {
  const technique = techniqueById(clip.recipe.technique);
  const strike: Strike = { technique, side: strikingSide(technique, clip.recipe.stance) };
  const times = frameTimesOf(clip.recipe, clip.rate);
  const known = knownTimes(clip.recipe);
  const pose = mover(clip.recipe);
  const camera = CAMERAS[clip.view];
  const frames = Object.fromEntries(
    EVENTS.map((event) => [event, nearestFrame(times, known[event])]),
  ) as Record<EventName, number>;
  const at = (landmark: Landmark, frame: number) =>
    rounded(project(camera, pose(times[frame]!)[landmark]));
  const contact = pose(known.contact);
  const fist = mix(
    contact[`${strike.side}IndexKnuckle`],
    contact[`${strike.side}LittleKnuckle`],
    0.5,
  );
  return {
    strike,
    frames,
    calibration: { view: clip.view, ...linesInPlane(clip, fist) },
    at,
    placed: (step) => {
      const first = Math.min(frames.hips, frames.arm);
      const wanted: number[] = [];
      for (let frame = frames.contact; frame > first - step; frame -= step) wanted.push(frame);
      return wanted.flatMap((frame) =>
        pointsToPlace(strike, clip.view).map((landmark) => ({
          landmark,
          frame,
          ...at(landmark, frame),
        })),
      );
    },
  };
}

/** A metre stick held in the plane of the strike, and a line at the target through the fist. */
function linesInPlane(clip: DemoClip, fist: Point): Pick<Calibration, 'scale' | 'target'> {
  const camera = CAMERAS[clip.view];
  const pixel = (point: Point) => rounded(project(camera, point));
  const along = (by: number): Point => [fist[0] + by, fist[1], fist[2]];
  const across = (by: number): Point =>
    clip.view === 'side' ? [fist[0], fist[1] + by, fist[2]] : [fist[0], fist[1], fist[2] + by];
  return {
    scale: { from: pixel(across(-0.75)), to: pixel(across(0.25)), metres: 1 },
    target: { from: pixel(along(-0.9)), to: pixel(along(0.1)) },
  };
}
