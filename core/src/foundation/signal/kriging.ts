/**
 * Place, speed and acceleration of a noisy path at one instant, when its jerk is anybody's guess: the path is
 * a parabola plus the threefold integral of white noise, whose strength the points themselves tell. Where
 * they tell little – a handful, or an instant at their end – the answer is as wide as that leaves it.
 *
 * Sources: smoothing splines as Bayesian estimates (Wahba, J. R. Statist. Soc. B 40, 1978), worked out as
 * kriging with a trend (Cressie, Statistics for Spatial Data, 3.4); the strength by restricted maximum
 * likelihood, averaged over what fits.
 */

import { endingOf, holdingHalf, STOP_SHARE, type Ending } from './stopping';

export interface Moving {
  /** For each list of values: place, speed, acceleration. */
  readonly values: readonly number[];
  readonly slopes: readonly number[];
  readonly curvatures: readonly number[];
  /** Standard deviation of each of them, the same for all lists. */
  readonly valueSigma: number;
  readonly slopeSigma: number;
  readonly curvatureSigma: number;
}

/**
 * What an end does at an instant: anything; be about as fast as it will be, so that its acceleration is little,
 * one standard deviation of it `SETTLED` of the mean speed ÷ rise; or that, unless it is just being stopped.
 */
export type Expected = 'anything' | 'full-speed' | 'full-speed-or-stop';

/** More points than these tell no more. */
const MOST = 16;
/** Strengths tried, as multiples of what a strike has that gathers its speed evenly. */
const STRENGTHS = [0.01, 0.15, 1.5, 15];
/** How unlike one strike is to the next: σ of the logarithm of the strength. */
const UNLIKE = 2;
/** See `Expected`. */
const SETTLED = 0.6;

/**
 * @param times seconds, ascending, two at least
 * @param series lists of values, one number a time each, all with the same σ
 * @param sigmas standard deviation of each value
 * @param hangs seconds over which the noise falls to 1/e of its likeness with itself
 * @param at seconds
 * @param rise seconds from rest to full speed, for a body that moves so
 * @param expected what is known of it there
 */
export function movingBy(
  times: readonly number[],
  series: readonly (readonly number[])[],
  sigmas: readonly number[],
  hangs: number,
  at: number,
  rise: number,
  expected: Expected = 'anything',
): Moving {
  const every = Math.ceil(times.length / MOST);
  const kept = times.flatMap((_, i) => ((times.length - 1 - i) % every === 0 ? [i] : []));
  const t = kept.map((i) => times[i]! - times[kept[0]!]!);
  const n = t.length;
  const noise = kept.map((i) => sigmas[i]!);
  const seen = series.map((values) => kept.map((i) => values[i]! - values[kept[0]!]!));
  const when = at - times[kept[0]!]!;
  const span = t[n - 1]!;
  // The mean speed, less what noise alone would give.
  const chord = Math.sqrt(
    Math.max(
      seen.reduce((sum, values) => sum + (values[n - 1]! / span) ** 2, 0),
      seen.length * (noise[0]! / span) ** 2,
    ),
  );
  // Of a speed that rises as 3u² − 2u³ within T: jerk squared is 12 (v/T²)² in the mean and keeps its sign
  // for half of T; the most acceleration is 1.5 v/T.
  const usual = 6 * (chord / rise ** 2) ** 2 * rise;
  const pull = (2 * chord) / rise;

  const likeness = likenessOf(t, noise, hangs, when, pull);
  const settled = (SETTLED * chord) / rise;
  const mayStop = expected === 'full-speed-or-stop';
  const end = expected === 'anything' ? null : endingOf(t, seen, when, chord, mayStop);
  const tried = STRENGTHS.flatMap((strength) => {
    const prior = -((Math.log(strength) / UNLIKE) ** 2) / 2;
    return kriged(t, seen, likeness, strength * usual, settled, end).map((one) => ({
      ...one,
      likelihood: one.likelihood + prior,
    }));
  });
  const weights = tried.map(({ likelihood }) => likelihood);
  const most = Math.max(...weights);
  const shares = weights.map((weight) => Math.exp(weight - most));
  const total = shares.reduce((sum, share) => sum + share, 0);
  const averaged = (of: 0 | 1 | 2) => {
    const means = seen.map((_, axis) =>
      tried.reduce((sum, one, k) => sum + (shares[k]! / total) * one.means[of]![axis]!, 0),
    );
    const variance = tried.reduce((sum, one, k) => {
      const apart = means.reduce((most, mean, axis) => {
        return Math.max(most, (one.means[of]![axis]! - mean) ** 2);
      }, 0);
      return sum + (shares[k]! / total) * (one.variances[of]! + apart);
    }, 0);
    return { means, sigma: Math.sqrt(variance) };
  };
  /** Of one direction alone, by the half of what holds it in 95 of 100 cases: a rare stop is no wide normal. */
  const rarely = (of: 0 | 1 | 2, means: readonly number[], along: readonly number[]) =>
    holdingHalf(
      tried.map((one, k) => ({
        share: shares[k]! / total,
        off: along.reduce(
          (sum, part, axis) => sum + part * (one.means[of]![axis]! - means[axis]!),
          0,
        ),
        sigma: Math.sqrt(one.variances[of]!),
      })),
    ) / 1.96;
  const [value, slope, curvature] = [averaged(0), averaged(1), averaged(2)];
  return {
    values: value.means.map((mean, axis) => mean + series[axis]![kept[0]!]!),
    slopes: slope.means,
    curvatures: curvature.means,
    valueSigma: value.sigma,
    slopeSigma: end && mayStop ? rarely(1, slope.means, end.along) : slope.sigma,
    curvatureSigma: curvature.sigma,
  };
}

interface Kriged {
  /** Of place, speed and acceleration, an entry a list. */
  readonly means: readonly (readonly number[])[];
  readonly variances: readonly number[];
  /** Logarithm, but for what is the same for all strengths. */
  readonly likelihood: number;
}

/** How everything goes with everything, in units of the strength and beside it; worked out once. */
interface Likeness {
  /** Lower triangle, row by row: what wanders, and what noise and the first acceleration add. */
  readonly wandering: Float64Array;
  readonly fixed: Float64Array;
  /** Of place, speed and acceleration at the instant that is asked for. */
  readonly asked: readonly AskedLikeness[];
}

interface AskedLikeness {
  readonly basis: readonly [number, number];
  readonly wandering: Float64Array;
  readonly fixed: Float64Array;
  readonly ownWandering: number;
  readonly ownFixed: number;
  /** The same with the acceleration. */
  readonly lastWandering: number;
  readonly lastFixed: number;
}

/** @param pull standard deviation of the acceleration at the first point */
function likenessOf(
  t: readonly number[],
  noise: readonly number[],
  hangs: number,
  a: number,
  pull: number,
): Likeness {
  const n = t.length;
  const [a2, pull2] = [a * a, pull * pull];
  const wandering = new Float64Array((n * (n + 1)) / 2);
  const fixed = new Float64Array((n * (n + 1)) / 2);
  const cross = [0, 1, 2].map(() => new Float64Array(n));
  const parabola = [0, 1, 2].map(() => new Float64Array(n));
  for (let i = 0, at = 0; i < n; i++) {
    const s = t[i]!;
    for (let j = 0; j <= i; j++, at++) {
      const u = t[j]!;
      wandering[at] = placeWith(s, u);
      const shared = i === j ? 1 : hangs > 0 ? Math.exp((u - s) / hangs) : 0;
      fixed[at] = noise[i]! * noise[j]! * shared + (pull2 * s * s * u * u) / 4;
    }
    const near = wanderingOf(a, s);
    for (let order = 0; order < 3; order++) {
      cross[order]![i] = near[order]!;
      parabola[order]![i] = (pull2 * s * s * [a2, 2 * a, 2][order]!) / 4;
    }
  }
  const order = (
    k: number,
    basis: readonly [number, number],
    [ownWandering, ownFixed]: readonly [number, number],
    [lastWandering, lastFixed]: readonly [number, number],
  ): AskedLikeness => ({
    basis,
    wandering: cross[k]!,
    fixed: parabola[k]!,
    ownWandering,
    ownFixed: pull2 * ownFixed,
    lastWandering,
    lastFixed: pull2 * lastFixed,
  });
  return {
    wandering,
    fixed,
    asked: [
      order(0, [1, a], [(a2 * a2 * a) / 20, (a2 * a2) / 4], [(a2 * a) / 6, a2 / 2]),
      order(1, [0, 1], [(a2 * a) / 3, a2], [a2 / 2, a]),
      order(2, [0, 0], [a, 1], [a, 1]),
    ],
  };
}

/** The first entry of `wanderingOf`. */
function placeWith(s: number, u: number): number {
  const m = Math.min(s, u);
  const d = Math.abs(s - u);
  return m * m * m * ((m * m) / 20 + (d * m) / 8 + (d * d) / 12);
}

/**
 * Covariance of the place at one instant, and of its speed and acceleration, with the place at another, for
 * the threefold integral of white noise from 0 on: ∫ (a − u)² (s − u)² / 4 du and its derivatives by a.
 */
function wanderingOf(a: number, s: number): readonly [number, number, number] {
  if (a >= s) {
    const [d, s2] = [a - s, s * s];
    const s3 = s2 * s;
    return [s3 * (s2 / 20 + (d * s) / 8 + (d * d) / 12), s3 * (s / 8 + d / 6), s3 / 6];
  }
  const [d, a2] = [s - a, a * a];
  return [
    a2 * a * (a2 / 20 + (d * a) / 8 + (d * d) / 12),
    a2 * (a2 / 8 + (d * a) / 3 + (d * d) / 4),
    a * (a2 / 6 + (d * a) / 2 + (d * d) / 2),
  ];
}

function kriged(
  t: readonly number[],
  seen: readonly (readonly number[])[],
  likeness: Likeness,
  strength: number,
  settled: number,
  end: Ending | null,
): Kriged[] {
  const n = t.length;
  const { wandering, fixed } = likeness;
  /** Cholesky's triangle, packed as those two. */
  const lower = new Float64Array(wandering.length);
  let logDeterminant = 0;
  for (let i = 0, row = 0; i < n; row += ++i) {
    for (let j = 0, other = 0; j <= i; other += ++j) {
      let sum = strength * wandering[row + j]! + fixed[row + j]!;
      for (let k = 0; k < j; k++) sum -= lower[row + k]! * lower[other + k]!;
      if (j < i) lower[row + j] = sum / lower[other + j]!;
      else {
        lower[row + i] = Math.sqrt(Math.max(sum, 1e-300));
        logDeterminant += Math.log(Math.max(sum, 1e-300));
      }
    }
  }
  const one = forward(lower, new Float64Array(n).fill(1));
  const line = forward(lower, new Float64Array(t));
  const [a, b, c] = [product(one, one), product(one, line), product(line, line)];
  const determinant = a * c - b * b;
  const trend = (p: number, q: number): readonly [number, number] => [
    (c * p - b * q) / determinant,
    (a * q - b * p) / determinant,
  ];
  const whitened = seen.map((values) => forward(lower, new Float64Array(values)));
  const fitted = whitened.map((own) => trend(product(one, own), product(line, own)));
  const rests = whitened.map((own, axis) => {
    const [p, q] = fitted[axis]!;
    const rest = new Float64Array(n);
    for (let i = 0; i < n; i++) rest[i] = own[i]! - p * one[i]! - q * line[i]!;
    return rest;
  });
  const misfit = rests.reduce((sum, rest) => sum + product(rest, rest), 0);
  const asked = likeness.asked.map(({ basis, wandering: wanders, fixed: stays, ...own }) => {
    const cross = new Float64Array(n);
    for (let i = 0; i < n; i++) cross[i] = strength * wanders[i]! + stays[i]!;
    forward(lower, cross);
    const left = [basis[0] - product(one, cross), basis[1] - product(line, cross)] as const;
    const means = rests.map(
      (rest, axis) =>
        basis[0] * fitted[axis]![0] + basis[1] * fitted[axis]![1] + product(cross, rest),
    );
    return { ...own, cross, left, means };
  });
  const last = asked[2]!;
  const [p, q] = trend(last.left[0], last.left[1]);
  const found = asked.map(({ cross, left, means, ...own }) => {
    const [r, s] = trend(left[0], left[1]);
    const prior = strength * own.ownWandering + own.ownFixed;
    return {
      means,
      variance: Math.max(0, prior - product(cross, cross) + left[0] * r + left[1] * s),
      withLast:
        strength * own.lastWandering +
        own.lastFixed -
        product(cross, last.cross) +
        left[0] * p +
        left[1] * q,
    };
  });
  const likelihood = -(seen.length * (logDeterminant + Math.log(determinant)) + misfit) / 2;
  const plain = {
    means: found.map(({ means }) => means),
    variances: found.map(({ variance }) => variance),
    likelihood,
  };
  if (!end) return [plain];
  // Of an acceleration of which nothing has been seen: what `settling` asks for has this likelihood by itself.
  const { ownWandering, ownFixed } = likeness.asked[2]!;
  const before = strength * ownWandering + ownFixed;
  const stopped = end.stops.map(({ behind, asked: later }) => {
    const w = forward(lower, behind.slice());
    const [u, v] = trend(product(one, w), product(line, w));
    for (let i = 0; i < n; i++) w[i] = w[i]! - u * one[i]! - v * line[i]!;
    const rest = rests.reduce((sum, own, axis) => sum + end.along[axis]! * product(w, own), 0);
    const known = product(w, w) + 1 / end.hard;
    const hard = rest / known;
    // What a way that is not stopped makes of it is in the estimate already.
    const moved = asked.map(({ cross }, k) => {
      const [first, second] = likeness.asked[k]!.basis;
      return later[k]! - product(cross, w) - first * u - second * v;
    });
    return {
      means: plain.means.map((means, k) =>
        means.map((mean, axis) => mean + moved[k]! * hard * end.along[axis]!),
      ),
      variances: plain.variances.map((variance, k) => variance + moved[k]! ** 2 / known),
      likelihood:
        likelihood -
        (seen.length * Math.log(before + settled ** 2)) / 2 +
        (rest * hard - Math.log(end.hard * known)) / 2 +
        Math.log(STOP_SHARE / end.stops.length),
    };
  });
  return [settling(found, settled, likelihood + Math.log(1 - STOP_SHARE)), ...stopped];
}

/** Solves a packed lower triangle, in place. */
function forward(lower: Float64Array, right: Float64Array): Float64Array {
  for (let i = 0, row = 0; i < right.length; row += ++i) {
    let sum = right[i]!;
    for (let k = 0; k < i; k++) sum -= lower[row + k]! * right[k]!;
    right[i] = sum / lower[row + i]!;
  }
  return right;
}

interface Asked {
  readonly means: readonly number[];
  readonly variance: number;
  /** Covariance with the acceleration. */
  readonly withLast: number;
}

/** What becomes of it where the acceleration is expected to be nothing, give or take `settled`. */
function settling(found: readonly Asked[], settled: number, likelihood: number): Kriged {
  const last = found[2]!;
  const whole = last.variance + settled ** 2;
  const off = last.means.reduce((sum, mean) => sum + mean ** 2, 0);
  return {
    means: found.map(({ means, withLast }) =>
      means.map((mean, axis) => mean - (withLast / whole) * last.means[axis]!),
    ),
    variances: found.map(({ variance, withLast }) => Math.max(0, variance - withLast ** 2 / whole)),
    likelihood: likelihood - (last.means.length * Math.log(whole) + off / whole) / 2,
  };
}

function product(a: Float64Array, b: Float64Array): number {
  let sum = 0;
  for (let k = 0; k < a.length; k++) sum += a[k]! * b[k]!;
  return sum;
}
