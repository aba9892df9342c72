import { clean } from '@sinew/fighters/fighter/recipe';
import { knownTrack } from '@sinew/fighters/fighter/track';
import { truthOfStrike } from '@sinew/fighters/fighter/truth';
import { REAL } from '@sinew/fighters/trials/families';
import { mean } from 'd3-array';
import { measureKnown } from './fixtures';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { markOnFrame, orderProblems, type Events } from '../src/measure/events/events';
import { measureOne } from '../src/measure/measures/allMeasures';
import { UNKNOWN_BODY, type MeasureContext } from '../src/measure/measures/context';
import type { Calibration } from '../src/reconstruct/calibration/calibration';
import { motionFromPicture } from '../src/reconstruct/motion/motion';
import {
  absent,
  isAbsent,
  reading,
  type Measured,
  type Reading,
} from '../src/foundation/reading/reading';
import { parts, quantity, say, sayOrder } from '../src/foundation/reading/say';
import { techniqueById } from '../src/foundation/technique/techniques';
import { trackFromPlaced, type Placed } from '../src/observe/track/track';
import { nearestFrame, realFrameTimes } from '../src/observe/track/time';
import { seeStrike } from '../src/analysis/seenStrike';
import { propagate } from '../src/foundation/uncertainty/propagate';

const RATE = 100;
const times = Array.from({ length: 200 }, (_, i) => i / RATE);
const mark = (frame: number) => markOnFrame(times, frame);
const value = (measured: Measured): Reading => {
  if (isAbsent(measured)) throw new Error(measured.absent);
  return measured;
};

const SIDE: Calibration = {
  view: 'side',
  scale: { from: { x: 0, y: 0 }, to: { x: 0, y: 400 }, metres: 1 },
  target: { from: { x: 0, y: 300 }, to: { x: 500, y: 300 } },
};
const cross = { technique: techniqueById('cross'), side: 'right' } as const;
const hook = { technique: techniqueById('lead-hook'), side: 'left' } as const;

function context(
  placed: Placed[],
  events: Events,
  calibration: Calibration = SIDE,
  strike: typeof cross | typeof hook = cross,
) {
  const motion = motionFromPicture(trackFromPlaced(placed, times, 720), calibration, strike);
  return { strike, events, motion, body: UNKNOWN_BODY };
}
const measuring = (id: Parameters<typeof measureOne>[0]) => (given: MeasureContext) =>
  measureOne(id, given);
const elbowAtContact = measuring('elbow.contact');
const elbowDrift = measuring('elbow.drift');
const flare = measuring('flare');
const reach = measuring('reach');
const separationGrowth = measuring('separation.growth');
const contactSpeed = measuring('speed.contact');
const recoil = measuring('recoil');
const hipsBeforeTrunk = measuring('lead.hipsTrunk');
const point = (landmark: Placed['landmark'], frame: number, x: number, y: number): Placed => ({
  landmark,
  frame,
  x,
  y,
});
const fistAt = (frames: number[], x: (frame: number) => number) =>
  frames.map((frame) => point('rightIndexKnuckle', frame, x(frame), 300));

describe('timing', () => {
  const events: Events = {
    load: mark(10),
    hips: mark(30),
    trunk: mark(34),
    arm: mark(40),
    contact: mark(60),
    end: mark(62),
    home: mark(92),
  };

  it('measures phases and leads between marks, with √2 · Δt/√12', () => {
    const lead = value(hipsBeforeTrunk(context([], events)));
    expect(lead.value).toBeCloseTo(0.04, 12);
    expect(lead.sigma).toBeCloseTo((Math.SQRT2 * 0.01) / Math.sqrt(12), 12);
    expect(lead).toMatchObject({ unit: 's', source: 'eye', frames: [30, 34] });
    const load = value(measureOne('phase.load', context([], events)));
    expect(load.value).toBeCloseTo(0.2, 12);
  });

  it('takes the way home against the way out', () => {
    expect(value(recoil(context([], events))).value).toBeCloseTo(1.5, 12);
  });

  it('says which mark is missing, and that a phase did not take place', () => {
    expect(hipsBeforeTrunk(context([], { hips: mark(3) }))).toEqual(
      absent('Mark the start of the trunk.'),
    );
    const turned = context([], { ...events, trunk: mark(28) });
    expect(measureOne('phase.explode', turned)).toMatchObject({ absent: /no explode phase/ });
    expect(recoil(context([], { ...events, arm: mark(60) }))).toHaveProperty('absent');
  });

  it('grows with the coach’s own doubt', () => {
    const wide = { ...events, hips: markOnFrame(times, 30, 5) };
    const sigma = value(hipsBeforeTrunk(context([], wide))).sigma;
    expect(sigma).toBeCloseTo((0.01 / Math.sqrt(12)) * Math.hypot(5, 1), 12);
  });

  it('finds marks that contradict each other', () => {
    expect(orderProblems(events)).toEqual([]);
    expect(orderProblems({ ...events, arm: mark(20), trunk: mark(12) })).toEqual([]);
    expect(orderProblems({ ...events, home: mark(50) })).toHaveLength(2);
    expect(() => markOnFrame(times, 400)).toThrow(/frame 400 is not in a clip of 200/);
  });
});

describe('speed at contact', () => {
  const events = { contact: mark(60) };

  it('is the slope at contact, in metres a second, and does not look past it', () => {
    // 8 px a frame at 100 a second and 400 px a metre: 2 m/s; the target stops it dead.
    const fist = fistAt([56, 57, 58, 59, 60, 61, 62], (f) => 8 * Math.min(f, 60));
    const speed = value(contactSpeed(context(fist, events)));
    expect(speed.value).toBeCloseTo(2, 9);
    expect(speed.frames).toEqual([56, 57, 58, 59, 60]);
  });

  it('follows a fist that is still getting faster where the picture is sharp enough', () => {
    const near = { ...SIDE, scale: { from: { x: 0, y: 0 }, to: { x: 0, y: 4000 }, metres: 1 } };
    const fist = fistAt([56, 57, 58, 59, 60], (f) => 5 * (f - 40) ** 2);
    const speed = value(contactSpeed(context(fist, events, near)));
    // Nearer to the truth than its mean speed on the way, and not sure of the rest.
    expect(speed.value).toBeGreaterThan(4.9);
    expect(Math.abs(speed.value - 5)).toBeLessThan(1.96 * speed.sigma);
  });

  it('lags where it is not, and its ± still holds the truth', () => {
    const fist = fistAt([56, 57, 58, 59, 60], (f) => 0.5 * (f - 40) ** 2);
    const speed = value(contactSpeed(context(fist, events)));
    expect(speed.value).toBeGreaterThan(4.5);
    expect(speed.value).toBeLessThan(4.9);
    expect(Math.abs(speed.value - 5)).toBeLessThan(1.96 * speed.sigma);
  });

  it('is surer with more points, and says what is missing with too few', () => {
    const sigma = (frames: number[]) =>
      value(
        contactSpeed(
          context(
            fistAt(frames, (f) => 8 * f),
            events,
          ),
        ),
      ).sigma;
    expect(sigma([57, 58, 59, 60])).toBeGreaterThan(sigma([56, 57, 58, 59, 60]));
    expect(
      contactSpeed(
        context(
          fistAt([60], (f) => f),
          events,
        ),
      ),
    ).toMatchObject({
      absent: 'Place the right index knuckle on two or more frames in the 60 ms before contact.',
      missing: { landmarks: ['rightIndexKnuckle'], frame: 58 },
    });
    expect(contactSpeed(context([], events))).toMatchObject({ missing: { frame: 60 } });
  });

  it('needs scale, target line and a view that shows it', () => {
    const fist = fistAt([56, 58, 60], (f) => f);
    expect(contactSpeed(context(fist, events, { ...SIDE, scale: null }))).toMatchObject({
      absent: 'Set the scale from a known length.',
    });
    expect(contactSpeed(context(fist, events, { ...SIDE, target: null }))).toMatchObject({
      absent: 'Draw the line to the target in the picture.',
    });
    expect(contactSpeed(context(fist, events, { ...SIDE, view: 'front' }))).toMatchObject({
      absent: 'A view from the front cannot show speed to the target; film from the side.',
    });
  });

  it('reads the same from a camera on the other side, and along a slanted line', () => {
    const other: Calibration = {
      ...SIDE,
      target: { from: { x: 500, y: 300 }, to: { x: 100, y: 300 } },
    };
    const mirrored = fistAt([56, 57, 58, 59, 60], (f) => 900 - 8 * f);
    expect(value(contactSpeed(context(mirrored, events, other))).value).toBeCloseTo(2, 9);
    const slanted = { ...SIDE, target: { from: { x: 0, y: 0 }, to: { x: 300, y: 400 } } };
    const level = fistAt([56, 57, 58, 59, 60], (f) => 8 * f);
    expect(value(contactSpeed(context(level, events, slanted))).value).toBeCloseTo(2 * 0.6, 9);
  });
});

describe('reach', () => {
  /** An arm of 120 + 100 + 40 px that is straight on frame 50. */
  const straight = [
    point('rightShoulder', 50, 100, 300),
    point('rightElbow', 50, 220, 300),
    point('rightWrist', 50, 320, 300),
    point('rightIndexKnuckle', 50, 360, 300),
  ];
  const atContact = (share: number) => [
    ...straight,
    point('rightShoulder', 60, 140, 300),
    point('rightIndexKnuckle', 60, 140 + 260 * share, 300),
  ];

  it('is the share of the arm’s own length, and needs no scale', () => {
    const unscaled = { ...SIDE, scale: null };
    const used = value(reach(context(atContact(0.8), { contact: mark(60) }, unscaled)));
    expect(used.value).toBeCloseTo(0.8, 9);
    expect(used.unit).toBe('ratio');
  });

  it('is less sure where contact may be a frame off', () => {
    const at = (width: number) =>
      value(reach(context(atContact(0.8), { contact: markOnFrame(times, 60, width) }))).sigma;
    expect(at(5)).toBeGreaterThan(at(1));
  });

  it('asks for the joint that is missing', () => {
    const noElbow = atContact(0.9).filter((p) => p.landmark !== 'rightElbow');
    expect(reach(context(noElbow, { contact: mark(60) }))).toMatchObject({
      absent: 'Place the right elbow on frame 60.',
      missing: { landmarks: ['rightElbow'], frame: 60 },
    });
  });
});

describe('the elbow', () => {
  const arm = (frame: number, degrees: number): Placed[] => {
    const bend = Math.PI - (degrees * Math.PI) / 180;
    return [
      point('rightShoulder', frame, 100, 300),
      point('rightElbow', frame, 200, 300),
      point('rightWrist', frame, 200 + 100 * Math.cos(bend), 300 + 100 * Math.sin(bend)),
    ];
  };
  const degrees = (measured: Measured) => (value(measured).value * 180) / Math.PI;

  it('has the inner angle at contact, whatever the target line', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 20, max: 170 }),
        fc.double({ min: -3, max: 3, noNaN: true }),
        (angle, turn) => {
          const target = { from: { x: 0, y: 0 }, to: { x: Math.cos(turn), y: Math.sin(turn) } };
          const given = context(arm(60, angle), { contact: mark(60) }, { ...SIDE, target });
          expect(degrees(elbowAtContact(given))).toBeCloseTo(angle, 6);
        },
      ),
    );
  });

  it('drifts by the change over the last 80 ms, opening counted positive', () => {
    const given = context([...arm(52, 90), ...arm(60, 118)], { contact: mark(60) });
    expect(degrees(elbowDrift(given))).toBeCloseTo(28, 6);
    const asked = elbowDrift(context(arm(60, 90), { contact: mark(60) }));
    expect(asked).toMatchObject({ missing: { landmarks: ['rightShoulder'], frame: 52 } });
  });

  it('of a hook is not read from the side', () => {
    const given = context([], { contact: mark(60) }, SIDE, hook);
    expect(elbowAtContact(given)).toMatchObject({
      absent:
        'A view from the side cannot show the elbow’s bend in a lead hook; film from above.'.replace(
          '’',
          "'",
        ),
    });
  });

  it('flares by its largest way out of the shoulder’s plane, from front and behind alike', () => {
    const out = (frame: number) => 60 - (frame - 50) ** 2;
    const seen = (view: 'front' | 'behind', sign: 1 | -1) =>
      context(
        [42, 44, 46, 48, 50, 52, 54, 56, 58, 60].flatMap((frame) => [
          point('rightShoulder', frame, 400, 200),
          point('rightElbow', frame, 400 + sign * out(frame), 300),
        ]),
        { arm: mark(42), contact: mark(60) },
        { ...SIDE, view, target: null },
      );
    expect(value(flare(seen('behind', 1))).value).toBeCloseTo(60 / 400, 9);
    expect(value(flare(seen('front', -1))).value).toBeCloseTo(60 / 400, 9);
    expect(value(flare(seen('front', -1))).frames).toEqual([50]);
  });

  it('asks for more points where the largest way out may have been missed', () => {
    const given = context(
      [42, 60].flatMap((frame) => [
        point('rightShoulder', frame, 400, 200),
        point('rightElbow', frame, 390, 300),
      ]),
      { arm: mark(42), contact: mark(60) },
      { ...SIDE, view: 'front', target: null },
    );
    expect(flare(given)).toMatchObject({ missing: { frame: 51 } });
  });
});

describe('separation', () => {
  const ABOVE: Calibration = { ...SIDE, view: 'above' };
  /** A line of two joints, seen from above, turned by an angle; the target lies to the right. */
  const line = (frame: number, part: 'Hip' | 'Shoulder', yaw: number): Placed[] => {
    const [dx, dy] = [50 * Math.sin(yaw), 50 * Math.cos(yaw)];
    return [
      point(`left${part}`, frame, 300 - dx, 300 - dy),
      point(`right${part}`, frame, 300 + dx, 300 + dy),
    ];
  };
  const frames = Array.from({ length: 31 }, (_, i) => 30 + i);
  const turning = (lag: number) =>
    frames.flatMap((frame) => [
      ...line(frame, 'Hip', (frame - 30) * 0.02),
      ...line(frame, 'Shoulder', Math.max(0, frame - 30 - lag) * 0.02),
    ]);
  const events = { hips: mark(30), contact: mark(60) };

  it('grows by what the pelvis gains on the trunk', () => {
    const growth = value(separationGrowth(context(turning(10), events, ABOVE)));
    expect(growth.value).toBeCloseTo(0.2, 6);
    expect(value(separationGrowth(context(turning(0), events, ABOVE))).value).toBeCloseTo(0, 6);
  });

  it('cannot be read from the side, and asks for points that are too few', () => {
    expect(separationGrowth(context(turning(5), events))).toMatchObject({
      absent:
        'A view from the side cannot show hips turning against shoulders; film from behind with bands on, or from above.',
    });
    const few = turning(5).filter((p) => p.frame % 6 === 0);
    expect(separationGrowth(context(few, events, ABOVE))).toHaveProperty('absent');
  });
});

describe('readings', () => {
  it('never carry a value that is not a number', () => {
    expect(reading(NaN, 'm', 1, 'eye', [])).toHaveProperty('absent');
    expect(reading(1, 'm', Infinity, 'eye', [])).toHaveProperty('absent');
  });

  it('are said in the units of the mat, with the 95 % half-width', () => {
    const of = (v: number, unit: Reading['unit'], sigma: number): Reading => ({
      value: v,
      unit,
      sigma,
      source: 'eye',
      frames: [],
    });
    expect(say(of(0.035, 's', 0.0017))).toBe('35 ± 3 ms');
    expect(say(of(Math.PI / 2, 'rad', 0.03))).toBe('90 ± 3°');
    expect(say(of(-0.041, 'm', 0.003))).toBe('−4.1 ± 0.6 cm');
    expect(sayOrder(of(-0.012, 's', 0.002))).toBe('12 ± 4 ms before');
    expect(sayOrder(of(0.0002, 's', 0.002))).toBe('within 4 ms of');
    expect(quantity(0.85, 'ratio')).toBe('85 %');
    expect(parts(of(-0.0001, 's', 0.002)).value).toBe('0');
  });
});

// ISO/IEC Guide 98-3 (GUM), annex H.2: with correlations left out the combined uncertainty of
// R = V/I · cos φ is the root of the sum of squares of its linear parts.
it('uncertainty spreads to first order', () => {
  const f = ([v, i, phi]: readonly number[]) => (v! / i!) * Math.cos(phi!);
  const [v, i, phi] = [4.999, 0.019661, 1.04446];
  const [sv, si, sp] = [0.0032, 0.0000095, 0.00075];
  const expected = Math.hypot(
    (Math.cos(phi) / i) * sv,
    ((v * Math.cos(phi)) / i ** 2) * si,
    ((v * Math.sin(phi)) / i) * sp,
  );
  expect(propagate(f, [v, i, phi], [sv, si, sp])).toBeCloseTo(expected, 6);
});

it('slow-motion film is measured in the time in which it was shot', () => {
  const file = [10, 10.1, 10.3, 10.4];
  expect(realFrameTimes(file, null)).toEqual([0, 0.1, 0.3, 0.4].map((t) => expect.closeTo(t, 9)));
  // 3 intervals in 0.4 s play at 7.5 a second; shot at 75 it took a tenth of the time.
  expect(realFrameTimes(file, 75)).toEqual([0, 0.01, 0.03, 0.04].map((t) => expect.closeTo(t, 9)));
});

describe('the turn of pelvis and trunk', () => {
  it('counts from the deepest coil: a hook that winds up is no arm alone', () => {
    const coiled = { pelvisCoil: (18 * Math.PI) / 180, pelvisTurn: (6 * Math.PI) / 180 };
    const plain = measureKnown(clean('lead-hook', { ...coiled, pelvisCoil: 0 }), { rate: 240 });
    const wound = measureKnown(clean('lead-hook', coiled), { rate: 240 });
    const turn = ({ readings }: typeof plain) => {
      const { value } = readings['turn.pelvis'] as Reading;
      return (value * 180) / Math.PI;
    };
    expect(turn(plain)).toBeCloseTo(6, 0);
    expect(Math.abs(turn(wound) - 24)).toBeLessThan(1);
  });

  it('counts from there also where nobody can tell when the hips start', () => {
    const coiled = clean('lead-hook', { pelvisCoil: (18 * Math.PI) / 180 });
    const track = knownTrack(coiled, { rate: 240, noise: 0, seed: 1 });
    const contact = markOnFrame(track.frameTimes, nearestFrame(track.frameTimes, coiled.contact));
    const seen = seeStrike({ track }, hook, { contact });
    const { hips: _, ...events } = seen.events;
    const { value } = measureOne('turn.pelvis', {
      strike: hook,
      motion: seen.motion,
      events,
      body: UNKNOWN_BODY,
    }) as Reading;
    const truth = truthOfStrike(coiled).values['turn.pelvis'];
    expect(Math.abs(((value - truth) * 180) / Math.PI)).toBeLessThan(1);
  });

  it('is not made larger by noise that looks like a coil', () => {
    const recipe = clean('rear-hook');
    const truth = truthOfStrike(recipe).values['turn.pelvis'];
    const errors = Array.from({ length: 12 }, (_, i) => {
      const sampling = { rate: 240, noise: 0.0025, seed: i + 1, flaws: REAL };
      const { value } = measureKnown(recipe, sampling).readings['turn.pelvis'] as Reading;
      return ((value - truth) * 180) / Math.PI;
    });
    // One is off by a degree or so: the mean of twelve by 0.3.
    expect(Math.abs(mean(errors)!)).toBeLessThan(0.6);
  });
});
