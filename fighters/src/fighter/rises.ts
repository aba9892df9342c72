/** Shapes in which a speed rises from nothing to its peak: not every body starts in the same way. */

export interface Rise {
  /** Share of the way that a peak speed would cover, at a share of the rise; `way(0)` = 0. */
  readonly way: (u: number) => number;
  /** Share of the rise at which a tenth of the peak speed is reached. */
  readonly tenth: number;
}

/** Coefficients of u, u², u³ … of the speed, which is 0 at u = 0 and 1 at u = 1. */
const SPEEDS = {
  /** Regularised incomplete beta functions I_u(a, b): (2, 2), also known as smoothstep. */
  even: [0, 3, -2],
  /** (2, 3): quick at first. */
  early: [0, 6, -8, 3],
  /** (3, 2): hardly moving at first. */
  late: [0, 0, 4, -3],
  /** (3, 3): as a point-to-point movement of least jerk gathers speed. */
  soft: [0, 0, 10, -15, 6],
} as const satisfies Record<string, readonly number[]>;

function ofCoefficients(coefficients: readonly number[]): Rise {
  const speed = polynomial([0, ...coefficients]);
  const way = polynomial([0, 0, ...coefficients.map((c, i) => c / (i + 2))]);
  return { way, tenth: whereTenth(speed) };
}

/** Horner's rule. */
function polynomial(coefficients: readonly number[]): (u: number) => number {
  const falling = coefficients.toReversed();
  return (u) => {
    let sum = 0;
    for (const c of falling) sum = sum * u + c;
    return sum;
  };
}

/** How many of its own times a driven link takes to be all but as fast as it is driven. */
const TIMES = 6;

/**
 * As a link answers to a push that lasts: a critically damped second-order lag, 1 − (1 + ku) e^(−ku).
 * It never stands still at the top of its rise as the others do.
 */
function driven(): Rise {
  const raw = (u: number) => 1 - (1 + TIMES * u) * Math.exp(-TIMES * u);
  const top = raw(1);
  return {
    way: (u) => (u - 2 / TIMES + (u + 2 / TIMES) * Math.exp(-TIMES * u)) / top,
    tenth: whereTenth((u) => raw(u) / top),
  };
}

function whereTenth(speed: (u: number) => number): number {
  let [low, high] = [0, 1];
  for (let i = 0; i < 60; i++) {
    const middle = (low + high) / 2;
    if (speed(middle) < 0.1) low = middle;
    else high = middle;
  }
  return low;
}

const RISES = {
  even: ofCoefficients(SPEEDS.even),
  early: ofCoefficients(SPEEDS.early),
  late: ofCoefficients(SPEEDS.late),
  soft: ofCoefficients(SPEEDS.soft),
  driven: driven(),
};

export type RiseId = keyof typeof RISES;

export const rising = (by: RiseId = 'even'): Rise => RISES[by];
