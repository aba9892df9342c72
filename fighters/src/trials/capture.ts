/** Capture tried on takes whose truth is known: sound, offset, splits, lengths, lens, two views. */
import type { Calibration, PixelPoint } from '@sinew/core/reconstruct/calibration/calibration';
import { lengthOf } from '@sinew/core/reconstruct/calibration/picture';
import { joinViews } from '@sinew/core/reconstruct/calibration/twoViews';
import { bowed, lensFromLines, straightened } from '@sinew/core/foundation/geometry/lens';
import { EnvelopeMaker } from '@sinew/core/observe/sound/envelope';
import { findHits, type Hit } from '@sinew/core/observe/sound/onsets';
import { offsetBySound } from '@sinew/core/observe/sound/sync';
import { findStrikes } from '@sinew/core/observe/take/strikes';
import { trackFromPlaced } from '@sinew/core/observe/track/track';
import { normal, seeded } from '@sinew/core/foundation/uncertainty/random';
import type { Point } from '../fighter/space';
import { activityOf, randomTake } from '../film/randomTake';
import { eventFrames, filmTimes, matSeen, placedIn } from '../film/takeTruth';
import {
  distanceTo,
  hitsOf,
  takeMover,
  DEMO_TAKE,
  type DemoTake,
  type TakeFilm,
} from '../film/takes';
import { project } from '../film/camera';
import { heardBy, SOUND_RATE } from '../film/sound';

/** The sound of a film as the app hears it. */
export function hitsHeard(take: DemoTake, film: TakeFilm, room?: number): Hit[] {
  const maker = new EnvelopeMaker(SOUND_RATE);
  maker.add(heardBy(take, film, room), 0);
  return findHits(maker.finish());
}

/** When the microphone is reached by each hit, seconds of the film. */
export function trueHits(take: DemoTake, film: TakeFilm): number[] {
  return hitsOf(take)
    .map((hit) => hit.time - film.starts + distanceTo(film, hit) / 343)
    .filter((time) => time > 0);
}

const NEAR = 0.02;

export interface Found {
  /** Seconds, one for each that was found. */
  readonly errors: readonly number[];
  /** Shares of the errors that lie within ±, where there is a ±. */
  readonly covered: number;
  readonly missed: number;
  readonly invented: number;
  readonly all: number;
}

function held(
  truth: readonly number[],
  found: readonly { readonly time: number; readonly sigma: number }[],
  near: number,
): Found {
  const pairs = truth.map((time) => found.find((one) => Math.abs(one.time - time) < near));
  const errors = pairs.flatMap((one, i) => (one ? [one.time - truth[i]!] : []));
  const covered = pairs.filter(
    (one, i) => one && Math.abs(one.time - truth[i]!) <= 1.96 * one.sigma,
  ).length;
  return {
    errors,
    covered,
    missed: pairs.filter((one) => !one).length,
    invented: found.filter((one) => !truth.some((time) => Math.abs(one.time - time) < near)).length,
    all: truth.length,
  };
}

const together = (trials: readonly Found[]): Found => ({
  errors: trials.flatMap((one) => one.errors),
  covered: trials.reduce((sum, one) => sum + one.covered, 0),
  missed: trials.reduce((sum, one) => sum + one.missed, 0),
  invented: trials.reduce((sum, one) => sum + one.invented, 0),
  all: trials.reduce((sum, one) => sum + one.all, 0),
});

/** @param room loudness of the room's noise */
export function soundTrials(room: number, seeds: readonly number[]): Found {
  return together(
    seeds.map((seed) => {
      const take = randomTake(seed, 60);
      const [film] = take.films as [TakeFilm, TakeFilm];
      return held(trueHits(take, film), hitsHeard(take, film, room), NEAR);
    }),
  );
}

export interface OffsetTrials {
  readonly errors: readonly number[];
  readonly covered: number;
  /** Why others could not be joined. */
  readonly refused: readonly string[];
}

/** @param isMeasured whether the distances from cameras to bag are known */
export function offsetTrials(
  room: number,
  isMeasured: boolean,
  seeds: readonly number[],
): OffsetTrials {
  const errors: number[] = [];
  const refused: string[] = [];
  let covered = 0;
  for (const seed of seeds) {
    const take = randomTake(seed, 60);
    const [a, b] = take.films as [TakeFilm, TakeFilm];
    const hit = hitsOf(take)[0]!;
    const distances = isMeasured ? ([distanceTo(a, hit), distanceTo(b, hit)] as const) : null;
    const found = offsetBySound(hitsHeard(take, a, room), hitsHeard(take, b, room), distances);
    if (typeof found === 'string') {
      refused.push(found);
      continue;
    }
    const error = found.seconds - (a.starts - b.starts);
    errors.push(error);
    if (Math.abs(error) <= 1.96 * found.sigma) covered += 1;
  }
  return { errors, covered, refused };
}

/** Strikes found in takes: where a candidate's contact, or its middle, lies by a true contact. */
export function splitTrials(
  rate: number,
  isHeard: boolean,
  seeds: readonly number[],
): Found & { readonly wrongPairs: number } {
  let wrongPairs = 0;
  const trials = seeds.map((seed) => {
    const take = randomTake(seed, rate);
    const [film] = take.films as [TakeFilm, TakeFilm];
    const hits = isHeard ? hitsHeard(take, film) : [];
    const distance = distanceTo(film, hitsOf(take)[0]!);
    const found = findStrikes(activityOf(take, film, seed), hits, distance);
    const truth = hitsOf(take).map(({ time }) => time - film.starts);
    const seen = found.map((one) => ({
      time: one.contact?.time ?? (one.from + one.to) / 2,
      sigma: one.contact?.sigma ?? 0.2,
    }));
    if (isHeard) {
      const pairs = truth.slice(1).map((time, i) => time - truth[i]! <= 1);
      const own = found.slice(1).map((one, i) => one.combination === found[i]!.combination);
      wrongPairs += pairs.filter((one, i) => one !== own[i]).length;
    }
    return held(truth, seen, isHeard ? 0.03 : 0.4);
  });
  return { ...together(trials), wrongPairs };
}

const noisy = (at: PixelPoint, sigma: number, random: () => number): PixelPoint => ({
  x: at.x + sigma * normal(random),
  y: at.y + sigma * normal(random),
});

/** A film's calibration by the mat, its corners clicked with an error. */
export function calibrated(
  film: TakeFilm,
  view: 'side' | 'front',
  sigma: number,
  random: () => number,
): Calibration {
  const mat = matSeen(DEMO_TAKE, film);
  return {
    view,
    scale: null,
    target: null,
    rectangle: { ...mat, corners: mat.corners.map((corner) => noisy(corner, sigma, random)) },
    lens: null,
    size: film.camera,
  };
}

export interface LengthTrials {
  /** Shares of the true length. */
  readonly errors: readonly number[];
  readonly covered: number;
}

/** A metre rod held in the plane of the strike at the height of the fist, read with the ruler. */
export function lengthTrials(sigma: number, seeds: readonly number[]): LengthTrials {
  const [film] = DEMO_TAKE.films as [TakeFilm, TakeFilm];
  const errors: number[] = [];
  let covered = 0;
  for (const seed of seeds) {
    const random = seeded(seed);
    const calibration = calibrated(film, 'side', sigma, random);
    const lean = 2 * Math.PI * random();
    const from: Point = [-0.2 + 0.6 * random(), 0.9 + 0.4 * random(), 0];
    const to: Point = [from[0] + Math.cos(lean), from[1] + Math.sin(lean), 0];
    const seen = [from, to].map((end) => noisy(project(film.camera, end), sigma, random));
    const found = lengthOf(calibration, { from: seen[0]!, to: seen[1]! }, Math.max(sigma, 0.1));
    if (!found) throw new Error('the mat gives no metres');
    errors.push(found.metres - 1);
    if (Math.abs(found.metres - 1) <= found.halfWidth) covered += 1;
  }
  return { errors, covered };
}

const PICTURE = { width: 1280, height: 720 };

/** Where a wrong coefficient shows most. */
const CORNER: PixelPoint = { x: 1180, y: 680 };

/**
 * Places on two straight edges near the border, bowed by a lens and clicked.
 *
 * @returns how far off the picture's corner still is, pixels, and how far it was without
 */
export function lensTrials(
  bend: number,
  sigma: number,
  seeds: readonly number[],
): { readonly left: number[]; readonly without: number } {
  const seen = bowed(CORNER, PICTURE, { bend });
  const left = seeds.map((seed) => {
    const random = seeded(seed);
    const edges = [60, 650].map((height) =>
      Array.from({ length: 7 }, (_, i) => {
        const straight = { x: 80 + 185 * i, y: height + 4 * i };
        return noisy(bowed(straight, PICTURE, { bend }), sigma, random);
      }),
    );
    const back = straightened(seen, PICTURE, lensFromLines(edges, PICTURE));
    return Math.hypot(back.x - CORNER.x, back.y - CORNER.y);
  });
  return { left, without: Math.hypot(seen.x - CORNER.x, seen.y - CORNER.y) };
}

export interface SpaceTrials {
  /** Metres, of each landmark and frame. */
  readonly errors: readonly number[];
  /** Of how many the error lies within √χ²₃ times the stated σ. */
  readonly covered: number;
}

/** 95 % of a three-dimensional normal lie within this many σ of one axis (χ²₃ = 7.815). */
const WITHIN = Math.sqrt(7.815);

/** Points of the second strike placed in both films of the demo's take, with an error of σ pixels. */
export function spaceTrials(sigma: number, seeds: readonly number[]): SpaceTrials {
  const [a, b] = DEMO_TAKE.films as [TakeFilm, TakeFilm];
  const pose = takeMover(DEMO_TAKE);
  const errors: number[] = [];
  let covered = 0;
  for (const seed of seeds) {
    const random = seeded(seed);
    const pictures = [a, b].map((film, i) => {
      const { load, end } = eventFrames(DEMO_TAKE, film, 1);
      const frames = Array.from({ length: Math.floor((end - load) / 4) }, (_, k) => load + 4 * k);
      const placed = placedIn(DEMO_TAKE, film, frames).map((point) => ({
        ...point,
        ...noisy(point, sigma, random),
      }));
      return {
        track: trackFromPlaced(placed, filmTimes(DEMO_TAKE, film), film.camera.height),
        calibration: calibrated(film, i === 0 ? 'side' : 'front', sigma, random),
      };
    });
    const { track } = joinViews(pictures[0]!, pictures[1]!, {
      seconds: a.starts - b.starts,
      sigma: 0.0005,
      by: 'sound',
      pairs: 4,
    });
    const misses = Object.entries(track.points).flatMap(([landmark, points]) =>
      points.frames.map((frame, i) => {
        const truth = pose(track.frameTimes[frame]! + a.starts)[landmark as never] as Point;
        const found = [points.x[i]!, points.y[i]!, points.z![i]!];
        return { off: found.map((value, k) => value - truth[k]!), sigma: points.sigma[i]! };
      }),
    );
    // Corners clicked amiss move the whole body alike; speeds, angles and lengths know nothing of it.
    const alike = [0, 1, 2].map(
      (k) => misses.reduce((sum, { off }) => sum + off[k]!, 0) / misses.length,
    );
    for (const { off, sigma: stated } of misses) {
      const error = Math.hypot(...off.map((value, k) => value - alike[k]!));
      errors.push(error);
      if (error <= WITHIN * stated) covered += 1;
    }
  }
  return { errors, covered };
}
