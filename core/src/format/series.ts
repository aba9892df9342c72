/** Landmark series as open formats carry them: a place or nothing for every landmark and frame. */
import type { Landmark } from '../foundation/body/landmarks';
import type { Points, PictureTrack, SpaceTrack } from '../observe/track/track';
import { FormatError } from './formatError';
import type { Naming } from './naming';
import { median } from 'd3-array';

/** One landmark's places, one a frame; null where it was not seen. Pixels or metres. */
export type Places = readonly (readonly number[] | null)[];

export interface Series {
  /** Seconds, strictly ascending. */
  readonly frameTimes: readonly number[];
  readonly places: Partial<Record<Landmark, Places>>;
  readonly space: '2d' | '3d';
  /** Names that are no landmarks of ours: left out, and worth telling. */
  readonly ignored: readonly string[];
}

/** A file with more frames than this is not of a strike: an hour at 240 a second. */
export const MOST_FRAMES = 900_000;

/** @throws FormatError when the times do not ascend or there are too few */
export function checkedTimes(times: readonly number[], lineOf: (frame: number) => number): void {
  if (times.length < 2) throw new FormatError('there are fewer than two frames');
  if (times.length > MOST_FRAMES) throw new FormatError(`more than ${MOST_FRAMES} frames`);
  times.forEach((time, i) => {
    if (!Number.isFinite(time)) throw new FormatError('the time is not a number', lineOf(i));
    if (i > 0 && time <= times[i - 1]!) {
      throw new FormatError('the time does not ascend', lineOf(i));
    }
  });
}

/** @param what the cell holds, for the sentence. @throws FormatError */
export function numberIn(cell: string, what: string, line: number): number {
  const value = cell.trim() === '' ? NaN : Number(cell);
  if (Number.isFinite(value)) return value;
  throw new FormatError(`${what} is not a number: “${cell.trim().slice(0, 20)}”`, line);
}

/**
 * Sorts the names of a file into landmarks and others.
 *
 * @throws FormatError when none is known, or two are to be the same landmark
 */
export function known(
  names: readonly string[],
  naming: Naming,
  line: number,
): ReadonlyMap<string, Landmark> {
  const found = new Map(
    names.flatMap((name) => {
      const landmark = Object.hasOwn(naming, name) ? naming[name] : undefined;
      return landmark ? [[name, landmark] as const] : [];
    }),
  );
  const twice = [...found.values()].find((one, i, all) => all.indexOf(one) !== i);
  if (twice) throw new FormatError(`two names of the file are to be the ${twice}`, line);
  if (found.size > 0) return found;
  const first = names.slice(0, 3).map((name) => `“${name}”`);
  throw new FormatError(
    `no landmark of Sinew’s among ${first.join(', ') || 'the names'}; see docs/track-format.md`,
    line,
  );
}

/** The least noise any tracker has: 0.1 mm, a tenth of a pixel. */
const LEAST_NOISE = { '3d': 1e-4, '2d': 0.1 } as const;
/** Third differences of independent noise have a standard deviation of √20 of its own. */
const THIRD = Math.sqrt(20);
/** A normal deviate's σ ÷ the median of its size. */
const MAD = 1.4826;

/**
 * How noisy a series is, one standard deviation of each coordinate, read off the series itself:
 * movement hardly shows in third differences, noise does; their median is not moved by the strike.
 */
function noiseOf(places: Places, space: '2d' | '3d'): number {
  const sizes: number[] = [];
  for (let i = 3; i < places.length; i++) {
    const four = [places[i - 3], places[i - 2], places[i - 1], places[i]];
    if (four.some((place) => !place)) continue;
    const [a, b, c, d] = four as [number[], number[], number[], number[]];
    a.forEach((_, axis) => sizes.push(Math.abs(d[axis]! - 3 * c[axis]! + 3 * b[axis]! - a[axis]!)));
  }
  if (sizes.length === 0) return LEAST_NOISE[space] * 10;
  return Math.max(LEAST_NOISE[space], (MAD * median(sizes)!) / THIRD);
}

function pointsOf(places: Places, space: '2d' | '3d'): Points {
  const frames = places.flatMap((place, frame) => (place ? [frame] : []));
  const axis = (k: number) => frames.map((frame) => places[frame]![k]!);
  const sigma = noiseOf(places, space);
  const flat = { frames, x: axis(0), y: axis(1), sigma: frames.map(() => sigma) };
  return space === '3d' ? { ...flat, z: axis(2) } : flat;
}

function allPoints({ places, space }: Series): SpaceTrack['points'] {
  return Object.fromEntries(
    (Object.entries(places) as [Landmark, Places][])
      .map(([landmark, one]) => [landmark, pointsOf(one, space)] as const)
      .filter(([, points]) => points.frames.length > 0),
  );
}

/** Places in space as a track; its noise is read off the series. */
export function spaceTrack(series: Series): SpaceTrack {
  return {
    space: '3d',
    source: 'measured-3d',
    frameTimes: series.frameTimes,
    points: allPoints(series),
  };
}

export function pictureTrack(series: Series): PictureTrack {
  const points = allPoints(series);
  const sigmas = Object.values(points).map((one) => one.sigma[0]!);
  return {
    space: '2d',
    source: 'measured-2d',
    frameTimes: series.frameTimes,
    points,
    placingSigma: Math.max(...sigmas),
  };
}

/** Back to one place a frame, for writing. */
export function seriesOf(track: SpaceTrack | PictureTrack): Series {
  const places = Object.fromEntries(
    Object.entries(track.points).map(([landmark, points]) => {
      const list: (number[] | null)[] = track.frameTimes.map(() => null);
      points.frames.forEach((frame, i) => {
        list[frame] = [points.x[i]!, points.y[i]!, ...(points.z ? [points.z[i]!] : [])];
      });
      return [landmark, list];
    }),
  );
  return { frameTimes: track.frameTimes, places, space: track.space, ignored: [] };
}
