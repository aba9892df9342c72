/**
 * What every ± promises, term by term. A reading stays right when a term of its ± is left out, so each is
 * held here by a closed form or by the spread of what it speaks of (see `scripts/mutants/named.mjs`).
 */
import { mean, quantileSorted } from 'd3-array';
import { describe, expect, it } from 'vitest';
import { clean } from '@sinew/fighters/fighter/recipe';
import { faulty, FAULTY_FIGHTERS } from '@sinew/fighters/fighter/faults';
import { knownPicture } from '@sinew/fighters/fighter/picture';
import { knownTrack } from '@sinew/fighters/fighter/track';
import { seeStrike } from '../src/analysis/seenStrike';
import { LANDMARKS } from '../src/foundation/body/landmarks';
import { isAbsent, type Measured, type Reading } from '../src/foundation/reading/reading';
import { type Strike } from '../src/foundation/technique/strike';
import { techniqueById } from '../src/foundation/technique/techniques';
import { normal, normals, seeded } from '../src/foundation/uncertainty/random';
import { slopeOf } from '../src/foundation/uncertainty/slope';
import { costed, mendFor, OFF } from '../src/judge/cost/estimate';
import { isKnown, type KnownCost } from '../src/judge/fault/cost';
import { fit } from '../src/judge/simulate/fit';
import { observe } from '../src/judge/simulate/observe';
import { simulateStrike, type Model } from '../src/judge/simulate/strike';
import { markAt, markOnFrame } from '../src/measure/events/events';
import { onset } from '../src/measure/events/onset';
import { startOf } from '../src/measure/events/starts';
import { measureAll } from '../src/measure/measures/allMeasures';
import { UNKNOWN_BODY } from '../src/measure/measures/context';
import { travels, type Shares } from '../src/measure/measures/share';
import { SEEN_SIZE, type PoseDetection } from '../src/observe/track/poseDetection';
import { sidesCorrected } from '../src/observe/track/sides';
import type { SpaceTrack } from '../src/observe/track/track';
import { pictureMap } from '../src/reconstruct/calibration/picture';
import { placeSigma, type Motion, type Path } from '../src/reconstruct/motion/motion';
import { prepared } from '../src/reconstruct/motion/prepare';
import { changeBetween } from '../src/train/progress/change';
import { analyzeKnown, rulesFor } from './fixtures';
import { motionOf, pathOf, RATE, TIMES } from './spaceMotion';

const read = (measured: Measured): Reading => {
  if (isAbsent(measured)) throw new Error(measured.absent);
  return measured;
};
const SPACING = 1 / RATE / Math.sqrt(12);
const cross: Strike = { technique: techniqueById('cross'), side: 'right', stance: 'orthodox' };

describe('a single picture', () => {
  // 1 − cos 20°, every amount up to it equally likely: a uniform distribution's σ is its width ÷ √12.
  const least = (1 - Math.cos((20 * Math.PI) / 180)) / Math.sqrt(12);
  const { track, calibration } = knownPicture(clean('cross'), 'side', {
    rate: RATE,
    noise: 0,
    seed: 1,
  });

  it('owns up to what a link up to 20° out of its plane hides, and to not much more', () => {
    const corners = [
      { x: 100, y: 100 },
      { x: 500, y: 100 },
      { x: 500, y: 500 },
      { x: 100, y: 500 },
    ] as const;
    const frame = { kind: 'upright' as const, corners, width: 2, depth: 2, height: 0 };
    for (const map of [
      pictureMap(calibration, 1),
      pictureMap({ ...calibration, rectangle: frame }, 1),
    ]) {
      expect(map.planeSigma).toBeGreaterThan(least);
      expect(map.planeSigma).toBeLessThan(1.5 * least);
    }
  });

  it('has no speed and no length surer than that, however sharp its points', () => {
    const { motion, events } = seeStrike({ track, calibration }, cross, {});
    const of = (planeSigma: number) =>
      measureAll({
        strike: cross,
        events,
        motion: { ...motion, planeSigma },
        body: UNKNOWN_BODY,
      });
    const [as, without] = [motion.planeSigma, 0].map((one) => read(of(one)['speed.contact']));
    expect(as!.sigma / as!.value).toBeGreaterThan(least);
    expect(as!.sigma ** 2 - without!.sigma ** 2).toBeCloseTo(
      (motion.planeSigma * as!.value) ** 2,
      6,
    );
  });

  it('has no share of the speed surer than that', () => {
    const above = knownPicture(clean('cross'), 'above', { rate: RATE, noise: 0.001, seed: 1 });
    const { motion, events } = seeStrike(above, cross, {});
    const of = (planeSigma: number) =>
      measureAll({
        strike: cross,
        events,
        motion: { ...motion, planeSigma },
        body: UNKNOWN_BODY,
      });
    for (const id of ['portion.body', 'portion.step', 'portion.scoop'] as const) {
      const [as, without] = [read(of(0.02)[id]), read(of(0)[id])];
      expect(as.sigma ** 2 - without.sigma ** 2).toBeCloseTo(0.02 ** 2, 9);
    }
    const whole = read(of(0)['speed.contact']).value;
    for (const id of ['share.pelvis', 'share.trunk', 'share.step'] as const) {
      const [as, without] = [read(of(0.02)[id]), read(of(0)[id])];
      expect(Math.sqrt(as.sigma ** 2 - without.sigma ** 2)).toBeCloseTo(0.02 * whole, 2);
    }
  });
});

describe('the first guess of a start, on a ramp', () => {
  const SLOPE = 40;
  const PEAK = 12;
  /** Still for 0.3 s, then faster by 40 units a second to 12. */
  const ramp = TIMES.map((t) => Math.min(PEAK, Math.max(0, SLOPE * (t - 0.3))));
  const at = (speed: number) => 0.3 + speed / SLOPE;

  it.each([0, 0.2])('is where a tenth of the peak is passed, noise of %d or not', (noise) => {
    expect(onset(TIMES, ramp, 1, noise)!).toBeCloseTo(at(0.1 * PEAK), 9);
  });

  it('lies half-way to where a threshold is passed that noise has lifted', () => {
    // 3 σ of noise are 4.2 here, a tenth of the peak is 1.2.
    expect(onset(TIMES, ramp, 1, 1.4)!).toBeCloseTo((at(0.1 * PEAK) + at(4.2)) / 2, 9);
  });
});

describe('an instant', () => {
  /** Still until 0.5 s, then ever faster. */
  const series = {
    frames: TIMES.map((_, i) => i),
    times: TIMES,
    values: TIMES.map((t) => Math.max(0, t - 0.5) ** 3 * 60),
    unit: 'rad' as const,
  };

  it('read off a track is no surer than its frames are apart', () => {
    expect(markAt(TIMES, 0.5, 0, 'measured-3d').sigma).toBeCloseTo(SPACING, 12);
    expect(markAt(TIMES, 0.5, 0.003, 'measured-3d').sigma).toBeCloseTo(
      Math.hypot(0.003, SPACING),
      12,
    );
    expect(markOnFrame(TIMES, 120).sigma).toBeCloseTo(SPACING, 12);
    expect(markOnFrame(TIMES, 120, 3).sigma).toBeCloseTo(3 * SPACING, 12);
  });

  it('owns up to what other ways of gathering speed would give, however still the points', () => {
    const mark = startOf(series, motionOf({}), 0.7)!;
    // A tenth of the peak speed 60 · 3 · 0.2², and far enough under way, for points so still, at 0.3 of it.
    const [truth, underWay] = [0.1, 0.3].map((share) => 0.5 + 0.2 * Math.sqrt(share)) as [
      number,
      number,
    ];
    expect(Math.abs(mark.time - truth)).toBeLessThan(0.002);
    expect(mark.sigma).toBeGreaterThan(Math.hypot(0.03 * (underWay - truth), SPACING));
  });

  it('is looked for so far back that noise, which lifts the first guess, does not make it late', () => {
    // A turn of least jerk (Flash & Hogan 1985) is as fast as a tenth of its peak after 0.0874 of its time.
    const [begins, lasts, rate, hangs] = [0.5, 0.37, 120, 0.008];
    const times = Array.from({ length: 108 }, (_, i) => i / rate);
    const keeps = Math.exp(-1 / (rate * hangs));
    const motion = motionOf({ nose: { ...pathOf(() => [0, 0, 0]), hangs } }, { frameTimes: times });
    const late = Array.from({ length: 40 }, (_, seed) => {
      const random = seeded(seed + 1);
      let noise = normal(random);
      const values = times.map((time) => {
        const u = Math.min(1, Math.max(0, (time - begins) / lasts));
        noise = keeps * noise + Math.sqrt(1 - keeps ** 2) * normal(random);
        return 0.75 * (10 * u ** 3 - 15 * u ** 4 + 6 * u ** 5) + 0.02 * noise;
      });
      const turn = { frames: times.map((_, i) => i), times, values, unit: 'rad' as const };
      return startOf(turn, motion, 0.71)!.time - (begins + 0.0874 * lasts);
    });
    // One strays by 10 ms: the mean of forty by 1.6.
    expect(Math.abs(mean(late)!)).toBeLessThan(0.005);
  });

  it('read off points that somebody has smoothed is less sure by 12 ms', () => {
    const [plain, smoothed] = [false, true].map((isSmoothed) =>
      startOf(series, motionOf({}, { isSmoothed }), 0.7)!,
    );
    expect(smoothed!.time).toBe(plain!.time);
    expect(smoothed!.sigma).toBeCloseTo(Math.hypot(plain!.sigma, 0.012), 9);
  });

  it('of a tracked strike’s contact is less sure by 20 ms than of a measured one', () => {
    const track = knownTrack(clean('cross'), { rate: RATE, noise: 0.001, seed: 1 });
    const tracked: SpaceTrack = {
      ...track,
      points: Object.fromEntries(
        Object.entries(track.points).map(([name, points]) => [
          name,
          { ...points, isTracked: true },
        ]),
      ),
    };
    const [measured, seen] = [track, tracked].map(
      (one) => seeStrike({ track: one }, cross, {}).events.contact!,
    );
    expect(Math.sqrt(seen!.sigma ** 2 - measured!.sigma ** 2)).toBeCloseTo(0.02, 6);
    expect(measured!.sigma).toBeLessThan(0.01);
  });
});

describe('a place', () => {
  const still = (noise: (axis: number) => readonly number[]): Path => ({
    ...pathOf(() => [0, 0, 0]),
    along: [0, 1, 2].map(noise),
  });

  it('that was smoothed is as sure as it says, at the ends of a run too', () => {
    const random = seeded(7);
    const RUNS = 300;
    const squares = TIMES.map(() => 0);
    let said: readonly number[] = [];
    for (let run = 0; run < RUNS; run++) {
      const path = still(() => TIMES.map(() => 0.002 * normal(random)));
      const smooth = prepared(motionOf({ leftWrist: path }), null, 12).paths.leftWrist!;
      said = smooth.sigma;
      for (const values of smooth.along) values.forEach((v, i) => (squares[i]! += v * v));
    }
    const ratios = squares.map((sum, i) => Math.sqrt(sum / (3 * RUNS)) / said[i]!);
    // A standard deviation out of 900 numbers has a relative σ of 1/√1800 = 2.4 %; some 240 are looked at.
    for (const ratio of [...ratios.slice(0, 12), ...ratios.slice(-12)]) {
      expect(ratio).toBeGreaterThan(0.85);
      expect(ratio).toBeLessThan(1.12);
    }
    expect(mean(ratios.slice(12, -12))!).toBeGreaterThan(0.95);
    expect(mean(ratios.slice(12, -12))!).toBeLessThan(1.05);
    expect(said[0]!).toBeGreaterThan(2 * said[120]!);
  });

  it('filled into a gap is half as sure as its neighbours', () => {
    const whole = still(() => TIMES.map((t) => Math.sin(t)));
    const gap = new Set([100, 101, 102]);
    const keep = <T>(list: readonly T[]) => list.filter((_, i) => !gap.has(i));
    const holed: Path = {
      frames: keep(whole.frames),
      times: keep(whole.times),
      along: whole.along.map(keep),
      sigma: keep(whole.sigma),
      bias: keep(whole.bias),
      hangs: 0,
      isTracked: false,
    };
    const [full, filled] = [whole, holed].map(
      (path) => prepared(motionOf({ leftWrist: path }), null, 12).paths.leftWrist!,
    );
    expect(filled!.frames).toEqual(full!.frames);
    filled!.sigma.forEach((sigma, i) =>
      expect(sigma / full!.sigma[i]!).toBeCloseTo(gap.has(i) ? 2 : 1, 9),
    );
  });

  it('keeps what leans for the whole strike, which no smoothing takes away', () => {
    const leaning: Path = { ...still(() => TIMES.map(() => 0)), bias: TIMES.map(() => 0.01) };
    expect(placeSigma(leaning, 5)).toBeCloseTo(Math.hypot(0.002, 0.01), 12);
    const track = knownTrack(clean('cross'), { rate: RATE, noise: 0.001, seed: 1 });
    const leant: SpaceTrack = {
      ...track,
      points: Object.fromEntries(
        Object.entries(track.points).map(([name, points]) => [
          name,
          { ...points, bias: points.frames.map(() => 0.02) },
        ]),
      ),
    };
    const elbow = (one: SpaceTrack) => {
      const { motion, events } = seeStrike({ track: one }, cross, {});
      return read(
        measureAll({ strike: cross, events, motion, body: UNKNOWN_BODY })['elbow.contact'],
      );
    };
    // Two centimetres at either end of links of about 0.3 m: a tenth of a radian at the least.
    expect(Math.sqrt(elbow(leant).sigma ** 2 - elbow(track).sigma ** 2)).toBeGreaterThan(0.1);
  });
});

describe('which limb is whose', () => {
  /** Wrists half a height apart, the rest of both arms with them; the last `swapped` frames exchanged. */
  const seenFrom = (swapped: number): PoseDetection[] =>
    Array.from({ length: 65 }, (_, frame) => {
      const values = new Float32Array(LANDMARKS.length * SEEN_SIZE);
      LANDMARKS.forEach((landmark, i) => {
        const isLeft = landmark.startsWith('left') !== frame >= 65 - swapped;
        values.set([isLeft ? 100 : 350, 200, 1], i * SEEN_SIZE);
      });
      return { frame, values };
    });
  const times = Array.from({ length: 65 }, (_, i) => i / 30);

  it.each([5, 60])('goes with the tracker where it says the same longest: %i of 65', (swapped) => {
    const { changed } = sidesCorrected(seenFrom(swapped), times, 500);
    const frames = [...changed.get('leftWrist')!].sort((a, b) => a - b);
    const last = times.map((_, i) => i).slice(65 - swapped);
    const first = times.map((_, i) => i).slice(0, 65 - swapped);
    expect(frames).toEqual(swapped === 5 ? last : first);
  });
});

describe('what a leak costs', () => {
  const found = (fault: string, technique: 'cross' | 'rear-hook') => {
    const fighter = FAULTY_FIGHTERS.find((one) => one.fault === fault)!;
    const rules = rulesFor(fighter);
    const analysis = analyzeKnown(
      faulty(fighter, technique, 'clear'),
      { rate: RATE, noise: 0.002, seed: 3 },
      rules,
    );
    const cost = analysis.findings.find((one) => one.fault === fault)!.cost!;
    if (!isKnown(cost)) throw new Error(JSON.stringify(cost));
    const { lost, low, high } = cost;
    if (lost === null || low === null || high === null) throw new Error('no N·s');
    return { analysis, cost: { ...cost, lost, low, high }, rules };
  };

  const body = { mass: 70, height: 1.76 };
  const seenIn = ({ events, readings }: ReturnType<typeof analyzeKnown>) => {
    const seen = observe(cross.technique, events, readings, body);
    if (isAbsent(seen)) throw new Error(seen.absent);
    return seen;
  };

  /** What is left of a range without what one model of a body is off by. */
  const without = (half: number, off: number) => Math.sqrt(half ** 2 - (1.645 * off) ** 2);

  it('in speed that was there has the range of nine tenths, and above it what was still to come', () => {
    const { analysis, cost } = found('braking', 'cross');
    const [keep, peak] = (['speed.keep', 'speed.peak'] as const).map((id) =>
      read(analysis.readings[id]),
    );
    // The mass behind the hand is the chain model's, as in every other cost.
    const seen = seenIn(analysis);
    const whole = fit(seen.model, seen.observed).simulated.mass * peak!.value;
    const above = 1.645 * Math.hypot(keep!.sigma, OFF.stopped);
    expect(cost.shareHigh - cost.share).toBeCloseTo(above, 9);
    expect(cost.share - cost.shareLow).toBeCloseTo(1.645 * keep!.sigma, 9);
    expect(cost.high - cost.low).toBeCloseTo((1.645 * keep!.sigma + above) * whole, 9);
  });

  it('by the model has a range in which strikes fall that may as well have been the true one', () => {
    const { analysis, cost } = found('arm-first', 'cross');
    const seen = seenIn(analysis);
    const { observed, sigmas } = seen;
    const mend = mendFor(fit(seen.model, observed).model, 'hand-later');
    const deviate = normals(seeded(99));
    const near = (value: number | null, sigma: number | null) => value! + sigma! * deviate();
    const lost: number[] = [];
    for (let i = 0; i < 24; i++) {
      const fastest = Math.exp(0.15 * deviate());
      const model: Model = {
        ...seen.model,
        joints: seen.model.joints.map((joint) => ({ ...joint, fastest: joint.fastest * fastest })),
      };
      const hips = near(0, sigmas.onsets[0]!);
      // Brought to it all over again, not by the short way that the product takes.
      const drawn = fit(model, {
        ...observed,
        speed: near(observed.speed, sigmas.speed),
        contact: near(observed.contact, sigmas.contact) - hips,
        pelvisTurn: near(observed.pelvisTurn, sigmas.pelvisTurn),
        trunkTurn: near(observed.trunkTurn, sigmas.trunkTurn),
        onsets: observed.onsets.map((at, k) => (k === 0 ? 0 : near(at, sigmas.onsets[k]!) - hips)),
        reach: Math.min(0.985, near(observed.reach, sigmas.reach)),
      }).model;
      const [as, without] = [simulateStrike(drawn), simulateStrike(mend(drawn))];
      if (as.hasArrived && without.hasArrived) lost.push(without.momentum - as.momentum);
    }
    const sorted = lost.sort((x, y) => x - y);
    const wide = (share: number) =>
      quantileSorted(sorted, 1 - share)! - quantileSorted(sorted, share)!;
    const off = OFF.driven * (cost.lost / cost.share);
    const drawn = without(cost.high - cost.lost, off) + without(cost.lost - cost.low, off);
    expect(lost.length).toBeGreaterThan(18);
    // NaN where the range is not even as wide as what the model is off by.
    expect(drawn).toBeGreaterThan(1.2 * wide(0.25));
    expect(drawn).toBeLessThan(1.6 * wide(0.02));
  }, 120_000);

  it('is not surer than the reach that it rests on', () => {
    const { analysis, cost, rules } = found('jammed', 'cross');
    const reach = read(analysis.readings.reach)!;
    const unsure = { ...analysis.readings, reach: { ...reach, sigma: 0.08 } };
    const [again] = costed(
      { technique: cross.technique, ...analysis, readings: unsure },
      body,
      rules,
    ).filter(({ fault }) => fault === 'jammed');
    if (!isKnown(again!.cost)) throw new Error('the cost is not known');
    expect(again!.cost.share).toBeCloseTo(cost.share, 9);
    const range = ({ shareLow, shareHigh, share }: KnownCost) =>
      without(shareHigh - share, OFF.placed) + without(share - shareLow, OFF.placed);
    expect(range(again!.cost)).toBeGreaterThan(2 * range(cost));
    expect(range(again!.cost)).toBeGreaterThan(0.1);
  });
});

it('a joint that is held comes to rest: it does not swing on like a spring without friction', () => {
  const link = { length: 0.3, mass: 2, centre: 0.15, inertia: 0.015 };
  const joint = { sign: 1 as const, onset: 0, range: 9 };
  const { trace } = simulateStrike({
    links: [
      { name: 'trunk', ...link, inertia: 5 },
      { name: 'arm', ...link },
    ],
    joints: [
      { ...joint, torque: 60, fastest: 1, hold: 0, isHeld: false },
      { ...joint, torque: 0, fastest: 9, hold: 40, isHeld: true },
    ],
    guard: [0, 0],
    root: 1,
    meets: { at: 'turn', angle: 99 },
    along: 'path',
    step: 0,
    give: 0,
  });
  const swing = (from: number, to: number) =>
    Math.max(
      ...trace
        .filter(({ time }) => time >= from && time < to)
        .map(({ rates }) => Math.abs(rates[1]! - rates[0]!)),
    );
  expect(swing(0.6, 0.9)).toBeLessThan(0.3 * swing(0, 0.3));
});

describe('a line through points', () => {
  it('of three tests has one degree of freedom: Student’s t is 12.706', () => {
    const points = [0, 1, 2].map((x) => ({ x, value: x, sigma: 0.1 }));
    const { sigma, halfWidth } = slopeOf(points)!;
    expect(halfWidth / sigma).toBeCloseTo(12.7062, 3);
  });

  it('that scatter more than their σ is less sure by as much (Birge 1932)', () => {
    // 0, 2, 0 at −1, 0, 1: slope 0, residuals −2/3, 4/3, −2/3, whose squares add up to 8/3.
    const at = (sigma: number) =>
      slopeOf([0, 2, 0].map((value, i) => ({ x: i - 1, value, sigma })))!.sigma;
    expect(at(0.1)).toBeCloseTo(Math.sqrt(8 / 3 / 2), 9);
    expect(at(5)).toBeCloseTo(5 / Math.SQRT2, 9);
  });
});

describe('a change', () => {
  const reading = (value: number, sigma: number): Reading => ({
    value,
    sigma,
    unit: 's',
    source: 'eye',
    frames: [0],
  });
  const noiseOf = (options: Parameters<typeof changeBetween>[3]) => {
    const change = changeBetween(reading(0, 0.003), reading(0, 0.004), null, options);
    return 'noise' in change ? change.noise : NaN;
  };

  it('counts beyond 1.96 times what two measurements differ by', () => {
    expect(noiseOf({})).toBeCloseTo(1.96 * 0.005, 9);
  });

  it('counts beyond 1.96 √2 typical errors where those are larger (Hopkins 2000)', () => {
    expect(noiseOf({ typicalError: 0.02 })).toBeCloseTo(1.96 * Math.SQRT2 * 0.02, 9);
    expect(noiseOf({ typicalError: 0.02, strikes: [4, 4] })).toBeCloseTo(
      1.96 * Math.SQRT2 * 0.01,
      9,
    );
  });
});

describe('the way that a link carries the end', () => {
  const recipe = clean('cross');
  const track = knownTrack(recipe, { rate: RATE, noise: 0, seed: 1 });
  const marks = { contact: markOnFrame(track.frameTimes, Math.round(recipe.contact * RATE)) };
  const { motion, events } = seeStrike({ track }, cross, marks);
  const trunkIn = (seen: Motion, between = events) =>
    read(
      (travels({ strike: cross, events: between, motion: seen, body: UNKNOWN_BODY }) as Shares)
        .trunk!,
    );
  /** Every point off by as much all along, in each of its directions, and owned up to. */
  const leaning = (bias: number, off: () => number): Motion => {
    const paths = Object.fromEntries(
      Object.entries(motion.paths).map(([name, path]) => [
        name,
        {
          ...path,
          along: path.along.map((values) => {
            const by = off();
            return values.map((value) => value + by);
          }),
          bias: path.bias.map(() => bias),
        },
      ]),
    );
    return { ...motion, paths, raw: paths };
  };

  it('is as unsure as the scale', () => {
    const [sure, unsure] = [trunkIn(motion), trunkIn({ ...motion, scaleSigma: 0.1 })];
    const added = Math.sqrt(unsure.sigma ** 2 - sure.sigma ** 2);
    expect(added).toBeCloseTo(0.1 * sure.value, 6);
  });

  it('is as unsure as contact, where the link goes, and hardly as its start, where it stands', () => {
    const added = (end: 'hips' | 'contact') => {
      const of = (sigma: number) =>
        trunkIn(motion, { ...events, [end]: { ...events[end]!, sigma } }).sigma;
      return Math.sqrt(of(0.01) ** 2 - of(0) ** 2) / 0.01;
    };
    // Metres a second.
    expect(added('contact')).toBeGreaterThan(0.05);
    expect(added('hips')).toBeGreaterThan(0.0005);
    expect(added('hips')).toBeLessThan(0.01);
  });

  it('owns up to points that a tracker sees wrongly all along', () => {
    const deviate = normals(seeded(3));
    const LEAN = 0.02;
    const usual = trunkIn(motion);
    const drawn = Array.from(
      { length: 60 },
      () => trunkIn(leaning(0, () => LEAN * deviate())).value,
    );
    const spread = Math.sqrt(mean(drawn.map((value) => (value - usual.value) ** 2))!);
    const told = trunkIn(leaning(LEAN, () => 0));
    const added = Math.sqrt(told.sigma ** 2 - usual.sigma ** 2);
    expect(spread).toBeGreaterThan(0.003);
    expect(added).toBeGreaterThan(0.8 * spread);
    expect(added).toBeLessThan(4 * spread);
  });
});
