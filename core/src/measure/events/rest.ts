/**
 * When something on its way down comes to rest: instants are tried, each with a way down that ends there hard or
 * soft and a floor behind it, and count as they fit (Bayesian model averaging; Hoeting et al., Statistical Science
 * 14, 1999).
 */
import { mean, min, range, sum } from 'd3-array';
import { lowerBound } from '../../foundation/signal/interpolate';
import { keptOver } from '../../foundation/signal/noise';

/** Of the way down so much is looked at, and of what follows; seconds. */
const COMES_DOWN = 0.06;
const RESTS = 0.16;
/** Instants are tried from so long before the first guess until so long behind it, so far apart; seconds. */
const EARLIER = 0.03;
const LATER = 0.06;
const STEP = 0.001;

export interface WayDown {
  /** Seconds, ascending. */
  readonly times: readonly number[];
  readonly heights: readonly number[];
  /** Standard deviation of a height. */
  readonly sigma: number;
  /** Seconds over which the noise falls to 1/e of its likeness with itself. */
  readonly hangs: number;
}

/**
 * @param near seconds; about when it is nearly down
 * @returns seconds, with its standard deviation; null when too little of the way or of the rest is there
 */
export function restOf(
  { times, heights, sigma, hangs }: WayDown,
  near: number,
): { readonly time: number; readonly sigma: number } | null {
  const first = lowerBound(times, near - COMES_DOWN);
  const last = lowerBound(times, near + RESTS);
  const spacing = (times[last - 1]! - times[first]!) / (last - 1 - first);
  // Points that hang together tell as little as fewer of them.
  const kept = keptOver(spacing, hangs);
  const counts = (1 - kept) / (1 + kept) / sigma ** 2;
  const tried = range(near - EARLIER, near + LATER, STEP).map((time) => ({
    time,
    misfit: counts * misfitOf(times, heights, [first, lowerBound(times, time), last], time),
  }));
  const least = min(tried, ({ misfit }) => misfit)!;
  if (!Number.isFinite(least)) return null;
  // Where even the best does not fit, the noise is larger than it was read.
  const loose = Math.max(1, least / (counts * sigma ** 2 * (last - first)));
  const weight = ({ misfit }: { misfit: number }) => Math.exp((least - misfit) / (2 * loose));
  const total = sum(tried, weight);
  const time = sum(tried, (one) => weight(one) * one.time) / total;
  const spread = Math.sqrt(sum(tried, (one) => weight(one) * (one.time - time) ** 2) / total);
  return { time, sigma: Math.hypot(spread, spacing / 4) };
}

/** What squares are left of a way down that ends at a time, a(T − t) + b(T − t)² with neither below 0, and a floor. */
function misfitOf(
  times: readonly number[],
  heights: readonly number[],
  [first, rest, last]: readonly [number, number, number],
  time: number,
): number {
  if (rest - first < 2 || last - rest < 2) return Infinity;
  const floor = mean(heights.slice(rest, last))!;
  const down = heights.slice(first, rest).map((height, i) => {
    const left = time - times[first + i]!;
    return { left, height: height - floor };
  });
  const moment = (l: number, h: number) => sum(down, (one) => one.left ** l * one.height ** h);
  const [a, b, c, d, e] = [moment(2, 0), moment(3, 0), moment(4, 0), moment(1, 1), moment(2, 1)];
  const soft = Math.max(0, Math.min(e / c, (a * e - b * d) / (a * c - b * b)));
  const hard = Math.max(0, (d - b * soft) / a);
  return (
    sum(down, ({ left, height }) => (height - hard * left - soft * left ** 2) ** 2) +
    sum(heights.slice(rest, last), (height) => (height - floor) ** 2)
  );
}
