/**
 * Which strikes a fault is put into: written by hand. What the product holds of a technique is not
 * asked, so that it cannot shorten its own test.
 */
import type { TechniqueId } from './forms';

type List = readonly TechniqueId[];

export const STRAIGHTS: List = [
  'jab',
  'cross',
  'stepping-straight',
  'whip-straight',
  'chambered-straight',
];
export const HOOKS: List = ['lead-hook', 'rear-hook', 'lead-body-hook', 'rear-body-hook'];
export const PUNCHES: List = [
  'jab',
  'cross',
  'lead-hook',
  'rear-hook',
  'lead-uppercut',
  'rear-uppercut',
  'lead-body-hook',
  'rear-body-hook',
  'stepping-straight',
  'whip-straight',
  'chambered-straight',
];
export const ELBOWS: List = [
  'elbow-round',
  'elbow-reverse',
  'elbow-rise',
  'elbow-drop',
  'elbow-up',
  'elbow-thrust',
  'elbow-spin',
];
/** Elbows that turn into the target. */
export const TURNING_ELBOWS: List = ['elbow-round', 'elbow-reverse', 'elbow-spin'];
/** Strikes on two feet. */
export const STANDING: List = [...PUNCHES, ...ELBOWS];
export const KICKS: List = ['front-kick', 'round-kick', 'side-kick', 'knee-strike'];
export const ALL: List = [...STANDING, ...KICKS];
/** Strikes that the hips start by turning, rising or dropping with a fist or a turning elbow. */
export const HIPS_LED: List = [
  'cross',
  'lead-hook',
  'rear-hook',
  'lead-uppercut',
  'rear-uppercut',
  'lead-body-hook',
  'rear-body-hook',
  'stepping-straight',
  'whip-straight',
  'chambered-straight',
  ...TURNING_ELBOWS,
];

export const without = (all: List, ...not: List): List => all.filter((id) => !not.includes(id));

/**
 * Strikes that can have a fault and into which none has been put yet, by fault. A technique or fault
 * that is in neither list fails a test; nothing may be added here but with a reason to put it off.
 */
export const NOT_YET: Readonly<Record<string, List>> = {
  hyperextension: ['stepping-straight', 'chambered-straight', 'whip-straight'],
  'falls-apart': ['whip-straight', 'elbow-spin'],
  'rear-leg': ['chambered-straight'],
  'square-stance': ['stepping-straight', 'rear-body-hook'],
  'hips-blocked': ['rear-body-hook', 'lead-body-hook', 'stepping-straight'],
  'pivot-no-turn': ['rear-body-hook', 'lead-body-hook', 'stepping-straight'],
  'hook-foot': ['lead-body-hook'],
  'reach-lean': ['whip-straight'],
  'arm-only': ['elbow-reverse', 'elbow-spin'],
  'all-at-once': ['whip-straight'],
  'arm-first': ['whip-straight', 'elbow-spin'],
  'hook-scoop': ['rear-hook', 'lead-body-hook', 'rear-body-hook'],
  jammed: ['whip-straight'],
  'elbow-flare': ['whip-straight'],
  braking: [
    'lead-uppercut',
    'rear-uppercut',
    'whip-straight',
    'chambered-straight',
    'elbow-reverse',
    'elbow-drop',
    'elbow-up',
  ],
  // A fist that is to push further than the arm is long needs a target that gives way.
  push: STRAIGHTS,
  'short-stop': ['lead-uppercut', 'rear-uppercut'],
  'chin-open': ['jab', 'lead-hook'],
};
