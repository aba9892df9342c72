/** Where a landmark is at an instant, from the points that were placed or tracked around it. */
import { landmarkName, mirrored, sided, type Landmark, type SidedPart } from '../body/landmarks';
import { interpolate, lowerBound } from '../signal/interpolate';
import { absent, isAbsent, type Absent } from '../reading/reading';
import type { Motion, Path } from './motion';

export interface Where {
  /** Along `Motion.axes`, metres (pixels when the motion has no scale). */
  readonly at: readonly number[];
  readonly sigma: number;
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
  return path ? onPath(path, time, motion, landmark) : missing(motion, landmark, time);
}

/**
 * The path of the fist: the middle of the two outer knuckles where both are known, else the
 * knuckle that is.
 */
export function fistPath(motion: Motion): Path | null {
  const index = motion.paths[striking(motion, 'IndexKnuckle')];
  const little = motion.paths[striking(motion, 'LittleKnuckle')];
  if (!index || !little) return index ?? little ?? null;
  const shared = index.frames.flatMap((frame, i) => {
    const k = little.frames.indexOf(frame);
    return k < 0 ? [] : [[i, k] as const];
  });
  if (shared.length === 0) return index;
  return {
    frames: shared.map(([i]) => index.frames[i]!),
    times: shared.map(([i]) => index.times[i]!),
    along: index.along.map((own, axis) =>
      shared.map(([i, k]) => (own[i]! + little.along[axis]![k]!) / 2),
    ),
    sigma: shared.map(([i, k]) => Math.hypot(index.sigma[i]!, little.sigma[k]!) / 2),
  };
}

/** The fist's position at a time, as `where`. */
export function whereFist(motion: Motion, time: number): Where | Absent {
  const path = fistPath(motion);
  const knuckle = striking(motion, 'IndexKnuckle');
  return path ? onPath(path, time, motion, knuckle) : missing(motion, knuckle, time);
}

function onPath(path: Path, time: number, motion: Motion, landmark: Landmark): Where | Absent {
  const right = lowerBound(path.times, time - 1e-9);
  const exact = path.times[right];
  if (exact !== undefined && Math.abs(exact - time) < 1e-9) {
    return {
      at: path.along.map((values) => values[right]!),
      sigma: path.sigma[right]!,
      frames: [path.frames[right]!],
    };
  }
  const before = path.times[right - 1];
  if (exact === undefined || before === undefined || exact - before > LONGEST_GAP) {
    return missing(motion, landmark, time);
  }
  return {
    at: path.along.map((values) => interpolate(path.times, values, time)),
    sigma: Math.max(path.sigma[right - 1]!, path.sigma[right]!),
    frames: [path.frames[right - 1]!, path.frames[right]!],
  };
}

/** The frame whose time is nearest. */
export function nearestFrame(frameTimes: readonly number[], time: number): number {
  const right = lowerBound(frameTimes, time);
  if (right === 0) return 0;
  if (right >= frameTimes.length) return frameTimes.length - 1;
  return time - frameTimes[right - 1]! <= frameTimes[right]! - time ? right - 1 : right;
}

/** "Place the right elbow at frame 112." */
export function missing(motion: Motion, landmark: Landmark, time: number): Absent {
  const own = ownName(motion, landmark);
  const frame = nearestFrame(motion.frameTimes, time);
  return absent(`Place the ${landmarkName(own)} on frame ${frame}.`, { landmarks: [own], frame });
}

/** The first absence among several lookups, so that a measure can say what it lacks. */
export function firstAbsent(...found: readonly (Where | Absent)[]): Absent | null {
  return found.find(isAbsent) ?? null;
}
