/** Balance: the base of support on the floor and where the body's motion carries it. */
import type { Vector } from '../geometry/vector';

/** m/s². */
export const GRAVITY = 9.81;

/** A point of the floor plane. */
export type FloorPoint = readonly [number, number];

/**
 * Extrapolated centre of mass on the floor: XCoM = x + v / ω₀, ω₀ = √(g / l).
 *
 * Source: Hof, Gazendam & Sinke, J. Biomech. 38 (2005) 1–8.
 *
 * @param at, velocity of the centre of mass over the floor: m, m/s
 * @param l pendulum length, m: height of the centre of mass above the floor
 */
export function extrapolated(at: FloorPoint, velocity: FloorPoint, l: number): FloorPoint {
  const frequency = Math.sqrt(GRAVITY / l);
  return [at[0] + velocity[0] / frequency, at[1] + velocity[1] / frequency];
}

/** Convex hull, counter-clockwise, by Andrew's monotone chain (1979). */
export function hull(points: readonly FloorPoint[]): FloorPoint[] {
  const sorted = [...points].sort((a, b) => a[0] - b[0] || a[1] - b[1]);
  const half = (list: readonly FloorPoint[]) => {
    const kept: FloorPoint[] = [];
    for (const point of list) {
      while (kept.length > 1 && turn(kept[kept.length - 2]!, kept[kept.length - 1]!, point) <= 0)
        kept.pop();
      kept.push(point);
    }
    return kept.slice(0, -1);
  };
  return [...half(sorted), ...half(sorted.reverse())];
}

function turn(a: FloorPoint, b: FloorPoint, c: FloorPoint): number {
  return (b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0]);
}

/**
 * Distance of a point from the edge of a base of support: positive inside, negative outside, m.
 *
 * @param base corner points of whatever touches the floor, at least two
 */
export function marginOf(point: FloorPoint, base: readonly FloorPoint[]): number {
  const corners = hull(base);
  if (corners.length < 3) {
    const [a, b] = [corners[0] ?? base[0]!, corners[1] ?? corners[0] ?? base[0]!];
    return -fromSegment(point, a, b);
  }
  const edges = corners.map((a, i) => [a, corners[(i + 1) % corners.length]!] as const);
  const nearest = Math.min(...edges.map(([a, b]) => fromSegment(point, a, b)));
  return edges.every(([a, b]) => turn(a, b, point) >= 0) ? nearest : -nearest;
}

function fromSegment(point: FloorPoint, a: FloorPoint, b: FloorPoint): number {
  const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
  const span = dx * dx + dy * dy;
  const along = span === 0 ? 0 : ((point[0] - a[0]) * dx + (point[1] - a[1]) * dy) / span;
  const share = Math.min(1, Math.max(0, along));
  return Math.hypot(point[0] - a[0] - share * dx, point[1] - a[1] - share * dy);
}

/** The floor plane's part of a vector (toward, up, right). */
export function onFloor(v: Vector): FloorPoint {
  return [v[0]!, v[2]!];
}
