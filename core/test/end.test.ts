/** When a strike stops travelling into its target: of bodies that sway, and of fists that push. */
import { mean } from 'd3-array';
import { describe, expect, it } from 'vitest';
import { faulty, FAULTY_FIGHTERS, STRENGTHS } from '@sinew/fighters/fighter/faults';
import { HOOKS } from '@sinew/fighters/fighter/techniqueLists';
import { knownTrack } from '@sinew/fighters/fighter/track';
import { truthOfStrike } from '@sinew/fighters/fighter/truth';
import { FAMILIES, REAL } from '@sinew/fighters/trials/families';
import { trialsOf } from '@sinew/fighters/trials/measured';
import { measure } from '../src/analysis/analyze';
import { halfWidth } from '../src/foundation/reading/reading';
import { markOnFrame } from '../src/measure/events/events';
import { nearestFrame } from '../src/observe/track/time';

const FILMED = { rate: 240, noise: 0.002, flaws: REAL };
const BODY = { mass: 70, height: 1.76 };
const PUSHING = FAULTY_FIGHTERS.find(({ fault }) => fault === 'push')!;

describe('the end', () => {
  it('of a hook is when its own travel is over, however its body sways', () => {
    for (const family of FAMILIES) {
      const { trials } = trialsOf(HOOKS, { ...FILMED, isContactKnown: true, family }, [3]);
      const ends = trials.filter(({ what }) => what === 'end');
      expect(ends).toHaveLength(HOOKS.length);
      expect(ends.filter(({ isCovered }) => !isCovered)).toEqual([]);
    }
  });

  it('of a strong push is hardly told early', () => {
    const pushes = HOOKS.flatMap((technique) =>
      [1, 2, 3].map((seed) => {
        const recipe = faulty(PUSHING, technique, STRENGTHS.at(-1)!);
        const truth = truthOfStrike(recipe);
        const track = knownTrack(recipe, { ...FILMED, seed });
        const contact = markOnFrame(
          track.frameTimes,
          nearestFrame(track.frameTimes, recipe.contact),
        );
        const strike = { technique: truth.technique, side: truth.side, stance: recipe.stance };
        const { end } = measure({ track, strike, marks: { contact }, body: BODY }).events;
        const error = end!.time - truth.times.end!;
        const within = halfWidth(end!);
        return { error, isWithin: Math.abs(error) <= within };
      }),
    );
    // It ebbs away for 0.2 s: taken for over at a twentieth of its speed it came out 35 ms early.
    expect(Math.abs(mean(pushes, ({ error }) => error)!)).toBeLessThan(0.026);
    // Binomial: fewer than nine of twelve would be one run in 5,000 where 95 of 100 are within.
    expect(pushes.filter(({ isWithin }) => isWithin).length).toBeGreaterThanOrEqual(9);
  });
});
