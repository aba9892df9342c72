/** The stretch of a picture that a band is in, cut out along the body and laid straight. */
import type { Grey } from '../footage/grey';
import { BAND_HEIGHT } from './band';
import type { Grid } from './torso';

/** Metres between two columns, and between two rows. */
const COLUMN = 0.0035;
const ROW = 0.004;
/** Metres to either side that a strip goes. */
const HALF_WIDTH = 0.27;
/** Share of a band's height, in its middle, that is averaged. */
const MIDDLE = 0.5;

export interface Strip {
  readonly grid: Grid;
  readonly rows: number;
  /** Levels, row by row; NaN outside of the picture. */
  readonly data: Float32Array;
  /** Where a column of a course lies in the picture, pixels. */
  readonly placeAt: (column: number, course: Course) => { readonly x: number; readonly y: number };
}

/** What a strip is cut along. */
export interface Cut {
  /** Pixels: where the middle of the body is expected, at the height of the first row and of the last. */
  readonly top: { readonly x: number; readonly y: number };
  readonly bottom: { readonly x: number; readonly y: number };
  /** Pixels a metre, about. */
  readonly scale: number;
  /** Pixels. */
  readonly focal: number;
}

/** A strip whose rows are square to the line from its top to its bottom. */
export function cutStrip(picture: Grey, { top, bottom, scale, focal }: Cut): Strip {
  const tall = Math.hypot(bottom.x - top.x, bottom.y - top.y);
  const rows = Math.max(2, Math.round(tall / scale / ROW) + 1);
  const count = 2 * Math.round(HALF_WIDTH / COLUMN) + 1;
  const step = (COLUMN * scale) / focal;
  const down = [(bottom.x - top.x) / tall, (bottom.y - top.y) / tall] as const;
  const middle = (top.x + bottom.x) / 2 - picture.width / 2;
  const first = Math.atan(middle / focal) - ((count - 1) / 2) * step;
  const along = Array.from(
    { length: count },
    (_, i) => (focal * Math.tan(first + i * step) - middle) / down[1],
  );
  const data = new Float32Array(rows * count);
  const place = (row: number, column: number) => {
    const share = row / (rows - 1) - 0.5;
    return {
      x: (top.x + bottom.x) / 2 + share * (bottom.x - top.x) + along[column]! * down[1],
      y: (top.y + bottom.y) / 2 + share * (bottom.y - top.y) - along[column]! * down[0],
    };
  };
  for (let row = 0; row < rows; row++) {
    for (let i = 0; i < count; i++) {
      const { x, y } = place(row, i);
      data[row * count + i] = level(picture, x, y);
    }
  }
  return {
    grid: { first, step, count },
    rows,
    data,
    placeAt: (column, course) => place(rowAt(course, column - (count - 1) / 2), column),
  };
}

/** Between pixels, whose middles lie at halves. */
function level({ width, height, data }: Grey, x: number, y: number): number {
  const [u, v] = [x - 0.5, y - 0.5];
  const [i, j] = [Math.floor(u), Math.floor(v)];
  if (i < 0 || j < 0 || i >= width - 1 || j >= height - 1) return NaN;
  const [a, b] = [u - i, v - j];
  const at = j * width + i;
  return (
    (1 - b) * ((1 - a) * data[at]! + a * data[at + 1]!) +
    b * ((1 - a) * data[at + width]! + a * data[at + width + 1]!)
  );
}

/** Which rows of a strip a band takes: its middle row in the middle column, its slope and its bow. */
export interface Course {
  readonly row: number;
  /** Rows a column, and rows a column². */
  readonly slope: number;
  readonly bow: number;
}

const rowAt = ({ row, slope, bow }: Course, off: number) => row + slope * off + bow * off * off;

/** Columns to either side of the middle in which a band is looked for. */
const LOOKED = Math.round(0.17 / COLUMN);
const SLOPES = [-0.3, -0.2, -0.1, 0, 0.1, 0.2, 0.3];
/** Rows by which a band's edges may be higher or lower than its middle, 15 cm away. */
const BOWS = [-4, -2, 0, 2, 4];

const HALF_BAND = Math.round(BAND_HEIGHT / 2 / ROW);
const HALF_MIDDLE = Math.round((MIDDLE * BAND_HEIGHT) / 2 / ROW);

/** How much a band stands out at each row: columns differ from their neighbours over its whole height. */
export function standsOut({ grid: { count }, rows, data }: Strip): Float64Array {
  const middle = (count - 1) / 2;
  const own = new Float64Array(rows);
  for (let row = 0; row < rows; row++) {
    for (let i = middle - LOOKED; i <= middle + LOOKED; i++) {
      const change = data[row * count + i + 1]! - data[row * count + i - 1]!;
      if (!Number.isNaN(change)) own[row]! += Math.abs(change);
    }
  }
  const windowed = new Float64Array(rows);
  for (let row = HALF_BAND; row < rows - HALF_BAND; row++) {
    let sum = 0;
    for (let k = -HALF_BAND; k <= HALF_BAND; k++) sum += own[row + k]!;
    windowed[row] = sum;
  }
  return windowed;
}

/** How the band runs around a row: where its columns, added up, differ most. */
export function courseAround(strip: Strip, about: number): Course {
  let best: Course = { row: about, slope: 0, bow: 0 };
  let most = -1;
  for (const slope of SLOPES) {
    for (const rise of BOWS) {
      const course = { row: about, slope, bow: rise / (0.15 / COLUMN) ** 2 };
      const { values } = averaged(strip, course);
      const middle = (values.length - 1) / 2;
      let sum = 0;
      for (let i = middle - LOOKED; i <= middle + LOOKED; i++) {
        const change = values[i + 1]! - values[i - 1]!;
        if (!Number.isNaN(change)) sum += change * change;
      }
      if (sum > most) [most, best] = [sum, course];
    }
  }
  return best;
}

export interface Averaged {
  /** Mean level of the middle of the band, by column; NaN where a column leaves the strip. */
  readonly values: Float64Array;
  /** Standard deviation between the rows of a column. */
  readonly spread: Float64Array;
}

export function averaged({ grid: { count }, rows, data }: Strip, course: Course): Averaged {
  const values = new Float64Array(count);
  const spread = new Float64Array(count);
  const middle = (count - 1) / 2;
  for (let i = 0; i < count; i++) {
    const off = i - middle;
    const centre = Math.round(rowAt(course, off));
    let [sum, square, n] = [0, 0, 0];
    for (let k = -HALF_MIDDLE; k <= HALF_MIDDLE; k++) {
      const row = centre + k;
      const value = row >= 0 && row < rows ? data[row * count + i]! : NaN;
      if (Number.isNaN(value)) continue;
      sum += value;
      square += value * value;
      n += 1;
    }
    values[i] = n > HALF_MIDDLE ? sum / n : NaN;
    spread[i] = Math.sqrt(Math.max(0, square / n - (sum / n) ** 2));
  }
  return { values, spread };
}
