/** A joint that goes past straight: by closed forms, in space and in a picture. */
import { describe, expect, it } from 'vitest';
import { markOnFrame } from '../src/measure/events/events';
import { measureOne } from '../src/measure/measures/allMeasures';
import { UNKNOWN_BODY } from '../src/measure/measures/context';
import { isAbsent } from '../src/foundation/reading/reading';
import { techniqueById } from '../src/foundation/technique/techniques';
import { motionOf, pathOf, TIMES, type Place } from './spaceMotion';

const radians = (degrees: number) => (degrees * Math.PI) / 180;
const CONTACT = 0.6;

type Vector = Place;
const add = (a: Vector, b: Vector, by: number): Vector => [
  a[0] + by * b[0],
  a[1] + by * b[1],
  a[2] + by * b[2],
];
/** Rodrigues' rotation of a vector about a unit axis. */
function turned(v: Vector, axis: Vector, angle: number): Vector {
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  const dot = v[0] * axis[0] + v[1] * axis[1] + v[2] * axis[2];
  const across: Vector = [
    axis[1] * v[2] - axis[2] * v[1],
    axis[2] * v[0] - axis[0] * v[2],
    axis[0] * v[1] - axis[1] * v[0],
  ];
  return add(add(add([0, 0, 0], v, c), across, s), axis, dot * (1 - c));
}

/** Two links that open from a right angle to `last` at contact, as the upper one swings and rolls about itself. */
function limb(last: number, roll = 0, swing = 0.6) {
  const along = (time: number) => Math.min(1, Math.max(0, (time - 0.4) / (CONTACT - 0.4)));
  const at = (time: number) => {
    const share = along(time);
    const up: Vector = turned([1, 0, 0], [0, 0, 1], swing * (share - 1));
    const axis = turned([0, 0, 1], up, roll * (1 - share));
    const inner = radians(90) + share * (radians(last) - radians(90));
    const near: Vector = [0.1 * share, 1.4, 0];
    const middle = add(near, up, 0.3);
    return { near, middle, far: add(middle, turned(up, axis, Math.PI - inner), 0.26) };
  };
  return motionOf({
    rightShoulder: pathOf((time) => at(time).near),
    rightElbow: pathOf((time) => at(time).middle),
    rightWrist: pathOf((time) => at(time).far),
  });
}

function elbow(motion: ReturnType<typeof limb>, id = 'cross') {
  const technique = techniqueById(id);
  const found = measureOne('elbow.contact', {
    strike: { technique, side: 'right' },
    events: { contact: markOnFrame(TIMES, CONTACT * 240) },
    motion,
    body: UNKNOWN_BODY,
  });
  if (isAbsent(found)) throw new Error(found.absent);
  return { value: (180 / Math.PI) * found.value, half: (180 / Math.PI) * 1.96 * found.sigma };
}

describe('the elbow at contact', () => {
  it.each([140, 170, 178, 180, 183, 185, 190])('at %s° is read as that', (last) => {
    expect(elbow(limb(last)).value).toBeCloseTo(last, 6);
  });

  it.each([
    [185, 0.5],
    [185, -0.8],
    [176, 0.8],
  ])('at %s° is on its own side of straight however the arm rolls (%s rad)', (last, roll) => {
    expect(elbow(limb(last, roll)).value).toBeCloseTo(last, 0);
  });

  it('past straight is seen in a picture from the side as well', () => {
    const space = limb(186);
    const flat = (path = space.paths.rightElbow!) => ({ ...path, along: path.along.slice(0, 2) });
    const { rightShoulder, rightElbow, rightWrist } = space.paths;
    const paths = {
      rightShoulder: flat(rightShoulder),
      rightElbow: flat(rightElbow),
      rightWrist: flat(rightWrist),
    };
    const seen = { ...space, view: 'side', axes: ['toward', 'up'], planeSigma: 0.02 } as const;
    expect(elbow({ ...seen, paths, raw: paths }).value).toBeCloseTo(186, 6);
  });

  /** An elbow of 85° that lies in the picture until 0.3 s; at contact its links point out of it by so much. */
  const aslant = (upper: number, lower: number) => {
    const out = (most: number, time: number) =>
      radians(most) * Math.min(1, Math.max(0, (time - 0.3) / (CONTACT - 0.3)));
    const links = (time: number): readonly [Vector, Vector] => {
      const [a, b] = [out(upper, time), out(lower, time)];
      // The angle in the picture at which they are 85° apart in space.
      const seen = Math.acos(
        (Math.cos(radians(95)) - Math.sin(a) * Math.sin(b)) / (Math.cos(a) * Math.cos(b)),
      );
      return [
        [Math.cos(a), 0, Math.sin(a)],
        [Math.cos(b) * Math.cos(seen), Math.cos(b) * Math.sin(seen), Math.sin(b)],
      ];
    };
    const middle = (time: number) => add([0, 1.4, 0], links(time)[0], 0.3);
    const flat = (at: (time: number) => Vector) => {
      const path = pathOf(at);
      return { ...path, along: path.along.slice(0, 2) };
    };
    const paths = {
      rightShoulder: flat(() => [0, 1.4, 0]),
      rightElbow: flat(middle),
      rightWrist: flat((time) => add(middle(time), links(time)[1], 0.26)),
    };
    return motionOf(paths, { view: 'side', axes: ['toward', 'up'], planeSigma: 0.02 });
  };

  it('whose links point out of the picture is less sure by as much as that may be', () => {
    const flat = elbow(aslant(0, 0));
    expect(flat.value).toBeCloseTo(85, 6);
    for (const [upper, lower] of [
      [30, 30],
      [30, -30],
      [20, 40],
      [-35, 25],
    ] as const) {
      const { value, half } = elbow(aslant(upper, lower));
      const tilts = Math.sin(radians(upper)) * Math.sin(radians(lower));
      expect(Math.abs(value - 85), `${upper}° and ${lower}°`).toBeGreaterThan(flat.half);
      expect(Math.abs(value - 85)).toBeLessThan(half);
      const more = (180 / Math.PI) * 1.96 * Math.abs(tilts / Math.sin(radians(value)));
      expect(half).toBeCloseTo(Math.hypot(flat.half, more), 0);
    }
    // One that stays in it, or is the only one to leave it, shows as it is.
    expect(elbow(aslant(30, 0)).half).toBeCloseTo(flat.half, 1);
  });

  it('of an uppercut is less sure in a picture: its arm goes up beside a body that is turned', () => {
    const [hook, uppercut] = ['cross', 'rear-uppercut'].map((id) => elbow(aslant(0, 0), id).half);
    // Thirty degrees at the most, every amount as likely: sin² 30° ÷ 3 = 1/12.
    expect(uppercut! ** 2 - hook! ** 2).toBeCloseTo(
      ((180 / Math.PI) * 1.96) ** 2 * ((1 / 12) ** 2 - 0.05 ** 2),
      3,
    );
  });

  it('past straight as no joint goes is no elbow, and says what to put right', () => {
    expect(() => elbow(limb(230))).toThrow(/bent the wrong way .* Put shoulder, elbow and wrist/);
  });

  it('never seen bent, is no more than straight', () => {
    const still = limb(185);
    const at = (CONTACT - 0.001) * 240;
    const frozen = Object.fromEntries(
      Object.entries(still.paths).map(([name, path]) => [
        name,
        { ...path, along: path.along.map((values) => values.map(() => values[Math.ceil(at)]!)) },
      ]),
    );
    expect(elbow({ ...still, paths: frozen, raw: frozen }).value).toBeCloseTo(175, 6);
  });
});
