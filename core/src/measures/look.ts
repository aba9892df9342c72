/**
 * How a measure looks at a strike. A measure is a plain function from a `Look` to a number; what it
 * looks at is noted, and its uncertainty follows by looking again with each of those things nudged
 * by its own σ. So no measure carries its own sum of errors, and none can forget a part of it.
 */
import { CENTRE_WEIGHTS } from '../body/centre';
import { LANDMARKS, otherSide, sided, type Landmark, type SidedPart } from '../body/landmarks';
import type { AnyEvent, EventMark } from '../events/events';
import { midpoint, type Vector } from '../geometry/vector';
import { linkLength, type LinkLength } from '../motion/linkLength';
import { AXES, type Motion, type Path } from '../motion/motion';
import { inSpace, movingAround, type MovingPoint } from '../motion/moving';
import { endLandmark, endPath, missing, where, whereOn, type Where } from '../motion/where';
import { absent, isAbsent, type Absent } from '../reading/reading';
import { lowerBound } from '../signal/interpolate';
import { eventOf, type MeasureContext } from './context';

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

/** One thing seen at one instant, as a number: see `keyOf`. */
export type SeenKey = number;

/** What is different in this look from what was measured. */
export interface Change {
  /** Added to what is seen under a key; one vector a key. */
  readonly seen?: (key: SeenKey, sigma: number) => Vector | null;
  /** Added to the time of an event, seconds. */
  readonly event?: (name: AnyEvent, sigma: number) => number;
  /** Lengths are multiplied by this. */
  readonly scale?: number;
}

/** Thrown inside a measure when something it needs is not there; caught where it is run. */
export class Lacking extends Error {
  constructor(readonly why: Absent) {
    super(why.absent);
  }
}

/** What a first look noted. */
export interface Notes {
  readonly seen: Map<SeenKey, { readonly sigma: number; readonly axes: readonly number[] }>;
  /** Instants and lengths by number. */
  readonly labels: Map<string, number>;
  readonly events: Map<AnyEvent, EventMark>;
  readonly frames: Set<number>;
  /** Instants found by searching; later looks take them as they are. */
  readonly found: Map<string, Instant>;
}

export function blankNotes(): Notes {
  return {
    seen: new Map(),
    labels: new Map(),
    events: new Map(),
    frames: new Set(),
    found: new Map(),
  };
}

/** What a motion shows is worked out once, however many measures and nudges look at it. */
interface Shown {
  readonly places: ByTime<Where | Absent>;
  readonly moving: ByTime<MovingPoint | null>;
  readonly lengths: Map<string, LinkLength>;
}
type ByTime<T> = Map<Thing, Map<number, T>>;
const shownBy = new WeakMap<Motion, Shown>();

function shownOf(motion: Motion): Shown {
  const known = shownBy.get(motion);
  if (known) return known;
  const fresh = { places: new Map(), moving: new Map(), lengths: new Map() };
  shownBy.set(motion, fresh);
  return fresh;
}

function cached<T>(all: ByTime<T>, thing: Thing, time: number, make: () => T): T {
  let own = all.get(thing);
  if (!own) all.set(thing, (own = new Map()));
  const known = own.get(time);
  if (known !== undefined) return known;
  const made = make();
  own.set(time, made);
  return made;
}

type Weighed<T> = readonly (readonly [number, T])[];

/** What the centre of mass is made of, each with its weight; or what is missing. */
function weighed<T extends object>(of: (landmark: Landmark) => T | Absent): Weighed<T> | Absent {
  const parts: [number, T][] = [];
  for (const [landmark, weight] of CENTRE_WEIGHTS) {
    const part = of(landmark);
    if (isAbsent(part)) return part;
    parts.push([weight, part as T]);
  }
  return parts;
}

function total<T>(parts: Weighed<T>, of: (one: T) => readonly number[]): number[] {
  const first = of(parts[0]![1]);
  return first.map((_, axis) =>
    parts.reduce((sum, [weight, one]) => sum + weight * of(one)[axis]!, 0),
  );
}

function spread<T>(parts: Weighed<T>, of: (one: T) => number): number {
  return Math.sqrt(parts.reduce((sum, [weight, one]) => sum + (weight * of(one)) ** 2, 0));
}

const END = 'end';
const MASS = 'mass';
/** A landmark, the striking end, or the centre of mass. */
export type Thing = Landmark | typeof END | typeof MASS;

const THINGS: ReadonlyMap<Thing, number> = new Map(
  [...LANDMARKS, END, MASS].map((thing, i) => [thing as Thing, i]),
);
const NOTHING: Vector = [0, 0, 0];
/** A thing's place, velocity and acceleration, and the length of a link, are seen apart. */
const KINDS = { at: 0, velocity: 1, acceleration: 2, length: 3 } as const;

/** With nothing to tell how fast the end moved: a limb's length in this time is fast, seconds. */
const FAST = 0.1;

/** Longest part of a searched stretch that may go without a point, seconds. */
const LONGEST_UNSEEN = 0.05;

export class Look {
  readonly motion;
  readonly strike;
  private readonly shown: Shown;
  private readonly isFirst: boolean;

  constructor(
    readonly context: MeasureContext,
    private readonly notes: Notes,
    private readonly change: Change | null = null,
  ) {
    this.isFirst = change === null;
    this.motion = context.motion;
    this.shown = shownOf(context.motion);
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
    if (isAbsent(mark)) throw new Lacking(mark);
    this.notes.events.set(name, mark);
    return {
      label: offset === 0 ? name : `${name}${offset.toFixed(4)}`,
      event: name,
      time: mark.time + offset,
      shift: this.change?.event?.(name, mark.sigma) ?? 0,
    };
  }

  /** Seconds from one event to another. */
  span(from: AnyEvent, to: AnyEvent): number {
    const [a, b] = [this.event(from), this.event(to)];
    return b.time + b.shift - a.time - a.shift;
  }

  at(thing: Thing, when: Instant): Vector {
    const found = this.place(thing, when);
    if (isAbsent(found)) throw new Lacking(found);
    this.note(found.frames);
    const at = when.shift === 0 ? found.at : this.later(thing, when, found.at);
    return this.nudged(this.keyOf('at', thing, when.label), at, found.sigma);
  }

  /** Where a thing is a little later (or earlier): on with the velocity it has. */
  private later(thing: Thing, when: Instant, at: readonly number[]): readonly number[] {
    const moving = this.movingIf(thing, when);
    if (moving) return at.map((value, i) => value + moving.velocity[i]! * when.shift);
    const root = thing === END && this.place(this.root, when);
    if (!root || isAbsent(root)) return at;
    return at.map((value, i) => value + ((value - root.at[i]!) / FAST) * when.shift);
  }

  /** The joint on which the striking limb hangs. */
  private get root(): Landmark {
    return this.own(this.strike.technique.family === 'kick' ? 'Hip' : 'Shoulder');
  }

  private place(thing: Thing, when: Instant): Where | Absent {
    return cached(this.shown.places, thing, when.time, () => {
      if (thing === END) {
        return whereOn(this.end(when), when.time, this.motion, endLandmark(this.motion));
      }
      if (thing !== MASS) return where(this.motion, thing, when.time);
      const parts = weighed((landmark) => this.place(landmark, when));
      return isAbsent(parts)
        ? parts
        : {
            at: total(parts, (one) => one.at),
            sigma: spread(parts, (one) => one.sigma),
            frames: parts[0]![1].frames,
          };
    });
  }

  /** Metres a second. */
  velocity(thing: Thing, when: Instant): Vector {
    const found = this.moving(thing, when);
    const { velocity, acceleration } = found;
    const then =
      when.shift === 0 ? velocity : velocity.map((v, i) => v + acceleration[i]! * when.shift);
    return this.nudged(this.keyOf('velocity', thing, when.label), then, found.velocitySigma);
  }

  /** How far the curve that gave a velocity may itself be off, m/s. */
  velocityDoubt(thing: Thing, when: Instant): number {
    return this.moving(thing, when).velocityDoubt;
  }

  /** Metres a second squared. */
  acceleration(thing: Thing, when: Instant): Vector {
    const found = this.moving(thing, when);
    if (!Number.isFinite(found.accelerationSigma)) {
      throw new Lacking(absent('Points on every frame around the peak are needed for this.'));
    }
    return this.nudged(
      this.keyOf('acceleration', thing, when.label),
      found.acceleration,
      found.accelerationSigma,
    );
  }

  /** Length of a link of the striking limb, metres (pixels without a scale). */
  linkLength(near: Landmark, far: Thing): number {
    const when = this.event('contact');
    const name = `${near} ${far}`;
    const known = this.shown.lengths.get(name);
    const found =
      known ??
      linkLength(
        this.motion,
        this.path(near, when),
        far === END ? this.end(when) : this.path(this.landmark(far), when),
      );
    if (found && !known) this.shown.lengths.set(name, found);
    if (!found) throw new Lacking(missing(this.motion, this.landmark(far), when.time));
    this.note(found.frames);
    const key = this.keyOf('length', far, near);
    if (!this.notes.seen.has(key)) this.notes.seen.set(key, { sigma: found.sigma, axes: [0] });
    const by = this.change?.seen?.(key, found.sigma)?.[0] ?? 0;
    return found.length * (this.change?.scale ?? 1) + by;
  }

  middle(a: Thing, b: Thing, when: Instant): Vector {
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
    needs: Thing,
    value: (look: Look, when: Instant) => number,
    longestUnseen = LONGEST_UNSEEN,
  ): Instant {
    const known = this.notes.found.get(name);
    if (known) return known;
    const scout = new Look(this.context, blankNotes());
    const path = needs === END ? this.end(from) : this.path(this.landmark(needs), from);
    const times = path.times.slice(
      lowerBound(path.times, from.time - 1e-9),
      lowerBound(path.times, to.time + 1e-9),
    );
    this.requireSeen([from.time, ...times, to.time], needs, longestUnseen);
    let best: { when: Instant; value: number } | null = null;
    for (const time of times) {
      const when: Instant = { label: `${name} ${time.toFixed(5)}`, event: null, time, shift: 0 };
      try {
        const found = value(scout, when);
        if (best === null || found > best.value) best = { when, value: found };
      } catch (error) {
        if (!(error instanceof Lacking)) throw error;
      }
    }
    if (best === null) throw new Lacking(missing(this.motion, this.landmark(needs), from.time));
    this.notes.found.set(name, best.when);
    return best.when;
  }

  private requireSeen(stops: readonly number[], needs: Thing, longest: number): void {
    for (let i = 1; i < stops.length; i++) {
      if (stops[i]! - stops[i - 1]! > longest) {
        const middle = (stops[i]! + stops[i - 1]!) / 2;
        throw new Lacking(missing(this.motion, this.landmark(needs), middle));
      }
    }
  }

  /** Only a first look needs to remember on what it rests. */
  private note(frames: readonly number[]): void {
    if (this.isFirst) for (const frame of frames) this.notes.frames.add(frame);
  }

  private landmark(thing: Thing): Landmark {
    if (thing === END) return endLandmark(this.motion);
    return thing === MASS ? 'leftHip' : thing;
  }

  private path(landmark: Landmark, when: Instant): Path {
    const path = this.motion.paths[landmark];
    if (!path) throw new Lacking(missing(this.motion, landmark, when.time));
    return path;
  }

  private end(when: Instant): Path {
    const path = endPath(this.motion);
    if (!path) throw new Lacking(missing(this.motion, endLandmark(this.motion), when.time));
    return path;
  }

  private moving(thing: Thing, when: Instant): MovingPoint {
    const found = this.movingIf(thing, when);
    if (!found) throw new Lacking(missing(this.motion, this.landmark(thing), when.time));
    this.note(found.frames);
    return found;
  }

  private movingIf(thing: Thing, when: Instant): MovingPoint | null {
    const wall = this.context.events.contact?.time ?? Infinity;
    return cached(this.shown.moving, thing, when.time, () => this.moves(thing, when, wall));
  }

  private moves(thing: Thing, when: Instant, wall: number): MovingPoint | null {
    if (thing !== MASS) {
      const path = thing === END ? endPath(this.motion, 'raw') : this.motion.raw[thing];
      return path ? movingAround(path, when.time, wall) : null;
    }
    const parts = weighed((landmark): MovingPoint | Absent => this.moving(landmark, when));
    if (isAbsent(parts)) return null;
    return {
      at: total(parts, (one) => one.at),
      velocity: total(parts, (one) => one.velocity),
      acceleration: total(parts, (one) => one.acceleration),
      velocitySigma: spread(parts, (one) => one.velocitySigma),
      velocityDoubt: Math.max(...parts.map(([, one]) => one.velocityDoubt)),
      accelerationSigma: spread(parts, (one) => one.accelerationSigma),
      frames: parts[0]![1].frames,
    };
  }

  private keyOf(kind: keyof typeof KINDS, thing: Thing, label: string): SeenKey {
    const { labels } = this.notes;
    let index = labels.get(label);
    if (index === undefined) labels.set(label, (index = labels.size));
    return (index * THINGS.size + THINGS.get(thing)!) * 4 + KINDS[kind];
  }

  private nudged(key: SeenKey, seen: readonly number[], sigma: number): Vector {
    const { axes } = this.motion;
    if (!this.notes.seen.has(key)) {
      this.notes.seen.set(key, { sigma, axes: axes.map((axis) => AXES.indexOf(axis)) });
    }
    const full = inSpace(axes, seen);
    if (!this.change) return full;
    const scale = this.change.scale ?? 1;
    const by = this.change.seen?.(key, sigma) ?? NOTHING;
    return [full[0]! * scale + by[0]!, full[1]! * scale + by[1]!, full[2]! * scale + by[2]!];
  }
}
