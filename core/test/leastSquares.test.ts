/** The solver against certified results, a closed form and a valley. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { leastSquares } from '../src/foundation/geometry/leastSquares';

/**
 * Dental research, monomolecular adsorption: y = b₁ (1 − exp(−b₂ x)).
 *
 * Source: NIST Statistical Reference Datasets, nonlinear regression, Misra1a (D. Misra, 1978);
 * data and certified values from memory, which fit each other to all digits shown.
 */
const MISRA = {
  x: [77.6, 114.9, 141.1, 190.8, 239.9, 289, 332.8, 378.4, 434.8, 477.3, 536.8, 593.1, 689.1, 760],
  y: [
    10.07, 14.73, 17.94, 23.93, 29.61, 35.18, 40.02, 44.82, 50.76, 55.05, 61.01, 66.4, 75.47, 81.78,
  ],
  certified: [2.3894212918e2, 5.5015643181e-4],
  residual: 1.2455138894e-1,
};

describe('least squares', () => {
  it.each([
    ['far from it', [500, 0.0001]],
    ['near it', [250, 0.0005]],
  ])('gives NIST’s certified values, started %s', (_, start) => {
    const { values, cost } = leastSquares(
      ([b1, b2]) => MISRA.x.map((x, i) => MISRA.y[i]! - b1! * (1 - Math.exp(-b2! * x))),
      start,
      200,
    );
    expect(cost / MISRA.residual).toBeCloseTo(1, 7);
    values.forEach((value, k) => expect(value / MISRA.certified[k]!).toBeCloseTo(1, 4));
  });

  it('of a line is the regression of the textbook: slope = Sxy / Sxx', () => {
    const coordinate = fc.double({ min: -50, max: 50, noNaN: true });
    fc.assert(
      fc.property(
        fc.uniqueArray(fc.tuple(fc.integer({ min: -40, max: 40 }), coordinate), {
          minLength: 3,
          maxLength: 20,
          selector: ([x]) => x,
        }),
        (points) => {
          const { values } = leastSquares(
            ([m, b]) => points.map(([x, y]) => m! * x + b! - y),
            [0, 0],
          );
          const mean = (k: 0 | 1) => points.reduce((sum, one) => sum + one[k], 0) / points.length;
          const [x, y] = [mean(0), mean(1)];
          const sum = (of: (point: [number, number]) => number) =>
            points.reduce((all, point) => all + of(point), 0);
          const slope = sum((p) => (p[0] - x) * (p[1] - y)) / sum((p) => (p[0] - x) ** 2);
          expect(values[0]).toBeCloseTo(slope, 5);
          expect(values[1]).toBeCloseTo(y - slope * x, 4);
        },
      ),
      { numRuns: 40 },
    );
  });

  it('follows a curved valley to its end (Rosenbrock 1960)', () => {
    const { values, cost } = leastSquares(
      ([x, y]) => [10 * (y! - x! * x!), 1 - x!],
      [-1.2, 1],
      200,
    );
    expect(values[0]).toBeCloseTo(1, 5);
    expect(values[1]).toBeCloseTo(1, 5);
    expect(cost).toBeLessThan(1e-9);
  });

  it('never ends worse than it began, and stays where nothing is better', () => {
    const misses = ([x]: readonly number[]) => [Math.abs(x!) + 1];
    expect(leastSquares(misses, [0])).toEqual({ values: [0], cost: 1 });
    fc.assert(
      fc.property(fc.double({ min: -100, max: 100, noNaN: true }), (start) => {
        const { cost } = leastSquares(misses, [start]);
        expect(cost).toBeLessThanOrEqual((Math.abs(start) + 1) ** 2);
      }),
    );
  });
});
