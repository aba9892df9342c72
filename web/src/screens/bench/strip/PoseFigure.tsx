'use client';

import type { Landmark, Side, SidedPart } from '@sinew/core/foundation/body/landmarks';
import { sided } from '@sinew/core/foundation/body/landmarks';
import type { LinkVerdict } from '@sinew/core/measure/chain/verdict';
import type { Link, Technique } from '@sinew/core/foundation/technique/techniques';
import { useBench } from '../document/benchStore';
import type { ShownPoint } from '../picture/pointsOnPicture';
import { usePoints } from '../picture/usePoints';
import { ChainFigure, LinkLine, type Point } from './ChainFigure';
import { laneHeight, lanesOf } from './lanes';

const WIDTH = 64;
/** Room for the head over the shoulders, and for a line's own breadth. */
const EDGE = 9;
/** A body is drawn of so many of the twelve points of trunk, arms and legs, or more. */
const ENOUGH = 8;
const OF_BODY = ['Shoulder', 'Elbow', 'Wrist', 'Hip', 'Knee', 'Ankle'] as const;

/** The body as it stands on the frame in hand, each link by its verdict; a plain one where it is not known. */
export function PoseFigure(props: {
  technique: Technique;
  side: Side;
  links: Partial<Record<Link, LinkVerdict>>;
}) {
  const frame = useBench((state) => state.frame);
  const points = usePoints(frame);
  const known = points.filter(({ landmark }) => OF_BODY.some((part) => landmark.endsWith(part)));
  if (known.length < ENOUGH) {
    return <ChainFigure technique={props.technique} links={props.links} />;
  }
  return <Pose {...props} points={points} />;
}

function Pose({
  technique,
  side,
  links,
  points,
}: {
  technique: Technique;
  side: Side;
  links: Partial<Record<Link, LinkVerdict>>;
  points: readonly ShownPoint[];
}) {
  const lanes = lanesOf(technique);
  const height = laneHeight(lanes) * lanes.length;
  const place = fitted(points, WIDTH, height);
  const at = (landmark: Landmark) => place(points.find((one) => one.landmark === landmark));
  const middle = (part: SidedPart): Point | null => {
    const [a, b] = [at(sided('left', part)), at(sided('right', part))];
    return a && b ? [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2] : null;
  };
  const line = (...way: (Point | null)[]) =>
    way.every((one) => one !== null)
      ? `M${way.map((one) => (one as Point).join(' ')).join(' L')}`
      : '';
  const limb = (of: Side, ...parts: SidedPart[]) => {
    const known = parts.map((part) => at(sided(of, part))).filter((one) => one !== null);
    return known.length > 1 ? line(...known) : '';
  };
  const isKick = technique.chain.includes('thigh');
  const off: Side = side === 'left' ? 'right' : 'left';
  const standing: readonly Side[] = isKick ? [off] : ['left', 'right'];
  const trunk = line(middle('Hip'), middle('Shoulder'));
  const drawn: Partial<Record<Link, string>> = {
    feet: standing.map((one) => limb(one, 'Heel', 'Toe')).join(''),
    knees: standing.map((one) => limb(one, 'Ankle', 'Knee', 'Hip')).join(''),
    pelvis: line(at('leftHip'), at('rightHip')),
    trunk: trunk + line(at('leftShoulder'), at('rightShoulder')),
    shoulder: limb(side, 'Shoulder', 'Elbow'),
    elbow: limb(side, 'Elbow', 'Wrist'),
    fist: limb(side, 'Wrist', 'IndexKnuckle'),
    thigh: limb(side, 'Hip', 'Knee'),
    shank: limb(side, 'Knee', 'Ankle'),
    foot: limb(side, 'Ankle', 'Heel', 'Toe'),
  };
  const rest = [
    limb(off, 'Shoulder', 'Elbow', 'Wrist', 'IndexKnuckle'),
    isKick ? limb(side, 'Shoulder', 'Elbow', 'Wrist') + trunk : '',
  ].join('');
  const head = at('nose') ?? middle('Ear');
  return (
    <svg
      width={WIDTH}
      height={height}
      className="shrink-0"
      fill="none"
      strokeLinecap="round"
      strokeLinejoin="round"
      data-pose
      aria-hidden
    >
      <path d={rest} strokeWidth={2.5} className="stroke-soft" />
      {head && <circle cx={head[0]} cy={head[1]} r={6} className="fill-soft" />}
      {technique.chain.map((link) => {
        const d = drawn[link];
        return d ? (
          <g key={link}>
            <path d={d} strokeWidth={2.2} className="stroke-ink" />
            <LinkLine verdict={links[link]?.verdict} d={d} width={5} />
          </g>
        ) : null;
      })}
    </svg>
  );
}

/** The picture's pixels to the figure's: the whole body in sight, its proportions kept, its feet at the foot. */
function fitted(points: readonly ShownPoint[], width: number, height: number) {
  const [xs, ys] = [points.map(({ x }) => x), points.map(({ y }) => y)];
  const [left, right, top, foot] = [
    Math.min(...xs),
    Math.max(...xs),
    Math.min(...ys),
    Math.max(...ys),
  ];
  const scale = Math.min(
    (width - 2 * EDGE) / Math.max(1, right - left),
    (height - 2 * EDGE) / Math.max(1, foot - top),
  );
  return (point: ShownPoint | undefined): Point | null =>
    point
      ? [
          width / 2 + (point.x - (left + right) / 2) * scale,
          height - EDGE + (point.y - foot) * scale,
        ]
      : null;
}
