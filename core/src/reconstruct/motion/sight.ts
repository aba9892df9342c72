/**
 * How the line between two hips or shoulders lies to one level camera: how long it looks tells how far it has
 * turned, from places where it grows or shrinks all the way.
 */
import type { Landmark } from '../../foundation/body/landmarks';
import type { Axis } from '../calibration/calibration';
import type { Motion } from './motion';

/** What turns, as the line between its two sides. */
export const LINES = {
  pelvis: ['leftHip', 'rightHip'],
  trunk: ['leftShoulder', 'rightShoulder'],
} as const satisfies Record<string, readonly [Landmark, Landmark]>;

export type TurningLink = keyof typeof LINES;

/** Turns that bodies take on the way, radians: into a strike of the rear side, and of the lead side. */
const ON_THE_WAY = { right: [-0.87, 0.35], left: [-1.66, -0.52] } as const;
/** Closer to square to the camera than this a line does not show which way it turns, radians. */
const SQUARE = 0.1;

export interface Sight {
  /** Where the camera stands: see `Calibration.azimuth`. */
  readonly azimuth: number;
  /** Which of the motion's directions a line's length is seen along. */
  readonly along: Axis;
  /** Which share of its whole length a line shows where it looks longest. */
  readonly longest: number;
  /** Turn from pointing at the camera, radians, of a line that shows this share of its whole length. */
  readonly angleOf: (share: number) => number;
}

/**
 * Whether the turn into a strike can be read off how long hips and shoulders look.
 *
 * @param azimuth radians: see `Calibration.azimuth`
 */
export const showsTurn = (azimuth: number, isRearSide: boolean): boolean =>
  sightOf({
    azimuth,
    view: 'side',
    axes: ['toward', 'up'],
    striking: isRearSide ? 'right' : 'left',
  }) !== null;

/** @returns null from above, where the place is not known, and where a line passes square to the camera on the way */
export function sightOf(
  motion: Pick<Motion, 'azimuth' | 'view' | 'axes' | 'striking'>,
): Sight | null {
  const { view, axes, striking } = motion;
  const isFlat = axes.length === 2 && axes.includes('up');
  const azimuth = motion.azimuth ?? (view === 'side' ? Math.PI / 2 : null);
  if (!isFlat || azimuth === null) return null;
  const ways = ON_THE_WAY[striking].map((turn) => azimuth + turn);
  const [from, to] = ways as [number, number];
  const isLeft = from > SQUARE && to < Math.PI - SQUARE;
  const isRight = from > SQUARE - Math.PI && to < -SQUARE;
  if (!isLeft && !isRight) return null;
  return {
    azimuth,
    along: axes.includes('toward') ? 'toward' : 'right',
    longest: Math.max(...ways.map((angle) => Math.abs(Math.cos(angle)))),
    angleOf: (share) => {
      const bounded = Math.max(-1, Math.min(1, share));
      return isLeft ? Math.acos(-bounded) : -Math.acos(bounded);
    },
  };
}
