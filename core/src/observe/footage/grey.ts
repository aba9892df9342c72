import { median } from 'd3-array';

/** A small grey picture, rows from the top, 0 black to 255 white. */
export interface Grey {
  readonly width: number;
  readonly height: number;
  readonly data: Uint8Array;
}

/**
 * Luma of an RGBA picture, as ITU-R BT.601 weighs the colours.
 *
 * @param rgba four bytes a pixel, rows from the top
 */
export function greyFrom(rgba: ArrayLike<number>, width: number, height: number): Grey {
  const data = new Uint8Array(width * height);
  for (let i = 0; i < data.length; i++) {
    const at = 4 * i;
    data[i] = 0.299 * rgba[at]! + 0.587 * rgba[at + 1]! + 0.114 * rgba[at + 2]! + 0.5;
  }
  return { width, height, data };
}

/** The level below which a share of the pixels lies. */
export function levelAt({ data }: Grey, share: number): number {
  const counts = new Uint32Array(256);
  for (const value of data) counts[value]! += 1;
  let below = 0;
  for (let level = 0; level < 256; level++) {
    below += counts[level]!;
    if (below >= share * data.length) return level;
  }
  return 255;
}

/** Share of the pixels within two levels, both included. */
export function shareWithin({ data }: Grey, low: number, high: number): number {
  let count = 0;
  for (const value of data) if (value >= low && value <= high) count += 1;
  return count / data.length;
}

/** Levels, 0 to 255, in the middle of several pictures of a film. */
export interface Light {
  readonly middle: number;
  /** Between the darkest and the lightest twentieth of the picture. */
  readonly contrast: number;
  /** Shares of pixels that are as good as black, as good as white. */
  readonly black: number;
  readonly white: number;
}

export function lightOf(pictures: readonly Grey[]): Light {
  const of = (measure: (picture: Grey) => number) => median(pictures, measure) ?? 0;
  return {
    middle: of((picture) => levelAt(picture, 0.5)),
    contrast: of((picture) => levelAt(picture, 0.95) - levelAt(picture, 0.05)),
    black: of((picture) => shareWithin(picture, 0, 20)),
    white: of((picture) => shareWithin(picture, 250, 255)),
  };
}
