'use client';

import type { ScaleLinear } from 'd3-scale';
import type { Trace } from '@sinew/core/reconstruct/motion/traces';
import { quantity } from '@/manner/manner';
import { documentOf, useBench } from '../document/benchStore';
import { laneHeight, laneOf, laneY, type Lane } from './lanes';
import { useAnalysis } from '../document/useAnalysis';

type Scale = ScaleLinear<number, number>;

/** The lanes' ground lines, with a tick where a point of their link was placed. */
export function Lanes({
  x,
  width,
  times,
  lanes,
}: {
  x: Scale;
  width: number;
  times: readonly number[];
  lanes: readonly Lane[];
}) {
  const placed = useBench((state) => documentOf(state).placed);
  return (
    <g pointerEvents="none">
      {lanes.map((lane, index) => (
        <g key={lane.link}>
          <line
            x1={0}
            x2={width}
            y1={laneY(lanes, index)}
            y2={laneY(lanes, index)}
            className="stroke-rule"
          />
          {placed
            .filter(
              (point) => laneOf(lanes, point.landmark) === lane.link && point.frame < times.length,
            )
            .map((point) => (
              <rect
                key={`${point.landmark} ${point.frame}`}
                x={x(times[point.frame]!) - 1}
                y={laneY(lanes, index) - 4}
                width={2}
                height={4}
                className="fill-soft"
              />
            ))}
        </g>
      ))}
    </g>
  );
}

/** Room a trace leaves free at the top of its lane. */
const FREE = 9;

/** Traces drawn to one scale, so that they compare; a forearm turns many times as fast as a pelvis. */
function scaleOf({ link }: Lane, { unit }: Trace): string {
  if (link === 'feet' || link === 'knees') return 'travel of the body';
  if (link === 'pelvis' || link === 'trunk') return 'turn of the body';
  return unit;
}

interface Hill {
  readonly lane: Lane;
  readonly trace: Trace;
  /** Height of the lane's ground line, and of a value over it, pixels. */
  readonly ground: number;
  readonly y: (value: number) => number;
}

/** What is drawn of each link whose speed is known, links of one kind to one scale. */
export function hillsOf(
  traces: Partial<Record<Lane['link'], Trace>>,
  lanes: readonly Lane[],
): Hill[] {
  const room = laneHeight(lanes) - FREE;
  const known = lanes.flatMap((lane, index) => {
    const trace = traces[lane.link];
    return trace ? [{ lane, trace, ground: laneY(lanes, index) }] : [];
  });
  const most = (scale: string) =>
    Math.max(
      ...known
        .filter(({ lane, trace }) => scaleOf(lane, trace) === scale)
        .flatMap(({ trace }) => trace.values.map(Math.abs)),
    );
  return known.map((one) => {
    const top = most(scaleOf(one.lane, one.trace)) || 1;
    return { ...one, y: (value) => one.ground - Math.max(-0.3, value / top) * room };
  });
}

/** Each link's speed as a hill on its lane. */
export function Traces({ x, lanes }: { x: Scale; lanes: readonly Lane[] }) {
  const traces = useAnalysis()?.traces ?? {};
  return (
    <g pointerEvents="none">
      {hillsOf(traces, lanes).map(({ lane, trace, ground, y }) => {
        const points = trace.times.map((time, i) => `${x(time)},${y(trace.values[i]!)}`);
        const [first, last] = [x(trace.times[0]!), x(trace.times[trace.times.length - 1]!)];
        return (
          <g key={lane.link} data-trace={lane.link}>
            <title>{`${lane.name}: up to ${sayPeak(trace)}`}</title>
            <polygon
              points={`${first},${ground} ${points.join(' ')} ${last},${ground}`}
              className="fill-ink"
              fillOpacity={0.16}
            />
            <polyline
              points={points.join(' ')}
              fill="none"
              className="stroke-ink"
              strokeWidth={1.2}
            />
          </g>
        );
      })}
    </g>
  );
}

function sayPeak({ unit, values }: Trace): string {
  const top = Math.max(...values.map(Math.abs));
  return unit === 'm/s' ? quantity(top, unit) : `${Math.round((top * 180) / Math.PI)} °/s`;
}
