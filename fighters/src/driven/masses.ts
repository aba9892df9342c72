/** Moments of inertia of the parts of a driven body. */
import type { Point } from '../fighter/space';

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
