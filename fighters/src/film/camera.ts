/** A pinhole camera: the same numbers aim the renderer and tell where a landmark is in the film. */
import type { View } from '@sinew/core/foundation/technique/techniques';
import type { PixelPoint } from '@sinew/core/reconstruct/calibration/calibration';
import { cross, dot, subtract, unit, type Point } from '../fighter/space';

export interface Camera {
  readonly position: Point;
  readonly lookAt: Point;
  /** Which way is up in the picture. */
  readonly up: Point;
  /** Vertical field of view, radians. */
  readonly fieldOfView: number;
  /** Pixels. */
  readonly width: number;
  readonly height: number;
}

const PICTURE = { width: 1280, height: 720 } as const;
const UP: Point = [0, 1, 0];
const degrees = (value: number) => (value * Math.PI) / 180;

/** Where the coach puts the camera for each view: far off with a narrow lens, square to the plane. */
export const CAMERAS: Record<View, Camera> = {
  side: {
    ...PICTURE,
    position: [0.3, 0.95, 7],
    lookAt: [0.3, 0.89, 0],
    up: UP,
    fieldOfView: degrees(15.2),
  },
  front: {
    ...PICTURE,
    position: [7, 1.3, 0],
    lookAt: [0, 0.95, 0],
    up: UP,
    fieldOfView: degrees(15.2),
  },
  behind: {
    ...PICTURE,
    position: [-7, 1.3, 0],
    lookAt: [0, 0.95, 0],
    up: UP,
    fieldOfView: degrees(15.2),
  },
  above: {
    ...PICTURE,
    position: [0.3, 8, 0.1],
    lookAt: [0.3, 0, 0.1],
    up: [0, 0, -1],
    fieldOfView: degrees(15.2),
  },
};

/** The camera's own axes in the world, unit vectors: to the right and top of the picture, and away. */
export function viewAxes(camera: Camera): Readonly<Record<'right' | 'up' | 'forward', Point>> {
  const forward = unit(subtract(camera.lookAt, camera.position));
  const right = unit(cross(forward, camera.up));
  return { right, up: cross(right, forward), forward };
}

/** Pixel of a world point; x from the left, y from the top. */
export function project(camera: Camera, point: Point): PixelPoint {
  const { right, up, forward } = viewAxes(camera);
  const offset = subtract(point, camera.position);
  const focal = camera.height / 2 / Math.tan(camera.fieldOfView / 2);
  const depth = dot(offset, forward);
  return {
    x: camera.width / 2 + (focal * dot(offset, right)) / depth,
    y: camera.height / 2 - (focal * dot(offset, up)) / depth,
  };
}
