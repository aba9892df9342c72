/** How fast each link moves over time, for the lanes of a chart; only what the points show. */
import { length } from '../../foundation/geometry/vector';
import { derivative } from '../../foundation/signal/derivative';
import type { Link, Technique } from '../../foundation/technique/techniques';
import type { Motion } from './motion';
import { hipsAlong, turningOf, type Series } from './speeds';
import { endPath, LONGEST_GAP } from './where';

export interface Trace {
  readonly times: readonly number[];
  /** Turning speed into the strike of links that turn; speed of what travels. */
  readonly values: readonly number[];
  readonly unit: 'm/s' | 'rad/s';
}

/** A link's speed needs at least this many points, none farther apart than `LONGEST_GAP`. */
const FEWEST = 4;

/**
 * The striking end's speed in the plane of the view and the way of the hips (need a scale), and the
 * turning of every link the view shows, by differences between the points as they are measured.
 */
export function traces(motion: Motion, technique: Technique): Partial<Record<Link, Trace>> {
  const found: Partial<Record<Link, Trace>> = {};
  const end = endPath(motion);
  const last = technique.chain[technique.chain.length - 1]!;
  for (const [link, series] of turningOf(motion, technique)) {
    const trace = series && rateOf(series, 'rad/s');
    if (trace) found[link] = trace;
  }
  if (!motion.metric) return found;
  if (end && motion.axes.length > 0 && isGapless(end.times)) {
    const rates = end.along.map((values) => derivative(values, end.times));
    const values = end.times.map((_, i) => length(rates.map((rate) => rate[i]!)));
    found[last] = { times: end.times, values, unit: 'm/s' };
  }
  for (const [link, axis] of [
    ['feet', 'toward'],
    ['knees', 'up'],
  ] as const) {
    const series = hipsAlong(motion, axis, 1);
    const trace = series && rateOf(series, 'm/s');
    if (trace) found[link] = trace;
  }
  return found;
}

function rateOf({ times, values }: Series, unit: Trace['unit']): Trace | null {
  return isGapless(times) ? { times, values: derivative(values, times), unit } : null;
}

function isGapless(times: readonly number[]): boolean {
  return (
    times.length >= FEWEST && times.every((t, i) => i === 0 || t - times[i - 1]! <= LONGEST_GAP)
  );
}
