/** Points and directions of the made-up world: X toward the target, Y up, Z to the right, metres. */
export type Point = readonly [number, number, number];

export const UP: Point = [0, 1, 0];

export function add(a: Point, b: Point, times = 1): Point {
  return [a[0] + times * b[0], a[1] + times * b[1], a[2] + times * b[2]];
}

export function subtract(a: Point, b: Point): Point {
  return add(a, b, -1);
}

export function scaled(a: Point, by: number): Point {
  return [a[0] * by, a[1] * by, a[2] * by];
}

export function mix(a: Point, b: Point, share: number): Point {
  return add(scaled(a, 1 - share), b, share);
}

export function dot(a: Point, b: Point): number {
  return a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
}

export function cross(a: Point, b: Point): Point {
  return [a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0]];
}

export function size(a: Point): number {
  return Math.hypot(a[0], a[1], a[2]);
}

export function unit(a: Point): Point {
  return scaled(a, 1 / size(a));
}

/** A level direction `yaw` to the right of the target. */
export function heading(yaw: number): Point {
  return [Math.cos(yaw), 0, Math.sin(yaw)];
}

/**
 * The middle joint of a two-link limb: as near as the limb's length allows to `far`, bent toward
 * `pole`.
 *
 * @returns the middle joint and the end actually reached
 */
export function twoLinks(
  near: Point,
  far: Point,
  first: number,
  second: number,
  pole: Point,
): { middle: Point; end: Point } {
  const line = subtract(far, near);
  const span = Math.min(size(line), (first + second) * 0.99999);
  const axis = unit(line);
  const along = (first ** 2 - second ** 2 + span ** 2) / (2 * span);
  const off = Math.sqrt(Math.max(0, first ** 2 - along ** 2));
  const side = unit(add(pole, axis, -dot(pole, axis)));
  return { middle: add(add(near, axis, along), side, off), end: add(near, axis, span) };
}

/** The right side and the front of something turned by `yaw` (positive: its right side forward). */
export function rightOf(yaw: number): Point {
  return [Math.sin(yaw), 0, Math.cos(yaw)];
}

export function forwardOf(yaw: number): Point {
  return [Math.cos(yaw), 0, -Math.sin(yaw)];
}

/** From one direction to another along the shortest arc; `share` may go past either end. */
export function along(from: Point, to: Point, share: number): Point {
  const [a, b] = [unit(from), unit(to)];
  const angle = Math.acos(Math.min(1, Math.max(-1, dot(a, b))));
  const side = add(b, a, -dot(a, b));
  // Two that are the same but for rounding have no side, though their arc cosine is 1.5e-8.
  if (size(side) === 0) return a;
  return add(scaled(a, Math.cos(share * angle)), unit(side), Math.sin(share * angle));
}
