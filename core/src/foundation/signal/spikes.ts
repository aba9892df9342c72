/**
 * Samples that lie off the way that those around them go: jumps of a tracker. A blow is none: the place of
 * contact lies on the way there and on the way back, though not on one smooth way through both.
 *
 * Source: the idea of the Hampel identifier (Davies & Gather 1993): a robust measure of what is usual decides
 * what is not.
 */

/** Samples on either side that a way is drawn through. */
const REACH = 4;
/** A jump is so many times as far off the way through both sides as is usual, */
const OFF_BOTH = 4.5;
/** so many times as far off the way on from either side, */
const OFF_EITHER = 2.2;
/** and so much of the step from sample to sample, for each second that they are apart: a limb at full speed. */
const OF_STEP = 150;

type Along = readonly (readonly number[])[];

/**
 * @param frames ascending
 * @param along one list of values an axis
 * @param spacing seconds from frame to frame
 * @returns for each sample whether it is kept
 */
export function withoutSpikes(frames: readonly number[], along: Along, spacing: number): boolean[] {
  const kept = frames.map(() => true);
  // A jump spoils what its neighbours are held against: looked through twice.
  for (let round = 0; round < 2; round++) {
    const both = new Float64Array(frames.length).fill(NaN);
    const either = new Float64Array(frames.length).fill(NaN);
    for (let i = 0; i < frames.length; i++) if (kept[i]) look(frames, along, kept, i, both, either);
    const [most, near] = [OFF_BOTH * median(both), OFF_EITHER * median(either)];
    let jumps = 0;
    for (let i = 0; i < frames.length; i++) {
      const isOff = both[i]! > most && either[i]! > near;
      if (!isOff || !(both[i]! > OF_STEP * spacing * stepAround(along, kept, i))) continue;
      kept[i] = false;
      jumps += 1;
    }
    if (jumps === 0) break;
  }
  return kept;
}

const STEPS = Array.from({ length: REACH }, (_, k) => k + 1);
const AFTER = weightsAt(STEPS);
const AROUND = weightsAt([...STEPS.map((k) => -k), ...STEPS]);

/** What each of some samples counts in the least-squares parabola through them, at 0. */
function weightsAt(t: readonly number[]): readonly number[] {
  const sum = (power: number) => t.reduce((total, v) => total + v ** power, 0);
  const [s0, s1, s2, s3, s4] = [t.length, sum(1), sum(2), sum(3), sum(4)];
  const [c0, c1, c2] = [s2 * s4 - s3 * s3, s2 * s3 - s1 * s4, s1 * s3 - s2 * s2];
  const whole = s0 * c0 + s1 * c1 + s2 * c2;
  return t.map((v) => (c0 + c1 * v + c2 * v * v) / whole);
}

/** How far a sample is off the way through both sides, and off the nearer of the ways on from one. */
function look(
  frames: readonly number[],
  along: Along,
  kept: readonly boolean[],
  i: number,
  both: Float64Array,
  either: Float64Array,
): void {
  const before = neighbours(frames, kept, i, -1);
  const after = before && neighbours(frames, kept, i, 1);
  if (!before || !after) return;
  const isWhole = frames[after[REACH - 1]!]! - frames[before[REACH - 1]!]! === 2 * REACH;
  const around = [...before, ...after];
  const weights = (near: readonly number[]) => weightsAt(near.map((k) => frames[k]! - frames[i]!));
  const [one, two, all] = isWhole
    ? [AFTER, AFTER, AROUND]
    : [weights(before), weights(after), weights(around)];
  both[i] = offBy(along, i, around, all);
  either[i] = Math.min(offBy(along, i, before, one), offBy(along, i, after, two));
}

function offBy(
  along: Along,
  i: number,
  near: readonly number[],
  weights: readonly number[],
): number {
  let sum = 0;
  for (const values of along) {
    let rest = values[i]!;
    for (let k = 0; k < near.length; k++) rest -= weights[k]! * values[near[k]!]!;
    sum += rest * rest;
  }
  return Math.sqrt(sum);
}

/** The samples next to one on one side, nearest first; null where there are too few that are near. */
function neighbours(
  frames: readonly number[],
  kept: readonly boolean[],
  i: number,
  way: 1 | -1,
): number[] | null {
  const near: number[] = [];
  for (let k = i + way; near.length < REACH; k += way) {
    if (k < 0 || k >= frames.length || Math.abs(frames[k]! - frames[i]!) > 2 * REACH) return null;
    if (kept[k]) near.push(k);
  }
  return near;
}

/** The longest of the steps around a sample that do not touch it. */
function stepAround(along: Along, kept: readonly boolean[], i: number): number {
  const step = (a: number, b: number) =>
    a < 0 || b >= kept.length || !kept[a] || !kept[b]
      ? 0
      : Math.hypot(...along.map((values) => values[b]! - values[a]!));
  return Math.max(step(i - 2, i - 1), step(i + 1, i + 2), step(i - 1, i + 1) / 2);
}

/** Of what is there. */
function median(values: Float64Array): number {
  const sorted = values.filter((value) => !Number.isNaN(value)).sort();
  return sorted[sorted.length >> 1] ?? 0;
}
