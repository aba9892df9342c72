/**
 * How a measure looks at a strike. A measure is a plain function from a `MeasureProbe` to a number; what it
 * looks at is noted, and its uncertainty follows by looking again with each of those things nudged
 * by its own σ. So no measure carries its own sum of errors, and none can forget a part of it.
 */
import {
  LANDMARKS,
  otherSide,
  sided,
  type Landmark,
  type SidedPart,
} from '../../foundation/body/landmarks';
import type { AnyEvent, EventMark } from '../events/events';
import { distance, midpoint, type Vector } from '../../foundation/geometry/vector';
import { AXES } from '../../reconstruct/calibration/calibration';
import { inSpace, type MovingPoint } from '../../reconstruct/motion/moving';
import { missing, type Where } from '../../reconstruct/motion/where';
import { frameSpacing } from '../../observe/track/track';
import { absent, isAbsent, type Absent } from '../../foundation/reading/reading';
import { lowerBound } from '../../foundation/signal/interpolate';
import { eventOf, type MeasureContext } from './context';
import { END, MASS, MotionSampler, type BodyPoint } from './motionSampler';

/** An instant tied to an event, so that it moves with the event; or found, and fixed. */
export interface Instant {
  /** The same for the same instant in every look of a measure. */
  readonly label: string;
  readonly event: AnyEvent | null;
  /** As measured, seconds. */
  readonly time: number;
  /** How much later it is in this look, seconds. */
  readonly shift: number;
}

/** One point seen at one instant, as a number: see `keyOf`. */
export type SeenKey = number;

/** Numbers that go by speeds, at an instant. */
export type Rates<Id extends string> = (probe: MeasureProbe, when: Instant) => Sum<Id>;
type Sum<Id extends string> = Readonly<Record<Id, number>>;

/** What is different in this look from what was measured. */
export interface Nudge {
  /** Added to what is seen under a key; one vector a key. */
  readonly seen?: (key: SeenKey, sigma: number) => Vector | null;
  /** Added to the time of an event, seconds. */
  readonly event?: (name: AnyEvent, sigma: number) => number;
  /** Lengths are multiplied by this. */
  readonly scale?: number;
}

/** SimulatedStrike inside a measure when something it needs is not there; caught where it is run. */
export class MissingInput extends Error {
  constructor(readonly why: Absent) {
    super(why.absent);
  }
}

const GUESSED = absent('A tracker guesses how a body stands in space, not how fast it goes there.');

/** From farther off its place than this a camera looks along lines that it should look square at, radians. */
const ASLANT = 0.35;

/** @throws MissingInput where the camera stands at a corner: `what` then points at it, or is mixed with what does */
export function requireSquare({ motion }: MeasureProbe, what: string, from: string): void {
  if (motion.aslant <= ASLANT) return;
  throw new MissingInput(absent(`Seen from a corner ${what} points at the camera; film ${from}.`));
}

/** What a first look saw under a key. */
interface Seen {
  /** As measured; null for a length, and where it was first seen at an instant that had been moved. */
  readonly value: Vector | null;
  readonly sigma: number;
  readonly axes: readonly number[];
}

/** What a first look noted. */
export interface ProbeTrace {
  readonly seen: Map<SeenKey, Seen>;
  /** Instants and lengths by number. */
  readonly labels: Map<string, number>;
  readonly events: Map<AnyEvent, EventMark>;
  readonly frames: Set<number>;
  /** Instants found by searching, and what else was worked out once; later looks take them as they are. */
  readonly found: Map<string, Instant>;
  readonly once: Map<string, unknown>;
}

export function emptyTrace(): ProbeTrace {
  return {
    seen: new Map(),
    labels: new Map(),
    events: new Map(),
    frames: new Set(),
    found: new Map(),
    once: new Map(),
  };
}

const THINGS: ReadonlyMap<BodyPoint, number> = new Map(
  [...LANDMARKS, END, MASS].map((point, i) => [point as BodyPoint, i]),
);
const NOTHING: Vector = [0, 0, 0];
/** A point's place, velocity and acceleration, its lasting error, and the length of a link, are seen apart. */
const KINDS = { at: 0, velocity: 1, acceleration: 2, length: 3, lean: 4 } as const;
const KIND_COUNT = Object.keys(KINDS).length;

export const isPlace = (key: SeenKey) => key % KIND_COUNT === KINDS.at;
export const isLean = (key: SeenKey) => key % KIND_COUNT === KINDS.lean;
/** The key of a point's velocity where its place has this one. */
export const velocityOf = (place: SeenKey): SeenKey => place + KINDS.velocity;

/** In place of an instant: of all of them. */
const LEAN = 'all along';
/**
 * Share of a tracker's lasting error that is the same half a second later, of its variance: 0.57 of all
 * landmarks together on the rendered films that are kept (held by demo/test/oneFilm.test.ts).
 */
const STAYS = 0.5;

/** With nothing to tell how fast the end moved: a limb's length in this time is fast, seconds. */
const FAST = 0.1;

/** Frames this far apart leave much of a strike between them, seconds; closer ones mostly noise. */
const FAR_APART = 0.012;

/** Longest part of a searched stretch that may go without a point, seconds. */
const LONGEST_UNSEEN = 0.05;

export class MeasureProbe {
  readonly motion;
  readonly strike;
  private readonly shown: MotionSampler;
  private readonly isFirst: boolean;

  constructor(
    readonly context: MeasureContext,
    private readonly trace: ProbeTrace,
    private readonly nudge: Nudge | null = null,
    /** Only looks for an instant: speeds are read off roughly. */
    private readonly isScout = false,
  ) {
    this.isFirst = nudge === null;
    this.motion = context.motion;
    this.shown = MotionSampler.of(context.motion, context.events.contact);
    this.strike = context.strike;
  }

  /** The striking side's part. */
  own(part: SidedPart): Landmark {
    return sided(this.motion.striking, part);
  }

  /** The other side's part. */
  off(part: SidedPart): Landmark {
    return sided(otherSide(this.motion.striking), part);
  }

  has(event: AnyEvent): boolean {
    return this.context.events[event] !== undefined;
  }

  /** @param offset seconds after the event (before it when negative) */
  event(name: AnyEvent, offset = 0): Instant {
    const mark = eventOf(this.context, name);
    if (isAbsent(mark)) throw new MissingInput(mark);
    this.trace.events.set(name, mark);
    return {
      label: offset === 0 ? name : `${name}${offset.toFixed(4)}`,
      event: name,
      time: mark.time + offset,
      shift: this.nudge?.event?.(name, mark.sigma) ?? 0,
    };
  }

  /** Seconds from one event to another. */
  span(from: AnyEvent, to: AnyEvent): number {
    const [a, b] = [this.event(from), this.event(to)];
    return b.time + b.shift - a.time - a.shift;
  }

  at(point: BodyPoint, when: Instant): Vector {
    const key = this.keyOf('at', point, when.label);
    const before = this.nudge && this.asBefore(key, when);
    if (before) return this.leaned(point, before);
    const found = this.shown.place(point, when.time);
    if (isAbsent(found)) throw new MissingInput(found);
    this.note(found.frames);
    const at = when.shift === 0 ? found.at : this.later(point, when, found.at);
    return this.leaned(point, this.seen(key, at, this.newly(point, found), when));
  }

  /**
   * Where a point is a little later (or earlier): on with the velocity it has. Contact lies anywhere up to the next
   * frame: where a point is farther on there than its velocity says, it counts as that fast.
   */
  private later(point: BodyPoint, when: Instant, at: readonly number[]): readonly number[] {
    const onward = this.onward(point, when, at);
    if (when.event !== 'contact' || when.shift <= 0) return onward;
    const { frameTimes } = this.motion;
    const spacing = frameSpacing(frameTimes, lowerBound(frameTimes, when.time - 1e-9));
    if (spacing < FAR_APART) return onward;
    const next = this.shown.place(point, when.time + spacing);
    if (isAbsent(next)) return onward;
    const seen = at.map((value, i) => value + ((next.at[i]! - value) / spacing) * when.shift);
    return distance(seen, at) > distance(onward, at) ? seen : onward;
  }

  private onward(point: BodyPoint, when: Instant, at: readonly number[]): readonly number[] {
    const moving = this.shown.roughly(point, when.time) ?? this.shown.moving(point, when.time);
    if (moving) return at.map((value, i) => value + moving.velocity[i]! * when.shift);
    const root = point === END && this.shown.place(this.root, when.time);
    if (!root || isAbsent(root)) return at;
    return at.map((value, i) => value + ((value - root.at[i]!) / FAST) * when.shift);
  }

  /** The joint on which the striking limb hangs. */
  private get root(): Landmark {
    return this.own(this.strike.technique.family === 'kick' ? 'Hip' : 'Shoulder');
  }

  /** Metres a second. */
  velocity(point: BodyPoint, when: Instant): Vector {
    const key = this.keyOf('velocity', point, when.label);
    const before = this.nudge && this.asBefore(key, when);
    if (before) return before;
    const found = this.moving(point, when);
    const { velocity, acceleration } = found;
    const then =
      when.shift === 0 ? velocity : velocity.map((v, i) => v + acceleration[i]! * when.shift);
    return this.seen(key, then, found.velocitySigma, when);
  }

  /** How far the curve that gave a velocity may itself be off, m/s. */
  velocityDoubt(point: BodyPoint, when: Instant): number {
    return this.moving(point, when).velocityDoubt;
  }

  /** Metres a second squared. */
  acceleration(point: BodyPoint, when: Instant): Vector {
    const found = this.moving(point, when);
    if (!Number.isFinite(found.accelerationSigma)) {
      throw new MissingInput(absent('Points on every frame around the peak are needed for this.'));
    }
    const key = this.keyOf('acceleration', point, when.label);
    return this.seen(key, found.acceleration, found.accelerationSigma, when);
  }

  /** Length of a link of the striking limb, metres (pixels without a scale). */
  linkLength(near: Landmark, far: BodyPoint): number {
    const found = this.shown.linkLength(near, far, this.event('contact').time);
    if (isAbsent(found)) throw new MissingInput(found);
    // A length belongs to the body, not to a moment: its frames are none to look at.
    const key = this.keyOf('length', far, near);
    if (!this.trace.seen.has(key))
      this.trace.seen.set(key, { value: null, sigma: found.sigma, axes: [0] });
    const by = this.nudge?.seen?.(key, found.sigma)?.[0] ?? 0;
    return found.length * (this.nudge?.scale ?? 1) + by;
  }

  middle(a: BodyPoint, b: BodyPoint, when: Instant): Vector {
    return midpoint(this.at(a, when), this.at(b, when));
  }

  /**
   * The instant at which something is largest, among the frames from one instant to another that
   * show it. Found on the first look; every later look takes the same instant.
   *
   * @param needs the landmark that decides which frames there are
   * @param longestUnseen a longer stretch without it may hide something larger, seconds
   */
  most(
    name: string,
    from: Instant,
    to: Instant,
    needs: BodyPoint,
    value: (probe: MeasureProbe, when: Instant) => number,
    longestUnseen = LONGEST_UNSEEN,
  ): Instant {
    const known = this.trace.found.get(name);
    if (known) return known;
    const scout = new MeasureProbe(this.context, emptyTrace(), null, true);
    const path = this.shown.path(needs);
    if (!path) throw this.lacks(needs, from.time);
    const times = path.times.slice(
      lowerBound(path.times, from.time - 1e-9),
      lowerBound(path.times, to.time + 1e-9),
    );
    const lacking: { time: number; error: MissingInput }[] = [];
    const seen = times.flatMap((time) => {
      const when: Instant = { label: `${name} ${time.toFixed(5)}`, event: null, time, shift: 0 };
      try {
        return [{ when, value: value(scout, when) }];
      } catch (error) {
        if (!(error instanceof MissingInput)) throw error;
        lacking.push({ time, error });
        return [];
      }
    });
    const stops = [from.time, ...seen.map(({ when }) => when.time), to.time];
    const unseen = longerThan(longestUnseen, stops);
    const [first] = seen;
    if (unseen || !first) {
      const [after, until] = unseen ?? [from.time, to.time];
      const why = lacking.find(({ time }) => time >= after && time <= until);
      throw why?.error ?? this.lacks(needs, (after + until) / 2);
    }
    const best = seen.reduce((most, one) => (one.value > most.value ? one : most), first);
    this.trace.found.set(name, best.when);
    return best.when;
  }

  /**
   * What several rates add up to from one instant to another, by the trapezoid rule over the frames between;
   * speeds are read off roughly, as the noise of single frames cancels in the sum.
   *
   * @param every this many frames are one step
   */
  integral<Id extends string>(from: Instant, to: Instant, rates: Rates<Id>, every = 1): Sum<Id> {
    const scout = new MeasureProbe(this.context, emptyTrace(), null, true);
    const { frameTimes } = this.motion;
    const first = lowerBound(frameTimes, from.time + 1e-9);
    const inside = frameTimes.slice(first, lowerBound(frameTimes, to.time - 1e-9));
    const times = [from.time, ...inside.filter((_, i) => (i + 1) % every === 0), to.time];
    const sum: Partial<Record<Id, number>> = {};
    times.forEach((time, i) => {
      const weight = ((times[i + 1] ?? time) - (times[i - 1] ?? time)) / 2;
      const found = rates(scout, { label: `${time}`, event: null, time, shift: 0 });
      for (const id of Object.keys(found) as Id[]) sum[id] = (sum[id] ?? 0) + weight * found[id]!;
    });
    return sum as Sum<Id>;
  }

  /** Something worked out from what was measured, whatever a later look has nudged. */
  once<T>(name: string, of: (measured: MeasureProbe) => T): T {
    const { once } = this.trace;
    if (!once.has(name)) once.set(name, of(new MeasureProbe(this.context, emptyTrace())));
    return once.get(name) as T;
  }

  /** Only a first look needs to remember on what it rests. */
  private note(frames: readonly number[]): void {
    if (this.isFirst) for (const frame of frames) this.trace.frames.add(frame);
  }

  private lacks(point: BodyPoint, time: number): MissingInput {
    return new MissingInput(missing(this.motion, this.shown.landmarkOf(point), time));
  }

  private moving(point: BodyPoint, when: Instant): MovingPoint {
    if (this.motion.source === 'estimated-3d') throw new MissingInput(GUESSED);
    const found =
      (this.isScout && this.shown.roughly(point, when.time)) || this.shown.moving(point, when.time);
    if (!found) throw this.lacks(point, when.time);
    this.note(found.frames);
    return found;
  }

  private keyOf(kind: keyof typeof KINDS, point: BodyPoint, label: string): SeenKey {
    if (this.isScout) return -1;
    const { labels } = this.trace;
    let index = labels.get(label);
    if (index === undefined) labels.set(label, (index = labels.size));
    return (index * THINGS.size + THINGS.get(point)!) * KIND_COUNT + KINDS[kind];
  }

  /**
   * A tracker's lasting error of a landmark is the same at every instant, but for a part that comes and goes:
   * between two instants the same part falls away. What is new at this one, one standard deviation.
   */
  private newly(point: BodyPoint, { sigma, bias }: Where): number {
    if (bias === 0 || this.isScout) return sigma;
    const key = this.keyOf('lean', point, LEAN);
    const { seen } = this.trace;
    if (!seen.has(key)) {
      const axes = this.motion.axes.map((axis) => AXES.indexOf(axis));
      seen.set(key, { value: null, sigma: bias * Math.sqrt(STAYS), axes });
    }
    const stays = Math.min(seen.get(key)!.sigma, bias * Math.sqrt(STAYS));
    return Math.sqrt(sigma ** 2 - stays ** 2);
  }

  private leaned(point: BodyPoint, at: Vector): Vector {
    if (!this.nudge?.seen || !this.shown.leans) return at;
    const key = this.keyOf('lean', point, LEAN);
    const known = this.trace.seen.get(key);
    const by = known && this.nudge.seen(key, known.sigma);
    return by ? [at[0]! + by[0]!, at[1]! + by[1]!, at[2]! + by[2]!] : at;
  }

  /** What the first look saw under a key, nudged: null for an instant that is moved. */
  private asBefore(key: SeenKey, when: Instant): Vector | null {
    const before = when.shift === 0 ? this.trace.seen.get(key) : undefined;
    return before?.value ? this.nudged(key, before.value, before.sigma) : null;
  }

  private seen(key: SeenKey, along: readonly number[], sigma: number, when: Instant): Vector {
    const { axes } = this.motion;
    const value = inSpace(axes, along);
    if (this.isScout) return value;
    if (!this.trace.seen.has(key)) {
      const own = axes.map((axis) => AXES.indexOf(axis));
      this.trace.seen.set(key, { value: when.shift === 0 ? value : null, sigma, axes: own });
    }
    return this.nudged(key, value, sigma);
  }

  private nudged(key: SeenKey, value: Vector, sigma: number): Vector {
    if (!this.nudge) return value;
    const by = this.nudge.seen?.(key, sigma) ?? null;
    const scale = this.nudge.scale ?? 1;
    if (!by && scale === 1) return value;
    const [x, y, z] = by ?? NOTHING;
    return [value[0]! * scale + x!, value[1]! * scale + y!, value[2]! * scale + z!];
  }
}

/** The first stretch between neighbouring stops that is longer than so many seconds. */
function longerThan(longest: number, stops: readonly number[]): [number, number] | null {
  const i = stops.findIndex((stop, k) => k > 0 && stop - stops[k - 1]! > longest);
  return i < 0 ? null : [stops[i - 1]!, stops[i]!];
}
