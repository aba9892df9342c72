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

/** The way on from one side is looked at in one of so many samples, to see what is usual. */
const SAMPLED = 3;

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
    const offBoth = new Float64Array(frames.length).fill(NaN);
    const offEither = new Float64Array(frames.length).fill(NaN);
    const offs = new Off(frames, along, kept);
    for (let i = 0; i < frames.length; i++) offBoth[i] = offs.both(i);
    const usual = median(offBoth);
    const suspects = [...frames.keys()].filter(
      (i) =>
        offBoth[i]! > OFF_BOTH * usual &&
        offBoth[i]! > OF_STEP * spacing * stepAround(along, kept, i),
    );
    if (suspects.length === 0) break;
    // What is usual is told by every few of them.
    for (let i = 0; i < frames.length; i += SAMPLED) offEither[i] = offs.either(i);
    const near = OFF_EITHER * median(offEither);
    const jumps = suspects.filter((i) => offs.either(i) > near);
    if (jumps.length === 0) break;
    for (const i of jumps) kept[i] = false;
  }
  return kept;
}

const STEPS = Array.from({ length: REACH }, (_, k) => k + 1);
/** By which of the samples around are there: see `weights`. */
const WEIGHTS = new Map<number, readonly number[]>();
/** The nearest first; the same on both sides. */
const AROUND = weightsAt([...STEPS, ...STEPS.map((k) => -k)]);

/** What each of some samples counts in the least-squares parabola through them, at 0. */
function weightsAt(t: readonly number[]): readonly number[] {
  const sum = (power: number) => t.reduce((total, v) => total + v ** power, 0);
  const [s0, s1, s2, s3, s4] = [t.length, sum(1), sum(2), sum(3), sum(4)];
  const [c0, c1, c2] = [s2 * s4 - s3 * s3, s2 * s3 - s1 * s4, s1 * s3 - s2 * s2];
  const whole = s0 * c0 + s1 * c1 + s2 * c2;
  return t.map((v) => (c0 + c1 * v + c2 * v * v) / whole);
}

/** How far samples are off the ways that those around them go; NaN where there are too few. */
class Off {
  constructor(
    private readonly frames: readonly number[],
    private readonly along: Along,
    private readonly kept: readonly boolean[],
  ) {}

  /** Off the way through both sides. */
  both(i: number): number {
    if (this.isWhole(i)) {
      let sum = 0;
      for (const values of this.along) {
        let rest = values[i]!;
        for (let k = 1; k <= REACH; k++) {
          rest -= AROUND[k - 1]! * (values[i - k]! + values[i + k]!);
        }
        sum += rest * rest;
      }
      return Math.sqrt(sum);
    }
    const [before, after] = [this.near(i, -1), this.near(i, 1)];
    if (!this.kept[i] || !before || !after) return NaN;
    const around = [...before, ...after];
    return this.offBy(i, around, this.weights(i, around));
  }

  /** Off the nearer of the ways on from either side. */
  either(i: number): number {
    const [before, after] = [this.near(i, -1), this.near(i, 1)];
    if (!this.kept[i] || !before || !after) return NaN;
    return Math.min(
      this.offBy(i, before, this.weights(i, before)),
      this.offBy(i, after, this.weights(i, after)),
    );
  }

  /** Whether nothing is missing around a sample. */
  private isWhole(i: number): boolean {
    const { frames, kept } = this;
    if (i < REACH || i + REACH >= frames.length) return false;
    if (frames[i + REACH]! - frames[i - REACH]! !== 2 * REACH) return false;
    for (let k = i - REACH; k <= i + REACH; k++) if (!kept[k]) return false;
    return true;
  }

  /** Worked out once for each way in which samples can be missing. */
  private weights(i: number, near: readonly number[]): readonly number[] {
    const apart = near.map((k) => this.frames[k]! - this.frames[i]!);
    const key = apart.reduce((bits, by) => bits | (1 << (by + 2 * REACH)), 0);
    const known = WEIGHTS.get(key) ?? weightsAt(apart);
    WEIGHTS.set(key, known);
    return known;
  }

  private offBy(i: number, near: readonly number[], weights: readonly number[]): number {
    let sum = 0;
    for (const values of this.along) {
      let rest = values[i]!;
      for (let k = 0; k < near.length; k++) rest -= weights[k]! * values[near[k]!]!;
      sum += rest * rest;
    }
    return Math.sqrt(sum);
  }

  /** The samples next to one on one side, nearest first; null where there are too few that are near. */
  private near(i: number, way: 1 | -1): number[] | null {
    const near: number[] = [];
    const { frames, kept } = this;
    for (let k = i + way; near.length < REACH; k += way) {
      if (k < 0 || k >= frames.length || Math.abs(frames[k]! - frames[i]!) > 2 * REACH) return null;
      if (kept[k]) near.push(k);
    }
    return near;
  }
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
