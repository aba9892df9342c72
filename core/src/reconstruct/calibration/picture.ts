/** From the pixels of one picture to places along the axes that its view shows. */
import { homography, through } from '../../foundation/geometry/homography';
import { inverted, planeSeenBy, unitsPerPixel } from '../../foundation/geometry/pose';
import { cross } from '../../foundation/geometry/vector';
import {
  VIEW_AXES,
  type Axis,
  type Calibration,
  type Line,
  type PixelPoint,
  type Rectangle,
} from './calibration';
import { floorCamera, seenStraight, standing, UP } from './camera';

/** How far a camera stands off the place that its view is named after, radians. */
export function aslantOf({ view, azimuth }: Pick<Calibration, 'view' | 'azimuth'>): number {
  if (azimuth === undefined || view === 'above') return 0;
  const place = { side: Math.PI / 2, front: 0, behind: Math.PI }[view];
  return Math.abs(Math.acos(Math.cos(azimuth)) - place);
}

/**
 * Lengths along the view's own line look shorter by the cosine of how far the camera stands off it, and what goes
 * across that line gets into them: so much of it, as a share of what goes along.
 */
const ACROSS = 0.25;

export interface PictureMap {
  /** The axes this picture shows, in the order of what `place` gives. */
  readonly axes: readonly Axis[];
  /** Metres when true, else pixels. */
  readonly metric: boolean;
  /** Relative standard deviation of the scale. */
  readonly scaleSigma: number;
  /** Relative standard deviation of a length because a picture shows it in projection. */
  readonly planeSigma: number;
  readonly place: (point: PixelPoint) => readonly number[];
  /** Metres (or pixels) that a pixel is worth at a place of the picture. */
  readonly unitAt: (point: PixelPoint) => number;
}

/**
 * A link up to 20° out of the picture plane looks up to 1 − cos 20° = 6 % shorter, each amount
 * equally likely: σ = 6 % / √12, rounded up.
 */
const OUT_OF_PLANE = 0.02;
/** The striking end passes the plane through the student at up to this distance, metres. */
const BESIDE_THE_PLANE = 0.2;
/** From above, strikes are measured at this height over the floor, give or take, metres. */
const ARM_LEVEL = 1.4;
const LEVEL_VARIES = 0.3;

/**
 * From the side and from above without a line to the target there is no direction to measure along,
 * and the map has no axes.
 *
 * @param placingSigma how exactly a point is placed in this picture, pixels
 * @throws RangeError in words for the coach when a rectangle fixes nothing
 */
export function pictureMap(calibration: Calibration, placingSigma: number): PictureMap {
  const { rectangle } = calibration;
  if (!rectangle) return scaled(calibration, placingSigma);
  return overTheFloor(calibration)
    ? overFloor(calibration, rectangle, placingSigma)
    : standingFrame(calibration, rectangle, placingSigma);
}

function overTheFloor({ rectangle }: Calibration): boolean {
  return rectangle !== null && rectangle !== undefined && rectangle.kind !== 'upright';
}

function scaled(calibration: Calibration, placingSigma: number): PictureMap {
  const { scale } = calibration;
  const straight = (point: PixelPoint) => seenStraight(calibration, point);
  const [from, to] = scale ? [straight(scale.from), straight(scale.to)] : [];
  const pixels = from && to ? Math.hypot(to.x - from.x, to.y - from.y) : 0;
  const metric = scale !== null && pixels > 0;
  const unit = metric ? scale.metres / pixels : 1;
  const { axes, turn } = along(calibration, straight);
  const aslant = aslantOf(calibration);
  const stretch = axes.map((axis) => (axis === 'up' ? 1 : 1 / Math.cos(aslant)));
  return {
    axes,
    metric,
    planeSigma: Math.hypot(OUT_OF_PLANE, ACROSS * Math.tan(aslant)),
    scaleSigma: metric ? (scale.sigma ?? (Math.SQRT2 * placingSigma) / pixels) : 0,
    place: (point) => turn(straight(point)).map((value, i) => value * unit * stretch[i]!),
    unitAt: () => unit,
  };
}

/** A frame in the plane of the strike: the plane is laid flat, and the target is a line in it. */
function standingFrame(
  calibration: Calibration,
  { corners, width, depth }: Rectangle,
  placingSigma: number,
): PictureMap {
  const seen = corners.map((corner) => seenStraight(calibration, corner));
  const toPlane = homography(seen, [
    { x: 0, y: 0 },
    { x: width, y: 0 },
    { x: width, y: -depth },
    { x: 0, y: -depth },
  ]);
  const straight = (point: PixelPoint) => through(toPlane, seenStraight(calibration, point));
  const { axes, turn } = along(calibration, straight);
  const pixels = Math.hypot(seen[1]!.x - seen[0]!.x, seen[1]!.y - seen[0]!.y);
  return {
    axes,
    metric: true,
    planeSigma: OUT_OF_PLANE,
    scaleSigma: (Math.SQRT2 * placingSigma) / pixels,
    place: (point) => turn(straight(point)),
    unitAt: (point) => unitsPerPixel(toPlane, seenStraight(calibration, point)),
  };
}

/** The plane of the strike over a rectangle on the floor. */
function overFloor(
  calibration: Calibration,
  rectangle: Rectangle,
  placingSigma: number,
): PictureMap {
  const { view } = calibration;
  const found = floorCamera(calibration);
  const { at, toward } = standing(calibration, found);
  const right = cross(toward, UP);
  const [first, second] = {
    side: [toward, UP],
    front: [UP, right],
    behind: [UP, right],
    above: [toward, right],
  }[view] as [number[], number[]];
  const origin = view === 'above' ? [at[0]!, at[1]!, ARM_LEVEL] : at;
  const toPlane = inverted(planeSeenBy(found.camera, origin, first, second));
  const away = Math.hypot(...found.position.map((value, k) => value - origin[k]!));
  const beside = view === 'above' ? LEVEL_VARIES : BESIDE_THE_PLANE;
  const seen = rectangle.corners.map((corner) => seenStraight(calibration, corner));
  const sides = [0, 1, 2, 3].map((i) => {
    const [a, b] = [seen[i]!, seen[(i + 1) % 4]!];
    return Math.hypot(a.x - b.x, a.y - b.y);
  });
  return {
    axes: VIEW_AXES[view],
    metric: true,
    planeSigma: Math.hypot(OUT_OF_PLANE, beside / Math.sqrt(3) / away),
    scaleSigma: (Math.SQRT2 * placingSigma) / Math.min(...sides),
    place: (point) => {
      const { x, y } = through(toPlane, seenStraight(calibration, point));
      return [x, y];
    },
    unitAt: (point) => unitsPerPixel(toPlane, seenStraight(calibration, point)),
  };
}

type Turn = (point: PixelPoint) => number[];

/** From a flat picture, x right and y down, to the axes of its view. */
function along(
  { view, target }: Calibration,
  straight: (point: PixelPoint) => PixelPoint,
): { axes: readonly Axis[]; turn: Turn } {
  if (view === 'front') return { axes: VIEW_AXES[view], turn: ({ x, y }) => [-y, -x] };
  if (view === 'behind') return { axes: VIEW_AXES[view], turn: ({ x, y }) => [-y, x] };
  const way = target && direction({ from: straight(target.from), to: straight(target.to) });
  if (!way) return { axes: [], turn: () => [] };
  const [tx, ty] = way;
  if (view === 'above') {
    // Seen from above, the student's right lies a quarter turn clockwise from the target.
    return { axes: VIEW_AXES[view], turn: ({ x, y }) => [x * tx + y * ty, -x * ty + y * tx] };
  }
  const flip = tx >= 0 ? 1 : -1;
  return {
    axes: VIEW_AXES[view],
    turn: ({ x, y }) => [x * tx + y * ty, flip * (x * ty - y * tx)],
  };
}

function direction({ from, to }: Line): readonly [number, number] | null {
  const [dx, dy] = [to.x - from.x, to.y - from.y];
  const size = Math.hypot(dx, dy);
  return size === 0 ? null : [dx / size, dy / size];
}

/**
 * Length of a line drawn in the plane that the picture is measured in, metres; null without a scale.
 *
 * @returns with its 95 % half width from how exactly its ends are placed and the scale is known
 */
export function lengthOf(
  calibration: Calibration,
  line: Line,
  placingSigma: number,
): { readonly metres: number; readonly halfWidth: number } | null {
  // Over a floor the plane is known without the line to the target; else any direction serves.
  const target = calibration.target ?? (overTheFloor(calibration) ? null : line);
  const map = pictureMap({ ...calibration, target }, placingSigma);
  if (!map.metric || map.axes.length === 0) return null;
  const [from, to] = [map.place(line.from), map.place(line.to)];
  const metres = Math.hypot(...from.map((value, k) => to[k]! - value));
  const ends = placingSigma * Math.hypot(map.unitAt(line.from), map.unitAt(line.to));
  return { metres, halfWidth: 1.96 * Math.hypot(ends, map.scaleSigma * metres) };
}
