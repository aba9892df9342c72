/** The films of the demo gym: who does what, seen from where. */
import type { BandKind } from '@sinew/core/observe/band/band';
import type { View } from '@sinew/core/foundation/technique/techniques';
import { CAMERAS, type Camera } from './camera';
import { clean, FAULT_CHANGES, type Recipe } from '../fighter/recipe';

export interface Look {
  readonly skin: string;
  readonly hair: string;
  readonly shirt: string;
  readonly shorts: string;
  readonly belt: string;
  /** How thick limbs and trunk are; 1 when missing. */
  readonly girth?: number;
  readonly style?: 'short' | 'shaved' | 'tied' | 'curls';
  /** What the hands are in; wraps when missing. */
  readonly hands?: 'bare' | 'wraps' | 'gloves';
  readonly handsColor?: string;
  readonly shoes?: string;
  /** Worn in place of a belt: printed bands, their ends meeting in front, or rows of tape. */
  readonly bands?: BandKind;
}

export interface DemoClip {
  readonly file: string;
  readonly student: string;
  readonly view: View;
  /** Frames a second, true rate. */
  readonly rate: number;
  readonly recipe: Recipe;
  readonly look: Look;
  /** Where it stands otherwise than usual for its view. */
  readonly camera?: Camera;
  /** There is no bag. */
  readonly isInTheAir?: true;
  /** The film has its sound. */
  readonly isHeard?: true;
}

/** In the films the shoulder of a cross does not come up to the chin. */
export const CHIN_OPEN = { shrug: 0 } satisfies Partial<Recipe>;

const MAREN: Look = {
  skin: '#c98e68',
  hair: '#2b1d16',
  style: 'tied',
  hands: 'gloves',
  handsColor: '#7c3f35',
  shirt: '#2f5d7c',
  shorts: '#474b54',
  belt: '#e9e2d0',
};

const PERRIN: Look = {
  skin: '#8a5a3c',
  hair: '#15110f',
  shirt: '#b9b4a6',
  shorts: '#566a4f',
  belt: '#f0ead9',
};

const SUNNIVA: Look = {
  skin: '#e3b694',
  hair: '#b98d4f',
  style: 'tied',
  shirt: '#d9d2c2',
  shorts: '#5b4a5e',
  belt: '#efe8d6',
  shoes: '#6f7f88',
  girth: 0.95,
};

/** A phone with its main lens, held level at belt height. */
const PHONE_BEHIND: Camera = {
  ...CAMERAS.behind,
  position: [-3.3, 0.98, 0],
  lookAt: [0, 0.98, 0],
  fieldOfView: (40.6 * Math.PI) / 180,
};

export const DEMO_CLIPS: readonly DemoClip[] = [
  {
    file: 'cross-all-at-once.mp4',
    student: 'Maren Voss',
    view: 'side',
    rate: 240,
    recipe: clean('cross', { ...FAULT_CHANGES['all-at-once'], ...CHIN_OPEN, height: 1.72 }),
    look: MAREN,
  },
  {
    file: 'cross-in-order.mp4',
    student: 'Maren Voss',
    view: 'side',
    rate: 240,
    recipe: clean('cross', { ...CHIN_OPEN, height: 1.72 }),
    look: MAREN,
  },
  {
    file: 'cross-clean.mp4',
    student: 'Perrin Oake',
    view: 'side',
    rate: 240,
    recipe: clean('cross', { ...CHIN_OPEN, height: 1.81 }),
    look: PERRIN,
  },
  {
    file: 'cross-bands.mp4',
    student: 'Perrin Oake',
    view: 'behind',
    rate: 120,
    // The shoulders are away a moment before the hips.
    recipe: clean('cross', {
      ...FAULT_CHANGES['all-at-once'],
      ...CHIN_OPEN,
      hipsToTrunk: -0.012,
      height: 1.81,
    }),
    camera: PHONE_BEHIND,
    isHeard: true,
    look: { ...PERRIN, bands: 'printed' },
  },
  {
    file: 'cross-jammed.mp4',
    student: 'Ilse Kaar',
    view: 'side',
    rate: 240,
    recipe: clean('cross', { ...FAULT_CHANGES.jammed, ...CHIN_OPEN, height: 1.61 }),
    isHeard: true,
    look: {
      skin: '#d8a07a',
      hair: '#6a3d20',
      style: 'curls',
      shirt: '#8a6f9c',
      shorts: '#3f4a44',
      belt: '#e6dcc6',
    },
  },
  {
    file: 'lead-hook-slap.mp4',
    student: 'Tobiah Renn',
    view: 'above',
    rate: 240,
    recipe: clean('lead-hook', { ...FAULT_CHANGES.slap, height: 1.78 }),
    look: {
      skin: '#e0b08e',
      hair: '#7a4a22',
      style: 'shaved',
      hands: 'bare',
      shirt: '#7c3f35',
      shorts: '#4a5468',
      belt: '#efe8d6',
    },
  },
  {
    file: 'hook-bands.mp4',
    student: 'Perrin Oake',
    view: 'behind',
    rate: 120,
    recipe: clean('rear-hook', { height: 1.81 }),
    camera: PHONE_BEHIND,
    isHeard: true,
    look: { ...PERRIN, bands: 'printed' },
  },
  {
    file: 'cross-tape.mp4',
    student: 'Sunniva Lund',
    view: 'behind',
    rate: 120,
    recipe: clean('cross', { ...CHIN_OPEN, stance: 'southpaw', height: 1.69 }),
    camera: PHONE_BEHIND,
    isHeard: true,
    look: { ...SUNNIVA, bands: 'tape' },
  },
];

/** How a student looks in all their films. */
export function lookOf(student: string): Look {
  const clip = DEMO_CLIPS.find((one) => one.student === student);
  if (!clip) throw new Error(`${student} is in no film of one strike`);
  return clip.look;
}
