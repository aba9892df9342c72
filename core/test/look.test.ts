/** How σ follows from what a measure looks at, and how a path is made ready for it. */
import { describe, expect, it } from 'vitest';
import { markOnFrame, type Events } from '../src/measure/events/events';
import { UNKNOWN_BODY, type MeasureContext } from '../src/measure/measures/context';
import { run, runTogether, type Measure } from '../src/measure/measures/run';
import { motionFromSpace, type Motion } from '../src/reconstruct/motion/motion';
import { CUTOFFS, prepared } from '../src/reconstruct/motion/prepare';
import { isAbsent, type Reading } from '../src/foundation/reading/reading';
import { techniqueById } from '../src/foundation/technique/techniques';
import type { Landmark } from '../src/foundation/body/landmarks';
import type { Points } from '../src/observe/track/track';
import { normal, seeded } from '../src/foundation/uncertainty/random';

const RATE = 200;
const frameTimes = Array.from({ length: 200 }, (_, i) => i / RATE);
const strike = { technique: techniqueById('cross'), side: 'right' } as const;
const events: Events = {
  ready: markOnFrame(frameTimes, 20),
  contact: markOnFrame(frameTimes, 120),
};

/** A landmark that goes along X as told, with noise of its own σ. */
function points(x: (time: number) => number, sigma = 0.001, keep = (_: number) => true): Points {
  const frames = frameTimes.map((_, i) => i).filter(keep);
  return {
    frames,
    x: frames.map((i) => x(frameTimes[i]!)),
    y: frames.map(() => 1),
    z: frames.map(() => 0),
    sigma: frames.map(() => sigma),
  };
}

function context(
  landmarks: Partial<Record<Landmark, Points>>,
  more: Partial<MeasureContext> = {},
): MeasureContext {
  const track = { space: '3d', source: 'measured-3d', frameTimes, points: landmarks } as const;
  return { strike, events, motion: motionFromSpace(track, strike), body: UNKNOWN_BODY, ...more };
}

const BASE: Omit<Measure, 'value'> = {
  id: 'test',
  name: 'Test',
  unit: 'm',
  needs: 'space',
  shows: 'anything',
  isMetric: true,
};
const read = (value: Measure['value'], given: MeasureContext): Reading => {
  const found = run({ ...BASE, value }, given);
  if (isAbsent(found)) throw new Error(found.absent);
  return found;
};

describe('σ', () => {
  const still = context({ nose: points(() => 0.5, 0.002), leftEar: points(() => 0.1, 0.003) });

  it('of a difference of two places is √(σ₁² + σ₂²) (GUM 5.1.2)', () => {
    const gap = read((look) => {
      const when = look.event('contact');
      return look.at('nose', when)[0]! - look.at('leftEar', when)[0]!;
    }, still);
    expect(gap.value).toBeCloseTo(0.4, 12);
    expect(gap.sigma).toBeCloseTo(Math.hypot(0.002, 0.003), 9);
    expect(gap.frames).toEqual([120]);
  });

  it('counts a place that is looked at twice once, with all that hangs on it', () => {
    const twice = read((look) => {
      const when = look.event('contact');
      return look.at('nose', when)[0]! + look.at('nose', when)[0]!;
    }, still);
    expect(twice.sigma).toBeCloseTo(0.004, 9);
  });

  it('of a moving place grows with the doubt about its instant: v · σ_t', () => {
    const moving = context({ nose: points((t) => 3 * t, 1e-6) });
    const place = read((look) => look.at('nose', look.event('contact'))[0]!, moving);
    expect(place.sigma).toBeCloseTo(3 * events.contact!.sigma, 6);
  });

  it('by draws is the same, from a seed', () => {
    const value: Measure['value'] = (look) => {
      const when = look.event('contact');
      return look.at('nose', when)[0]! * look.at('leftEar', when)[0]!;
    };
    const plain = read(value, still);
    const drawn = read(value, { ...still, draws: { count: 4000, seed: 3 } });
    expect(drawn.value).toBe(plain.value);
    expect(drawn.sigma / plain.sigma).toBeCloseTo(1, 1);
    expect(read(value, { ...still, draws: { count: 4000, seed: 3 } }).sigma).toBe(drawn.sigma);
  });

  it('of several numbers out of one look comes with each of them', () => {
    const found = runTogether(still, (look) => {
      const [x] = look.at('nose', look.event('contact'));
      return { one: x!, three: 3 * x! };
    });
    if ('absent' in found) throw new Error(found.absent);
    expect(found.spread.three / found.spread.one).toBeCloseTo(3, 9);
  });

  it('takes in a doubt that no point carries', () => {
    const found = run({ ...BASE, doubt: () => 0.1, value: () => 1 }, still);
    expect(found).toMatchObject({ sigma: 0.1 });
  });
});

describe('what cannot be seen', () => {
  it('is asked for by landmark and frame', () => {
    const gone = context({
      nose: points(
        () => 0,
        0.001,
        (frame) => frame < 60,
      ),
    });
    const found = run(
      { ...BASE, value: (look) => look.at('nose', look.event('contact'))[0]! },
      gone,
    );
    expect(found).toEqual({
      absent: 'Place the nose on frame 120.',
      missing: { landmarks: ['nose'], frame: 120 },
    });
  });

  it('is never searched over: a largest value needs points all the way', () => {
    const most: Measure['value'] = (look) => {
      const [from, to] = [look.event('ready'), look.event('contact')];
      const at = look.most('x', from, to, 'nose', (l, when) => l.at('nose', when)[0]!);
      return look.at('nose', at)[0]!;
    };
    const hill = (t: number) => Math.sin(Math.PI * t);
    expect(read(most, context({ nose: points(hill) })).value).toBeCloseTo(1, 6);
    const holed = context({ nose: points(hill, 0.001, (f) => f < 60 || f > 90) });
    expect(run({ ...BASE, value: most }, holed)).toMatchObject({
      missing: { landmarks: ['nose'] },
    });
  });

  it('is no reading of a strike of another kind', () => {
    const found = run({ ...BASE, of: ({ family }) => family === 'kick', value: () => 1 }, still());
    expect(found).toMatchObject({ isNotApplicable: true });
  });
  const still = () => context({ nose: points(() => 0) });
});

describe('a path made ready', () => {
  const random = seeded(9);
  const shake = frameTimes.map(() => 0.004 * normal(random));
  const way = (t: number) => (t < 0.6 ? 2 * (t - 0.2) ** 2 : 2 * 0.4 ** 2);
  const motionOf = (x: (time: number) => number, keep?: (frame: number) => boolean): Motion =>
    context({ nose: points(x, 0.004, keep) }).motion;
  const noisy = (t: number) => way(t) + shake[Math.round(t * RATE)]!;
  const error = (motion: Motion, frames: readonly number[]) => {
    const { nose } = motion.paths;
    const off = frames.map((f) => nose!.along[0]![nose!.frames.indexOf(f)]! - way(frameTimes[f]!));
    return Math.sqrt(off.reduce((sum, one) => sum + one * one, 0) / off.length);
  };
  const middle = frameTimes.map((_, i) => i).filter((i) => i > 30 && i < 100);

  it('is nearer to the truth than what was tracked, and says by how much', () => {
    const raw = motionOf(noisy);
    const smooth = prepared(raw, 0.6);
    expect(error(smooth, middle)).toBeLessThan(0.6 * error(raw, middle));
    expect(smooth.paths.nose!.sigma[60]!).toBeLessThan(0.6 * 0.004);
    expect(smooth.raw.nose).toBe(raw.raw.nose);
  });

  it('does not carry contact back to the frames before it', () => {
    // A point at 4 m/s that is stopped dead: smoothed across, the last frames would lag behind.
    const stopped = (t: number) => Math.min(4 * t, 2.4);
    const motion = prepared(motionOf(stopped), 0.6, CUTOFFS.floor);
    const at = (frame: number) => motion.paths.nose!.along[0]![frame]!;
    for (const frame of [112, 116, 118, 120]) {
      expect(at(frame)).toBeCloseTo(stopped(frameTimes[frame]!), 3);
    }
    const across = prepared(motionOf(stopped), null, CUTOFFS.floor).paths.nose!.along[0]![120]!;
    expect(Math.abs(across - 2.4)).toBeGreaterThan(0.01);
  });

  it('has its short gaps filled, less surely, and its long ones left open', () => {
    const motion = prepared(
      motionOf(way, (f) => !(f > 50 && f < 55) && !(f > 70 && f < 90)),
      0.6,
    );
    const { frames } = motion.paths.nose!;
    expect(frames).toContain(52);
    expect(frames).not.toContain(80);
  });

  it('that was placed by hand, every tenth frame, is left as it is', () => {
    const raw = motionOf(noisy, (f) => f % 10 === 0);
    expect(prepared(raw, 0.6).paths.nose).toBe(raw.raw.nose);
  });
});
