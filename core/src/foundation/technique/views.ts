import type { View } from './techniques';

/** The view that a camera's place is nearest to, radians: see `Calibration.azimuth`. */
export function viewAt(azimuth: number): View {
  const off = Math.acos(Math.cos(azimuth));
  return off <= Math.PI / 4 ? 'front' : off >= (3 * Math.PI) / 4 ? 'behind' : 'side';
}

/** What each view is good for and what it hides, in the coach's words. */
export const VIEW_GUIDE: Readonly<Record<View, { readonly name: string; readonly shows: string }>> =
  {
    side: {
      name: 'From the side',
      shows:
        'Shows reach, speed to the target, levels. Hides hip turn behind travel, and the flare.',
    },
    front: {
      name: 'From the target',
      shows: 'Shows the guard and an elbow that leaves the line. Cannot show speed or reach.',
    },
    behind: {
      name: 'From behind',
      shows: 'Shows hips against shoulders by eye, and the elbow. Cannot show speed or reach.',
    },
    above: {
      name: 'From above',
      shows: 'Shows hips against shoulders, and the elbow of a hook. Hides levels and knees.',
    },
  };
