/**
 * A torso that wears a band, as a camera sees it: an ellipse looked at from the side of its plane. Angles are
 * bearings in the picture, radians, growing to the right.
 */
import type { Texture } from './band';

/** Directions around an ellipse in which it is worked out. */
const STEPS = 480;

export interface Torso {
  readonly texture: Texture;
  /** Depth ÷ width. */
  readonly flatness: number;
  /** Places around the ellipse: to the wearer's right, to the front, metres. */
  readonly sideways: Float64Array;
  readonly forward: Float64Array;
  /** Into the texture. */
  readonly level: Float64Array;
  /** Direction in which the edge looks. */
  readonly outSideways: Float64Array;
  readonly outForward: Float64Array;
}

/** @param seam where the band's ends meet, opposite to the triangle that its texture counts from */
export function torsoOf(texture: Texture, flatness: number, seam: 'back' | 'front'): Torso {
  const { girth, levels } = texture;
  const [sideways, forward, outSideways, outForward] = Array.from(
    { length: 4 },
    () => new Float64Array(STEPS),
  ) as [Float64Array, Float64Array, Float64Array, Float64Array];
  const way = new Float64Array(STEPS + 1);
  const place = (k: number) => {
    const angle = (2 * Math.PI * k) / STEPS;
    return [Math.sin(angle), flatness * Math.cos(angle)] as const;
  };
  for (let k = 0; k < STEPS; k++) {
    const [a, b] = [place(k), place(k + 1)];
    way[k + 1] = way[k]! + Math.hypot(b[0] - a[0], b[1] - a[1]);
  }
  const scale = girth / way[STEPS]!;
  const level = new Float64Array(STEPS);
  const begins = seam === 'back' ? 0 : 0.5;
  for (let k = 0; k < STEPS; k++) {
    const [x, y] = place(k);
    sideways[k] = scale * x;
    forward[k] = scale * y;
    const size = Math.hypot(x, y / flatness ** 2);
    outSideways[k] = x / size;
    outForward[k] = y / flatness ** 2 / size;
    // To the wearer's right is to the left of who looks at the front.
    const round = begins - (way[k]! + way[k + 1]!) / 2 / way[STEPS]!;
    const share = round - Math.floor(round + 0.5) + 0.5;
    level[k] = levels[Math.min(levels.length - 1, Math.floor(share * levels.length))]!;
  }
  return { texture, flatness, sideways, forward, level, outSideways, outForward };
}

/** A torso on which nothing is known to be. */
export function bareTorso(girth: number, flatness: number): Torso {
  return torsoOf({ girth, levels: new Float32Array(1).fill(NaN) }, flatness, 'back');
}

/** Where a torso is: all that moves from frame to frame. */
export interface Pose {
  /** Radians from where the front looks at the camera's plane to the wearer's right. */
  readonly turn: number;
  /** Bearing of the middle, radians. */
  readonly bearing: number;
  /** Metres to the middle. */
  readonly distance: number;
}

/** Bearings that a strip of the picture is cut at. */
export interface Grid {
  readonly first: number;
  readonly step: number;
  readonly count: number;
}

/** What a strip shows: levels, and how much each counts; 0 where the band is not seen. */
export interface Profile {
  readonly values: Float64Array;
  readonly weights: Float64Array;
}

/** An edge seen at less than this (sine) tells nothing; at this it tells all. */
const GRAZING = 0.15;
const FULL = 0.5;

export function seen(torso: Torso, pose: Pose, grid: Grid): Profile {
  const { count } = grid;
  const values = new Float64Array(count);
  const weights = new Float64Array(count);
  const covered = new Float64Array(count);
  const { level } = torso;
  const look = lookAt(torso, pose, grid);
  const middle = Math.round(((pose.turn + pose.bearing) / (2 * Math.PI)) * STEPS);
  let before = look.bin(wrap(middle - STEPS / 4));
  for (let i = -STEPS / 4; i < STEPS / 4; i++) {
    const k = wrap(middle + i);
    // To the wearer's right is to the left in the picture.
    const to = before;
    const from = look.bin(wrap(middle + i + 1));
    before = from;
    if (!(to > from) || to <= 0 || from >= count) continue;
    const own = level[k]!;
    const known = own === own ? look.weight(k) : 0;
    const first = from > 0 ? Math.floor(from) : 0;
    for (let bin = first; bin < count && bin < to; bin++) {
      const share = (to < bin + 1 ? to : bin + 1) - (from > bin ? from : bin);
      covered[bin]! += share;
      weights[bin]! += share * known;
      if (known > 0) values[bin]! += share * own;
    }
  }
  for (let bin = 0; bin < count; bin++) {
    // A bin that is only partly band is an edge of the body, or of what is known.
    const isWhole = covered[bin]! >= 0.98;
    values[bin] = isWhole ? values[bin]! / covered[bin]! : 0;
    weights[bin] = isWhole ? weights[bin]! / covered[bin]! : 0;
  }
  return { values: softened(values, weights), weights };
}

/** Where each step around the ellipse is seen, in bins, and how squarely. */
function lookAt(
  { sideways, forward, outSideways, outForward }: Torso,
  { turn, bearing, distance }: Pose,
  { first, step }: Grid,
) {
  // The way to the camera as the wearer knows it, along the line of sight.
  const sight = turn + bearing;
  const sin = Math.sin(sight);
  const cos = Math.cos(sight);
  const off = (bearing - first) / step + 0.5;
  return {
    bin: (k: number) => {
      const p = sideways[k]!;
      const q = forward[k]!;
      return Math.atan((q * sin - p * cos) / (distance - p * sin - q * cos)) / step + off;
    },
    weight: (k: number) => {
      const p = distance * sin - sideways[k]!;
      const q = distance * cos - forward[k]!;
      const square = (outSideways[k]! * p + outForward[k]! * q) / Math.sqrt(p * p + q * q);
      const share = (square - GRAZING) / (FULL - GRAZING);
      return share < 0 ? 0 : share > 1 ? 1 : share;
    },
  };
}

/**
 * The torso with what is painted on it as it was seen: where cloth slips and a body is no ellipse, bars lie
 * elsewhere than the code and the girth say.
 */
export function asSeen(torso: Torso, frames: readonly Painted[]): Torso {
  const { sums, counts } = summed(torso, frames);
  const level = torso.level.map((code, k) =>
    Number.isNaN(code) ? NaN : (PRIOR * code + sums[k]!) / (PRIOR + counts[k]!),
  );
  return { ...torso, level };
}

/** A frame in which it was seen what is painted on a torso, by column; NaN where it was not. */
export interface Painted {
  readonly pose: Pose;
  readonly grid: Grid;
  readonly painted: Float64Array;
}

/** The torso with what was seen on it, and nothing where nothing was. */
export function learned(torso: Torso, frames: readonly Painted[]): Torso {
  const { sums, counts } = summed(torso, frames);
  const level = sums.map((sum, k) => (counts[k]! > ENOUGH ? sum / counts[k]! : NaN));
  return { ...torso, level };
}

function summed(torso: Torso, frames: readonly Painted[]) {
  const sums = new Float64Array(STEPS);
  const counts = new Float64Array(STEPS);
  for (const { pose, grid, painted } of frames) {
    const look = lookAt(torso, pose, grid);
    for (let k = 0; k < STEPS; k++) {
      const weight = look.weight(k);
      const at = look.bin(k) - 0.5;
      const bin = Math.floor(at);
      if (weight === 0 || bin < 0 || bin + 1 >= painted.length) continue;
      const value = painted[bin]! + (at - bin) * (painted[bin + 1]! - painted[bin]!);
      if (Number.isNaN(value)) continue;
      sums[k]! += weight * Math.max(-1.5, Math.min(1.5, value));
      counts[k]! += weight;
    }
  }
  return { sums, counts };
}

/** Of a frame seen squarely, that something is known. */
const ENOUGH = 0.2;

/** Frames that the printed code counts for. */
const PRIOR = 2;

const wrap = (k: number) => ((k % STEPS) + STEPS) % STEPS;

/** As soft as a picture is between one pixel and the next. */
function softened(values: Float64Array, weights: Float64Array): Float64Array {
  const soft = new Float64Array(values.length);
  for (let i = 0; i < values.length; i++) {
    if (weights[i] === 0) continue;
    const left = i > 0 && weights[i - 1]! > 0 ? values[i - 1]! : values[i]!;
    const right = i < values.length - 1 && weights[i + 1]! > 0 ? values[i + 1]! : values[i]!;
    soft[i] = 0.25 * left + 0.5 * values[i]! + 0.25 * right;
  }
  return soft;
}
