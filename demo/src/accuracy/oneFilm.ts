/** A tried film as the app reads it when the coach has set nothing: view and level assumed, scale by height. */
import { analyze, type Analysis } from '@sinew/core/analysis/analyze';
import { assumed } from '@sinew/core/reconstruct/calibration/assumed';
import { markOnFrame } from '@sinew/core/measure/events/events';
import { nearestFrame } from '@sinew/core/observe/track/time';
import type { PoseDetection } from '@sinew/core/observe/track/poseDetection';
import {
  cleanDetections,
  trackFrom,
  type Tracking,
} from '@sinew/core/observe/track/trackFromDetections';
import { frameTimesOf } from '@sinew/fighters/fighter/track';
import { truthOfStrike, type Truth } from '@sinew/fighters/fighter/truth';
import { TRIED_RATE, type TriedFilm } from './trackedFilms';

const NOTHING = { placed: [], corrections: [] };

export interface ReadFilm {
  readonly times: readonly number[];
  readonly tracking: Tracking;
  readonly truth: Truth;
  /** With nothing marked, and with contact marked on its frame. */
  readonly alone: Analysis;
  readonly told: Analysis;
}

export function tracked(detections: readonly PoseDetection[], times: readonly number[]): Tracking {
  return trackFrom(cleanDetections(detections, times), NOTHING, 720);
}

export function readFilm(
  { recipe, view }: Pick<TriedFilm, 'recipe' | 'view'>,
  detections: readonly PoseDetection[],
): ReadFilm {
  const times = frameTimesOf(recipe, TRIED_RATE);
  const tracking = tracked(detections, times);
  const truth = truthOfStrike(recipe);
  const strike = { technique: truth.technique, side: truth.side, stance: recipe.stance };
  const calibration = assumed({ view, scale: null, target: null }, tracking, strike, recipe.height);
  const given = { strike, track: tracking.track, calibration, body: { mass: 70, height: 1.76 } };
  const contact = markOnFrame(times, nearestFrame(times, recipe.contact));
  return {
    times,
    tracking,
    truth,
    alone: analyze({ ...given, marks: {} }),
    told: analyze({ ...given, marks: { contact } }),
  };
}
