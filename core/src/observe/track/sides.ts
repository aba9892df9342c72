/**
 * Which limb is whose. A body tracker takes the left arm for the right now and then, most of all
 * when hands cross or one hides the other; the limbs themselves cannot change places in a frame.
 */
import { mirrored, type Landmark } from '../../foundation/body/landmarks';
import { seen, detectionOf, type PoseDetection } from './poseDetection';

/** Limbs that change places together, by the landmarks of the left one. */
const LIMBS: readonly (readonly Landmark[])[] = [
  ['leftElbow', 'leftWrist', 'leftIndexKnuckle', 'leftLittleKnuckle'],
  ['leftKnee', 'leftAnkle', 'leftHeel', 'leftToe'],
];

/** The landmarks that are exchanged when this one changes sides; none for those that stay. */
export function limbOf(landmark: Landmark): readonly Landmark[] {
  const limb = LIMBS.find((one) => one.includes(landmark) || one.includes(mirrored(landmark)));
  return limb ? [...limb, ...limb.map(mirrored)] : [];
}

/** A step of this share of the body's height from one detection to the next is worth one unit. */
const STEP = 0.025;
/** No step counts for more than this, so that one wild point does not decide. */
const MOST = 150;
/** What it costs to hold against the tracker, each second. */
const AGAINST = 60;
/** Detections further apart than this tell nothing of which limb is whose, seconds. */
const APART = 0.05;

/**
 * The detections with limbs changed over where that makes the paths hang together.
 *
 * The labelling that makes all steps together smallest, found by dynamic programming (Viterbi 1967)
 * over two states, as the tracker has it and the other way round.
 *
 * @param detections frames ascending
 * @param stature the body's height, pixels
 * @returns also which frames were changed, by the landmarks of the limb
 */
export function sidesCorrected(
  detections: readonly PoseDetection[],
  frameTimes: readonly number[],
  stature: number,
): {
  readonly detections: readonly PoseDetection[];
  readonly changed: ReadonlyMap<Landmark, Set<number>>;
} {
  const changed = new Map<Landmark, Set<number>>();
  let cleanDetections = detections;
  for (const limb of LIMBS) {
    const isSwapped = labelled(detections, frameTimes, stature, limb);
    if (!isSwapped.includes(true)) continue;
    const frames = new Set(detections.filter((_, i) => isSwapped[i]).map(({ frame }) => frame));
    for (const landmark of limbOf(limb[0]!)) changed.set(landmark, frames);
    cleanDetections = cleanDetections.map((one) =>
      frames.has(one.frame) ? exchanged(one, limb) : one,
    );
  }
  return { detections: cleanDetections, changed };
}

/** A detection with the limb's landmarks exchanged with those of the other side. */
export function exchanged(detection: PoseDetection, limb: readonly Landmark[]): PoseDetection {
  return detectionOf(detection.frame, (landmark) => {
    const isOf = limb.includes(landmark) || limb.includes(mirrored(landmark));
    return seen(detection, isOf ? mirrored(landmark) : landmark);
  });
}

function labelled(
  detections: readonly PoseDetection[],
  frameTimes: readonly number[],
  stature: number,
  limb: readonly Landmark[],
): boolean[] {
  const unit = limb.length * (STEP * stature) ** 2;
  const from: (readonly [0 | 1, 0 | 1])[] = [];
  let cost = [0, 0] as [number, number];
  for (let i = 1; i < detections.length; i++) {
    const [before, now] = [detections[i - 1]!, detections[i]!];
    const apart = frameTimes[now.frame]! - frameTimes[before.frame]!;
    const isTold = apart <= APART;
    const kept = isTold ? Math.min(MOST, steps(before, now, limb, false) / unit) : 0;
    const crossed = isTold ? Math.min(MOST, steps(before, now, limb, true) / unit) : MOST;
    const into = (same: number, other: number): readonly [number, 0 | 1] =>
      same + kept <= other + crossed ? [same + kept, 0] : [other + crossed, 1];
    const [own, ownFrom] = into(cost[0], cost[1]);
    const [swapped, swappedFrom] = into(cost[1], cost[0]);
    cost = [own, swapped + AGAINST * Math.min(apart, APART)];
    from.push([ownFrom, swappedFrom]);
  }
  const isSwapped: boolean[] = [];
  let state: 0 | 1 = cost[1] < cost[0] ? 1 : 0;
  for (let i = detections.length - 1; i >= 0; i--) {
    isSwapped[i] = state === 1;
    const changes = from[i - 1]?.[state] === 1;
    if (changes) state = state === 1 ? 0 : 1;
  }
  return isSwapped;
}

/** Squared steps of both limbs together, when they keep their sides or change them. */
function steps(
  before: PoseDetection,
  now: PoseDetection,
  limb: readonly Landmark[],
  isCrossed: boolean,
): number {
  let sum = 0;
  for (const landmark of [...limb, ...limb.map(mirrored)]) {
    const a = seen(before, landmark);
    const b = seen(now, isCrossed ? mirrored(landmark) : landmark);
    sum += (b.x - a.x) ** 2 + (b.y - a.y) ** 2;
  }
  return sum;
}
