/** A band on sheets of paper: which bars stand on which, and where the numbers that tell its girth go. */
import { BAR, PRINTED, type BandName } from './band';

/** Bars side by side on one sheet, and what the next sheet is glued over, metres. */
export const BARS_A_SHEET = 8;
export const TAB = 0.01;
/** What the ends of a band lie over each other by, metres. */
const OVERLAP = 0.02;
/** Metres of girth from one tick to the next, and from one number to the next. */
const TICK = 0.01;
const NUMBERED = 0.05;

export interface SheetBar {
  /** From 0, of the whole band. */
  readonly index: number;
  readonly isWhite: boolean;
}

export interface Tick {
  /** Metres from the left end of the sheet. */
  readonly at: number;
  /** The girth of a band whose ends meet here, centimetres; null where there is no room for a number. */
  readonly cm: number | null;
  readonly isOnWhite: boolean;
}

export interface StripOfSheet {
  readonly band: BandName;
  readonly bars: readonly SheetBar[];
  readonly ticks: readonly Tick[];
  /** Metres from the left end to the triangle; null when it is on another sheet. */
  readonly triangle: number | null;
  /** Whether another sheet is glued over its right end. */
  readonly hasTab: boolean;
}

/** How many sheets go round. */
export function sheetsFor(girth: number): number {
  const most = PRINTED.hips.length / BARS_A_SHEET;
  return Math.min(most, Math.ceil((girth + OVERLAP) / (BARS_A_SHEET * BAR)));
}

/** One band on so many sheets, from the left as somebody sees it who faces the band; the triangle in its middle. */
export function sheetsOf(band: BandName, count: number): StripOfSheet[] {
  const code = PRINTED[band];
  const middle = code.length / 2;
  const first = middle - (count * BARS_A_SHEET) / 2;
  const isWhite = (bar: number) => code[bar] === '1';
  return Array.from({ length: count }, (_, sheet) => {
    const from = first + sheet * BARS_A_SHEET;
    const bars = Array.from({ length: BARS_A_SHEET }, (__, i) => ({
      index: from + i,
      isWhite: isWhite(from + i),
    }));
    // A girth reaches half of itself to either side of the triangle.
    const across = BARS_A_SHEET * BAR;
    const begins = (from - middle) * BAR;
    const ticks: Tick[] = [];
    for (let k = Math.ceil(begins / (TICK / 2)); k * (TICK / 2) < begins + across - 1e-9; k++) {
      const at = k * (TICK / 2) - begins;
      const girth = Math.abs(k) * TICK;
      const isNumbered = k !== 0 && Math.abs(k) % Math.round(NUMBERED / TICK) === 0;
      ticks.push({
        at,
        cm: isNumbered ? Math.round(girth * 100) : null,
        isOnWhite: isWhite(from + Math.min(BARS_A_SHEET - 1, Math.floor(at / BAR + 1e-9))),
      });
    }
    const triangle = -begins;
    return {
      band,
      bars,
      ticks,
      triangle: triangle >= 0 && triangle <= across ? triangle : null,
      hasTab: sheet < count - 1,
    };
  });
}
