import { describe, expect, it } from 'vitest';
import { clean, FAULT_CHANGES, type KnownFault, type Recipe } from '../../demo/src/fighter/recipe';
import { FAULTS, faultById } from '../src/fault/catalogue';
import { judge, judgeFault } from '../src/fault/judge';
import { measureAll, MEASURE_IDS, type Readings } from '../src/measures/catalogue';
import { absent, type Measured } from '../src/reading/reading';
import { motionFromPicture } from '../src/motion/motion';
import { trackFromPlaced } from '../src/track/track';
import { techniqueById } from '../src/technique/catalogue';
import { analyzeKnown, found, undecided } from './fixtures';

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
      expect(found(analyzeKnown(recipe, { rate, noise: 0.002 }))).toEqual([fault]);
    });

    it.each(['jab', 'cross', 'lead-hook'] as const)('a clean %s has no leak', (technique) => {
      const analysis = analyzeKnown(clean(technique, { stance }), { rate, noise: 0.002 });
      expect(found(analysis)).toEqual([]);
    });
  });
});

it('decides every leak of a clean strike at 240 frames a second', () => {
  for (const technique of ['jab', 'cross', 'lead-hook'] as const) {
    expect(undecided(analyzeKnown(clean(technique), { rate: 240, noise: 0.002 }))).toEqual([]);
  }
});

// Common practice, no source: a lead of about 30 ms needs 100 frames a second or more.
describe('a lead of 30 ms', () => {
  const recipe = clean('cross', { hipsToTrunk: 0.03 });

  it('cannot be told from 20 ms at 30 frames a second, and the coach is told what would do', () => {
    const finding = analyzeKnown(recipe, { rate: 30 }).findings.find(
      (one) => one.fault === 'all-at-once',
    )!;
    expect(finding.status).toBe('cant-tell');
    expect(finding.evidence).toMatch(/can’t tell at this frame rate\. Film at \d+ frames a second/);
  });

  it('is clear at 240', () => {
    expect(undecided(analyzeKnown(recipe, { rate: 240 }))).not.toContain('all-at-once');
  });
});

describe('the three answers', () => {
  const readings = (given: Partial<Record<(typeof MEASURE_IDS)[number], Measured>>): Readings =>
    ({
      ...Object.fromEntries(MEASURE_IDS.map((id) => [id, absent('not given')])),
      ...given,
    }) as Readings;
  const lead = (value: number, sigma: number): Measured => ({
    value,
    unit: 's',
    sigma,
    source: 'eye',
    frames: [10, 12],
  });
  const fault = faultById('all-at-once')!;

  it('found only beyond the limit by more than the uncertainty', () => {
    const at = (value: number) =>
      judgeFault(fault, readings({ 'lead.hipsTrunk': lead(value, 0.005) })).status;
    expect(at(0.0101)).toBe('found');
    expect(at(0.0103)).toBe('cant-tell');
    expect(at(0.0297)).toBe('cant-tell');
    expect(at(0.0299)).toBe('clear');
  });

  it('a second witness that is not shown is not waited for; one that is shown is heard', () => {
    const early = { 'lead.hipsTrunk': lead(0, 0.001) };
    const growth = (value: number): Measured => ({ ...lead(value, 0.001), unit: 'rad' });
    expect(judgeFault(fault, readings(early)).status).toBe('found');
    const stretched = readings({ ...early, 'separation.growth': growth(0.3) });
    expect(judgeFault(fault, stretched).status).toBe('clear');
    const flat = readings({ ...early, 'separation.growth': growth(0.02) });
    expect(judgeFault(fault, flat).status).toBe('found');
  });

  it('says what is missing when there is no reading', () => {
    const finding = judgeFault(fault, readings({}));
    expect(finding).toMatchObject({ status: 'cant-tell', evidence: 'not given', frame: null });
  });

  it('keeps the limit and the reading that judged it', () => {
    const given = lead(0, 0.001);
    const finding = judgeFault(fault, readings({ 'lead.hipsTrunk': given }));
    expect(finding.judgedBy).toEqual([{ limit: fault.limits[0], measured: given }]);
    expect(finding.evidence).toBe(
      'The trunk starts within 2 ms of the hips. A stretch across the body needs 20 ms or more.',
    );
    expect(finding.frame).toBe(12);
  });

  it('lists found before undecided before clear, from the ground up', () => {
    const findings = judge(
      techniqueById('cross'),
      readings({
        'lead.hipsTrunk': lead(0, 0.001),
        'lead.hipsArm': lead(-0.05, 0.001),
        recoil: { ...lead(0.9, 0.01), unit: 'ratio' },
      }),
    );
    expect(findings.map((one) => `${one.fault} ${one.status}`)).toEqual([
      'all-at-once found',
      'arm-first found',
      'jammed cant-tell',
      'elbow-flare cant-tell',
      'slow-home clear',
    ]);
  });
});

describe('the catalogue', () => {
  it('judges only readings that exist, and every sentence names only its own readings', () => {
    for (const fault of FAULTS) {
      const quoted = [...`${fault.evidence} ${fault.clear}`.matchAll(/\{([\w.-]+)(:order)?\}/g)];
      const own = [...fault.limits.map((limit) => limit.reading as string), 'limit'];
      expect(quoted.length).toBeGreaterThan(0);
      for (const [, id] of quoted) expect(own).toContain(id);
      expect(fault.cue).toMatch(/\.$/);
    }
  });

  it('never judges a punch by a leak it cannot have', () => {
    const strike = { technique: techniqueById('jab'), side: 'left' } as const;
    const calibration = { view: 'side', scale: null, target: null } as const;
    const motion = motionFromPicture(trackFromPlaced([], [0, 1], 720), calibration, strike);
    const none = measureAll({ strike, events: {}, motion, body: { mass: null, height: null } });
    const judged = judge(techniqueById('jab'), none).map((one) => one.fault);
    expect(judged).not.toContain('slap');
    expect(judged).not.toContain('all-at-once');
    expect(judge(techniqueById('jab'), none).every((one) => one.status === 'cant-tell')).toBe(true);
  });
});
