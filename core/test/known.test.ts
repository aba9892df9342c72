/** The core on strikes whose truth is known: starts, speed, views and stances. */
import { describe, expect, it } from 'vitest';
import { mover } from '@sinew/fighters/fighter/pose';
import { clean, FAULT_CHANGES, type Recipe } from '@sinew/fighters/fighter/recipe';
import { mix, subtract } from '@sinew/fighters/fighter/space';
import { knownTrack } from '@sinew/fighters/fighter/track';
import { truthOfStrike } from '@sinew/fighters/fighter/truth';
import { DEMO_CLIPS } from '@sinew/fighters/film/clips';
import { truthOf } from '@sinew/fighters/film/clipTruth';
import { frameTimesOf } from '@sinew/fighters/fighter/track';
import { analyze, measure } from '../src/analysis/analyze';
import { markOnFrame, type Events } from '../src/measure/events/events';
import { onset } from '../src/measure/events/onset';
import { VIEWS, techniqueById } from '../src/foundation/technique/techniques';
import { strikingSide } from '../src/foundation/technique/strike';
import { halfWidth, isAbsent, type Measured } from '../src/foundation/reading/reading';
import { trackFromPlaced, type Points } from '../src/observe/track/track';
import { found, measureKnown, trueMarks } from './fixtures';

const TECHNIQUES = ['jab', 'cross', 'lead-hook'] as const;
const numberOf = (measured: Measured) => (isAbsent(measured) ? NaN : measured.value);

/** Velocity of the fist at contact from the generator itself, metres a second. */
function trueVelocity(recipe: Recipe): readonly number[] {
  const pose = mover(recipe);
  const right = strikingSide(techniqueById(recipe.technique), recipe.stance) === 'right';
  const fist = (time: number) => {
    const p = pose(time);
    return right
      ? mix(p.rightIndexKnuckle, p.rightLittleKnuckle, 0.5)
      : mix(p.leftIndexKnuckle, p.leftLittleKnuckle, 0.5);
  };
  const h = 1e-5;
  return subtract(fist(recipe.contact), fist(recipe.contact - h)).map((x) => x / h);
}

describe('speed at contact', () => {
  it.each(TECHNIQUES)(
    'of a %s lies within 4 % of the generator’s own at 240 a second',
    (technique) => {
      const recipe = clean(technique);
      const [x, y, z] = trueVelocity(recipe);
      const truth = technique === 'lead-hook' ? Math.hypot(x!, y!, z!) : x!;
      const { readings } = measureKnown(recipe, { rate: 240 });
      expect(Math.abs(numberOf(readings['speed.contact']) / truth - 1)).toBeLessThan(0.04);
    },
  );

  // Walilko, Viano & Bir 2005 (from memory): 9.14 ± 2.06 m/s; trained straights about 5–10.
  it('of the made-up cross is one a boxer might throw', () => {
    const [x] = trueVelocity(clean('cross'));
    expect(x).toBeGreaterThan(5);
    expect(x).toBeLessThan(11);
  });
});

describe('starts proposed from a dense track', () => {
  const proposed = (recipe: Recipe) => {
    const track = knownTrack(recipe, { rate: 240, noise: 0, seed: 1 });
    const { ready, load, contact, end, home } = trueMarks(recipe, track.frameTimes);
    const technique = techniqueById(recipe.technique);
    const strike = { technique, side: strikingSide(technique, recipe.stance) };
    return measure({ strike, track, marks: { ready, load, contact, end, home } as Events });
  };

  it.each(TECHNIQUES)('of a %s are within 5 ms of the truth without noise', (technique) => {
    const recipe = clean(technique);
    const truth = truthOfStrike(recipe).times;
    const { events } = proposed(recipe);
    for (const name of ['hips', 'trunk', 'arm'] as const) {
      expect(Math.abs(events[name]!.time - truth[name]!), name).toBeLessThan(0.005);
    }
  });

  it('give way to the coach’s own marks', () => {
    const recipe = clean('cross');
    const { events } = measureKnown(recipe, { rate: 240 });
    expect(events.hips!.source).toBe('eye');
  });
});

describe('contact, where nobody marked it', () => {
  const contactOf = (recipe: Recipe, until = Infinity) => {
    const track = knownTrack(recipe, { rate: 240, noise: 0.001, seed: 6 });
    const technique = techniqueById(recipe.technique);
    const strike = { technique, side: strikingSide(technique, recipe.stance) };
    const frameTimes = track.frameTimes.filter((time) => time <= until);
    const cut = (points: Points): Points => ({
      ...points,
      frames: points.frames.filter((frame) => frame < frameTimes.length),
    });
    const points = Object.fromEntries(
      Object.entries(track.points).map(([name, one]) => [name, cut(one)]),
    );
    return measure({ strike, track: { ...track, frameTimes, points }, marks: {} }).events.contact;
  };

  it('is where a fist that is stopped loses its speed', () => {
    const recipe = clean('cross');
    expect(Math.abs(contactOf(recipe)!.time - recipe.contact)).toBeLessThan(0.008);
  });

  it('of a strike that takes 160 ms to stop is where the stopping begins', () => {
    const recipe = clean('cross', { finish: 0.16 });
    expect(Math.abs(contactOf(recipe)!.time - recipe.contact)).toBeLessThan(0.012);
  });

  it('of a reach without any stop is its farthest place, give or take 40 ms', () => {
    const frameTimes = Array.from({ length: 480 }, (_, i) => i / 240);
    const frames = frameTimes.map((_, i) => i);
    const still = frames.map(() => 1);
    const knuckle: Points = {
      frames,
      x: frameTimes.map((t) => 0.3 * (1 - Math.cos(Math.PI * t))),
      y: still,
      z: still,
      sigma: frames.map(() => 0.001),
    };
    const strike = { technique: techniqueById('cross'), side: 'right' } as const;
    const { events } = measure({
      strike,
      marks: {},
      track: {
        space: '3d',
        source: 'measured-3d',
        frameTimes,
        points: { rightIndexKnuckle: knuckle },
      },
    });
    expect(events.contact!.time).toBeCloseTo(1, 2);
    expect(halfWidth(events.contact!)).toBeCloseTo(0.039, 2);
  });

  it('is not made up where the points end before the strike has landed', () => {
    expect(contactOf(clean('cross'), 0.66)).toBeUndefined();
  });
});

describe('a made-up fighter', () => {
  it.each([1.25, 1.76, 2.05])('%s m tall is somewhere at every instant', (height) => {
    for (const technique of ['cross', 'rear-hook', 'lead-hook', 'round-kick'] as const) {
      const { points } = knownTrack(clean(technique, { height }), { rate: 240, noise: 0, seed: 1 });
      for (const [name, { x, y, z }] of Object.entries(points)) {
        expect([...x, ...y, ...z!].every(Number.isFinite), `${technique} ${name}`).toBe(true);
      }
    }
  });
});

describe('the start of a link', () => {
  const times = Array.from({ length: 100 }, (_, i) => i / 100);
  const ramp = times.map((t) => Math.max(0, t - 0.5) * 10);

  it('is where the speed was last under a tenth of its peak', () => {
    // The ramp peaks at 4.9 at the last sample; it passes 0.49 at 0.549 s.
    expect(onset(times, ramp, 1, 0)!).toBeCloseTo(0.549, 9);
  });

  it('waits until the speed stands out of the noise at rest', () => {
    const shaky = ramp.map((v, i) => v + (i % 2 ? 0.3 : -0.3));
    expect(onset(times, shaky, 1, 0.3)!).toBeGreaterThan(0.55);
  });

  it('is nowhere when the peak hardly stands out of the noise', () => {
    const peak = Math.max(...ramp);
    expect(onset(times, ramp, 1, peak / 4.7)).toBeNull();
    expect(onset(times, ramp, 1, peak / 5.6)).not.toBeNull();
  });

  it('is nowhere when nothing moves, or when it was moving from the start', () => {
    expect(
      onset(
        times,
        times.map(() => 0),
        1,
        0,
      ),
    ).toBeNull();
    expect(
      onset(
        times,
        times.map(() => 1),
        1,
        0,
      ),
    ).toBeNull();
  });
});

describe('southpaw', () => {
  it.each(TECHNIQUES)('%s reads as its orthodox mirror image, to rounding', (technique) => {
    const readings = (stance: 'orthodox' | 'southpaw') =>
      measureKnown(clean(technique, { stance }), { rate: 120 }).readings;
    const [orthodox, southpaw] = [readings('orthodox'), readings('southpaw')];
    for (const id of Object.keys(orthodox) as (keyof typeof orthodox)[]) {
      expect(isAbsent(southpaw[id]), id).toBe(isAbsent(orthodox[id]));
      if (isAbsent(orthodox[id])) continue;
      expect(numberOf(southpaw[id]), id).toBeCloseTo(orthodox[id].value, 9);
    }
  });
});

describe('on the demo films, with points as exact as a click', () => {
  const onFilm = (file: string) => {
    const clip = DEMO_CLIPS.find((one) => one.file === file)!;
    const truth = truthOf(clip);
    const frameTimes = frameTimesOf(clip.recipe, clip.rate);
    const marks = Object.fromEntries(
      Object.entries(truth.frames).map(([event, frame]) => [event, markOnFrame(frameTimes, frame)]),
    );
    return analyze({
      strike: truth.strike,
      track: trackFromPlaced(truth.placed(2), frameTimes, 720),
      calibration: truth.calibration,
      marks,
    });
  };

  it.each([
    ['cross-clean.mp4', []],
    ['cross-all-at-once.mp4', ['all-at-once']],
    ['lead-hook-slap.mp4', ['slap']],
  ])('%s shows %j', (file, faults) => {
    expect(found(onFilm(file))).toEqual(faults);
  });

  it('reach from the side is the reach that was put in, within its ±', () => {
    const reach = onFilm('cross-clean.mp4').readings.reach;
    if (isAbsent(reach)) throw new Error(reach.absent);
    expect(Math.abs(reach.value - clean('cross').reach)).toBeLessThan(halfWidth(reach));
  });

  it('the slap from above is the opening that was put in, within its ±', () => {
    const drift = onFilm('lead-hook-slap.mp4').readings['elbow.drift'];
    if (isAbsent(drift)) throw new Error(drift.absent);
    // All but the very end of the opening lies in the last 80 ms before contact.
    expect(drift.value).toBeGreaterThan(FAULT_CHANGES.slap.drift - halfWidth(drift) - 0.06);
    expect(drift.value).toBeLessThan(FAULT_CHANGES.slap.drift + halfWidth(drift));
  });
});

describe('traces', () => {
  it('peak in the order of a sound cross: pelvis, trunk, fist, with the fist at its true speed', () => {
    const recipe = clean('cross');
    const { traces } = measureKnown(recipe, { rate: 240 });
    const peak = (link: 'pelvis' | 'trunk' | 'fist') => {
      const { times, values } = traces[link]!;
      const before = values.filter((_, i) => times[i]! <= recipe.contact + 1e-9);
      const most = Math.max(...before);
      return { time: times[before.indexOf(most)]!, most };
    };
    expect(peak('pelvis').time).toBeLessThan(peak('trunk').time);
    expect(peak('trunk').time).toBeLessThan(peak('fist').time);
    expect(peak('fist').most / Math.hypot(...trueVelocity(recipe))).toBeCloseTo(1, 1);
  });

  it('are not drawn from points too few or too far apart', () => {
    const recipe = clean('cross');
    const clip = DEMO_CLIPS.find((one) => one.file === 'cross-clean.mp4')!;
    const truth = truthOf(clip);
    const frameTimes = frameTimesOf(recipe, clip.rate);
    const linksFrom = (step: number) => {
      const track = trackFromPlaced(truth.placed(step), frameTimes, 720);
      const { calibration, strike } = truth;
      return Object.keys(analyze({ strike, track, calibration, marks: {} }).traces);
    };
    expect(linksFrom(4)).toEqual(['shoulder', 'elbow', 'fist']);
    expect(linksFrom(30)).toEqual([]);
  });
});

describe('views', () => {
  it('no single view claims what it cannot show', () => {
    const recipe = clean('cross');
    const clip = DEMO_CLIPS.find((one) => one.file === 'cross-clean.mp4')!;
    const shown = Object.fromEntries(
      VIEWS.map((view) => {
        const truth = truthOf({ ...clip, view, recipe });
        const frameTimes = frameTimesOf(recipe, clip.rate);
        const marks = Object.fromEntries(
          Object.entries(truth.frames).map(([event, f]) => [event, markOnFrame(frameTimes, f)]),
        );
        const track = trackFromPlaced(truth.placed(2), frameTimes, 720);
        const { calibration, strike } = truth;
        const { readings } = analyze({ strike, track, calibration, marks });
        const ids = [
          'speed.contact',
          'reach',
          'elbow.contact',
          'flare',
          'separation.growth',
        ] as const;
        return [view, ids.filter((id) => !isAbsent(readings[id]))];
      }),
    );
    expect(shown).toEqual({
      side: ['speed.contact', 'reach', 'elbow.contact'],
      front: ['flare'],
      behind: ['flare'],
      above: ['speed.contact', 'flare', 'separation.growth'],
    });
  });
});
