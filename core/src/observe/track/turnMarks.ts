/**
 * The turn of hips and shoulders as the coach marks it: both ends of both lines, frame by frame through the
 * turn. What a body tracker makes of a pelvis turns too little; careful marks do not.
 */
import type { Landmark } from '../../foundation/body/landmarks';
import { nearestFrame } from './time';
import { trackFromPlaced, type PictureTrack, type Placed } from './track';

const LINES = [
  ['leftHip', 'rightHip'],
  ['leftShoulder', 'rightShoulder'],
] as const satisfies readonly (readonly [Landmark, Landmark])[];

/** In the order in which they are marked on a frame. */
export const TURN_POINTS: readonly Landmark[] = LINES.flat();

/** From one frame that is marked to the next, seconds, and how many of them are. */
const STEP = 0.033;
const STEPS = 12;
/** So many of them lie behind contact: half-way through a turn needs its end. */
const BEHIND = 1;
/** Marks farther apart do not show what is between them, seconds. */
const LONGEST_STEP = 0.05;
/** A turn is told by at least so many frames. */
const FEWEST = 6;

/**
 * The frames on which the turn into a strike is marked, ascending.
 *
 * @param frameTimes real time of every frame, seconds
 * @param contact seconds
 */
export function framesOfTurn(frameTimes: readonly number[], contact: number): number[] {
  const wanted = Array.from(
    { length: STEPS },
    (_, i) => contact + STEP * (i - (STEPS - 1) + BEHIND),
  );
  const last = frameTimes[frameTimes.length - 1] ?? 0;
  const inFilm = wanted.filter((time) => time >= 0 && time <= last + STEP / 2);
  return [...new Set(inFilm.map((time) => nearestFrame(frameTimes, time)))];
}

export interface TurnMark {
  readonly frame: number;
  readonly landmark: Landmark;
}

/** What is still to be marked, frame by frame; empty when all is. */
export function leftToMark(
  placed: readonly Pick<Placed, 'frame' | 'landmark'>[],
  frames: readonly number[],
): TurnMark[] {
  const done = new Set(placed.map(({ frame, landmark }) => `${frame} ${landmark}`));
  return frames.flatMap((frame) =>
    TURN_POINTS.filter((landmark) => !done.has(`${frame} ${landmark}`)).map((landmark) => ({
      frame,
      landmark,
    })),
  );
}

/**
 * The lines that are marked closely enough around a contact to tell their turn, and nothing else.
 *
 * @param contact seconds
 * @returns null when neither is
 */
export function markedTurn(
  placed: readonly Placed[],
  frameTimes: readonly number[],
  pictureHeight: number,
  contact: number,
): PictureTrack | null {
  const near = placed.filter(({ frame }) => {
    const time = frameTimes[frame] ?? Infinity;
    return time > contact - STEP * (STEPS + 1) && time < contact + STEP * (BEHIND + 1);
  });
  const kept = LINES.flatMap((line) => {
    const [left, right] = line.map((end) => near.filter(({ landmark }) => landmark === end));
    const both = new Set(left!.map(({ frame }) => frame));
    const frames = right!.map(({ frame }) => frame).filter((frame) => both.has(frame));
    return isClose(frames, frameTimes) ? [...left!, ...right!] : [];
  });
  return kept.length > 0 ? trackFromPlaced(kept, frameTimes, pictureHeight) : null;
}

function isClose(frames: readonly number[], frameTimes: readonly number[]): boolean {
  const times = frames.map((frame) => frameTimes[frame]!).sort((a, b) => a - b);
  const isGapless = times.every((time, i) => i === 0 || time - times[i - 1]! <= LONGEST_STEP);
  return times.length >= FEWEST && isGapless;
}
