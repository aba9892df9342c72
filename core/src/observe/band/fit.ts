/**
 * A band's turn, exactly: turn, bearing and distance of a torso, with light that falls unevenly, under which the
 * strip of one frame is missed least. Gauss–Newton with Huber's weights.
 *
 * Sources: Björck, Numerical Methods for Least Squares Problems (1996), ch. 9; Huber, Ann. Math. Statist. 35 (1964).
 */
import { CholeskyDecomposition, Matrix } from 'ml-matrix';
import { median } from 'd3-array';
import type { Sight } from './match';
import { seen, type Pose, type Torso } from './torso';

/** What is expected of a place before anything is seen: standard deviations. */
export interface Expected {
  readonly pose: Pose;
  readonly bearing: number;
  /** Relative. */
  readonly distance: number;
  /** Radians; Infinity where nothing is. */
  readonly turn: number;
}

export interface Fit {
  readonly pose: Pose;
  /** Standard deviations from the misses alone: radians, radians, relative. */
  readonly sigma: { readonly turn: number; readonly bearing: number; readonly distance: number };
  /** Share of the changes of brightness that the bars explain, and their contrast in grey levels. */
  readonly explained: number;
  readonly contrast: number;
  /** Mean squared miss where the band is, in grey levels². */
  readonly miss: number;
  /** Share of what faces the camera that is seen. */
  readonly uncovered: number;
  /** What is painted on the band by column, with the light taken off; NaN where it is not seen. */
  readonly painted: Float64Array;
}

const PASSES = 4;
const NUDGE = { turn: 0.006, bearing: 0.0004, distance: 0.01 };
/** Misses beyond so many of their scale count less. */
const HUBER = 1.5;
/** Neighbouring columns miss alike: so many make one. */
const ALIKE = 3;
const LIGHT = 5;

/** @returns null when there is too little to see */
export function fitted(torso: Torso, sight: Sight, expected: Expected): Fit | null {
  let pose = expected.pose;
  let robust: Float64Array | null = null;
  let gains = new Float64Array(LIGHT);
  let last: Fit | null = null;
  for (let pass = 0; pass <= PASSES; pass++) {
    const shown = seen(torso, pose, sight.grid);
    const used: number[] = [];
    for (let i = 0; i < sight.grid.count; i++) {
      if (sight.weights[i]! * shown.weights[i]! > 0.02) used.push(i);
    }
    if (used.length < 18) return null;
    const slopes = pass === 0 ? null : slopesOf(torso, pose, sight.grid, shown.values);
    const centre = (used[0]! + used[used.length - 1]!) / 2;
    const half = Math.max(1, (used[used.length - 1]! - used[0]!) / 2);
    const isFirst = pass === 0;
    const unknowns = isFirst ? LIGHT : LIGHT + 3;
    const sums = new Float64Array(unknowns * unknowns);
    const right = Matrix.zeros(unknowns, 1);
    const row = new Float64Array(unknowns);
    let total = 0;
    let facing = 0;
    let open = 0;
    for (const weight of shown.weights) facing += weight;
    for (const i of used) {
      const weight = sight.weights[i]! * shown.weights[i]! * (robust?.[i] ?? 1);
      total += weight;
      open += sight.weights[i]! * shown.weights[i]!;
      const value = sight.values[i]!;
      const x = (i - centre) / half;
      const level = shown.values[i]!;
      row[0] = 1;
      row[1] = x;
      row[2] = x * x;
      row[3] = level;
      row[4] = x * level;
      if (slopes) {
        const gain = gains[3]! + gains[4]! * x;
        row[5] = gain * slopes.turn[i]!;
        row[6] = gain * slopes.bearing[i]!;
        row[7] = gain * slopes.distance[i]!;
      }
      for (let a = 0; a < unknowns; a++) {
        const part = weight * row[a]!;
        for (let b = 0; b <= a; b++) sums[a * unknowns + b]! += part * row[b]!;
        right.set(a, 0, right.get(a, 0) + part * value);
      }
    }
    const normal = Matrix.from1DArray(unknowns, unknowns, [...sums]);
    for (let a = 0; a < unknowns; a++) {
      for (let b = 0; b < a; b++) normal.set(b, a, normal.get(a, b));
      normal.set(a, a, normal.get(a, a) * (1 + 1e-9) + 1e-9);
    }
    const variance: number = (last?.miss ?? 100) * ALIKE;
    if (!isFirst) {
      const off = [
        [expected.turn, 0],
        [expected.bearing, expected.pose.bearing - pose.bearing],
        [expected.distance, Math.log(expected.pose.distance / pose.distance)],
      ] as const;
      off.forEach(([sigma, away], k) => {
        const held = variance / sigma ** 2;
        if (held === 0) return;
        normal.set(LIGHT + k, LIGHT + k, normal.get(LIGHT + k, LIGHT + k) + held);
        right.set(LIGHT + k, 0, right.get(LIGHT + k, 0) + held * away);
      });
    }
    const solver = new CholeskyDecomposition(normal);
    if (!solver.isPositiveDefinite()) return last;
    const solved = solver.solve(right);
    gains = Float64Array.from({ length: LIGHT }, (_, k) => solved.get(k, 0));
    let [miss, changes] = [0, 0];
    const plain = lightAlone(normal, right);
    const misses = new Float64Array(sight.grid.count);
    const painted = new Float64Array(sight.grid.count).fill(NaN);
    for (const i of used) {
      const x = (i - centre) / half;
      const gain = gains[3]! + gains[4]! * x;
      const told = gains[0]! + gains[1]! * x + gains[2]! * x * x + gain * shown.values[i]!;
      misses[i] = sight.values[i]! - told;
      painted[i] = shown.values[i]! + misses[i]! / gain;
      const weight = sight.weights[i]! * shown.weights[i]! * (robust?.[i] ?? 1);
      miss += weight * misses[i]! ** 2;
      changes += weight * (sight.values[i]! - plain[0] - plain[1] * x - plain[2] * x * x) ** 2;
    }
    const scale = 1.4826 * median(used, (i) => Math.abs(misses[i]!))!;
    robust = misses.map((one) => Math.min(1, (HUBER * scale) / Math.max(1e-9, Math.abs(one))));
    if (isFirst) {
      last = {
        pose,
        sigma: { turn: Infinity, bearing: Infinity, distance: Infinity },
        explained: 1 - miss / Math.max(changes, 1e-9),
        contrast: 2 * gains[3]!,
        miss: miss / total,
        uncovered: open / facing,
        painted,
      };
      continue;
    }
    const step = [0, 1, 2].map((k) => solved.get(LIGHT + k, 0)) as [number, number, number];
    const inverse = solver.solve(Matrix.eye(unknowns));
    const sigmaOf = (k: number): number =>
      Math.sqrt(Math.max(0, variance * inverse.get(LIGHT + k, LIGHT + k)));
    last = {
      pose,
      sigma: { turn: sigmaOf(0), bearing: sigmaOf(1), distance: sigmaOf(2) },
      explained: 1 - miss / Math.max(changes, 1e-9),
      contrast: 2 * gains[3]!,
      miss: miss / total,
      uncovered: open / facing,
      painted,
    };
    if (pass === PASSES) break;
    const clip = (value: number, most: number) => Math.max(-most, Math.min(most, value));
    pose = {
      turn: pose.turn + clip(step[0], 0.1),
      bearing: pose.bearing + clip(step[1], 0.01),
      distance: pose.distance * Math.exp(clip(step[2], 0.05)),
    };
    if (Math.abs(step[0]) < 1e-3 && Math.abs(step[1]) < 5e-5) break;
  }
  return last;
}

/** Brightness under which a strip without bars would be missed least: a parabola over its columns. */
function lightAlone(normal: Matrix, right: Matrix): readonly [number, number, number] {
  const own = normal.subMatrix(0, 2, 0, 2);
  const [a, b, c] = new CholeskyDecomposition(own).solve(right.subMatrix(0, 2, 0, 0)).to1DArray();
  return [a!, b!, c!];
}

function slopesOf(torso: Torso, pose: Pose, grid: Sight['grid'], now: Float64Array) {
  const change = (nudged: Pose, by: number) =>
    seen(torso, nudged, grid).values.map((value, i) => (value - now[i]!) / by);
  const { turn, bearing, distance } = NUDGE;
  return {
    turn: change({ ...pose, turn: pose.turn + turn }, turn),
    bearing: change({ ...pose, bearing: pose.bearing + bearing }, bearing),
    distance: change({ ...pose, distance: pose.distance * (1 + distance) }, distance),
  };
}
