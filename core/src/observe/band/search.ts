/**
 * Which body wears a band, and roughly how it turns through the film: a few ellipses are followed, each as it fits,
 * and what speaks against each is added up.
 */
import { mean, median } from 'd3-array';
import { fitted, type Expected } from './fit';
import {
  likeliestWay,
  leastUnlike,
  likeness,
  templatesOf,
  unlikeOf,
  type Rough,
  type Sight,
  type Templates,
} from './match';
import type { Torso } from './torso';

/** Shapes of a waist and a chest, depth ÷ width, and how far they and the size stray. */
const ROUGH_FLATNESS = [0.58, 0.66, 0.74, 0.82];
const FLATNESS = [0.54, 0.6, 0.66, 0.72, 0.78, 0.84, 0.9];
const USUAL_FLATNESS = { middle: 0.74, sigma: 0.1 };
const SIZES = [0.88, 0.94, 1, 1.06, 1.12];
const SIZE_VARIES = 0.08;
/** So many frames are enough to find the shape of a body by, roughly and exactly. */
const FOR_SHAPE = 6;
const FOR_FIT = 8;
/** So many ellipses are followed through the film. */
const CANDIDATES = 3;
/** The way through a film is looked for at frames so far apart, seconds; each is fitted later. */
export const OFTEN_ENOUGH = 1 / 60;
/** Frames are alike: a whole film says no more than so many of them. */
export const APART = 4;
/** A likeness of less than this is no sight of the band. */
export const LEAST_LIKE = 0.5;

/** A film of one band, before anything is found in it. */
export interface Sought {
  /** By frame; null where there is nothing to see. */
  readonly sights: readonly (Sight | null)[];
  /** Seconds from frame to frame. */
  readonly spacing: number;
  readonly torsoWith: (flatness: number) => Torso;
  /** Metres. */
  readonly usualDistance: number;
  /** Turns that are tried, radians from and to. */
  readonly range: readonly [number, number];
  /** How unlikely a turn is in a frame before the band is looked at, as half a χ². */
  readonly expected: (turn: number, frame: number) => number;
}

/** A body that may wear the band, and its way through the film. */
export interface Candidate {
  readonly torso: Torso;
  readonly distance: number;
  /** How far a frame's own fit may stray from the way and the distance. */
  readonly free: Omit<Expected, 'pose'>;
  readonly way: readonly Rough[];
  /** Half a χ²: the less, the likelier. */
  readonly unlikely: number;
}

interface Shape {
  readonly torso: Torso;
  readonly distance: number;
  readonly templates: Templates;
}

/** @returns the likeliest first; none where too little is seen */
export function candidatesOf(sought: Sought): readonly Candidate[] {
  const { sights, spacing, expected } = sought;
  const every = Math.max(1, Math.round(OFTEN_ENOUGH / spacing));
  const known = sights.flatMap((sight, frame) => (sight ? [frame] : []));
  if (known.length < 3) return [];
  return roughShapes(sought, spacedOut(known, FOR_SHAPE))
    .map((rough): Candidate => {
      const films = sights.map((sight, i) =>
        sight && i % every === 0 ? likeness(sight, rough.templates) : null,
      );
      const { step } = sights[known[0]!]!.grid;
      const found = likeliestWay(films, rough.templates, step, expected);
      const way = found.map((one, i) => ({
        ...one,
        likeness: films[i] ? one.likeness : (found[i - (i % every)]?.likeness ?? 0),
      }));
      const { miss, ...shape } = fittedShape(sought, way, rough);
      const against = mean(known, (frame) => expected(way[frame]!.turn, frame))!;
      const { middle, sigma } = USUAL_FLATNESS;
      const odd = 0.5 * ((shape.torso.flatness - middle) / sigma) ** 2;
      return { way, ...shape, free: FREE, unlikely: APART * (miss + against) + odd };
    })
    .sort((a, b) => a.unlikely - b.unlikely);
}

/** So many of a list, from its first to its last. */
export function spacedOut<T>(list: readonly T[], count: number): T[] {
  if (list.length <= count) return [...list];
  return Array.from(
    { length: count },
    (_, i) => list[Math.round((i * (list.length - 1)) / (count - 1))]!,
  );
}

/** For each ellipse tried, the distance at which a few frames are most like their band; the likeliest first. */
function roughShapes(
  { sights, torsoWith, usualDistance, range, expected }: Sought,
  picked: readonly number[],
): readonly Shape[] {
  const { grid } = sights[picked[0]!]!;
  const shapes = ROUGH_FLATNESS.map((flatness) => {
    const torso = torsoWith(flatness);
    return SIZES.map((size) => {
      const distance = usualDistance * size;
      const templates = templatesOf(torso, distance, grid, range);
      const misfit = picked.reduce(
        (sum, frame) =>
          sum +
          leastUnlike(likeness(sights[frame]!, templates), templates, (turn) =>
            expected(turn, frame),
          ),
        0.5 * ((size - 1) / SIZE_VARIES) ** 2,
      );
      return { torso, distance, templates, misfit };
    }).reduce((a, b) => (b.misfit < a.misfit ? b : a));
  });
  return shapes.sort((a, b) => a.misfit - b.misfit).slice(0, CANDIDATES);
}

/** The ellipse that a dozen frames, each fitted, are missed least by. */
function fittedShape(
  { sights, torsoWith }: Sought,
  way: readonly Rough[],
  rough: Shape,
): Pick<Shape, 'torso' | 'distance'> & { readonly miss: number } {
  const like = way.flatMap(({ likeness: one }, i) => (sights[i] && one > LEAST_LIKE ? [i] : []));
  const picked = spacedOut(like, FOR_FIT);
  let best = { torso: rough.torso, distance: rough.distance, miss: 0 };
  let least = Infinity;
  for (const flatness of FLATNESS) {
    const torso = torsoWith(flatness);
    const fits = picked.flatMap((i) => {
      const fit = fitted(torso, sights[i]!, expectedAt(sights[i]!, way[i]!, rough.distance, FREE));
      return fit ? [fit] : [];
    });
    if (fits.length === 0 || fits.length < picked.length - 1) continue;
    const miss = mean(fits, (fit) => unlikeOf(fit.explained))!;
    if (miss < least) {
      least = miss;
      best = { torso, distance: median(fits, ({ pose }) => pose.distance)!, miss };
    }
  }
  return best;
}

/** Weak expectations, before anything is known. */
export const FREE = { bearing: 0.006, distance: 0.05 };

export const centreOf = ({ grid: { first, step, count } }: Sight) =>
  first + ((count - 1) / 2) * step;

export function expectedAt(
  sight: Sight,
  rough: Rough,
  distance: number,
  how: Omit<Expected, 'pose'>,
): Expected {
  const bearing = centreOf(sight) + rough.place;
  return { ...how, pose: { turn: rough.turn - bearing, bearing, distance } };
}
