/** Turn of pelvis and trunk about the vertical, where the motion shows it. */
import type { Source } from '../../foundation/reading/reading';
import { placeSigma, type Motion, type PathSet } from './motion';
import { LINES, sightOf, type TurningLink } from './sight';
import { shared } from './where';

export interface TurnSeries {
  readonly frames: readonly number[];
  readonly times: readonly number[];
  /** Radians, unwrapped; 0 = square to the target, positive = the rear side has come forward. */
  readonly yaw: readonly number[];
  readonly sigma: readonly number[];
}

/**
 * Yaw of the line between the two hips or shoulders, on the frames where both are known.
 * `null` when the view does not show the ground plane (side, front, behind) or no frame has both.
 */
export function turnSeries(
  motion: Pick<Motion, 'axes' | PathSet>,
  link: TurningLink,
  from: PathSet = 'paths',
): TurnSeries | null {
  const toward = motion.axes.indexOf('toward');
  const right = motion.axes.indexOf('right');
  const left = motion[from][LINES[link][0]];
  const rear = motion[from][LINES[link][1]];
  if (toward < 0 || right < 0 || !left || !rear) return null;
  const series = {
    frames: [] as number[],
    times: [] as number[],
    yaw: [] as number[],
    sigma: [] as number[],
  };
  let previous = 0;
  for (const [i, k] of shared(left, rear)) {
    const forward = rear.along[toward]![k]! - left.along[toward]![i]!;
    const sideways = rear.along[right]![k]! - left.along[right]![i]!;
    const raw = Math.atan2(forward, sideways);
    const yaw = raw - 2 * Math.PI * Math.round((raw - previous) / (2 * Math.PI));
    previous = yaw;
    series.frames.push(rear.frames[k]!);
    series.times.push(rear.times[k]!);
    series.yaw.push(yaw);
    series.sigma.push(
      Math.hypot(placeSigma(left, i), placeSigma(rear, k)) / Math.hypot(forward, sideways),
    );
  }
  return series.frames.length > 0 ? series : null;
}

/** How long a line is can only be guessed from how long it looks at most; a share of it, on made-up strikes. */
const LENGTH_GUESSED = 0.1;
/** A line that lies nearly along the picture hardly changes its length as it turns. */
const LEAST_SLOPE = 0.25;

/** The same from one level camera, where `sightOf` says that a line's length tells its turn. */
function sightedTurn(motion: Motion, link: TurningLink): TurnSeries | null {
  const sight = sightOf(motion);
  const [left, rear] = LINES[link].map((end) => motion.paths[end]);
  const axis = sight ? motion.axes.indexOf(sight.along) : -1;
  const pairs = left && rear ? shared(left, rear) : [];
  if (!sight || !left || !rear || pairs.length === 0) return null;
  const across = pairs.map(([i, k]) => rear.along[axis]![k]! - left.along[axis]![i]!);
  const whole = Math.max(...across.map(Math.abs)) / sight.longest;
  const yaws = across.map((seen) => sight.angleOf(seen / whole) - sight.azimuth);
  return {
    frames: pairs.map(([, k]) => rear.frames[k]!),
    times: pairs.map(([, k]) => rear.times[k]!),
    yaw: yaws,
    sigma: pairs.map(([i, k], at) => {
      const share = Math.min(1, Math.abs(across[at]!) / whole);
      const slope = Math.max(LEAST_SLOPE, Math.sqrt(1 - share ** 2));
      const placed = Math.hypot(placeSigma(left, i), placeSigma(rear, k)) / whole;
      return Math.hypot(placed, LENGTH_GUESSED * share) / slope;
    }),
  };
}

/** How hips and shoulders stand over the floor through a strike, as one source shows it. */
export interface Turns {
  readonly source: Source;
  /** A southpaw's: seen in a mirror. */
  readonly isMirrored: boolean;
  /** +1 when yaw grows as the body turns into this strike. */
  readonly sign: 1 | -1;
  readonly pelvis: TurnSeries | null;
  readonly trunk: TurnSeries | null;
}

/** @returns null where neither shows, or only a body tracker's guess of it */
export function turnsIn(motion: Motion): Turns | null {
  const { source, isMirrored, turnSign: sign, raw } = motion;
  const isTracked = Object.values(LINES).some(([left]) => raw[left]?.isTracked === true);
  const isGuess = source === 'estimated-3d' || (source === 'measured-2d' && isTracked);
  if (isGuess) return null;
  const of = (link: TurningLink) => turnSeries(motion, link) ?? sightedTurn(motion, link);
  const [pelvis, trunk] = [of('pelvis'), of('trunk')];
  return pelvis || trunk ? { source, isMirrored, sign, pelvis, trunk } : null;
}
