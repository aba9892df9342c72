'use client';

import { useMemo, useRef, useState, type PointerEvent } from 'react';
import { LANDMARKS, type Landmark } from '@sinew/core/foundation/body/landmarks';
import {
  cornersOf,
  type Line,
  type PixelPoint,
  type Rectangle,
} from '@sinew/core/reconstruct/calibration/calibration';
import { lengthOf } from '@sinew/core/reconstruct/calibration/picture';
import { lensFromLines } from '@sinew/core/foundation/geometry/lens';
import { techniqueById } from '@sinew/core/foundation/technique/techniques';
import { pointsToPlace } from '@sinew/core/foundation/technique/points';
import { placingSigmaOf } from '@sinew/core/observe/track/track';
import { toast } from 'sonner';
import { clipCalibration } from '@sinew/core/analysis/clipCalibration';
import { preferredModel } from '@/tracking/preference';
import { changeJob } from '@/tracking/requests';
import { documentOf, strikeOf, useBench, useBenchStore, type Tool } from '../document/benchStore';
import { placePoint, setLens, setRectangle, setScale, setTarget } from '../document/edits';
import { EvidenceShapes } from './EvidenceShapes';
import { CornerHandle, Handle } from './Handles';
import { LengthDialog } from './LengthDialog';
import { Cased, Dot, Measure, Outline, Target } from './OverlayShapes';
import {
  BONES,
  groupPlaced,
  pointsOnFrame,
  trackedOnFrame,
  type ShownPoint,
} from './pointsOnPicture';
import { RectangleDialog } from './RectangleDialog';
import { useAnalysis } from '../document/useAnalysis';
import { useTracked } from '../document/useTracked';
import { useRealTimes } from '../document/realTimes';

/** A point is taken by a place this near to it, pixels of the screen. */
const GRIP = 13;
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
  const { tracking } = useTracked();
  const selected = useBench((state) => state.selectedPoint?.landmark ?? null);
  const points = useMemo(() => {
    if (shownFrame === null) return [];
    const placed = pointsOnFrame(groups, shownFrame, times);
    const tracked = trackedOnFrame(tracking, shownFrame, times, placed);
    const isTracked = new Set(tracked.map(({ landmark }) => landmark));
    // Always in the same order: what is dragged must not change its place among them.
    return [...placed.filter(({ landmark }) => !isTracked.has(landmark)), ...tracked].sort(
      (a, b) => LANDMARKS.indexOf(a.landmark) - LANDMARKS.indexOf(b.landmark),
    );
  }, [groups, shownFrame, times, tracking]);

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
    } else if (tool.kind === 'person') {
      followPerson(line);
      state.setTool({ kind: 'look' });
    } else setAsked(line);
  };
  /** Whoever is in the box is tracked, anew. */
  const followPerson = ({ from, to }: Line) => {
    const { job, shownFrame: frame } = store.getState();
    const box = {
      x: Math.min(from.x, to.x),
      y: Math.min(from.y, to.y),
      width: Math.abs(to.x - from.x),
      height: Math.abs(to.y - from.y),
    };
    const model = job?.model ?? preferredModel();
    changeJob(clip.id, { kind: 'start', model, person: { frame: frame ?? 0, box } }).catch(
      (error: unknown) => toast(error instanceof Error ? error.message : String(error)),
    );
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
    const { calibration } = clipCalibration(document, clip);
    const found = lengthOf(calibration, line, placingSigmaOf(clip.height));
    return found
      ? `${found.metres.toFixed(2)} ± ${found.halfWidth.toFixed(2)} m`
      : 'no scale yet: set a known length or a rectangle';
  };
  const assumedTarget = useAnalysis()?.assumed.target ?? null;
  const wayOf = (landmark: Landmark, from: number, to: number): PixelPoint[] => {
    const { frames, x, y } = tracking.track.points[landmark] ?? { frames: [], x: [], y: [] };
    return frames.flatMap((frame, i) =>
      times[frame]! >= from && times[frame]! <= to ? [{ x: x[i]!, y: y[i]! }] : [],
    );
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
        {assumedTarget && <Target line={assumedTarget} unit={unit} isAssumed />}
        {isRectangleShown && (
          <Outline
            corners={document.rectangle!.corners}
            unit={unit}
            isQuiet={tool.kind === 'look' || tool.kind === 'place'}
          />
        )}
        {draft.line && tool.kind === 'person' && (
          <Outline corners={boxCorners(draft.line)} unit={unit} isQuiet />
        )}
        {draft.line && tool.kind !== 'person' && (
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
        <EvidenceShapes points={points} wayOf={wayOf} unit={unit} />
        {isRectangleShown &&
          tool.kind === 'look' &&
          document.rectangle!.corners.map((corner, index) => (
            <CornerHandle key={index} index={index} corner={corner} unit={unit} at={at} />
          ))}
        {points.map((point) => (
          <Handle
            key={point.landmark}
            point={point}
            unit={unit}
            at={at}
            meant={(place) => meant(points, place, selected, GRIP * unit)}
          />
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

/** Where several points meet, the one in hand is meant, else the nearest. */
function meant(
  points: readonly ShownPoint[],
  at: PixelPoint,
  selected: Landmark | null,
  grip: number,
): Landmark {
  const away = (point: ShownPoint) => Math.hypot(point.x - at.x, point.y - at.y);
  const nearest = points.reduce((a, b) => (away(b) < away(a) ? b : a));
  const inHand = points.find(({ landmark }) => landmark === selected);
  return inHand && away(inHand) < grip ? inHand.landmark : nearest.landmark;
}

const boxCorners = ({ from, to }: Line): PixelPoint[] => [
  from,
  { x: to.x, y: from.y },
  to,
  { x: from.x, y: to.y },
];

const find = (points: readonly ShownPoint[], landmark: Landmark) =>
  points.find((point) => point.landmark === landmark);

function Bone({ from, to, unit }: { from?: ShownPoint; to?: ShownPoint; unit: number }) {
  if (!from || !to) return null;
  const isSure = from.kind !== 'doubtful' && to.kind !== 'doubtful';
  const isByHand = from.kind === 'placed' || to.kind === 'placed';
  return (
    <Cased
      line={{ from, to }}
      unit={isByHand ? unit : 0.7 * unit}
      dash={isSure ? undefined : `${2 * unit} ${4 * unit}`}
    />
  );
}
