/**
 * How large a student's own forearm and foot are beside an ordinary adult's: what is a low hand or a high
 * heel on a grown man is lower, or higher, on a child. Limits on such sizes are the adult's, times this.
 */
import { median } from 'd3-array';
import { SEGMENT_LENGTH } from '../../foundation/body/segments';
import { sided, type SidedPart } from '../../foundation/body/landmarks';
import type { Motion, Path } from '../../reconstruct/motion/motion';
import type { Body } from './context';

/** The standing height that limits in metres are written for (common practice, no source). */
export const ORDINARY_HEIGHT = 1.75;
/** The toe's landmark lies a twentieth of the foot before its tip. */
export const FOOT_MARKED = 0.95;
/** Metres on that adult. */
const ADULT = {
  forearm: SEGMENT_LENGTH.forearm * ORDINARY_HEIGHT,
  foot: FOOT_MARKED * SEGMENT_LENGTH.foot * ORDINARY_HEIGHT,
};
export type OwnPart = keyof typeof ADULT;
const ENDS: Readonly<Record<OwnPart, readonly [SidedPart, SidedPart]>> = {
  forearm: ['Elbow', 'Wrist'],
  foot: ['Heel', 'Toe'],
};
/** With fewer frames a part is not measured. */
const FEWEST = 8;
/** People, child to giant; what lies beyond is a track's mistake. */
const LEAST = 0.45;
const MOST = 1.4;

/**
 * The student's own part ÷ the ordinary adult's: measured in space where the body is known there, else
 * by the height that was entered, else 1.
 */
export function ownSize(motion: Motion, { height }: Body, part: OwnPart): number {
  const long = motion.axes.length === 3 && motion.metric ? lengthIn(motion, part) : null;
  const size = long !== null ? long / ADULT[part] : (height ?? ORDINARY_HEIGHT) / ORDINARY_HEIGHT;
  return Math.min(MOST, Math.max(LEAST, size));
}

/** By motion: several measures ask for the same part. */
const known = new WeakMap<Motion, Map<OwnPart, number | null>>();

/** The usual length of a part, metres, over both sides; null with too little to tell. */
function lengthIn(motion: Motion, part: OwnPart): number | null {
  const own = known.get(motion) ?? new Map<OwnPart, number | null>();
  known.set(motion, own);
  if (!own.has(part)) own.set(part, middleLength(motion, part));
  return own.get(part)!;
}

function middleLength({ raw }: Motion, part: OwnPart): number | null {
  const [near, far] = ENDS[part];
  const lengths = (['left', 'right'] as const).flatMap((side) =>
    between(raw[sided(side, near)], raw[sided(side, far)]),
  );
  return lengths.length < FEWEST ? null : median(lengths)!;
}

function between(a: Path | undefined, b: Path | undefined): number[] {
  if (!a || !b) return [];
  const places = new Map(b.frames.map((frame, i) => [frame, i]));
  return a.frames.flatMap((frame, i) => {
    const at = places.get(frame);
    if (at === undefined) return [];
    return Math.hypot(...a.along.map((values, axis) => values[i]! - b.along[axis]![at]!));
  });
}
