'use client';

import type { ScaleLinear } from 'd3-scale';
import type { EventMark, Events } from '@sinew/core/measure/events/events';
import {
  halfWidth,
  isPresent,
  type Measured,
  type Source,
} from '@sinew/core/foundation/reading/reading';
import type { View } from '@sinew/core/foundation/technique/techniques';
import type { ClipAnalysis } from '@sinew/core/analysis/analyzeClip';
import { documentOf, useBench } from '../document/benchStore';
import { useAnalysis } from '../document/useAnalysis';
import { useTracked } from '../document/useTracked';
import { laneHeight, laneY, type Lane } from './lanes';

const WORDS: Record<Source, string> = {
  'measured-3d': 'in space',
  'measured-2d': 'points',
  'measured-band': 'bands',
  'estimated-3d': 'guessed',
  eye: 'by eye',
};

/** What the start of a link rests on, in two words; null for links whose start is never in question. */
export function restsOn(
  link: Lane['link'],
  events: Events,
  halfWay: Measured | undefined,
): string | null {
  if (link !== 'pelvis' && link !== 'trunk') return null;
  const start = link === 'pelvis' ? events.hips : events.trunk;
  if (start) return WORDS[start.source];
  if (!events.contact) return null;
  if (halfWay && isPresent(halfWay)) return 'half-way only';
  return link === 'pelvis' && events.drive ? 'drive only' : 'start not seen';
}

/** On a strip of fewer pixels there is room for what a start rests on only. */
const NARROW = 500;

/** Why a lane has no hill, in three words; null where it has one. */
export function whyEmpty(
  { link, parts }: Lane,
  {
    traces,
    isScaled,
    landmarks,
    view,
  }: {
    readonly traces: ClipAnalysis['traces'];
    /** A length is known in the picture. */
    readonly isScaled: boolean;
    /** What has been placed or found anywhere in the strike. */
    readonly landmarks: readonly string[];
    readonly view: View;
  },
): string | null {
  if (traces[link]) return null;
  const isSeen = (part: string) => landmarks.some((landmark) => landmark.endsWith(part));
  const needed = link === 'pelvis' ? ['Hip'] : link === 'trunk' ? ['Shoulder'] : parts;
  if (link === 'feet' || link === 'knees' ? !isSeen('Hip') : !needed.some(isSeen)) {
    return 'no points yet';
  }
  if ((link === 'pelvis' || link === 'trunk') && view === 'side') return 'turn not visible';
  if (link === 'fist' || link === 'foot' || link === 'feet' || link === 'knees') {
    if (!isScaled) return 'no length drawn';
  }
  return 'too few points';
}

/** At the end of a lane why it is empty and what its start rests on; and the start of the drive, where that is all there is. */
export function StripEvidence({
  x,
  width,
  lanes,
}: {
  x: ScaleLinear<number, number>;
  width: number;
  lanes: readonly Lane[];
}) {
  const analysis = useAnalysis();
  const { placed, view, scale, rectangle } = useBench(documentOf);
  const { tracking } = useTracked();
  if (!analysis) return null;
  const { events, traces, assumed, readings } = analysis;
  const landmarks = [
    ...new Set([...placed.map(({ landmark }) => landmark), ...Object.keys(tracking.track.points)]),
  ];
  const isScaled = scale !== null || rectangle !== null || assumed.isScale;
  const given = { traces, isScaled, landmarks, view };
  return (
    <g pointerEvents="none">
      {lanes.map((lane, index) => {
        const why = width < NARROW ? null : whyEmpty(lane, given);
        const words = [why, restsOn(lane.link, events, halfWayOf(lane, readings))]
          .filter(Boolean)
          .join(', ');
        if (!words) return null;
        return (
          <text
            key={lane.link}
            x={width - 8}
            y={laneY(lanes, index) - laneHeight(lanes) / 2 + 8}
            fontSize={12}
            textAnchor="end"
            className="fill-soft"
            data-rests-on={lane.link}
          >
            {words}
          </text>
        );
      })}
      {lanes.map((lane, index) => {
        const halfWay = halfWayOf(lane, readings);
        if (!events.contact || !halfWay || !isPresent(halfWay)) return null;
        const time = events.contact.time - halfWay.value;
        return (
          <HalfWay
            key={lane.link}
            link={lane.link}
            ends={[-1, 0, 1].map((sign) => x(time + sign * halfWidth(halfWay)))}
            foot={laneY(lanes, index)}
          />
        );
      })}
      {events.drive && !events.hips && <Drive mark={events.drive} x={x} foot={footOf(lanes)} />}
    </g>
  );
}

const halfWayOf = ({ link }: Lane, readings: ClipAnalysis['readings']) =>
  link === 'pelvis' || link === 'trunk' ? readings[`turn.half.${link}`] : undefined;

/** Half of the turn: a half-filled disc with its ±. */
function HalfWay({
  link,
  ends: [from, at, to],
  foot,
}: {
  link: Lane['link'];
  ends: readonly number[];
  foot: number;
}) {
  return (
    <g className="stroke-soft" data-half-way={link}>
      <title>Half-way through its turn</title>
      <line x1={from} x2={to} y1={foot - 8} y2={foot - 8} strokeWidth={1.2} />
      <circle cx={at} cy={foot - 8} r={5} className="fill-paper" strokeWidth={1.5} />
      <path d={`M${at} ${foot - 13}a5 5 0 0 0 0 10z`} className="fill-ink" stroke="none" />
    </g>
  );
}

const footOf = (lanes: readonly Lane[]) =>
  laneY(
    lanes,
    lanes.findIndex(({ link }) => link === 'pelvis'),
  );

/** An open lozenge, unlike the marks of starts: the leg begins to push, the hips may not turn yet. */
function Drive({
  mark,
  x,
  foot,
}: {
  mark: EventMark;
  x: ScaleLinear<number, number>;
  foot: number;
}) {
  const [from, at, to] = [-1, 0, 1].map((sign) => x(mark.time + sign * halfWidth(mark)));
  return (
    <g className="stroke-soft" data-drive={mark.frame}>
      <line x1={from} x2={to} y1={foot - 8} y2={foot - 8} strokeWidth={1.2} />
      <path d={`M${at} ${foot - 14}l5 6l-5 6l-5-6z`} className="fill-paper" strokeWidth={1.5} />
      <text x={to! + 5} y={foot - 4} fontSize={12} stroke="none" className="fill-ink">
        drive
      </text>
    </g>
  );
}
