/** What a motion shows of a point at a time, worked out once however many measures ask. */
import { CENTRE_WEIGHTS } from '../../foundation/body/centre';
import type { Landmark } from '../../foundation/body/landmarks';
import type { EventMark } from '../events/events';
import { linkLength, type LinkLength } from '../../reconstruct/motion/linkLength';
import type { Motion, Path } from '../../reconstruct/motion/motion';
import { isDense } from '../../reconstruct/motion/prepare';
import {
  movingAround,
  movingAtMark,
  roughlyMoving,
  type MovingPoint,
} from '../../reconstruct/motion/moving';
import {
  endLandmark,
  endPath,
  missing,
  where,
  whereOn,
  type Where,
} from '../../reconstruct/motion/where';
import { isAbsent, type Absent } from '../../foundation/reading/reading';

export const END = 'end';
export const MASS = 'mass';
/** A landmark, the striking end, or the centre of mass. */
export type BodyPoint = Landmark | typeof END | typeof MASS;

/**
 * A mark that comes after contact by less than this has no stop in it that tells, seconds: tried at 60 to 240 a
 * second on strikes of another generator.
 */
const LATE = 0.006;

/**
 * How much later than contact itself a frame may be on which somebody has marked it, seconds. A leg at its full
 * length slows down by itself: of it the frame before tells less than one that is late.
 */
function lateBy({ frameTimes, end }: Motion, mark: EventMark | undefined): number {
  const isOnFrame = mark?.source === 'eye' && frameTimes[mark.frame] === mark.time;
  const late = isOnFrame && (end === 'fist' || end === 'elbow') ? Math.sqrt(3) * mark.sigma : 0;
  return late > LATE ? late : 0;
}

/** By motion, then by the time of its contact, across which no velocity looks. */
const known = new WeakMap<Motion, Map<number, MotionSampler>>();

export class MotionSampler {
  private readonly places = new Map<BodyPoint, Map<number, Where | Absent>>();
  private readonly velocities = new Map<BodyPoint, Map<number, MovingPoint | null>>();
  private readonly rough = new Map<BodyPoint, Map<number, MovingPoint | null>>();
  private massPath: Path | null | undefined;
  /** Whether any point has an error that stays from frame to frame. */
  readonly leans: boolean;
  private readonly lengths = new Map<string, LinkLength | Absent>();

  private constructor(
    private readonly motion: Motion,
    private readonly contact: number,
    private readonly late: number,
  ) {
    this.leans = Object.values(motion.raw).some(({ bias }) => bias.some((one) => one > 0));
  }

  static of(motion: Motion, mark: EventMark | undefined): MotionSampler {
    const own = known.get(motion) ?? new Map<number, MotionSampler>();
    known.set(motion, own);
    const contact = mark?.time ?? Infinity;
    const shown = own.get(contact) ?? new MotionSampler(motion, contact, lateBy(motion, mark));
    own.set(contact, shown);
    return shown;
  }

  /** The landmark to ask for when a point is not shown. */
  landmarkOf(point: BodyPoint): Landmark {
    if (point === END) return endLandmark(this.motion);
    return point === MASS ? 'leftHip' : point;
  }

  path(point: BodyPoint): Path | null {
    if (point === END) return endPath(this.motion);
    return this.motion.paths[this.landmarkOf(point)] ?? null;
  }

  place(point: BodyPoint, time: number): Where | Absent {
    return cached(this.places, point, time, () => {
      if (point === MASS) return this.centre(time);
      if (point !== END) return where(this.motion, point, time);
      const path = endPath(this.motion);
      const landmark = endLandmark(this.motion);
      return path
        ? whereOn(path, time, this.motion, landmark)
        : missing(this.motion, landmark, time);
    });
  }

  /** Null when there are too few points around. */
  moving(point: BodyPoint, time: number): MovingPoint | null {
    return cached(this.velocities, point, time, () => {
      if (point === MASS) {
        const path = this.centrePath();
        return path
          ? movingAround(path, time, this.contact)
          : this.centreMoving((landmark) => this.moving(landmark, time));
      }
      const path = point === END ? endPath(this.motion, 'raw') : this.motion.raw[point];
      if (!path) return null;
      return point === END && time === this.contact && this.late > 0
        ? movingAtMark(path, time, this.late)
        : movingAround(path, time, this.contact, point === END);
    });
  }

  /**
   * The same by differences between neighbouring frames of a dense, prepared path; for finding where
   * something is largest, and for a step of a few milliseconds. Null where there is no such path.
   */
  roughly(point: BodyPoint, time: number): MovingPoint | null {
    return cached(this.rough, point, time, () => {
      if (point === MASS) return this.centreMoving((landmark) => this.roughly(landmark, time));
      const path = this.path(point);
      return path && isDense(path) ? roughlyMoving(path, time, this.contact) : null;
    });
  }

  linkLength(near: BodyPoint, far: BodyPoint, time: number): LinkLength | Absent {
    const name = `${near} ${far}`;
    const found = this.lengths.get(name) ?? this.measured(near, far, time);
    this.lengths.set(name, found);
    return found;
  }

  private measured(near: BodyPoint, far: BodyPoint, time: number): LinkLength | Absent {
    const [a, b] = [this.path(near), this.path(far)];
    const lacking = a ? far : near;
    const length = a && b && linkLength(this.motion, a, b);
    return length ?? missing(this.motion, this.landmarkOf(lacking), time);
  }

  private centre(time: number): Where | Absent {
    let lacking: Absent | null = null;
    const parts = weighed((landmark) => {
      const found = this.place(landmark, time);
      if (!isAbsent(found)) return found;
      lacking ??= found;
      return null;
    });
    if (!parts) return lacking!;
    return {
      at: total(parts, (one) => one.at),
      sigma: spread(parts, (one) => one.sigma),
      bias: spread(parts, (one) => one.bias),
      frames: parts[0]![1].frames,
    };
  }

  /** The path of the centre of mass; null unless it is dense, as its parts then are. */
  private centrePath(): Path | null {
    if (this.massPath !== undefined) return this.massPath;
    const parts = weighed((landmark) => this.motion.raw[landmark] ?? null);
    this.massPath = parts && summed(parts);
    return this.massPath;
  }

  private centreMoving(of: (landmark: Landmark) => MovingPoint | null): MovingPoint | null {
    const parts = weighed(of);
    if (!parts) return null;
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
}

function cached<T>(
  all: Map<BodyPoint, Map<number, T>>,
  point: BodyPoint,
  time: number,
  make: () => T,
): T {
  let own = all.get(point);
  if (!own) all.set(point, (own = new Map()));
  const before = own.get(time);
  if (before !== undefined) return before;
  const made = make();
  own.set(time, made);
  return made;
}

/** Paths that go together, each with its weight, on the frames that all of them have. */
function summed(parts: Weighed<Path>): Path | null {
  const counts = new Map<number, number>();
  for (const [, { frames }] of parts) {
    for (const frame of frames) counts.set(frame, (counts.get(frame) ?? 0) + 1);
  }
  const [, first] = parts[0]!;
  const kept = first.frames.flatMap((frame, i) => (counts.get(frame) === parts.length ? [i] : []));
  const frames = kept.map((i) => first.frames[i]!);
  if (frames.length < 2 || !isDense({ frames })) return null;
  const along = first.along.map(() => frames.map(() => 0));
  const variance = frames.map(() => 0);
  const bias = frames.map(() => 0);
  for (const [weight, path] of parts) {
    let i = 0;
    for (const [k, frame] of frames.entries()) {
      while (path.frames[i]! < frame) i += 1;
      along.forEach((sums, axis) => (sums[k]! += weight * path.along[axis]![i]!));
      variance[k]! += (weight * path.sigma[i]!) ** 2;
      bias[k] = Math.max(bias[k]!, path.bias[i]!);
    }
  }
  return {
    frames,
    times: kept.map((i) => first.times[i]!),
    along,
    sigma: variance.map(Math.sqrt),
    bias,
    hangs: Math.max(...parts.map(([, { hangs }]) => hangs)),
    isTracked: parts.some(([, { isTracked }]) => isTracked),
  };
}

type Weighed<T> = readonly (readonly [number, T])[];

/** What the centre of mass is made of, each with its weight; null when some of it is missing. */
function weighed<T extends object>(of: (landmark: Landmark) => T | null): Weighed<T> | null {
  const parts: [number, T][] = [];
  for (const [landmark, weight] of CENTRE_WEIGHTS) {
    const part = of(landmark);
    if (!part) return null;
    parts.push([weight, part]);
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
