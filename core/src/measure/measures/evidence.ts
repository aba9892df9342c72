/** Where in a picture a reading can be seen: what to draw for the eye to check it. */
import {
  leadSide,
  otherSide,
  sided,
  type Landmark,
  type Side,
  type SidedPart,
} from '../../foundation/body/landmarks';
import type { AnyEvent } from '../events/events';
import { strikeStance, type Strike } from '../../foundation/technique/strike';
import { END_PARTS } from '../../foundation/technique/end';
import type { MeasureId } from './allMeasures';
import type { SetId } from './set';

type Of = 'own' | 'off' | 'lead' | 'rear';
type Ref = readonly [Of, SidedPart] | 'nose' | 'end';

type Drawing =
  /** The angle at the middle one. */
  | { readonly angle: readonly [Ref, Ref, Ref] }
  | { readonly lines: readonly (readonly [Ref, Ref])[] }
  /** The way of a point from one instant to another. */
  | { readonly way: Ref; readonly from: AnyEvent; readonly to: AnyEvent }
  /** Two instants on the strip. */
  | { readonly span: readonly [AnyEvent, AnyEvent] };

const HIPS = [
  ['lead', 'Hip'],
  ['rear', 'Hip'],
] as const;
const SHOULDERS = [
  ['lead', 'Shoulder'],
  ['rear', 'Shoulder'],
] as const;
const foot = (of: Of) =>
  [
    [of, 'Heel'],
    [of, 'Toe'],
  ] as const;
const leg = (of: Of) =>
  ({
    angle: [
      [of, 'Hip'],
      [of, 'Knee'],
      [of, 'Ankle'],
    ],
  }) as const;
const ELBOW = {
  angle: [
    ['own', 'Shoulder'],
    ['own', 'Elbow'],
    ['own', 'Wrist'],
  ],
} as const;
const WRIST = {
  angle: [
    ['own', 'Elbow'],
    ['own', 'Wrist'],
    ['own', 'IndexKnuckle'],
  ],
} as const;
const LEAN = {
  lines: [
    [
      ['lead', 'Hip'],
      ['lead', 'Shoulder'],
    ],
    [
      ['rear', 'Hip'],
      ['rear', 'Shoulder'],
    ],
  ],
} as const;
const TURN = { lines: [HIPS, SHOULDERS] } as const;
const WAY_OUT = { way: 'end', from: 'arm', to: 'contact' } as const;

const DRAWINGS: Partial<Record<MeasureId | SetId, Drawing>> = {
  'lead.hipsTrunk': { span: ['hips', 'trunk'] },
  'lead.half': TURN,
  'lead.trunkArm': { span: ['trunk', 'arm'] },
  'lead.hipsArm': { span: ['hips', 'arm'] },
  'phase.follow-through': { span: ['contact', 'end'] },
  'step.contact': { span: ['footLand', 'contact'] },
  recoil: { span: ['end', 'home'] },
  'stance.level': { lines: [HIPS] },
  'stance.width': { lines: [foot('lead'), foot('rear')] },
  'stance.rearHeel': { lines: [foot('rear')] },
  'angle.ready': { lines: [HIPS] },
  split: { lines: [foot('lead'), foot('rear')] },
  'turn.pelvis': { lines: [HIPS] },
  'turn.air': { lines: [HIPS] },
  'turn.trunk': { lines: [SHOULDERS] },
  'separation.growth': TURN,
  'separation.max': TURN,
  coil: { lines: [SHOULDERS] },
  'pivot.own': { lines: [foot('own')] },
  'pivot.support': { lines: [foot('off')] },
  'anchor.foot': { lines: [foot('off')] },
  'anchor.travel': { lines: [foot('off')] },
  'heel.lead': { lines: [foot('lead')] },
  'heel.rear': { lines: [foot('rear')] },
  'anchor.knee': leg('off'),
  'knee.support': leg('off'),
  'kick.chamber': leg('own'),
  'knee.own': leg('own'),
  'knee.in.lead': leg('lead'),
  lean: LEAN,
  'lean.trunk': LEAN,
  'head.ahead': { lines: [['nose', ['lead', 'Toe']]] },
  'elbow.contact': ELBOW,
  'elbow.drift': ELBOW,
  'elbow.most': ELBOW,
  reach: { lines: [[['own', 'Shoulder'], 'end']] },
  flare: {
    lines: [
      [
        ['own', 'Shoulder'],
        ['own', 'Elbow'],
      ],
    ],
  },
  'wrist.flex': WRIST,
  'wrist.side': WRIST,
  'forearm.rise': {
    lines: [
      [
        ['own', 'Elbow'],
        ['own', 'Wrist'],
      ],
    ],
  },
  knucklePlane: {
    lines: [
      [
        ['own', 'IndexKnuckle'],
        ['own', 'LittleKnuckle'],
      ],
    ],
  },
  'telegraph.hand': { way: 'end', from: 'ready', to: 'arm' },
  'telegraph.dip': { way: 'end', from: 'ready', to: 'arm' },
  'speed.keep': WAY_OUT,
  through: { way: 'end', from: 'contact', to: 'end' },
  'guard.drop': { way: ['off', 'Wrist'], from: 'ready', to: 'contact' },
  'guard.leave': { way: ['off', 'Wrist'], from: 'ready', to: 'contact' },
  'guard.chin': { lines: [[['own', 'Shoulder'], 'nose']] },
  head: { way: 'nose', from: 'ready', to: 'contact' },
  'head.seen': { way: 'nose', from: 'ready', to: 'contact' },
  counter: { lines: [SHOULDERS] },
  'drop.height': { way: ['rear', 'Hip'], from: 'hips', to: 'contact' },
  'sink.height': { way: ['rear', 'Hip'], from: 'load', to: 'hips' },
};

/** A drawing with its points named for the strike at hand. */
export type Evidence =
  | { readonly angle: readonly [Landmark, Landmark, Landmark] }
  | { readonly lines: readonly (readonly [Landmark, Landmark])[] }
  | { readonly way: Landmark; readonly from: AnyEvent; readonly to: AnyEvent }
  | { readonly span: readonly [AnyEvent, AnyEvent] };

/** @returns null where a reading has no place in a picture */
export function evidenceOf(id: MeasureId | SetId, strike: Strike): Evidence | null {
  const drawing = DRAWINGS[id];
  if (!drawing) return null;
  const lead = leadSide(strikeStance(strike));
  const sides: Record<Of, Side> = {
    own: strike.side,
    off: otherSide(strike.side),
    lead,
    rear: otherSide(lead),
  };
  const name = (ref: Ref): Landmark => {
    if (ref === 'nose') return ref;
    if (ref === 'end') return sided(strike.side, END_PARTS[strike.technique.end][0]!);
    return sided(sides[ref[0]], ref[1]);
  };
  if ('angle' in drawing) {
    const [a, b, c] = drawing.angle;
    return { angle: [name(a), name(b), name(c)] };
  }
  if ('lines' in drawing) return { lines: drawing.lines.map(([a, b]) => [name(a), name(b)]) };
  return 'way' in drawing ? { ...drawing, way: name(drawing.way) } : drawing;
}
