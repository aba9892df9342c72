/**
 * From what a body tracker saw to a track: limbs on their own sides, jumps and guesses left out, the
 * coach's points in their midst, every point with how far it can be trusted, and a list of what is
 * worth a look.
 */
import { LANDMARKS, type Landmark } from '../../foundation/body/landmarks';
import { covers, type Correction } from './correction';
import { doubtsOf, type Doubt, type Reason } from './doubts';
import { withoutJumps, type SeenPoint } from './jumps';
import { pulled, type Dense, type PlacedPath } from './pull';
import { exchanged, limbOf, sidesCorrected } from './sides';
import { tooLong } from './lengths';
import { seen, type PoseDetection } from './poseDetection';
import { statureOf } from './stature';
import { trackFromPlaced, type PictureTrack, type Placed, type Points } from './track';
import { HIDDEN, biasSigma, jitterSigma, UNSURE } from './pointSigma';

/** What the coach has said of a film's points. */
export interface Said {
  readonly placed: readonly Placed[];
  readonly corrections: readonly Correction[];
}

export interface Tracking {
  readonly track: PictureTrack;
  readonly doubts: readonly Doubt[];
  /** The detections with every limb on its own side, frames ascending. */
  readonly detections: readonly PoseDetection[];
  /** Standing height in the picture, pixels; 0 when nothing was tracked. */
  readonly stature: number;
}

/** What the tracker saw, cleaned as far as it goes without the coach: made once for a film. */
export interface CleanDetections {
  readonly frameTimes: readonly number[];
  readonly detections: readonly PoseDetection[];
  readonly stature: number;
  readonly cleaned: ReadonlyMap<Landmark, CleanLandmark>;
  /** What is known to be wrong of each landmark before its own path is looked at. */
  readonly known: ReadonlyMap<Landmark, Known>;
}

interface Known {
  /** Frames on which the landmark makes a link longer than a body has it. */
  readonly wrong: ReadonlySet<number>;
  /** Frames on which its limb was taken for the other one. */
  readonly changed: ReadonlySet<number>;
}

/** A landmark's points without jumps and guesses, and the frames on which it is to be doubted. */
interface CleanLandmark {
  readonly tracked: Dense | null;
  readonly reasons: ReadonlyMap<number, Reason>;
}

/**
 * @param seenByTracker in any order, at most one detection a frame
 * @param frameTimes real time of every frame of the clip, seconds
 */
export function cleanDetections(
  seenByTracker: readonly PoseDetection[],
  frameTimes: readonly number[],
): CleanDetections {
  const inOrder = seenByTracker
    .filter(({ frame }) => frame < frameTimes.length)
    .sort((a, b) => a.frame - b.frame);
  const stature = statureOf(inOrder);
  const { detections, changed } = sidesCorrected(inOrder, frameTimes, stature);
  const wrong = tooLong(detections, stature);
  const known = new Map(
    LANDMARKS.map((landmark) => [
      landmark,
      { wrong: wrong.get(landmark) ?? NOWHERE, changed: changed.get(landmark) ?? NOWHERE },
    ]),
  );
  const base = { frameTimes, detections, stature, known };
  const cleaned = new Map(
    detections.length === 0
      ? []
      : LANDMARKS.map((landmark) => [landmark, cleanLandmark(landmark, base, detections, [])]),
  );
  return { ...base, cleaned };
}

/**
 * The track of a film: what the tracker saw and what the coach has said, together. Only landmarks
 * that the coach has spoken of are worked out anew.
 *
 * @param pictureHeight pixels
 */
export function trackFrom(
  base: CleanDetections,
  { placed, corrections }: Said,
  pictureHeight: number,
): Tracking {
  const { frameTimes, stature } = base;
  const byHand = trackFromPlaced(placed, frameTimes, pictureHeight);
  const detections = swappedByHand(base.detections, corrections);
  if (detections.length === 0) return { track: byHand, doubts: [], detections, stature };
  const points: Partial<Record<Landmark, Points>> = { ...byHand.points };
  const doubted = new Map<Landmark, CleanLandmark['reasons']>();
  const settledBy = new Map<Landmark, readonly number[]>();
  for (const landmark of LANDMARKS) {
    const own = corrections.filter((one) => isAbout(one, landmark));
    const { tracked, reasons } =
      own.length > 0 ? cleanLandmark(landmark, base, detections, own) : base.cleaned.get(landmark)!;
    doubted.set(landmark, reasons);
    const hand = byHand.points[landmark];
    if (hand) settledBy.set(landmark, hand.frames);
    if (!tracked) continue;
    const { times: _, ...merged } = hand
      ? pulled(tracked, handPath(hand, frameTimes, byHand.placingSigma))
      : tracked;
    points[landmark] = merged;
  }
  return {
    track: { ...byHand, isByHand: false, points },
    doubts: doubtsOf(doubted, settledBy, frameTimes),
    detections,
    stature,
  };
}

function isAbout({ kind, landmark }: Correction, asked: Landmark): boolean {
  return kind === 'swap' ? limbOf(landmark).includes(asked) : landmark === asked;
}

function swappedByHand(
  detections: readonly PoseDetection[],
  corrections: readonly Correction[],
): readonly PoseDetection[] {
  const swaps = corrections.filter(({ kind }) => kind === 'swap');
  if (swaps.length === 0) return detections;
  return detections.map((detection) =>
    swaps
      .filter((swap) => covers(swap, detection.frame))
      .reduce((now, { landmark }) => exchanged(now, limbOf(landmark)), detection),
  );
}

const NOWHERE: ReadonlySet<number> = new Set();

function cleanLandmark(
  landmark: Landmark,
  { frameTimes, stature, known }: Pick<CleanDetections, 'frameTimes' | 'stature' | 'known'>,
  detections: readonly PoseDetection[],
  said: readonly Correction[],
): CleanLandmark {
  const { wrong, changed } = known.get(landmark)!;
  const reasons = new Map<number, Reason>();
  const isSaid = (kind: Correction['kind'], frame: number) =>
    said.some((one) => one.kind === kind && covers(one, frame));
  const points = detections.flatMap((detection): SeenPoint[] => {
    const { frame } = detection;
    const { x, y, visibility } = seen(detection, landmark);
    const point = { frame, time: frameTimes[frame]!, x, y, visibility };
    if (isSaid('drop', frame)) return [];
    if (isSaid('keep', frame)) return [{ ...point, visibility: 1 }];
    // Limbs that the coach has exchanged are as they should be.
    const isSwapped = isSaid('swap', frame);
    if (changed.has(frame) && !isSwapped) reasons.set(frame, 'swapped');
    if (visibility < UNSURE) reasons.set(frame, visibility < HIDDEN ? 'hidden' : 'unsure');
    if (wrong.has(frame) && !isSwapped) reasons.set(frame, 'jumps');
    return visibility < HIDDEN || (wrong.has(frame) && !isSwapped) ? [] : [point];
  });
  const hangsTogether = withoutJumps(points, stature);
  const kept = points.filter(({ frame }, i) => {
    const isKept = hangsTogether[i] || isSaid('keep', frame);
    if (!isKept) reasons.set(frame, 'jumps');
    return isKept;
  });
  return { tracked: kept.length > 0 ? withSigmas(landmark, kept, stature) : null, reasons };
}

function withSigmas(landmark: Landmark, kept: readonly SeenPoint[], stature: number): Dense {
  return {
    frames: kept.map(({ frame }) => frame),
    times: kept.map(({ time }) => time),
    x: kept.map(({ x }) => x),
    y: kept.map(({ y }) => y),
    sigma: jitterSigma(kept, stature),
    bias: kept.map(({ visibility }) => stature * biasSigma(landmark, visibility)),
    isTracked: true,
  };
}

function handPath(
  { frames, x, y }: Points,
  frameTimes: readonly number[],
  sigma: number,
): PlacedPath {
  return { frames, times: frames.map((frame) => frameTimes[frame]!), x, y, sigma };
}
