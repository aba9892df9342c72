/**
 * A strike as one source shows it: the stretch of the motion that it is in, and its instants. A strike
 * may be seen by several sources, a picture and the space of two films for example.
 */
import type { Calibration } from '../reconstruct/calibration/calibration';
import { proposeContact } from '../measure/events/contact';
import type { EventMark, Events } from '../measure/events/events';
import { turnStarts } from '../measure/events/starts';
import { proposeEvents } from '../measure/events/propose';
import {
  excerpt,
  motionFromPicture,
  motionFromSpace,
  type Motion,
} from '../reconstruct/motion/motion';
import { motionFromBands } from '../reconstruct/motion/bandMotion';
import { cleaned } from '../reconstruct/motion/clean';
import { prepared } from '../reconstruct/motion/prepare';
import type { Strike } from '../foundation/technique/strike';
import type { BandTurns } from '../observe/band/bandTurns';
import type { PictureTrack, Placed, SpaceTrack } from '../observe/track/track';
import { markedTurn } from '../observe/track/turnMarks';

/** Where landmarks were seen: in space, or in a picture with what has been set in it. */
export type SourceOfMotion =
  | { readonly track: SpaceTrack }
  | {
      readonly track: PictureTrack;
      readonly calibration: Calibration;
      /** What worn bands tell of the turn, where the student wears any. */
      readonly bands?: BandTurns | null;
      /** The coach's points, of which those on hips and shoulders may tell the turn. */
      readonly marked?: MarkedFilm;
    };

export interface MarkedFilm {
  readonly placed: readonly Placed[];
  /** Pixels. */
  readonly pictureHeight: number;
}

export interface SeenStrike {
  readonly motion: Motion;
  readonly events: Events;
  /** What tells the turn of hips and trunk in the same stretch better than a tracked picture: the best first. */
  readonly turned: readonly Motion[];
}

/** How much of a long take belongs to one strike: before and after contact, seconds. */
const BEFORE = 1.6;
const AFTER = 1.4;

/**
 * @param marks the coach's; they win over anything proposed
 * @param cutoff Hz, when the coach has fixed one; else every path finds its own
 * @throws RangeError in words for the coach when what is set in the picture fixes nothing
 */
export function seeStrike(
  source: SourceOfMotion,
  strike: Strike,
  marks: Events,
  cutoff?: number,
): SeenStrike {
  const whole =
    'calibration' in source
      ? motionFromPicture(source.track, source.calibration, strike)
      : motionFromSpace(source.track, strike);
  const { contact, stretch } = aroundContact(whole, strike, marks);
  const motion = prepared(stretch, contact?.time ?? null, cutoff);
  const isPicture = 'calibration' in source;
  const banded = isPicture ? turnedByBands(source, strike, contact, marks, cutoff) : null;
  const marked = isPicture && contact ? turnedByMarks(source, strike, contact) : null;
  const starts = banded && contact ? turnStarts(banded, strike.technique, contact) : {};
  const events = proposeEvents(motion, strike.technique, { ...starts, ...marks }, contact);
  return { motion, events, turned: [banded, marked].filter((one) => one !== null) };
}

type Picture = Extract<SourceOfMotion, { calibration: Calibration }>;

/** The same stretch as worn bands tell of it; null where none are worn. */
function turnedByBands(
  { bands, track }: Picture,
  strike: Strike,
  contact: EventMark | null,
  marks: Events,
  cutoff?: number,
): Motion | null {
  if (!bands) return null;
  const whole = motionFromBands(bands, track.frameTimes, strike);
  return prepared(cleaned(stretchOf(whole, contact, marks)), contact?.time ?? null, cutoff);
}

/** The turn as the coach has marked it; null where too little is. */
function turnedByMarks(
  { track, calibration, marked }: Picture,
  strike: Strike,
  contact: EventMark,
): Motion | null {
  if (!marked) return null;
  const { placed, pictureHeight } = marked;
  const turn = markedTurn(placed, track.frameTimes, pictureHeight, contact.time);
  return turn && motionFromPicture(turn, calibration, strike);
}

/** Contact, and the stretch of a take around it, cleaned: only where it is looked for, the take is too. */
function aroundContact(whole: Motion, strike: Strike, marks: Events) {
  if (marks.contact) {
    return { contact: marks.contact, stretch: cleaned(stretchOf(whole, marks.contact, marks)) };
  }
  const clean = cleaned(whole);
  const contact = proposeContact(clean, strike.technique);
  return { contact, stretch: stretchOf(clean, contact, marks) };
}

/** The stretch of a take that the strike is in. */
function stretchOf(whole: Motion, contact: EventMark | null, marks: Events): Motion {
  if (!contact) return whole;
  const times = Object.values(marks).map((mark) => mark.time);
  const from = Math.min(contact.time - BEFORE, ...times);
  const to = Math.max(contact.time + AFTER, ...times);
  return excerpt(whole, from, to + 1e-9);
}
