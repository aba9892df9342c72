import { angleIn, type Drawing } from '@sinew/core/analysis/drawing';

type Shown = Pick<Drawing, 'kind' | 'points' | 'text'>;

/** Through all of its points, as an SVG path. */
export const wayOf = (points: Drawing['points']) =>
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
          <text
            x={points[1]!.x + 12 * unit}
            y={points[1]!.y - 10 * unit}
            fontSize={16 * unit}
            fill="#fdfaf3"
            stroke="#15130f"
            strokeWidth={3.75 * unit}
            paintOrder="stroke"
          >
            {`${Math.round(angleIn(points))}°`}
          </text>
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
