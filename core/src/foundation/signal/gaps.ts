import { interpolate } from './interpolate';

/** Gaps up to this many frames, or up to this many seconds, are filled; longer ones stay open. */
export const LONGEST_GAP_FRAMES = 5;
export const LONGEST_GAP_SECONDS = 0.04;

/**
 * The frames between `frames` that a short gap left out.
 *
 * @param frames ascending indices into `frameTimes`
 * @param frameTimes seconds of every frame of the clip
 */
export function gapFrames(frames: readonly number[], frameTimes: readonly number[]): number[] {
  const missing: number[] = [];
  for (let i = 1; i < frames.length; i++) {
    const [before, after] = [frames[i - 1]!, frames[i]!];
    const isShort =
      after - before - 1 <= LONGEST_GAP_FRAMES ||
      frameTimes[after]! - frameTimes[before]! <= LONGEST_GAP_SECONDS;
    if (!isShort) continue;
    for (let frame = before + 1; frame < after; frame++) missing.push(frame);
  }
  return missing;
}

/**
 * Values at all frames from the first sample to the last whose gaps are short, by cubic Hermite
 * interpolation.
 *
 * @returns frames ascending with one value each; what was there is unchanged
 */
export function fillGaps(
  frames: readonly number[],
  values: readonly number[],
  frameTimes: readonly number[],
): { frames: number[]; values: number[] } {
  const missing = gapFrames(frames, frameTimes);
  if (missing.length === 0) return { frames: [...frames], values: [...values] };
  const times = frames.map((frame) => frameTimes[frame]!);
  const all = [
    ...frames.map((frame, i) => ({ frame, value: values[i]! })),
    ...missing.map((frame) => ({ frame, value: interpolate(times, values, frameTimes[frame]!) })),
  ].sort((a, b) => a.frame - b.frame);
  return { frames: all.map((one) => one.frame), values: all.map((one) => one.value) };
}
