/** Stretches in which a tracked landmark is not to be trusted without a look. */
import { LANDMARKS, type Landmark } from '../../foundation/body/landmarks';
import { lowerBound } from '../../foundation/signal/interpolate';
import { REACH, SETTLED } from './pull';

/** Why, from the worst: it was guessed, leapt about, changed sides, or is poorly seen. */
export const REASONS = ['hidden', 'jumps', 'swapped', 'unsure'] as const;
export type Reason = (typeof REASONS)[number];

export interface Doubt {
  readonly landmark: Landmark;
  /** Frames, both included. */
  readonly from: number;
  readonly to: number;
  readonly why: Reason;
}

/** Frames that doubts about one landmark rest on. */
export type Doubted = ReadonlyMap<number, Reason>;

/** A break in a doubt shorter than this does not part it, seconds. */
const BREAK = 0.04;
/** A doubt shorter than this is bridged from both sides and not worth a look, seconds. */
const SHORTEST = 0.025;

/**
 * @param doubted for each landmark the frames in doubt
 * @param settledBy frames on which the coach has placed the landmark, ascending
 * @returns in the order of their frames
 */
export function doubtsOf(
  doubted: ReadonlyMap<Landmark, Doubted>,
  settledBy: ReadonlyMap<Landmark, readonly number[]>,
  frameTimes: readonly number[],
): Doubt[] {
  const found: Doubt[] = [];
  for (const landmark of LANDMARKS) {
    const placed = settledBy.get(landmark) ?? [];
    const frames = [...(doubted.get(landmark)?.keys() ?? [])]
      .filter((frame) => !isSettled(frame, placed, frameTimes))
      .sort((a, b) => a - b);
    for (const run of runs(frames, frameTimes)) {
      const [from, to] = [run[0]!, run[run.length - 1]!];
      if (frameTimes[to]! - frameTimes[from]! < SHORTEST) continue;
      found.push({
        landmark,
        from,
        to,
        why: mostOf(run.map((at) => doubted.get(landmark)!.get(at)!)),
      });
    }
  }
  return found.sort((a, b) => a.from - b.from || a.to - b.to);
}

function isSettled(
  frame: number,
  placed: readonly number[],
  frameTimes: readonly number[],
): boolean {
  const time = frameTimes[frame]!;
  const after = lowerBound(placed, frame);
  const [before, next] = [placed[after - 1], placed[after]].map((at) =>
    at === undefined ? null : Math.abs(frameTimes[at]! - time),
  ) as [number | null, number | null];
  if (before !== null && next !== null && before + next <= SETTLED) return true;
  return Math.min(before ?? Infinity, next ?? Infinity) <= REACH / 2;
}

function runs(frames: readonly number[], frameTimes: readonly number[]): number[][] {
  const found: number[][] = [];
  for (const frame of frames) {
    const run = found[found.length - 1];
    const last = run?.[run.length - 1];
    if (last !== undefined && frameTimes[frame]! - frameTimes[last]! <= BREAK) run!.push(frame);
    else found.push([frame]);
  }
  return found;
}

function mostOf(reasons: readonly Reason[]): Reason {
  const count = (why: Reason) => reasons.filter((one) => one === why).length;
  return REASONS.reduce((most, why) => (count(why) > count(most) ? why : most));
}
