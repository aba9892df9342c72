/** What is drawn by hand: its shape, its angle, and a line with fewer points that still is that line. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { angleIn, distance, drawingSchema, simplified } from '../src/analysis/drawing';

const point = fc.record({
  x: fc.double({ min: -2000, max: 2000, noNaN: true }),
  y: fc.double({ min: -2000, max: 2000, noNaN: true }),
});

describe('a drawing', () => {
  const of = (kind: string, points: number, text?: string) =>
    drawingSchema.safeParse({
      id: 'd',
      frame: 3,
      kind,
      points: Array.from({ length: points }, (_, i) => ({ x: i, y: 0 })),
      ...(text !== undefined && { text }),
    }).success;

  it('has the points of its kind, and words only where it is words', () => {
    expect([of('line', 2), of('arrow', 2), of('angle', 3), of('free', 500)]).not.toContain(false);
    expect([of('line', 3), of('angle', 2), of('free', 1), of('free', 501)]).not.toContain(true);
    expect([of('words', 1, 'Step back'), of('words', 1), of('line', 2, 'x')]).toEqual([
      true,
      false,
      false,
    ]);
    expect(of('words', 1, '   ')).toBe(false);
  });
});

describe('the angle at a corner', () => {
  it('is that of a square, a straight line and a triangle of equal sides', () => {
    const at = (...points: [number, number][]) => angleIn(points.map(([x, y]) => ({ x, y })));
    expect(at([1, 0], [0, 0], [0, 1])).toBeCloseTo(90, 12);
    expect(at([-5, 0], [0, 0], [2, 0])).toBeCloseTo(180, 12);
    expect(at([1, 0], [0, 0], [0.5, Math.sqrt(3) / 2])).toBeCloseTo(60, 12);
    expect(at([3, 3], [0, 0], [3, 3])).toBeCloseTo(0, 12);
  });

  it('is the same from either end', () => {
    fc.assert(
      fc.property(point, point, point, (a, b, c) => {
        expect(angleIn([a, b, c])).toBeCloseTo(angleIn([c, b, a]), 9);
      }),
    );
  });
});

describe('a line with fewer points', () => {
  it('keeps its ends and runs within the given distance of every point left out', () => {
    fc.assert(
      fc.property(
        fc.array(point, { minLength: 2, maxLength: 60 }),
        fc.double({ min: 0.1, max: 300, noNaN: true }),
        (points, within) => {
          const kept = simplified(points, within);
          expect(kept[0]).toEqual(points[0]);
          expect(kept[kept.length - 1]).toEqual(points[points.length - 1]);
          let from = 0;
          for (const [i, next] of kept.slice(1).entries()) {
            const to = points.indexOf(next, from + 1);
            for (const left of points.slice(from + 1, to)) {
              expect(distance(left, kept[i]!, next)).toBeLessThanOrEqual(within + 1e-9);
            }
            from = to;
          }
        },
      ),
    );
  });

  it('is two points where it was straight', () => {
    const straight = Array.from({ length: 50 }, (_, i) => ({ x: i, y: 2 * i }));
    expect(simplified(straight, 0.5)).toEqual([straight[0], straight[49]]);
  });
});
