import { describe, expect, it } from 'vitest';
import { measure } from '../src/analysis/analyze';
import { markOnFrame } from '../src/measure/events/events';
import { USUAL_RULES } from '../src/judge/fault/finding';
import { judgeSet } from '../src/judge/fault/set';
import { isAbsent, type Reading } from '../src/foundation/reading/reading';
import { medianOf, setReadings } from '../src/measure/measures/set';
import { techniqueById } from '../src/foundation/technique/techniques';
import { strikingSide, type Strike } from '../src/foundation/technique/strike';
import { nearestFrame } from '../src/observe/track/time';
import { clean, FAULT_CHANGES, type Recipe } from '@sinew/fighters/fighter/recipe';
import { knownTimes } from '@sinew/fighters/fighter/pose';
import { comboTrack } from '@sinew/fighters/fighter/combo';
import { judged, judgeKnown } from './fixtures';

const JUDGED = { rate: 120, noise: 0.002 };
const of = (...recipes: Recipe[]) =>
  recipes.map((recipe, seed) => judgeKnown(recipe, { ...JUDGED, seed: seed + 1 }));
const cross = techniqueById('cross');
const late = clean('cross', FAULT_CHANGES['all-at-once']);
const word = (set: ReturnType<typeof judgeSet>, fault: string) =>
  set.findings.find((one) => one.fault === fault)!;

const seconds = (value: number, sigma: number): Reading => ({
  value,
  sigma,
  unit: 's',
  source: 'eye',
  frames: [],
});

describe('the median', () => {
  it('joins scatter with what is known of each', () => {
    const found = medianOf([seconds(0.01, 0.003), seconds(0.02, 0.003), seconds(0.03, 0.003)]);
    if (isAbsent(found)) throw new Error(found.absent);
    expect(found.value).toBe(0.02);
    // √(π/2) · 0.01 / √3 and 0.003 / √3, by hand.
    expect(found.sigma).toBeCloseTo(Math.hypot(0.007236, 0.0017321), 6);
  });

  it('of lengths keeps what may be wrong in all of them', () => {
    const metres = (value: number): Reading => ({ ...seconds(value, 0.02), unit: 'm' });
    const found = medianOf([metres(1), metres(1), metres(1), metres(1)]);
    expect(isAbsent(found) ? 0 : found.sigma).toBeCloseTo(0.02, 12);
  });
});

describe('a set', () => {
  it('of strikes that all show a leak shows it, and says in how many', () => {
    const set = judgeSet(cross, of(late, late, late), USUAL_RULES);
    expect(set.isProvisional).toBe(false);
    expect(word(set, 'all-at-once')).toMatchObject({ status: 'found', shows: 3, told: 3, of: 3 });
  });

  it('of which one strike slipped does not show it, and says which one did', () => {
    const clear = clean('cross');
    const set = judgeSet(cross, of(clear, late, clear, clear), USUAL_RULES);
    const finding = word(set, 'all-at-once');
    expect(finding.status).not.toBe('found');
    expect(finding.each).toEqual(['clear', 'found', 'clear', 'clear']);
  });

  it('that scatters, but of which every strike shows the leak, shows it', () => {
    const chins = [0, -0.01, -0.02, -0.16].map((shrug) => clean('cross', { shrug }));
    const set = judgeSet(cross, of(...chins), USUAL_RULES);
    const said = { status: 'found', shows: 4, of: 4, isByMedian: false };
    expect(word(set, 'chin-open')).toMatchObject(said);
  });

  it('costs what its middle strike costs, in whatever order they were thrown', () => {
    const cost = (lost: number) => ({
      lost,
      low: lost,
      high: lost,
      share: lost / 10,
      shareLow: 0,
      shareHigh: 1,
    });
    const strikes = of(late, late, late).map((one, i) => ({
      ...one,
      findings: one.findings.map((finding) =>
        finding.fault === 'all-at-once' ? { ...finding, cost: cost([2, 3, 1][i]!) } : finding,
      ),
    }));
    const finding = word(judgeSet(cross, strikes, USUAL_RULES), 'all-at-once');
    expect(finding).toMatchObject({ cost: { lost: 2 }, isByMedian: true });
  });

  it('of fewer than three is provisional', () => {
    expect(judgeSet(cross, of(late, late), USUAL_RULES).isProvisional).toBe(true);
  });

  it('whose stance comes up as it goes on fades', () => {
    const risen = [0, 0.02, 0.04, 0.06].map((tall) => clean('cross', { tall }));
    const fades = word(judgeSet(cross, of(...risen), USUAL_RULES), 'stance-fades');
    expect(fades.status).toBe('found');
    const steady = of(...[1, 2, 3, 4].map(() => clean('cross')));
    expect(word(judgeSet(cross, steady, USUAL_RULES), 'stance-fades').status).toBe('clear');
  });

  it('whose order holds slow and breaks fast is too fast too soon', () => {
    const slow = clean('cross', { out: 0.26, hipsToTrunk: 0.06 });
    const fast = { ...late, out: 0.15 };
    const strikes = of(slow, fast, slow, fast, slow, fast);
    const range = setReadings(strikes.map(({ readings }) => readings))['set.speedRange'];
    expect(isAbsent(range) ? 0 : range.value).toBeGreaterThan(1.15);
    expect(word(judgeSet(cross, strikes, USUAL_RULES), 'too-fast-too-soon').status).toBe('found');
    const even = of(slow, slow, slow, slow);
    expect(word(judgeSet(cross, even, USUAL_RULES), 'too-fast-too-soon').status).toBe('clear');
  });
});

/** Two strikes of a combination, the second begun so long after the first's contact. */
function pair(
  first: Recipe,
  second: Recipe,
  gap: number,
  flows = true,
  home = 0,
  rate = JUDGED.rate,
) {
  const { track, contacts } = comboTrack([first, second], [gap], { ...JUDGED, rate, flows });
  const onFrame = (time: number) =>
    markOnFrame(track.frameTimes, nearestFrame(track.frameTimes, time));
  const strikes = [first, second].map((recipe): Strike => {
    const technique = techniqueById(recipe.technique);
    return { technique, side: strikingSide(technique, recipe.stance), stance: recipe.stance };
  });
  const marks = contacts.map((time, i) => ({
    contact: onFrame(time),
    ...(i === 1 && { hips: onFrame(time - knownTimes(second).contact + knownTimes(second).hips) }),
    ...(i === 0 && home > 0 && { end: onFrame(time + 0.02), home: onFrame(time + home) }),
  }));
  const body = { mass: 70, height: 1.76 };
  const then = measure({ strike: strikes[1]!, track, marks: marks[1]!, body });
  const next = { strike: strikes[1]!, events: then.events };
  return judged({ strike: strikes[0]!, track, marks: marks[0]!, body, next });
}

describe('strikes that follow each other', () => {
  const status = (analysis: ReturnType<typeof pair>, fault: string) =>
    analysis.findings.find((one) => one.fault === fault)?.status;

  it('hips that go back to guard load nothing; hips that wait do', () => {
    const [first, second] = [clean('cross'), clean('jab')];
    expect(status(pair(first, second, 0.75, false), 'combo-reset')).toBe('found');
    expect(status(pair(first, second, 0.36), 'combo-reset')).toBe('clear');
  });

  it('a foot that is still on its ball as the next hips start is not replanted', () => {
    const [first, second] = [clean('cross'), clean('jab')];
    expect(status(pair(first, second, 0.36), 'no-replant')).toBe('found');
    expect(status(pair(first, second, 0.75, false), 'no-replant')).toBe('clear');
  });

  it('a hand that is still out as the next one lands leaves two hands out', () => {
    const [first, second] = [clean('cross'), clean('jab')];
    expect(status(pair(first, second, 0.5, true, 0.3), 'combo-late-home')).toBe('clear');
    expect(status(pair(first, second, 0.5, true, 0.6), 'combo-late-home')).toBe('found');
  });

  it('a hand that is home only between two frames, on its way to the next, is home there', () => {
    const [first, second] = [clean('rear-uppercut'), clean('lead-hook')];
    for (const gap of [0.3, 0.36]) {
      const after = pair(first, second, gap, true, 0, 60).readings['pair.home'];
      expect(isAbsent(after) ? 0 : after.value).toBeLessThan(0);
    }
  });

  it('a strike alone has no such leak', () => {
    const alone = judgeKnown(clean('cross'), JUDGED);
    expect(status(alone, 'combo-reset')).toBeUndefined();
    expect(status(alone, 'no-replant')).toBeUndefined();
  });

  it('knows when each of them lands', () => {
    const gap = pair(clean('cross'), clean('jab'), 0.6).readings['pair.gap'];
    expect(isAbsent(gap) ? 0 : gap.value).toBeCloseTo(0.6, 1);
    expect(knownTimes(clean('cross')).contact).toBe(0.7);
  });
});
