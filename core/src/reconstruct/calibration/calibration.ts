/** What the coach sets in a picture so that its pixels become directions and metres. */
import type { PlanePoint } from '../../foundation/geometry/homography';
import type { Lens, PictureSize } from '../../foundation/geometry/lens';
import type { View } from '../../foundation/technique/techniques';

export const AXES = ['toward', 'up', 'right'] as const;
export type Axis = (typeof AXES)[number];

/** The axes a view can show, once the target line is drawn where the view needs one. */
export const VIEW_AXES: Readonly<Record<View | '3d', readonly Axis[]>> = {
  side: ['toward', 'up'],
  front: ['up', 'right'],
  behind: ['up', 'right'],
  above: ['toward', 'right'],
  '3d': AXES,
};

/** A place in a picture, pixels, x right and y down. */
export type PixelPoint = PlanePoint;

export interface Line {
  readonly from: PixelPoint;
  readonly to: PixelPoint;
}

/** Two points of the picture a known distance apart, in the plane of the strike. */
export interface Scale extends Line {
  /** Metres. */
  readonly metres: number;
  /** Relative standard deviation, where it is not that of how exactly its ends are placed. */
  readonly sigma?: number;
}

export const RECTANGLES = ['floor', 'box', 'upright'] as const;

/**
 * A rectangle of known sides seen in the picture.
 *
 * - `floor`: taped or tiled on the floor; corners in order around it.
 * - `box`: the same, and then the four points straight above the corners.
 * - `upright`: a frame that stands in the plane of the strike; from its lower corner on the left of
 *   the picture along the bottom, then the top ones, around.
 */
export interface Rectangle {
  readonly kind: (typeof RECTANGLES)[number];
  readonly corners: readonly PixelPoint[];
  /** Metres from the first corner to the second. */
  readonly width: number;
  /** Metres from the second corner to the third. */
  readonly depth: number;
  /** Metres from floor to top; of a box only. */
  readonly height: number;
}

export interface Calibration {
  readonly view: View;
  /**
   * Where the camera stands, radians: 0 in front of the student on the line to the target, positive toward the
   * side that the chest is turned to in guard; left out where only the view is known.
   */
  readonly azimuth?: number;
  readonly scale: Scale | null;
  /**
   * A line in the picture that points at the target. With a rectangle on the floor it runs along
   * the floor, from where the student stands to below the target; else at the height of the strike.
   */
  readonly target: Line | null;
  /** What is needed to see the picture as a camera's; wins over `scale`. */
  readonly rectangle?: Rectangle | null;
  readonly lens?: Lens | null;
  /** Pixels; needed with a rectangle or a lens. */
  readonly size?: PictureSize;
}

/** How many corners a kind of rectangle has. */
export function cornersOf(kind: Rectangle['kind']): 4 | 8 {
  return kind === 'box' ? 8 : 4;
}
