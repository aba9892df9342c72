/**
 * How wide the edges of a picture are: a sharp edge goes from dark to light within a pixel or two,
 * a smeared one takes as long as the limb travelled while the shutter was open.
 *
 * Source: edge widths between local extremes, Marziliano, Dufaux, Winkler & Ebrahimi, A no-reference
 * perceptual blur metric, ICIP 2002; here along the axis of the stronger gradient.
 */
import type { Grey } from './grey';
import { median } from 'd3-array';

/** Levels; weaker steps are noise. */
const LEAST_STEP = 40;
const LONGEST = 60;

/**
 * Median width of the edges, pixels; null where there are too few.
 *
 * @param isCounted which pixels belong, row by row; all when missing
 */
export function edgeWidth(
  { width, height, data }: Grey,
  isCounted?: (x: number, y: number) => boolean,
): number | null {
  const widths: number[] = [];
  const scan = (x: number, y: number, step: number, slope: number, room: [number, number]) => {
    const sign = Math.sign(slope);
    const at = y * width + x;
    let from = 0;
    while (from < room[0] && from < LONGEST) {
      const next = (data[at - from * step]! - data[at - (from + 1) * step]!) * sign;
      if (next <= 0) break;
      from += 1;
    }
    let to = 0;
    while (to < room[1] && to < LONGEST) {
      const next = (data[at + (to + 1) * step]! - data[at + to * step]!) * sign;
      if (next <= 0) break;
      to += 1;
    }
    const rise = Math.abs(data[at + to * step]! - data[at - from * step]!);
    if (rise >= LEAST_STEP) widths.push(from + to);
  };
  const slopeX = (x: number, y: number) => data[y * width + x + 1]! - data[y * width + x - 1]!;
  const slopeY = (x: number, y: number) => data[(y + 1) * width + x]! - data[(y - 1) * width + x]!;
  for (let y = 2; y < height - 2; y++) {
    for (let x = 2; x < width - 2; x++) {
      const [gx, gy] = [slopeX(x, y), slopeY(x, y)];
      const isAcross = Math.abs(gx) >= Math.abs(gy);
      const slope = isAcross ? gx : gy;
      if (Math.abs(slope) < LEAST_SLOPE) continue;
      const before = Math.abs(isAcross ? slopeX(x - 1, y) : slopeY(x, y - 1));
      const after = Math.abs(isAcross ? slopeX(x + 1, y) : slopeY(x, y + 1));
      // Only where the step is steepest, so that an edge counts once a row.
      if (Math.abs(slope) < before || Math.abs(slope) <= after) continue;
      if (isCounted && !isCounted(x, y)) continue;
      if (isAcross) scan(x, y, 1, gx, [x, width - 1 - x]);
      else scan(x, y, width, gy, [y, height - 1 - y]);
    }
  }
  if (widths.length < FEWEST) return null;
  return median(widths)!;
}

const LEAST_SLOPE = 6;
const FEWEST = 24;
