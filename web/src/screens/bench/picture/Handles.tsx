'use client';

import { useRef, type PointerEvent } from 'react';
import { landmarkName, type Landmark } from '@sinew/core/foundation/body/landmarks';
import type { PixelPoint } from '@sinew/core/reconstruct/calibration/calibration';
import { documentOf, useBench, useBenchStore } from '../document/benchStore';
import { moveCorner, placePoint } from '../document/edits';
import type { ShownPoint } from './pointsOnPicture';

const WORDS: Record<ShownPoint['kind'], string> = {
  placed: '',
  between: ', worked out',
  tracked: ', tracked',
  doubtful: ', doubtful',
};

/**
 * A landmark on the picture: full where it was placed, small where it was tracked, hollow where it is
 * worked out between placed points, ringed where it is doubtful.
 */
export function Handle({
  point,
  unit,
  at,
  meant,
}: {
  point: ShownPoint;
  unit: number;
  at: (event: PointerEvent) => PixelPoint;
  /** Which landmark is meant by a place where several meet. */
  meant: (place: PixelPoint) => Landmark;
}) {
  const store = useBenchStore();
  const selected = useBench((state) => state.selectedPoint);
  const gesture = useRef<{ readonly name: string; readonly landmark: Landmark } | null>(null);
  const shownFrame = useBench((state) => state.shownFrame);
  const isChosen = selected?.landmark === point.landmark && selected.frame === shownFrame;
  const isFull = point.kind === 'placed' || point.kind === 'tracked';
  const drag = (event: PointerEvent) => {
    const state = store.getState();
    if (!gesture.current || state.shownFrame === null) return;
    const { name, landmark } = gesture.current;
    state.edit(placePoint(documentOf(state), landmark, state.shownFrame, at(event)), name);
  };
  return (
    <g
      data-landmark={point.landmark}
      data-placed={point.kind === 'placed'}
      data-kind={point.kind}
      onPointerDown={(event) => {
        if (event.button !== 0 || event.altKey) return;
        event.stopPropagation();
        event.currentTarget.setPointerCapture(event.pointerId);
        const landmark = meant(at(event));
        gesture.current = { name: `drag ${landmark} ${event.timeStamp}`, landmark };
        const frame = store.getState().shownFrame;
        if (frame !== null) store.getState().selectPoint({ landmark, frame });
      }}
      onPointerMove={drag}
      onPointerUp={() => {
        gesture.current = null;
      }}
      className="cursor-grab"
    >
      <title>{landmarkName(point.landmark) + WORDS[point.kind]}</title>
      <circle cx={point.x} cy={point.y} r={13 * unit} fill="transparent" />
      <circle
        cx={point.x}
        cy={point.y}
        r={(isChosen ? 6 : point.kind === 'tracked' ? 2.8 : 4.5) * unit}
        fill={isChosen && isFull ? '#b92d17' : isFull ? '#fdfaf3' : 'transparent'}
        stroke={isFull ? '#15130f' : '#fdfaf3'}
        strokeWidth={1.6 * unit}
      />
      {point.kind === 'doubtful' && (
        <circle
          cx={point.x}
          cy={point.y}
          r={9 * unit}
          fill="none"
          stroke={isChosen ? '#b92d17' : '#fdfaf3'}
          strokeWidth={1.8 * unit}
          strokeDasharray={`${3 * unit} ${2.5 * unit}`}
        />
      )}
    </g>
  );
}

/** A corner of the rectangle, to be dragged to where it belongs. */
export function CornerHandle({
  index,
  corner,
  unit,
  at,
}: {
  index: number;
  corner: PixelPoint;
  unit: number;
  at: (event: PointerEvent) => PixelPoint;
}) {
  const store = useBenchStore();
  const gesture = useRef<string | null>(null);
  return (
    <g
      data-corner={index + 1}
      onPointerDown={(event) => {
        if (event.button !== 0 || event.altKey) return;
        event.stopPropagation();
        event.currentTarget.setPointerCapture(event.pointerId);
        gesture.current = `corner ${index} ${event.timeStamp}`;
      }}
      onPointerMove={(event) => {
        if (!gesture.current) return;
        const state = store.getState();
        state.edit(moveCorner(documentOf(state), index, at(event)), gesture.current);
      }}
      onPointerUp={() => {
        gesture.current = null;
      }}
      className="cursor-grab"
    >
      <title>{`Corner ${index + 1}`}</title>
      <circle cx={corner.x} cy={corner.y} r={11 * unit} fill="transparent" />
      <rect
        x={corner.x - 4 * unit}
        y={corner.y - 4 * unit}
        width={8 * unit}
        height={8 * unit}
        fill="transparent"
        stroke="#fdfaf3"
        strokeWidth={1.8 * unit}
      />
    </g>
  );
}
