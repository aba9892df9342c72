/**
 * Motion: a track turned into metres along the student's own axes, in orthodox terms.
 *
 * `toward` runs to the target, `up` against gravity, `right` to the right of a student who faces
 * the target. A single picture shows two of the three; the third is not guessed. A southpaw strike
 * is mirrored (left and right landmarks swapped, `right` negated), so that every measure and limit
 * is written once, for an orthodox student whose rear side is the right.
 */
import { AXES, type Axis, type Calibration } from '../calibration/calibration';
import { aslantOf, pictureMap } from '../calibration/picture';
import { mirrored, otherSide, type Landmark, type Side } from '../../foundation/body/landmarks';
import type { Source } from '../../foundation/reading/reading';
import { lowerBound } from '../../foundation/signal/interpolate';
import { strikeStance, type Strike } from '../../foundation/technique/strike';
import type { Technique, View } from '../../foundation/technique/techniques';
import type { PerAxis, PictureTrack, Points, SpaceTrack, Track } from '../../observe/track/track';

/** One landmark's path along the axes the view shows; frames and times ascending. */
export interface Path {
  readonly frames: readonly number[];
  readonly times: readonly number[];
  /** One list per axis of `Motion.axes`, in that order. */
  readonly along: readonly (readonly number[])[];
  /** Shake from frame to frame. */
  readonly sigma: readonly number[];
  /** An error that stays from frame to frame, same unit; all 0 where there is none. */
  readonly bias: readonly number[];
  /** Seconds over which the shake falls to 1/e of its likeness with itself; 0 from one frame to the next. */
  readonly hangs: number;
  /** Seen by a body tracker, which errs in ways of its own; else placed by hand or by markers. */
  readonly isTracked: boolean;
}

/** How far off a sample may be, shake and lasting error together: one standard deviation. */
export function placeSigma({ sigma, bias }: Path, index: number): number {
  return Math.hypot(sigma[index]!, bias[index]!);
}

/** Seconds over which the shake of a motion's points hangs together. */
export const hangsOf = ({ raw }: Pick<Motion, 'raw'>): number =>
  Math.max(0, ...Object.values(raw).map(({ hangs }) => hangs));

/** Which paths of a motion: as measured (`paths`), or as placed or tracked (`raw`). */
export type PathSet = 'paths' | 'raw';

export interface Motion {
  readonly source: Source;
  readonly view: View | '3d';
  /** The axes this motion knows, in the order of `Path.along`. */
  readonly axes: readonly Axis[];
  /** Metres when true; otherwise lengths are pixels, and only proportions and angles mean anything. */
  readonly metric: boolean;
  /** Relative standard deviation of the scale (0 when there is none or in 3D). */
  readonly scaleSigma: number;
  /** By how much less sure a place is along each axis than its σ says: more than once where depth is guessed. */
  readonly deep: PerAxis;
  /** Relative standard deviation of a length because a picture shows it in projection; 0 in 3D. */
  readonly planeSigma: number;
  /** Where the camera stands: see `Calibration.azimuth`; null where only the view is known. */
  readonly azimuth: number | null;
  /** Radians by which the camera stands off the place that its view is named after. */
  readonly aslant: number;
  /** Whether turns are counted from square to the target, or from wherever a guard stood. */
  readonly isSquareKnown: boolean;
  readonly frameTimes: readonly number[];
  /** The striking hand's side after mirroring: right for rear-hand strikes, left for lead-hand. */
  readonly striking: Side;
  /** True when a southpaw strike was mirrored: `paths` then hold the other side's points. */
  readonly isMirrored: boolean;
  /** What the striking side ends in: see `Technique.end`. */
  readonly end: Technique['end'];
  /** All points were placed by hand. */
  readonly isByHand: boolean;
  /** Somebody has smoothed the points already, and their edges with them. */
  readonly isSmoothed: boolean;
  /** +1 when the rear side comes forward as the body turns into this strike, −1 when it goes back. */
  readonly turnSign: 1 | -1;
  /** As placed or tracked. */
  readonly raw: Partial<Record<Landmark, Path>>;
  /** As measured: see `prepared`. */
  readonly paths: Partial<Record<Landmark, Path>>;
}

/** The part of a motion between two times, seconds; frames keep their numbers. */
export function excerpt(motion: Motion, from: number, to: number): Motion {
  const cut = (path: Path): Path => {
    const first = lowerBound(path.times, from);
    const last = lowerBound(path.times, to);
    return {
      frames: path.frames.slice(first, last),
      times: path.times.slice(first, last),
      along: path.along.map((values) => values.slice(first, last)),
      sigma: path.sigma.slice(first, last),
      bias: path.bias.slice(first, last),
      hangs: path.hangs,
      isTracked: path.isTracked,
    };
  };
  const raw = Object.fromEntries(
    Object.entries(motion.raw)
      .map(([name, path]) => [name, cut(path)] as const)
      .filter(([, path]) => path.frames.length > 0),
  );
  return { ...motion, raw, paths: raw };
}

/** Turn a 3D track into motion; the world axes are the student's axes already. */
/** As sure along one axis as along another. */
export const EVENLY: PerAxis = [1, 1, 1];

export function motionFromSpace(track: SpaceTrack, strike: Strike): Motion {
  return build(track, strike, {
    view: '3d',
    axes: AXES,
    metric: true,
    scaleSigma: track.scaleSigma ?? 0,
    deep: track.deep ?? EVENLY,
    planeSigma: 0,
    azimuth: null,
    aslant: 0,
    isSquareKnown: true,
    isByHand: false,
    place: (x, y, z) => [x, y, z],
    unitAt: () => 1,
  });
}

/**
 * Turn a picture's track into motion.
 *
 * Where the picture shows no direction to measure along, the motion has no axes (every measure that
 * needs one says so).
 *
 * @throws RangeError in words for the coach when what is set in the picture fixes nothing
 */
export function motionFromPicture(
  track: PictureTrack,
  calibration: Calibration,
  strike: Strike,
): Motion {
  const { place, unitAt, ...map } = pictureMap(calibration, track.placingSigma);
  return build(track, strike, {
    ...map,
    deep: EVENLY,
    view: calibration.view,
    azimuth: calibration.azimuth ?? null,
    aslant: aslantOf(calibration),
    isSquareKnown: true,
    isByHand: track.isByHand ?? false,
    place: (x, y) => place({ x, y }),
    unitAt: (x, y) => unitAt({ x, y }),
  });
}

/** See `Motion.turnSign`. */
export const turnSignOf = (striking: Side, { turns }: Technique): 1 | -1 =>
  (striking === 'right') === (turns === 'forward') ? 1 : -1;

interface Recipe extends Pick<
  Motion,
  | 'view'
  | 'axes'
  | 'metric'
  | 'scaleSigma'
  | 'deep'
  | 'planeSigma'
  | 'azimuth'
  | 'aslant'
  | 'isSquareKnown'
  | 'isByHand'
> {
  readonly place: (x: number, y: number, z: number) => readonly number[];
  /** Metres (or pixels) that one unit of the track is worth at a place. */
  readonly unitAt: (x: number, y: number) => number;
}

function build(track: Track, strike: Strike, recipe: Recipe): Motion {
  const { place, unitAt, ...shown } = recipe;
  const isMirrored = strikeStance(strike) === 'southpaw';
  const signs = shown.axes.map((axis) => (isMirrored && axis === 'right' ? -1 : 1));
  const inUnits = (pixels: readonly number[], { x, y }: Points) =>
    pixels.map((value, i) => value * unitAt(x[i]!, y[i]!));
  const paths: Partial<Record<Landmark, Path>> = {};
  for (const [name, points] of Object.entries(track.points) as [Landmark, Points][]) {
    if (points.frames.length === 0) continue;
    const turned = points.frames.map((_, i) =>
      place(points.x[i]!, points.y[i]!, points.z?.[i] ?? 0),
    );
    paths[isMirrored ? mirrored(name) : name] = {
      frames: points.frames,
      times: points.frames.map((frame) => track.frameTimes[frame]!),
      along: signs.map((sign, axis) => turned.map((p) => sign * p[axis]!)),
      sigma: inUnits(points.sigma, points),
      bias: points.bias ? inUnits(points.bias, points) : points.frames.map(() => 0),
      hangs: 0,
      isTracked: points.isTracked ?? false,
    };
  }
  const striking = isMirrored ? otherSide(strike.side) : strike.side;
  return {
    ...shown,
    source: track.source,
    isSmoothed: false,
    frameTimes: track.frameTimes,
    isMirrored,
    striking,
    end: strike.technique.end,
    turnSign: turnSignOf(striking, strike.technique),
    raw: paths,
    paths,
  };
}
