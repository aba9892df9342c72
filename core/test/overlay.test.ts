/** One picture laid over another by the body in it. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { LANDMARKS, type Landmark } from '../src/foundation/body/landmarks';
import { similarity } from '../src/foundation/geometry/similarity';
import { overlayOf, type Places } from '../src/train/progress/overlay';
import { placeAt } from '../src/observe/track/place';

const coordinate = fc.double({ min: -500, max: 500, noNaN: true });
const point = fc.record({ x: coordinate, y: coordinate });

describe('a similarity', () => {
  it('gives back how a picture was made larger and shifted', () => {
    fc.assert(
      fc.property(
        fc.array(point, { minLength: 2, maxLength: 12 }),
        fc.double({ min: 0.2, max: 5, noNaN: true }),
        point,
        (points, scale, by) => {
          const spread = Math.max(
            ...points.map(({ x, y }) => Math.hypot(x - points[0]!.x, y - points[0]!.y)),
          );
          fc.pre(spread > 1);
          const to = points.map(({ x, y }) => ({ x: scale * x + by.x, y: scale * y + by.y }));
          const found = similarity(points, to)!;
          expect(found.scale).toBeCloseTo(scale, 6);
          expect(found.x).toBeCloseTo(by.x, 3);
          expect(found.y).toBeCloseTo(by.y, 3);
        },
      ),
    );
  });

  it('is the best there is: nothing near it has smaller misses', () => {
    const from = [
      { x: 0, y: 0 },
      { x: 10, y: 0 },
      { x: 4, y: 9 },
    ];
    const to = [
      { x: 1, y: 2 },
      { x: 22, y: 1 },
      { x: 8, y: 21 },
    ];
    const best = similarity(from, to)!;
    const missed = ({ scale, x, y }: typeof best) =>
      from.reduce(
        (sum, p, i) => sum + (scale * p.x + x - to[i]!.x) ** 2 + (scale * p.y + y - to[i]!.y) ** 2,
        0,
      );
    for (const key of ['scale', 'x', 'y'] as const) {
      for (const by of [-0.01, 0.01]) {
        expect(missed({ ...best, [key]: best[key] + by })).toBeGreaterThan(missed(best));
      }
    }
  });

  it('is none of one point, of points in one place, or where only a mirror fits', () => {
    const [a, b] = [
      { x: 0, y: 0 },
      { x: 3, y: 1 },
    ] as const;
    expect(similarity([a], [b])).toBeNull();
    expect(similarity([a, a], [a, b])).toBeNull();
    expect(similarity([a, b], [b, a])).toBeNull();
  });
});

/** A body whose landmarks all stand apart. */
const body = Object.fromEntries(
  LANDMARKS.map((landmark, i) => [landmark, { x: 100 + 17 * (i % 5), y: 40 + 23 * i }]),
) as Record<Landmark, { x: number; y: number }>;

const seenFrom = (places: Places, scale: number, x: number, y: number): Places =>
  Object.fromEntries(
    Object.entries(places).map(([name, p]) => [
      name,
      { x: (p.x - x) / scale, y: (p.y - y) / scale },
    ]),
  );

describe('the second picture', () => {
  it('comes onto the first wherever the camera stood, however the arms differ', () => {
    const other = { ...body, rightWrist: { x: 900, y: -300 }, rightElbow: { x: 0, y: 900 } };
    const laid = overlayOf(body, seenFrom(other, 1.25, -30, 12))!;
    expect(laid.isByBody).toBe(true);
    expect(laid.scale).toBeCloseTo(1.25, 9);
    expect(laid.x).toBeCloseTo(-30, 6);
    expect(laid.y).toBeCloseTo(12, 6);
  });

  it('is laid by what there is, when the legs are not known', () => {
    const arm = (places: Places): Places => ({
      rightShoulder: places.rightShoulder!,
      rightElbow: places.rightElbow!,
      rightWrist: places.rightWrist!,
    });
    const laid = overlayOf(arm(body), seenFrom(arm(body), 0.8, 5, 5))!;
    expect(laid.isByBody).toBe(false);
    expect(laid.scale).toBeCloseTo(0.8, 9);
  });

  it('is not laid by guesses', () => {
    expect(overlayOf({ nose: body.nose }, body)).toBeNull();
    expect(
      overlayOf({ nose: body.nose, leftEar: body.leftEar }, { rightHip: body.rightHip }),
    ).toBeNull();
  });
});

describe('a place', () => {
  const times = [0, 0.01, 0.02, 0.03, 0.04, 0.2, 0.21];
  const points = { frames: [1, 3, 5], x: [10, 30, 200], y: [1, 1, 1], sigma: [1, 1, 1] };

  it('is as seen, between what was seen, and nowhere outside or over a long gap', () => {
    expect(placeAt(points, times, 0.01)).toEqual({ x: 10, y: 1 });
    expect(placeAt(points, times, 0.02)!.x).toBeGreaterThan(10);
    expect(placeAt(points, times, 0.02)!.x).toBeLessThan(30);
    expect(placeAt(points, times, 0)).toBeNull();
    expect(placeAt(points, times, 0.21)).toBeNull();
    expect(placeAt(points, times, 0.1, 0.1)).toBeNull();
    expect(placeAt(points, times, 0.1)).not.toBeNull();
    // On a point itself no gap is crossed.
    expect(placeAt(points, times, 0.2, 0.1)).toEqual({ x: 200, y: 1 });
  });
});
