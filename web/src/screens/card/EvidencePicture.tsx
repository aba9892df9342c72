'use client';

import type { CardPicture } from '@/data/finding/card';
import { inManner } from '@/manner/manner';
import { DrawingShape } from '@/ui/drawingShape';
import { FilmFrame } from '@/ui/filmFrame';

/** The frame that shows a fault, with what it was measured by drawn on it. */
export function EvidencePicture({ picture }: { picture: CardPicture }) {
  const { clip, frame, lines, label, span, drawings } = picture;
  const unit = clip.width / 620;
  const end = lines[0]?.[lines[0].length - 1];
  return (
    <figure className="mt-5" data-evidence>
      <div className="relative bg-shade" style={{ aspectRatio: `${clip.width} / ${clip.height}` }}>
        <FilmFrame clip={clip} frame={frame} label={`The strike, frame ${frame}`} isFilling />
        <svg
          viewBox={`0 0 ${clip.width} ${clip.height}`}
          className="absolute inset-0 size-full"
          aria-hidden
        >
          {lines.map((line, i) => {
            const d = line.map(({ x, y }, k) => `${k === 0 ? 'M' : 'L'}${x} ${y}`).join('');
            return (
              <g key={i} fill="none" strokeLinecap="round" strokeLinejoin="round">
                <path d={d} stroke="#fdfaf3" strokeWidth={6 * unit} />
                <path d={d} stroke="#b92d17" strokeWidth={3 * unit} />
              </g>
            );
          })}
          {drawings.map((drawing) => (
            <DrawingShape key={drawing.id} drawing={drawing} unit={unit} />
          ))}
          {end && label && (
            <text
              x={end.x + 10 * unit}
              y={end.y}
              fontSize={17 * unit}
              fontWeight={600}
              fontFamily="sans-serif"
              stroke="#fdfaf3"
              strokeWidth={5 * unit}
              paintOrder="stroke"
              fill="#15130f"
            >
              {inManner(label)}
            </text>
          )}
        </svg>
      </div>
      {span && <Span names={span.names} seconds={span.seconds} label={inManner(label)} />}
    </figure>
  );
}

const WIDTH = 600;
/** Seconds that the line shows. */
const SHOWN = 0.12;

/** Two instants on a line of time. */
function Span({
  names,
  seconds,
  label,
}: {
  names: readonly [string, string];
  seconds: number;
  label: string;
}) {
  const from = WIDTH * 0.4;
  const to = from + (Math.max(-0.04, Math.min(0.06, seconds)) / SHOWN) * WIDTH;
  return (
    <svg
      viewBox={`0 0 ${WIDTH} 58`}
      className="mt-2 w-full"
      role="img"
      aria-label={`${names[0]}, ${names[1]}: ${label} apart`}
    >
      <line x1={0} x2={WIDTH} y1={29} y2={29} className="stroke-rule" />
      <line x1={from} x2={from} y1={16} y2={42} className="stroke-ink" strokeWidth={3} />
      <line x1={to} x2={to} y1={16} y2={42} className="stroke-now" strokeWidth={3} />
      <text x={from - 8} y={14} textAnchor="end" className="fill-ink text-[14px]">
        {names[0]}
      </text>
      <text x={to + 8} y={56} className="fill-now text-[14px]">
        {names[1]}: {label}
      </text>
    </svg>
  );
}
