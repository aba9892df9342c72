/**
 * Strips of tape round the body, in no order that anybody knows: what is stuck on is learned from the film itself,
 * frame by frame, as the body turns it into view. Where the body begins is taken from elsewhere; by how much it has
 * turned since is read.
 */
import { sum } from 'd3-array';
import { fitted } from './fit';
import {
  againstAround,
  likeness,
  PLACE_STEP,
  PLACES,
  placesTried,
  templatesOf,
  unlikeOf,
  type Rough,
  type Sight,
} from './match';
import { centreOf, expectedAt, OFTEN_ENOUGH, type Candidate } from './search';
import { bareTorso, learned, seen, type Painted, type Pose, type Torso } from './torso';

/** Depth ÷ width of a body, and its distance against the usual one, that are tried. */
const FLATNESS = [0.62, 0.74, 0.86];
const SIZES = [0.94, 1, 1.06];
/** A body turns no faster than this, radians a second. */
const FASTEST = 20;
/**
 * How far the next look is from what the ones before lead to: radians, radians, relative. Without a code the
 * distance cannot be told from the turn.
 */
const NEXT = { turn: 0.15, bearing: 0.003, distance: 0.01 };
/** The same of a body's middle before it is fitted, radians. */
const STRAYS = 0.006;
/** A look of which less than this is explained teaches nothing. */
const LEAST_EXPLAINED = 0.5;
/** Fewer looks than this are no film of a band. */
const FEWEST = 3;
/**
 * What has fewer edges, from so dark to so light, is a shirt with arms beside it: those had one to four on simulated
 * bodies, tape seven to fifteen.
 */
const FEWEST_EDGES = 6;
const CLEAR = 0.3;
/** A column that counts for less shows nothing. */
const LEAST_WEIGHT = 0.1;

export interface TapedFilm {
  /** By frame; null where there is nothing to see. */
  readonly sights: readonly (Sight | null)[];
  /** Seconds from frame to frame. */
  readonly spacing: number;
  /** Around the body, metres. */
  readonly girth: number;
  /** Metres. */
  readonly usualDistance: number;
  /** The turns that it may begin with, along the line of sight, radians. */
  readonly begins: readonly number[];
}

/** @returns the body that explains best what is seen, with its way; none where too little is seen */
export function taped(film: TapedFilm): readonly Candidate[] {
  return FLATNESS.flatMap((flatness) => {
    const bare = bareTorso(film.girth, flatness);
    return SIZES.flatMap((size) =>
      film.begins.flatMap((turn) => followed(film, turn, bare, film.usualDistance * size) ?? []),
    );
  })
    .sort((a, b) => a.unlikely - b.unlikely)
    .slice(0, 1);
}

function followed(
  { sights, spacing }: TapedFilm,
  begins: number,
  bare: Torso,
  distance: number,
): Candidate | null {
  const every = Math.max(1, Math.round(OFTEN_ENOUGH / spacing));
  const looks: Look[] = [];
  let torso = bare;
  let now: Rough = { turn: begins, place: 0, likeness: 1 };
  let ahead = 0;
  let count = 0;
  const learn = (sight: Sight, pose: Pose) => {
    looks.push({ sight, painted: paintedIn(sight, pose, bare) });
    torso = learned(
      bare,
      looks.map(({ painted }) => painted),
    );
  };
  const way = sights.map((sight, i): Rough => {
    if (!sight || i % every !== 0) return now;
    count += 1;
    if (looks.length === 0) {
      learn(sight, expectedAt(sight, now, distance, NEXT).pose);
      return now;
    }
    const next = nextOf(sight, torso, distance, now, ahead, FASTEST * every * spacing);
    const fit = fitted(torso, sight, expectedAt(sight, next, distance, NEXT));
    if (fit && fit.explained >= LEAST_EXPLAINED) {
      const turn = fit.pose.turn + fit.pose.bearing;
      ahead = turn - now.turn;
      now = { turn, place: fit.pose.bearing - centreOf(sight), likeness: next.likeness };
      learn(sight, fit.pose);
    } else {
      now = { ...now, likeness: 0 };
    }
    return now;
  });
  if (count < FEWEST || edgesOf(torso) < FEWEST_EDGES) return null;
  // Looked at once more when all is known: a body that was lost on the way has smeared what it wears.
  const explained = sum(looks, ({ sight, painted: { pose } }) =>
    unlikeOf(fitted(torso, sight, { ...NEXT, pose })?.explained ?? 0),
  );
  return { torso, distance, way, free: NEXT, unlikely: explained / count };
}

/** A look at the band that has taught something. */
interface Look {
  readonly sight: Sight;
  readonly painted: Painted;
}

/** How often dark follows light, or light dark, around it. */
function edgesOf({ level }: Torso): number {
  const sides = Array.from(level, (one) => (one > CLEAR ? 1 : one < -CLEAR ? -1 : 0)).filter(
    (side) => side !== 0,
  );
  return sum(sides, (side, k) => (k > 0 && side !== sides[k - 1] ? 1 : 0));
}

/** What a look shows of the band, with the light taken off. */
function paintedIn(sight: Sight, pose: Pose, bare: Torso): Painted {
  const body = seen({ ...bare, level: bare.level.map(() => 0) }, pose, sight.grid);
  const weights = sight.weights.map((weight, i) => weight * body.weights[i]!);
  const painted = againstAround({ values: sight.values, weights });
  return {
    pose,
    grid: sight.grid,
    painted: painted.map((value, i) => (weights[i]! > LEAST_WEIGHT ? value : NaN)),
  };
}

/**
 * Where the next look is likeliest, roughly.
 *
 * @param ahead by how much it turned last time
 * @param most by how much it can turn at most
 */
function nextOf(
  sight: Sight,
  torso: Torso,
  distance: number,
  now: Rough,
  ahead: number,
  most: number,
): Rough {
  const templates = templatesOf(torso, distance, sight.grid, [now.turn - most, now.turn + most]);
  const like = likeness(sight, templates);
  let best = now;
  let least = Infinity;
  templates.turns.forEach((turn, t) => {
    for (let p = 0; p < placesTried; p++) {
      const found = like[t * placesTried + p]!;
      const place = (p - PLACES) * PLACE_STEP * sight.grid.step;
      const against =
        unlikeOf(Math.max(0, found) ** 2) +
        0.5 * ((turn - now.turn - ahead) / NEXT.turn) ** 2 +
        0.5 * ((place - now.place) / STRAYS) ** 2;
      if (against < least) [least, best] = [against, { turn, place, likeness: found }];
    }
  });
  return best;
}
