/**
 * Motion: a track turned into metres along the student's own axes, in orthodox terms.
 *
 * `toward` runs to the target, `up` against gravity, `right` to the right of a student who faces
 * the target. A single picture shows two of the three; the third is not guessed. A southpaw strike
 * is mirrored (left and right landmarks swapped, `right` negated), so that every measure and limit
 * is written once, for an orthodox student whose rear side is the right.
 */
import { mirrored, otherSide, type Landmark, type Side } from '../body/landmarks';
import type { Source } from '../reading/reading';
import { lowerBound } from '../signal/interpolate';
import { strikeStance, type Strike } from '../technique/strike';
import type { Technique, View } from '../technique/catalogue';
import type { PictureTrack, Points, SpaceTrack, Track } from '../track/track';

export const AXES = ['toward', 'up', 'right'] as const;
export type Axis = (typeof AXES)[number];

/** The axes a view can show, once the target line is drawn where the view needs one. */
export const VIEW_AXES: Readonly<Record<View | '3d', readonly Axis[]>> = {
  side: ['toward', 'up'],
  front: ['up', 'right'],
  behind: ['up', 'right'],
  above: ['toward', 'right'],
  '3d': AXES,
};

export interface PixelPoint {
  readonly x: number;
  readonly y: number;
}

/** Two points of the picture a known distance apart, in the plane of the strike. */
export interface Scale {
  readonly from: PixelPoint;
  readonly to: PixelPoint;
  /** Metres. */
  readonly metres: number;
}

/** What one picture needs so that its pixels can be read as directions and lengths. */
export interface Calibration {
  readonly view: View;
  readonly scale: Scale | null;
  /** A line in the picture that points at the target; needed from the side and from above. */
  readonly target: { readonly from: PixelPoint; readonly to: PixelPoint } | null;
}

/** One landmark's path along the axes the view shows; frames and times ascending. */
export interface Path {
  readonly frames: readonly number[];
  readonly times: readonly number[];
  /** One list per axis of `Motion.axes`, in that order. */
  readonly along: readonly (readonly number[])[];
  readonly sigma: readonly number[];
}

export interface Motion {
  readonly source: Source;
  readonly view: View | '3d';
  /** The axes this motion knows, in the order of `Path.along`. */
  readonly axes: readonly Axis[];
  /** Metres when true; otherwise lengths are pixels, and only proportions and angles mean anything. */
  readonly metric: boolean;
  /** Relative standard deviation of the scale (0 when there is none or in 3D). */
  readonly scaleSigma: number;
  /** Relative standard deviation of a length because a picture shows it in projection; 0 in 3D. */
  readonly planeSigma: number;
  readonly frameTimes: readonly number[];
  /** The striking hand's side after mirroring: right for rear-hand strikes, left for lead-hand. */
  readonly striking: Side;
  /** True when a southpaw strike was mirrored: `paths` then hold the other side's points. */
  readonly isMirrored: boolean;
  /** What the striking side ends in: see `Technique.end`. */
  readonly end: Technique['end'];
  /** +1 when the rear side comes forward as the body turns into this strike, −1 when it goes back. */
  readonly turnSign: 1 | -1;
  /** As placed or tracked. */
  readonly raw: Partial<Record<Landmark, Path>>;
  /** As measured: see `prepared`. */
  readonly paths: Partial<Record<Landmark, Path>>;
}

/**
 * A link up to 20° out of the picture plane looks up to 1 − cos 20° = 6 % shorter, each amount
 * equally likely: σ = 6 % / √12, rounded up.
 */
const OUT_OF_PLANE = 0.02;

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
export function motionFromSpace(track: SpaceTrack, strike: Strike): Motion {
  return build(track, strike, {
    view: '3d',
    axes: AXES,
    metric: true,
    scaleSigma: 0,
    planeSigma: 0,
    metresPerUnit: 1,
    turn: (x, y, z) => [x, y, z],
  });
}

/**
 * Turn a picture's track into motion.
 *
 * From the side and from above without a target line there is no direction to measure along, and
 * the motion has no axes (every measure that needs one says so).
 */
export function motionFromPicture(
  track: PictureTrack,
  calibration: Calibration,
  strike: Strike,
): Motion {
  const { scale } = calibration;
  const pixels = scale ? Math.hypot(scale.to.x - scale.from.x, scale.to.y - scale.from.y) : 0;
  const metric = scale !== null && pixels > 0;
  return build(track, strike, {
    view: calibration.view,
    ...pictureAxes(calibration),
    metric,
    planeSigma: OUT_OF_PLANE,
    scaleSigma: metric ? (Math.SQRT2 * track.placingSigma) / pixels : 0,
    metresPerUnit: metric ? scale.metres / pixels : 1,
  });
}

type Turn = (x: number, y: number, z: number) => number[];

function pictureAxes({ view, target }: Calibration): { axes: readonly Axis[]; turn: Turn } {
  if (view === 'front') return { axes: VIEW_AXES[view], turn: (x, y) => [-y, -x] };
  if (view === 'behind') return { axes: VIEW_AXES[view], turn: (x, y) => [-y, x] };
  const dx = target ? target.to.x - target.from.x : 0;
  const dy = target ? target.to.y - target.from.y : 0;
  const size = Math.hypot(dx, dy);
  if (size === 0) return { axes: [], turn: () => [] };
  const tx = dx / size;
  const ty = dy / size;
  if (view === 'above') {
    // Seen from above, the student's right lies a quarter turn clockwise from the target.
    return { axes: VIEW_AXES[view], turn: (x, y) => [x * tx + y * ty, -x * ty + y * tx] };
  }
  const flip = tx >= 0 ? 1 : -1;
  return {
    axes: VIEW_AXES[view],
    turn: (x, y) => [x * tx + y * ty, flip * (x * ty - y * tx)],
  };
}

interface Recipe extends Pick<Motion, 'view' | 'axes' | 'metric' | 'scaleSigma' | 'planeSigma'> {
  readonly metresPerUnit: number;
  readonly turn: Turn;
}

function build(track: Track, strike: Strike, recipe: Recipe): Motion {
  const { turn, metresPerUnit, ...shown } = recipe;
  const isMirrored = strikeStance(strike) === 'southpaw';
  const signs = shown.axes.map((axis) => (isMirrored && axis === 'right' ? -1 : 1));
  const paths: Partial<Record<Landmark, Path>> = {};
  for (const [name, points] of Object.entries(track.points) as [Landmark, Points][]) {
    if (points.frames.length === 0) continue;
    const turned = points.frames.map((_, i) =>
      turn(points.x[i]!, points.y[i]!, points.z?.[i] ?? 0),
    );
    paths[isMirrored ? mirrored(name) : name] = {
      frames: points.frames,
      times: points.frames.map((frame) => track.frameTimes[frame]!),
      along: signs.map((sign, axis) => turned.map((p) => sign * p[axis]! * metresPerUnit)),
      sigma: points.sigma.map((s) => s * metresPerUnit),
    };
  }
  const striking = isMirrored ? otherSide(strike.side) : strike.side;
  return {
    ...shown,
    source: track.source,
    frameTimes: track.frameTimes,
    isMirrored,
    striking,
    end: strike.technique.end,
    turnSign: (striking === 'right') === (strike.technique.turns === 'forward') ? 1 : -1,
    raw: paths,
    paths,
  };
}
