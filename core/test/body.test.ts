import { describe, expect, it } from 'vitest';
import { mover } from '@sinew/fighters/fighter/pose';
import { clean } from '@sinew/fighters/fighter/recipe';
import { extrapolated, hull, marginOf } from '../src/foundation/body/balance';
import {
  CENTRE_WEIGHTS,
  centreOfMass,
  segmentPlaces,
  type SegmentPlace,
} from '../src/foundation/body/centre';
import {
  LANDMARKS,
  landmarkName,
  leadSide,
  mirrored,
  sided,
  type Landmark,
} from '../src/foundation/body/landmarks';
import {
  countOf,
  DE_LEVA_MASS,
  DEMPSTER,
  SEGMENT_LENGTH,
  SEGMENTS,
} from '../src/foundation/body/segments';
import { segmentEnergy } from '../src/measure/measures/mass';
import { techniqueById, TECHNIQUES } from '../src/foundation/technique/techniques';
import { strikeStance, strikingSide } from '../src/foundation/technique/strike';

describe('landmarks', () => {
  it('are 23, and mirroring twice gives each back', () => {
    expect(LANDMARKS).toHaveLength(23);
    for (const landmark of LANDMARKS) expect(mirrored(mirrored(landmark))).toBe(landmark);
    expect(mirrored('leftElbow')).toBe('rightElbow');
    expect(mirrored('nose')).toBe('nose');
  });

  it('have names a coach would say', () => {
    expect(landmarkName(sided('right', 'IndexKnuckle'))).toBe('right index knuckle');
  });
});

// Drillis & Contini 1966 as printed in Winter (2009), fig. 4.1; values from memory. The figure's
// own joint heights must follow: ankle 0.039 + shank + thigh = hip height 0.530.
it('leg segments add up to the published hip height', () => {
  expect(0.039 + SEGMENT_LENGTH.shank + SEGMENT_LENGTH.thigh).toBeCloseTo(0.53, 3);
});

describe('a strike and its stance', () => {
  it('uses the rear hand for a cross and the lead hand for a jab, in both stances', () => {
    expect(strikingSide(techniqueById('cross'), 'orthodox')).toBe('right');
    expect(strikingSide(techniqueById('cross'), 'southpaw')).toBe('left');
    expect(strikingSide(techniqueById('jab'), 'southpaw')).toBe(leadSide('southpaw'));
  });

  it('takes a cross with the left hand as a southpaw cross', () => {
    for (const technique of TECHNIQUES) {
      for (const stance of ['orthodox', 'southpaw'] as const) {
        expect(strikeStance({ technique, side: strikingSide(technique, stance), stance })).toBe(
          stance,
        );
      }
    }
  });

  it('names the techniques there are when asked for another', () => {
    expect(() => techniqueById('headbutt')).toThrow(/no technique "headbutt".*cross/);
  });
});

describe('inertia tables', () => {
  // Winter 2009, Table 4.1, after Dempster (from memory): the body is all there.
  it('of Dempster add up to the whole body', () => {
    const whole = SEGMENTS.reduce((sum, one) => sum + countOf(one) * DEMPSTER[one].mass, 0);
    expect(whole).toBeCloseTo(1, 9);
  });

  // de Leva 1996 (from memory): 100.0 % for men, 99.99 % for women as printed, by rounding.
  it('of de Leva add up to the whole body, to the rounding of the table', () => {
    const whole = (who: 'man' | 'woman') =>
      SEGMENTS.reduce((sum, one) => sum + countOf(one) * DE_LEVA_MASS[who][one], 0);
    expect(whole('man')).toBeCloseTo(100, 9);
    expect(whole('woman')).toBeCloseTo(99.99, 9);
  });
});

describe('centre of mass', () => {
  const pose = mover(clean('cross'))(0);
  const at = (landmark: Landmark) => pose[landmark];

  it('is the same by weights of landmarks as by segments, and the weights are one', () => {
    const bySegments = segmentPlaces(at).reduce(
      (sum, { mass, centre }) => sum.map((v, k) => v + mass * centre[k]!),
      [0, 0, 0],
    );
    centreOfMass(at).forEach((v, k) => expect(v).toBeCloseTo(bySegments[k]!, 12));
    expect([...CENTRE_WEIGHTS.values()].reduce((a, b) => a + b)).toBeCloseTo(1, 12);
  });

  // Common practice, no source: the centre of a standing body is near its navel, 55–57 % of height.
  it('of a fighter in guard is a little lower than of a standing body', () => {
    const height = centreOfMass(at)[1]!;
    expect(height / 1.76).toBeGreaterThan(0.48);
    expect(height / 1.76).toBeLessThan(0.57);
  });
});

describe('balance', () => {
  // Hof, Gazendam & Sinke 2005: XCoM = x + v / √(g / l). With l = 1 m, √(9.81) = 3.132 /s.
  it('runs ahead of the body by its speed over √(g/l)', () => {
    const [x, z] = extrapolated([0.1, 0], [0.5, -0.2], 1);
    expect(x).toBeCloseTo(0.1 + 0.5 / Math.sqrt(9.81), 12);
    expect(z).toBeCloseTo(-0.2 / Math.sqrt(9.81), 12);
    expect(extrapolated([0, 0], [0.4, 0], 0.9)[0]).toBeCloseTo(0.1212, 4);
  });

  it('is the distance from the edge of the feet, inside and outside', () => {
    const square = [
      [0, 0],
      [1, 0],
      [1, 1],
      [0, 1],
      [0.5, 0.5],
    ] as const;
    expect(hull(square)).toHaveLength(4);
    expect(marginOf([0.3, 0.5], square)).toBeCloseTo(0.3, 12);
    expect(marginOf([1.2, 0.5], square)).toBeCloseTo(-0.2, 12);
    expect(marginOf([2, 2], square)).toBeCloseTo(-Math.SQRT2, 12);
    // One foot on its toe tips and heel: a line holds nobody.
    expect(
      marginOf(
        [0.5, 0.1],
        [
          [0, 0],
          [1, 0],
        ],
      ),
    ).toBeCloseTo(-0.1, 12);
  });
});

describe('kinetic energy of a segment', () => {
  // A uniform rod turning about its end: ½ (m L² / 3) ω². Its radius of gyration about the centre is
  // L / √12; a table’s k in its place gives ½ m (L²/4 + k² L²) ω² (parallel axes, textbook mechanics).
  it('is that of a rod about its end, with the table’s radius of gyration', () => {
    const place: SegmentPlace = {
      segment: 'forearm',
      side: 'right',
      mass: 0.016,
      ends: [
        [0, 0, 0],
        [0.3, 0, 0],
      ],
      centre: [0.15, 0, 0],
    };
    const rate: SegmentPlace = {
      ...place,
      ends: [
        [0, 0, 0],
        [0, 3, 0],
      ],
      centre: [0, 1.5, 0],
    };
    const turning = 10;
    const expected = 0.5 * 1.2 * (0.15 ** 2 + (0.303 * 0.3) ** 2) * turning ** 2;
    expect(segmentEnergy(place, rate, 1.2)).toBeCloseTo(expected, 12);
  });

  it('of a segment that only travels is ½ m v²', () => {
    const [end, v]: [number[], number[]] = [
      [0.3, 0, 0],
      [2, 1, 0],
    ];
    const place: SegmentPlace = {
      segment: 'thigh',
      side: 'left',
      mass: 0.1,
      ends: [[0, 0, 0], end],
      centre: [0.13, 0, 0],
    };
    expect(segmentEnergy(place, { ...place, ends: [v, v], centre: v }, 7)).toBeCloseTo(17.5, 12);
  });
});
