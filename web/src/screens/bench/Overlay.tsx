'use client';

import { useMemo, useRef, useState, type PointerEvent, type ReactNode } from 'react';
import { landmarkName, type Landmark } from '@sinew/core/body/landmarks';
import type { PixelPoint } from '@sinew/core/calibration/calibration';
import { techniqueById } from '@sinew/core/technique/catalogue';
import { pointsToPlace } from '@sinew/core/technique/points';
import { documentOf, strikeOf, useBench, useBenchStore } from './benchStore';
import { placePoint, setScale, setTarget } from './commands';
import { LengthDialog } from './LengthDialog';
import { BONES, groupPlaced, pointsOnFrame, type ShownPoint } from './pointsOnPicture';
import { useRealTimes } from './useAnalysis';

interface Line {
  readonly from: PixelPoint;
  readonly to: PixelPoint;
}

/** A line drawn by less than this many pixels was a slip of the hand. */
const SHORTEST = 12;

/**
 * Points, bones, known length and target line over the picture; also where clicks are taken.
 *
 * @param unit one CSS pixel of the screen, in pixels of the picture
 */
export function Overlay({ unit }: { unit: number }) {
  const store = useBenchStore();
  const clip = useBench((state) => state.clip);
  const tool = useBench((state) => state.tool);
  const shownFrame = useBench((state) => state.shownFrame);
  const document = useBench(documentOf);
  const strike = useBench(strikeOf);
  const times = useRealTimes();
  const svg = useRef<SVGSVGElement>(null);
  const [drawn, setDrawn] = useState<Line | null>(null);
  const [asked, setAsked] = useState<Line | null>(null);

  const groups = useMemo(() => groupPlaced(document.placed), [document.placed]);
  const points = shownFrame === null ? [] : pointsOnFrame(groups, shownFrame, times);

  const at = (event: PointerEvent): PixelPoint => {
    const matrix = svg.current!.getScreenCTM()!.inverse();
    const { x, y } = new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix);
    return { x, y };
  };

  const place = (event: PointerEvent, landmark: Landmark) => {
    const state = store.getState();
    const frame = state.shownFrame;
    if (frame === null) return;
    state.edit(placePoint(documentOf(state), landmark, frame, at(event)));
    state.selectPoint({ landmark, frame });
    if (event.shiftKey) state.goTo(frame + 1);
    else state.setTool({ kind: 'place', landmark: nextPoint(landmark) });
  };
  const nextPoint = (landmark: Landmark): Landmark => {
    if (!strike) return landmark;
    const technique = techniqueById(strike.technique);
    const wanted = pointsToPlace({ technique, side: strike.side }, document.view);
    return wanted[(wanted.indexOf(landmark) + 1) % wanted.length] ?? landmark;
  };

  const down = (event: PointerEvent) => {
    if (event.button !== 0 || event.altKey) return;
    if (tool.kind === 'place') place(event, tool.landmark);
    else if (tool.kind === 'look') store.getState().selectPoint(null);
    else {
      event.currentTarget.setPointerCapture(event.pointerId);
      setDrawn({ from: at(event), to: at(event) });
    }
  };
  const move = (event: PointerEvent) => {
    if (drawn) setDrawn({ ...drawn, to: at(event) });
  };
  const up = () => {
    if (!drawn) return;
    setDrawn(null);
    if (Math.hypot(drawn.to.x - drawn.from.x, drawn.to.y - drawn.from.y) < SHORTEST) return;
    const state = store.getState();
    if (tool.kind === 'target') {
      state.edit(setTarget(documentOf(state), drawn));
      state.setTool({ kind: 'look' });
    } else setAsked(drawn);
  };
  const settle = (metres: number | null) => {
    const state = store.getState();
    if (metres !== null && asked) {
      state.edit(setScale(documentOf(state), { ...asked, metres }));
    }
    setAsked(null);
    state.setTool({ kind: 'look' });
  };

  return (
    <>
      <svg
        ref={svg}
        viewBox={`0 0 ${clip.width} ${clip.height}`}
        onPointerDown={down}
        onPointerMove={move}
        onPointerUp={up}
        role="group"
        aria-label="Points on the picture"
        className={`absolute inset-0 size-full touch-none ${tool.kind === 'look' ? '' : 'cursor-crosshair'}`}
      >
        {document.scale && (
          <Measure line={document.scale} unit={unit} label={`${document.scale.metres} m`} />
        )}
        {document.target && <Target line={document.target} unit={unit} />}
        {drawn && <Measure line={drawn} unit={unit} label="" />}
        {BONES.map(([a, b]) => (
          <Bone key={a + b} from={find(points, a)} to={find(points, b)} unit={unit} />
        ))}
        {points.map((point) => (
          <Handle key={point.landmark} point={point} unit={unit} at={at} />
        ))}
      </svg>
      {asked && <LengthDialog onDone={settle} />}
    </>
  );
}

const find = (points: readonly ShownPoint[], landmark: Landmark) =>
  points.find((point) => point.landmark === landmark);

/** A light line with a dark edge, legible on any film. */
function Cased({ line, unit, dash }: { line: Line; unit: number; dash?: string }) {
  const ends = { x1: line.from.x, y1: line.from.y, x2: line.to.x, y2: line.to.y };
  return (
    <g pointerEvents="none" strokeLinecap="round">
      <line {...ends} stroke="#15130f" strokeOpacity={0.65} strokeWidth={4 * unit} />
      <line {...ends} stroke="#fdfaf3" strokeWidth={1.8 * unit} strokeDasharray={dash} />
    </g>
  );
}

function Bone({ from, to, unit }: { from?: ShownPoint; to?: ShownPoint; unit: number }) {
  return from && to ? <Cased line={{ from, to }} unit={unit} /> : null;
}

function Target({ line, unit }: { line: Line; unit: number }) {
  const angle = Math.atan2(line.to.y - line.from.y, line.to.x - line.from.x);
  const wing = (turn: number): Line => ({
    from: line.to,
    to: {
      x: line.to.x - 13 * unit * Math.cos(angle + turn),
      y: line.to.y - 13 * unit * Math.sin(angle + turn),
    },
  });
  return (
    <>
      <Cased line={line} unit={unit} dash={`${6 * unit} ${5 * unit}`} />
      <Cased line={wing(0.45)} unit={unit} />
      <Cased line={wing(-0.45)} unit={unit} />
      <Label at={line.from} unit={unit}>
        to the target
      </Label>
    </>
  );
}

function Measure({ line, unit, label }: { line: Line; unit: number; label: string }) {
  const angle = Math.atan2(line.to.y - line.from.y, line.to.x - line.from.x) + Math.PI / 2;
  const tick = (point: PixelPoint): Line => {
    const [dx, dy] = [7 * unit * Math.cos(angle), 7 * unit * Math.sin(angle)];
    return {
      from: { x: point.x - dx, y: point.y - dy },
      to: { x: point.x + dx, y: point.y + dy },
    };
  };
  return (
    <>
      <Cased line={line} unit={unit} />
      <Cased line={tick(line.from)} unit={unit} />
      <Cased line={tick(line.to)} unit={unit} />
      {label && (
        <Label at={line.to} unit={unit}>
          {label}
        </Label>
      )}
    </>
  );
}

function Label({ at, unit, children }: { at: PixelPoint; unit: number; children: ReactNode }) {
  return (
    <text
      x={at.x + 10 * unit}
      y={at.y - 8 * unit}
      fontSize={13 * unit}
      fill="#fdfaf3"
      stroke="#15130f"
      strokeWidth={3 * unit}
      paintOrder="stroke"
      pointerEvents="none"
    >
      {children}
    </text>
  );
}

/** A landmark on the picture: full where it was placed, hollow where it is worked out between. */
function Handle({
  point,
  unit,
  at,
}: {
  point: ShownPoint;
  unit: number;
  at: (event: PointerEvent) => PixelPoint;
}) {
  const store = useBenchStore();
  const selected = useBench((state) => state.selectedPoint);
  const isPlacing = useBench((state) => state.tool.kind === 'place');
  const gesture = useRef<string | null>(null);
  const shownFrame = useBench((state) => state.shownFrame);
  const isChosen = selected?.landmark === point.landmark && selected.frame === shownFrame;
  const drag = (event: PointerEvent) => {
    const state = store.getState();
    if (!gesture.current || state.shownFrame === null) return;
    const next = placePoint(documentOf(state), point.landmark, state.shownFrame, at(event));
    state.edit(next, gesture.current);
  };
  return (
    <g
      data-landmark={point.landmark}
      data-placed={point.isPlaced}
      onPointerDown={(event) => {
        if (event.button !== 0 || event.altKey || isPlacing) return;
        event.stopPropagation();
        event.currentTarget.setPointerCapture(event.pointerId);
        gesture.current = `drag ${point.landmark} ${event.timeStamp}`;
        const frame = store.getState().shownFrame;
        if (frame !== null) store.getState().selectPoint({ landmark: point.landmark, frame });
      }}
      onPointerMove={drag}
      onPointerUp={() => {
        gesture.current = null;
      }}
      className={isPlacing ? undefined : 'cursor-grab'}
    >
      <title>{landmarkName(point.landmark) + (point.isPlaced ? '' : ', worked out')}</title>
      <circle cx={point.x} cy={point.y} r={13 * unit} fill="transparent" />
      <circle
        cx={point.x}
        cy={point.y}
        r={(isChosen ? 6 : 4.5) * unit}
        fill={point.isPlaced ? (isChosen ? '#b92d17' : '#fdfaf3') : 'transparent'}
        stroke={point.isPlaced ? '#15130f' : '#fdfaf3'}
        strokeWidth={1.6 * unit}
      />
    </g>
  );
}
