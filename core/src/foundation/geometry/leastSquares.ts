/** The values under which a list of misses is least in the sum of squares. */
import { Matrix, solve } from 'ml-matrix';

export interface Solved {
  readonly values: readonly number[];
  /** Sum of the squared misses. */
  readonly cost: number;
}

/**
 * Levenberg–Marquardt with differences for slopes, for problems of up to a few hundred values.
 *
 * Source: Marquardt, J. Soc. Indust. Appl. Math. 11 (1963) 431–441.
 */
export function leastSquares(
  misses: (values: readonly number[]) => readonly number[],
  start: readonly number[],
  passes = 60,
): Solved {
  let values = [...start];
  let now = misses(values);
  let cost = sumOfSquares(now);
  let damping = 1e-3;
  for (let pass = 0; pass < passes; pass++) {
    const slopes = slopesOf(misses, values, now);
    const turned = slopes.transpose();
    const normal = turned.mmul(slopes);
    const right = turned.mmul(Matrix.columnVector([...now]));
    let isBetter = false;
    for (let tries = 0; tries < 12 && !isBetter; tries++) {
      const damped = normal.clone();
      for (let k = 0; k < values.length; k++) {
        damped.set(k, k, normal.get(k, k) * (1 + damping) + 1e-12);
      }
      const step = solve(damped, right).to1DArray();
      const next = values.map((value, k) => value - step[k]!);
      const then = misses(next);
      const nextCost = sumOfSquares(then);
      if (nextCost < cost) {
        const gain = (cost - nextCost) / Math.max(cost, 1e-300);
        [values, now, cost] = [next, then, nextCost];
        damping = Math.max(damping / 5, 1e-12);
        isBetter = true;
        if (gain < 1e-12) return { values, cost };
      } else damping *= 6;
    }
    if (!isBetter) break;
  }
  return { values, cost };
}

/**
 * Solves problems that lie near one that is solved: one step of Gauss and Newton along the slopes of
 * the solved one, so that each costs a single look at its misses.
 *
 * @param solved the values under which `misses` is least
 * @param stray how far a value is expected to move at most: it keeps a value on which the misses
 *   hardly depend from running away
 * @returns the values for other misses of the same length
 */
export function nearby(
  misses: (values: readonly number[]) => readonly number[],
  solved: readonly number[],
  stray: number,
): (others: (values: readonly number[]) => readonly number[]) => number[] {
  const now = misses(solved);
  const slopes = slopesOf(misses, solved, now);
  const turned = slopes.transpose();
  const normal = turned.mmul(slopes).add(Matrix.eye(solved.length).mul(stray ** -2));
  return (others) => {
    const change = others(solved).map((miss, row) => miss - now[row]!);
    const step = solve(normal, turned.mmul(Matrix.columnVector(change))).to1DArray();
    return solved.map((value, k) => value - step[k]!);
  };
}

/** Differences forward: a row for a miss, a column for a value. */
function slopesOf(
  misses: (values: readonly number[]) => readonly number[],
  values: readonly number[],
  now: readonly number[],
): Matrix {
  const slopes = new Matrix(now.length, values.length);
  values.forEach((value, k) => {
    const step = 1e-6 * Math.max(1, Math.abs(value));
    const nudged = misses(values.map((one, i) => (i === k ? one + step : one)));
    nudged.forEach((miss, row) => slopes.set(row, k, (miss - now[row]!) / step));
  });
  return slopes;
}

function sumOfSquares(values: readonly number[]): number {
  return values.reduce((sum, one) => sum + one * one, 0);
}
