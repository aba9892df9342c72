/** Known-answer tracks: a fighter's landmarks sampled at a frame rate, with noise if wanted. */
import { LANDMARKS, type Landmark } from '@sinew/core/foundation/body/landmarks';
import type { Points, SpaceTrack } from '@sinew/core/observe/track/track';
import { normal, seeded } from '@sinew/core/foundation/uncertainty/random';
import { mover, durationOf, type Mover } from './pose';
import type { Recipe } from './recipe';

export interface Sampling {
  /** Frames a second. */
  readonly rate: number;
  /** Standard deviation of every coordinate, metres. */
  readonly noise: number;
  readonly seed: number;
  /** What else is wrong with a track as trackers and marker systems give it. */
  readonly flaws?: Flaws;
}

export interface Flaws {
  /** Over so many seconds the noise falls to 1/e of its likeness with itself; 0 = none. */
  readonly hangs: number;
  /** Share of a landmark's frames on which it jumps away, and how far it does, metres. */
  readonly jumps: number;
  readonly jump: number;
  /** Gaps of three frames for each hundred frames of a landmark. */
  readonly gaps: number;
}

const FLAWLESS: Flaws = { hangs: 0, jumps: 0, jump: 0, gaps: 0 };
/** Frames of a gap. */
const GAP = 3;

export function frameTimesOf(recipe: Recipe, rate: number): number[] {
  return framesIn(durationOf(recipe), rate);
}

function framesIn(duration: number, rate: number): number[] {
  return Array.from({ length: Math.ceil(duration * rate) }, (_, i) => i / rate);
}

/** No tracker says that it is surer than this of a point, metres. */
const LEAST_SIGMA = 0.0002;

/**
 * A track whose σ says only what its noise is from frame to frame, as any tracker's does: nothing of how
 * it hangs together, nothing of jumps.
 */
export function knownTrack(recipe: Recipe, sampling: Sampling): SpaceTrack {
  return trackOf(mover(recipe), durationOf(recipe), sampling);
}

/** The same of any motion. @param duration seconds */
export function trackOf(pose: Mover, duration: number, sampling: Sampling): SpaceTrack {
  const { rate, noise, seed, flaws = FLAWLESS } = sampling;
  const frameTimes = framesIn(duration, rate);
  const poses = frameTimes.map(pose);
  const random = seeded(seed);
  const points: Partial<Record<Landmark, Points>> = {};
  for (const landmark of LANDMARKS) {
    const axis = (k: 0 | 1 | 2) => {
      const shake = hanging(random, flaws.hangs > 0 ? Math.exp(-1 / (rate * flaws.hangs)) : 0);
      return poses.map((p) => p[landmark][k] + noise * shake());
    };
    const xyz = [axis(0), axis(1), axis(2)] as const;
    if (flaws.jumps > 0) jump(xyz, flaws, random);
    const frames = withoutGaps(frameTimes.length, flaws.gaps, random);
    const [x, y, z] = xyz.map((values) => frames.map((frame) => values[frame]!));
    const sigma = frames.map(() => Math.max(noise, LEAST_SIGMA));
    points[landmark] = { frames, x: x!, y: y!, z: z!, sigma };
  }
  return { space: '3d', source: 'measured-3d', frameTimes, points };
}

/**
 * Normal noise of variance 1 whose likeness with itself falls by `keeps` from frame to frame: an
 * Ornstein–Uhlenbeck process, sampled.
 */
function hanging(random: () => number, keeps: number): () => number {
  let now: number | null = null;
  return () => {
    const fresh = normal(random);
    now = now === null ? fresh : keeps * now + Math.sqrt(1 - keeps ** 2) * fresh;
    return now;
  };
}

function jump(xyz: readonly number[][], { jumps, jump: far }: Flaws, random: () => number): void {
  xyz[0]!.forEach((_, i) => {
    if (random() >= jumps) return;
    const way = xyz.map(() => normal(random));
    xyz.forEach((values, k) => (values[i]! += (far * way[k]!) / Math.hypot(...way)));
  });
}

function withoutGaps(count: number, perHundred: number, random: () => number): number[] {
  const gone = new Set<number>();
  for (let i = 0; i < count; i++) {
    if (perHundred > 0 && random() < perHundred / 100) {
      for (let k = 0; k < GAP; k++) gone.add(i + k);
    }
  }
  return Array.from({ length: count }, (_, i) => i).filter((i) => !gone.has(i));
}
