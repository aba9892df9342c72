'use client';

import { useRef, type PointerEvent } from 'react';
import type { Landmark } from '@sinew/core/foundation/body/landmarks';
import { type PixelPoint } from '@sinew/core/reconstruct/calibration/calibration';
import { inManner } from '@/manner/manner';
import { documentOf, useBench, useBenchStore } from '../document/benchStore';
import { isForTool } from './tools/pictureTool';
import { ToolSurface } from './tools/tools';
import { Drawings } from './DrawingShapes';
import { EvidenceShapes } from './EvidenceShapes';
import { CornerHandle, Handle } from './Handles';
import { Cased, Measure, Outline, Target } from './OverlayShapes';
import { BONES, type ShownPoint } from './pointsOnPicture';
import { usePoints } from './usePoints';
import { useAnalysis } from '../document/useAnalysis';
import { Trails } from './Trails';
import { useTracked } from '../document/useTracked';
import { useRealTimes } from '../document/realTimes';

/** A point is taken by a place this near to it, pixels of the screen. */
const GRIP = 13;
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
  const times = useRealTimes();
  const svg = useRef<SVGSVGElement>(null);

  const { tracking } = useTracked();
  const selected = useBench((state) => state.selectedPoint?.landmark ?? null);
  const all = usePoints(shownFrame);
  // Whoever marks the turn is not to be led by what the tracker made of it.
  const points = tool.kind === 'turn' ? all.filter(({ kind }) => kind === 'placed') : all;

  const at = (event: PointerEvent): PixelPoint => {
    const matrix = svg.current!.getScreenCTM()!.inverse();
    const { x, y } = new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix);
    return { x, y };
  };

  const assumedTarget = useAnalysis()?.assumed.target ?? null;
  const wayOf = (landmark: Landmark, from: number, to: number): PixelPoint[] => {
    const { frames, x, y } = tracking.track.points[landmark] ?? { frames: [], x: [], y: [] };
    return frames.flatMap((frame, i) =>
      times[frame]! >= from && times[frame]! <= to ? [{ x: x[i]!, y: y[i]! }] : [],
    );
  };
  const isRectangleShown = document.rectangle !== null && tool.kind !== 'rectangle';

  return (
    <svg
      ref={svg}
      viewBox={`0 0 ${clip.width} ${clip.height}`}
      onPointerDown={(event) => {
        // With no tool in hand, a click beside the points lets go of the one chosen.
        if (isForTool(event) && tool.kind === 'look') store.getState().selectPoint(null);
      }}
      role="group"
      aria-label="Points on the picture"
      className="absolute inset-0 size-full touch-none"
    >
      {document.scale && (
        <Measure line={document.scale} unit={unit} label={inManner(`${document.scale.metres} m`)} />
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
      {BONES.map(([a, b]) => (
        <Bone key={a + b} from={find(points, a)} to={find(points, b)} unit={unit} />
      ))}
      <Trails wayOf={wayOf} unit={unit} />
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
      <Drawings unit={unit} />
      <ToolSurface unit={unit} at={at} />
    </svg>
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
