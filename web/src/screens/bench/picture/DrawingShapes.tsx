'use client';

import { angleIn, type Drawing } from '@sinew/core/analysis/drawing';
import { documentOf, useBench, useBenchStore } from '../document/benchStore';
import { Tag } from './OverlayShapes';

type Shown = Pick<Drawing, 'kind' | 'points' | 'text'>;

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

const wayOf = (points: Drawing['points']) =>
  points.map(({ x, y }, i) => `${i === 0 ? 'M' : 'L'}${x} ${y}`).join('') +
  (points.length === 1 ? 'h1' : '');

/** Chalk on a dark edge, so that it shows on any film, and is told from what was measured. */
export function DrawingShape({
  drawing: { kind, points, text },
  unit,
  isChosen = false,
}: {
  drawing: Shown;
  unit: number;
  isChosen?: boolean;
}) {
  const d = kind === 'words' ? '' : wayOf(points) + (kind === 'arrow' ? headOf(points, unit) : '');
  const chalk = isChosen ? '#e8b23a' : '#f6dc8f';
  return (
    <g fill="none" strokeLinecap="round" strokeLinejoin="round">
      <path d={d} stroke="#15130f" strokeOpacity={0.7} strokeWidth={6.5 * unit} />
      <path d={d} stroke={chalk} strokeWidth={3.2 * unit} />
      {kind === 'angle' && points.length === 3 && (
        <>
          <path d={arcOf(points, unit)} stroke={chalk} strokeWidth={1.8 * unit} />
          <Tag at={points[1]!} unit={1.25 * unit}>
            {`${Math.round(angleIn(points))}°`}
          </Tag>
        </>
      )}
      {kind === 'words' && (
        <text
          x={points[0]!.x}
          y={points[0]!.y}
          fontSize={22 * unit}
          fontWeight={600}
          fontFamily="sans-serif"
          fill={chalk}
          stroke="#15130f"
          strokeWidth={4.5 * unit}
          paintOrder="stroke"
        >
          {text}
        </text>
      )}
    </g>
  );
}

function headOf(points: Drawing['points'], unit: number): string {
  const [from, to] = [points[points.length - 2]!, points[points.length - 1]!];
  const angle = Math.atan2(to.y - from.y, to.x - from.x);
  return [0.5, -0.5]
    .map((turn) => {
      const x = to.x - 18 * unit * Math.cos(angle + turn);
      const y = to.y - 18 * unit * Math.sin(angle + turn);
      return `M${to.x} ${to.y}L${x} ${y}`;
    })
    .join('');
}

function arcOf([a, corner, b]: Drawing['points'], unit: number): string {
  const radius = 26 * unit;
  const at = (point: { x: number; y: number }) => {
    const angle = Math.atan2(point.y - corner!.y, point.x - corner!.x);
    return [corner!.x + radius * Math.cos(angle), corner!.y + radius * Math.sin(angle)];
  };
  const [from, to] = [at(a!), at(b!)];
  const turn =
    (a!.x - corner!.x) * (b!.y - corner!.y) - (a!.y - corner!.y) * (b!.x - corner!.x) > 0 ? 1 : 0;
  return `M${from.join(' ')}A${radius} ${radius} 0 0 ${turn} ${to.join(' ')}`;
}
