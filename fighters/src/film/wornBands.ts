/** The bands that a figure wears in a film: where on the trunk, and how far round. */
import type { BandName } from '@sinew/core/observe/band/band';

/** Half-width and half-depth, in parts of the body's height, and the place between hips and shoulders. */
export const BAND_SECTIONS: Readonly<
  Record<BandName, { readonly width: number; readonly depth: number; readonly share: number }>
> = {
  hips: { width: 0.108, depth: 0.079, share: 0.08 },
  ribs: { width: 0.112, depth: 0.08, share: 0.55 },
};

/** Points around a section, and the metres along its edge to each from the back toward the wearer's right. */
export function around(band: BandName, height: number, count: number) {
  const { width, depth } = BAND_SECTIONS[band];
  const points = Array.from({ length: count + 1 }, (_, k) => {
    const angle = -Math.PI / 2 + (2 * Math.PI * k) / count;
    return { right: width * height * Math.cos(angle), front: depth * height * Math.sin(angle) };
  });
  let way = 0;
  return points.map((point, k) => {
    const before = points[Math.max(0, k - 1)]!;
    way += Math.hypot(point.right - before.right, point.front - before.front);
    return { ...point, way };
  });
}

const FINE = 2000;

/** Metres around each, of a body of a height in metres, as a coach reads it off the band: to a centimetre. */
export const girthsAt = (height: number): Readonly<Record<BandName, number>> => ({
  hips: toCentimetre(around('hips', height, FINE)[FINE]!.way),
  ribs: toCentimetre(around('ribs', height, FINE)[FINE]!.way),
});

const toCentimetre = (metres: number) => Math.round(metres * 100) / 100;

/** Metres that strips of tape, and what is left between them, are multiples of; how many there are all round. */
const SNIP = 0.012;
const SNIPS = 90;

/** Dark and light all round, in strips and gaps of one to five snips. */
export function tapeOf(random: () => number): { readonly code: string; readonly bar: number } {
  let code = '';
  for (let strip = 0; code.length < SNIPS; strip++) {
    code += String(strip % 2).repeat(1 + Math.floor(5 * random()));
  }
  return { code, bar: SNIP };
}
