/**
 * When a link starts, as a change point: at rest, or turning back, until some instant, and from then on ever
 * faster. The start itself is where its speed passes a tenth of the peak. How a body gathers speed is its
 * own, so a family of rises is held against the points, each counting as much as it fits; how far they
 * differ is part of the doubt.
 *
 * Sources: Bayesian model averaging (Hoeting et al., Statistical Science 14, 1999), the linear part of each
 * rise integrated out; noise that hangs together whitened (Prais & Winsten 1954).
 */
import { keptOver } from '../../foundation/signal/noise';

/** Powers of time with which a speed may grow from the change point on. */
const POWERS = [0.8, 1.3, 2, 3];
/**
 * What goes before the change point: nothing; a creep, as the link is carried by the one before it; or a turn
 * back that is over so many seconds before it, or not quite.
 */
const BEFORE = [null, 'creep', -0.025, 0, 0.025, 0.06, 0.12] as const;
/** Standard deviations, as shares of the peak speed, of what is expected before anything is seen: */
const EXPECTED = {
  /** a body's drift at rest, */
  drift: 0.03,
  /** how far the speed at the last point is off what was measured there, */
  reached: 0.1,
  /** how fast a turn back is, */
  back: 0.5,
  /** and how fast a creep. */
  creep: 0.05,
} as const;
/**
 * How far the shapes of bodies stray from these, as a share of the time from the start to well under way; on
 * three families of made-up bodies (docs/accuracy.md).
 */
const SHAPE = 0.035;
/** Change points tried at first, and again where they fit. */
const COARSE = 12;
const FINE = 8;
/** What has counted less than this at first is not tried again. */
const HARDLY = 0.001;
/** Points beyond these tell no more. */
const MOST = 96;
const SHARE_OF_PEAK = 0.1;
/** Seconds over which a slope is taken. */
const INSTANT = 1e-4;
/** The start is sought to a thousandth of the rise. */
const HALVINGS = 10;
/** Rest, drift, growth, and what went before. */
const MOST_COLUMNS = 4;

export interface Rise {
  /** Seconds, ascending: from rest, or from where a turn back is fastest, to well under way. */
  readonly times: readonly number[];
  readonly values: readonly number[];
  /** Standard deviation of a value. */
  readonly sigma: number;
  /** Seconds over which the noise falls to 1/e of its likeness with itself. */
  readonly hangs: number;
  /** The link's peak speed, and its speed at the last point, a second. */
  readonly peak: number;
  readonly reached: number;
  /** Standard deviation of both from noise. */
  readonly speedSigma: number;
  /** Between which instants the change point is looked for, seconds. */
  readonly from: number;
  readonly to: number;
}

export interface ChangePoint {
  /** Seconds. */
  readonly time: number;
  /** Standard deviation, seconds: of noise, and of what other ways of gathering speed would give. */
  readonly sigma: number;
}

/** @returns null when no rise can be held against so few points, or none fits */
export function changePoint(rise: Rise): ChangePoint | null {
  const held = new Held(rise);
  if (held.count < 6 || !(rise.to > rise.from)) return null;
  const first = held.averaged(rise.from, rise.to, COARSE, KINDS);
  if (!first) return null;
  // Again around where it fits, so close together that steps are less than what remains in doubt.
  const reach = Math.max(4 * first.spread, (rise.to - rise.from) / COARSE);
  return held.averaged(
    Math.max(rise.from, first.at - reach),
    Math.min(rise.to, first.at + reach),
    FINE,
    KINDS.filter((kind) => (first.counts.get(kind) ?? 0) > HARDLY),
  );
}

/** A way of rising, and what goes before it. */
interface Kind {
  readonly power: number;
  readonly before: (typeof BEFORE)[number];
}

const KINDS: readonly Kind[] = BEFORE.flatMap((before) =>
  POWERS.map((power) => ({ power, before })),
);

interface Averaged extends ChangePoint {
  /** The change point, and how far apart those are that fit; seconds. */
  readonly at: number;
  readonly spread: number;
  /** How much each kind counts, of 1. */
  readonly counts: ReadonlyMap<Kind, number>;
}

/** A whitened column, and its products with those of rest and drift, with what was seen, and with itself. */
interface Column {
  readonly rows: Float64Array;
  readonly rest: number;
  readonly drift: number;
  readonly seen: number;
  readonly own: number;
}

/** What goes before a change point. */
interface Before extends Column {
  readonly prior: number;
  /** Whether its coefficient can only be positive. */
  readonly isForward: boolean;
  /** Its speed at a time, for a coefficient of 1. */
  readonly speed: (time: number) => number;
  /** The same from the change point on, where it stays what it is. */
  readonly after: number | null;
}

/** One rise as it fits. */
interface Fitted {
  readonly kind: Kind;
  /** χ². */
  readonly misfit: number;
  /** Logarithm of how much of what was expected fits as well. */
  readonly volume: number;
  /** Seconds, and seconds². */
  readonly start: number;
  readonly variance: number;
  /** The change point, seconds. */
  readonly at: number;
}

/** What rises are held against, worked out once. */
class Held {
  readonly count: number;
  private readonly times: Float64Array;
  private readonly keeps: Float64Array;
  private readonly scale: Float64Array;
  private readonly seen: Float64Array;
  private readonly rest: Float64Array;
  private readonly drift: Float64Array;
  private readonly fixed: Readonly<Record<'rest' | 'drift', Column>>;
  private readonly seenOwn: number;
  private readonly priors: readonly number[];
  private readonly solver = new Solver();
  private readonly begins: number;
  private readonly ends: number;

  constructor(private readonly rise: Rise) {
    const every = Math.ceil(rise.times.length / MOST);
    const picked = rise.times.flatMap((_, i) =>
      (rise.times.length - 1 - i) % every === 0 ? [i] : [],
    );
    const n = picked.length;
    this.count = n;
    this.times = Float64Array.from(picked, (i) => rise.times[i]!);
    this.begins = this.times[0]!;
    this.ends = this.times[n - 1]!;
    this.keeps = Float64Array.from(picked, (_, k) =>
      k === 0 ? 0 : keptOver(this.times[k]! - this.times[k - 1]!, rise.hangs),
    );
    this.scale = this.keeps.map((keeps) => 1 / (rise.sigma * Math.sqrt(1 - keeps ** 2)));
    const base = rise.values[picked[0]!]!;
    this.seen = this.whitened(Float64Array.from(picked, (i) => rise.values[i]! - base));
    this.seenOwn = product(this.seen, this.seen);
    this.rest = this.whitened(new Float64Array(n).fill(1));
    this.drift = this.whitened(this.times.map((time) => time - this.ends));
    this.fixed = { rest: this.column(this.rest), drift: this.column(this.drift) };
    const { drift, reached } = EXPECTED;
    const off = Math.hypot(reached, rise.speedSigma / rise.peak);
    this.priors = [0, this.prior(drift), this.prior(off)];
  }

  /** Each row loses what the one before it tells of it. In place. */
  private whitened(rows: Float64Array): Float64Array {
    for (let i = rows.length - 1; i > 0; i--) {
      rows[i] = (rows[i]! - this.keeps[i]! * rows[i - 1]!) * this.scale[i]!;
    }
    rows[0]! *= this.scale[0]!;
    return rows;
  }

  private column(rows: Float64Array): Column {
    return {
      rows,
      rest: product(rows, this.rest),
      drift: product(rows, this.drift),
      seen: product(rows, this.seen),
      own: product(rows, rows),
    };
  }

  /** A speed that creeps up until an instant and stays; its coefficient is what it comes to. */
  private creep(until: number): Before | null {
    const lasts = until - this.begins;
    if (!(lasts > 1.5 * (this.times[1]! - this.begins))) return null;
    const rows = this.times.map((time) => {
      const gone = Math.min(lasts, time - this.begins);
      return (gone * gone) / (2 * lasts) + Math.max(0, time - until);
    });
    return {
      ...this.column(this.whitened(rows)),
      prior: this.prior(EXPECTED.creep),
      isForward: false,
      speed: (time) => Math.min(1, (time - this.begins) / lasts),
      after: 1,
    };
  }

  /** A speed that grows from an instant on; its coefficient is what it is at the last point. */
  private grown(at: number, power: number): Column {
    const lasts = this.ends - at;
    const rows = this.times.map((time) => {
      const share = (time - at) / lasts;
      return share <= 0 ? 0 : (share ** (power + 1) * lasts) / (power + 1);
    });
    return this.column(this.whitened(rows));
  }

  /** A turn back that slows evenly until an instant; its coefficient is its speed at the first point. */
  private turnBack(until: number, at: number): Before | null {
    const lasts = until - this.begins;
    if (!(lasts > 1.5 * (this.times[1]! - this.begins))) return null;
    const rows = this.times.map((time) => Math.max(0, until - time) ** 2 / (2 * lasts));
    return {
      ...this.column(this.whitened(rows)),
      prior: this.prior(EXPECTED.back),
      isForward: true,
      speed: (time) => -Math.max(0, until - time) / lasts,
      after: until <= at ? 0 : null,
    };
  }

  /** Weight of an expectation, by its standard deviation as a share of the peak speed. */
  private prior(share: number): number {
    return 1 / (share * this.rise.peak) ** 2;
  }

  /** Mean and spread of the start over rises of some kinds that begin between two instants, each as it fits. */
  averaged(from: number, to: number, steps: number, kinds: readonly Kind[]): Averaged | null {
    const found: Fitted[] = [];
    for (let k = 0; k <= steps; k++) {
      const at = from + (k / steps) * (to - from);
      const grown = new Map<number, Column>();
      const before = new Map<Kind['before'], Before | null>();
      for (const kind of kinds) {
        const rises = kept(grown, kind.power, () => this.grown(at, kind.power));
        const earlier = kept(before, kind.before, () => this.before(kind.before, at));
        if (kind.before !== null && !earlier) continue;
        const one = this.fit(at, kind, rises, earlier);
        if (one) found.push(one);
      }
    }
    if (found.length === 0) return null;
    const least = found.reduce((low, { misfit }) => Math.min(low, misfit), Infinity);
    // Where even the best does not fit, the noise is larger than it was read.
    const loose = Math.max(1, least / Math.max(1, this.count - 5));
    let [total, time, square, at, atSquare] = [0, 0, 0, 0, 0];
    const weights = new Map<Kind, number>();
    for (const one of found) {
      const weight = Math.exp(-(one.misfit - least) / (2 * loose) + one.volume);
      weights.set(one.kind, (weights.get(one.kind) ?? 0) + weight);
      total += weight;
      time += weight * one.start;
      square += weight * (one.start ** 2 + loose * one.variance);
      at += weight * one.at;
      atSquare += weight * one.at ** 2;
    }
    [time, at] = [time / total, at / total];
    return {
      time,
      sigma: Math.hypot(
        Math.sqrt(Math.max(0, square / total - time ** 2)),
        SHAPE * (this.ends - time),
      ),
      at,
      spread: Math.sqrt(Math.max(0, atSquare / total - at ** 2)),
      counts: new Map([...weights].map(([kind, weight]) => [kind, weight / total])),
    };
  }

  private before(kind: Kind['before'], at: number): Before | null {
    if (kind === null) return null;
    return kind === 'creep' ? this.creep(at) : this.turnBack(at - kind, at);
  }

  private fit(at: number, kind: Kind, grown: Column, before: Before | null): Fitted | null {
    const { rise, solver, ends, priors } = this;
    const { power } = kind;
    const { rest, drift } = this.fixed;
    solver.begin();
    solver.row(rest.seen, rest.own);
    solver.row(drift.seen, rest.drift, drift.own + priors[1]!);
    solver.row(
      grown.seen + priors[2]! * rise.reached,
      grown.rest,
      grown.drift,
      grown.own + priors[2]!,
    );
    if (before) {
      const shared = product(before.rows, grown.rows);
      solver.row(before.seen, before.rest, before.drift, shared, before.own + before.prior);
    }
    const explained = solver.solve();
    if (explained === null) return null;
    const [, slow, growth] = solver.coefficients as unknown as [number, number, number];
    const other = before ? solver.coefficients[3]! : 0;
    if (!(growth > 0) || (before?.isForward && other < 0)) return null;
    const lasts = ends - at;
    const level = SHARE_OF_PEAK * rise.peak;
    // What is above the level without the growth.
    const above = (time: number) => slow + (before ? other * before.speed(time) : 0) - level;
    if (!(above(ends) + growth > 0) || above(at) > 0) return null;
    const after = before ? before.after : 0;
    let share = 0;
    if (after !== null) share = (Math.max(0, level - slow - other * after) / growth) ** (1 / power);
    else {
      let high = 1;
      for (let i = 0; i < HALVINGS; i++) {
        const middle = (share + high) / 2;
        if (above(at + middle * lasts) + growth * middle ** power < 0) share = middle;
        else high = middle;
      }
    }
    share = Math.max(1e-9, share);
    const start = at + share * lasts;
    const grows = share ** power;
    const alters =
      after === null ? (above(start + INSTANT) - above(start - INSTANT)) / (2 * INSTANT) : 0;
    const steep = (growth * power * grows) / (share * lasts) + alters;
    if (!(steep > 0)) return null;
    // How the start moves with rest, drift, growth and what went before.
    const gradient = [0, -1 / steep, -grows / steep, -(before?.speed(start) ?? 0) / steep];
    return {
      kind,
      misfit: this.seenOwn + priors[2]! * rise.reached ** 2 - explained,
      volume: -solver.logDeterminant / 2 + (before ? Math.log(before.prior) / 2 : 0),
      start,
      variance: solver.variance(gradient),
      at,
    };
  }
}

/** A few normal equations by Cholesky; what comes of them stands until the next ones. */
class Solver {
  readonly coefficients = new Float64Array(MOST_COLUMNS);
  logDeterminant = 0;
  private count = 0;
  private readonly lower = new Float64Array(MOST_COLUMNS ** 2);
  private readonly right = new Float64Array(MOST_COLUMNS);
  private readonly half = new Float64Array(MOST_COLUMNS);

  begin(): void {
    this.count = 0;
  }

  /** One more equation: its right side, and its row of the lower triangle; what is beyond it is not looked at. */
  row(right: number, a: number, b = 0, c = 0, d = 0): void {
    const { lower, count } = this;
    const at = count * MOST_COLUMNS;
    lower[at] = a;
    lower[at + 1] = b;
    lower[at + 2] = c;
    lower[at + 3] = d;
    this.right[count] = right;
    this.count += 1;
  }

  /** @returns the part of χ² that is explained; null where the columns tell nothing apart */
  solve(): number | null {
    const { lower, half, coefficients: x, count } = this;
    this.logDeterminant = 0;
    for (let i = 0, row = 0; i < count; i++, row += MOST_COLUMNS) {
      for (let j = 0, other = 0; j <= i; j++, other += MOST_COLUMNS) {
        let sum = lower[row + j]!;
        const whole = sum;
        for (let k = 0; k < j; k++) sum -= lower[row + k]! * lower[other + k]!;
        if (i !== j) lower[row + j] = sum / lower[other + j]!;
        else if (sum > 1e-12 * whole) {
          lower[row + j] = Math.sqrt(sum);
          this.logDeterminant += Math.log(sum);
        } else return null;
      }
    }
    const explained = this.forward(this.right);
    for (let i = count - 1; i >= 0; i--) {
      let sum = half[i]!;
      for (let k = i + 1; k < count; k++) sum -= lower[k * MOST_COLUMNS + i]! * x[k]!;
      x[i] = sum / lower[i * MOST_COLUMNS + i]!;
    }
    return explained;
  }

  /** Into `half`; its square. */
  private forward(right: ArrayLike<number>): number {
    const { lower, half, count } = this;
    let square = 0;
    for (let i = 0, row = 0; i < count; i++, row += MOST_COLUMNS) {
      let sum = right[i]!;
      for (let k = 0; k < i; k++) sum -= lower[row + k]! * half[k]!;
      half[i] = sum / lower[row + i]!;
      square += half[i]! ** 2;
    }
    return square;
  }

  /** Variance of a weighted sum of the coefficients. */
  variance(weights: readonly number[]): number {
    return this.forward(weights);
  }
}

/** What stands under a key; made when nothing does. */
function kept<Key, Value>(all: Map<Key, Value>, key: Key, make: () => Value): Value {
  const known = all.get(key);
  if (known !== undefined) return known;
  const made = make();
  all.set(key, made);
  return made;
}

function product(a: Float64Array, b: Float64Array): number {
  let sum = 0;
  for (let i = 0; i < a.length; i++) sum += a[i]! * b[i]!;
  return sum;
}
