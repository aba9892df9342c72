/**
 * Known answers for the judge: the change that puts each fault into a sound strike, at three strengths,
 * and what comes with it of necessity.
 */
import {
  ALL,
  ELBOWS,
  HIPS_LED,
  HOOKS,
  KICKS,
  PUNCHES,
  STANDING,
  STRAIGHTS,
  TURNING_ELBOWS,
  without,
} from './techniqueLists';
import type { Audit } from '@sinew/core/judge/eye/eyeChecks';
import type { School } from '@sinew/core/judge/school/schools';
import type { Situation } from '@sinew/core/judge/school/resolve';
import { formOf } from './pose';
import { FORMS, type TechniqueId } from './forms';
import { clean, type Recipe } from './recipe';

export const STRENGTHS = ['just', 'clear', 'gross'] as const;
export type Strength = (typeof STRENGTHS)[number];

export interface FaultyFighter {
  readonly fault: string;
  readonly techniques: readonly TechniqueId[];
  /** What makes it, just beyond its limit, clearly, and grossly. */
  readonly change: readonly [Change, Change, Change];
  /** The school in which it is a fault; the usual one when missing. */
  readonly school?: School;
  readonly situation?: Situation;
  /** The coach's word, for what only an eye can judge. */
  readonly audit?: Audit;
  /** Faults that it brings with it. */
  readonly also?: readonly string[];
}

type Change = Partial<Recipe> | ((sound: Recipe) => Partial<Recipe>);

const degrees = (value: number) => (value * Math.PI) / 180;

/** Strikes that a school may send level or down. */
const LEVEL: readonly TechniqueId[] = [...STRAIGHTS, ...HOOKS, ...TURNING_ELBOWS];
const TURNED: readonly TechniqueId[] = ['cross', 'rear-hook', 'lead-hook', 'elbow-round'];
/** How far the rear heel must be pitched beyond what the form does. */
const tiptoe =
  (pitch: number) =>
  (recipe: Recipe): Partial<Recipe> => ({
    tiptoe: pitch - recipe.rearHeel - formOf(recipe).feet.right.heel,
  });

/** The knee over which a lead elbow spins away falls in by less for the same angle. */
const kneeIn =
  (angle: number) =>
  ({ technique, by }: Recipe): Partial<Recipe> => ({
    kneeIn: technique === 'elbow-spin' && by === 'lead' ? 1.5 * angle : angle,
  });

/** The hand of a lead hook is a quarter faster than the others: stopped as deep, it has stopped sooner. */
const stopped =
  (finish: number) =>
  ({ technique }: Recipe): Partial<Recipe> => ({
    finish: technique === 'lead-hook' || technique === 'lead-body-hook' ? 0.8 * finish : finish,
  });

export const FAULTY_FIGHTERS: readonly FaultyFighter[] = [
  {
    fault: 'hips-tilted',
    techniques: ALL,
    change: [{ hipTilt: degrees(9) }, { hipTilt: degrees(14) }, { hipTilt: degrees(22) }],
    also: ['knee-locks'],
  },
  {
    fault: 'feet-in-line',
    techniques: ALL,
    change: [{ rails: 0.13 }, { rails: 0.07 }, { rails: 0 }],
    also: ['weight-off'],
  },
  {
    fault: 'square-stance',
    techniques: ['jab', 'cross', 'rear-hook', 'rear-uppercut'],
    change: [{ square: degrees(18) }, { square: degrees(26) }, { square: degrees(38) }],
    also: ['chin-open', 'hyperextension'],
  },
  {
    fault: 'weight-off',
    techniques: PUNCHES,
    change: [{ weightBack: 0.16 }, { weightBack: 0.18 }, { weightBack: 0.23 }],
    also: ['knee-gives'],
  },
  {
    fault: 'rear-heel',
    techniques: PUNCHES,
    change: [{ rearHeel: 0.03 }, { rearHeel: 0.01 }, { rearHeel: -0.02 }],
  },
  {
    fault: 'no-load',
    techniques: without(HIPS_LED, 'stepping-straight', 'whip-straight'),
    change: [
      { sink: 0.011, coil: degrees(3) },
      { sink: 0.006, coil: degrees(2) },
      { sink: 0, coil: 0 },
    ],
    also: ['knee-locks'],
  },
  {
    fault: 'hips-blocked',
    techniques: TURNED,
    change: [25, 20, 14].map((turn, i) => ({
      pelvisTurn: degrees(turn),
      trunkTurn: degrees(turn + 14),
      footHolds: [0.8, 0.95, 1][i],
    })) as unknown as FaultyFighter['change'],
    also: ['no-counter', 'chin-open', 'hook-scoop'],
  },
  {
    fault: 'pivot-no-turn',
    techniques: TURNED,
    change: [13, 11.5, 7].map((turn) => ({
      pelvisTurn: degrees(turn),
      trunkTurn: degrees(turn + 14),
    })) as unknown as FaultyFighter['change'],
    also: ['no-counter', 'chin-open', 'arm-only', 'hook-scoop'],
  },
  {
    fault: 'arm-only',
    techniques: without(
      [...PUNCHES, ...TURNING_ELBOWS],
      'whip-straight',
      'stepping-straight',
      'elbow-spin',
      'elbow-reverse',
    ),
    change: [7, 4, 0].map((turn) => (recipe: Recipe) => ({
      pelvisTurn: degrees(recipe.technique === 'jab' ? turn / 4 : turn),
      trunkTurn: degrees(turn + 4),
      coil: 0,
      footHolds: 1,
      // What the body does not throw, the shoulder does: a hook that nothing throws is slow and no arm alone.
      scoop: HOOKS.includes(recipe.technique) ? 0.7 : 0,
    })) as unknown as FaultyFighter['change'],
    also: ['hips-blocked', 'no-counter', 'chin-open', 'all-at-once', 'hook-scoop'],
  },
  {
    fault: 'toe-tip',
    techniques: STANDING,
    change: [tiptoe(0.74), tiptoe(0.9), tiptoe(1.1)],
    // In a round elbow of the lead side the other knee bends under it, by 14° and more.
    also: ['knee-gives'],
  },
  {
    fault: 'anchor-swivel',
    techniques: without(STANDING, 'stepping-straight', 'elbow-thrust', 'elbow-spin'),
    change: [{ anchorSpin: degrees(22) }, { anchorSpin: degrees(38) }, { anchorSpin: degrees(50) }],
  },
  {
    fault: 'hook-foot',
    techniques: ['lead-hook'],
    school: { hookFoot: 'plant' },
    change: [{ footHolds: 0.3 }, { footHolds: 0.1 }, { footHolds: -0.4 }],
  },
  {
    fault: 'knee-gives',
    techniques: STANDING,
    change: [kneeIn(degrees(18)), kneeIn(degrees(27)), kneeIn(degrees(42))],
  },
  {
    fault: 'knee-locks',
    techniques: without(STANDING, 'stepping-straight', 'elbow-drop'),
    change: [{ tall: 0.135 }, { tall: 0.14 }, { tall: 0.16 }],
    also: ['knee-gives'],
  },
  {
    fault: 'knee-locks',
    techniques: ['elbow-drop'],
    change: [{ tall: 0.21 }, { tall: 0.22 }, { tall: 0.25 }],
    also: ['knee-gives'],
  },
  {
    fault: 'reach-lean',
    techniques: without(PUNCHES, 'stepping-straight', 'whip-straight'),
    change: [
      { reachOut: 0.1, leanOut: 0.32 },
      { reachOut: 0.14, leanOut: 0.4 },
      { reachOut: 0.2, leanOut: 0.6 },
    ],
    also: [
      'braking',
      'no-rise',
      'head-whip',
      'knee-gives',
      'knee-locks',
      'no-counter',
      'chin-open',
      'weight-off',
    ],
  },
  {
    fault: 'step-early',
    techniques: ['stepping-straight'],
    change: [{ stepLead: 0.08 }, { stepLead: 0.11 }, { stepLead: 0.16 }],
  },
  {
    fault: 'travel-no-turn',
    techniques: ['stepping-straight'],
    change: [7, 4, 0].map((turn) => ({
      pelvisTurn: degrees(turn),
      trunkTurn: degrees(turn + 14),
    })) as unknown as FaultyFighter['change'],
    also: ['hips-blocked', 'pivot-no-turn', 'chin-open'],
  },
  {
    fault: 'no-rise',
    techniques: ['lead-uppercut', 'rear-uppercut', 'elbow-rise', 'elbow-up'],
    change: [
      ({ technique }) => ({ rise: 0.015 - FORMS[technique].rise }),
      ({ technique }) => ({ rise: -FORMS[technique].rise }),
      ({ technique }) => ({ rise: -0.04 - FORMS[technique].rise }),
    ],
    also: ['knee-gives'],
  },
  {
    fault: 'no-drop',
    techniques: ['elbow-drop'],
    change: [{ rise: 0.095 }, { rise: 0.11 }, { rise: 0.14 }],
  },
  {
    fault: 'off-level',
    techniques: LEVEL,
    school: { bodyMass: 'level' },
    change: [{ rise: -0.11 }, { rise: -0.13 }, { rise: -0.16 }],
    also: ['knee-gives'],
  },
  {
    fault: 'off-level',
    techniques: LEVEL,
    school: { bodyMass: 'level' },
    change: [{ rise: 0.07 }, { rise: 0.085 }, { rise: 0.11 }],
    also: ['knee-locks'],
  },
  {
    fault: 'off-level',
    techniques: LEVEL,
    school: { bodyMass: 'drop' },
    change: [{ rise: 0 }, { rise: 0.02 }, { rise: 0.04 }],
  },
  {
    fault: 'all-at-once',
    techniques: without(HIPS_LED, 'whip-straight'),
    change: [0.012, 0.002, -0.03].map((lead) => (recipe: Recipe) => ({
      hipsToTrunk: lead,
      trunkToArm: 0.02,
      coil: 0,
      pelvisPeak: 0.7,
      trunkPeak: 0.7,
      trunkTurn: recipe.pelvisTurn + degrees(3),
      out: recipe.out + 0.03,
    })) as unknown as FaultyFighter['change'],
    also: ['arm-first', 'hook-scoop', 'no-counter'],
  },
  {
    fault: 'arm-first',
    techniques: without(HIPS_LED, 'whip-straight', 'elbow-spin'),
    change: [-0.06, -0.085, -0.12].map((lead) => (recipe: Recipe) => ({
      trunkToArm: lead,
      out: recipe.out + 0.08,
    })) as unknown as FaultyFighter['change'],
    also: ['braking'],
  },
  {
    fault: 'over-load',
    techniques: without(PUNCHES, 'chambered-straight'),
    change: [{ telegraph: 0.07 }, { telegraph: 0.09 }, { telegraph: 0.15 }],
    also: ['hand-drop'],
  },
  {
    fault: 'hand-drop',
    techniques: without(PUNCHES, 'chambered-straight'),
    change: [{ dip: 0.065 }, { dip: 0.09 }, { dip: 0.15 }],
  },
  {
    fault: 'hook-scoop',
    techniques: ['lead-hook'],
    change: [
      { trunkPeak: 0.5, trunkTurn: degrees(58), scoop: 0.5 },
      { trunkPeak: 0.4, trunkTurn: degrees(56), scoop: 0.9 },
      { trunkPeak: 0.35, trunkTurn: degrees(56), scoop: 1.4 },
    ],
  },
  {
    fault: 'no-counter',
    techniques: [...HOOKS, 'cross', 'chambered-straight'],
    change: [0.02, 0, -0.04].map((left) => (recipe: Recipe) => ({
      holdsBack: COUNTER[recipe.technique]! - left,
    })) as unknown as FaultyFighter['change'],
    also: ['head-whip'],
  },
  {
    fault: 'jammed',
    techniques: without(STRAIGHTS, 'whip-straight'),
    change: [{ reach: 0.81 }, { reach: 0.75 }, { reach: 0.66 }],
  },
  {
    fault: 'elbow-flare',
    techniques: without(STRAIGHTS, 'chambered-straight', 'whip-straight'),
    change: [{ flare: degrees(55) }, { flare: degrees(75) }, { flare: degrees(95) }],
  },
  {
    fault: 'slap',
    techniques: HOOKS,
    change: [{ drift: degrees(22) }, { drift: degrees(28) }, { drift: degrees(40) }],
    also: ['hook-wide'],
  },
  {
    fault: 'hook-wide',
    techniques: HOOKS,
    change: [{ hookAngle: degrees(126) }, { hookAngle: degrees(134) }, { hookAngle: degrees(150) }],
    also: ['hook-scoop', 'slap'],
  },
  {
    fault: 'hook-elbow-low',
    techniques: ['lead-hook', 'rear-hook'],
    school: { hookFist: 'thumb-up' },
    change: [{ fistRoll: degrees(36) }, { fistRoll: degrees(55) }, { fistRoll: degrees(88) }],
  },
  {
    fault: 'braking',
    techniques: ['jab', 'cross', 'stepping-straight', 'elbow-round', 'elbow-rise'],
    change: [
      { brake: 0.04, finish: 0.05 },
      { brake: 0.06, finish: 0.05 },
      { brake: 0.1, finish: 0.05 },
    ],
    also: ['elbow-short'],
  },
  {
    fault: 'push',
    // A fist that is to push further than the arm is long needs a target that gives way.
    techniques: without(PUNCHES, ...STRAIGHTS),
    change: [{ finish: 0.085 }, { finish: 0.12 }, { finish: 0.2 }],
    also: ['slow-home'],
  },
  {
    fault: 'short-stop',
    techniques: without(PUNCHES, 'lead-uppercut', 'rear-uppercut'),
    situation: 'lined-up',
    change: [stopped(0.006), stopped(0.004), stopped(0.002)],
  },
  {
    fault: 'slow-home',
    techniques: PUNCHES,
    change: [{ recoil: 1.45 }, { recoil: 1.7 }, { recoil: 2.4 }],
  },
  {
    fault: 'guard-off-drop',
    techniques: without(ALL, 'chambered-straight', 'elbow-spin'),
    change: [{ guardDrop: 0.15 }, { guardDrop: 0.2 }, { guardDrop: 0.3 }],
  },
  {
    fault: 'chin-open',
    techniques: ['cross', 'stepping-straight'],
    change: [{ shrug: 0.03 }, { shrug: 0 }, { shrug: -0.04 }],
  },
  {
    fault: 'head-whip',
    techniques: STANDING,
    change: [{ headThrow: 0.13 }, { headThrow: 0.17 }, { headThrow: 0.25 }],
    also: ['reach-lean', 'chin-open', 'guard-off-drop'],
  },
  {
    fault: 'wrist-bent',
    techniques: PUNCHES,
    change: [{ wristFlex: degrees(21) }, { wristFlex: degrees(30) }, { wristFlex: degrees(45) }],
  },
  {
    fault: 'wrong-knuckles',
    techniques: PUNCHES,
    audit: { knuckles: 'drags' },
    change: [{}, {}, {}],
  },
  {
    fault: 'nerve-side',
    techniques: ELBOWS,
    audit: { 'palm-in': 'drags', 'nerve-side': 'drags' },
    change: [{}, {}, {}],
  },
  {
    fault: 'hyperextension',
    techniques: ['jab', 'cross'],
    change: [
      { reach: 0.97, finish: 0.05 },
      { reach: 0.98, finish: 0.05 },
      { reach: 0.99, finish: 0.05 },
    ],
    also: ['push'],
  },
  {
    fault: 'elbow-short',
    techniques: ELBOWS,
    change: [{ finish: 0.012 }, { finish: 0.008 }, { finish: 0.004 }],
    also: ['braking'],
  },
  {
    fault: 'jab-hand-first',
    techniques: ['jab'],
    change: [{ trunkToArm: -0.03 }, { trunkToArm: -0.05 }, { trunkToArm: -0.07 }],
  },
  {
    fault: 'elbow-first',
    techniques: ['elbow-rise', 'elbow-up', 'elbow-drop', 'elbow-thrust'],
    change: [{ trunkToArm: -0.08 }, { trunkToArm: -0.1 }, { trunkToArm: -0.13 }],
  },
  {
    fault: 'weight-back',
    techniques: ['cross', 'rear-hook', 'rear-body-hook'],
    change: [{ reachOut: -0.17 }, { reachOut: -0.21 }, { reachOut: -0.26 }],
  },
  {
    fault: 'weight-back',
    techniques: ['lead-hook', 'lead-body-hook'],
    school: { hookFoot: 'pivot' },
    // As far beyond the limit as with the rear hand.
    change: [{ reachOut: 0.12 }, { reachOut: 0.16 }, { reachOut: 0.21 }],
  },
  {
    fault: 'falls-apart',
    techniques: without(HIPS_LED, 'whip-straight', 'elbow-spin'),
    school: { order: 'together' },
    change: [{ hipsToTrunk: 0.05 }, { hipsToTrunk: 0.065 }, { hipsToTrunk: 0.09 }],
  },
  {
    fault: 'rear-leg',
    techniques: ['cross'],
    school: { rearLeg: 'straight' },
    change: [{ tall: -0.06 }, { tall: -0.09 }, { tall: -0.13 }],
  },
  {
    fault: 'rear-leg',
    techniques: ['cross'],
    school: { rearLeg: 'bent' },
    change: [{ tall: 0.05 }, { tall: 0.06 }, { tall: 0.07 }],
  },
  {
    fault: 'head-stays',
    techniques: ['jab', 'cross'],
    school: { head: 'slips' },
    change: [{}, {}, {}],
  },
  {
    fault: 'kick-no-pivot',
    techniques: ['round-kick', 'side-kick'],
    change: [{ footHolds: 0.25 }, { footHolds: 0.4 }, { footHolds: 1 }],
  },
  {
    fault: 'kick-hip-under',
    techniques: ['round-kick', 'side-kick'],
    change: [0.86, 0.7, 0.45].map((share) => ({ technique }: Recipe) => ({
      pelvisTurn: share * degrees(technique === 'round-kick' ? 50 : 80),
    })) as unknown as FaultyFighter['change'],
  },
  {
    fault: 'kick-order',
    techniques: KICKS,
    // By the definition of a start the thigh's is some 50 ms later than its first movement.
    change: [{ hipsToTrunk: -0.038 }, { hipsToTrunk: -0.05 }, { hipsToTrunk: -0.08 }],
  },
  {
    fault: 'kick-straight-leg',
    techniques: ['front-kick', 'round-kick', 'side-kick'],
    change: [{ legStraight: 0.88 }, { legStraight: 0.94 }, { legStraight: 1 }],
    also: ['kick-falls'],
  },
  {
    fault: 'kick-falls',
    techniques: ['front-kick', 'round-kick', 'side-kick'],
    school: { finish: 'snap' },
    change: [{ legFalls: 0.85 }, { legFalls: 0.93 }, { legFalls: 1 }],
  },
  {
    fault: 'kick-post-locked',
    techniques: ['front-kick', 'round-kick'],
    change: [{ tall: 0.125 }, { tall: 0.13 }, { tall: 0.15 }],
  },
  {
    fault: 'knee-snaps',
    techniques: ['front-kick', 'round-kick', 'side-kick'],
    audit: { 'kicking-knee': 'drags' },
    change: [{}, {}, {}],
  },
  {
    fault: 'toes-land',
    techniques: ['front-kick', 'round-kick', 'side-kick'],
    audit: { toes: 'drags' },
    change: [{}, {}, {}],
  },
  {
    fault: 'kick-lean-away',
    techniques: ['front-kick', 'round-kick', 'side-kick', 'knee-strike'],
    change: [{ leanOut: -0.8 }, { leanOut: -0.95 }, { leanOut: -1.2 }],
    also: ['guard-off-drop'],
  },
  {
    fault: 'no-rise-first',
    techniques: ['elbow-drop'],
    change: [{ sink: -0.004 }, { sink: 0 }, { sink: 0.02 }],
  },
  {
    fault: 'elbow-stands',
    techniques: without(ELBOWS, 'elbow-drop', 'elbow-spin'),
    change: [0.008, 0, -0.02].map((goes) => ({ technique }: Recipe) => ({
      reachOut: goes - FORMS[technique].forward,
    })) as unknown as FaultyFighter['change'],
  },
  {
    fault: 'kick-arm-stays',
    techniques: ['round-kick'],
    school: { kickArm: 'swings' },
    change: [{ armSwings: 0.25 }, { armSwings: 0.15 }, {}],
  },
  {
    fault: 'kick-arm-drops',
    techniques: ['round-kick'],
    school: { kickArm: 'guards' },
    change: [{ armSwings: 0.4 }, { armSwings: 0.6 }, { armSwings: 1 }],
  },
];

/** How far the other shoulder of a sound strike pulls back, metres. */
const COUNTER: Partial<Record<TechniqueId, number>> = {
  cross: 0.178,
  'lead-hook': 0.084,
  'rear-hook': 0.137,
  'lead-body-hook': 0.084,
  'rear-body-hook': 0.138,
  'chambered-straight': 0.116,
};

export function faulty(
  { change }: FaultyFighter,
  technique: TechniqueId,
  strength: Strength,
  base = clean(technique),
): Recipe {
  const made = change[STRENGTHS.indexOf(strength)]!;
  return { ...base, ...(typeof made === 'function' ? made(base) : made) };
}
