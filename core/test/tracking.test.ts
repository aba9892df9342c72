/** What a body tracker saw, made into a track: faults are put in and must be found, and only those. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { LANDMARKS, mirrored, type Landmark } from '../src/foundation/body/landmarks';
import { analyze, measure } from '../src/analysis/analyze';
import { markOnFrame } from '../src/measure/events/events';
import { nearestFrame } from '../src/observe/track/time';
import { assumed } from '../src/reconstruct/calibration/assumed';
import { estimatedSpace } from '../src/reconstruct/calibration/estimated';
import { techniqueById } from '../src/foundation/technique/techniques';
import {
  cleanDetections,
  trackFrom,
  type Said,
  type Tracking,
} from '../src/observe/track/trackFromDetections';
import { boxOf, withRoom } from '../src/observe/track/box';
import { spaceOnFilm, detectionsOnFilm } from '../src/observe/track/onFilm';
import { limbDoubts } from '../src/observe/track/limbDoubts';
import { limbOf } from '../src/observe/track/sides';
import {
  seen,
  detectionOf,
  type Seen,
  type PoseDetection,
} from '../src/observe/track/poseDetection';
import { statureOf } from '../src/observe/track/stature';
import {
  cutTrack,
  trackFromPlaced,
  type PictureTrack,
  type SpaceTrack,
} from '../src/observe/track/track';
import { clean } from '@sinew/fighters/fighter/recipe';
import { detected } from '@sinew/fighters/fighter/detected';
import { CAMERAS, type Camera } from '@sinew/fighters/film/camera';

const RATE = 120;
const HEIGHT = 720;
const recipe = clean('cross');
const camera = CAMERAS.side;
const { frameTimes, detections } = detected(recipe, camera, { rate: RATE, noise: 1, seed: 5 });
const exact = detected(recipe, camera, { rate: RATE, noise: 0, seed: 5 }).detections;
/** Pixels a metre in this film, and the fighter's height in it. */
const STATURE = recipe.height * 385;

const NOTHING: Said = { placed: [], corrections: [] };

function trackOf(all: readonly PoseDetection[], said: Said = NOTHING): Tracking {
  return trackFrom(cleanDetections(all, frameTimes), said, HEIGHT);
}

/** The detections with one landmark changed on some frames. */
function changed(
  landmarks: readonly Landmark[],
  [from, to]: readonly [number, number],
  change: (own: Seen, detection: PoseDetection, landmark: Landmark) => Seen,
): PoseDetection[] {
  return detections.map((detection) =>
    detection.frame < from || detection.frame > to
      ? detection
      : detectionOf(detection.frame, (landmark) => {
          const own = seen(detection, landmark);
          return landmarks.includes(landmark) ? change(own, detection, landmark) : own;
        }),
  );
}

function pointAt({ track }: Tracking, landmark: Landmark, frame: number) {
  const points = track.points[landmark]!;
  const i = points.frames.indexOf(frame);
  return i < 0 ? null : { x: points.x[i]!, y: points.y[i]! };
}

const truthAt = (landmark: Landmark, frame: number) => seen(exact[frame]!, landmark);

function offAt(tracking: Tracking, landmark: Landmark, frame: number): number {
  const point = pointAt(tracking, landmark, frame)!;
  const truth = truthAt(landmark, frame);
  return Math.hypot(point.x - truth.x, point.y - truth.y);
}

describe('a body seen without faults', () => {
  it('is tracked as it was seen, in every frame, and nothing is doubted', () => {
    const tracking = trackOf(detections);
    expect(tracking.doubts).toEqual([]);
    for (const landmark of LANDMARKS) {
      expect(tracking.track.points[landmark]!.frames).toHaveLength(detections.length);
    }
    for (const frame of [0, 60, 84, 100]) {
      expect(pointAt(tracking, 'rightWrist', frame)).toEqual({
        x: seen(detections[frame]!, 'rightWrist').x,
        y: seen(detections[frame]!, 'rightWrist').y,
      });
    }
  });

  it('is as tall as it is: within 5 % from side, front and behind', () => {
    for (const view of ['side', 'front', 'behind'] as const) {
      const { detections: own } = detected(recipe, CAMERAS[view], { rate: 60, noise: 1, seed: 2 });
      expect(Math.abs(statureOf(own) / STATURE - 1)).toBeLessThan(0.05);
    }
    expect(statureOf([])).toBe(0);
  });

  it('tells its own shake: independent noise of 1 px is said to be 1 px, give or take a quarter', () => {
    const { track } = trackOf(detections);
    for (const landmark of ['nose', 'leftKnee', 'leftAnkle'] as const) {
      const sigma = track.points[landmark]!.sigma[10]!;
      expect(sigma).toBeGreaterThan(0.75);
      expect(sigma).toBeLessThan(1.25);
    }
  });

  it.each(['jab', 'lead-hook', 'elbow-round', 'front-kick', 'round-kick'] as const)(
    'has no doubts in a %s, from any side it is filmed from, at 60 to 240 a second',
    (technique) => {
      for (const view of ['side', 'front', 'behind'] as const) {
        for (const rate of [60, 120, 240]) {
          const own = detected(clean(technique), CAMERAS[view], { rate, noise: 1, seed: rate });
          const tracking = trackFrom(
            cleanDetections(own.detections, own.frameTimes),
            NOTHING,
            HEIGHT,
          );
          expect([view, rate, tracking.doubts]).toEqual([view, rate, []]);
        }
      }
    },
  );
});

describe('faults put in', () => {
  const arms = limbOf('leftWrist');

  it('arms that change places are put back, and said to have been', () => {
    const swapped = changed(arms, [40, 51], (_, detection, landmark) =>
      seen(detection, mirrored(landmark)),
    );
    const tracking = trackOf(swapped);
    for (const frame of [39, 40, 45, 51, 52]) {
      for (const landmark of arms) expect(offAt(tracking, landmark, frame)).toBeLessThan(5);
    }
    const doubt = tracking.doubts.find(({ landmark }) => landmark === 'rightWrist')!;
    expect([doubt.from, doubt.to, doubt.why]).toEqual([40, 51, 'swapped']);
    expect(new Set(tracking.doubts.map(({ landmark }) => landmark))).toEqual(new Set(arms));
  });

  it('a point that jumps is left out for as long as it is away, and nothing is invented', () => {
    const jumped = changed(['rightKnee'], [70, 76], (own) => ({ ...own, x: own.x + 160 }));
    const tracking = trackOf(jumped);
    for (let frame = 70; frame <= 76; frame++) {
      expect(pointAt(tracking, 'rightKnee', frame)).toBeNull();
    }
    expect(tracking.doubts.some((one) => one.landmark === 'rightKnee' && one.why === 'jumps')).toBe(
      true,
    );
    expect(offAt(tracking, 'rightKnee', 69)).toBeLessThan(5);
    expect(offAt(tracking, 'rightKnee', 77)).toBeLessThan(5);
  });

  it('a forearm longer than a body has it loses wrist and hand, not the elbow', () => {
    const hand: Landmark[] = ['leftWrist', 'leftIndexKnuckle', 'leftLittleKnuckle'];
    // Drawn out slowly, so that nothing jumps.
    const long = changed(hand, [0, 160], (own, detection) => {
      const elbow = seen(detection, 'leftElbow');
      const by = 1 + 1.4 * Math.sin((Math.PI * Math.min(detection.frame, 80)) / 80);
      return { ...own, x: elbow.x + by * (own.x - elbow.x), y: elbow.y + by * (own.y - elbow.y) };
    });
    const tracking = trackOf(long);
    for (const landmark of hand) {
      expect(pointAt(tracking, landmark, 40)).toBeNull();
      expect(pointAt(tracking, landmark, 0)).not.toBeNull();
    }
    expect(offAt(tracking, 'leftElbow', 40)).toBeLessThan(5);
  });

  it('what is hidden is absent; what is poorly seen stays, less trusted', () => {
    const hidden = changed(['leftElbow'], [80, 95], (own) => ({
      ...own,
      x: own.x - 30,
      visibility: 0.1,
    }));
    const tracking = trackOf(hidden);
    expect(pointAt(tracking, 'leftElbow', 88)).toBeNull();
    expect(tracking.doubts).toEqual([{ landmark: 'leftElbow', from: 80, to: 95, why: 'hidden' }]);

    const unsure = trackOf(changed(['leftElbow'], [80, 95], (own) => ({ ...own, visibility: 0.4 })))
      .track.points.leftElbow!;
    expect(unsure.sigma[88]!).toBeGreaterThan(2 * unsure.sigma[40]!);
    expect(unsure.bias![88]!).toBeGreaterThan(1.5 * unsure.bias![40]!);
  });

  it('one wild frame is bridged without a word', () => {
    const wild = changed(['nose'], [50, 50], (own) => ({ ...own, y: own.y + 200 }));
    const tracking = trackOf(wild);
    expect(pointAt(tracking, 'nose', 50)).toBeNull();
    expect(tracking.doubts).toEqual([]);
  });

  it('wherever a jump is put in, it and only it is left out', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 5, max: 120 }),
        fc.integer({ min: 0, max: 8 }),
        fc.constantFrom<Landmark>('nose', 'leftKnee', 'leftEar', 'rightHip'),
        fc.constantFrom(-1, 1),
        (from, length, landmark, sign) => {
          const away = changed([landmark], [from, from + length], (own) => ({
            ...own,
            x: own.x + sign * 250,
          }));
          const { track } = trackOf(away);
          const frames = track.points[landmark]!.frames;
          const missing = detections.map(({ frame }) => frame).filter((f) => !frames.includes(f));
          expect(missing).toEqual(Array.from({ length: length + 1 }, (_, i) => from + i));
        },
      ),
      { numRuns: 40, seed: 11 },
    );
  });

  it('the order in which frames were looked at does not matter', () => {
    const shuffled = [...detections].sort((a, b) => ((a.frame * 7) % 13) - ((b.frame * 7) % 13));
    expect(trackOf(shuffled)).toEqual(trackOf(detections));
  });
});

describe('the coach’s word', () => {
  const at = 60;
  const placed = (dx: number, frame = at) => {
    const { x, y } = seen(detections[frame]!, 'rightHip');
    return { landmark: 'rightHip' as const, frame, x: x + dx, y };
  };
  const moved = (tracking: Tracking, frame: number) =>
    pointAt(tracking, 'rightHip', frame)!.x - seen(detections[frame]!, 'rightHip').x;

  it('a placed point wins and pulls its neighbours, less the farther they are', () => {
    const tracking = trackOf(detections, { ...NOTHING, placed: [placed(24)] });
    expect(moved(tracking, at)).toBeCloseTo(24, 3);
    // The hand reaches 80 ms, which are 9.6 frames.
    expect(moved(tracking, at + 1)).toBeCloseTo(24 * (1 - 1 / 9.6), 1);
    expect(moved(tracking, at - 5)).toBeCloseTo(24 * (1 - 5 / 9.6), 1);
    expect(moved(tracking, at + 10)).toBeCloseTo(0, 3);
  });

  it('between two placed points near each other the pull goes over from one to the other', () => {
    const said = { ...NOTHING, placed: [placed(24), placed(12, at + 12)] };
    const tracking = trackOf(detections, said);
    expect(moved(tracking, at + 6)).toBeCloseTo(18, 1);
    expect(moved(tracking, at + 12)).toBeCloseTo(12, 3);
  });

  it('pulled points are trusted more than tracked ones', () => {
    const { track } = trackOf(detections, { ...NOTHING, placed: [placed(0)] });
    const { bias } = track.points.rightHip!;
    expect(bias![at]!).toBe(0);
    expect(bias![at + 1]!).toBeLessThan(0.5 * bias![at + 30]!);
  });

  it('settles a doubt by placing, keeping or dropping, and touches no other landmark', () => {
    const hidden = changed(['leftElbow'], [80, 95], (own) => ({ ...own, visibility: 0.1 }));
    const range = { landmark: 'leftElbow' as const, from: 80, to: 95 };
    const kept = trackOf(hidden, { placed: [], corrections: [{ kind: 'keep', ...range }] });
    expect(kept.doubts).toEqual([]);
    expect(offAt(kept, 'leftElbow', 88)).toBeLessThan(5);
    const dropped = trackOf(hidden, { placed: [], corrections: [{ kind: 'drop', ...range }] });
    expect(dropped.doubts).toEqual([]);
    expect(pointAt(dropped, 'leftElbow', 88)).toBeNull();
    const byHand = [82, 94].map((frame) => ({
      landmark: 'leftElbow' as const,
      frame,
      x: truthAt('leftElbow', frame).x,
      y: truthAt('leftElbow', frame).y,
    }));
    expect(trackOf(hidden, { placed: byHand, corrections: [] }).doubts).toEqual([]);
    for (const landmark of LANDMARKS.filter((one) => one !== 'leftElbow')) {
      expect(kept.track.points[landmark]).toEqual(trackOf(hidden).track.points[landmark]);
    }
  });

  it('a swap over a range exchanges both limbs there; the same again takes it back', () => {
    const swap = { kind: 'swap' as const, landmark: 'leftKnee' as const, from: 30, to: 40 };
    const once = trackOf(detections, { placed: [], corrections: [swap] });
    // Knees are far apart, so what is swapped does not hang together with the rest: it jumps.
    const right = seen(detections[35]!, 'rightAnkle');
    const left = seen(once.detections[35]!, 'leftAnkle');
    expect([left.x, left.y]).toEqual([right.x, right.y]);
    const twice = trackOf(detections, { placed: [], corrections: [swap, swap] });
    expect(twice.track.points).toEqual(trackOf(detections).track.points);
  });

  it('without detections there is nothing but what was placed', () => {
    const said = { ...NOTHING, placed: [placed(0), placed(3, 70)] };
    expect(trackFrom(cleanDetections([], frameTimes), said, HEIGHT).track).toEqual(
      trackFromPlaced(said.placed, frameTimes, HEIGHT),
    );
  });

  it('a point dragged is fitted anew in well under a tenth of a second', () => {
    const base = cleanDetections(detections, frameTimes);
    trackFrom(base, { ...NOTHING, placed: [placed(1)] }, HEIGHT);
    const started = performance.now();
    for (let i = 0; i < 10; i++) trackFrom(base, { ...NOTHING, placed: [placed(i)] }, HEIGHT);
    expect((performance.now() - started) / 10).toBeLessThan(100);
  });
});

describe('from a track to a judgement', () => {
  const strike = { technique: techniqueById('cross'), side: 'right' as const };
  const judgedFrom = (change: Parameters<typeof clean>[1]) => {
    const own = clean('cross', change);
    const film = detected(own, camera, { rate: 240, noise: 1.5, seed: 3 });
    const tracking = trackFrom(cleanDetections(film.detections, film.frameTimes), NOTHING, HEIGHT);
    const bare = { view: 'side' as const, scale: null, target: null };
    const calibration = assumed(bare, tracking, strike, own.height);
    // The hit is heard, to within 8 ms as far as the camera may stand.
    const contact = markOnFrame(film.frameTimes, nearestFrame(film.frameTimes, own.contact), 7);
    const marks = { contact };
    const analysis = analyze({ strike, marks, track: tracking.track, calibration });
    return { own, tracking, calibration, analysis };
  };

  it('a badly jammed cross is found with nothing set and only the hit heard; a clean one is not', () => {
    const found = (change: Parameters<typeof clean>[1]) =>
      judgedFrom(change).analysis.findings.filter(({ status }) => status === 'found');
    expect(found({ reach: 0.58 }).map(({ fault }) => fault)).toEqual(['jammed']);
    expect(found({})).toEqual([]);
  });

  it('assumes a level line the way the strike goes, and a scale from the student’s height', () => {
    const { calibration, own } = judgedFrom({});
    expect(calibration.target!.to.x).toBeGreaterThan(calibration.target!.from.x);
    expect(calibration.target!.to.y).toBe(calibration.target!.from.y);
    const { from, to, metres } = calibration.scale!;
    expect(metres).toBe(own.height);
    expect(Math.abs((to.y - from.y) / (own.height * 385) - 1)).toBeLessThan(0.05);
  });

  it('of an end that goes both ways about as far believes where the camera stands', () => {
    const { tracking, own } = judgedFrom({});
    const way = (azimuth: number | undefined, stance: 'orthodox' | 'southpaw', back = 90) => {
      const frames = Array.from({ length: 60 }, (_, i) => i);
      // 100 pixels to the right, and back to so many left of where it began.
      const x = frames.map(
        (i) => 500 + (i < 30 ? 100 : -back) * Math.sin((Math.PI * (i % 30)) / 30),
      );
      const hand = { frames, x, y: frames.map(() => 300), sigma: frames.map(() => 1) };
      const side = stance === 'orthodox' ? ('right' as const) : ('left' as const);
      const points = { [`${side}IndexKnuckle`]: hand };
      const track = { ...tracking.track, points };
      const bare = { view: 'side' as const, scale: null, target: null };
      const seen = azimuth === undefined ? bare : { ...bare, azimuth };
      const { target } = assumed(seen, { ...tracking, track }, { ...strike, side }, own.height);
      return Math.sign(target!.to.x - target!.from.x);
    };
    expect(way(undefined, 'orthodox')).toBe(1);
    expect([way(1.5, 'orthodox'), way(-1.5, 'orthodox')]).toEqual([1, -1]);
    expect([way(1.5, 'southpaw'), way(-1.5, 'southpaw')]).toEqual([-1, 1]);
    // One that hardly goes back tells by itself.
    expect(way(-1.5, 'orthodox', 40)).toBe(1);
  });

  it('never takes the place of what the coach has set', () => {
    const { tracking } = judgedFrom({});
    const line = { from: { x: 0, y: 0 }, to: { x: -9, y: 1 } };
    const set = { view: 'side' as const, target: line, scale: { ...line, metres: 1 } };
    expect(assumed(set, tracking, strike, 1.8)).toEqual(set);
  });

  it('gives no speed at contact, where one film sees a hand least surely', () => {
    const { analysis } = judgedFrom({});
    expect(analysis.readings['speed.contact']).toMatchObject({
      absent: expect.stringMatching(/least surely where it lands/),
    });
  });

  it('a guess in space has places but no starts: those it cannot tell', () => {
    const { tracking, calibration } = judgedFrom({});
    const space = estimatedSpace(tracking, calibration, 'orthodox')!;
    expect(space.source).toBe('estimated-3d');
    const contact = { frame: 168, time: 0.7, sigma: 0.001, source: 'eye' as const };
    const { events } = measure({ strike, marks: { contact }, track: space });
    for (const event of ['load', 'hips', 'trunk', 'arm', 'pivotStart'] as const) {
      expect(events[event]).toBeUndefined();
    }
  });

  const EIGHTH = Math.PI / 4;
  /** Level, seven metres off, at an azimuth as orthodox students count it. */
  const corner = (azimuth: number): Camera => ({
    ...CAMERAS.side,
    position: [7 * Math.cos(azimuth), 0.95, 7 * Math.sin(azimuth)],
    lookAt: [0, 0.95, 0],
  });

  it.each([
    ['side', undefined, CAMERAS.side],
    ['front', undefined, CAMERAS.front],
    ['behind', undefined, CAMERAS.behind],
    ['behind', 3 * EIGHTH, corner(3 * EIGHTH)],
    ['front', -EIGHTH, corner(-EIGHTH)],
  ] as const)(
    'a guess in space from %s, azimuth %s, is turned to the student’s own axes',
    (view, azimuth, camera) => {
      const film = detected(recipe, camera, { rate: 60, noise: 0, seed: 1 });
      const tracking = trackFrom(
        cleanDetections(film.detections, film.frameTimes),
        NOTHING,
        HEIGHT,
      );
      const target = { from: { x: 0, y: 0 }, to: { x: 9, y: 0 } };
      const calibration = { view, scale: null, target, ...(azimuth !== undefined && { azimuth }) };
      const { points, deep } = estimatedSpace(tracking, calibration, 'orthodox')!;
      // Least sure along the line of sight, whichever way that is; never along the upright.
      const [toward, up, right] = deep!;
      expect(up).toBe(1);
      const lies = Math.abs(
        Math.cos(azimuth ?? { side: Math.PI / 2, front: 0, behind: Math.PI }[view]),
      );
      expect(toward > right).toBe(lies > Math.SQRT1_2 + 1e-6);
      expect(Math.max(toward, right)).toBeGreaterThan(1.5);
      const yaw = (frame: number) =>
        Math.atan2(
          points.rightShoulder!.x[frame]! - points.leftShoulder!.x[frame]!,
          points.rightShoulder!.z![frame]! - points.leftShoulder!.z![frame]!,
        );
      // Orthodox: the rear, right side is back by 45° (half the usual bladed stance).
      expect((yaw(0) * 180) / Math.PI).toBeGreaterThan(-50);
      expect((yaw(0) * 180) / Math.PI).toBeLessThan(-40);
    },
  );

  it('says nothing in space from above, or without the way to the target from the side', () => {
    const { tracking } = judgedFrom({});
    for (const view of ['above', 'side'] as const) {
      const calibration = { view, scale: null, target: null };
      expect(estimatedSpace(tracking, calibration, 'orthodox')).toBeNull();
    }
  });
});

describe('doubts as a coach names them', () => {
  const doubt = (landmark: Landmark, from: number, to: number) => ({
    landmark,
    from,
    to,
    why: 'hidden' as const,
  });

  it('are a limb’s where most of it is doubtful at once, else a point’s', () => {
    const named = limbDoubts([
      doubt('nose', 3, 9),
      doubt('leftElbow', 10, 40),
      doubt('leftWrist', 12, 44),
      doubt('leftIndexKnuckle', 11, 39),
      doubt('rightKnee', 20, 30),
      doubt('rightAnkle', 20, 30),
      doubt('leftWrist', 80, 90),
    ]).map(({ name, from, to, landmarks }) => [name, from, to, landmarks.length]);
    expect(named).toEqual([
      ['nose', 3, 9, 1],
      ['left arm', 10, 44, 3],
      ['right knee', 20, 30, 1],
      ['right ankle', 20, 30, 1],
      ['left wrist', 80, 90, 1],
    ]);
  });
});

describe('boxes', () => {
  it('hold every landmark, and stay inside the picture with room around', () => {
    const box = boxOf(detections[30]!);
    for (const landmark of LANDMARKS) {
      const { x, y } = seen(detections[30]!, landmark);
      expect(x).toBeGreaterThanOrEqual(box.x - 1e-3);
      expect(x).toBeLessThanOrEqual(box.x + box.width + 1e-3);
      expect(y).toBeLessThanOrEqual(box.y + box.height + 1e-3);
    }
    const wide = withRoom(box, 0.5, { width: 1280, height: 720 });
    expect(wide.x).toBeGreaterThanOrEqual(0);
    expect(wide.y).toBe(0);
    expect(wide.y + wide.height).toBe(720);
    expect(wide.width).toBeGreaterThan(box.width);
  });
});

describe('series from elsewhere', () => {
  const times = [0, 0.01, 0.02, 0.03, 0.3, 0.31];
  const line = {
    frames: [0, 1, 2, 3, 4, 5],
    x: times.map((time) => 100 * time),
    y: times.map(() => 7),
    sigma: times.map(() => 0.2),
  };
  const film = [0.5, 0.505, 0.515, 0.6, 0.8, 0.805, 0.9];

  it('are read at the film’s frames, between their own, but not across a gap', () => {
    const space: SpaceTrack = {
      space: '3d',
      source: 'measured-3d',
      frameTimes: times,
      points: { nose: { ...line, z: times.map((time) => -time) } },
    };
    const { points, frameTimes: own } = spaceOnFilm(space, film, 0.5);
    expect(own).toBe(film);
    expect(points.nose!.frames).toEqual([0, 1, 2, 4, 5]);
    expect(points.nose!.x[1]).toBeCloseTo(0.5, 9);
    expect(points.nose!.z![2]).toBeCloseTo(-0.015, 9);
  });

  it('in the picture count as seen; landmarks they do not have are hidden', () => {
    const flat: PictureTrack = {
      space: '2d',
      source: 'measured-2d',
      frameTimes: times,
      placingSigma: 1,
      points: { nose: line },
    };
    const own = detectionsOnFilm(flat, film, 0.5);
    expect(own.map(({ frame }) => frame)).toEqual([0, 1, 2, 4, 5]);
    expect(seen(own[1]!, 'nose').x).toBeCloseTo(0.5, 5);
    expect(seen(own[1]!, 'leftHip').visibility).toBe(0);
  });
});

it('a track is cut by time, all its lists alike', () => {
  const { track } = trackOf(detections);
  const cut = cutTrack(track, [0.25, 0.5]).points.nose!;
  expect(cut.frames).toEqual(Array.from({ length: 31 }, (_, i) => 30 + i));
  expect([cut.x.length, cut.y.length, cut.sigma.length, cut.bias!.length]).toEqual([
    31, 31, 31, 31,
  ]);
});
