'use client';

import type { ScaleLinear } from 'd3-scale';
import { FLOOR } from './lanes';
import { useHits, useTake } from '../document/useTake';

/** What was heard: a hit as a tick with a dot, a breath let out as a bar, along the foot of the strip. */
export function StripSound({ x }: { x: ScaleLinear<number, number> }) {
  const take = useTake();
  const hits = useHits();
  if (!take) return null;
  const [from, to] = x.domain() as [number, number];
  const isShown = (time: number) => time >= from && time <= to;
  return (
    <g className="fill-ink stroke-ink">
      {take.breaths
        .filter((breath) => isShown(breath.from) || isShown(breath.to))
        .map((breath) => (
          <rect
            key={`breath ${breath.from}`}
            data-heard="breath"
            x={x(breath.from)}
            y={FLOOR + 5}
            width={Math.max(2, x(breath.to) - x(breath.from))}
            height={3}
            stroke="none"
            fillOpacity={0.45}
          >
            <title>Breath let out</title>
          </rect>
        ))}
      {hits
        .filter(({ time }) => isShown(time))
        .map(({ time, sigma, rise }) => (
          <g key={`hit ${time}`} data-heard="hit" data-time={time.toFixed(4)}>
            <title>
              {`A hit heard, ${Math.round(rise)} dB above what came before; sound’s way to the camera taken off, ± ${Math.ceil(1960 * sigma)} ms`}
            </title>
            <line x1={x(time)} x2={x(time)} y1={FLOOR - 5} y2={FLOOR + 5} strokeWidth={1.2} />
            <circle cx={x(time)} cy={FLOOR + 6.5} r={2.6} stroke="none" />
          </g>
        ))}
    </g>
  );
}
