import type { ReactNode } from 'react';
import type { Line, PixelPoint } from '@sinew/core/reconstruct/calibration/calibration';

/** A light line with a dark edge, legible on any film. */
export function Cased({ line, unit, dash }: { line: Line; unit: number; dash?: string }) {
  const ends = { x1: line.from.x, y1: line.from.y, x2: line.to.x, y2: line.to.y };
  return (
    <g pointerEvents="none" strokeLinecap="round">
      <line {...ends} stroke="#15130f" strokeOpacity={0.65} strokeWidth={4 * unit} />
      <line {...ends} stroke="#fdfaf3" strokeWidth={1.8 * unit} strokeDasharray={dash} />
    </g>
  );
}

export function Target({
  line,
  unit,
  isAssumed = false,
}: {
  line: Line;
  unit: number;
  /** Taken for granted until the coach draws it. */
  isAssumed?: boolean;
}) {
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
      <Tag at={line.from} unit={unit}>
        {isAssumed ? 'to the target, assumed' : 'to the target'}
      </Tag>
    </>
  );
}

export function Measure({ line, unit, label }: { line: Line; unit: number; label: string }) {
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
        <Tag at={line.to} unit={unit}>
          {label}
        </Tag>
      )}
    </>
  );
}

export function Tag({ at, unit, children }: { at: PixelPoint; unit: number; children: ReactNode }) {
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

/** A rectangle of known sides: its outline, its corners numbered in the order they were taken. */
export function Outline({
  corners,
  unit,
  isQuiet = false,
}: {
  corners: readonly PixelPoint[];
  unit: number;
  /** Thin and without numbers, while it is not what is worked on. */
  isQuiet?: boolean;
}) {
  const floor = corners.slice(0, 4);
  const top = corners.slice(4);
  const closed = (ring: readonly PixelPoint[], isWhole: boolean): Line[] =>
    ring.flatMap((from, i) => {
      const to = ring[i + 1] ?? (isWhole ? ring[0] : undefined);
      return to ? [{ from, to }] : [];
    });
  const lines = [
    ...closed(floor, floor.length === 4),
    ...closed(top, top.length === 4),
    ...top.map((to, i): Line => ({ from: floor[i]!, to })),
  ];
  return (
    <>
      {lines.map((line, i) => (
        <Cased
          key={i}
          line={line}
          unit={isQuiet ? unit / 2 : unit}
          dash={isQuiet ? `${3 * unit} ${4 * unit}` : undefined}
        />
      ))}
      {!isQuiet &&
        corners.map((corner, i) => (
          <Tag key={i} at={corner} unit={unit}>
            {i + 1}
          </Tag>
        ))}
    </>
  );
}

export function Dot({ at, unit }: { at: PixelPoint; unit: number }) {
  return (
    <circle
      cx={at.x}
      cy={at.y}
      r={4 * unit}
      fill="#fdfaf3"
      stroke="#15130f"
      strokeWidth={1.6 * unit}
      pointerEvents="none"
    />
  );
}
