'use client';

import type { ScaleLinear } from 'd3-scale';
import { useAnalysis } from '../document/useAnalysis';
import type { Lane } from './lanes';
import { hillsOf } from './StripTraces';

/** Seconds after contact in which a link may still peak: what gives way does so within a frame or two. */
const AFTER = 0.02;

/**
 * From peak to peak, ground to striking end: a line that leans one way where each link peaks after the
 * one below it, and turns back where one is early. Nothing with a single peak to be seen.
 *
 * @param until contact, seconds; what comes later is the way home
 */
export function Cascade({
  x,
  lanes,
  until,
}: {
  x: ScaleLinear<number, number>;
  lanes: readonly Lane[];
  until: number | undefined;
}) {
  const traces = useAnalysis()?.traces ?? {};
  const peaks = hillsOf(traces, lanes).flatMap(({ lane, trace, y }) => {
    const at = peakIn(trace, until === undefined ? Infinity : until + AFTER);
    return at === null
      ? []
      : [{ link: lane.link, x: x(trace.times[at]!), y: y(trace.values[at]!) }];
  });
  if (peaks.length < 2) return null;
  return (
    <g pointerEvents="none" data-cascade={peaks.map(({ link }) => link).join(' ')}>
      <polyline
        points={peaks.map((peak) => `${peak.x},${peak.y}`).join(' ')}
        fill="none"
        strokeWidth={1.4}
        strokeDasharray="1 3"
        strokeLinecap="round"
        className="stroke-ink"
      />
      {peaks.map((peak) => (
        <circle key={peak.link} cx={peak.x} cy={peak.y} r={3.2} className="fill-ink stroke-paper" />
      ))}
    </g>
  );
}

/** Index of the largest value up to a time; null where it is the last one there, so no peak yet. */
export function peakIn(
  { times, values }: { readonly times: readonly number[]; readonly values: readonly number[] },
  until: number,
): number | null {
  let best = -1;
  let last = -1;
  for (let i = 0; i < times.length && times[i]! <= until; i++) {
    if (best < 0 || values[i]! > values[best]!) best = i;
    last = i;
  }
  return best <= 0 || values[best]! <= 0 || (best === last && last === times.length - 1)
    ? null
    : best;
}
