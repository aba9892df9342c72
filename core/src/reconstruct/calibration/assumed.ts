/**
 * What can be taken for granted of a tracked film until the coach has set it: that the camera stands
 * level, that the strike goes to the target, and that the student is as tall as the gym's list says.
 */
import { sided } from '../../foundation/body/landmarks';
import { END_PARTS } from '../../foundation/technique/end';
import { strikeStance, type Strike } from '../../foundation/technique/strike';
import type { Tracking } from '../../observe/track/trackFromDetections';
import type { Points } from '../../observe/track/track';
import type { Calibration, Line, Scale } from './calibration';

/** Standing height read off shank, thigh and trunk: relative, one standard deviation. */
const STATURE_SIGMA = 0.05;
/** Shorter than this, as a share of the body's height, the way out tells no direction. */
const SHORTEST = 0.08;
/** Where the end goes this share as far the other way, where the camera stands decides. */
const BOTH_WAYS = 0.5;

/**
 * The calibration with what is missing filled in from the tracked body.
 *
 * @param bodyHeight metres; null when it is not known, and then no scale is assumed
 */
export function assumed(
  calibration: Calibration,
  { track, stature }: Pick<Tracking, 'track' | 'stature'>,
  strike: Strike,
  bodyHeight: number | null,
): Calibration {
  if (calibration.rectangle || calibration.view === 'above' || stature === 0) return calibration;
  const end = track.points[sided(strike.side, END_PARTS[strike.technique.end][0]!)];
  return {
    ...calibration,
    target:
      calibration.target ??
      (calibration.view === 'side' && end
        ? levelAlong(end, stature, wayOf(calibration, strike))
        : null),
    scale: calibration.scale ?? (bodyHeight === null ? null : byStature(stature, bodyHeight)),
  };
}

/** Where the target is in the picture, 1 right and -1 left, as the camera's place has it; null where it is not known. */
function wayOf({ azimuth }: Calibration, strike: Strike): 1 | -1 | null {
  if (azimuth === undefined) return null;
  return azimuth > 0 === (strikeStance(strike) === 'orthodox') ? 1 : -1;
}

/**
 * A level line, the way that the striking end goes farthest from where it began.
 *
 * @param way where the target is, if an end that goes both ways does not tell
 */
function levelAlong({ x, y }: Points, stature: number, way: 1 | -1 | null): Line | null {
  const start = x[0]!;
  let [left, right] = [0, 0];
  x.forEach((value, i) => {
    if (value < x[left]!) left = i;
    if (value > x[right]!) right = i;
  });
  const [back, out] = [start - x[left]!, x[right]! - start];
  const isBoth = Math.min(back, out) > BOTH_WAYS * Math.max(back, out);
  const far = (isBoth && way !== null ? way > 0 : out >= back) ? right : left;
  if (Math.abs(x[far]! - start) < SHORTEST * stature) return null;
  return { from: { x: start, y: y[far]! }, to: { x: x[far]!, y: y[far]! } };
}

function byStature(stature: number, metres: number): Scale {
  return { from: { x: 0, y: 0 }, to: { x: 0, y: stature }, metres, sigma: STATURE_SIGMA };
}
