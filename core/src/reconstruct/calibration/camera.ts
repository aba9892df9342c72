/** The camera behind a picture, from a rectangle on the floor; and where the student stands in it. */
import type { Camera } from '../../foundation/geometry/dlt';
import { straightened } from '../../foundation/geometry/lens';
import { through, type Homography } from '../../foundation/geometry/homography';
import {
  cameraOfRectangle,
  inverted,
  planeSeenBy,
  rotation,
  type Pose,
} from '../../foundation/geometry/pose';
import { dot, type Vector } from '../../foundation/geometry/vector';
import type { Calibration, PixelPoint, Rectangle } from './calibration';

/** Up in the world of a floor rectangle: x along its first side, y along its second. */
export const UP: Vector = [0, 0, 1];

export interface FloorCamera {
  readonly camera: Camera;
  readonly pose: Pose;
  /** Where the lens is, metres in the world of the rectangle. */
  readonly position: Vector;
  /** Root mean square miss of the corners, pixels. */
  readonly residual: number;
  /** From the picture, straightened, to the floor, metres. */
  readonly toFloor: Homography;
}

/** A point of the picture freed of the lens's bow. */
export function seenStraight({ lens, size }: Calibration, point: PixelPoint): PixelPoint {
  return lens && size ? straightened(point, size, lens) : point;
}

/**
 * @throws RangeError in words for the coach when the rectangle fixes no camera
 */
export function floorCamera(calibration: Calibration): FloorCamera {
  const { rectangle, size } = calibration;
  if (!rectangle || rectangle.kind === 'upright' || !size) {
    throw new RangeError('mark a rectangle of known sides on the floor first');
  }
  const seen = rectangle.corners.map((corner) => seenStraight(calibration, corner));
  const tried = cameraOfRectangle(worldOf(rectangle, 1), seen, size);
  // Corners taken the other way around put the camera under the floor; turn the world over.
  const isBelow = positionOf(tried.pose)[2]! < 0;
  const fitted = isBelow ? cameraOfRectangle(worldOf(rectangle, -1), seen, size) : tried;
  const toFloor = inverted(planeSeenBy(fitted.camera, [0, 0, 0], [1, 0, 0], [0, 1, 0]));
  return { ...fitted, position: positionOf(fitted.pose), toFloor };
}

function worldOf({ kind, width, depth, height }: Rectangle, side: 1 | -1): Vector[] {
  const around = (z: number): Vector[] => [
    [0, 0, z],
    [width, 0, z],
    [width, side * depth, z],
    [0, side * depth, z],
  ];
  return kind === 'box' ? [...around(0), ...around(height)] : around(0);
}

/** −Rᵀt */
function positionOf({ turn, shift }: Pose): Vector {
  const r = rotation(turn);
  return [0, 1, 2].map(
    (k) =>
      -dot(
        r.map((row) => row[k]!),
        shift,
      ),
  );
}

export interface Standing {
  /** On the floor, metres in the world of the rectangle. */
  readonly at: Vector;
  /** Unit vector along the floor to the target. */
  readonly toward: Vector;
}

/**
 * Where the student stands and which way the target is: as drawn along the floor, or from the
 * middle of the rectangle along its first side.
 */
export function standing(
  { rectangle, target, ...rest }: Calibration,
  { toFloor }: Pick<FloorCamera, 'toFloor'>,
): Standing {
  const onFloor = (point: PixelPoint): Vector => {
    const { x, y } = through(toFloor, seenStraight({ target, ...rest }, point));
    return [x, y, 0];
  };
  const [from, to] = target
    ? [onFloor(target.from), onFloor(target.to)]
    : rectangle!.corners.slice(0, 2).map(onFloor);
  const way = to!.map((value, k) => value - from![k]!);
  const size = Math.hypot(...way);
  if (!(size > 0)) throw new RangeError('the line to the target has no length');
  const middle = rectangle!.corners
    .slice(0, 4)
    .map(onFloor)
    .reduce((sum, one) => sum.map((value, k) => value + one[k]! / 4), [0, 0, 0] as Vector);
  return { at: target ? from! : middle, toward: way.map((value) => value / size) };
}

/**
 * Whether the camera stands on the other side of the student than the view says, as it does when
 * the corners were taken from the wrong one on.
 */
export function contradictsView(calibration: Calibration, camera: FloorCamera): boolean {
  const { at, toward } = standing(calibration, camera);
  const before = dot(
    camera.position.map((value, k) => value - at[k]!),
    toward,
  );
  return { front: before < 0, behind: before > 0, side: false, above: false }[calibration.view];
}
