/** Whether a track in space is as large as a person: files mistake millimetres for metres, and worse. */
import { median } from 'd3-array';
import { SEGMENT_LENGTH } from '../../foundation/body/segments';
import { sided, type SidedPart } from '../../foundation/body/landmarks';
import type { Points, SpaceTrack } from './track';

const LINKS: readonly (readonly [SidedPart, SidedPart, number])[] = [
  ['Hip', 'Knee', SEGMENT_LENGTH.thigh],
  ['Knee', 'Ankle', SEGMENT_LENGTH.shank],
  ['Shoulder', 'Elbow', SEGMENT_LENGTH.upperArm],
  ['Elbow', 'Wrist', SEGMENT_LENGTH.forearm],
];
/** Standing heights of people who strike, child to giant, metres. */
const PEOPLE = { from: 0.9, to: 2.3 };
/** Links of a body differ from the table's, and trackers put joints where they like. */
const STRAYS = 1.35;
/** What somebody who mistakes a unit is off by, and what the file then is in. */
const MISTAKES = [
  [1000, 'in millimetres'],
  [100, 'in centimetres'],
  [0.001, 'in metres, and said to be in millimetres'],
  [0.01, 'in metres, and said to be in centimetres'],
] as const;

/**
 * @param height of the student, metres; null when it is not known
 * @returns what is wrong, as the end of a sentence; null for the size of a person, or with no limb to tell
 */
export function sizeProblem({ points }: SpaceTrack, height: number | null): string | null {
  const tall = heightBy(points);
  if (tall === null) return null;
  const [from, to] = height === null ? [PEOPLE.from, PEOPLE.to] : [height, height];
  if (tall >= from / STRAYS && tall <= to * STRAYS) return null;
  const times = tall / (height ?? 1.75);
  const mistake = MISTAKES.find(([by]) => times > by / 1.6 && times < by * 1.6);
  const whose = height === null ? 'a person’s' : `those of somebody ${height} m tall`;
  return mistake
    ? `lengths are ${mistake[0]} times ${whose}: is the file ${mistake[1]}?`
    : `lengths are ${inWords(times)} times ${whose}: which unit is the file in?`;
}

const inWords = (times: number) =>
  times >= 0.01 && times < 10_000 ? times.toPrecision(2) : times.toExponential(0);

/** Standing height by the limbs, metres: the middle of what each tells. */
function heightBy(points: SpaceTrack['points']): number | null {
  const heights = (['left', 'right'] as const).flatMap((side) =>
    LINKS.flatMap(([near, far, share]) => {
      const length = usualDistance(points[sided(side, near)], points[sided(side, far)]);
      return length === null ? [] : [length / share];
    }),
  );
  return median(heights) ?? null;
}

/** Median distance of two landmarks over the frames that show both. */
function usualDistance(a: Points | undefined, b: Points | undefined): number | null {
  if (!a || !b) return null;
  const at = new Map(b.frames.map((frame, i) => [frame, i]));
  const distances = a.frames.flatMap((frame, i) => {
    const k = at.get(frame);
    return k === undefined
      ? []
      : [Math.hypot(b.x[k]! - a.x[i]!, b.y[k]! - a.y[i]!, b.z![k]! - a.z![i]!)];
  });
  return median(distances) ?? null;
}
