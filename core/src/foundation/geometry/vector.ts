/** Small vectors of any dimension as plain arrays; pure functions, nothing is changed in place. */
export type Vector = readonly number[];

export function minus(a: Vector, b: Vector): number[] {
  return a.map((value, i) => value - b[i]!);
}

export function plus(a: Vector, b: Vector): number[] {
  return a.map((value, i) => value + b[i]!);
}

export function scaled(a: Vector, by: number): number[] {
  return a.map((value) => value * by);
}

/** Vector product in three dimensions. */
export function cross(a: Vector, b: Vector): number[] {
  return [
    a[1]! * b[2]! - a[2]! * b[1]!,
    a[2]! * b[0]! - a[0]! * b[2]!,
    a[0]! * b[1]! - a[1]! * b[0]!,
  ];
}

export function dot(a: Vector, b: Vector): number {
  let sum = 0;
  for (let i = 0; i < a.length; i++) sum += a[i]! * b[i]!;
  return sum;
}

export function length(a: Vector): number {
  return Math.sqrt(dot(a, a));
}

export function distance(a: Vector, b: Vector): number {
  let sum = 0;
  for (let i = 0; i < a.length; i++) sum += (a[i]! - b[i]!) ** 2;
  return Math.sqrt(sum);
}

export function midpoint(a: Vector, b: Vector): number[] {
  return a.map((value, i) => (value + b[i]!) / 2);
}

/**
 * Angle at `vertex` between the directions to `a` and to `b`.
 *
 * @returns radians, 0 to π; NaN when `a` or `b` coincides with `vertex`
 */
export function angleAt(a: Vector, vertex: Vector, b: Vector): number {
  const u = minus(a, vertex);
  const v = minus(b, vertex);
  const cosine = dot(u, v) / (length(u) * length(v));
  return Math.acos(Math.min(1, Math.max(-1, cosine)));
}
