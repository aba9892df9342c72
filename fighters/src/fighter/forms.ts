/**
 * The form of each technique: how body, feet and striking limb go, for an orthodox fighter. What a
 * recipe makes faster, later or smaller is the same for all forms and stands in the recipe.
 */
import type { Side } from '@sinew/core/foundation/body/landmarks';
import type { Point } from './space';

const degrees = (value: number) => (value * Math.PI) / 180;

export type TechniqueId = keyof typeof FORMS;

/** The way of the striking limb. Directions and places are (forward, up, outward) of the limb's own side. */
export type Limb =
  | {
      readonly kind: 'straight';
      /** Where the fist waits, from the head. */
      readonly guard: Point;
    }
  | {
      readonly kind: 'upward';
      readonly guard: Point;
      /** Where the fist lands, from the shoulder. */
      readonly lands: Point;
    }
  | {
      readonly kind: 'hook';
      readonly guard: Point;
      /** Direction from the shoulder as the angle is set, and at the end of the sweep. */
      readonly set: Point;
      readonly last: Point;
    }
  | {
      readonly kind: 'elbow';
      /** Direction of the upper arm and of the forearm in guard and at contact. */
      readonly ready: readonly [Point, Point];
      readonly lands: readonly [Point, Point];
    }
  | {
      readonly kind: 'kick';
      /** The ankle from the hip, drawn up and at contact. */
      readonly chamber: Point;
      readonly lands: Point;
      /** Where the knee points. */
      readonly pole: Point;
      /** Whether the foot points along the shank (instep), or is drawn up. */
      readonly isPointed: boolean;
      /** The knee itself strikes. */
      readonly isKnee: boolean;
    };

export interface Form {
  readonly striking: Side;
  /** +1: the right side comes forward. */
  readonly sign: 1 | -1;
  /** Radians; negative = the right side is back. */
  readonly readyYaw: number;
  /** Metres the pelvis goes forward and up as it starts to work. */
  readonly forward: number;
  readonly rise: number;
  /** Radians the trunk leans further to the target. */
  readonly lean: number;
  /** Radians each foot turns, positive to the right, and its heel rises. */
  readonly feet: Readonly<Record<Side, { readonly turn: number; readonly heel: number }>>;
  /** The pelvis goes out and is square again at contact. */
  readonly whips: boolean;
  /** Metres both feet travel. */
  readonly step: number;
  /** The other hand is pulled to the hip. */
  readonly pullsBack: boolean;
  readonly limb: Limb;
}

const STILL = { turn: 0, heel: 0 } as const;
const REAR_GUARD: Point = [0.11, -0.1, 0.085];
const LEAD_GUARD: Point = [0.24, -0.1, 0.07];
export const GUARD: Readonly<Record<Side, Point>> = { left: LEAD_GUARD, right: REAR_GUARD };

const REAR: Form = {
  striking: 'right',
  sign: 1,
  readyYaw: degrees(-45),
  forward: 0.11,
  rise: 0,
  lean: 0.07,
  feet: { left: STILL, right: { turn: -0.75, heel: 0.32 } },
  whips: false,
  step: 0,
  pullsBack: false,
  limb: { kind: 'straight', guard: REAR_GUARD },
};
const HOOK = { set: [0.42, 0.1, 0.9], last: [0.62, 0.1, 0.78] } as const;
const REAR_HOOK = { set: [0.62, 0.08, 0.62], last: [0.76, 0.08, 0.5] } as const;
const LOW_REAR_HOOK = { set: [0.62, -0.4, 0.55], last: [0.74, -0.4, 0.42] } as const;
const LOW_HOOK = { set: [0.42, -0.4, 0.8], last: [0.62, -0.4, 0.7] } as const;
const LEAD: Form = {
  ...REAR,
  striking: 'left',
  sign: -1,
  forward: 0.08,
  feet: { left: STILL, right: STILL },
  limb: { kind: 'straight', guard: LEAD_GUARD },
};
const LEAD_HOOK: Form = {
  ...LEAD,
  readyYaw: degrees(-22),
  forward: -0.03,
  feet: { left: { turn: 0.75, heel: 0.25 }, right: STILL },
  limb: { kind: 'hook', guard: LEAD_GUARD, ...HOOK },
};
const UPWARD = { kind: 'upward', guard: [0.16, -0.26, 0.1], lands: [0.36, 0.1, -0.06] } as const;
const FOLDED: Point = [0.45, 0.85, -0.1];
const ELBOW: Form = { ...REAR, forward: 0.06 };
const elbow = (ready: Point, lands: Point, forearm: Point): Limb => ({
  kind: 'elbow',
  ready: [ready, FOLDED],
  lands: [lands, forearm],
});
const KICK: Form = {
  ...REAR,
  forward: 0.16,
  lean: -0.16,
  feet: { left: { turn: -0.5, heel: 0.1 }, right: STILL },
};

export const FORMS = {
  jab: LEAD,
  cross: REAR,
  'lead-hook': LEAD_HOOK,
  'rear-hook': { ...REAR, limb: { kind: 'hook', guard: REAR_GUARD, ...REAR_HOOK } },
  'lead-body-hook': { ...LEAD_HOOK, limb: { kind: 'hook', guard: LEAD_GUARD, ...LOW_HOOK } },
  'rear-body-hook': { ...REAR, limb: { kind: 'hook', guard: REAR_GUARD, ...LOW_REAR_HOOK } },
  'lead-uppercut': { ...LEAD_HOOK, forward: 0.02, rise: 0.09, limb: UPWARD },
  'rear-uppercut': { ...REAR, forward: 0.05, rise: 0.09, limb: UPWARD },
  'stepping-straight': { ...REAR, step: 0.32 },
  'whip-straight': { ...REAR, readyYaw: degrees(-14), forward: 0.05, whips: true },
  'chambered-straight': {
    ...REAR,
    readyYaw: degrees(-30),
    forward: 0.05,
    pullsBack: true,
    limb: { kind: 'straight', guard: [-0.02, -0.42, 0.16] },
  },
  'elbow-round': {
    ...ELBOW,
    limb: elbow([0.4, -0.88, 0.25], [0.93, 0.08, -0.3], [-0.3, 0.15, -0.94]),
  },
  'elbow-reverse': {
    ...ELBOW,
    sign: -1,
    readyYaw: degrees(8),
    limb: elbow([0.75, -0.3, -0.55], [0.3, 0.05, 0.95], [0.2, 0.2, -0.95]),
  },
  'elbow-rise': {
    ...ELBOW,
    rise: 0.08,
    limb: elbow([0.3, -0.92, 0.2], [0.72, 0.68, 0.1], [-0.75, 0.35, 0.1]),
  },
  'elbow-drop': {
    ...ELBOW,
    rise: -0.13,
    limb: elbow([0.5, 0.8, 0.3], [0.8, -0.55, 0.05], [-0.3, 0.9, -0.1]),
  },
  'elbow-up': {
    ...ELBOW,
    rise: 0.1,
    limb: elbow([-0.1, -0.97, 0.2], [0.85, 0.42, 0.1], [-0.6, 0.6, 0]),
  },
  'elbow-thrust': {
    ...ELBOW,
    forward: 0.2,
    limb: elbow([-0.35, -0.9, 0.2], [0.72, -0.65, 0.1], [0.2, 0.95, -0.2]),
  },
  'elbow-spin': {
    ...ELBOW,
    sign: -1,
    readyYaw: degrees(20),
    forward: 0.02,
    limb: elbow([0.75, -0.3, -0.55], [0.15, 0.1, 0.98], [0.2, 0.2, -0.95]),
  },
  'front-kick': {
    ...KICK,
    limb: {
      kind: 'kick',
      chamber: [0.12, -0.3, 0],
      lands: [0.78, 0.18, 0],
      pole: [0.6, 0.8, 0.1],
      isPointed: true,
      isKnee: false,
    },
  },
  'round-kick': {
    ...KICK,
    feet: { left: { turn: -1.9, heel: 0.25 }, right: STILL },
    limb: {
      kind: 'kick',
      chamber: [0.1, 0.02, 0.32],
      lands: [0.8, 0.2, 0.1],
      pole: [0.5, 0.3, 0.85],
      isPointed: true,
      isKnee: false,
    },
  },
  'side-kick': {
    ...KICK,
    feet: { left: { turn: -2.45, heel: 0.1 }, right: STILL },
    limb: {
      kind: 'kick',
      chamber: [0.1, -0.08, 0.2],
      lands: [0.2, 0.1, 0.8],
      pole: [0.75, 0.3, 0.5],
      isPointed: false,
      isKnee: false,
    },
  },
  'knee-strike': {
    ...KICK,
    forward: 0.22,
    limb: {
      kind: 'kick',
      chamber: [0.2, -0.16, 0],
      lands: [0.2, -0.16, 0],
      pole: [0.5, 0.86, 0],
      isPointed: true,
      isKnee: true,
    },
  },
} as const satisfies Record<string, Form>;

/** The same form by the other limb: the body turns the other way, from the other side. */
export function byOtherSide(form: Form): Form {
  const { left, right } = form.feet;
  const turned = ({ turn, heel }: { turn: number; heel: number }) => ({ turn: -turn, heel });
  return {
    ...form,
    striking: form.striking === 'right' ? 'left' : 'right',
    sign: form.sign === 1 ? -1 : 1,
    readyYaw: degrees(-22),
    feet: { left: turned(right), right: turned(left) },
  };
}
