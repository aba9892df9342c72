/** What starts and peaks are read off: turns, swings, lengths, speeds and their order, by closed forms. */
import { mean } from 'd3-array';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { orderOf, peakSteps, startSteps, type Step } from '../src/measure/chain/sequence';
import type { EventMark, EventName } from '../src/measure/events/events';
import { PHASES } from '../src/measure/events/phases';
import { speedOf } from '../src/measure/events/linkSpeed';
import { linkLength } from '../src/reconstruct/motion/linkLength';
import type { Path } from '../src/reconstruct/motion/motion';
import { hipsAlong, openingOf, swingOf, turnOf } from '../src/reconstruct/motion/speeds';
import { turnSeries } from '../src/reconstruct/motion/turn';
import { normal, normals, seeded } from '../src/foundation/uncertainty/random';
import { TECHNIQUES, techniqueById } from '../src/foundation/technique/techniques';
import { motionOf, pathOf, TIMES } from './spaceMotion';

/** Two ends of a line of half-width `half`, turned by `yaw`: 0 is square to the target. */
const line = (half: number, yaw: (time: number) => number) => {
  const end = (sign: 1 | -1) =>
    pathOf((t) => [sign * half * Math.sin(yaw(t)), 1, sign * half * Math.cos(yaw(t))]);
  return { left: end(-1), right: end(1) };
};

describe('a turn', () => {
  it('is followed through whole turns, and is the same seen from wherever the body stands', () => {
    const hips = line(0.12, (t) => 4 * Math.PI * t);
    const turn = turnSeries(motionOf({ leftHip: hips.left, rightHip: hips.right }), 'pelvis')!;
    turn.yaw.forEach((yaw, i) => expect(yaw).toBeCloseTo(4 * Math.PI * TIMES[i]!, 9));
    // σ of an angle: σ of both ends over the width of the line.
    expect(turn.sigma[0]).toBeCloseTo((Math.SQRT2 * 0.002) / 0.24, 9);
  });

  it('into a strike that turns the other way counts the other way', () => {
    const { left, right } = line(0.2, (t) => t);
    const paths = { leftShoulder: left, rightShoulder: right };
    const there = turnOf(motionOf(paths), 'trunk')!.values;
    const back = turnOf(motionOf(paths, { turnSign: -1 }), 'trunk')!.values;
    back.forEach((value, i) => expect(value).toBeCloseTo(-there[i]!, 12));
  });

  it('is not guessed from the side', () => {
    const { left, right } = line(0.12, (t) => t);
    const flat = (path: Path): Path => ({ ...path, along: path.along.slice(0, 2) });
    const paths = { leftHip: flat(left), rightHip: flat(right) };
    expect(
      turnSeries(motionOf(paths, { view: 'side', axes: ['toward', 'up'] }), 'pelvis'),
    ).toBeNull();
    expect(turnSeries(motionOf({ leftHip: left }), 'pelvis')).toBeNull();
  });
});

describe('a swing', () => {
  it('of a link that goes round at 3 rad/s is 3 t, from where it rested', () => {
    const begins = 0.25;
    const angle = (t: number) => Math.max(0, 3 * (t - begins));
    const paths = {
      rightHip: pathOf(() => [0, 1, 0]),
      rightKnee: pathOf((t) => [0.4 * Math.sin(angle(t)), 1 - 0.4 * Math.cos(angle(t)), 0]),
    };
    const swing = swingOf(motionOf(paths), 'rightHip', 'rightKnee')!;
    swing.values.forEach((value, i) => expect(value).toBeCloseTo(angle(TIMES[i]!), 6));
  });

  it('of a link whose ends are on one spot for a moment goes on without that moment', () => {
    const angle = (t: number) => Math.max(0, 3 * (t - 0.25));
    const isLost = (t: number) => Math.abs(t - 0.5) < 0.002;
    const paths = {
      rightHip: pathOf(() => [0, 1, 0]),
      rightKnee: pathOf((t) =>
        isLost(t) ? [0, 1, 0] : [0.4 * Math.sin(angle(t)), 1 - 0.4 * Math.cos(angle(t)), 0],
      ),
    };
    const { times, values } = swingOf(motionOf(paths), 'rightHip', 'rightKnee')!;
    expect(times.length).toBeLessThan(TIMES.length);
    values.forEach((value, i) => expect(value).toBeCloseTo(angle(times[i]!), 6));
  });

  it('has hardly begun where it has hardly begun, and no noise hides it', () => {
    const noise = seeded(7);
    const shake = () => 0.002 * normal(noise);
    // A quarter of a degree at first, less than the noise of one look; then a radian.
    const angle = (t: number) => (t < 0.3 ? 0 : 0.005) + Math.max(0, t - 0.7) / 0.3;
    const paths = {
      rightHip: pathOf(() => [shake(), 1 + shake(), shake()]),
      rightKnee: pathOf((t) => [
        0.4 * Math.sin(angle(t)) + shake(),
        1 - 0.4 * Math.cos(angle(t)) + shake(),
        shake(),
      ]),
    };
    const { times, values } = swingOf(motionOf(paths), 'rightHip', 'rightKnee')!;
    const meanOver = (from: number, to: number) =>
      mean(values.filter((_, k) => times[k]! >= from && times[k]! < to))!;
    // σ of a look 0.007, of the mean of sixty and more 0.001, of the rest it counts from 0.002.
    expect(Math.abs(meanOver(0.35, 0.65) - meanOver(0, 0.25) - 0.005)).toBeLessThan(0.0025);
    expect(Math.abs(meanOver(0, 0.25))).toBeLessThan(0.004);
    expect(values.at(-1)!).toBeCloseTo(1, 1);
  });

  it('of an elbow that opens is its inner angle', () => {
    const angle = (t: number) => 1 + t;
    const paths = {
      rightShoulder: pathOf(() => [0.3, 0, 0]),
      rightElbow: pathOf(() => [0, 0, 0]),
      rightWrist: pathOf((t) => [0.25 * Math.cos(angle(t)), 0.25 * Math.sin(angle(t)), 0]),
    };
    const opening = openingOf(motionOf(paths), ['Shoulder', 'Elbow', 'Wrist'], 'paths')!;
    opening.values.forEach((value, i) => expect(value).toBeCloseTo(angle(TIMES[i]!), 9));
  });

  it('of the hips is the middle of both, along the way asked for', () => {
    const hip = (right: number) => pathOf((t) => [t * t, 1 - t, right]);
    const both = motionOf({ leftHip: hip(-0.1), rightHip: hip(0.1) });
    expect(hipsAlong(both, 'toward', 1)!.values[120]).toBeCloseTo(0.25, 12);
    expect(hipsAlong(both, 'up', -1)!.values[240]).toBeCloseTo(0, 12);
  });
});

describe('the length of a link', () => {
  const near = pathOf(() => [0, 0, 0]);
  const turning = pathOf((t) => [0.3 * Math.cos(6 * t), 0.3 * Math.sin(6 * t), 0]);

  it('in space is the mean, and its σ that of a mean', () => {
    const { length, sigma } = linkLength(motionOf({}), near, turning)!;
    expect(length).toBeCloseTo(0.3, 12);
    expect(sigma).toBeCloseTo((Math.SQRT2 * 0.002) / Math.sqrt(TIMES.length), 9);
  });

  it('in a picture is what it is when it lies flat, however often it points at the camera', () => {
    // Seen along the axis it turns about half of the time: foreshortened by |cos|.
    const flat = pathOf((t) => [0.3 * Math.abs(Math.cos(6 * t)), 0, 0]);
    const seen = linkLength(motionOf({}, { view: 'side' }), near, flat)!;
    expect(seen.length).toBeGreaterThan(0.295);
    expect(seen.length).toBeLessThanOrEqual(0.3);
  });

  it('in a picture is not lengthened by noise, which would pick the longest', () => {
    const random = normals(seeded(3));
    const shaken = pathOf(() => [0.26 + 0.008 * random(), 0, 0]);
    const { length } = linkLength(motionOf({}, { view: 'side' }), near, shaken)!;
    // The mean of the longest tenth of 241 normals is 1.75 of their σ too long: 14 mm.
    expect(Math.abs(length - 0.26)).toBeLessThan(0.005);
  });

  it('keeps the error that stays', () => {
    const leaning = { ...near, bias: TIMES.map(() => 0.01) };
    expect(linkLength(motionOf({}), leaning, turning)!.sigma).toBeGreaterThan(0.01);
  });
});

describe('a speed', () => {
  const series = (at: (time: number) => number) => ({
    frames: TIMES.map((_, i) => i),
    times: TIMES,
    unit: 'rad' as const,
    values: TIMES.map(at),
  });

  it('of a slow sine is its cosine', () => {
    const w = 2 * Math.PI;
    const speed = speedOf(
      series((t) => Math.sin(w * t)),
      1,
    )!;
    speed.times.forEach((time, i) => {
      if (time > 0.1 && time < 0.9) {
        expect(Math.abs(speed.values[i]! - w * Math.cos(w * time))).toBeLessThan(0.02 * w);
      }
    });
    expect(speed.noise).toBeLessThan(0.05 * w);
  });

  it('knows nothing of what comes after', () => {
    const quiet = speedOf(
      series((t) => t * t),
      0.5,
    )!;
    const struck = speedOf(
      series((t) => (t > 0.5 ? 50 : t * t)),
      0.5,
    )!;
    expect(struck).toEqual(quiet);
  });

  it('says how much of it is noise', () => {
    const noisy = (size: number) => {
      let state = 7;
      const next = () => (state = (state * 16_807) % 2_147_483_647) / 2_147_483_647 - 0.5;
      return speedOf(
        series((t) => t + size * next()),
        1,
      )!.noise;
    };
    expect(noisy(0.02) / noisy(0.01)).toBeCloseTo(2, 1);
  });

  it('is not made of a handful of frames', () => {
    expect(speedOf(null, 1)).toBeNull();
    expect(
      speedOf(
        series((t) => t),
        0.01,
      ),
    ).toBeNull();
  });
});

describe('the order of the peaks', () => {
  /** A turn whose speed is a bell, fastest at `peak`. */
  const bell = (peak: number, size: number) => (t: number) =>
    size / (1 + Math.exp(-40 * (t - peak)));
  const contact: EventMark = { frame: 192, time: 0.8, sigma: 0.001, source: 'eye' };

  it('is that of the turns put in, each found to within its ±', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.45, max: 0.55, noNaN: true }),
        fc.double({ min: 0.02, max: 0.12, noNaN: true }),
        (first, later) => {
          const hips = line(0.12, bell(first, 0.9));
          const chest = line(0.2, bell(first + later, 1.2));
          const steps = peakSteps(
            motionOf({
              leftHip: hips.left,
              rightHip: hips.right,
              leftShoulder: chest.left,
              rightShoulder: chest.right,
            }),
            techniqueById('cross'),
            contact,
          );
          expect(steps.map(({ link }) => link)).toEqual(['pelvis', 'trunk']);
          [first, first + later].forEach((peak, i) =>
            expect(Math.abs(steps[i]!.time - peak)).toBeLessThan(3 * steps[i]!.sigma + 1e-3),
          );
        },
      ),
      { numRuns: 25 },
    );
  });

  it('counts neighbours in order, tied, and neither', () => {
    const step = (time: number, sigma = 0.002): Step => ({ link: 'pelvis', time, sigma });
    expect(orderOf([step(0), step(0.03), step(0.06)])).toEqual({ inOrder: 2, ties: 0, pairs: 2 });
    expect(orderOf([step(0), step(0.004), step(0.05)])).toEqual({ inOrder: 1, ties: 1, pairs: 2 });
    expect(orderOf([step(0.06), step(0.03), step(0)])).toEqual({ inOrder: 0, ties: 0, pairs: 2 });
    expect(orderOf([])).toEqual({ inOrder: 0, ties: 0, pairs: 0 });
  });

  it('turned round has in order what was not, and ties the same', () => {
    const steps = fc.array(
      fc.record({
        link: fc.constant('pelvis' as const),
        time: fc.double({ min: 0, max: 1, noNaN: true }),
        sigma: fc.double({ min: 0.001, max: 0.05, noNaN: true }),
      }),
      { minLength: 1, maxLength: 6 },
    );
    fc.assert(
      fc.property(steps, (all) => {
        const [there, back] = [orderOf(all), orderOf([...all].reverse())];
        expect(back.ties).toBe(there.ties);
        expect(there.inOrder + back.inOrder + there.ties).toBe(there.pairs);
      }),
    );
  });
});

describe('what a technique has', () => {
  const mark = (time: number): EventMark => ({ frame: 0, time, sigma: 0.001, source: 'eye' });

  it('starts from the hips outwards, in every technique by its own links', () => {
    const events = { hips: mark(0.1), trunk: mark(0.13), arm: mark(0.16) };
    for (const technique of TECHNIQUES) {
      const links = startSteps(events, technique).map(({ link }) => link);
      expect(links[0]).toBe('pelvis');
      const isKick = technique.family === 'kick';
      expect(links[1]).toBe(isKick ? 'thigh' : 'trunk');
      expect(links.length).toBe(technique.end === 'knee' ? 2 : 3);
    }
    expect(startSteps({ trunk: mark(1) }, techniqueById('cross'))).toHaveLength(1);
  });

  it('has four phases and the way home, each beginning where the one before ends', () => {
    const events: EventName[] = PHASES.map(({ from }) => from);
    expect(PHASES.map(({ name }) => name)).toEqual([
      ...['Load', 'Explode', 'Accelerate', 'Follow-through', 'Recover'],
    ]);
    PHASES.slice(1).forEach(({ from }, i) => expect(from).toBe(PHASES[i]!.to));
    expect(new Set(events).size).toBe(PHASES.length);
  });
});
