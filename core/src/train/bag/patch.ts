/** Follows a patch of a picture from frame to frame by how alike it looks. */

/** A grey picture, row by row, any scale. */
export interface Grey {
  readonly width: number;
  readonly height: number;
  readonly levels: ArrayLike<number>;
}

export interface Place {
  readonly x: number;
  readonly y: number;
}

export interface Followed extends Place {
  /** Normalized cross-correlation with the patch, −1 to 1. */
  readonly likeness: number;
}

/**
 * Where in a picture a patch is.
 *
 * Normalized cross-correlation (Gonzalez and Woods, Digital Image Processing), to part of a pixel by
 * a parabola through the best place and its neighbours.
 *
 * @param patch taken with `cut`
 * @param near where it was last; pixels, the patch's middle
 * @param reach how far it may have gone, pixels
 */
export function find(picture: Grey, patch: Grey, near: Place, reach: number): Followed {
  const from = (at: number, size: number) => Math.round(at - size / 2);
  const [x0, y0] = [from(near.x, patch.width), from(near.y, patch.height)];
  const score = scorer(picture, patch);
  let best = { x: x0, y: y0, likeness: -Infinity };
  for (let y = y0 - reach; y <= y0 + reach; y++) {
    for (let x = x0 - reach; x <= x0 + reach; x++) {
      const likeness = score(x, y);
      if (likeness > best.likeness) best = { x, y, likeness };
    }
  }
  const fine = (low: number, high: number) => {
    const bend = low - 2 * best.likeness + high;
    return bend < 0 && Number.isFinite(bend) ? (0.5 * (low - high)) / bend : 0;
  };
  const dx = fine(score(best.x - 1, best.y), score(best.x + 1, best.y));
  const dy = fine(score(best.x, best.y - 1), score(best.x, best.y + 1));
  return {
    x: best.x + dx + patch.width / 2,
    y: best.y + dy + patch.height / 2,
    likeness: best.likeness,
  };
}

/** @returns likeness of the patch with its corner at x, y; −∞ outside the picture */
function scorer(picture: Grey, patch: Grey): (x: number, y: number) => number {
  const { width, height, levels } = patch;
  const n = width * height;
  let total = 0;
  for (let i = 0; i < n; i++) total += levels[i]!;
  const mean = total / n;
  let power = 0;
  for (let i = 0; i < n; i++) power += (levels[i]! - mean) ** 2;
  return (x, y) => {
    if (x < 0 || y < 0 || x + width > picture.width || y + height > picture.height) {
      return -Infinity;
    }
    let [sum, squares, product] = [0, 0, 0];
    for (let row = 0; row < height; row++) {
      const start = (y + row) * picture.width + x;
      for (let column = 0; column < width; column++) {
        const level = picture.levels[start + column]!;
        sum += level;
        squares += level * level;
        product += level * (levels[row * width + column]! - mean);
      }
    }
    const own = squares - (sum * sum) / n;
    return own > 0 && power > 0 ? product / Math.sqrt(own * power) : -Infinity;
  };
}

/**
 * The patch round a place.
 *
 * @param size pixels of a side
 * @throws RangeError when it does not fit into the picture
 */
export function cut(picture: Grey, { x, y }: Place, size: number): Grey {
  const [x0, y0] = [Math.round(x - size / 2), Math.round(y - size / 2)];
  if (x0 < 0 || y0 < 0 || x0 + size > picture.width || y0 + size > picture.height) {
    throw new RangeError('The patch does not fit into the picture: choose a place further inside.');
  }
  const levels = new Float64Array(size * size);
  for (let row = 0; row < size; row++) {
    for (let column = 0; column < size; column++) {
      levels[row * size + column] = picture.levels[(y0 + row) * picture.width + x0 + column]!;
    }
  }
  return { width: size, height: size, levels };
}
