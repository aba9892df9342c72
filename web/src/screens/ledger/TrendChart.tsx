import { pastDay } from '@/data/database/today';
import { inManner, say } from '@/manner/manner';
import { trendSentence, type Track } from '@/data/progress/trends';
import { bestOf, chartOf } from './view';

const WIDTH = 720;
const HEIGHT = 220;
const LEFT = 64;

/** A reading set by set, with ± and the band in which nothing has changed. */
export function TrendChart({ track, typicalError }: { track: Track; typicalError: number | null }) {
  const { dots, band, ticks, days } = chartOf(track, typicalError, WIDTH - LEFT, HEIGHT);
  const best = bestOf(track);
  return (
    <figure>
      <figcaption className="font-serif text-2xl leading-tight">
        {inManner(trendSentence(track))}
      </figcaption>
      <svg
        viewBox={`0 0 ${WIDTH} ${HEIGHT + 26}`}
        className="mt-2 w-full"
        role="img"
        aria-label={track.points
          .map(
            (point) =>
              `${pastDay(point.day)}: ${say({ ...point, unit: track.unit, source: 'eye', frames: [] })}`,
          )
          .join('; ')}
      >
        {ticks.map(({ y, label }) => (
          <g key={y}>
            <line x1={LEFT} x2={WIDTH} y1={y} y2={y} className="stroke-rule" />
            <text x={LEFT - 8} y={y + 4} textAnchor="end" className="fill-soft text-[12px]">
              {label}
            </text>
          </g>
        ))}
        <rect
          x={LEFT}
          width={WIDTH - LEFT}
          y={band.top}
          height={Math.max(0, band.bottom - band.top)}
          className="fill-shade"
          opacity={0.6}
        />
        <text x={WIDTH - 4} y={band.bottom + 14} textAnchor="end" className="fill-soft text-[12px]">
          in the band: no change from the first set
        </text>
        <g transform={`translate(${LEFT} 0)`}>
          {dots.map(({ x, y, top, bottom, point }) => (
            <g key={point.clipId + point.strikeId}>
              <line x1={x} x2={x} y1={top} y2={bottom} className="stroke-ink" />
              <circle
                cx={x}
                cy={y}
                r={5}
                strokeWidth={1.5}
                className={`stroke-ink ${point === best ? 'fill-now' : 'fill-ink'}`}
              />
              {point === best && (
                <text x={x} y={top - 6} textAnchor="middle" className="fill-now text-[12px]">
                  best
                </text>
              )}
            </g>
          ))}
          {days.map(({ x, day }, i) => (
            <text
              key={day}
              x={x}
              y={HEIGHT + 20}
              textAnchor={days.length > 1 && i === days.length - 1 ? 'end' : 'middle'}
              className="fill-soft text-[12px]"
            >
              {pastDay(day)}
            </text>
          ))}
        </g>
      </svg>
    </figure>
  );
}
