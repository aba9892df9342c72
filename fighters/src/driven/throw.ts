/**
 * A fighter in space who throws by torques: pelvis driven forward and round from the floor, a trunk that leans
 * and turns on it, a shoulder of three hinges, an elbow. What he would lose by a leak is known, because the same
 * body throws again without it. Made to hold the judge's costs to a body that is not the judge's own model.
 */
import { leastSquares } from '@sinew/core/foundation/geometry/leastSquares';
import { dot, size, subtract, type Point } from '../fighter/space';
import { endOf, guardOf, lengthsOf, linkageOf, type Thrower } from './body';
import { drive } from './drive';
import type { Linkage, Moving, Placed } from './linkage';

export interface Thrown {
  readonly linkage: Linkage;
  /** Every `DT` from the first call to contact. */
  readonly way: readonly Moving[];
  /** Seconds from the first call. */
  readonly contact: number;
  /** Whether it met its target, and going there rather than past it. */
  readonly hasArrived: boolean;
  /** m/s along the strike, kg behind it, N s. */
  readonly speed: number;
  readonly mass: number;
  readonly momentum: number;
  /** The fist, or elbow, from its own shoulder at contact, metres. */
  readonly met: Point;
}

export const DT = 0.002;
const LONGEST = 0.8;
/** Of its speed a strike has at least this share toward its target. */
const ALONG = 0.75;

/**
 * A straight is steered so that the fist meets the line from between the feet to the target, a hand's breadth
 * below the shoulder: two angles by shooting.
 */
export function aimed(thrower: Thrower): Thrower {
  if (thrower.way !== 'straight') return thrower;
  const at = (aim: readonly number[]): Thrower => ({ ...thrower, aim: [aim[0]!, aim[1]!] });
  const { values } = leastSquares(
    (aim) => {
      const { linkage, way, met } = throwIt(at(aim));
      const { end } = endOf(thrower, linkage.placed(way.at(-1)!.q));
      return [end[2] / 0.02, (met[1] + 0.06) / 0.02];
    },
    thrower.aim,
    5,
  );
  return at(values);
}

/** From guard until the end meets its target, or long enough for one that never does. */
export function throwIt(thrower: Thrower): Thrown {
  const linkage = linkageOf(thrower);
  const guard = guardOf(thrower);
  let now: Moving = { q: guard, rates: guard.map(() => 0) };
  const way = [now];
  let time = 0;
  let gap = missing(thrower, linkage.placed(now.q));
  let hasMet = false;
  while (time < LONGEST && !hasMet) {
    const next = linkage.step(now, time, DT, (at, when) => drive(thrower, guard, at, when));
    const then = missing(thrower, linkage.placed(next.q));
    const begun = gap > 0 && time > thrower.calls.arm + 0.06;
    if (then <= 0 && begun) {
      const share = gap / (gap - then);
      const mix = (a: readonly number[], b: readonly number[]) =>
        a.map((value, i) => value + share * (b[i]! - value));
      now = { q: mix(now.q, next.q), rates: mix(now.rates, next.rates) };
      time += share * DT;
      hasMet = true;
    } else {
      [now, gap, time] = [next, then, time + DT];
    }
    way.push(now);
  }
  const placed = linkage.placed(now.q);
  const { end, shoulder } = endOf(thrower, placed);
  const velocity = linkage.velocity(linkage.slopes(placed, end), now.rates);
  const direction: Point = thrower.way === 'straight' ? [1, 0, 0] : [0, 0, -1];
  const speed = dot(velocity, direction);
  const mass = linkage.massBehind(placed, end, direction);
  const met = subtract(end, shoulder);
  const isStrike = hasMet && speed > ALONG * size(velocity);
  return {
    linkage,
    way,
    contact: time,
    hasArrived: isStrike,
    speed,
    mass,
    momentum: mass * speed,
    met,
  };
}

/** What is missing to the target: positive before it. */
function missing(thrower: Thrower, placed: readonly Placed[]): number {
  const { end, shoulder } = endOf(thrower, placed);
  const long = lengthsOf(thrower);
  if (thrower.way === 'straight') {
    return thrower.reach - size(subtract(end, shoulder)) / (long.upper + long.fore + long.fist);
  }
  // The near side of what stands before the fighter.
  return end[2] - (thrower.way === 'elbow' ? 0.12 : 0.05);
}
