/** Every technique, nothing told: events, speeds and turns against the generator's own truth. */
import { max, range } from 'd3-array';
import { beforeAll, describe, expect, it } from 'vitest';
import { FORMS, type TechniqueId } from '@sinew/fighters/fighter/forms';
import { clean } from '@sinew/fighters/fighter/recipe';
import { mover } from '@sinew/fighters/fighter/pose';
import { knownTrack } from '@sinew/fighters/fighter/track';
import { truthOfStrike, type Truth } from '@sinew/fighters/fighter/truth';
import { analyze, type Analysis } from '../src/analysis/analyze';
import { markOnFrame } from '../src/measure/events/events';
import { halfWidth, isAbsent, isPresent, type Measured } from '../src/foundation/reading/reading';
import { techniqueById, TECHNIQUES } from '../src/foundation/technique/techniques';
import { found } from './fixtures';

const IDS = Object.keys(FORMS) as TechniqueId[];
const BODY = { mass: 70, height: 1.76 };

function analysed(id: TechniqueId, noise: number, change: object = {}, isContactMarked = false) {
  const recipe = clean(id, change);
  const truth = truthOfStrike(recipe);
  const { technique, side } = truth;
  const track = knownTrack(recipe, { rate: 240, noise, seed: 2 });
  const strike = { technique, side, stance: recipe.stance };
  const frame = Math.round(240 * truth.times.contact!);
  const marks = isContactMarked ? { contact: markOnFrame(track.frameTimes, frame) } : {};
  return { truth, analysis: analyze({ strike, track, marks, body: BODY }) };
}

const numberOf = (measured: Measured) => {
  if (isAbsent(measured)) throw new Error(measured.absent);
  return measured;
};

const steppedBy = (track: ReturnType<typeof knownTrack>) =>
  analyze({
    strike: { technique: techniqueById('stepping-straight'), side: 'right', stance: 'orthodox' },
    track,
    marks: {},
    body: BODY,
  });

it('the generator knows every technique of the catalogue', () => {
  expect(IDS.sort()).toEqual(TECHNIQUES.map(({ id }) => id).sort());
});

describe.each(IDS)('a clean %s', (id) => {
  let truth: Truth;
  let analysis: Analysis;
  beforeAll(() => {
    ({ truth, analysis } = analysed(id, 0.0005));
  });

  it('shows every event that happens, within its ±', () => {
    for (const [event, time] of Object.entries(truth.times)) {
      const mark = analysis.events[event as keyof typeof truth.times];
      expect(mark, event).toBeDefined();
      // 95 of 100 lie within ±; three σ leave room for the other five.
      expect(Math.abs(mark!.time - time), event).toBeLessThan(3 * mark!.sigma);
    }
  });

  it('is measured to its truth once contact is marked', () => {
    const track = knownTrack(clean(id), { rate: 240, noise: 0.0005, seed: 2 });
    const { readings } = analyze({
      strike: { technique: truth.technique, side: truth.side, stance: 'orthodox' },
      track,
      marks: { contact: markOnFrame(track.frameTimes, Math.round(240 * truth.times.contact!)) },
      body: BODY,
    });
    const off = (key: 'separation.max' | 'turn.pelvis' | 'sink') =>
      Math.abs(numberOf(readings[key]).value - truth.values[key]);
    expect(off('separation.max')).toBeLessThan((1.5 * Math.PI) / 180);
    expect(off('sink')).toBeLessThan(0.003);
    const turn = numberOf(readings['turn.pelvis']);
    expect(off('turn.pelvis')).toBeLessThan(Math.max(0.03, 1.5 * halfWidth(turn)));
    const speed = numberOf(readings['speed.contact']);
    const speedOff = Math.abs(speed.value - truth.values['speed.contact']);
    expect(speedOff).toBeLessThan(Math.max(0.06 * speed.value, 1.5 * halfWidth(speed)));
  });

  it('has shares that add up to the whole speed, and no leak', () => {
    const { readings, sequence } = analysis;
    expect(found(analysis)).toEqual([]);
    expect(sequence.starts.length).toBeGreaterThanOrEqual(2);
    // An elbow goes through what it meets: where, nobody can tell who has not marked it.
    if (truth.technique.family === 'elbow') {
      const wanted = {
        absent: expect.stringMatching(/^Contact is known to ± \d+ ms only; mark it/),
      };
      expect(readings['speed.contact']).toMatchObject(wanted);
      expect(readings['share.trunk']).toMatchObject(wanted);
      return;
    }
    const shares = Object.entries(readings).filter(([key]) => key.startsWith('share.'));
    const known = shares.map(([, one]) => one).filter(isPresent);
    const sum = known.reduce((total, { value }) => total + value, 0);
    const speed = numberOf(readings['speed.contact']).value;
    expect(Math.abs(sum - speed)).toBeLessThanOrEqual(1e-9 * Math.abs(speed));
  });
});

describe('either side, either stance', () => {
  it.each(['elbow-round', 'round-kick'] as const)('a %s by the lead side is read too', (id) => {
    const { truth, analysis } = analysed(id, 0.0005, { by: 'lead' });
    expect(truth.side).toBe('left');
    for (const event of ['hips', 'trunk', 'arm'] as const) {
      const off = analysis.events[event]!.time - truth.times[event]!;
      expect(Math.abs(off), event).toBeLessThan(0.008);
    }
    expect(numberOf(analysis.readings['turn.pelvis']).value).toBeGreaterThan(0.3);
  });

  it('southpaw kicks and elbows read as their orthodox mirror image, to rounding', () => {
    for (const id of ['elbow-rise', 'side-kick'] as const) {
      const of = (stance: 'orthodox' | 'southpaw') => analysed(id, 0, { stance }).analysis.readings;
      const [orthodox, southpaw] = [of('orthodox'), of('southpaw')];
      for (const key of Object.keys(orthodox) as (keyof typeof orthodox)[]) {
        const [a, b] = [orthodox[key], southpaw[key]];
        expect(isAbsent(a), key).toBe(isAbsent(b));
        if (isAbsent(a) || isAbsent(b)) continue;
        expect(b.value, key).toBeCloseTo(a.value, 9);
      }
    }
  });
});

describe('what was put in shows in the reading of that name', () => {
  const reading = (id: TechniqueId, change: object, key: keyof Analysis['readings']) =>
    numberOf(analysed(id, 0.001, change).analysis.readings[key]).value;

  it.each([
    ['cross', { telegraph: 0.12 }, 'telegraph.back', 0.05],
    ['cross', { guardDrop: 0.25 }, 'guard.drop', 0.15],
    ['cross', { guardDrop: 0.25 }, 'guard.off', 0.1],
    ['cross', { kneeGives: 0.08 }, 'anchor.knee', 0.1],
    ['cross', { sink: 0.09 }, 'sink', 0.03],
    ['cross', { coil: 0.35 }, 'coil', 0.12],
    ['cross', { finish: 0.06 }, 'through', 0.04],
    ['rear-uppercut', { sink: 0.12 }, 'sink', 0.03],
  ] as const)('a %s with %j: more %s', (id, change, key, atLeast) => {
    expect(reading(id, change, key) - reading(id, {}, key)).toBeGreaterThan(atLeast);
  });

  it('a step lands when the foot comes to rest, and only where there is one', () => {
    const recipe = clean('stepping-straight');
    const pose = mover(recipe);
    const falls = (time: number) => (pose(time - 1e-4).leftToe[1] - pose(time).leftToe[1]) / 1e-4;
    const times = range(0.5, 0.9, 0.0005);
    // As with starts: when a tenth of its speed on the way down is left.
    const rests = times.findLast((time) => falls(time) > 0.1 * max(times, falls)!)!;
    for (const rate of [60, 120, 240]) {
      const track = knownTrack(recipe, { rate, noise: 0.002, seed: 2 });
      const { readings } = steppedBy(track);
      const late = numberOf(readings['step.contact']);
      expect(Math.abs(late.value - (recipe.contact - rests))).toBeLessThan(1.5 * halfWidth(late));
    }
    const step = steppedBy(knownTrack(recipe, { rate: 240, noise: 0.0005, seed: 2 }));
    const standing = analysed('cross', 0.0005).analysis.readings['travel.step'];
    const carried = numberOf(step.readings['travel.step']).value - numberOf(standing).value;
    expect(carried).toBeGreaterThan(0.03);
    expect(analysed('cross', 0.0005).analysis.readings['step.contact']).toHaveProperty('absent');
  });

  it('a foot that comes down hard has landed where it hits the floor', () => {
    const track = knownTrack(clean('stepping-straight'), { rate: 240, noise: 0.002, seed: 4 });
    const lands = 0.672;
    const points = { ...track.points };
    for (const part of ['leftToe', 'leftHeel'] as const) {
      const { frames, y } = points[part]!;
      // At 0.8 m a second; the noise is that of the foot in guard.
      const hits = y.map((height, i) => {
        const left = lands - track.frameTimes[frames[i]!]!;
        return left > 0.08 ? height : y[i % 40]! + 0.8 * Math.max(0, left);
      });
      points[part] = { ...points[part]!, y: hits };
    }
    const { events } = steppedBy({ ...track, points });
    expect(Math.abs(events.footLand!.time - lands)).toBeLessThan(
      1.5 * 1.96 * events.footLand!.sigma,
    );
    expect(events.footLand!.sigma).toBeLessThan(0.006);
  });

  // Raised for a drop, or wound across the body: the arm's start is that of the strike, not of what comes before.
  it.each(['elbow-drop', 'elbow-reverse', 'elbow-rise', 'elbow-thrust', 'elbow-up'] as const)(
    'an %s whose arm is taken from guard to where it strikes from is no arm that leaves first',
    (id) => {
      for (const noise of [0.0005, 0.002]) {
        const { truth, analysis } = analysed(id, noise, { raised: 1 }, true);
        const { arm } = analysis.events;
        expect(Math.abs(arm!.time - truth.times.arm!)).toBeLessThan(3 * arm!.sigma);
        expect(arm!.sigma).toBeLessThan(0.012);
        expect(found(analysis)).toEqual([]);
        const peak = numberOf(analysis.readings['speed.peak']);
        expect(Math.abs(peak.value - truth.values['speed.peak'])).toBeLessThan(3 * peak.sigma);
      }
    },
  );

  // Nor is a hand that is drawn back or dips: it starts when it goes to the target.
  it.each([
    ['jab', { telegraph: 0.15 }],
    ['cross', { telegraph: 0.15 }],
    ['cross', { dip: 0.15 }],
    ['stepping-straight', { dip: 0.15 }],
    ['rear-hook', { dip: 0.16 }],
    ['lead-body-hook', { dip: 0.16 }],
    ['rear-uppercut', { dip: 0.2 }],
  ] as const)('%s %j: the arm starts when it strikes', (id, change) => {
    const { truth, analysis } = analysed(id, 0.002, change, true);
    const { arm } = analysis.events;
    expect(Math.abs(arm!.time - truth.times.arm!)).toBeLessThan(3 * arm!.sigma);
    expect(arm!.sigma).toBeLessThan(0.01);
    expect(found(analysis)).toEqual(['dip' in change ? 'hand-drop' : 'over-load']);
  });

  it('a hand that turns with the body is still by the head', () => {
    const { readings, ...turned } = analysed('side-kick', 0.002, { guardTurns: 1 }, true).analysis;
    expect(numberOf(readings['guard.leave']).value).toBeLessThan(0.08);
    expect(found(turned)).not.toContain('guard-off-drop');
    const { analysis } = analysed('side-kick', 0.002, { guardDrop: 0.25 }, true);
    expect(numberOf(analysis.readings['guard.leave']).value).toBeGreaterThan(0.15);
  });

  it('a rising strike has a vertical drive, a level one has none', () => {
    expect(reading('elbow-up', {}, 'rise')).toBeGreaterThan(0.05);
    expect(reading('elbow-drop', {}, 'rise')).toBeLessThan(-0.05);
    expect(Math.abs(reading('whip-straight', {}, 'rise'))).toBeLessThan(0.05);
  });

  it('momentum and energy are those of a body, and ask for its mass', () => {
    const { readings } = analysed('cross', 0.001).analysis;
    // A body that steps into nothing and turns about its feet: a walk's pace of its mass at most.
    const momentum = numberOf(readings.momentum).value;
    expect(momentum).toBeGreaterThan(0);
    expect(momentum).toBeLessThan(70 * 1.4);
    expect(numberOf(readings['energy.limb']).value).toBeLessThan(numberOf(readings.energy).value);
    const { technique, side } = truthOfStrike(clean('cross'));
    const track = knownTrack(clean('cross'), { rate: 120, noise: 0.001, seed: 1 });
    const unknown = analyze({ strike: { technique, side }, track, marks: {} }).readings;
    expect(unknown.momentum).toMatchObject({ absent: /body mass/ });
  });
});
