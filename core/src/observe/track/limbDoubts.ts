/** Doubts as a coach would name them: a whole arm or leg where most of it is doubtful at once. */
import { landmarkName, sided, type Landmark, type Side } from '../../foundation/body/landmarks';
import type { Doubt, Reason } from './doubts';

export interface LimbDoubt {
  /** Nearest the trunk first. */
  readonly landmarks: readonly Landmark[];
  /** "left arm", "right wrist". */
  readonly name: string;
  /** Frames, both included. */
  readonly from: number;
  readonly to: number;
  readonly why: Reason;
}

const LIMBS = {
  arm: ['Elbow', 'Wrist', 'IndexKnuckle', 'LittleKnuckle'],
  leg: ['Knee', 'Ankle', 'Heel', 'Toe'],
} as const;
/** So many of a limb's four landmarks make it the limb. */
const MOST = 3;

/**
 * @param doubts in the order of their frames
 * @returns the same, those of one limb that overlap together, in the order of their frames
 */
export function limbDoubts(doubts: readonly Doubt[]): LimbDoubt[] {
  const left = new Set(doubts);
  const found: LimbDoubt[] = [];
  for (const side of ['left', 'right'] as const) {
    for (const [limb, parts] of Object.entries(LIMBS)) {
      const own = parts.map((part) => sided(side, part));
      for (const doubt of doubts) {
        if (!left.has(doubt) || !own.includes(doubt.landmark)) continue;
        const together = doubts.filter(
          (other) => left.has(other) && own.includes(other.landmark) && overlaps(doubt, other),
        );
        if (new Set(together.map(({ landmark }) => landmark)).size < MOST) continue;
        for (const one of together) left.delete(one);
        found.push(joined(together, own, nameOf(side, limb)));
      }
    }
  }
  const single = [...left].map(({ landmark, ...rest }) => ({
    landmarks: [landmark],
    name: landmarkName(landmark),
    ...rest,
  }));
  return [...found, ...single].sort((a, b) => a.from - b.from || a.to - b.to);
}

const nameOf = (side: Side, limb: string) => `${side} ${limb}`;

const overlaps = (a: Doubt, b: Doubt) => a.from <= b.to && b.from <= a.to;

function joined(doubts: readonly Doubt[], order: readonly Landmark[], name: string): LimbDoubt {
  return {
    landmarks: order.filter((one) => doubts.some(({ landmark }) => landmark === one)),
    name,
    from: Math.min(...doubts.map(({ from }) => from)),
    to: Math.max(...doubts.map(({ to }) => to)),
    why: doubts[0]!.why,
  };
}
