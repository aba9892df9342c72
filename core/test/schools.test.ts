import { describe, expect, it } from 'vitest';
import { absent, reading, type Measured } from '../src/foundation/reading/reading';
import { costed, OFF } from '../src/judge/cost/estimate';
import { isKnown } from '../src/judge/fault/cost';
import { CATALOGUE } from '../src/judge/fault/faults';
import { USUAL_RULES } from '../src/judge/fault/finding';
import { NO_SCHOOL, resolve, type SchoolLayers } from '../src/judge/school/resolve';
import { SCHOOLS, schoolFrom } from '../src/judge/school/schools';
import { techniqueById } from '../src/foundation/technique/techniques';
import type { TechniqueId } from '@sinew/fighters/fighter/forms';
import { FAULTY_FIGHTERS, faulty } from '@sinew/fighters/fighter/faults';
import { clean, type Recipe } from '@sinew/fighters/fighter/recipe';
import { analyzeKnown, judgeKnown, found } from './fixtures';

const JUDGED = { rate: 240, noise: 0.002 };
const degrees = (value: number) => (value * Math.PI) / 180;
const by = (layers: Partial<SchoolLayers>) => ({
  ...USUAL_RULES,
  school: resolve({ ...NO_SCHOOL, ...layers }),
});

/** How a sound fighter of each school strikes where it differs from the usual one. */
const FOLLOWERS: [string, string, TechniqueId, Partial<Recipe>, Partial<SchoolLayers>?][] = [
  ['readingOrder', 'ground-up', 'cross', {}],
  ['readingOrder', 'top-down', 'cross', {}],
  ['hookFist', 'thumb-up', 'lead-hook', {}],
  ['hookFist', 'palm-down', 'lead-hook', { fistRoll: degrees(88) }],
  ['hookFist', 'by-range', 'lead-hook', { fistRoll: degrees(88) }, { range: 'middle' }],
  ['hookFist', 'by-range', 'lead-hook', {}, { range: 'close' }],
  ['hookFoot', 'pivot', 'lead-hook', {}],
  ['hookFoot', 'plant', 'lead-hook', { footHolds: 1 }],
  ['hookFoot', 'by-situation', 'lead-hook', { footHolds: 1 }, { situation: 'combination' }],
  ['hookFoot', 'by-situation', 'lead-hook', {}, { situation: 'coming-in' }],
  ['weight', 'centred', 'cross', {}],
  ['weight', 'rear-60', 'cross', { weightBack: 0.08 }],
  ['weight', 'forward', 'cross', { weightBack: -0.05 }],
  ['supportHeel', 'set-down', 'cross', {}],
  ['supportHeel', 'on-the-balls', 'cross', { anchorSpin: degrees(35) }],
  ['stepTiming', 'before-or-with', 'stepping-straight', {}],
  ['stepTiming', 'both-feet', 'stepping-straight', {}],
  ['stepTiming', 'foot-first', 'stepping-straight', { stepLead: 0.12 }],
  ['hipAction', 'turn-through', 'cross', {}],
  ['hipAction', 'whip', 'whip-straight', {}],
  ['bodyMass', 'by-technique', 'rear-uppercut', {}],
  ['bodyMass', 'level', 'cross', {}],
  ['bodyMass', 'drop', 'cross', { rise: -0.07 }],
  ['bodyMass', 'relax-rise-fall', 'rear-uppercut', {}],
  ['bodyMass', 'rise', 'rear-uppercut', {}],
  ['finish', 'snap', 'lead-hook', {}],
  ['finish', 'dig', 'lead-hook', { finish: 0.05 }],
  ['finish', 'by-situation', 'lead-hook', { finish: 0.05 }, { situation: 'lined-up' }],
  ['offHand', 'temple', 'cross', {}],
  ['offHand', 'hip', 'cross', { guardDrop: 0.35 }],
  ['offHand', 'shoulder-shield', 'cross', { guardDrop: 0.25 }],
  ['rearHeel', 'raised', 'cross', {}],
  ['rearHeel', 'flat', 'cross', { rearHeel: 0 }],
  ['order', 'hips-first', 'cross', {}],
  ['order', 'together', 'cross', { hipsToTrunk: 0.01 }],
  ['rearLeg', 'as-it-comes', 'cross', {}],
  ['rearLeg', 'bent', 'cross', {}],
  ['rearLeg', 'straight', 'cross', { tall: 0.05 }],
  ['head', 'quiet', 'jab', {}],
  ['head', 'slips', 'jab', { headThrow: 0.14 }],
  ['stanceAngle', 'half', 'cross', {}],
  ['stanceAngle', 'squarer', 'cross', { square: degrees(18) }],
  ['stanceAngle', 'bladed', 'cross', { square: degrees(-10) }],
  ['jabHips', 'slight', 'jab', {}],
  ['jabHips', 'none', 'jab', { pelvisTurn: 0 }],
  ['kickArm', 'as-it-comes', 'round-kick', { armSwings: 1 }],
  ['kickArm', 'swings', 'round-kick', { armSwings: 1 }],
  ['kickArm', 'guards', 'round-kick', {}],
];

describe('no school is punished for being followed', () => {
  it.each(FOLLOWERS)('%s: %s, %s', (key, choice, technique, change, more = {}) => {
    const rules = by({ gym: { [key]: choice }, ...more });
    expect(found(judgeKnown(clean(technique, change), JUDGED, rules))).toEqual([]);
  });

  it('whichever is measured at all has its followers here', () => {
    const followed = new Set(FOLLOWERS.map(([key, choice]) => `${key} ${choice}`));
    // Of these the coach's eye judges, or nothing in a single strike does.
    const others = ['knuckles', 'fistTension', 'speedGate', 'bag'];
    for (const [key, { choices }] of Object.entries(SCHOOLS)) {
      if (others.includes(key)) continue;
      for (const { id } of choices) expect(followed, `${key} ${id}`).toContain(`${key} ${id}`);
    }
  });

  it('refuses a school that there is not, in plain words', () => {
    expect(() => schoolFrom({ hookFoot: 'fly' })).toThrow(/hookFoot must be one of .*pivot.*"fly"/);
    expect(() => schoolFrom({ shoes: 'on' })).toThrow(/no school setting "shoes"/);
  });
});

describe('two leaks at once are both found', () => {
  const change = (fault: string, technique: TechniqueId) =>
    faulty(
      FAULTY_FIGHTERS.find((fighter) => fighter.fault === fault)!,
      technique,
      'clear',
    );
  const both = (first: string, second: string, technique: TechniqueId): Recipe => {
    const base = clean(technique);
    const made = [first, second].map((fault) => change(fault, technique));
    const changes = made.map((recipe) =>
      Object.fromEntries(
        Object.entries(recipe).filter(([key, value]) => base[key as keyof Recipe] !== value),
      ),
    );
    return { ...base, ...changes[0], ...changes[1] };
  };

  it.each([
    ['jammed', 'slow-home', 'cross'],
    ['hips-blocked', 'guard-off-drop', 'cross'],
    ['slap', 'slow-home', 'lead-hook'],
    ['all-at-once', 'head-whip', 'cross'],
    ['wrist-bent', 'hand-drop', 'cross'],
  ] as const)('%s and %s in a %s', (first, second, technique) => {
    const all = found(judgeKnown(both(first, second, technique), JUDGED));
    expect(all).toContain(first);
    expect(all).toContain(second);
  });

  it('the dearer one first, where the model can tell', () => {
    const recipe = both('hips-blocked', 'jammed', 'cross');
    const analysis = analyzeKnown(recipe, JUDGED);
    const body = { mass: 70, height: 1.76 };
    const technique = techniqueById('cross');
    const [first, second] = costed({ technique, ...analysis }, body, USUAL_RULES);
    // As the body is read, the hips would come first.
    expect([first!.fault, second!.fault]).toEqual(['jammed', 'hips-blocked']);
    if (!isKnown(first!.cost) || !isKnown(second!.cost)) throw new Error('a cost is not known');
    expect(first!.cost.lost!).toBeGreaterThan(second!.cost.lost!);
    expect(first!.cost.low!).toBeLessThanOrEqual(first!.cost.lost!);
    expect(first!.cost.high!).toBeGreaterThanOrEqual(first!.cost.lost!);
  });

  it('says why a cost is not known', () => {
    const analysis = analyzeKnown(both('jammed', 'slow-home', 'cross'), JUDGED);
    const technique = techniqueById('cross');
    const costs = (body: { mass: number | null; height: number | null }) =>
      costed({ technique, ...analysis }, body, USUAL_RULES).map(({ fault, cost }) => [fault, cost]);
    const unknown = Object.fromEntries(costs({ mass: null, height: null }));
    expect(unknown.jammed).toEqual({ unknown: 'Enter the student’s height and mass.' });
    // Time needs no body: home 0.117 s later than it went out.
    expect(unknown['slow-home']).toMatchObject({ seconds: expect.closeTo(0.117, 2), of: 'cover' });
  });

  it('says what a leak costs instead, or that its model has no part for it', () => {
    const open = CATALOGUE.faults.filter(({ remedy }) => remedy === null);
    const without = open.filter(({ injury, costs }) => !injury && costs === null);
    expect(CATALOGUE.faults.filter(({ remedy, costs }) => remedy && costs)).toEqual([]);
    expect(open.length).toBeGreaterThan(40);
    expect(without.length).toBeLessThan(open.length / 3);
  });
});

describe('what a body does not carry', () => {
  const costOfRise = (technique: TechniqueId, portion: Measured) => {
    const recipe = { ...clean(technique), rise: -0.09 };
    const analysis = analyzeKnown(recipe, JUDGED);
    const readings = { ...analysis.readings, 'portion.rise': portion };
    const strike = { technique: techniqueById(technique), ...analysis, readings };
    const costs = costed(strike, { mass: null, height: null }, USUAL_RULES);
    return costs.find(({ fault }) => fault === 'no-rise')!.cost!;
  };
  const portion = (value: number, sigma = 0.01) =>
    reading(value, 'ratio', sigma, 'measured-3d', []);

  it('is missing from the speed as speeds add up, with no model and no mass', () => {
    // 6.8 m/s of an arm: on a body that rises with 1.2 m/s they are 8, of which that is 15 %.
    for (const rises of [0, 0.4, 1.2, -0.5]) {
      const cost = costOfRise('rear-uppercut', portion(rises / (6.8 + rises)));
      if (!isKnown(cost)) throw new Error(JSON.stringify(cost));
      expect(cost.share).toBeCloseTo((1.2 - rises) / 8, 9);
      expect(cost.lost).toBeNull();
    }
  });

  it('is as unsure as its share of the speed, and as what bodies usually give', () => {
    const half = (sigma: number) => {
      const cost = costOfRise('rear-uppercut', portion(0, sigma));
      if (!isKnown(cost)) throw new Error(JSON.stringify(cost));
      return (cost.shareHigh - cost.shareLow) / 2 / 1.645;
    };
    expect(half(0)).toBeCloseTo(Math.hypot(0.05, OFF.carried), 9);
    expect(half(0.1)).toBeCloseTo(Math.hypot(0.05, OFF.carried, 0.085), 9);
  });

  it('is nothing where the body gives most of the speed', () => {
    for (const value of [0.6, 1, 1.2]) {
      expect(costOfRise('rear-uppercut', portion(value))).toEqual({
        unknown: 'The body gives most of the speed already.',
      });
    }
  });

  it('says what is lacking where its share is not known', () => {
    expect(costOfRise('rear-uppercut', absent('Set the scale.'))).toEqual({
      unknown: 'Set the scale.',
    });
  });
});
