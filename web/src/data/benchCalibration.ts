/** What is set in a clip's picture, as the core understands it; and what cannot be understood. */
import type { Calibration } from '@sinew/core/calibration/calibration';
import { floorCamera, standing } from '@sinew/core/calibration/camera';
import { pictureMap } from '@sinew/core/calibration/picture';
import { placingSigmaOf } from '@sinew/core/track/track';
import type { SavedCalibration } from './benchDocument';

/** Pixels. */
interface Size {
  readonly width: number;
  readonly height: number;
}

/** The calibration as set, a rectangle that fixes nothing left out with the reason. */
export function calibrationOf(
  { view, scale, target, rectangle, lens }: SavedCalibration,
  { width, height }: Size,
): { readonly calibration: Calibration; readonly problem: string | null } {
  const calibration = { view, scale, target, rectangle, lens, size: { width, height } };
  try {
    pictureMap(calibration, placingSigmaOf(height));
    return { calibration, problem: null };
  } catch (error) {
    if (!(error instanceof RangeError)) throw error;
    return { calibration: { ...calibration, rectangle: null }, problem: error.message };
  }
}

/** Height over the floor at which most strikes land, metres. */
const CONTACT_HEIGHT = 1.3;

/** Metres from the lens to about where the student strikes; null without a rectangle on the floor. */
export function cameraDistance(set: SavedCalibration, size: Size): number | null {
  if (!set.rectangle || set.rectangle.kind === 'upright') return null;
  const { calibration, problem } = calibrationOf(set, size);
  if (problem) return null;
  const camera = floorCamera(calibration);
  const { at } = standing(calibration, camera);
  const place = [at[0]!, at[1]!, CONTACT_HEIGHT];
  return Math.hypot(...camera.position.map((value, k) => value - place[k]!));
}
