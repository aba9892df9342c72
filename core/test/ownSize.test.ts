/** Limits on sizes go with the body: what is low on a grown man is lower on a child. */
import { describe, expect, it } from 'vitest';
import { clean, type Recipe } from '@sinew/fighters/fighter/recipe';
import type { TechniqueId } from '@sinew/fighters/fighter/forms';
import { ownSize } from '../src/measure/measures/ownSize';
import { isAbsent } from '../src/foundation/reading/reading';
import { quantity } from '../src/foundation/reading/say';
import { knownTrack } from '@sinew/fighters/fighter/track';
import { techniqueById } from '../src/foundation/technique/techniques';
import type { SpaceTrack } from '../src/observe/track/track';
import { found, judged, judgeKnown, trueMarks } from './fixtures';

const SAMPLING = { rate: 240, noise: 0.002 };
const GROWN = 1.76;
const judgedAt = (height: number, technique: TechniqueId, change: Partial<Recipe> = {}) =>
  judgeKnown(clean(technique, { height, ...change }), SAMPLING);

describe.each([1.25, 1.5, 2.05])('somebody %s m tall', (height) => {
  it.each(['cross', 'jab', 'lead-hook', 'rear-hook', 'elbow-round', 'round-kick'] as const)(
    'who throws a sound %s has no leak that somebody of usual size has not',
    (technique) => {
      const usual = found(judgedAt(GROWN, technique));
      expect(found(judgedAt(height, technique))).toEqual(usual);
    },
  );
});

describe('a marker high on the heel', () => {
  /** As on a thick-soled shoe, metres. */
  const HIGH = 0.04;

  it('lifts no heel off the floor: what counts is how the own foot stands flat', () => {
    const recipe = clean('cross');
    const technique = techniqueById('cross');
    const heelOf = (by: number) => {
      const track = knownTrack(recipe, { ...SAMPLING, seed: 1 });
      const { readings, findings } = judged({
        strike: { technique, side: 'right', stance: 'orthodox' },
        track: raised(track, by),
        marks: trueMarks(recipe, track.frameTimes),
        body: { mass: 70, height: GROWN },
      });
      const heel = readings['heel.rear'];
      if (isAbsent(heel)) throw new Error(heel.absent);
      return { ...heel, status: findings.find(({ fault }) => fault === 'toe-tip')!.status };
    };
    const [usual, high] = [heelOf(0), heelOf(HIGH)];
    expect(Math.abs(high.value - usual.value)).toBeLessThan(0.001);
    expect([usual.status, high.status]).toEqual(['clear', 'clear']);
  });

  const raised = (track: SpaceTrack, by: number): SpaceTrack => {
    const heel = (side: 'left' | 'right') => {
      const path = track.points[`${side}Heel`]!;
      return [`${side}Heel`, { ...path, y: path.y.map((y) => y + by) }];
    };
    return {
      ...track,
      points: { ...track.points, ...Object.fromEntries([heel('left'), heel('right')]) },
    };
  };
});

describe('the same centimetres', () => {
  it('are a high heel on a child, and none on a grown man', () => {
    const heelOf = (height: number, tiptoe: number) => {
      const { readings, findings } = judgedAt(height, 'cross', { tiptoe });
      const heel = readings['heel.rear'];
      if (isAbsent(heel)) throw new Error(heel.absent);
      return [
        Math.round(100 * heel.value),
        findings.find((one) => one.fault === 'toe-tip')!.status,
      ];
    };
    expect(heelOf(1.25, 0.26)).toEqual([9, 'found']);
    expect(heelOf(GROWN, 0)).toEqual([9, 'clear']);
  });

  it('from shoulder to chin leave a grown man’s open, and cover a giant’s', () => {
    const chinOf = (height: number) =>
      judgedAt(height, 'cross', { shrug: height > 2 ? clean('cross').shrug : 0.045 }).findings.find(
        ({ fault }) => fault === 'chin-open',
      )!.status;
    expect(chinOf(2.05)).toBe('clear');
    expect(chinOf(GROWN)).not.toBe('clear');
  });
});

it('says the limit that holds for this body', () => {
  const limitOf = (height: number) => {
    const finding = judgedAt(height, 'cross', { dip: 0.2 }).findings.find(
      ({ fault }) => fault === 'hand-drop',
    )!;
    const { limit, measured } = finding.judgedBy[0]!;
    if (!('reading' in limit) || !measured || isAbsent(measured)) throw new Error('not judged');
    expect(measured.size! * 1.75).toBeCloseTo(height, 1);
    return quantity(limit.value, 'm');
  };
  expect([1.4, 1.75, 2.1].map(limitOf)).toEqual(['4 cm', '5 cm', '6 cm']);
});

describe('the size', () => {
  const flat = { raw: {}, axes: [], metric: true } as unknown as Parameters<typeof ownSize>[0];
  it('is the height’s where the body is not known in space, and anybody’s without it', () => {
    expect(ownSize(flat, { height: 1.4, mass: null }, 'forearm')).toBeCloseTo(0.8, 9);
    expect(ownSize(flat, { height: null, mass: null }, 'foot')).toBe(1);
  });
  it('is nobody’s who does not exist', () => {
    expect(ownSize(flat, { height: 0.3, mass: null }, 'foot')).toBeGreaterThan(0.4);
    expect(ownSize(flat, { height: 3, mass: null }, 'foot')).toBeLessThan(1.5);
  });
});
