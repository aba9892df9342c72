'use client';

import { useMemo, useRef, useState, type PointerEvent } from 'react';
import type { Landmark } from '@sinew/core/body/landmarks';
import {
  cornersOf,
  type Line,
  type PixelPoint,
  type Rectangle,
} from '@sinew/core/calibration/calibration';
import { lengthOf } from '@sinew/core/calibration/picture';
import { lensFromLines } from '@sinew/core/geometry/lens';
import { techniqueById } from '@sinew/core/technique/catalogue';
import { pointsToPlace } from '@sinew/core/technique/points';
import { placingSigmaOf } from '@sinew/core/track/track';
import { calibrationOf } from '@/data/benchCalibration';
import { documentOf, strikeOf, useBench, useBenchStore, type Tool } from './benchStore';
import { placePoint, setLens, setRectangle, setScale, setTarget } from './commands';
import { CornerHandle, Handle } from './Handles';
import { LengthDialog } from './LengthDialog';
import { Cased, Dot, Measure, Outline, Target } from './OverlayShapes';
import { BONES, groupPlaced, pointsOnFrame, type ShownPoint } from './pointsOnPicture';
import { RectangleDialog } from './RectangleDialog';
import { useRealTimes } from './useAnalysis';

/** A line drawn by less than this many pixels was a slip of the hand. */
const SHORTEST = 12;
/** From so many points on, the bow of the lens is worked out. */
const FEWEST_STRAIGHT = 5;

/** What is being drawn with the tool in hand, and is not yet part of the document. */
interface Draft {
  readonly tool: Tool;
  /** Places clicked one after the other. */
  readonly clicked: readonly PixelPoint[];
  /** A line being dragged, or left standing by the ruler. */
  readonly line: Line | null;
  readonly isDragging: boolean;
}

const begun = (tool: Tool): Draft => ({ tool, clicked: [], line: null, isDragging: false });

/**
 * Points, bones, and what calibrates the picture, drawn over it; also where clicks are taken.
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
  const [kept, setDraft] = useState<Draft>(() => begun(tool));
  // A draft belongs to its tool: with another in hand it is gone.
  const draft = kept.tool === tool ? kept : begun(tool);
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
  const straighten = (clicked: readonly PixelPoint[]) => {
    if (clicked.length < FEWEST_STRAIGHT) return;
    const { bend } = lensFromLines([clicked], clip);
    const state = store.getState();
    state.edit(setLens(documentOf(state), { bend }), 'straighten');
  };

  const down = (event: PointerEvent) => {
    if (event.button !== 0 || event.altKey) return;
    switch (tool.kind) {
      case 'look':
        return store.getState().selectPoint(null);
      case 'place':
        return place(event, tool.landmark);
      case 'rectangle':
      case 'straight': {
        const isFull = tool.kind === 'rectangle' && draft.clicked.length === cornersOf(tool.of);
        if (isFull) return;
        const clicked = [...draft.clicked, at(event)];
        setDraft({ ...draft, clicked });
        if (tool.kind === 'straight') straighten(clicked);
        return;
      }
      default:
        event.currentTarget.setPointerCapture(event.pointerId);
        setDraft({ ...draft, line: { from: at(event), to: at(event) }, isDragging: true });
    }
  };
  const move = (event: PointerEvent) => {
    if (draft.isDragging && draft.line) {
      setDraft({ ...draft, line: { from: draft.line.from, to: at(event) } });
    }
  };
  const up = () => {
    const { line, isDragging } = draft;
    if (!line || !isDragging) return;
    const isSlip = Math.hypot(line.to.x - line.from.x, line.to.y - line.from.y) < SHORTEST;
    const isRuler = tool.kind === 'ruler';
    setDraft({ ...draft, line: isRuler && !isSlip ? line : null, isDragging: false });
    if (isSlip || isRuler) return;
    const state = store.getState();
    if (tool.kind === 'target') {
      state.edit(setTarget(documentOf(state), line));
      state.setTool({ kind: 'look' });
    } else setAsked(line);
  };
  const settleLength = (metres: number | null) => {
    const state = store.getState();
    if (metres !== null && asked) {
      state.edit(setScale(documentOf(state), { ...asked, metres }));
    }
    setAsked(null);
    state.setTool({ kind: 'look' });
  };
  const settleRectangle = (rectangle: Rectangle | null) => {
    const state = store.getState();
    if (rectangle) {
      const corners = rectangle.corners.map((corner) => ({ ...corner }));
      state.edit(setRectangle(documentOf(state), { ...rectangle, corners }));
    }
    state.setTool({ kind: 'look' });
  };
  const rulerSays = (line: Line): string => {
    const { calibration } = calibrationOf(document, clip);
    const found = lengthOf(calibration, line, placingSigmaOf(clip.height));
    return found
      ? `${found.metres.toFixed(2)} ± ${found.halfWidth.toFixed(2)} m`
      : 'no scale yet: set a known length or a rectangle';
  };
  const isComplete = tool.kind === 'rectangle' && draft.clicked.length === cornersOf(tool.of);
  const isRectangleShown = document.rectangle !== null && tool.kind !== 'rectangle';

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
        {isRectangleShown && (
          <Outline
            corners={document.rectangle!.corners}
            unit={unit}
            isQuiet={tool.kind === 'look' || tool.kind === 'place'}
          />
        )}
        {draft.line && (
          <Measure
            line={draft.line}
            unit={unit}
            label={tool.kind === 'ruler' ? rulerSays(draft.line) : ''}
          />
        )}
        {tool.kind === 'rectangle' && <Outline corners={draft.clicked} unit={unit} />}
        {draft.clicked.map((point, i) => (
          <Dot key={i} at={point} unit={unit} />
        ))}
        {BONES.map(([a, b]) => (
          <Bone key={a + b} from={find(points, a)} to={find(points, b)} unit={unit} />
        ))}
        {isRectangleShown &&
          tool.kind === 'look' &&
          document.rectangle!.corners.map((corner, index) => (
            <CornerHandle key={index} index={index} corner={corner} unit={unit} at={at} />
          ))}
        {points.map((point) => (
          <Handle key={point.landmark} point={point} unit={unit} at={at} />
        ))}
      </svg>
      {asked && <LengthDialog onDone={settleLength} />}
      {isComplete && (
        <RectangleDialog
          kind={tool.of}
          corners={draft.clicked}
          known={document.rectangle}
          onDone={settleRectangle}
        />
      )}
    </>
  );
}

const find = (points: readonly ShownPoint[], landmark: Landmark) =>
  points.find((point) => point.landmark === landmark);

function Bone({ from, to, unit }: { from?: ShownPoint; to?: ShownPoint; unit: number }) {
  return from && to ? <Cased line={{ from, to }} unit={unit} /> : null;
}
