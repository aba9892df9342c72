/** Landmark series as open formats carry them: a place or nothing for every landmark and frame. */
import type { Landmark } from '../foundation/body/landmarks';
import type { PictureTrack, SpaceTrack } from '../observe/track/track';
import { readNoise } from '../foundation/signal/noise';
import { FormatError } from './formatError';
import type { Naming } from './naming';

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

/** A file with more frames than this is not of a strike: a quarter of an hour at 240 a second. */
export const MOST_FRAMES = 200_000;

/** @throws FormatError; said before the file is read any further */
export function mustBeShort(frames: number): void {
  if (frames > MOST_FRAMES) {
    throw new FormatError(
      `too long: at most ${MOST_FRAMES.toLocaleString('en')} frames; cut the strikes out of it`,
    );
  }
}

/** How many lines a text has, or one more than `most`; nothing is made of them. */
export function linesIn(text: string, most: number): number {
  let count = 0;
  for (let at = -1; count <= most; count++) {
    at = text.indexOf('\n', at + 1);
    if (at < 0) return count + 1;
  }
  return count;
}

/** @throws FormatError when the times do not ascend or there are too few */
export function checkedTimes(times: readonly number[], lineOf: (frame: number) => number): void {
  if (times.length < 2) throw new FormatError('there are fewer than two frames');
  mustBeShort(times.length);
  times.forEach((time, i) => {
    if (!Number.isFinite(time)) throw new FormatError('the time is not a number', lineOf(i));
    if (i > 0 && time <= times[i - 1]!) {
      throw new FormatError('the time does not ascend', lineOf(i));
    }
  });
}

/** Nothing was seen: empty, or NaN or NA, as programs for statistics write it. */
export const isUnseen = (cells: readonly string[]): boolean =>
  cells.every((cell) => /^(na|nan)?$/i.test(cell));

/** A file's text without the mark that some programs put before it. */
export const withoutMark = (text: string): string => text.replace(/^\uFEFF/, '');

/** @param what the cell holds, for the sentence. @throws FormatError */
export function numberIn(cell: string, what: string, line: number): number {
  // JavaScript’s own 0x10 and the like are no number of a table.
  const value = cell.trim() === '' || /[box]/i.test(cell) ? NaN : Number(cell);
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
/** What a track is taken to have had that is too short or too smooth to tell: 2 mm, two pixels (common practice, no source). */
const SMOOTHED_NOISE = { '3d': 0.002, '2d': 2 } as const;

/**
 * Every landmark's points, their σ read off the series itself: see `readNoise`. Where that cannot be told, the
 * usual is taken.
 */
function allPoints({ places, space, frameTimes }: Series): SpaceTrack['points'] {
  const shown = (Object.entries(places) as [Landmark, Places][]).flatMap(([landmark, list]) => {
    const frames = list.flatMap((place, frame) => (place ? [frame] : []));
    const axis = (k: number) => frames.map((frame) => list[frame]![k]!);
    const axes = [0, 1, ...(space === '3d' ? [2] : [])].map(axis);
    return frames.length === 0 ? [] : [{ landmark, frames, axes }];
  });
  const spacing = (frameTimes[frameTimes.length - 1]! - frameTimes[0]!) / (frameTimes.length - 1);
  const noise = readNoise(
    shown.flatMap(({ frames, axes }) => axes.map((values) => ({ frames, values }))),
    spacing,
  );
  return Object.fromEntries(
    shown.map(({ landmark, frames, axes }, i) => {
      const own = noise.sigmas.slice(i * axes.length, (i + 1) * axes.length);
      const read = Math.sqrt(own.reduce((sum, one) => sum + one ** 2, 0) / own.length);
      const least = noise.hangs === null ? SMOOTHED_NOISE[space] : LEAST_NOISE[space];
      const sigma = Math.max(least, read);
      const [x, y, z] = axes as [number[], number[], number[]?];
      return [landmark, { frames, x, y, sigma: frames.map(() => sigma), ...(z && { z }) }];
    }),
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
