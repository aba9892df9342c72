/** What costs time: for how long a leak shows, and how that is said. */
import { beforeAll, describe, expect, it } from 'vitest';
import { FAMILIES, REAL } from '@sinew/fighters/trials/families';
import { LASTING, lastingTrials, type LastingTrial } from '@sinew/fighters/trials/lasting';
import { isTimed, timeInShort, timeInWords, type TimeCost } from '../src/judge/fault/cost';
import { findingSchema } from '../src/judge/fault/findingSchema';
import { USUAL_RULES, type Finding } from '../src/judge/fault/finding';
import { judgeSet } from '../src/judge/fault/set';
import { faultById } from '../src/judge/fault/faults';
import { costed } from '../src/judge/cost/estimate';
import { absent, isAbsent, reading } from '../src/foundation/reading/reading';
import { markOnFrame } from '../src/measure/events/events';
import { UNKNOWN_BODY } from '../src/measure/measures/context';
import { motionOf, pathOf, TIMES } from './spaceMotion';
import { techniqueById } from '../src/foundation/technique/techniques';
import { measureOne, MEASURE_IDS, type Readings } from '../src/measure/measures/allMeasures';

/** A few of each kind; all are in docs/accuracy.md. */
const TECHNIQUES = [
  'cross',
  'jab',
  'lead-hook',
  'rear-uppercut',
  'stepping-straight',
  'elbow-round',
  'round-kick',
] as const;

describe('a leak that costs time', () => {
  let trials: readonly LastingTrial[];
  beforeAll(() => {
    const noise = { rate: 240, noise: 0.002, flaws: REAL };
    trials = lastingTrials(FAMILIES[1]!, noise, ['clear'], [1], TECHNIQUES);
  }, 300_000);

  it('is told for how long it shows, of every kind', () => {
    expect([...new Set(trials.map(({ fault }) => fault))].sort()).toEqual([...LASTING].sort());
    expect(trials.filter(({ said }) => said === null)).toEqual([]);
    expect(trials.length).toBeGreaterThan(18);
  });

  it('has a range that holds the truth in nine of ten, and is no wider than a frame or so', () => {
    const inside = trials.filter(
      ({ said, truth }) => Math.abs(said!.seconds - truth) <= said!.half,
    );
    expect(inside.length / trials.length).toBeGreaterThan(0.85);
    for (const { fault, said, truth, technique } of trials) {
      expect(said!.half, `${technique} ${fault}`).toBeLessThan(0.3 * truth + 0.02);
    }
  });
});

describe('how long a hand is low', () => {
  /** From 0 to 1, evenly between two instants. */
  const part = (time: number, from: number, to: number) =>
    Math.min(1, Math.max(0, (time - from) / (to - from)));
  /** A hand that is so far down, as a share of 0.2 m. */
  const low = (down: (time: number) => number) => {
    const head = pathOf(() => [0, 1.6, 0]);
    const paths = {
      nose: head,
      leftWrist: pathOf((t) => [0.2, 1.5 - 0.2 * down(t), -0.1]),
    };
    return measureOne('away.drop', {
      strike: { technique: techniqueById('cross'), side: 'right' },
      events: {
        ready: markOnFrame(TIMES, 0),
        arm: markOnFrame(TIMES, 72),
        contact: markOnFrame(TIMES, 144),
        home: markOnFrame(TIMES, 216),
      },
      motion: motionOf(paths),
      body: UNKNOWN_BODY,
    });
  };

  it('is from half-way down to half-way up, to a part of a frame', () => {
    const found = low((t) => part(t, 0.2, 0.3) - part(t, 0.6, 0.703));
    if (isAbsent(found)) throw new Error(found.absent);
    expect(found.value).toBeCloseTo(0.4015, 3);
    // 2 mm of the hand and of the head at 2 m/s, at three instants, and a part of a frame.
    expect(found.sigma).toBeGreaterThan(0.001);
    expect(found.sigma).toBeLessThan(0.004);
  });

  it('is until the strike is home where it stays down', () => {
    const found = low((t) => part(t, 0.2, 0.3));
    if (isAbsent(found)) throw new Error(found.absent);
    expect(found.value).toBeCloseTo(0.65, 3);
  });

  it('is not told of one that hardly drops', () => {
    const noise = low((t) => 0.1 * (part(t, 0.2, 0.3) - part(t, 0.6, 0.7)));
    expect(noise).toEqual(absent('It hardly shows.'));
  });

  it('is not told of a hand that all but rests half-way down', () => {
    const halting = low(
      (t) => 0.49 * part(t, 0.1, 0.2) + 0.02 * part(t, 0.2, 0.4) + 0.49 * part(t, 0.4, 0.5),
    );
    expect(halting).toEqual(absent('It comes and goes too slowly to say for how long.'));
  });
});

describe('what it costs', () => {
  const finding = (fault: string, way: string): Finding => ({
    fault,
    name: fault,
    way,
    status: 'found',
    evidence: '',
    injury: false,
    judgedBy: faultById(fault)!
      .cases.find(({ id }) => id === way)!
      .limits.map((limit) => ({ limit, measured: null })),
    judgedAs: [],
    frame: null,
    cost: null,
    open: null,
  });
  const costOf = (one: Finding, readings: object) =>
    costed(
      {
        technique: techniqueById('cross'),
        events: {},
        readings: readings as Readings,
        findings: [one],
      },
      { mass: null, height: null },
      USUAL_RULES,
    )[0]!.cost!;
  const seconds = (value: number) => reading(value, 's', 0.02, 'measured-3d', []);

  it('is as long as it shows, with the range of nine tenths', () => {
    const cost = costOf(finding('hand-drop', 'usual'), { 'seen.dip': seconds(0.18) }) as TimeCost;
    expect(cost).toMatchObject({ seconds: 0.18, of: 'warning' });
    expect(cost.secondsHigh - cost.seconds).toBeCloseTo(1.645 * 0.02, 9);
    expect(cost.seconds - cost.secondsLow).toBeCloseTo(1.645 * 0.02, 9);
    expect(timeInShort(cost)).toBe('0.18 s of warning');
    expect(timeInWords(cost)).toBe('about 0.18 s (0.15 to 0.21 s) of warning');
  });

  it('is what lies beyond the limit where the limit is on that very time', () => {
    const cost = costOf(finding('combo-late-home', 'usual'), { 'pair.home': seconds(0.12) });
    expect(cost).toMatchObject({ seconds: expect.closeTo(0.1, 9), of: 'cover' });
    expect(timeInShort(cost as TimeCost)).toBe('0.10 s open');
  });

  it('has no figure where the time is not known, and says what it costs', () => {
    const unknown = { unknown: 'It costs surprise: it is seen before the strike comes.' };
    const dip = finding('hand-drop', 'usual');
    expect(costOf(dip, { 'seen.dip': absent('Mark the start of the arm.') })).toEqual(unknown);
    expect(costOf(dip, {})).toEqual(unknown);
  });

  it('goes by the way in which the other hand leaves', () => {
    const readings = { 'away.drop': seconds(0.3), 'away.leave': seconds(0.5) };
    expect(costOf(finding('guard-off-drop', 'drops'), readings)).toMatchObject({ seconds: 0.3 });
    expect(costOf(finding('guard-off-drop', 'leaves'), readings)).toMatchObject({ seconds: 0.5 });
  });

  it('is that of the middle strike in a set, and is kept and read again', () => {
    const none = Object.fromEntries(
      MEASURE_IDS.map((id) => [id, absent('Not measured.')]),
    ) as Readings;
    const strikes = [0.1, 0.3, 0.2].map((value) => {
      const one = finding('hand-drop', 'usual');
      const readings = { ...none, 'seen.dip': seconds(value) };
      return { readings, findings: [{ ...one, cost: costOf(one, readings) }] };
    });
    const { findings } = judgeSet(techniqueById('cross'), strikes, USUAL_RULES);
    const { cost } = findings.find(({ fault }) => fault === 'hand-drop')!;
    expect(isTimed(cost) && cost.seconds).toBeCloseTo(0.2, 9);
    const kept = { ...finding('hand-drop', 'usual'), cost };
    expect(findingSchema.parse(JSON.parse(JSON.stringify(kept)))).toEqual(kept);
  });
});
