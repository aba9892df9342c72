'use client';

import type { ScaleLinear } from 'd3-scale';
import { useRef, type PointerEvent } from 'react';
import type { EventMark, EventName } from '@sinew/core/measure/events/events';
import { halfWidth } from '@sinew/core/foundation/reading/reading';
import { documentOf, strikeOf, useBench, useBenchStore } from '../document/benchStore';
import { setMark } from '../document/edits';
import { AXIS_EVENTS, FLOOR, laneY, TOP, type Lane } from './lanes';

/** What the name of an event beside its mark takes, pixels. */
const NAME_ROOM = 36;

/** An event on its lane: a T whose bar is the 95 % interval; drag it to another frame. */
export function StripMark({
  event,
  name,
  mark,
  isAutomatic,
  x,
  frameAt,
  lanes,
}: {
  event: EventName;
  /** What the coach calls it in this technique. */
  name: string;
  lanes: readonly Lane[];
  mark: EventMark;
  /** Found by the program; a drag, or its key, makes it the coach's. */
  isAutomatic: boolean;
  x: ScaleLinear<number, number>;
  frameAt: (event: { clientX: number }) => number;
}) {
  const store = useBenchStore();
  const isChosen = useBench((state) => state.selectedMark === event);
  const gesture = useRef<string | null>(null);
  const at = x(mark.time);
  const spread = Math.max(3, x(mark.time + halfWidth(mark)) - at);
  const lane = lanes.findIndex((one) => one.event === event);
  const isContact = event === 'contact';
  const isAtEdge = at > x.range()[1]! - NAME_ROOM;
  const foot = lane >= 0 ? laneY(lanes, lane) : FLOOR;
  const top = isContact ? TOP : lane >= 0 ? foot - 15 : FLOOR + 1;

  const drag = (pointer: PointerEvent) => {
    const state = store.getState();
    const strike = strikeOf(state);
    if (!gesture.current || !strike) return;
    pointer.stopPropagation();
    const frame = frameAt(pointer);
    state.edit(setMark(documentOf(state), strike.id, event, frame), gesture.current);
    state.goTo(frame);
  };
  return (
    <g
      data-event={event}
      data-frame={mark.frame}
      data-automatic={isAutomatic}
      onPointerDown={(pointer) => {
        pointer.stopPropagation();
        pointer.currentTarget.setPointerCapture(pointer.pointerId);
        gesture.current = `drag ${event} ${pointer.timeStamp}`;
        store.getState().selectMark(event);
        store.getState().goTo(mark.frame);
      }}
      onPointerMove={drag}
      onPointerUp={() => {
        gesture.current = null;
      }}
      className={`cursor-ew-resize ${isChosen ? 'stroke-now' : isAutomatic ? 'stroke-soft' : 'stroke-ink'}`}
    >
      <title>
        {isAutomatic
          ? `${name}, automatic: frame ${mark.frame}. Drag it, or press its key on its frame, to make it yours.`
          : `${name}: frame ${mark.frame}. Drag to move; W if you are less sure of it.`}
      </title>
      <rect
        x={at - 8}
        y={top - 3}
        width={16}
        height={Math.max(18, foot - top + 3)}
        fill="transparent"
        stroke="none"
      />
      {AXIS_EVENTS.includes(event) ? (
        <>
          <line x1={at} x2={at} y1={FLOOR} y2={FLOOR + 9} strokeWidth={2} />
          <text
            x={isAtEdge ? at - 4 : at + 4}
            y={FLOOR + 12}
            fontSize={12}
            textAnchor={isAtEdge ? 'end' : 'start'}
            stroke="none"
            className={isChosen ? 'fill-now' : 'fill-ink'}
          >
            {event}
          </text>
        </>
      ) : (
        <>
          <line
            x1={at}
            x2={at}
            y1={top}
            y2={foot}
            strokeWidth={isContact ? 1.5 : 2}
            strokeDasharray={isContact || isAutomatic ? '2 3' : undefined}
          />
          <line
            x1={at - spread}
            x2={at + spread}
            y1={top}
            y2={top}
            strokeWidth={isAutomatic ? 1.2 : 2}
          />
        </>
      )}
    </g>
  );
}
