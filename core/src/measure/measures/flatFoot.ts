/**
 * How a student's own foot stands flat: heels and toes are marked where they can be seen, not where they touch,
 * and a marker on the heel of a shoe lies higher than one on its toe.
 */
import { least, median } from 'd3-array';
import type { Motion } from '../../reconstruct/motion/motion';
import { shared } from '../../reconstruct/motion/where';

/** Looked at in stretches of so long, seconds, of so many frames at the least. */
const STRETCH = 0.1;
const FEWEST = 5;
/** A toe this far over where it is lowest is not on the floor, metres. */
const STANDS = 0.015;

/** The heel over the toe of a foot that stands flat, metres, and one standard deviation. */
export interface FlatFoot {
  readonly rise: number;
  readonly sigma: number;
}

const known = new WeakMap<Motion, FlatFoot>();
/** The least of many is less than each: so many times what a stretch by itself is off. */
const LEAST_OF_MANY = 2;

/**
 * The least of all stretches in which a toe is on the floor, over both feet. 0 where too little is seen, or
 * lengths have no scale.
 */
export function flatFoot(motion: Motion): FlatFoot {
  const before = known.get(motion);
  if (before !== undefined) return before;
  const found = leastRise(motion);
  known.set(motion, found);
  return found;
}

interface Stretch extends FlatFoot {
  readonly toe: number;
}

const UNKNOWN: FlatFoot = { rise: 0, sigma: 0 };

function leastRise(motion: Motion): FlatFoot {
  const up = motion.axes.indexOf('up');
  if (up < 0 || !motion.metric) return UNKNOWN;
  const standing = (['left', 'right'] as const).flatMap((side) => {
    const stretches = stretchesOf(motion, side, up);
    // Its own floor: a camera that looks down shows the nearer foot lower.
    const floor = Math.min(...stretches.map(({ toe }) => toe));
    return stretches.filter(({ toe }) => toe <= floor + STANDS);
  });
  return least(standing, ({ rise }) => rise) ?? UNKNOWN;
}

function stretchesOf({ raw }: Motion, side: 'left' | 'right', up: number): Stretch[] {
  const [heel, toe] = [raw[`${side}Heel`], raw[`${side}Toe`]];
  if (!heel || !toe) return [];
  const stretches = new Map<number, [toe: number, rise: number][]>();
  for (const [h, t] of shared(heel, toe)) {
    const low = toe.along[up]![t]!;
    const at = Math.floor(toe.times[t]! / STRETCH);
    const here = stretches.get(at) ?? [];
    stretches.set(at, here);
    here.push([low, heel.along[up]![h]! - low]);
  }
  return [...stretches.values()]
    .filter((frames) => frames.length >= FEWEST)
    .map((frames) => {
      const rise = median(frames, ([, one]) => one)!;
      const off = median(frames, ([, one]) => Math.abs(one - rise))!;
      // 1.4826 MAD is σ of normal noise, and √(π/2) the price of a median.
      const sigma = (LEAST_OF_MANY * 1.4826 * 1.2533 * off) / Math.sqrt(frames.length);
      return { toe: median(frames, ([low]) => low)!, rise, sigma };
    });
}
