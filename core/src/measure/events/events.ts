/** The instants of a strike, in the order in which a sound strike passes them. */
import type { Source } from '../../foundation/reading/reading';
import type { Technique } from '../../foundation/technique/techniques';
import { nearestFrame } from '../../observe/track/time';
import { frameSpacing } from '../../observe/track/track';

export const EVENTS = ['ready', 'load', 'hips', 'trunk', 'arm', 'contact', 'end', 'home'] as const;

export type EventName = (typeof EVENTS)[number];

/**
 * What the feet do meanwhile: the rear heel comes up, a foot leaves the floor and lands again, the
 * turning foot starts to turn, the other foot is set for good.
 */
export const FOOT_EVENTS = [
  'rearHeelUp',
  'footLift',
  'footLand',
  'pivotStart',
  'anchorSet',
] as const;

/** `drive`: the leg on the striking side begins to push; read off a track, never marked. */
export type AnyEvent = EventName | 'drive' | (typeof FOOT_EVENTS)[number];

export interface EventMark {
  readonly frame: number;
  /** Real time, seconds. */
  readonly time: number;
  /** Standard deviation of `time`, seconds. */
  readonly sigma: number;
  readonly source: Source;
}

export type Events = Partial<Record<AnyEvent, EventMark>>;

/** Events a coach marks. */
export type Marks = Partial<Record<EventName, EventMark>>;

/** An event as a coach knows it in a technique. */
export interface EventWords {
  readonly name: string;
  /** What to look for when setting the mark. */
  readonly meaning: string;
}

const WORDS: Record<EventName, EventWords> = {
  ready: { name: 'ready', meaning: 'in guard, nothing has moved' },
  load: { name: 'load', meaning: 'the body begins to sink or coil' },
  hips: { name: 'hips', meaning: 'the pelvis begins to turn to the target' },
  trunk: { name: 'trunk', meaning: 'the trunk begins to turn' },
  arm: { name: 'arm', meaning: 'the striking arm leaves the trunk' },
  contact: { name: 'contact', meaning: 'the strike meets the target' },
  end: { name: 'end', meaning: 'the strike stops travelling into the target' },
  home: { name: 'home', meaning: 'the striking hand is back in guard' },
};

/** What the start of the hips is, where the body does not turn into the strike. */
const STARTS: Partial<Record<Technique['start'], string>> = {
  rise: 'the legs begin to lift the pelvis',
  drop: 'the pelvis begins to sink onto the target',
  thrust: 'the pelvis begins to drive forward',
};

const OF_A_KICK: Partial<Record<EventName, EventWords>> = {
  trunk: { name: 'thigh', meaning: 'the thigh begins to swing' },
  arm: { name: 'shank', meaning: 'the knee begins to open' },
  home: { name: 'home', meaning: 'the foot is back on the floor' },
};

export function wordsFor(event: EventName, technique: Technique): EventWords {
  const words = (technique.family === 'kick' ? OF_A_KICK[event] : undefined) ?? WORDS[event];
  const meaning = event === 'hips' ? STARTS[technique.start] : undefined;
  return meaning === undefined ? words : { ...words, meaning };
}

/** The events a technique has: a knee has no shank that opens into it. */
export function eventsOf({ end }: Pick<Technique, 'end'>): readonly EventName[] {
  return end === 'knee' ? EVENTS.filter((event) => event !== 'arm') : EVENTS;
}

/**
 * An event seen on one frame. The true instant lies anywhere within the frames it may be on, each
 * equally likely, so σ = width · Δt / √12 (the standard deviation of a uniform distribution).
 *
 * @param width over how many frames the coach is unsure; 1 = this very frame
 */
export function markOnFrame(frameTimes: readonly number[], frame: number, width = 1): EventMark {
  const time = frameTimes[frame];
  if (time === undefined) {
    throw new RangeError(`frame ${frame} is not in a clip of ${frameTimes.length} frames`);
  }
  const sigma = (width * frameSpacing(frameTimes, frame)) / Math.sqrt(12);
  return { frame, time, sigma, source: 'eye' };
}

/** An event read off a track, on the frame nearest to it. */
export function markAt(
  frameTimes: readonly number[],
  time: number,
  sigma: number,
  source: Source,
): EventMark {
  const frame = nearestFrame(frameTimes, time);
  const sampling = frameSpacing(frameTimes, frame) / Math.sqrt(12);
  return { frame, time, sigma: Math.hypot(sigma, sampling), source };
}

/** Pairs that can only happen in this order. The starts of hips, trunk and arm may come in any. */
const FIXED_ORDER: readonly (readonly [EventName, EventName])[] = [
  ['ready', 'contact'],
  ['load', 'contact'],
  ['hips', 'contact'],
  ['trunk', 'contact'],
  ['arm', 'contact'],
  ['contact', 'end'],
  ['contact', 'home'],
  ['end', 'home'],
];

/** Marks that contradict each other, as sentences; empty when the marks make sense. */
export function orderProblems(events: Events): string[] {
  return FIXED_ORDER.flatMap(([first, second]) => {
    const a = events[first];
    const b = events[second];
    if (!a || !b || a.time <= b.time) return [];
    return [`“${first}” is marked after “${second}”; one of the two is on the wrong frame.`];
  });
}
