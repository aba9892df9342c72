/** What costs time: for how long a leak shows, and how that is said. */
import { beforeAll, describe, expect, it } from 'vitest';
import { comboTrack } from '@sinew/fighters/fighter/combo';
import { clean } from '@sinew/fighters/fighter/recipe';
import { FAMILIES, REAL } from '@sinew/fighters/trials/families';
import { LASTING, lastingTrials, type LastingTrial } from '@sinew/fighters/trials/lasting';
import { LASTING_PAIRS, pairTrials } from '@sinew/fighters/trials/lastingPairs';
import { measure } from '../src/analysis/analyze';
import { nearestFrame } from '../src/observe/track/time';
import { isTimed, timeInShort, timeInWords, type TimeCost } from '../src/judge/fault/cost';
import { findingSchema } from '../src/judge/fault/findingSchema';
import { USUAL_RULES, type Finding } from '../src/judge/fault/finding';
import { judgeSet } from '../src/judge/fault/set';
import { CATALOGUE, faultById } from '../src/judge/fault/faults';
import { catalogueSchema } from '../src/judge/fault/schema';
import { costed } from '../src/judge/cost/estimate';
import { absent, isAbsent, reading } from '../src/foundation/reading/reading';
import { markOnFrame } from '../src/measure/events/events';
import { pairs } from '../src/measure/measures/between';
import { UNKNOWN_BODY } from '../src/measure/measures/context';
import { motionOf, pathOf, TIMES } from './spaceMotion';
import { techniqueById } from '../src/foundation/technique/techniques';
import { measureOne, MEASURE_IDS, type Readings } from '../src/measure/measures/allMeasures';

/** From 0 to 1, evenly between two instants. */
const part = (time: number, from: number, to: number) =>
  Math.min(1, Math.max(0, (time - from) / (to - from)));

/** The same strikes as `pairTrials` throws, each in full, with nothing told of the second but its contact. */
it.each([0.5, 0.7, 0.85])(
  'hips on their way back are not taken for the next hips, %s s from contact to contact',
  (gap) => {
    const [first, second] = [clean('cross'), clean('lead-hook')];
    const sampling = { flows: false, rate: 240, noise: 0.001, seed: 4 };
    const { track, contacts } = comboTrack([first, second], [gap], sampling);
    const [contact, next] = contacts.map((time) =>
      markOnFrame(track.frameTimes, nearestFrame(track.frameTimes, time)),
    );
    const body = { mass: 70, height: first.height };
    const cross = { technique: techniqueById('cross'), side: 'right', stance: 'orthodox' } as const;
    const hook = {
      technique: techniqueById('lead-hook'),
      side: 'left',
      stance: 'orthodox',
    } as const;
    const { events } = measure({ strike: hook, track, marks: { contact: next! }, body });
    const { readings } = measure({
      strike: cross,
      track,
      marks: { contact: contact! },
      body,
      next: { strike: hook, events },
    });
    // All of the turn is said to be left where the next hips are taken to start too early.
    const kept = readings['pair.kept'];
    expect(isAbsent(kept) ? 0 : kept.value).toBeLessThan(0.9);
  },
);

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

describe('a leak between two strikes that costs time', () => {
  it('is told of both kinds, and its range holds the truth in nine of ten', () => {
    const filmed = { rate: 60, noise: 0.002, flaws: REAL };
    const trials = pairTrials(FAMILIES[2]!, filmed, [3]);
    expect([...new Set(trials.map(({ fault }) => fault))]).toEqual([...LASTING_PAIRS]);
    const off = ({ said, truth }: LastingTrial) => Math.abs(said!.seconds - truth);
    const inside = trials.filter((one) => off(one) <= one.said!.half);
    expect(inside.length / trials.length).toBeGreaterThan(0.85);
    expect(Math.max(...trials.map(off))).toBeLessThan(0.016);
  }, 120_000);
});

describe('how long a hand is low', () => {
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

describe('a heel that comes down after the next hips have started', () => {
  /** Up by 8 cm at contact, down evenly from 0.7 to 0.9 s; the next hips start at 0.72 s, at 7.2 cm. */
  const down = (sigma: number) => {
    const heel = (t: number) => 0.08 * (part(t, 0.3, 0.5) - part(t, 0.7, 0.9));
    const paths = {
      rightHeel: pathOf((t) => [0, heel(t), 0]),
      rightToe: pathOf(() => [0.2, 0, 0]),
    };
    const cross = { technique: techniqueById('cross'), side: 'right' as const };
    const readings = pairs({
      strike: { ...cross, stance: 'orthodox' },
      events: { ready: markOnFrame(TIMES, 0), contact: markOnFrame(TIMES, 144) },
      motion: motionOf(paths),
      body: UNKNOWN_BODY,
      next: {
        strike: { technique: techniqueById('jab'), side: 'left', stance: 'orthodox' },
        events: {
          hips: { ...markOnFrame(TIMES, 173), time: 0.72, sigma },
          contact: markOnFrame(TIMES, 230),
        },
      },
    });
    const [height, time] = [readings['pair.heel'], readings['pair.down']];
    if (isAbsent(height)) throw new Error(height.absent);
    if (isAbsent(time)) throw new Error(time.absent);
    return { height, time };
  };

  it('is late by the time to half of its height', () => {
    const { height, time } = down(0.002);
    expect(height.value).toBeCloseTo(0.072, 3);
    // From 7.2 to 3.6 cm at 40 cm/s.
    expect(time.value).toBeCloseTo(0.09, 3);
  });

  it('is no surer than the start of those hips', () => {
    const { height, time } = down(0.02);
    // 0.02 s at 40 cm/s; half of that is the height whose time is asked for.
    expect(height.sigma).toBeGreaterThan(0.0079);
    expect(time.sigma).toBeGreaterThan(0.0099);
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

  it('is late for the next strike where hips go back or a heel is up', () => {
    const readings = { 'pair.down': seconds(0.09), 'pair.idle': seconds(0.3) };
    const heel = costOf(finding('no-replant', 'usual'), readings) as TimeCost;
    expect(timeInShort(heel)).toBe('0.09 s late for the next');
    const hips = costOf(finding('combo-reset', 'usual'), readings) as TimeCost;
    expect(timeInWords(hips)).toBe('about 0.30 s (0.27 to 0.33 s) late for the next strike');
  });

  it('is asked in seconds only of what costs time', () => {
    const [fault] = CATALOGUE.faults.filter(({ id }) => id === 'push');
    const cases = fault!.cases.map((one) => ({ ...one, lasts: 'phase.follow-through' as const }));
    const faults = [{ ...fault!, cases }];
    expect(() => catalogueSchema.parse({ ...CATALOGUE, faults })).toThrow(/does not cost time/);
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
