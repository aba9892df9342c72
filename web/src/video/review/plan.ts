/**
 * How a review runs: the strike at true speed, then slowly to its contact, then the frame that shows it
 * with the cue, then the work. Which frame of the film is shown when, and what is said the while.
 */
import { nearestFrame } from '@sinew/core/observe/track/time';

export interface ReviewOrder {
  /** Real time of every frame of the film, seconds. */
  readonly times: readonly number[];
  /** Frames: the strike, where its slow part ends, and the one that shows it. */
  readonly strike: readonly [number, number];
  readonly until: number;
  readonly shows: number;
  readonly technique: string;
  readonly cue: string;
  readonly evidence: string;
  /** The drill and its dose; empty for none. */
  readonly work: string;
}

export type Part = 'true' | 'slow' | 'stands' | 'work';

export interface Piece {
  readonly part: Part;
  /** Seconds of the review. */
  readonly from: number;
  readonly to: number;
  readonly words: string;
}

export interface Review {
  readonly pieces: readonly Piece[];
  /** Seconds. */
  readonly length: number;
  /** The slow part runs at this share of true speed. */
  readonly pace: number;
}

/** Frames of a review a second. */
export const RATE = 30;
/** Stands still before it runs, so that the eye finds the student; seconds. */
const BEFORE = 0.6;
/** So long the slow part may take, seconds; it is an eighth of true speed where that is enough. */
const SLOW = 6;
const STANDS = 4;
const WORK = 3.5;
/** A strike that was cut out of a longer film by mistake is shown for no longer than this, seconds. */
const LONGEST_STRIKE = 4;

const PACES = [
  [1 / 8, 'an eighth'],
  [1 / 4, 'a quarter'],
  [1 / 2, 'half'],
] as const;

export function reviewOf(order: ReviewOrder): Review {
  const { times, technique, cue, evidence, work } = order;
  const [from, until, to] = spanOf(order);
  const way = times[until]! - times[from]!;
  const [pace, named] = PACES.find(([one]) => way / one <= SLOW) ?? PACES[PACES.length - 1]!;
  const lengths: readonly (readonly [Part, number, string])[] = [
    ['true', BEFORE + (times[to]! - times[from]!), `${technique}, at true speed`],
    ['slow', Math.max(1, way / pace), `${technique}, at ${named} of true speed`],
    ['stands', STANDS, [cue, evidence].filter(Boolean).join('\n')],
    ['work', work ? WORK : 0, work],
  ];
  let at = 0;
  const pieces = lengths
    .filter(([, length]) => length > 0)
    .map(([part, length, words]): Piece => {
      const begins = at;
      at += length;
      return { part, from: begins, to: at, words };
    });
  return { pieces, length: at, pace };
}

/** Frames from, until, to: in their order, however they were given. */
function spanOf({ times, strike, until }: ReviewOrder): readonly [number, number, number] {
  const last = times.length - 1;
  const inside = (frame: number) => Math.min(last, Math.max(0, frame));
  const middle = inside(until);
  const from = Math.max(
    Math.min(inside(strike[0]), middle),
    nearestFrame(times, times[middle]! - LONGEST_STRIKE / 2),
  );
  const to = Math.min(
    Math.max(inside(strike[1]), middle),
    nearestFrame(times, times[middle]! + LONGEST_STRIKE / 2),
  );
  return [from, middle, to];
}

/** The frame of the film that is shown at a moment of the review. @param at seconds */
export function frameAt(order: ReviewOrder, { pieces, pace }: Review, at: number): number {
  const [from, until, to] = spanOf(order);
  const piece = pieces.find((one) => at < one.to) ?? pieces[pieces.length - 1]!;
  if (piece.part === 'stands' || piece.part === 'work') {
    return Math.min(order.times.length - 1, Math.max(0, order.shows));
  }
  const into =
    piece.part === 'true' ? Math.max(0, at - piece.from - BEFORE) : (at - piece.from) * pace;
  const frame = nearestFrame(order.times, order.times[from]! + into);
  return Math.min(piece.part === 'true' ? to : until, Math.max(from, frame));
}
