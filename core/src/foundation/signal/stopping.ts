/**
 * A striking end that is being stopped as it lands: a hand that is pulled back, a limb at its full length. Its
 * speed goes within a frame or three, which nothing before shows, so how it went on is no guide to it.
 */
import erfc from '@stdlib/math-base-special-erfc';

/** It has begun so long before, seconds. */
const SINCE = [0.008, 0.011, 0.015, 0.02, 0.027];
/**
 * One strike in ten is taken to be. A larger share makes sound strikes unsure, a smaller leaves braking
 * unseen: tried on made-up strikes of 22 techniques, and on crosses and kicks that brake for 10 to 30 ms.
 */
export const STOP_SHARE = 0.1;
/** Seconds in which it would lose all of its speed, one standard deviation of how hard it is stopped. */
const WITHIN = 0.02;

/** One of several normals, about a middle. */
interface Part {
  readonly share: number;
  readonly off: number;
  readonly sigma: number;
}

/** How far either side of the middle 95 of 100 cases lie. */
export function holdingHalf(parts: readonly Part[]): number {
  const outside = (half: number) =>
    parts.reduce((sum, { share, off, sigma }) => {
      const tail = (by: number) => erfc(by / (Math.SQRT2 * Math.max(sigma, 1e-12))) / 2;
      return sum + share * (tail(half - off) + tail(half + off));
    }, 0);
  let [low, high] = [0, Math.max(...parts.map(({ off, sigma }) => Math.abs(off) + 2 * sigma))];
  for (let i = 0; i < 12; i++) {
    const half = (low + high) / 2;
    if (outside(half) > 0.05) low = half;
    else high = half;
  }
  return high;
}

/** What may be at the end of the points: it holds its speed, or it is being stopped. */
export interface Ending {
  /** The way of it, of length 1, an entry a list. */
  readonly along: readonly number[];
  readonly stops: readonly Stop[];
  /** Variance of how hard it is stopped. */
  readonly hard: number;
}

interface Stop {
  /** How far it falls behind for each unit of stopping, at each time. */
  readonly behind: Float64Array;
  /** And at the instant that is asked for: place, speed, acceleration. */
  readonly asked: readonly [number, number, number];
}

export function endingOf(
  t: readonly number[],
  seen: readonly (readonly number[])[],
  when: number,
  chord: number,
  mayStop: boolean,
): Ending {
  const way = seen.map((values) => values[values.length - 1]!);
  const long = Math.hypot(...way) || 1;
  const stops = (mayStop ? SINCE : []).map((since): Stop => {
    const past = (time: number) => Math.max(0, time - (when - since));
    return {
      behind: Float64Array.from(t, (time) => -(past(time) ** 2) / 2),
      asked: [-(since ** 2) / 2, -since, -1],
    };
  });
  return {
    along: way.map((one) => one / long),
    stops,
    hard: (chord / WITHIN) ** 2,
  };
}
