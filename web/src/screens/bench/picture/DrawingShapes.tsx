'use client';

import { documentOf, useBench, useBenchStore } from '../document/benchStore';
import { DrawingShape, wayOf } from '@/ui/drawingShape';

/** What the coach has drawn on the frame that is shown; with no tool in hand a click takes one in hand. */
export function Drawings({ unit }: { unit: number }) {
  const store = useBenchStore();
  const drawings = useBench((state) => documentOf(state).drawings);
  const frame = useBench((state) => state.shownFrame);
  const chosen = useBench((state) => state.selectedDrawing);
  const isFree = useBench((state) => state.tool.kind === 'look');
  return (drawings ?? [])
    .filter((one) => one.frame === frame)
    .map((drawing) => (
      <g
        key={drawing.id}
        data-drawing={drawing.kind}
        pointerEvents={isFree ? 'auto' : 'none'}
        onPointerDown={(event) => {
          if (event.button !== 0 || event.altKey) return;
          event.stopPropagation();
          store.getState().selectDrawing(drawing.id);
        }}
        className="cursor-pointer"
      >
        <title>Drawn here; Delete takes it away</title>
        <path
          d={wayOf(drawing.points)}
          fill="none"
          stroke="transparent"
          strokeWidth={18 * unit}
          pointerEvents={isFree ? 'stroke' : 'none'}
        />
        <DrawingShape drawing={drawing} unit={unit} isChosen={drawing.id === chosen} />
      </g>
    ));
}
