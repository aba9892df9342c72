import { describe, expect, it } from 'vitest';
import { LANDMARKS, landmarkName, leadSide, mirrored, sided } from '../src/body/landmarks';
import { SEGMENT_LENGTH } from '../src/body/segments';
import { techniqueById, TECHNIQUES } from '../src/technique/catalogue';
import { strikeStance, strikingSide } from '../src/technique/strike';

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
        expect(strikeStance({ technique, side: strikingSide(technique, stance), stance })).toBe(stance);
      }
    }
  });

  it('names the techniques there are when asked for another', () => {
    expect(() => techniqueById('headbutt')).toThrow(/no technique "headbutt".*cross/);
  });
});
