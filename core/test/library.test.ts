import { describe, expect, it } from 'vitest';
import { CATALOGUE, faultById } from '../src/judge/fault/faults';
import { isOfReading } from '../src/judge/fault/schema';
import { edited, editsSchema, NO_EDITS, withChange, type Edits } from '../src/judge/library/edits';
import { unitOf } from '../src/measure/measures/units';
import { MEASURE_IDS } from '../src/measure/measures/allMeasures';
import { CHECKS, checksFor, prefilled } from '../src/judge/eye/eyeChecks';
import { techniqueById, TECHNIQUES } from '../src/foundation/technique/techniques';
import { TEACHING } from '../src/foundation/technique/teaching';
import { clean } from '@sinew/fighters/fighter/recipe';
import { evidenceOf } from '../src/measure/measures/evidence';
import { USUAL_RULES } from '../src/judge/fault/finding';
import { judge } from '../src/judge/fault/judge';
import { NO_SCHOOL, resolve } from '../src/judge/school/resolve';
import { measureKnown } from './fixtures';

const limitOf = (edits: Edits, id: string) => {
  const limit = faultById(id, edited(edits))!.cases[0]!.limits[0]!;
  return isOfReading(limit) ? limit.value : NaN;
};
const atOnce = { kind: 'limit', fault: 'all-at-once', limit: 'turned/lead.hipsTrunk' } as const;

describe('a library', () => {
  it('without edits is the catalogue as it comes', () => {
    expect(edited(NO_EDITS)).toEqual(CATALOGUE);
  });

  it('keeps a limit, says what it was and is, and gives it back', () => {
    const { edits, what, before, after } = withChange(NO_EDITS, { ...atOnce, value: 0.03 });
    expect([what, before, after]).toEqual(['All at once: limit', '20 ms', '30 ms']);
    expect(limitOf(edits, 'all-at-once')).toBe(0.03);
    const back = withChange(edits, { ...atOnce, value: null });
    expect([back.before, back.after]).toEqual(['30 ms', '20 ms']);
    expect(back.edits).toEqual(NO_EDITS);
  });

  it('keeps cues, drills and doses, and resets a leak as a whole', () => {
    let { edits } = withChange(NO_EDITS, { kind: 'cue', fault: 'slap', text: 'Hold the box.' });
    ({ edits } = withChange(edits, { kind: 'drill-of', fault: 'slap', drill: 'echo' }));
    ({ edits } = withChange(edits, { kind: 'dose', drill: 'echo', dose: '10 a side' }));
    const library = edited(edits);
    expect(faultById('slap', library)).toMatchObject({ cue: 'Hold the box.', drill: 'echo' });
    expect(library.drills.find(({ id }) => id === 'echo')!.dose).toBe('10 a side');
    ({ edits } = withChange(edits, { kind: 'reset', fault: 'slap' }));
    expect(faultById('slap', edited(edits))).toEqual(faultById('slap'));
  });

  it('leaves out what is not judged, and judges it again', () => {
    let { edits } = withChange(NO_EDITS, { kind: 'off', fault: 'push', isOff: true });
    expect(faultById('push', edited(edits))).toBeUndefined();
    ({ edits } = withChange(edits, { kind: 'off', fault: 'push', isOff: false }));
    expect(edits).toEqual(NO_EDITS);
  });

  it('takes a leak of the gym’s own, and no second one of a name that is taken', () => {
    const own = { ...faultById('slow-home')!, id: 'own-home', name: 'Too slow for us' };
    const { edits } = withChange(NO_EDITS, { kind: 'own', fault: own });
    expect(faultById('own-home', edited(edits))!.name).toBe('Too slow for us');
    expect(() => withChange(edits, { kind: 'own', fault: { ...own, id: 'slap' } })).toThrow(/slap/);
    expect(withChange(edits, { kind: 'remove-own', fault: 'own-home' }).edits).toEqual(NO_EDITS);
  });

  it('takes a drill of the gym’s own with what it asks, and lets none go that a leak needs', () => {
    const drill = {
      id: 'rope-round',
      name: 'Rope round',
      dose: '3 × 8 slow',
      link: 'feet' as const,
      asks: ['weights' as const],
    };
    const added = withChange(NO_EDITS, { kind: 'own-drill', drill });
    expect(added.what).toBe('Rope round: the gym’s own drill');
    let { edits } = added;
    expect(edited(edits).drills.at(-1)).toEqual(drill);
    const clash = { ...drill, name: 'Rope round 2' };
    expect(() => withChange(edits, { kind: 'own-drill', drill: clash })).toThrow(/the letters of/);
    const taken = { ...drill, id: 'echo' };
    expect(() => withChange(edits, { kind: 'own-drill', drill: taken })).toThrow(
      /comes with Sinew/,
    );
    ({ edits } = withChange(edits, { kind: 'dose', drill: drill.id, dose: '2 × 8' }));
    ({ edits } = withChange(edits, { kind: 'drill-of', fault: 'slap', drill: drill.id }));
    const away = { kind: 'remove-own-drill', drill: drill.id } as const;
    expect(() => withChange(edits, away)).toThrow(/It mends: Slap/);
    ({ edits } = withChange(edits, { kind: 'drill-of', fault: 'slap', drill: null }));
    expect(withChange(edits, away).edits).toEqual(NO_EDITS);
  });

  it('judges a leak of the gym’s own in the school it is of, and in no other', () => {
    const [usual] = faultById('slow-home')!.cases;
    const own = {
      ...faultById('slow-home')!,
      id: 'own-home',
      name: 'Too slow for us',
      cases: [{ ...usual!, when: { hookFoot: ['plant'] } }],
    };
    const { edits } = withChange(NO_EDITS, { kind: 'own', fault: own });
    const readings = measureKnown(clean('lead-hook'), { rate: 240 }).readings;
    const isJudged = (hookFoot: string) =>
      judge(techniqueById('lead-hook'), readings, {
        ...USUAL_RULES,
        catalogue: edited(edits),
        school: resolve({ ...NO_SCHOOL, gym: { hookFoot } }),
      }).some(({ fault }) => fault === 'own-home');
    expect(isJudged('plant')).toBe(true);
    expect(isJudged('pivot')).toBe(false);
  });

  it('of an older gym opens although a drill or a leak of its edits is gone', () => {
    const faults = { slap: { drill: 'gone', cue: 'Hold it.' }, 'gone-too': { isOff: true } };
    const library = edited({ ...NO_EDITS, faults });
    expect(faultById('slap', library)).toMatchObject({
      cue: 'Hold it.',
      drill: faultById('slap')!.drill,
    });
  });

  it('refuses in plain words what is not there, and changes nothing', () => {
    const refused =
      (...change: Parameters<typeof withChange>) =>
      () =>
        withChange(...change);
    expect(refused(NO_EDITS, { kind: 'cue', fault: 'none', text: 'x' })).toThrow(/no leak “none”/);
    expect(refused(NO_EDITS, { ...atOnce, limit: 'none/such', value: 1 })).toThrow(/no such limit/);
    expect(refused(NO_EDITS, { kind: 'drill-of', fault: 'slap', drill: 'none' })).toThrow(/drill/);
    expect(refused(NO_EDITS, { kind: 'school', key: 'finish', choice: 'poke' })).toThrow(/school/);
    expect(editsSchema.safeParse({ ...NO_EDITS, faults: { slap: { cue: '' } } }).success).toBe(
      false,
    );
  });
});

it('knows the unit of every reading it may judge by', () => {
  // A share of the speed is metres a second, a part of it a ratio: from the measures themselves.
  expect(unitOf('share.trunk')).toBe('m/s');
  expect(unitOf('portion.body')).toBe('ratio');
  expect(unitOf('reach')).toBe('ratio');
  expect(unitOf('stance.level')).toBe('rad');
  for (const id of MEASURE_IDS) expect(unitOf(id)).toBeTruthy();
});

describe('the eye', () => {
  it('asks elbows for palm and nerve side, punches for the knuckles, kicks for neither', () => {
    const asked = (id: string) => checksFor(techniqueById(id)).map((check) => check.id);
    expect(asked('elbow-round').slice(0, 2)).toEqual(['palm-in', 'nerve-side']);
    expect(asked('cross')[0]).toBe('knuckles');
    expect(asked('round-kick')).not.toContain('knuckles');
  });

  it('reads the body in the order of the school, what can hurt first', () => {
    const groups = (order: string) => [
      ...new Set(checksFor(techniqueById('cross'), order).map((one) => one.injury || one.group)),
    ];
    expect(groups('ground-up')).toEqual([true, 'ground', 'middle', 'top', 'head']);
    expect(groups('top-down')).toEqual([true, 'top', 'middle', 'ground', 'head']);
  });

  it('decides leaks that there are, each by one part', () => {
    const decided = CHECKS.flatMap(({ decides }) => decides ?? []);
    expect(decided.length).toBeGreaterThan(5);
    expect(new Set(decided).size).toBe(decided.length);
    const known = CATALOGUE.faults.map(({ id }) => id);
    expect(decided.filter((id) => !known.includes(id))).toEqual([]);
  });

  it('is filled in from what was measured', () => {
    const links = { trunk: { verdict: 'drives' }, elbow: { verdict: 'drags' } } as const;
    expect(prefilled(techniqueById('lead-hook'), links)).toEqual({
      'upper-back': 'drives',
      elbows: 'drags',
    });
  });
});

it('draws on the striking side, whichever it is', () => {
  const of = (side: 'left' | 'right') =>
    evidenceOf('elbow.contact', { technique: techniqueById('cross'), side });
  expect(of('left')).toEqual({ angle: ['leftShoulder', 'leftElbow', 'leftWrist'] });
  expect(of('right')).toEqual({ angle: ['rightShoulder', 'rightElbow', 'rightWrist'] });
  const heel = evidenceOf('heel.rear', { technique: techniqueById('cross'), side: 'left' });
  expect(heel).toEqual({ lines: [['leftHeel', 'leftToe']] });
});

it('teaches every strike', () => {
  for (const { id } of TECHNIQUES) expect(TEACHING[id], id).toBeDefined();
});
