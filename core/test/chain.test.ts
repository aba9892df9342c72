import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { mover, type Pose } from '@sinew/fighters/fighter/pose';
import { clean, type Recipe } from '@sinew/fighters/fighter/recipe';
import {
  decompose,
  PARTS,
  type Chain,
  type Moving,
  type Part,
} from '../src/measure/chain/decompose';
import { verdicts } from '../src/measure/chain/verdict';
import { cross, dot, length, minus, plus, scaled } from '../src/foundation/geometry/vector';
import { absent, type Measured } from '../src/foundation/reading/reading';
import { measureKnown } from './fixtures';

const degrees = (value: number) => (value * Math.PI) / 180;

const armOf = (shoulder: Moving, elbow: Moving, wrist: Moving): Chain['limb'] => [
  ['shoulder', shoulder],
  ['elbow', elbow],
  ['wrist', wrist],
];

/** The chain of a made-up fighter at an instant, with velocities by a step too short to matter. */
function exactChain(recipe: Recipe, time: number): Chain {
  const pose = mover(recipe);
  const h = 1e-6;
  const moving = (of: (p: Pose) => readonly number[]): Moving => ({
    at: of(pose(time)),
    velocity: scaled(minus(of(pose(time + h)), of(pose(time - h))), 1 / (2 * h)),
  });
  const side = recipe.technique === 'cross' ? 'right' : 'left';
  const [left, right] = [moving((p) => p.leftShoulder), moving((p) => p.rightShoulder)];
  return {
    hips: [moving((p) => p.leftHip), moving((p) => p.rightHip)],
    shoulders: [left, right],
    limb: armOf(
      side === 'left' ? left : right,
      moving((p) => p[`${side}Elbow`]),
      moving((p) => p[`${side}Wrist`]),
    ),
    end: moving((p) => scaled(plus(p[`${side}IndexKnuckle`], p[`${side}LittleKnuckle`]), 0.5)),
  };
}

const sum = (parts: Record<string, number>) => Object.values(parts).reduce((a, b) => a + b, 0);

describe('the velocity decomposition', () => {
  const INSTANTS = [0.5, 0.6, 0.65, 0.69];

  it.each(['jab', 'cross', 'lead-hook'] as const)(
    'of a %s adds up to the whole speed',
    (technique) => {
      for (const time of INSTANTS) {
        const chain = exactChain(clean(technique), time);
        const parts = decompose(chain, [1, 0, 0]);
        const whole = chain.end.velocity[0]!;
        expect(Math.abs(sum(parts) - whole)).toBeLessThanOrEqual(
          1e-9 * Math.max(1, Math.abs(whole)),
        );
      }
    },
  );

  it('leaves nothing to other than its links, whatever rigid links do', () => {
    const vector = fc.array(fc.integer({ min: -90, max: 90 }), { minLength: 3, maxLength: 3 });
    const six = fc.tuple(vector, vector, vector, vector, vector, vector);
    fc.assert(
      fc.property(six, (given) => {
        const [trunk, upperArm, forearm, hand, travel, hips] = given.map((one) =>
          scaled(one, 0.1),
        ) as [number[], number[], number[], number[], number[], number[]];
        /** A point held to another by a link that turns. */
        const on = (base: Moving, r: number[], turn: number[]): Moving => ({
          at: plus(base.at, r),
          velocity: plus(base.velocity, cross(turn, r)),
        });
        const pelvis: Moving = { at: [0, 1, 0], velocity: travel };
        const left = on(pelvis, [0.05, 0.5, -0.2], trunk);
        const right = on(pelvis, [0.05, 0.5, 0.2], trunk);
        const elbow = on(right, [0.2, -0.1, 0.1], upperArm);
        const wrist = on(elbow, [0.2, 0.1, -0.05], forearm);
        const end = on(wrist, [0.09, 0, 0], hand);
        const chain: Chain = {
          hips: [on(pelvis, [0, 0, -0.1], hips), on(pelvis, [0, 0, 0.1], hips)],
          shoulders: [left, right],
          limb: armOf(right, elbow, wrist),
          end,
        };
        for (const direction of [
          [1, 0, 0],
          [0, 1, 0],
          [0, 0, 1],
        ]) {
          const parts = decompose(chain, direction);
          expect(Math.abs(parts.other!)).toBeLessThan(1e-9);
          expect(sum(parts)).toBeCloseTo(dot(end.velocity, direction), 9);
        }
      }),
    );
  });

  // A rigid body turning about a fixed axis: every point moves with ω × r, and all of it is one
  // link's doing (textbook kinematics).
  it('gives the whole of a body that turns as one to the pelvis', () => {
    fc.assert(
      fc.property(fc.double({ min: -10, max: 10, noNaN: true }), (rate) => {
        const turn = [0, rate, 0];
        const at = (p: readonly number[]): Moving => ({ at: p, velocity: cross(turn, p) });
        const shoulder = at([0, 0.5, 0.2]);
        const chain: Chain = {
          hips: [at([0, 0, -0.1]), at([0, 0, 0.1])],
          shoulders: [at([0, 0.5, -0.2]), shoulder],
          limb: armOf(shoulder, at([0.3, 0.4, 0.2]), at([0.5, 0.5, 0.15])),
          end: at([0.6, 0.5, 0.12]),
        };
        const parts = decompose(chain, [1, 0, 0]);
        expect(parts.pelvis).toBeCloseTo(rate * 0.12, 9);
        // Spin about an arm's own line cannot be seen from its two ends, so the arm's links share
        // it differently; together they add nothing.
        const arm = parts.shoulder! + parts.elbow! + parts.wrist! + parts.other!;
        expect(parts.trunk).toBeCloseTo(0, 9);
        expect(arm).toBeCloseTo(0, 9);
      }),
    );
  });

  it('keeps travel and rising apart', () => {
    const velocity = [1.5, 0.4, 0];
    const at = (p: number[]): Moving => ({ at: p, velocity });
    const shoulder = at([0, 0.5, 0.2]);
    const chain: Chain = {
      hips: [at([0, 0, -0.1]), at([0, 0, 0.1])],
      shoulders: [at([0, 0.5, -0.2]), shoulder],
      limb: armOf(shoulder, at([0.3, 0.4, 0.2]), at([0.5, 0.5, 0.2])),
      end: at([0.6, 0.5, 0.2]),
    };
    const up = scaled([1, 1, 0], Math.SQRT1_2);
    const parts = decompose(chain, up);
    expect(parts.step).toBeCloseTo(1.5 * Math.SQRT1_2, 12);
    expect(parts.drive).toBeCloseTo(0.4 * Math.SQRT1_2, 12);
    for (const [part, value] of Object.entries(parts).slice(2))
      expect(value, part).toBeCloseTo(0, 12);
    expect(dot(velocity, up)).toBeCloseTo(parts.step! + parts.drive!, 12);
    expect(length(up)).toBeCloseTo(1, 12);
  });
});

describe('verdicts', () => {
  const way: Measured = { value: 6, unit: 'm', sigma: 0.1, source: 'measured-3d', frames: [] };
  const none = Object.fromEntries(PARTS.map((part) => [part, absent('no')])) as Record<
    Part,
    Measured
  >;
  const metres = (value: number, sigma: number): Measured => ({ ...way, value, sigma });
  const loose = { feet: absent('no'), knees: absent('no') };
  const of = (value: number, sigma = 0.05) =>
    verdicts({ ...none, trunk: metres(value, sigma), other: metres(6 - value, 0) }, loose);

  it('drive, are neutral or drag by a part beyond its ± and three per cent of the way', () => {
    expect(of(1).trunk!.verdict).toBe('drives');
    expect(of(-1).trunk!.verdict).toBe('drags');
    expect(of(0.15, 0.01).trunk!.verdict).toBe('neutral');
    expect(of(0.3, 0.3).trunk!.verdict).toBe('neutral');
    // 1 ± 2 of 6 m might be anything, 0.5 ± 0.7 is not known to be little: no verdict.
    expect(of(0.5, 0.36).trunk).toBeUndefined();
    expect(of(1, 1).trunk).toBeUndefined();
    expect(of(1).pelvis).toBeUndefined();
    expect(verdicts(none, loose)).toEqual({});
  });

  it('of an anchor: holding drives, giving way drags, between them nothing is said', () => {
    const anchors = (slide: number, gives: number) =>
      verdicts(none, {
        feet: metres(slide, 0.005),
        knees: { ...metres(gives, degrees(1)), unit: 'rad' },
      });
    expect(anchors(0.01, degrees(2))).toMatchObject({
      feet: { verdict: 'drives' },
      knees: { verdict: 'drives' },
    });
    expect(anchors(0.09, degrees(15))).toMatchObject({
      feet: { verdict: 'drags' },
      knees: { verdict: 'drags' },
    });
    expect(anchors(0.055, degrees(9))).toEqual({});
    // Straightening is no giving way.
    expect(anchors(0.055, degrees(-15))).toEqual({});
  });

  it('of a sound strike: hips and trunk drive it, though at contact they have given their speed away', () => {
    for (const technique of ['cross', 'rear-hook', 'lead-hook', 'elbow-round'] as const) {
      const { links } = measureKnown(clean(technique), { rate: 240, noise: 0.001 });
      expect(links.trunk!.verdict, technique).toBe('drives');
      expect(links.feet!.verdict, technique).toBe('drives');
      expect(links.knees!.verdict, technique).toBe('drives');
      expect(Object.values(links).map(({ verdict }) => verdict)).not.toContain('drags');
    }
    for (const technique of ['lead-hook', 'elbow-round', 'round-kick'] as const) {
      const { links } = measureKnown(clean(technique), { rate: 240, noise: 0.001 });
      expect(links.pelvis!.verdict, technique).toBe('drives');
    }
    const whip = measureKnown(clean('whip-straight'), { rate: 240, noise: 0.001 });
    expect(whip.links.pelvis!.verdict).not.toBe('drags');
  });

  it('of a support foot that slides and a knee that gives: they drag', () => {
    const links = (change: Partial<Recipe>) =>
      measureKnown(clean('cross', change), { rate: 240, noise: 0.001 }).links;
    expect(links({ anchorSlide: 0.12 }).feet!.verdict).toBe('drags');
    expect(links({ kneeGives: 0.09 }).knees!.verdict).toBe('drags');
  });

  it('of rising: an uppercut’s legs drive it, and straightening is no giving way', () => {
    const { links } = measureKnown(clean('rear-uppercut'), { rate: 240, noise: 0.001 });
    expect(links.knees!.verdict).toBe('drives');
  });
});
