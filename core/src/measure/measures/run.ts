/** Runs measures: the reading with its σ, or the reason why there is none. */
import type { AnyEvent } from '../events/events';
import { AXES } from '../../reconstruct/calibration/calibration';
import type { Motion } from '../../reconstruct/motion/motion';
import {
  absent,
  isAbsent,
  reading,
  type Measured,
  type Unit,
} from '../../foundation/reading/reading';
import type { Technique } from '../../foundation/technique/techniques';
import { normals, seeded } from '../../foundation/uncertainty/random';
import { ownSize, type OwnPart } from './ownSize';
import { motionShowing, type MeasureContext, type Needs } from './context';
import {
  emptyTrace,
  isLean,
  isPlace,
  MissingInput,
  MeasureProbe,
  velocityOf,
  type Instant,
  type Nudge,
  type ProbeTrace,
  type Rates,
  type SeenKey,
} from './probe';

export interface Measure<Id extends string = string> {
  readonly id: Id;
  readonly name: string;
  readonly unit: Unit;
  /** What the view must show. */
  readonly needs: Needs;
  /** What is to be seen, for the sentence that says that a view cannot show it. */
  readonly shows: string;
  /** The film that would show it; what is usual for its needs when not given. */
  readonly advice?: string;
  /** Whether it is a length and so needs a scale. */
  readonly isMetric: boolean;
  /** Angles of a link in a single picture: the link may point a little out of it. */
  readonly isBend?: boolean;
  /** What a limit on it goes with: see `ownSize`. The same for everybody when missing. */
  readonly sizedBy?: OwnPart;
  /** Techniques that have this reading; all when not given. */
  readonly of?: (technique: Technique) => boolean;
  /** Of points as they were seen: what smooths them shoots beyond a limb that stops. */
  readonly asSeen?: boolean;
  /** Further doubt that no point carries: σ in the reading's unit, added in quadrature. */
  readonly doubt?: (probe: MeasureProbe, value: number) => number;
  readonly value: (probe: MeasureProbe) => number;
}

/** A strike without this reading. */
const NOT_APPLICABLE = {
  absent: 'This strike has no such reading.',
  isNotApplicable: true,
} as const;

const unsmoothed = new WeakMap<Motion, Motion>();

function asSeen({ motion, ...rest }: MeasureContext): MeasureContext {
  const known = unsmoothed.get(motion) ?? { ...motion, paths: motion.raw };
  unsmoothed.set(motion, known);
  return { ...rest, motion: known };
}

export function run(measure: Measure, given: MeasureContext): Measured {
  const context = measure.asSeen ? asSeen(given) : given;
  if (measure.of && !measure.of(context.strike.technique)) return NOT_APPLICABLE;
  const { needs, shows: name, advice } = measure;
  const motion = motionShowing(context, { needs, name, ...(advice && { advice }) });
  if (measure.needs !== 'any' && isAbsent(motion)) return motion;
  if (measure.isMetric && !context.motion.metric) {
    return absent('Set the scale from a known length.');
  }
  const found = runTogether(context, (probe) => ({ value: measure.value(probe) }));
  if (isAbsent(found)) return found;
  const { value, spread, trace, probe } = found;
  const isSeen = trace.seen.size > 0;
  const projected = isSeen ? outOfPlane(measure, context.motion, value.value) : 0;
  const doubt = measure.doubt?.(probe, value.value) ?? 0;
  const sigma = Math.hypot(spread.value, projected, doubt);
  if (1.96 * sigma > (ANYTHING[measure.unit] ?? Infinity)) {
    const mend = isSeen ? 'place its points by hand' : 'mark its instants yourself';
    return absent(`Too unsure to mean anything; ${mend}.`);
  }
  const made = reading(
    value.value,
    measure.unit,
    sigma,
    isSeen ? context.motion.source : sourceOf(trace),
    isSeen ? [...trace.frames] : [...trace.events.values()].map((mark) => mark.frame),
  );
  if (isAbsent(made) || !measure.sizedBy) return made;
  return { ...made, size: ownSize(context.motion, context.body, measure.sizedBy) };
}

function sourceOf({ events }: ProbeTrace) {
  const sources = [...events.values()].map((mark) => mark.source);
  return sources.includes('eye') ? 'eye' : (sources[0] ?? 'eye');
}

/** What may be off by this much may be any angle, any length on a body, or any share of it. */
const ANYTHING: Partial<Record<Unit, number>> = { rad: Math.PI / 2, m: 0.5, ratio: 1 };

/** A single picture shows links in projection: see `Motion.planeSigma`. */
function outOfPlane(
  { unit, isBend }: Measure,
  { planeSigma, aslant }: Motion,
  value: number,
): number {
  if (isBend) return planeSigma === 0 ? 0 : Math.hypot(TILTED, BENT_ASLANT * aslant);
  return unit === 'rad' || unit === 's' ? 0 : planeSigma * Math.abs(value);
}

/** A bend looked at from aside reads another: by so much of the angle it is looked at from. */
const BENT_ASLANT = 0.5;
/** A link that should lie in the picture points a little out of it; radians, on made-up hooks to the body. */
export const TILTED = 0.05;

interface Together<Id extends string> {
  readonly value: Readonly<Record<Id, number>>;
  /** One standard deviation of each. */
  readonly spread: Readonly<Record<Id, number>>;
  readonly trace: ProbeTrace;
  readonly probe: MeasureProbe;
}

/**
 * Several numbers that come out of one look, with the spread of each.
 *
 * To first order, σ² = Σ (∂f/∂x · σ_x)² over all that was looked at, the changes being those over ±σ
 * (ISO/IEC Guide 98-3, 5.1.2 and 5.1.3 note 2), squared before their mean is taken: a size near nothing
 * grows on both sides, and its slope says nothing. Or, when the context asks for draws, by Monte-Carlo
 * (ISO/IEC Guide 98-3 Supplement 1). Of an instant the side counts on which more changes: a limb gets
 * faster and then is stopped, and few frames lie between.
 */
export function runTogether<Id extends string>(
  context: MeasureContext,
  measure: (probe: MeasureProbe) => Readonly<Record<Id, number>>,
): Together<Id> | ReturnType<typeof absent> {
  const trace = emptyTrace();
  try {
    const probe = new MeasureProbe(context, trace);
    const value = measure(probe);
    const again = (nudge: Nudge) => measure(new MeasureProbe(context, trace, nudge));
    const spread = context.draws
      ? byDraws(again, value, trace, context)
      : toFirstOrder(again, value, trace, context);
    return { value, spread, trace, probe };
  } catch (error) {
    if (error instanceof MissingInput) return error.why;
    throw error;
  }
}

/** Where along the way it is looked at how much each point counts. */
const STOPS = 5;
/** Smoothed noise is as good as new after this, seconds: paths keep what goes up to some 20 Hz. */
const FORGETS = 0.025;

/**
 * What rates add up to from one instant to another, with the spread of each sum.
 *
 * Noise of a velocity is noise of places a moment apart. So it cancels in a sum but for both ends, and for what
 * a point comes to count more or less on the way: ∫ J ε̇ = [J ε] − ∫ J̇ ε, J = ∂rate/∂velocity at `STOPS`
 * instants. Noise of places themselves, and of both instants, counts with its own rate, what a tracker gets wrong
 * all along with the sum of it; the scale with the whole; and half the steps, which tells how much lies between
 * frames (Richardson's rule: a third of the difference). To first order, whether or not draws are asked for.
 */
export function runAlong<Id extends string>(
  context: MeasureContext,
  between: (probe: MeasureProbe) => readonly [Instant, Instant],
  rates: Rates<Id>,
): Together<Id> | ReturnType<typeof absent> {
  const trace = emptyTrace();
  try {
    const probe = new MeasureProbe(context, trace);
    const [from, to] = between(probe);
    const value = probe.integral(from, to, rates);
    const coarse = probe.integral(from, to, rates, 2);
    const ids = idsOf(value);
    const step = (to.time - from.time) / (STOPS - 1);
    const stops = Array.from({ length: STOPS }, (_, i) =>
      weights(context, rates, { ...from, time: from.time + i * step, event: null, shift: 0 }),
    );
    const fresh = Math.max(1, step / FORGETS);
    const variance = (id: Id) => {
      let sum =
        ((value[id] - coarse[id]) / 3) ** 2 +
        (context.motion.scaleSigma * value[id]) ** 2 +
        noiseOfEnds(id);
      stops[0]!.lean.forEach((_, k) => {
        const all = sumOver(stops, ({ lean }) => lean[k]?.[id] ?? 0);
        sum += (all * step * ((STOPS - 1) / STOPS)) ** 2;
      });
      stops.forEach((stop, i) => {
        sum += sumOver(stop.place, (place) => (step * place[id]) ** 2) / fresh;
        const before = stops[i - 1];
        if (!before) return;
        stop.velocity.forEach(
          (now, k) => (sum += (now[id] - before.velocity[k]![id]) ** 2 / fresh),
        );
      });
      return sum;
    };
    const noiseOfEnds = (id: Id) =>
      [stops[0]!, stops.at(-1)!].reduce((sum, stop, i) => {
        const { sigma } = trace.events.get((i === 0 ? from : to).event!)!;
        return sum + (sigma * stop.rates[id]) ** 2 + sumOver(stop.velocity, (one) => one[id] ** 2);
      }, 0);
    const spread = mapped(ids, (id) => Math.sqrt(variance(id)));
    for (const { frames } of stops) for (const frame of frames) trace.frames.add(frame);
    return { value, spread, trace, probe };
  } catch (error) {
    if (error instanceof MissingInput) return error.why;
    throw error;
  }
}

const sumOver = <T>(all: readonly T[], of: (one: T) => number) =>
  all.reduce((sum, one) => sum + of(one), 0);

/**
 * How rates at an instant change when one point's place, or velocity, is off by the σ of its place, and when the
 * point is off by what stays; axis by axis.
 */
function weights<Id extends string>(context: MeasureContext, rates: Rates<Id>, when: Instant) {
  const trace = emptyTrace();
  const { deep } = context.motion;
  const found = rates(new MeasureProbe(context, trace), when);
  const ids = idsOf(found);
  const by = (isAsked: (key: SeenKey) => boolean, keyOf: (key: SeenKey) => SeenKey) =>
    [...trace.seen]
      .filter(([key]) => isAsked(key))
      .flatMap(([place, { sigma, axes }]) =>
        axes.map((axis) => {
          const off = AXES.map((_, i) => (i === axis ? sigma * deep[i]! : 0));
          const seen = (key: SeenKey) => (key === keyOf(place) ? off : null);
          const nudged = safely(
            (n) => rates(new MeasureProbe(context, trace, n), when),
            { seen },
            found,
          );
          return mapped(ids, (id) => nudged[id] - found[id]);
        }),
      );
  const itself = (key: SeenKey) => key;
  return {
    rates: found,
    frames: trace.frames,
    place: by(isPlace, itself),
    velocity: by(isPlace, velocityOf),
    lean: by(isLean, itself),
  };
}

type Values<Id extends string> = Readonly<Record<Id, number>>;
type Again<Id extends string> = (nudge: Nudge) => Values<Id>;

function idsOf<Id extends string>(value: Values<Id>): Id[] {
  return Object.keys(value) as Id[];
}

function toFirstOrder<Id extends string>(
  again: Again<Id>,
  value: Values<Id>,
  trace: ProbeTrace,
  { motion }: MeasureContext,
): Values<Id> {
  const ids = idsOf(value);
  const variance = Object.fromEntries(ids.map((id) => [id, 0])) as Record<Id, number>;
  const add = (nudge: (sign: 1 | -1) => Nudge, of = acrossBoth) => {
    const [more, less] = [safely(again, nudge(1), value), safely(again, nudge(-1), value)];
    for (const id of ids) variance[id] += of(more[id] - value[id], value[id] - less[id]);
  };
  for (const [key, { sigma, axes }] of [...trace.seen]) {
    for (const axis of axes) {
      add((sign) => {
        const by = AXES.map((_, i) => (i === axis ? sign * sigma * motion.deep[i]! : 0));
        return { seen: (asked) => (asked === key ? by : null) };
      });
    }
  }
  for (const [name, { sigma }] of [...trace.events]) {
    const moved = (sign: number) => (asked: AnyEvent) => (asked === name ? sign * sigma : 0);
    add((sign) => ({ event: moved(sign) }), steeperSide);
  }
  if (motion.scaleSigma > 0) add((sign) => ({ scale: 1 + sign * motion.scaleSigma }));
  return mapped(ids, (id) => Math.sqrt(variance[id]));
}

/** Variance by the changes that one σ more and one σ less make: of a size, both may make it larger. */
const acrossBoth = (more: number, less: number) => (more ** 2 + less ** 2) / 2;
const steeperSide = (more: number, less: number) => Math.max(more ** 2, less ** 2);

function byDraws<Id extends string>(
  again: Again<Id>,
  value: Values<Id>,
  trace: ProbeTrace,
  { motion, draws }: MeasureContext,
): Values<Id> {
  const ids = idsOf(value);
  const deviate = normals(seeded(draws!.seed));
  const sum = Object.fromEntries(ids.map((id) => [id, 0])) as Record<Id, number>;
  for (let i = 0; i < draws!.count; i++) {
    const shaken = new Map<SeenKey, number[]>();
    const times = new Map<AnyEvent, number>();
    const drawn = safely(
      again,
      {
        seen: (key, sigma) => {
          const known = shaken.get(key);
          if (known) return known;
          const by = [0, 0, 0];
          for (const axis of trace.seen.get(key)?.axes ?? [])
            by[axis] = sigma * motion.deep[axis]! * deviate();
          shaken.set(key, by);
          return by;
        },
        event: (name, sigma) => {
          if (!times.has(name)) times.set(name, sigma * deviate());
          return times.get(name)!;
        },
        scale: 1 + motion.scaleSigma * deviate(),
      },
      value,
    );
    for (const id of ids) sum[id] += (drawn[id] - value[id]) ** 2;
  }
  return mapped(ids, (id) => Math.sqrt(sum[id] / draws!.count));
}

/** A nudged event may step off the end of what was filmed; what was measured stands then. */
function safely<Id extends string>(again: Again<Id>, nudge: Nudge, value: Values<Id>): Values<Id> {
  try {
    return again(nudge);
  } catch (error) {
    if (error instanceof MissingInput) return value;
    throw error;
  }
}

function mapped<Id extends string>(ids: readonly Id[], of: (id: Id) => number): Values<Id> {
  return Object.fromEntries(ids.map((id) => [id, of(id)])) as Record<Id, number>;
}
