/** Where a landmark is at an instant, from the points that were placed or tracked around it. */
import {
  landmarkName,
  mirrored,
  sided,
  type Landmark,
  type SidedPart,
} from '../../foundation/body/landmarks';
import { interpolate, lowerBound } from '../../foundation/signal/interpolate';
import { absent, type Absent } from '../../foundation/reading/reading';
import { END_PARTS } from '../../foundation/technique/end';
import { nearestFrame } from '../../observe/track/time';
import { placeSigma, type Motion, type Path, type PathSet } from './motion';

export interface Where {
  /** Along `Motion.axes`, metres (pixels when the motion has no scale). */
  readonly at: readonly number[];
  /** Standard deviation: shake and lasting error together. */
  readonly sigma: number;
  /** The lasting error's part of it. */
  readonly bias: number;
  /** Frames the position rests on. */
  readonly frames: readonly number[];
}

/** Longest stretch without a point that is bridged by interpolation, seconds. */
export const LONGEST_GAP = 0.1;

/** The student's own name for a landmark of the (possibly mirrored) motion. */
export function ownName(motion: Motion, landmark: Landmark): Landmark {
  return motion.isMirrored ? mirrored(landmark) : landmark;
}

/** The striking side's part, e.g. `striking(motion, 'Elbow')`. */
export function striking(motion: Motion, part: SidedPart): Landmark {
  return sided(motion.striking, part);
}

/**
 * Position at a time: a point on that very frame, or between two points not more than
 * `LONGEST_GAP` apart.
 *
 * @param time seconds
 */
export function where(motion: Motion, landmark: Landmark, time: number): Where | Absent {
  const path = motion.paths[landmark];
  return path ? whereOn(path, time, motion, landmark) : missing(motion, landmark, time);
}

/** Which of two paths' samples lie on the same frames: index pairs, ascending. */
export function shared(a: Path, b: Path): [number, number][] {
  const pairs: [number, number][] = [];
  for (let i = 0, k = 0; i < a.frames.length && k < b.frames.length;) {
    const step = a.frames[i]! - b.frames[k]!;
    if (step === 0) pairs.push([i, k]);
    if (step <= 0) i++;
    if (step >= 0) k++;
  }
  return pairs;
}

/** The landmark to place first so that the striking end is known. */
export function endLandmark(motion: Pick<Motion, 'striking' | 'end'>): Landmark {
  return sided(motion.striking, END_PARTS[motion.end][0]!);
}

/** Computed once for each motion: every measure asks for it. */
const endPaths = new WeakMap<object, Path | null>();

/** The path of the striking end, prepared or as it was tracked. */
export function endPath(motion: Motion, from: PathSet = 'paths'): Path | null {
  const known = endPaths.get(motion[from]);
  if (known !== undefined) return known;
  const path = joined(motion, from);
  endPaths.set(motion[from], path);
  return path;
}

function joined(motion: Motion, from: PathSet): Path | null {
  const known = END_PARTS[motion.end].flatMap((part) => {
    const path = motion[from][sided(motion.striking, part)];
    return path ? [path] : [];
  });
  const [first, second] = known;
  if (!first || !second) return first ?? null;
  const pairs = shared(first, second);
  if (pairs.length === 0) return first;
  return {
    frames: pairs.map(([i]) => first.frames[i]!),
    times: pairs.map(([i]) => first.times[i]!),
    along: first.along.map((own, axis) =>
      pairs.map(([i, k]) => (own[i]! + second.along[axis]![k]!) / 2),
    ),
    sigma: pairs.map(([i, k]) => Math.hypot(first.sigma[i]!, second.sigma[k]!) / 2),
    bias: pairs.map(([i, k]) => Math.hypot(first.bias[i]!, second.bias[k]!) / 2),
    hangs: Math.max(first.hangs, second.hangs),
    isTracked: first.isTracked && second.isTracked,
  };
}

/** As `where`, on any path; `landmark` is what to ask for when the path does not reach. */
export function whereOn(
  path: Path,
  time: number,
  motion: Motion,
  landmark: Landmark,
): Where | Absent {
  const right = lowerBound(path.times, time - 1e-9);
  const exact = path.times[right];
  if (exact !== undefined && Math.abs(exact - time) < 1e-9) {
    return {
      at: path.along.map((values) => values[right]!),
      sigma: placeSigma(path, right),
      bias: path.bias[right]!,
      frames: [path.frames[right]!],
    };
  }
  const before = path.times[right - 1];
  if (exact === undefined || before === undefined || exact - before > LONGEST_GAP) {
    return missing(motion, landmark, time);
  }
  return {
    at: path.along.map((values) => interpolate(path.times, values, time)),
    sigma: Math.max(placeSigma(path, right - 1), placeSigma(path, right)),
    bias: Math.max(path.bias[right - 1]!, path.bias[right]!),
    frames: [path.frames[right - 1]!, path.frames[right]!],
  };
}

/** "Place the right elbow at frame 112." */
export function missing(motion: Motion, landmark: Landmark, time: number): Absent {
  const own = ownName(motion, landmark);
  const frame = nearestFrame(motion.frameTimes, time);
  return absent(`Place the ${landmarkName(own)} on frame ${frame}.`, { landmarks: [own], frame });
}
