import type { View } from './techniques';

/**
 * The view that a camera's place is nearest to, radians: see `Calibration.azimuth`. A corner half-way is no side:
 * what goes toward the target looks too short there to be measured.
 */
export function viewAt(azimuth: number): View {
  const off = Math.acos(Math.cos(azimuth));
  const corner = Math.PI / 4 + 1e-9;
  return off < corner ? 'front' : Math.PI - off < corner ? 'behind' : 'side';
}

/** Where a film was taken from. */
export interface FilmedFrom {
  readonly view: View;
  /** Where in that view the camera stood, where somebody has said: see `Calibration.azimuth`. */
  readonly azimuth?: number;
}

export interface CameraPlace {
  /** Radians: see `Calibration.azimuth`. */
  readonly azimuth: number;
  readonly name: string;
}

const EIGHTH = Math.PI / 4;

/** Eight places round the student, from the target on toward the side to which the chest is turned in guard. */
export const CAMERA_PLACES: readonly CameraPlace[] = [
  { azimuth: 0, name: 'at the target' },
  { azimuth: EIGHTH, name: 'front corner, chest side' },
  { azimuth: 2 * EIGHTH, name: 'square, chest side' },
  { azimuth: 3 * EIGHTH, name: 'rear corner, chest side' },
  { azimuth: Math.PI, name: 'behind' },
  { azimuth: -3 * EIGHTH, name: 'rear corner, back side' },
  { azimuth: -2 * EIGHTH, name: 'square, back side' },
  { azimuth: -EIGHTH, name: 'front corner, back side' },
];

/** The place that somebody has said; null where only the view is known, or another place has come of it since. */
export function cameraPlaceOf(view: View, azimuth: number | undefined): CameraPlace | null {
  if (azimuth === undefined || viewAt(azimuth) !== view) return null;
  return (
    CAMERA_PLACES.find((one) => Math.cos(one.azimuth - azimuth) > Math.cos(EIGHTH / 2)) ?? null
  );
}

/** What each view is good for and what it hides, in the coach's words. */
export const VIEW_GUIDE: Readonly<Record<View, { readonly name: string; readonly shows: string }>> =
  {
    side: {
      name: 'From the side',
      shows:
        'Shows reach, speed to the target, levels, a head that is thrown. Hides hip turn behind travel, and the flare.',
    },
    front: {
      name: 'From the target',
      shows:
        'Shows the guard, how wide the feet stand, an elbow that leaves the line. Cannot show speed or reach.',
    },
    behind: {
      name: 'From behind',
      shows:
        'Shows hips against shoulders by eye, how wide the feet stand, and the elbow. Cannot show speed or reach.',
    },
    above: {
      name: 'From above',
      shows: 'Shows hips against shoulders, and the elbow of a hook. Hides levels and knees.',
    },
  };
