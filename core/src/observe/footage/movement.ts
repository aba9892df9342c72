/** How much moves in a film from one small picture to the next, and where. */
import type { Grey } from './grey';

/** Levels by which the noise of a camera changes a pixel; only what is beyond counts. */
const NOISE = 12;

export interface Movement {
  /** Share of the picture that changed, weighed by how much: 0 to 1. */
  readonly amount: number;
  /** Whether the two are the very same picture. */
  readonly isSame: boolean;
}

/** Gathers what has moved anywhere in a film, picture by picture. */
export class MovementMap {
  private readonly counts: Uint16Array;
  private before: Grey | null = null;

  constructor(
    readonly width: number,
    readonly height: number,
  ) {
    this.counts = new Uint16Array(width * height);
  }

  /** @returns how this picture differs from the one before; null for the first */
  add(picture: Grey): Movement | null {
    const { before } = this;
    this.before = picture;
    if (!before) return null;
    let amount = 0;
    let isSame = true;
    for (let i = 0; i < this.counts.length; i++) {
      const change = Math.abs(picture.data[i]! - before.data[i]!);
      if (change === 0) continue;
      isSame = false;
      if (change <= NOISE) continue;
      amount += change - NOISE;
      if (this.counts[i]! < 0xffff) this.counts[i]! += 1;
    }
    return { amount: amount / (255 * this.counts.length), isSame };
  }

  /** Whether something moved at a place, both as shares of the picture, 0 to 1. */
  movedAt(x: number, y: number): boolean {
    const column = Math.min(this.width - 1, Math.floor(x * this.width));
    const row = Math.min(this.height - 1, Math.floor(y * this.height));
    return this.counts[row * this.width + column]! >= 2;
  }

  /** The box around all that moved, as shares of the picture; null when nothing did. */
  box(): MovedBox | null {
    const columns = new Uint32Array(this.width);
    const rows = new Uint32Array(this.height);
    for (let y = 0; y < this.height; y++) {
      for (let x = 0; x < this.width; x++) {
        if (this.counts[y * this.width + x]! < 2) continue;
        columns[x]! += 1;
        rows[y]! += 1;
      }
    }
    const first = (list: Uint32Array) => list.findIndex((count) => count >= 2);
    const last = (list: Uint32Array) => list.findLastIndex((count) => count >= 2);
    if (first(columns) < 0 || first(rows) < 0) return null;
    return {
      left: first(columns) / this.width,
      right: (last(columns) + 1) / this.width,
      top: first(rows) / this.height,
      bottom: (last(rows) + 1) / this.height,
    };
  }
}

export interface MovedBox {
  readonly left: number;
  readonly right: number;
  readonly top: number;
  readonly bottom: number;
}

/**
 * Frames that only repeat the one before while things move: a camera or a recorder that could not
 * keep up. A still room repeats itself honestly, so a repeat counts only between two frames in
 * which something moved.
 */
export function repeatedFrames(movements: readonly Movement[]): number {
  let count = 0;
  for (let i = 1; i + 1 < movements.length; i++) {
    const isMoving = movements[i - 1]!.amount > 0 && movements[i + 1]!.amount > 0;
    if (movements[i]!.isSame && isMoving) count += 1;
  }
  return count;
}
