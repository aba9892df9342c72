/** The lanes of the chain strip: one a link, ground at the bottom, striking end on top. */
import type { Landmark } from '@sinew/core/body/landmarks';
import type { EventName } from '@sinew/core/events/events';
import type { Link } from '@sinew/core/technique/catalogue';

export interface Lane {
  readonly link: Link;
  readonly name: string;
  /** The event whose start is read off this link. */
  readonly event: EventName | null;
  /** Landmark names of either side that belong to the link end in one of these. */
  readonly parts: readonly string[];
}

export const LANES: readonly Lane[] = [
  { link: 'fist', name: 'Fist', event: 'arm', parts: ['Wrist', 'IndexKnuckle', 'LittleKnuckle'] },
  { link: 'elbow', name: 'Elbow', event: null, parts: ['Elbow'] },
  { link: 'shoulder', name: 'Shoulder', event: null, parts: ['Shoulder'] },
  { link: 'trunk', name: 'Trunk', event: 'trunk', parts: [] },
  { link: 'pelvis', name: 'Pelvis', event: 'hips', parts: ['Hip'] },
  { link: 'knees', name: 'Knees', event: 'load', parts: ['Knee'] },
  { link: 'feet', name: 'Feet', event: null, parts: ['Ankle', 'Heel', 'Toe'] },
];

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

export function laneOf(landmark: Landmark): Link | null {
  return LANES.find((lane) => lane.parts.some((part) => landmark.endsWith(part)))?.link ?? null;
}

/** Heights of the strip, CSS pixels: a lane, the head with the phases, the foot with the times. */
export const LANE = 24;
export const TOP = 26;
export const AXIS = 34;
export const FLOOR = TOP + LANES.length * LANE;
export const HEIGHT = FLOOR + AXIS;

/** Where a lane's ground line runs. */
export const laneY = (index: number) => TOP + (index + 1) * LANE - 5;
