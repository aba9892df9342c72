/**
 * A band's turn, at first roughly: what a strip shows held against what a torso would show in every turn and at
 * every place, and the likeliest way through a film.
 *
 * Source: Viterbi, IEEE Trans. Inf. Theory 13 (1967) 260–269.
 */
import type { Averaged } from './strip';
import { seen, type Grid, type Profile, type Torso } from './torso';

/** Levels are held against their surroundings, so many columns around, one standard deviation. */
const AROUND = 14;
/** Rows of a column that differ by this, in grey levels, make it count half. */
const UNEVEN = 14;

/** What one frame shows of a band. */
export interface Sight {
  readonly grid: Grid;
  readonly values: Float64Array;
  readonly weights: Float64Array;
}

export function sightOf(grid: Grid, { values, spread }: Averaged): Sight {
  const weights = values.map((value, i) =>
    Number.isNaN(value) ? 0 : 1 / (1 + (spread[i]! / UNEVEN) ** 2),
  );
  return { grid, values: values.map((value) => (Number.isNaN(value) ? 0 : value)), weights };
}

const KERNEL = Array.from({ length: 4 * AROUND + 1 }, (_, i) =>
  Math.exp(-0.5 * ((i - 2 * AROUND) / AROUND) ** 2),
);

/** Each value against the mean of its surroundings, in their standard deviations. */
export function againstAround({ values, weights }: Profile): Float64Array {
  const out = new Float64Array(values.length);
  for (let i = 0; i < values.length; i++) {
    if (weights[i] === 0) continue;
    let total = 0;
    let sum = 0;
    let square = 0;
    const from = Math.max(0, i - 2 * AROUND);
    const to = Math.min(values.length - 1, i + 2 * AROUND);
    for (let k = from; k <= to; k++) {
      const weight = KERNEL[k - i + 2 * AROUND]! * weights[k]!;
      total += weight;
      sum += weight * values[k]!;
      square += weight * values[k]! ** 2;
    }
    const mean = sum / total;
    out[i] = (values[i]! - mean) / Math.sqrt(Math.max(square / total - mean ** 2, 1e-6));
  }
  return out;
}

/** Turns are tried every so many radians, places every so many columns, within these. */
const TURN_STEP = (2.5 * Math.PI) / 180;
export const PLACE_STEP = 2;
export const PLACES = 10;

export const placesTried = 2 * PLACES + 1;

/** Torsos in every turn, to be laid over strips. */
export interface Templates {
  readonly turns: readonly number[];
  readonly profiles: readonly Template[];
}

interface Template extends Profile {
  /** Columns that it is seen in, from and to. */
  readonly first: number;
  readonly last: number;
}

/**
 * @param sights turns along the line of sight that are tried, from and to, radians
 */
export function templatesOf(
  torso: Torso,
  distance: number,
  { step, count }: Grid,
  [from, to]: readonly [number, number],
): Templates {
  const grid = { first: (-(count - 1) / 2) * step, step, count };
  const turns = Array.from(
    { length: Math.floor((to - from) / TURN_STEP) + 1 },
    (_, i) => from + i * TURN_STEP,
  );
  return {
    turns,
    profiles: turns.map((turn) => {
      const profile = seen(torso, { turn, bearing: 0, distance }, grid);
      return {
        values: againstAround(profile),
        weights: profile.weights,
        first: profile.weights.findIndex((one) => one > 0),
        last: profile.weights.findLastIndex((one) => one > 0),
      };
    }),
  };
}

/** Less than so many columns of a band are no sight of it. */
const LEAST_COLUMNS = 18;

/** How like each other: correlation for every turn and place, turns first. */
export function likeness(sight: Sight, { profiles }: Templates): Float32Array {
  const shown = againstAround(sight);
  const out = new Float32Array(profiles.length * placesTried);
  for (let t = 0; t < profiles.length; t++) {
    for (let p = 0; p < placesTried; p++) {
      out[t * placesTried + p] = correlation(
        shown,
        sight.weights,
        profiles[t]!,
        (p - PLACES) * PLACE_STEP,
      );
    }
  }
  return out;
}

function correlation(
  shown: Float64Array,
  weights: Float64Array,
  profile: Template,
  shift: number,
): number {
  const { values, weights: facing, first, last } = profile;
  let both = 0;
  let own = 0;
  let other = 0;
  let total = 0;
  const from = Math.max(first, -shift);
  const to = Math.min(last, shown.length - 1 - shift);
  for (let i = from; i <= to; i++) {
    const weight = weights[i + shift]! * facing[i]!;
    const a = shown[i + shift]!;
    const b = values[i]!;
    both += weight * a * b;
    own += weight * a * a;
    other += weight * b * b;
    total += weight;
  }
  return total < LEAST_COLUMNS ? 0 : both / Math.sqrt(own * other + 1e-9);
}

/** So many of a strip's columns tell something of their own. */
const INDEPENDENT = 16;
/** No body is explained better by an ellipse. */
const MOST_EXPLAINED = 0.99;
/** From frame to frame a body turns by at most so many steps, and each costs so much likelihood². */
const MOST_STEPS = 5;
const STEP_COST = 0.35;
/** Its middle strays from where the tracker has it by about so many steps of place, and hardly changes that. */
const STRAY = 4;
const PLACE_COST = 1.5;

/** Half a χ² of one frame at a turn and a place. */
function unlike(film: Float32Array | null, state: number): number {
  const place = (state % placesTried) - PLACES;
  const stray = 0.05 * (place / STRAY) ** 2;
  if (!film) return stray;
  return stray + unlikeOf(Math.max(0, film[state]!) ** 2);
}

/** Half a χ², from the share of what is seen that is explained. */
export function unlikeOf(explained: number): number {
  return 0.5 * INDEPENDENT * Math.log(1 - Math.min(MOST_EXPLAINED, explained));
}

/** The least of it, over all turns and places. */
export function leastUnlike(
  film: Float32Array,
  { turns }: Templates,
  expected: (turn: number) => number,
): number {
  let least = Infinity;
  turns.forEach((turn, t) => {
    const unlikely = expected(turn);
    for (let p = 0; p < placesTried; p++) {
      least = Math.min(least, unlikely + unlike(film, t * placesTried + p));
    }
  });
  return least;
}

export interface Rough {
  readonly turn: number;
  /** Radians from the middle of the strip. */
  readonly place: number;
  /** Correlation. */
  readonly likeness: number;
}

/**
 * @param films likeness by frame; null where there is nothing to see
 * @param expected how unlikely each turn is in a frame before anything is seen, as half a χ²
 */
export function likeliestWay(
  films: readonly (Float32Array | null)[],
  { turns }: Templates,
  step: number,
  expected: (turn: number, frame: number) => number,
): Rough[] {
  const states = turns.length * placesTried;
  const costs: Float32Array[] = [];
  const froms: Int32Array[] = [];
  films.forEach((film, frame) => {
    const cost = new Float32Array(states);
    const from = new Int32Array(states);
    const last = costs[frame - 1];
    for (let t = 0; t < turns.length; t++) {
      const unlikely = expected(turns[t]!, frame);
      for (let p = 0; p < placesTried; p++) {
        const state = t * placesTried + p;
        let best = last ? Infinity : 0;
        if (last) {
          for (
            let s = Math.max(0, t - MOST_STEPS);
            s <= Math.min(turns.length - 1, t + MOST_STEPS);
            s++
          ) {
            for (let q = Math.max(0, p - 1); q <= Math.min(placesTried - 1, p + 1); q++) {
              const before =
                last[s * placesTried + q]! +
                STEP_COST * (s - t) ** 2 +
                PLACE_COST * Math.abs(q - p);
              if (before < best) [best, from[state]] = [before, s * placesTried + q];
            }
          }
        }
        cost[state] = best + unlikely + unlike(film, state);
      }
    }
    costs.push(cost);
    froms.push(from);
  });
  const way: Rough[] = [];
  let state = 0;
  const end = costs[costs.length - 1]!;
  for (let i = 0; i < states; i++) if (end[i]! < end[state]!) state = i;
  for (let frame = films.length - 1; frame >= 0; frame--) {
    way[frame] = {
      turn: turns[Math.floor(state / placesTried)]!,
      place: ((state % placesTried) - PLACES) * PLACE_STEP * step,
      likeness: films[frame]?.[state] ?? 0,
    };
    state = froms[frame]![state]!;
  }
  return way;
}
