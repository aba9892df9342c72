/**
 * A fighter in space who throws by torques, from the floor to what strikes. What he would lose by a leak is known,
 * because the same body throws again without it. Made to hold the judge's costs to a body that is not the judge's
 * own model.
 */
import { dot, size, subtract, type Point } from '../fighter/space';
import type { Linkage, Moving, Placed } from './linkage';

/** A body and how it is driven. */
export interface Driven {
  readonly linkage: Linkage;
  /** All joints in guard, and as the throw begins: radians, metres of a slide. */
  readonly guard: readonly number[];
  readonly start: readonly number[];
  /** Torques (forces of slides) at an instant, seconds from the first call. */
  readonly drive: (now: Moving, time: number) => number[];
  /** What strikes, and the joint that its limb hangs on. */
  readonly ends: (placed: readonly Placed[]) => { readonly end: Point; readonly root: Point };
  /** The way in which it is to strike. */
  readonly direction: Point;
  /** What is missing to the target: positive before it. */
  readonly missing: (placed: readonly Placed[]) => number;
  /** Seconds before which nothing is met. */
  readonly meetsAfter: number;
}

export interface Thrown {
  readonly driven: Driven;
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
  /** What strikes, from the joint that its limb hangs on, at contact: metres. */
  readonly met: Point;
}

export const DT = 0.002;
const LONGEST = 0.8;
/** Of its speed a strike has at least this share toward its target. */
const ALONG = 0.5;

/** From its start until the end meets its target, or long enough for one that never does. */
export function throwIt(driven: Driven): Thrown {
  const { linkage, start, drive, direction } = driven;
  let now: Moving = { q: start, rates: start.map(() => 0) };
  const way = [now];
  let time = 0;
  let gap = driven.missing(linkage.placed(now.q));
  let hasMet = false;
  while (time < LONGEST && !hasMet) {
    const next = linkage.step(now, time, DT, drive);
    const then = driven.missing(linkage.placed(next.q));
    const begun = gap > 0 && time > driven.meetsAfter;
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
  const { end, root } = driven.ends(placed);
  const velocity = linkage.velocity(linkage.slopes(placed, end), now.rates);
  const speed = dot(velocity, direction);
  const mass = linkage.massBehind(placed, end, direction);
  const met = subtract(end, root);
  const isStrike = hasMet && speed > ALONG * size(velocity);
  return {
    driven,
    way,
    contact: time,
    hasArrived: isStrike,
    speed,
    mass,
    momentum: mass * speed,
    met,
  };
}
