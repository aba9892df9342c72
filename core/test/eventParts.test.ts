/** What feet, load and contact are read off, and how a judgement is put together: closed forms. */
import { describe, expect, it } from 'vitest';
import { CHAIN, techniqueById } from '../src/foundation/technique/techniques';
import { isAbsent } from '../src/foundation/reading/reading';
import { mendFor } from '../src/judge/cost/estimate';
import { CATALOGUE, faultById } from '../src/judge/fault/faults';
import { USUAL_RULES, type Finding } from '../src/judge/fault/finding';
import { judgeFault, type judge } from '../src/judge/fault/judge';
import { ranked } from '../src/judge/fault/rank';
import { caseSchema } from '../src/judge/fault/schema';
import type { Model } from '../src/judge/simulate/strike';
import { proposeContact, proposeEnd } from '../src/measure/events/contact';
import { markAt } from '../src/measure/events/events';
import { armOf } from '../src/reconstruct/motion/speeds';
import { PHASES } from '../src/measure/events/phases';
import { proposeFeet } from '../src/measure/events/feet';
import { proposeLoad } from '../src/measure/events/starts';
import { throwLegs } from '../src/measure/measures/beyond';
import { withoutJumps } from '../src/observe/track/jumps';
import { LANDMARKS } from '../src/foundation/body/landmarks';
import { detectionOf } from '../src/observe/track/poseDetection';
import { meanRate, nearestFrame } from '../src/observe/track/time';
import { cleanDetections, trackFrom } from '../src/observe/track/trackFromDetections';
import { motionOf, pathOf, RATE, TIMES, type Place } from './spaceMotion';

const cross = techniqueById('cross');
const mark = (time: number) => markAt(TIMES, time, 0.001, 'measured-3d');
const ALL = { ready: mark(0.1), contact: mark(0.9), home: mark(0.98) };
const still = (place: Place) => pathOf(() => place);
/** From 0 before `from`, rising at a rate until it has come to `most`. */
const rising = (t: number, from: number, rate: number, most = Infinity) =>
  Math.min(most, Math.max(0, rate * (t - from)));

describe('a heel', () => {
  const heel = (up: (t: number) => number) =>
    motionOf({ rightHeel: pathOf((t) => [0, 0.03 + up(t), 0]), rightToe: still([0.2, 0, 0]) });

  it('is up when it is 2 cm above where it stood, between two frames', () => {
    const { rearHeelUp } = proposeFeet(
      heel((t) => rising(t, 0.301, 0.1)),
      cross,
      ALL,
    );
    expect(rearHeelUp!.time).toBeCloseTo(0.501, 6);
    // 2 mm over 0.1 m/s, and the spacing of the frames.
    expect(rearHeelUp!.sigma).toBeCloseTo(Math.hypot(0.02, 1 / RATE / Math.sqrt(12)), 6);
  });

  it('counts from where it is at ready, and until contact', () => {
    const before = heel((t) => 0.05 - rising(t, 0, 0.5, 0.05) + rising(t, 0.301, 0.1));
    expect(proposeFeet(before, cross, ALL).rearHeelUp!.time).toBeCloseTo(0.501, 6);
    const late = { ...ALL, contact: mark(0.45) };
    expect(
      proposeFeet(
        heel((t) => rising(t, 0.301, 0.1)),
        cross,
        late,
      ).rearHeelUp,
    ).toBeUndefined();
  });

  it('that goes down through that height, and up again, is up the second time', () => {
    const twice = heel((t) =>
      t < 0.11 ? 0 : 0.03 - rising(t, 0.2, 0.2, 0.03) + rising(t, 0.6, 0.1),
    );
    expect(proposeFeet(twice, cross, { ...ALL, ready: mark(0.12) }).rearHeelUp).toBeUndefined();
    const low = heel(
      (t) => 0.03 * Number(t > 0.05) - rising(t, 0.2, 0.2, 0.03) + rising(t, 0.5, 0.2),
    );
    expect(proposeFeet(low, cross, { ...ALL, ready: mark(0.3875) }).rearHeelUp!.time).toBeCloseTo(
      0.6,
      2,
    );
  });

  it('is told from the front, whose first axis is up, and not without a scale or from above', () => {
    const flat = (axes: ('up' | 'right' | 'toward')[], metric: boolean) => {
      const motion = heel((t) => rising(t, 0.301, 0.1));
      const index = { toward: 0, up: 1, right: 2 };
      const paths = Object.fromEntries(
        Object.entries(motion.paths).map(([name, path]) => [
          name,
          { ...path, along: axes.map((axis) => path.along[index[axis]]!) },
        ]),
      );
      return motionOf(paths, { axes, metric, view: 'front' });
    };
    expect(proposeFeet(flat(['up', 'right'], true), cross, ALL).rearHeelUp!.time).toBeCloseTo(
      0.501,
      6,
    );
    expect(proposeFeet(flat(['up', 'right'], false), cross, ALL).rearHeelUp).toBeUndefined();
    expect(proposeFeet(flat(['toward', 'right'], true), cross, ALL).rearHeelUp).toBeUndefined();
  });
});

describe('a step', () => {
  const up = (t: number) => rising(t, 0.301, 0.3, 0.06) - rising(t, 0.601, 0.3, 0.06);
  const foot = (heelUp: (t: number) => number, toeUp: (t: number) => number) => ({
    leftHeel: pathOf((t) => [t, 0.02 + heelUp(t), 0]),
    leftToe: pathOf((t) => [t + 0.2, toeUp(t), 0]),
  });

  it('begins when heel and toe are 3 cm up, and ends when one is on the floor', () => {
    const { footLift, footLand } = proposeFeet(motionOf(foot(up, up)), cross, ALL);
    expect(footLift!.time).toBeCloseTo(0.401, 6);
    // It comes down 6 cm at 0.3 m a second, and stops there.
    expect(Math.abs(footLand!.time - (0.601 + 0.06 / 0.3))).toBeLessThan(0.004);
    expect(footLand!.sigma).toBeLessThan(0.006);
    // A heel that comes down behind the toes lands nothing.
    const rolled = proposeFeet(motionOf(foot((t) => up(t - 0.05), up)), cross, ALL).footLand!;
    expect(Math.abs(rolled.time - 0.801)).toBeLessThan(0.006);
    const tiptoe = proposeFeet(motionOf(foot(up, () => 0)), cross, ALL);
    expect(tiptoe.footLift).toBeUndefined();
  });

  it('has no end that comes after home, and needs heights in metres', () => {
    const early = { ...ALL, home: mark(0.7) };
    const { footLift, footLand } = proposeFeet(motionOf(foot(up, up)), cross, early);
    expect(footLift!.time).toBeCloseTo(0.401, 6);
    expect(footLand).toBeUndefined();
    expect(proposeFeet(motionOf(foot(up, up), { metric: false }), cross, ALL)).toEqual({});
    const seen = foot(up, up);
    const front = Object.fromEntries(
      Object.entries(seen).map(([name, path]) => [
        name,
        { ...path, along: [path.along[1]!, path.along[2]!] },
      ]),
    );
    const asSeen = motionOf(front, { axes: ['up', 'right'], view: 'front' });
    expect(proposeFeet(asSeen, cross, ALL).footLift!.time).toBeCloseTo(0.401, 6);
    const above = Object.fromEntries(
      Object.entries(seen).map(([name, path]) => [
        name,
        { ...path, along: [path.along[0]!, path.along[2]!] },
      ]),
    );
    const fromAbove = motionOf(above, { axes: ['toward', 'right'], view: 'above' });
    expect(proposeFeet(fromAbove, cross, ALL).footLift).toBeUndefined();
  });

  it('is of the foot that leaves the floor first', () => {
    const later = (t: number) => up(t - 0.1);
    const right = foot(up, up);
    const both = motionOf({
      ...foot(later, later),
      rightHeel: right.leftHeel,
      rightToe: right.leftToe,
    });
    expect(proposeFeet(both, cross, ALL).footLift!.time).toBeCloseTo(0.401, 6);
  });
});

describe('a foot that pivots', () => {
  /** Turned by `yaw`, as a strike with the right turns: toward the left. */
  const foot = (side: 'left' | 'right', yaw: (t: number) => number) => ({
    [`${side}Heel`]: still([0, 0, 0]),
    [`${side}Toe`]: pathOf((t) => [0.25 * Math.cos(yaw(t)), 0, -0.25 * Math.sin(yaw(t))]),
  });
  const turning = (from: number) => (t: number) =>
    from + 1.2 * (0.5 - 0.5 * Math.cos(Math.PI * rising(t, 0.4, 4, 1)));

  it('starts when it turns, also through the far side, where angles begin anew', () => {
    for (const from of [0.3, 2.9, -3]) {
      const { pivotStart } = proposeFeet(motionOf(foot('right', turning(from))), cross, ALL);
      expect(pivotStart!.time, `${from}`).toBeGreaterThan(0.38);
      expect(pivotStart!.time, `${from}`).toBeLessThan(0.46);
    }
  });

  it('is the striking one in a punch and the other one in a kick', () => {
    const kick = techniqueById('round-kick');
    const right = motionOf(foot('right', turning(0)));
    const left = motionOf(foot('left', turning(0)));
    expect(proposeFeet(right, cross, ALL).pivotStart).toBeDefined();
    expect(proposeFeet(left, cross, ALL).pivotStart).toBeUndefined();
    expect(proposeFeet(right, kick, ALL).pivotStart).toBeUndefined();
    expect(proposeFeet(left, kick, ALL).pivotStart).toBeDefined();
  });

  it('that hardly turns, or turns against the strike, has not pivoted', () => {
    const little = motionOf(foot('right', (t) => 0.1 * rising(t, 0.4, 4, 1)));
    expect(proposeFeet(little, cross, ALL).pivotStart).toBeUndefined();
    const back = motionOf(foot('right', (t) => -turning(0)(t)));
    expect(proposeFeet(back, cross, ALL).pivotStart).toBeUndefined();
    expect(
      proposeFeet(motionOf(back.paths, { turnSign: -1 }), cross, ALL).pivotStart,
    ).toBeDefined();
  });
});

it('the support foot is set where it last moved before contact', () => {
  const at = (t: number): Place => [0.4 * Math.min(t, 0.5), 0, 0];
  const motion = motionOf({ leftHeel: pathOf(at), leftToe: pathOf((t) => [at(t)[0] + 0.2, 0, 0]) });
  const { anchorSet } = proposeFeet(motion, cross, ALL);
  expect(anchorSet!.time).toBeGreaterThan(0.495);
  expect(anchorSet!.time).toBeLessThan(0.53);
});

describe('a load', () => {
  const dip = (from: number) => (t: number) =>
    0.05 * (0.5 - 0.5 * Math.cos(Math.PI * rising(t, from, 6, 1)));
  const hipsAt = (place: (t: number) => Place) => {
    const middle = pathOf(place);
    return motionOf({ leftHip: middle, rightHip: middle });
  };

  it('is where the pelvis begins to sink before the hips start', () => {
    const load = proposeLoad(
      hipsAt((t) => [0, 1 - dip(0.4)(t), 0]),
      mark(0.8),
    );
    expect(load!.time).toBeGreaterThan(0.38);
    expect(load!.time).toBeLessThan(0.45);
  });

  it('is none of what happened long before, of a breath, or of a body that stands turned', () => {
    expect(
      proposeLoad(
        hipsAt((t) => [0, 1 - dip(0.02)(t), 0]),
        mark(0.95),
      ),
    ).toBeNull();
    expect(
      proposeLoad(
        hipsAt((t) => [0, 1 - 0.05 * dip(0.4)(t), 0]),
        mark(0.8),
      ),
    ).toBeNull();
    for (const yaw of [-1.3, 1.3]) {
      const end = (sign: number) =>
        still([sign * 0.2 * Math.sin(yaw), 1.4, sign * 0.2 * Math.cos(yaw)]);
      const turned = motionOf({ leftShoulder: end(-1), rightShoulder: end(1) });
      expect(proposeLoad(turned, mark(0.8))).toBeNull();
    }
  });
});

describe('contact', () => {
  /** A fist that gets faster, and is stopped evenly within a time. */
  const fist = (stop: number) => {
    const [at, speed] = [0.6, 8];
    const before = (t: number) => 0.5 * (speed / 0.2) * rising(t, 0.4, 1) ** 2;
    return pathOf((t) => {
      if (t <= at) return [before(t), 1.4, 0];
      const during = Math.min(t - at, stop);
      return [before(at) + speed * during - (0.5 * speed * during ** 2) / stop, 1.4, 0];
    });
  };
  const found = (stop: number) =>
    proposeContact(motionOf({ rightIndexKnuckle: fist(stop), rightWrist: fist(stop) }), cross)!;

  it('of a fist that is stopped at once is told to a frame', () => {
    const contact = found(0.008);
    expect(Math.abs(contact.time - 0.6)).toBeLessThan(0.004);
    expect(contact.sigma).toBeLessThan(0.006);
  });

  it('of one that sinks in is less sure, by a third of its stop at the least', () => {
    const contact = found(0.04);
    expect(contact.sigma).toBeGreaterThan(0.04 / 3);
    expect(Math.abs(contact.time - 0.6)).toBeLessThan(3 * contact.sigma);
  });

  it('has its end where the fist stands', () => {
    const motion = motionOf({ rightIndexKnuckle: fist(0.02), rightWrist: fist(0.02) });
    const end = proposeEnd(motion, techniqueById('cross'), mark(0.6))!;
    expect(end.time).toBeGreaterThan(0.605);
    expect(end.time).toBeLessThan(0.64);
    // From the front only what is across the way is seen.
    expect(
      proposeEnd(
        { ...motion, view: 'front', axes: ['up', 'right'] },
        techniqueById('cross'),
        mark(0.6),
      ),
    ).toBeNull();
  });
});

describe('contact of an arm that has stopped before', () => {
  /** Gets evenly faster from a time on, to the speed that takes it so far by then, and is stopped within 10 ms. */
  const blow = (t: number, from: number, far: number, takes = 0.1) => {
    const speed = (2 * far) / takes;
    const rise = rising(t, from, 1, takes);
    const stop = rising(t, from + takes, 1, 0.01);
    return 0.5 * (speed / takes) * rise ** 2 + speed * (stop - (0.5 * stop ** 2) / 0.01);
  };
  /** Shoulders a step apart that turn so far, radians, between 0.45 s and 0.6 s. */
  const shoulders = (far: number, sign: 1 | -1 = 1) => {
    const turned = (t: number) => rising(t, 0.45, far / 0.15, far) * sign;
    const end = (side: number) =>
      pathOf((t) => [0.2 * side * Math.sin(turned(t)), 1.5, 0.2 * side * Math.cos(turned(t))]);
    return { leftShoulder: end(-1), rightShoulder: end(1) };
  };
  const struck = (id: string, at: (t: number) => Place, far: number) => {
    const path = pathOf(at);
    const arm = { rightIndexKnuckle: path, rightWrist: path, rightElbow: path };
    const technique = techniqueById(id);
    const motion = motionOf({ ...arm, ...shoulders(far) }, { end: technique.end });
    return proposeContact(motion, technique);
  };

  it('of a fist that dips to rise is where it comes up to', () => {
    const found = struck(
      'rear-uppercut',
      (t) => [0.5, 1.3 - blow(t, 0.2, 0.35) + blow(t, 0.5, 0.3), 0],
      0.8,
    )!;
    expect(Math.abs(found.time - 0.6)).toBeLessThan(2 * found.sigma);
    expect(found.sigma).toBeLessThan(0.015);
  });

  it('is asked for where it stopped harder before the body turned', () => {
    const set = (far: number) =>
      struck('rear-hook', (t) => [0.3 + blow(t, 0.5, 0.3), 1.4, blow(t, 0.2, far)], 0.8);
    expect(set(0.6)).toBeNull();
    const found = set(0.1)!;
    expect(Math.abs(found.time - 0.6)).toBeLessThan(2 * found.sigma);
  });

  it('is no error on the first frame, with nothing before it', () => {
    const path = pathOf((t) => [0.3 + blow(t, 0.5, 0.3), 1.4, 0]);
    const motion = motionOf({ rightIndexKnuckle: path, rightWrist: path, ...shoulders(0.8) });
    for (const id of ['cross', 'rear-hook'])
      expect(armOf(motion, techniqueById(id), 0, 'paths')).not.toBeNull();
  });

  it('goes by the limb alone where the body hardly turns', () => {
    const found = struck('rear-hook', (t) => [0.3 + blow(t, 0.5, 0.3), 1.4, 0], 0.1)!;
    expect(Math.abs(found.time - 0.6)).toBeLessThan(2 * found.sigma);
  });

  it('goes by the turn alone where the body goes right round and the limb comes back to where it was', () => {
    const round = (t: number) => blow(t, 0.3, 5, 0.3);
    const found = struck(
      'elbow-spin',
      (t) => [0.4 * (1 - Math.cos(round(t))), 1.4, 0.4 * Math.sin(round(t))],
      4,
    )!;
    expect(Math.abs(found.time - 0.6)).toBeLessThan(found.sigma);
  });
});

describe('a throw', () => {
  const at = (value: number) => ({ value, sigma: 0.1 });
  it('tells what the legs add, √(standing ÷ seated) − 1, where both flew', () => {
    const legs = throwLegs(at(9), at(4));
    expect(isAbsent(legs) ? null : legs.value).toBeCloseTo(0.5, 12);
    for (const [standing, seated] of [
      [0, 4],
      [9, 0],
      [-1, 4],
      [9, -1],
    ] as const) {
      expect(isAbsent(throwLegs(at(standing), at(seated))), `${standing} ${seated}`).toBe(true);
    }
  });
});

describe('the strike mended in order', () => {
  it('has hips first, the trunk 45 ms later, the limb 40 ms after that (check values)', () => {
    const joint = { onset: 0.3, torque: 1 };
    const model = { root: 2, joints: [joint, joint, joint, joint] } as unknown as Model;
    const { joints } = mendFor(model, 'in-order')(model);
    [0, 0.045, 0.085, 0.085].forEach((onset, i) => expect(joints[i]!.onset).toBeCloseTo(onset, 12));
  });
});

describe('a judgement', () => {
  const early = faultById('all-at-once')!;
  const reading = 'lead.hipsTrunk';
  const measured = (value: number) =>
    ({
      [reading]: { value, sigma: 0.001, unit: 's', source: 'measured-3d', frames: [3, 9] },
    }) as unknown as Parameters<typeof judge>[1];
  const limit = { reading, is: 'below', value: 0.01, unit: 's' } as never;
  const one = caseSchema.parse({ limits: [limit], evidence: '{lead.hipsTrunk}', clear: 'Good.' });
  const faultOf = (change: object) => ({ ...early, cases: [{ ...one, ...change }] });

  it('is made by the cases that are of the technique, or of all', () => {
    expect(judgeFault(faultOf({}), cross, measured(0))!.status).toBe('found');
    expect(judgeFault(faultOf({ techniques: ['cross'] }), cross, measured(0))!.status).toBe(
      'found',
    );
    expect(judgeFault(faultOf({ techniques: ['jab'] }), cross, measured(0))).toBeNull();
  });

  it('takes a case only with choices there are', () => {
    const when = (choices: readonly string[]) =>
      caseSchema.safeParse({
        limits: [limit],
        evidence: 'x',
        clear: 'y',
        when: { hookFist: choices },
      }).success;
    expect(when(['thumb-up'])).toBe(true);
    expect(when(['thumb-up', 'palm-down'])).toBe(true);
    expect(when(['thumb-up', 'sideways'])).toBe(false);
    expect(when(['sideways'])).toBe(false);
  });

  it('says what is open only where it cannot tell', () => {
    const absent = { [reading]: { absent: 'Not marked.' } } as never;
    expect(judgeFault(faultOf({}), cross, measured(0))!.open).toBeNull();
    expect(judgeFault(faultOf({}), cross, measured(0.05))!.open).toBeNull();
    const open = judgeFault(faultOf({}), cross, absent)!;
    expect(open.status).toBe('cant-tell');
    expect(open.open).not.toBeNull();
  });

  it('reads from the ground up by phase and link, or from the shoulders down', () => {
    const shown = CATALOGUE.faults.map(
      ({ id }) => ({ fault: id, status: 'found', injury: false, cost: null }) as unknown as Finding,
    );
    const places = (choice: string) =>
      ranked([...shown].reverse(), {
        ...USUAL_RULES,
        school: { ...USUAL_RULES.school, readingOrder: { choice, from: 'usual' } },
      } as never).map(({ fault }) => faultById(fault)!);
    const order = (by: (fault: (typeof CATALOGUE.faults)[number]) => number, choice: string) => {
      const all = places(choice).map(by);
      expect(all).toEqual([...all].sort((a, b) => a - b));
    };
    const when = ({ phase }: { readonly phase: string }) =>
      PHASES.findIndex(({ id }) => id === phase);
    const where = ({ link }: { readonly link: (typeof CHAIN)[number] }) => CHAIN.indexOf(link);
    // Ten links and five phases at most: a hundred of one outweighs the other.
    order((fault) => 100 * when(fault) + where(fault), 'ground-up');
    order((fault) => -100 * where(fault) + when(fault), 'top-down');
  });
});

describe('tracked points', () => {
  const point = (i: number, x: number, visibility = 1) => ({
    frame: i,
    time: i / 30,
    x,
    y: 100,
    visibility,
  });

  it('that jump at the very end, or right after the first, are left out', () => {
    const steady = Array.from({ length: 12 }, (_, i) => point(i, 100 + i));
    expect(withoutJumps([...steady, point(12, 900)], 300)).toEqual([
      ...steady.map(() => true),
      false,
    ]);
    expect(withoutJumps([point(0, 100), point(1, 900, 0.3)], 300)).toEqual([true, false]);
  });

  it('of nothing are none', () => {
    expect(cleanDetections([], [0, 0.1]).cleaned.size).toBe(0);
    expect(withoutJumps([], 300)).toEqual([]);
  });

  const times = Array.from({ length: 9 }, (_, i) => i / 30);
  const standing = times.map((_, frame) =>
    detectionOf(frame, (landmark) => ({
      x: 200 + 20 * (landmark.startsWith('left') ? 1 : -1) + LANDMARKS.indexOf(landmark),
      y: 80 + 12 * LANDMARKS.indexOf(landmark),
      visibility: 1,
      inSpace: [0, 0, 0],
    })),
  );

  it('stay on their sides where the coach has dropped a point, and are tracked', () => {
    const base = cleanDetections(standing, times);
    const said = (kind: 'drop' | 'swap') =>
      trackFrom(
        base,
        { placed: [], corrections: [{ kind, landmark: 'leftWrist', from: 2, to: 4 }] as never },
        480,
      );
    const plain = trackFrom(base, { placed: [], corrections: [] }, 480);
    expect(said('drop').detections).toEqual(plain.detections);
    expect(said('swap').detections).not.toEqual(plain.detections);
    expect(plain.track.points.leftWrist!.isTracked).toBe(true);
    const gone = trackFrom(
      base,
      {
        placed: [],
        corrections: [{ kind: 'drop', landmark: 'leftWrist', from: 0, to: 8 }] as never,
      },
      480,
    );
    expect(gone.track.points.leftWrist).toBeUndefined();
  });
});

describe('times of frames', () => {
  it('have a rate only where they go on', () => {
    expect(meanRate([0, 0.1, 0.2])).toBeCloseTo(10, 12);
    expect(meanRate([2])).toBe(0);
    expect(meanRate([1, 1])).toBe(0);
  });

  it('have a nearest one at both ends and half-way', () => {
    expect(nearestFrame([0, 1, 2], -5)).toBe(0);
    expect(nearestFrame([0, 1, 2], 9)).toBe(2);
    expect(nearestFrame([0, 1, 2], 0.6)).toBe(1);
    expect(nearestFrame([0, 1, 2], 0.5)).toBe(0);
  });
});
