/** How fast each link moves over time, for the lanes of a chart; only what the points show. */
import { length } from '../geometry/vector';
import type { Unit } from '../reading/reading';
import { derivative } from '../signal/derivative';
import type { Link } from '../technique/catalogue';
import type { Motion } from './motion';
import { turnSeries, turnSign } from './turn';
import { fistPath, LONGEST_GAP } from './where';

export interface Trace {
  readonly times: readonly number[];
  /** Speed of the fist in the plane of the view; turning speed toward the target of the others. */
  readonly values: readonly number[];
  readonly unit: Extract<Unit, 'm/s'> | 'rad/s';
}

/** A link's speed needs at least this many points, none farther apart than `LONGEST_GAP`. */
const FEWEST = 4;

/**
 * Traces of the fist (needs a scale), the pelvis and the trunk (need the ground plane), by plain
 * differences between the points as they are: nothing is smoothed, so nothing is hidden.
 */
export function traces(motion: Motion): Partial<Record<Link, Trace>> {
  const found: Partial<Record<Link, Trace>> = {};
  const fist = fistPath(motion);
  if (fist && motion.metric && motion.axes.length > 0 && isGapless(fist.times)) {
    const rates = fist.along.map((values) => derivative(values, fist.times));
    const values = fist.times.map((_, i) => length(rates.map((rate) => rate[i]!)));
    found.fist = { times: fist.times, values, unit: 'm/s' };
  }
  for (const link of ['pelvis', 'trunk'] as const) {
    const turn = turnSeries(motion, link);
    if (!turn || !isGapless(turn.times)) continue;
    const values = derivative(turn.yaw, turn.times).map((rate) => turnSign(motion) * rate);
    found[link] = { times: turn.times, values, unit: 'rad/s' };
  }
  return found;
}

function isGapless(times: readonly number[]): boolean {
  return (
    times.length >= FEWEST && times.every((t, i) => i === 0 || t - times[i - 1]! <= LONGEST_GAP)
  );
}
