/**
 * What a made-up fighter does, as numbers: the known answers. A clean recipe is the base; a fault
 * is put in by changing exactly the numbers that make it.
 */
import type { Stance } from '@sinew/core/foundation/body/landmarks';
import type { TechniqueId } from './forms';
import { STILL, type Idle } from './idle';
import type { RiseId } from './rises';

export interface Recipe {
  readonly technique: TechniqueId;
  /** The limb that strikes, where the technique leaves it open. */
  readonly by: 'own' | 'lead';
  readonly stance: Stance;
  /** Standing height, metres. */
  readonly height: number;
  /** Seconds from the start of the motion. */
  readonly contact: number;
  /** Seconds from the visible start of the arm to contact. */
  readonly out: number;
  /** Seconds by which one visible start precedes the next. */
  readonly hipsToTrunk: number;
  readonly trunkToArm: number;
  /** Seconds from the start of the load to the start of the hips. */
  readonly load: number;
  /** Where in its own time to contact each link is fastest, 0 to 1. */
  readonly pelvisPeak: number;
  readonly trunkPeak: number;
  /** Radians turned toward the target. */
  readonly pelvisTurn: number;
  readonly trunkTurn: number;
  /** Radians the trunk counter-turns in the load. */
  readonly coil: number;
  /** Radians the pelvis counter-turns with it. */
  readonly pelvisCoil: number;
  /** Metres the pelvis sinks in the load (rises when negative). */
  readonly sink: number;
  /** Share of the arm's own length used at contact (straights). */
  readonly reach: number;
  /** Radians by which the elbow is swung out around the shoulder–fist line on the way (straights). */
  readonly flare: number;
  /** Radians the elbow opens in the last 80 ms (hooks). */
  readonly drift: number;
  /** Metres the other hand drops. */
  readonly guardDrop: number;
  /** Metres the striking hand draws back first. */
  readonly telegraph: number;
  /** Metres the pelvis dips onto the lead knee after the hips have started. */
  readonly kneeGives: number;
  /** Seconds from contact to the end of the strike: snap or dig. */
  readonly finish: number;
  /** Time home ÷ time out. */
  readonly recoil: number;

  /** Radians the hips hang to one side. */
  readonly hipTilt: number;
  /** How far the feet stand apart sideways: 1 = on rails, 0 = on a rope. */
  readonly rails: number;
  /** Radians by which the hips stand squarer than the form has them. */
  readonly square: number;
  /** Metres the weight stands further back. */
  readonly weightBack: number;
  /** Radians the rear foot is pitched in guard: 0 = flat. */
  readonly rearHeel: number;
  /** Radians by which the rear heel comes up more than the form has it. */
  readonly tiptoe: number;
  /** Share of the form's turn of the feet that does not take place. */
  readonly footHolds: number;
  /** Radians the support foot turns, and metres it slides. */
  readonly anchorSpin: number;
  readonly anchorSlide: number;
  /** Radians the lead knee falls in. */
  readonly kneeIn: number;
  /** Metres the whole body stands taller. */
  readonly tall: number;
  /** Radians more of lean, and metres more of travel, toward the target. */
  readonly leanOut: number;
  readonly reachOut: number;
  /** Metres more of rising (of dropping when negative). */
  readonly rise: number;
  /** Share of the trunk's turn with which the other hand goes round the head. */
  readonly guardTurns: number;
  /** Metres the striking hand dips first. */
  readonly dip: number;
  /** Share of the way from a hand's guard to where an elbow strikes from that is made in the load only. */
  readonly raised: number;
  /** Metres the striking shoulder comes up to the chin. */
  readonly shrug: number;
  /** Metres the other shoulder is kept from pulling back. */
  readonly holdsBack: number;
  /** Metres the head is thrown. */
  readonly headThrow: number;
  /** Seconds before contact at which the arm is fastest. */
  readonly brake: number;
  /** Radians the hand is bent about the knuckle line, and rolled from thumb up. */
  readonly wristFlex: number;
  readonly fistRoll: number;
  /** Radians of the elbow in a hook, and by which it hangs. */
  readonly hookAngle: number;
  readonly elbowHangs: number;
  /** Radians by which a hook is swept further by the shoulder alone. */
  readonly scoop: number;
  /** Seconds by which a step is over before contact. */
  readonly stepLead: number;
  /** Seconds by which a step starts later than the load. */
  readonly stepLate: number;
  /** Share of its drawing up that a kicking leg does without, and of its folding on the way home. */
  readonly legStraight: number;
  readonly legFalls: number;
  /** Share of its way down and back that the arm of the kicking side swings. */
  readonly armSwings: number;

  /** How each link gathers speed. */
  readonly rises: Readonly<Record<'load' | 'pelvis' | 'trunk' | 'arm', RiseId>>;
  /** What the body does beside the strike. */
  readonly idle: Idle;
}

const degrees = (value: number) => (value * Math.PI) / 180;

const CLEAN: Recipe = {
  technique: 'cross',
  by: 'own',
  stance: 'orthodox',
  height: 1.76,
  contact: 0.7,
  out: 0.17,
  hipsToTrunk: 0.045,
  trunkToArm: 0.04,
  load: 0.2,
  pelvisPeak: 0.42,
  trunkPeak: 0.75,
  pelvisTurn: degrees(57),
  trunkTurn: degrees(68),
  coil: degrees(8),
  pelvisCoil: 0,
  sink: 0.035,
  reach: 0.95,
  flare: 0,
  drift: 0,
  guardDrop: 0,
  telegraph: 0,
  kneeGives: 0,
  finish: 0.012,
  recoil: 1,
  hipTilt: 0,
  rails: 1,
  square: 0,
  weightBack: 0,
  rearHeel: 0.16,
  tiptoe: 0,
  footHolds: 0,
  anchorSpin: 0,
  anchorSlide: 0,
  kneeIn: 0,
  tall: 0,
  leanOut: 0,
  reachOut: 0,
  rise: 0,
  guardTurns: 0,
  dip: 0,
  raised: 0,
  shrug: 0,
  holdsBack: 0,
  headThrow: 0,
  brake: 0,
  wristFlex: 0,
  fistRoll: 0,
  hookAngle: Math.PI / 2,
  elbowHangs: 0,
  scoop: 0,
  stepLead: 0,
  stepLate: 0,
  legStraight: 0,
  legFalls: 0,
  armSwings: 0,
  rises: { load: 'even', pelvis: 'even', trunk: 'even', arm: 'even' },
  idle: STILL,
};

const HOOK = {
  out: 0.19,
  pelvisPeak: 0.42,
  trunkPeak: 1,
  pelvisTurn: degrees(54),
  trunkTurn: degrees(62),
  coil: degrees(14),
  finish: 0.03,
} satisfies Partial<Recipe>;
const UPPERCUT = {
  pelvisTurn: degrees(34),
  trunkTurn: degrees(42),
  sink: 0.06,
  finish: 0.03,
} satisfies Partial<Recipe>;
const ELBOW = {
  pelvisTurn: degrees(48),
  trunkTurn: degrees(58),
  finish: 0.05,
} satisfies Partial<Recipe>;
/** Pelvis, thigh and shank start one after the other; the trunk counters. */
const KICK = {
  out: 0.14,
  hipsToTrunk: 0.05,
  trunkToArm: 0.11,
  pelvisPeak: 0.5,
  pelvisTurn: degrees(40),
  trunkTurn: degrees(18),
  coil: 0,
  sink: 0.02,
  finish: 0.03,
  recoil: 1.6,
} satisfies Partial<Recipe>;

/** What is each technique's own in a clean strike. */
const OWN: Readonly<Record<TechniqueId, Partial<Recipe>>> = {
  cross: { shrug: 0.11 },
  jab: { pelvisTurn: degrees(12), trunkTurn: degrees(28), coil: 0, sink: 0.015 },
  'lead-hook': HOOK,
  'rear-hook': { ...HOOK, out: 0.23 },
  'lead-body-hook': { ...HOOK, sink: 0.08 },
  'rear-body-hook': { ...HOOK, out: 0.23, sink: 0.08 },
  'lead-uppercut': UPPERCUT,
  'rear-uppercut': UPPERCUT,
  'stepping-straight': { coil: 0, load: 0.16, shrug: 0.11, stepLead: -0.06 },
  'whip-straight': { pelvisTurn: degrees(30), trunkTurn: degrees(22), coil: 0, reach: 0.9 },
  'chambered-straight': { pelvisTurn: degrees(40), trunkTurn: degrees(46), reach: 0.93 },
  'elbow-round': ELBOW,
  'elbow-reverse': ELBOW,
  'elbow-rise': { ...ELBOW, pelvisTurn: degrees(20), trunkTurn: degrees(26), sink: 0.05 },
  'elbow-drop': { ...ELBOW, pelvisTurn: degrees(16), trunkTurn: degrees(20), sink: -0.03 },
  'elbow-up': { ...ELBOW, pelvisTurn: degrees(24), trunkTurn: degrees(30), sink: 0.06 },
  'elbow-thrust': { ...ELBOW, pelvisTurn: degrees(26), trunkTurn: degrees(34), finish: 0.08 },
  'elbow-spin': {
    ...ELBOW,
    pelvisTurn: degrees(140),
    trunkTurn: degrees(155),
    out: 0.3,
    hipsToTrunk: 0.08,
  },
  'front-kick': { ...KICK, pelvisTurn: degrees(24) },
  'round-kick': { ...KICK, pelvisTurn: degrees(78) },
  'side-kick': {
    ...KICK,
    pelvisTurn: degrees(112),
    trunkTurn: degrees(80),
    trunkToArm: 0.12,
  },
  'knee-strike': { ...KICK, pelvisTurn: degrees(22), trunkToArm: 0.02, out: 0.26 },
};

export function clean(technique: Recipe['technique'], change: Partial<Recipe> = {}): Recipe {
  return { ...CLEAN, technique, ...OWN[technique], ...change };
}

/** The change that puts a fault into a clean recipe, by the fault's id. */
export const FAULT_CHANGES = {
  'all-at-once': {
    hipsToTrunk: 0,
    trunkToArm: 0,
    out: 0.22,
    pelvisPeak: 0.7,
    trunkPeak: 0.7,
    pelvisTurn: degrees(55),
    trunkTurn: degrees(58),
    coil: 0,
  },
  'arm-first': { hipsToTrunk: 0.045, trunkToArm: -0.085, out: 0.25 },
  jammed: { reach: 0.66 },
  'elbow-flare': { flare: degrees(80) },
  slap: { drift: degrees(28) },
  'slow-home': { recoil: 1.7 },
} satisfies Record<string, Partial<Recipe>>;

export type KnownFault = keyof typeof FAULT_CHANGES;
