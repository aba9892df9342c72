/** What is set in a clip's picture, as the core understands it; and what cannot be understood. */
import type { Calibration } from '../reconstruct/calibration/calibration';
import { floorCamera, standing } from '../reconstruct/calibration/camera';
import { pictureMap } from '../reconstruct/calibration/picture';
import { viewAt } from '../foundation/technique/views';
import { placingSigmaOf } from '../observe/track/track';
import type { SavedCalibration } from './clipDocument';

/** Pixels. */
interface Size {
  readonly width: number;
  readonly height: number;
}

/** The calibration as set, a rectangle that fixes nothing left out with the reason. */
export function clipCalibration(
  { view, azimuth, scale, target, rectangle, lens }: SavedCalibration,
  { width, height }: Size,
): { readonly calibration: Calibration; readonly problem: string | null } {
  const isOfView = azimuth !== undefined && viewAt(azimuth) === view;
  const place = isOfView ? { view, azimuth } : { view };
  const calibration = { ...place, scale, target, rectangle, lens, size: { width, height } };
  try {
    pictureMap(calibration, placingSigmaOf(height));
    return { calibration, problem: null };
  } catch (error) {
    if (!(error instanceof RangeError)) throw error;
    return { calibration: { ...calibration, rectangle: null }, problem: error.message };
  }
}

/** Most strikes land at this height over the floor and so far before the student, metres. */
const CONTACT_HEIGHT = 1.3;
const CONTACT_REACH = 0.6;

/** Metres from the lens to about where strikes land; null without a rectangle on the floor. */
export function cameraDistance(set: SavedCalibration, size: Size): number | null {
  if (!set.rectangle || set.rectangle.kind === 'upright') return null;
  const { calibration, problem } = clipCalibration(set, size);
  if (problem) return null;
  const camera = floorCamera(calibration);
  const { at, toward } = standing(calibration, camera);
  const [x, y] = [0, 1].map((k) => at[k]! + CONTACT_REACH * toward[k]!);
  const place = [x!, y!, CONTACT_HEIGHT];
  return Math.hypot(...camera.position.map((value, k) => value - place[k]!));
}
