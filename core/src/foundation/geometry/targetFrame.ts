/** The student's own axes in any world: X toward the target, Y up, Z to the student's right. */
import { cross, dot, length, minus, scaled, type Vector } from './vector';

/**
 * A function from world coordinates to the student's axes, origin where the student stands.
 *
 * @param stands, target places in the world
 * @param up a direction against gravity, any length
 * @throws RangeError when the target lies straight above or below
 */
export function targetFrame(
  stands: Vector,
  target: Vector,
  up: Vector,
): (point: Vector) => [number, number, number] {
  const y = scaled(up, 1 / length(up));
  const way = minus(target, stands);
  const level = minus(way, scaled(y, dot(way, y)));
  if (length(level) < 1e-9 * length(way) || length(way) === 0) {
    throw new RangeError('the target lies straight above or below the student');
  }
  const x = scaled(level, 1 / length(level));
  const z = cross(x, y);
  return (point) => {
    const offset = minus(point, stands);
    return [dot(offset, x), dot(offset, y), dot(offset, z)];
  };
}
