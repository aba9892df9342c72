/**
 * How a picture has moved against another as a whole: the shift under which what is left, right and
 * over the student agrees best with how it was. Something that swings on one side, a bag, moves
 * alone; what two sides agree on is the camera.
 */
import type { Grey } from './grey';

/** Farthest shift that is looked for, pixels. */
const REACH = 7;
/** Levels; differences beyond are of another thing, not of another place, and pull no farther. */
const MOST = 24;
/** Levels by which a shift of one pixel must make things worse, on average, to be told apart. */
const LEAST = 0.06;
/** Boards and tiles repeat themselves: farther off is believed only when it fits clearly better. */
const CLEARLY = 0.9;
/** Pixels within which two sides agree. */
const ALIKE = 0.75;

export interface Shift {
  /** Pixels of these pictures, right and down. */
  readonly x: number;
  readonly y: number;
}

/** From and to, across and down, as shares of the picture. */
type Side = readonly [number, number, number, number];

const SIDES: readonly Side[] = [
  [0, 0.22, 0, 1],
  [0.75, 1, 0, 1],
  [0.22, 0.75, 0, 0.12],
];

/** @returns null when too little in the picture can be told apart, or it has moved out of reach */
export function shiftBetween(before: Grey, after: Grey): Shift | null {
  const found = SIDES.map((side) => shiftOfSide(before, after, side));
  const x = agreed(found.map((one) => one.x));
  const y = agreed(found.map((one) => one.y));
  return x === null || y === null ? null : { x, y };
}

/** The mean of two or three that agree, or null. */
function agreed(values: readonly (number | null)[]): number | null {
  const known = values.filter((value) => value !== null);
  const groups = known.map((value) => known.filter((one) => Math.abs(one - value) <= ALIKE));
  const largest = groups.reduce((best, group) => (group.length > best.length ? group : best), []);
  if (largest.length < 2) return null;
  return largest.reduce((sum, one) => sum + one, 0) / largest.length;
}

function shiftOfSide(before: Grey, after: Grey, side: Side) {
  const size = 2 * REACH + 1;
  const costs = Array.from({ length: size * size }, (_, i) =>
    mismatch(before, after, side, (i % size) - REACH, Math.floor(i / size) - REACH),
  );
  const costAt = (x: number, y: number) => costs[(y + REACH) * size + x + REACH]!;
  const least = costs.indexOf(Math.min(...costs));
  const isFar = costs[least]! > CLEARLY * costAt(0, 0);
  const [x, y] = isFar ? [0, 0] : [(least % size) - REACH, Math.floor(least / size) - REACH];
  if (Math.max(Math.abs(x), Math.abs(y)) === REACH) return { x: null, y: null };
  const across = vertex(costAt(x - 1, y), costAt(x, y), costAt(x + 1, y));
  const down = vertex(costAt(x, y - 1), costAt(x, y), costAt(x, y + 1));
  return { x: across && x + across.at, y: down && y + down.at };
}

/** Where the two straight flanks of a minimum of absolute differences meet, −½ to ½; null when flat. */
function vertex(a: number, b: number, c: number): { readonly at: number } | null {
  const steep = Math.max(a, c) - b;
  return steep >= LEAST ? { at: (a - c) / 2 / steep } : null;
}

/** Mean difference of a side under a shift, levels. */
function mismatch(before: Grey, after: Grey, side: Side, dx: number, dy: number): number {
  const { width, height } = before;
  const within = (value: number, most: number) =>
    Math.round(Math.min(Math.max(value, REACH), most));
  const [left, right] = [side[0], side[1]].map((share) => within(share * width, width - REACH));
  const [top, bottom] = [side[2], side[3]].map((share) => within(share * height, height - REACH));
  let [sum, count] = [0, 0];
  for (let y = top!; y < bottom!; y += 2) {
    for (let x = left!; x < right!; x++) {
      const step = before.data[y * width + x]! - after.data[(y + dy) * width + x + dx]!;
      sum += Math.min(MOST, Math.abs(step));
      count += 1;
    }
  }
  return sum / Math.max(1, count);
}

export interface Shake {
  /** Root mean square wander about a steady drift, pixels. */
  readonly jitter: number;
  /** Farthest the picture has gone from where it began, pixels. */
  readonly drift: number;
}

/** @param shifts of pictures in order of time, each against the first */
export function shakeOf(shifts: readonly Shift[]): Shake {
  const n = shifts.length;
  const wander = (values: readonly number[]): number => {
    const mean = values.reduce((sum, one) => sum + one, 0) / n;
    const middle = (n - 1) / 2;
    const spread = values.reduce((sum, _, i) => sum + (i - middle) ** 2, 0);
    const slope =
      spread > 0
        ? values.reduce((sum, one, i) => sum + (i - middle) * (one - mean), 0) / spread
        : 0;
    return values.reduce((sum, one, i) => sum + (one - mean - slope * (i - middle)) ** 2, 0) / n;
  };
  return {
    jitter: Math.sqrt(wander(shifts.map((s) => s.x)) + wander(shifts.map((s) => s.y))),
    drift: Math.max(0, ...shifts.map((s) => Math.hypot(s.x, s.y))),
  };
}
