/**
 * How a picture has moved against another as a whole: block by block the shift under which they
 * agree, and of all blocks the middle one, so that a person who moves in front does not count.
 */
import type { Grey } from './grey';

const BLOCK = 32;
const REACH = 6;
/** Mean step between neighbouring pixels; a blank wall has no place of its own. */
const LEAST_TEXTURE = 3;
const FEWEST = 4;

export interface Shift {
  /** Pixels of these pictures, right and down. */
  readonly x: number;
  readonly y: number;
}

/** @returns null when too little in the picture can be told apart */
export function shiftBetween(before: Grey, after: Grey): Shift | null {
  const shifts: Shift[] = [];
  for (let y = REACH; y + BLOCK + REACH <= before.height; y += BLOCK) {
    for (let x = REACH; x + BLOCK + REACH <= before.width; x += BLOCK) {
      const [across, down] = texture(before, x, y);
      if (across < LEAST_TEXTURE || down < LEAST_TEXTURE) continue;
      shifts.push(bestShift(before, after, x, y));
    }
  }
  if (shifts.length < FEWEST) return null;
  const middle = (values: number[]) => values.sort((a, b) => a - b)[values.length >> 1]!;
  return { x: middle(shifts.map((s) => s.x)), y: middle(shifts.map((s) => s.y)) };
}

/** Root mean square step across and down within a block, levels. */
function texture({ width, data }: Grey, x0: number, y0: number): [number, number] {
  let [across, down] = [0, 0];
  for (let y = y0; y < y0 + BLOCK - 1; y++) {
    for (let x = x0; x < x0 + BLOCK - 1; x++) {
      const at = y * width + x;
      across += (data[at + 1]! - data[at]!) ** 2;
      down += (data[at + width]! - data[at]!) ** 2;
    }
  }
  return [Math.sqrt(across) / BLOCK, Math.sqrt(down) / BLOCK];
}

function bestShift(before: Grey, after: Grey, x0: number, y0: number): Shift {
  const { width } = before;
  const size = 2 * REACH + 1;
  const costs = new Float64Array(size * size);
  let best = 0;
  for (let dy = -REACH; dy <= REACH; dy++) {
    for (let dx = -REACH; dx <= REACH; dx++) {
      let cost = 0;
      for (let y = y0; y < y0 + BLOCK; y += 2) {
        for (let x = x0; x < x0 + BLOCK; x += 2) {
          const step = before.data[y * width + x]! - after.data[(y + dy) * width + x + dx]!;
          cost += step * step;
        }
      }
      const at = (dy + REACH) * size + dx + REACH;
      costs[at] = cost;
      if (cost < costs[best]!) best = at;
    }
  }
  const [bx, by] = [best % size, Math.floor(best / size)];
  return {
    x: bx - REACH + vertex(costs, best, 1, bx, size),
    y: by - REACH + vertex(costs, best, size, by, size),
  };
}

/** Where the parabola through the least cost and its two neighbours has its foot, −½ to ½. */
function vertex(costs: Float64Array, at: number, step: number, place: number, size: number) {
  if (place === 0 || place === size - 1) return 0;
  const [a, b, c] = [costs[at - step]!, costs[at]!, costs[at + step]!];
  const bend = a - 2 * b + c;
  return bend > 0 ? Math.max(-0.5, Math.min(0.5, (a - c) / (2 * bend))) : 0;
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
