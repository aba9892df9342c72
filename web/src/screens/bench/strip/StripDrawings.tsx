'use client';

import type { ScaleLinear } from 'd3-scale';
import { documentOf, useBench, useBenchStore } from '../document/benchStore';
import { useRealTimes } from '../document/realTimes';
import { HEIGHT } from './lanes';

/** Frames on which something is drawn: a stroke of chalk at the foot of the strip, to be gone to by a click. */
export function StripDrawings({ x }: { x: ScaleLinear<number, number> }) {
  const store = useBenchStore();
  const drawings = useBench((state) => documentOf(state).drawings);
  const times = useRealTimes();
  const frames = [...new Set((drawings ?? []).map(({ frame }) => frame))];
  return frames
    .filter((frame) => frame < times.length)
    .map((frame) => (
      <g
        key={frame}
        data-drawn={frame}
        onPointerDown={(event) => {
          event.stopPropagation();
          store.getState().goTo(frame);
        }}
        transform={`translate(${x(times[frame]!)} ${HEIGHT - 4})`}
        className="cursor-pointer"
      >
        <title>{`Drawn on frame ${frame}`}</title>
        <rect x={-8} y={-10} width={16} height={14} fill="transparent" />
        <path d="M-5 1l10-5" strokeWidth={3} strokeLinecap="round" className="stroke-ink" />
      </g>
    ));
}
