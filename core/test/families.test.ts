/**
 * A fast slice of the study over families of bodies (`npm run accuracy families`): noise that hangs together,
 * jumps and gaps, on bodies that sway and gather speed each in its own way.
 */
import { describe, expect, it } from 'vitest';
import { FORMS, type TechniqueId } from '@sinew/fighters/fighter/forms';
import { clean } from '@sinew/fighters/fighter/recipe';
import { knownTrack } from '@sinew/fighters/fighter/track';
import { FAMILIES, REAL } from '@sinew/fighters/trials/families';
import { trialsOf } from '@sinew/fighters/trials/measured';
import { judgeMeasured, measure } from '../src/analysis/analyze';
import { USUAL_RULES } from '../src/judge/fault/finding';
import { markOnFrame } from '../src/measure/events/events';
import { strikingSide } from '../src/foundation/technique/strike';
import { techniqueById, VIEWS } from '../src/foundation/technique/techniques';
import { nearestFrame } from '../src/observe/track/time';

const SEEN: TechniqueId[] = ['jab', 'rear-body-hook', 'rear-uppercut', 'elbow-drop', 'round-kick'];
const FILMED = { rate: 240, noise: 0.002, isContactKnown: true, flaws: REAL };

describe.each(VIEWS)('one picture from %s', (view) => {
  it('says of no strike what does not lie within its ±', () => {
    const setting = { rate: 240, noise: 0.003, isContactKnown: true, view };
    const found = FAMILIES.filter(({ id }) => id !== 'still').flatMap(
      (family) => trialsOf(SEEN, { ...setting, family }, [6]).trials,
    );
    const wrong = found.filter(({ isCovered }) => !isCovered);
    // 95 of 100 should be; with some 50 numbers 88 and more are in 99 of 100 runs of such a test.
    expect(1 - wrong.length / found.length).toBeGreaterThan(0.88);
    // And no kind of number is wrong for all strikes.
    const kinds = [...new Set(wrong.map(({ technique, what }) => `${technique} ${what}`))];
    const twice = kinds.filter(
      (kind) => wrong.filter((one) => `${one.technique} ${one.what}` === kind).length > 1,
    );
    expect(twice).toEqual([]);
  });
});

describe.each(FAMILIES.map((family) => [family.id, family] as const))(
  'of %s bodies',
  (_, family) => {
    it('starts, load, lead and speed lie within ±, and are near', () => {
      const techniques: TechniqueId[] = ['cross', 'lead-hook', 'round-kick'];
      const { trials, missed } = trialsOf(techniques, { ...FILMED, family }, [3, 4, 5, 6]);
      const of = (...whats: string[]) => trials.filter(({ what }) => whats.includes(what));
      const STARTS = ['hips', 'trunk', 'arm'];
      const covered = of('load', 'lead', 'sink', 'speed.contact', 'speed.peak', ...STARTS);
      expect(covered.length).toBeGreaterThan(84);
      // Binomial, 92 numbers of which 95 % should be: 82 and more in 99 of 100 runs of such a test.
      const inside = covered.filter(({ isCovered }) => isCovered).length;
      expect(inside / covered.length).toBeGreaterThan(0.88);
      const sizes = (whats: string[]) =>
        of(...whats)
          .map(({ error }) => Math.abs(error))
          .sort((a, b) => a - b);
      const [starts, load] = [sizes(STARTS), sizes(['load'])];
      // Over eight draws of noise: 1.9, 2.3 and 3.9 ms in the middle, nine in ten within 5.5, 6.1 and 7.4.
      expect(starts[starts.length >> 1]!).toBeLessThan(0.005);
      expect(starts[Math.floor(0.9 * starts.length)]!).toBeLessThan(0.01);
      expect(load[load.length >> 1]!).toBeLessThan(0.012);
      // A sink of two centimetres is at times lost in such noise; nothing else is.
      expect(missed.filter((what) => what !== 'round-kick load')).toEqual([]);
      expect(missed.length).toBeLessThanOrEqual(1);
    });

    it('sound strikes of every second technique have hardly a leak', () => {
      let checks = 0;
      const made: string[] = [];
      for (const id of (Object.keys(FORMS) as TechniqueId[]).filter((_, i) => i % 2 === 0)) {
        const recipe = family.of(clean(id), 5);
        const technique = techniqueById(id);
        const side = strikingSide(technique, 'orthodox');
        const track = knownTrack(recipe, { ...FILMED, seed: 5 });
        const contact = markOnFrame(
          track.frameTimes,
          nearestFrame(track.frameTimes, recipe.contact),
        );
        const strike = { technique, side, stance: 'orthodox' } as const;
        const measured = measure({
          strike,
          track,
          marks: { contact },
          body: { mass: 70, height: 1.76 },
        });
        const findings = judgeMeasured(measured, strike, USUAL_RULES);
        checks += findings.length;
        made.push(
          ...findings
            .filter(({ status }) => status === 'found')
            .map(({ fault }) => `${fault} ${id}`),
        );
      }
      // Half of a hundredth of the checks, and one for the few there are.
      expect(made.length, made.join(', ')).toBeLessThanOrEqual(0.005 * checks + 1);
    });
  },
);
