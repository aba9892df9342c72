/**
 * What one strike cannot tell: two strikes held against each other, a set, rounds, a bag that swings,
 * a ball that flies. Each takes numbers with their σ and gives a reading with its own.
 */
import { GRAVITY } from '../../foundation/body/balance';
import {
  absent,
  reading,
  type Measured,
  type Source,
  type Unit,
} from '../../foundation/reading/reading';
import { propagate } from '../../foundation/uncertainty/propagate';
import { slopeOf } from '../../foundation/uncertainty/slope';

/** A number from elsewhere: another reading, a tape, a scale. */
export interface Quantity {
  readonly value: number;
  /** One standard deviation, same unit. */
  readonly sigma: number;
}

function from(
  inputs: readonly Quantity[],
  unit: Unit,
  f: (values: readonly number[]) => number,
  source: Source = 'measured-2d',
): Measured {
  const values = inputs.map(({ value }) => value);
  const sigma = propagate(
    f,
    values,
    inputs.map((input) => input.sigma),
  );
  return reading(f(values), unit, sigma, source, []);
}

/**
 * `reach.pair`: reach of the rear hand ÷ the lead hand at contact, each in metres from the rear foot.
 */
export function reachPair(rear: Quantity, lead: Quantity): Measured {
  return from([rear, lead], 'ratio', ([a, b]) => a! / b!);
}

/** `range.free`: turn left unused, slow and unloaded range − what the full-speed strike uses; rad. */
export function rangeLeft(free: Quantity, used: Quantity): Measured {
  return from([free, used], 'rad', ([a, b]) => a! - b!);
}

/** `closing`: impact speed on a target that comes (+) or goes (−), m/s. */
export function impactSpeed(strike: Quantity, closing: Quantity): Measured {
  return from([strike, closing], 'm/s', ([a, b]) => a! + b!);
}

/**
 * `throw.legs`: what the legs add to a throw's speed. A ball thrown at one angle flies a distance
 * that grows with v² (textbook ballistics, without drag), so the gain is √(standing ÷ seated) − 1.
 */
export function throwLegs(standing: Quantity, seated: Quantity): Measured {
  if (!(standing.value > 0 && seated.value > 0)) return absent('Both distances must be above 0.');
  return from([standing, seated], 'ratio', ([a, b]) => Math.sqrt(a! / b!) - 1, 'eye');
}

/** A hanging bag: a uniform cylinder below a chain that weighs nothing. */
export interface Bag {
  /** Kilograms. */
  readonly mass: Quantity;
  /** Length and radius of the bag, and of the chain above it, metres. */
  readonly length: Quantity;
  readonly radius: number;
  readonly chain: number;
}

/** @returns moment of inertia about the hook, kg m², and the centre's distance from it, m */
function pendulum(mass: number, length: number, { radius, chain }: Bag) {
  const centre = chain + length / 2;
  const own = mass * (length ** 2 / 12 + radius ** 2 / 4);
  return { inertia: own + mass * centre ** 2, centre };
}

/**
 * `bag.impulse`: the push a bag received, from how far it swings. Energy gives the turning speed it
 * started with, ω₀ = √(2 m g d (1 − cos θ) / I); the blow's moment about the hook gives J r = I ω₀.
 *
 * Source: compound pendulum, textbook mechanics.
 *
 * @param swing largest angle from hanging, rad
 * @param below the blow's distance below the hook, m
 * @returns N·s
 */
export function bagImpulse(bag: Bag, swing: Quantity, below: Quantity): Measured {
  if (!(below.value > 0)) return absent('The blow must land below the hook.');
  return from([bag.mass, bag.length, swing, below], 'N·s', ([mass, length, angle, r]) => {
    const { inertia, centre } = pendulum(mass!, length!, bag);
    const start = Math.sqrt((2 * mass! * GRAVITY * centre * (1 - Math.cos(angle!))) / inertia);
    return (inertia * start) / r!;
  });
}

/** Mean force of a blow: impulse ÷ contact time, N. */
export function meanForce(impulse: Quantity, contactTime: Quantity): Measured {
  if (!(contactTime.value > 0)) return absent('The contact must last longer than 0.');
  return from([impulse, contactTime], 'N', ([a, b]) => a! / b!);
}

/** Period of the bag's small swing, 2π √(I / (m g d)), s: to check a bag's numbers with a watch. */
export function bagPeriod(bag: Bag): Measured {
  return from([bag.mass, bag.length], 's', ([mass, length]) => {
    const { inertia, centre } = pendulum(mass!, length!, bag);
    return 2 * Math.PI * Math.sqrt(inertia / (mass! * GRAVITY * centre));
  });
}

/**
 * `fatigue.*`: change a round, by least squares over the rounds weighted by each value's own σ.
 *
 * @param rounds values of one reading, in the order of the rounds
 * @param unit of the reading
 */
export function perRound(rounds: readonly Quantity[], unit: Unit): Measured {
  if (rounds.length < 3) return absent('Three rounds or more tell a trend.');
  const line = slopeOf(rounds.map(({ value, sigma }, x) => ({ x, value, sigma })))!;
  return reading(line.slope, unit, line.sigma, 'measured-2d', []);
}

export interface Aim {
  /** Mean distance of the contact points' middle from the aim, m. */
  readonly offset: Measured;
  /** Root mean square distance of the contact points from their own middle, m. */
  readonly spread: Measured;
  /** Share of the contact points inside the zone. */
  readonly inside: Measured;
}

/**
 * `aim.*`: where a set lands.
 *
 * @param points contact points from the aim point, metres across and up
 * @param zone radius of the zone, m
 */
export function aimOf(
  points: readonly (readonly [Quantity, Quantity])[],
  zone: number,
): Aim | ReturnType<typeof absent> {
  const n = points.length;
  if (n < 3) return absent('Three strikes or more tell where a set lands.');
  const flat = points.flat();
  const middle = (v: readonly number[]) =>
    [0, 1].map((k) => v.reduce((sum, one, i) => (i % 2 === k ? sum + one : sum), 0) / n);
  const share = points.filter(([x, y]) => Math.hypot(x.value, y.value) <= zone).length / n;
  return {
    offset: from(flat, 'm', (v) => Math.hypot(...middle(v))),
    spread: from(flat, 'm', (v) => {
      const [x, y] = middle(v);
      const away = points.map((_, i) => (v[2 * i]! - x!) ** 2 + (v[2 * i + 1]! - y!) ** 2);
      return Math.sqrt(away.reduce((sum, one) => sum + one, 0) / n);
    }),
    // σ of a share of n (binomial, with the rule of succession so that 0 and 1 are not certain).
    inside: reading(
      share,
      'ratio',
      Math.sqrt((((share * n + 1) / (n + 2)) * (1 - (share * n + 1) / (n + 2))) / (n + 2)),
      'measured-2d',
      [],
    ),
  };
}
