/** What a driven body is put together from: hinges, and parts with their moments of inertia. */
import type { Point } from '../fighter/space';
import type { Part } from './linkage';

/** Of a rod along its own first axis with its mass at `gyration` from its centre, kg m². */
export const rod = (mass: number, gyration: number): Point => [
  0.08 * mass * gyration ** 2,
  mass * gyration ** 2,
  mass * gyration ** 2,
];

/** Of an elliptic cylinder standing up; half-axes to the front and to the side, metres. */
export const barrel = (mass: number, front: number, side: number, high: number): Point => [
  mass * (side ** 2 / 4 + high ** 2 / 12),
  (mass * (front ** 2 + side ** 2)) / 4,
  mass * (front ** 2 / 4 + high ** 2 / 12),
];

/** Of one of several hinges in one joint. */
export const NOTHING = { mass: 0, centre: [0, 0, 0], inertia: [0, 0, 0] } as const;

/** A hinge at the end of the part before, and what hangs on it; nothing where another hinge of the joint follows. */
export const hinge = (name: string, axis: Point, own: Partial<Part> = {}): Part => ({
  name,
  kind: 'hinge',
  at: [0, 0, 0],
  axis,
  ...NOTHING,
  ...own,
});
