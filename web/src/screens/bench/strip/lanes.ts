/** The lanes of the chain strip: one a link, ground at the bottom, striking end on top. */
import type { Landmark } from '@sinew/core/foundation/body/landmarks';
import type { EventName } from '@sinew/core/measure/events/events';
import {
  techniqueById,
  type Link,
  type Technique,
} from '@sinew/core/foundation/technique/techniques';

export interface Lane {
  readonly link: Link;
  readonly name: string;
  /** The event whose start is read off this link. */
  readonly event: EventName | null;
  /** Landmark names of either side that belong to the link end in one of these. */
  readonly parts: readonly string[];
}

const OF_LINK: Readonly<Record<Link, Lane>> = {
  fist: {
    link: 'fist',
    name: 'Fist',
    event: 'arm',
    parts: ['Wrist', 'IndexKnuckle', 'LittleKnuckle'],
  },
  elbow: { link: 'elbow', name: 'Elbow', event: null, parts: ['Elbow'] },
  shoulder: { link: 'shoulder', name: 'Shoulder', event: null, parts: ['Shoulder'] },
  trunk: { link: 'trunk', name: 'Trunk', event: 'trunk', parts: [] },
  foot: { link: 'foot', name: 'Foot', event: null, parts: ['Ankle', 'Heel', 'Toe'] },
  shank: { link: 'shank', name: 'Shank', event: 'arm', parts: ['Ankle'] },
  thigh: { link: 'thigh', name: 'Thigh', event: 'trunk', parts: ['Knee'] },
  pelvis: { link: 'pelvis', name: 'Pelvis', event: 'hips', parts: ['Hip'] },
  knees: { link: 'knees', name: 'Knees', event: 'load', parts: ['Knee'] },
  feet: { link: 'feet', name: 'Feet', event: null, parts: ['Ankle', 'Heel', 'Toe'] },
};

/** A technique's lanes, striking end first. */
export function lanesOf(technique: Technique): readonly Lane[] {
  const lanes = [...technique.chain].reverse().map((link) => OF_LINK[link]);
  // An elbow ends in the link whose start is the arm's.
  return technique.end === 'elbow'
    ? lanes.map((lane) => (lane.link === 'shoulder' ? { ...lane, event: 'arm' as const } : lane))
    : lanes;
}

/** The lanes that stand there before the coach has named a strike. */
export const ANY_TECHNIQUE = techniqueById('cross');

/** Events that belong to the whole body stand on the time axis; contact crosses all lanes. */
export const AXIS_EVENTS: readonly EventName[] = ['ready', 'end', 'home'];

/** "3 hips": the key of an event and its name. */
export const EVENT_KEY: Record<EventName, number> = {
  ready: 1,
  load: 2,
  hips: 3,
  trunk: 4,
  arm: 5,
  contact: 6,
  end: 7,
  home: 8,
};

export function laneOf(lanes: readonly Lane[], landmark: Landmark): Link | null {
  return lanes.find((lane) => lane.parts.some((part) => landmark.endsWith(part)))?.link ?? null;
}

/** Heights of the strip, CSS pixels: the lanes together, the head with the phases, the foot with the times. */
const LANES_HEIGHT = 161;
export const TOP = 42;
/** The band of the phases, under their names. */
export const BAND = { top: 22, height: 6 } as const;
export const AXIS = 34;
export const FLOOR = TOP + LANES_HEIGHT;
export const HEIGHT = FLOOR + AXIS;

/** Height of one lane; the strip is as high for five links as for seven. */
export function laneHeight(lanes: readonly Lane[]): number {
  return LANES_HEIGHT / lanes.length;
}

/** Where a lane's ground line runs. */
export function laneY(lanes: readonly Lane[], index: number): number {
  return TOP + (index + 1) * laneHeight(lanes) - 5;
}
