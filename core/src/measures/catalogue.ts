/** Every measure by its id: the table of contents of this room. */
import type { Measured } from '../reading/reading';
import type { MeasureContext } from './context';
import { elbowAtContact, elbowDrift, flare } from './elbow';
import { reach } from './reach';
import { separationGrowth } from './separation';
import { contactSpeed } from './speed';
import { between, phaseDuration, recoil } from './timing';

interface Measure {
  readonly name: string;
  readonly measure: (context: MeasureContext) => Measured;
}

export const MEASURES = {
  'phase.load': { name: 'Load', measure: (c) => phaseDuration(c, 'load') },
  'phase.explode': { name: 'Explode', measure: (c) => phaseDuration(c, 'explode') },
  'phase.accelerate': { name: 'Accelerate', measure: (c) => phaseDuration(c, 'accelerate') },
  'phase.follow-through': {
    name: 'Follow-through',
    measure: (c) => phaseDuration(c, 'follow-through'),
  },
  'phase.recover': { name: 'Recover', measure: (c) => phaseDuration(c, 'recover') },
  'lead.hipsTrunk': { name: 'Hips before trunk', measure: (c) => between(c, 'hips', 'trunk') },
  'lead.trunkArm': { name: 'Trunk before arm', measure: (c) => between(c, 'trunk', 'arm') },
  'lead.hipsArm': { name: 'Hips before arm', measure: (c) => between(c, 'hips', 'arm') },
  'separation.growth': { name: 'Stretch of hips against trunk', measure: separationGrowth },
  'speed.contact': { name: 'Fist speed at contact', measure: contactSpeed },
  reach: { name: 'Reach used', measure: reach },
  'elbow.contact': { name: 'Elbow at contact', measure: elbowAtContact },
  'elbow.drift': { name: 'Elbow change, last 80 ms', measure: elbowDrift },
  flare: { name: 'Elbow off the line', measure: flare },
  recoil: { name: 'Time home ÷ time out', measure: recoil },
} as const satisfies Record<string, Measure>;

export type MeasureId = keyof typeof MEASURES;

export const MEASURE_IDS = Object.keys(MEASURES) as MeasureId[];

export type Readings = Readonly<Record<MeasureId, Measured>>;

export function measureAll(context: MeasureContext): Readings {
  const entries = MEASURE_IDS.map((id) => [id, MEASURES[id].measure(context)] as const);
  return Object.fromEntries(entries) as Record<MeasureId, Measured>;
}
