/**
 * A band's turn, exactly: turn, bearing and distance of a torso, with light that falls unevenly, under which the
 * strip of one frame is missed least. Gauss–Newton with Huber's weights.
 *
 * Sources: Björck, Numerical Methods for Least Squares Problems (1996), ch. 9; Huber, Ann. Math. Statist. 35 (1964).
 */
import { CholeskyDecomposition, Matrix } from 'ml-matrix';
import { median } from 'd3-array';
import type { Sight } from './match';
import { seen, type Pose, type Profile, type Torso } from './torso';

/** What is expected of a place before anything is seen, with standard deviations. */
export interface Expected {
  readonly pose: Pose;
  /** Radians. */
  readonly bearing: number;
  /** Relative. */
  readonly distance: number;
}

export interface Fit {
  readonly pose: Pose;
  /** Standard deviation of the turn from the misses alone, radians. */
  readonly sigma: number;
  /** Share of the changes of brightness that the bars explain. */
  readonly explained: number;
  /** Between white and black bars, grey levels. */
  readonly contrast: number;
  /** Share of what faces the camera that is seen. */
  readonly uncovered: number;
  /** What is painted on the band by column, with the light taken off; NaN where it is not seen. */
  readonly painted: Float64Array;
}

const PASSES = 4;
/** By so much a pose is nudged to see how what it shows changes: radians, radians, relative. */
const NUDGE = { turn: 0.006, bearing: 0.0004, distance: 0.01 };
/** No pass goes farther than this, and less than the second ones ends it. */
const FARTHEST = { turn: 0.1, bearing: 0.01, distance: 0.05 };
const STILL = { turn: 1e-3, bearing: 5e-5 };
/** Misses beyond so many of their scale count less. */
const HUBER = 1.5;
/** Neighbouring columns miss alike: so many make one. */
const ALIKE = 3;
/** Unknowns of the light: a parabola of brightness over the columns, and a contrast that may slant. */
const LIGHT = 5;
/** Fewer columns are no sight of a band; one that counts for less is none. */
const LEAST_COLUMNS = 18;
const LEAST_WEIGHT = 0.02;
/** Before a miss is known, grey levels². */
const USUAL_MISS = 100;

/** @returns null when there is too little to see */
export function fitted(torso: Torso, sight: Sight, expected: Expected): Fit | null {
  let { pose } = expected;
  let light = new Float64Array(LIGHT);
  let robust: Float64Array | null = null;
  let miss = USUAL_MISS;
  let found: Fit | null = null;
  for (let pass = 0; pass <= PASSES; pass++) {
    const columns = columnsOf(sight, seen(torso, pose, sight.grid), robust);
    if (!columns) return null;
    const slopes = pass === 0 ? null : slopesOf(torso, pose, sight.grid, columns.shown.values);
    const equations = equationsOf(columns, sight, slopes, light);
    const variance = ALIKE * miss;
    if (slopes) hold(equations, expected, pose, variance);
    const solver = new CholeskyDecomposition(equations.normal);
    if (!solver.isPositiveDefinite()) return found;
    const solved = solver.solve(equations.right).to1DArray();
    light = Float64Array.from(solved.slice(0, LIGHT));
    const missed = missesOf(columns, sight, light, lightAlone(equations));
    ({ miss } = missed);
    robust = missed.robust;
    const sigma = slopes
      ? Math.sqrt(variance * solver.solve(Matrix.eye(solved.length)).get(LIGHT, LIGHT))
      : Infinity;
    found = {
      pose,
      sigma,
      explained: missed.explained,
      contrast: 2 * light[3]!,
      uncovered: columns.uncovered,
      painted: missed.painted,
    };
    if (!slopes) continue;
    const [turn, bearing, distance] = solved.slice(LIGHT) as [number, number, number];
    if (pass === PASSES || (Math.abs(turn) < STILL.turn && Math.abs(bearing) < STILL.bearing))
      break;
    pose = {
      turn: pose.turn + bounded(turn, FARTHEST.turn),
      bearing: pose.bearing + bounded(bearing, FARTHEST.bearing),
      distance: pose.distance * Math.exp(bounded(distance, FARTHEST.distance)),
    };
  }
  return found;
}

const bounded = (value: number, most: number) => Math.max(-most, Math.min(most, value));

/** The columns that show the band, and how much each counts. */
interface Columns {
  readonly shown: Profile;
  readonly used: readonly number[];
  /** By column, from −1 to 1 over the band. */
  readonly x: (column: number) => number;
  readonly weight: (column: number) => number;
  readonly uncovered: number;
}

function columnsOf(sight: Sight, shown: Profile, robust: Float64Array | null): Columns | null {
  const used: number[] = [];
  let [open, facing] = [0, 0];
  for (let i = 0; i < sight.grid.count; i++) {
    const weight = sight.weights[i]! * shown.weights[i]!;
    facing += shown.weights[i]!;
    if (weight <= LEAST_WEIGHT) continue;
    open += weight;
    used.push(i);
  }
  if (used.length < LEAST_COLUMNS) return null;
  const [first, last] = [used[0]!, used[used.length - 1]!];
  const [centre, half] = [(first + last) / 2, (last - first) / 2];
  return {
    shown,
    used,
    x: (column) => (column - centre) / half,
    weight: (column) => sight.weights[column]! * shown.weights[column]! * (robust?.[column] ?? 1),
    uncovered: open / facing,
  };
}

interface Equations {
  readonly normal: Matrix;
  readonly right: Matrix;
}

/** Normal equations of the light, and with slopes of the pose too. */
function equationsOf(
  { used, x: over, weight: weightOf, shown }: Columns,
  sight: Sight,
  slopes: Slopes | null,
  light: Float64Array,
): Equations {
  const unknowns = slopes ? LIGHT + 3 : LIGHT;
  const sums = new Float64Array(unknowns * unknowns);
  const right = new Float64Array(unknowns);
  const row = new Float64Array(unknowns);
  for (const i of used) {
    const x = over(i);
    const weight = weightOf(i);
    const level = shown.values[i]!;
    row[0] = 1;
    row[1] = x;
    row[2] = x * x;
    row[3] = level;
    row[4] = x * level;
    if (slopes) {
      const contrast = light[3]! + light[4]! * x;
      row[5] = contrast * slopes.turn[i]!;
      row[6] = contrast * slopes.bearing[i]!;
      row[7] = contrast * slopes.distance[i]!;
    }
    for (let a = 0; a < unknowns; a++) {
      const part = weight * row[a]!;
      for (let b = 0; b <= a; b++) sums[a * unknowns + b]! += part * row[b]!;
      right[a]! += part * sight.values[i]!;
    }
  }
  for (let a = 0; a < unknowns; a++) {
    for (let b = 0; b < a; b++) sums[b * unknowns + a] = sums[a * unknowns + b]!;
    // A contrast of nothing must not keep the rest from being solved.
    sums[a * unknowns + a] = sums[a * unknowns + a]! * (1 + 1e-9) + 1e-9;
  }
  return {
    normal: Matrix.from1DArray(unknowns, unknowns, sums),
    right: Matrix.columnVector(right),
  };
}

/** What is expected of bearing and distance, as two more observations. */
function hold(
  { normal, right }: Equations,
  expected: Expected,
  pose: Pose,
  variance: number,
): void {
  const held = [
    [expected.bearing, expected.pose.bearing - pose.bearing],
    [expected.distance, Math.log(expected.pose.distance / pose.distance)],
  ] as const;
  held.forEach(([sigma, away], k) => {
    const at = LIGHT + 1 + k;
    const weight = variance / sigma ** 2;
    normal.set(at, at, normal.get(at, at) + weight);
    right.set(at, 0, right.get(at, 0) + weight * away);
  });
}

/** Brightness under which a strip without bars would be missed least: a parabola over its columns. */
function lightAlone({ normal, right }: Equations): readonly number[] {
  const own = normal.subMatrix(0, 2, 0, 2);
  return new CholeskyDecomposition(own).solve(right.subMatrix(0, 2, 0, 0)).to1DArray();
}

function missesOf(
  { used, x: over, weight: weightOf, shown }: Columns,
  { grid, values }: Sight,
  light: Float64Array,
  plain: readonly number[],
) {
  const misses = new Float64Array(grid.count);
  const painted = new Float64Array(grid.count).fill(NaN);
  let [miss, changes, total] = [0, 0, 0];
  for (const i of used) {
    const x = over(i);
    const weight = weightOf(i);
    const contrast = light[3]! + light[4]! * x;
    const alone = light[0]! + light[1]! * x + light[2]! * x * x;
    misses[i] = values[i]! - alone - contrast * shown.values[i]!;
    painted[i] = shown.values[i]! + misses[i]! / contrast;
    miss += weight * misses[i]! ** 2;
    changes += weight * (values[i]! - plain[0]! - plain[1]! * x - plain[2]! * x * x) ** 2;
    total += weight;
  }
  const scale = 1.4826 * median(used, (i) => Math.abs(misses[i]!))!;
  return {
    miss: miss / total,
    explained: 1 - miss / Math.max(changes, 1e-9),
    robust: misses.map((one) => Math.min(1, (HUBER * scale) / Math.max(1e-9, Math.abs(one)))),
    painted,
  };
}

/** How what a torso shows changes, by column. */
interface Slopes {
  readonly turn: Float64Array;
  readonly bearing: Float64Array;
  readonly distance: Float64Array;
}

function slopesOf(torso: Torso, pose: Pose, grid: Sight['grid'], now: Float64Array): Slopes {
  const change = (nudged: Pose, by: number) =>
    seen(torso, nudged, grid).values.map((value, i) => (value - now[i]!) / by);
  const { turn, bearing, distance } = NUDGE;
  return {
    turn: change({ ...pose, turn: pose.turn + turn }, turn),
    bearing: change({ ...pose, bearing: pose.bearing + bearing }, bearing),
    distance: change({ ...pose, distance: pose.distance * (1 + distance) }, distance),
  };
}
