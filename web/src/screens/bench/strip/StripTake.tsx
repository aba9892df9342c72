'use client';

import type { ScaleLinear } from 'd3-scale';
import { techniqueById } from '@sinew/core/foundation/technique/techniques';
import { documentOf, strikeOf, useBench, useBenchStore } from '../document/benchStore';
import { FLOOR, TOP } from './lanes';
import { useOpenProposals } from '../document/useTake';
import { useRealTimes } from '../document/realTimes';

/** The other strikes of the take on the strip: each its number and contact, to be chosen by a click. */
export function StripTake({ x }: { x: ScaleLinear<number, number> }) {
  const store = useBenchStore();
  const times = useRealTimes();
  const strikes = useBench((state) => documentOf(state).strikes);
  const current = useBench(strikeOf);
  const open = useOpenProposals();
  const [from, to] = x.domain() as [number, number];
  const isShown = (time: number | undefined): time is number =>
    time !== undefined && time >= from && time <= to;
  return (
    <g>
      {open.map(({ number, span, contact }) => {
        const time = times[contact?.frame ?? span.from];
        return isShown(time) ? (
          <g key={`found ${number}`} data-found={number} pointerEvents="none">
            <title>{`Strike ${number} found, not decided yet`}</title>
            <path
              d={`M${x(time)} ${TOP} v10`}
              className="stroke-soft"
              strokeDasharray="2 2"
              strokeWidth={1.5}
            />
            <circle
              cx={x(time)}
              cy={TOP - 6}
              r={4}
              fill="none"
              className="stroke-soft"
              strokeWidth={1.4}
            />
          </g>
        ) : null;
      })}
      {strikes.map((strike, index) => {
        const time = times[strike.marks.contact?.frame ?? strike.span?.from ?? -1];
        if (strike.id === current?.id || !isShown(time)) return null;
        return (
          <g
            key={strike.id}
            data-companion={strike.id}
            onPointerDown={(event) => {
              event.stopPropagation();
              store.getState().selectStrike(strike.id);
            }}
            className="cursor-pointer"
          >
            <title>{`Strike ${index + 1}: ${techniqueById(strike.technique).name}`}</title>
            <rect x={x(time) - 9} y={0} width={18} height={FLOOR} fill="transparent" />
            <line
              x1={x(time)}
              x2={x(time)}
              y1={TOP}
              y2={FLOOR}
              className="stroke-ink"
              strokeWidth={1}
              strokeDasharray="5 4"
            />
            <text x={x(time) + 4} y={TOP + 12} fontSize={12} className="fill-soft">
              {index + 1} {techniqueById(strike.technique).name}
            </text>
          </g>
        );
      })}
    </g>
  );
}
