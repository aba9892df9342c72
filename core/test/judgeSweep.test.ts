/** Every leak that can be put into a made-up strike, judged: it is found, and nothing that is not there. */
import { describe, expect, it } from 'vitest';
import { FAULTY_FIGHTERS, faulty } from '@sinew/fighters/fighter/faults';
import type { TechniqueId } from '@sinew/fighters/fighter/forms';
import { clean, FAULT_CHANGES, type KnownFault, type Recipe } from '@sinew/fighters/fighter/recipe';
import { TECHNIQUES } from '../src/foundation/technique/techniques';
import { found, judgeKnown, rulesFor } from './fixtures';

const FAULTY: [Recipe['technique'], KnownFault][] = [
  ['cross', 'all-at-once'],
  ['cross', 'arm-first'],
  ['cross', 'jammed'],
  ['cross', 'elbow-flare'],
  ['cross', 'slow-home'],
  ['jab', 'jammed'],
  ['jab', 'elbow-flare'],
  ['jab', 'slow-home'],
  ['lead-hook', 'all-at-once'],
  ['lead-hook', 'arm-first'],
  ['lead-hook', 'slap'],
  ['lead-hook', 'slow-home'],
];
const STANCES = ['orthodox', 'southpaw'] as const;

describe.each([60, 120, 240])('at %i frames a second, marked where the truth is', (rate) => {
  describe.each(STANCES)('%s', (stance) => {
    it.each(FAULTY)('a %s with %s put in has that leak and no other', (technique, fault) => {
      const recipe = clean(technique, { ...FAULT_CHANGES[fault], stance });
      expect(found(judgeKnown(recipe, { rate, noise: 0.002 }))).toEqual([fault]);
    });

    it.each(['jab', 'cross', 'lead-hook'] as const)('a clean %s has no leak', (technique) => {
      const analysis = judgeKnown(clean(technique, { stance }), { rate, noise: 0.002 });
      expect(found(analysis)).toEqual([]);
    });
  });
});

const JUDGED = { rate: 240, noise: 0.002 };

describe('a sound strike of every technique has no leak', () => {
  it.each(TECHNIQUES.map(({ id }) => id as TechniqueId))('%s', (technique) => {
    for (const stance of STANCES) {
      const analysis = judgeKnown(clean(technique, { stance }), JUDGED);
      expect(found(analysis), stance).toEqual([]);
    }
  });
});

describe('every leak, put in clearly, is found, with none but those it brings with it', () => {
  it.each(FAULTY_FIGHTERS.map((fighter) => [fighter.fault, fighter] as const))(
    '%s',
    (fault, fighter) => {
      const technique = fighter.techniques[0]!;
      for (const stance of STANCES) {
        const recipe = { ...faulty(fighter, technique, 'clear'), stance };
        const all = found(judgeKnown(recipe, JUDGED, rulesFor(fighter)));
        expect(all, stance).toContain(fault);
        expect(
          all.filter((one) => one !== fault && !fighter.also?.includes(one)),
          stance,
        ).toEqual([]);
      }
    },
  );
});
