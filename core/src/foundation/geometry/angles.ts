/** Angles of the body's lines. Vectors are (toward, up, right); angles in radians. */
import { angleAt, dot, minus, type Vector } from './vector';

/**
 * Turn of a line from left to right about the vertical: 0 = square to the target, positive = its
 * right end has come forward.
 */
export function yawOf(left: Vector, right: Vector): number {
  return Math.atan2(right[0]! - left[0]!, right[2]! - left[2]!);
}

/** Where a foot points over the floor: 0 = at the target, positive = to the right. */
export function headingOf(heel: Vector, toe: Vector): number {
  return Math.atan2(toe[2]! - heel[2]!, toe[0]! - heel[0]!);
}

/** The same angle within −π and π. */
export function wrapped(angle: number): number {
  return angle - 2 * Math.PI * Math.round(angle / (2 * Math.PI));
}

/** Smallest angle between two directions, 0 to π. */
export function between(a: Vector, b: Vector): number {
  return angleAt(
    a,
    a.map(() => 0),
    b,
  );
}

/** Distance of a point from the endless line through two others. */
export function offLine(point: Vector, from: Vector, to: Vector): number {
  const line = minus(to, from);
  const offset = minus(point, from);
  const along = dot(offset, line) / dot(line, line);
  return Math.hypot(
    ...minus(
      offset,
      line.map((one) => one * along),
    ),
  );
}
