import { BAND_HEIGHT, BAR } from '@sinew/core/observe/band/band';
import { BARS_A_SHEET, TAB, type StripOfSheet } from '@sinew/core/observe/band/sheets';
import type { Paper } from './paper';

const MM = 1000;
const BAR_MM = BAR * MM;
const STRIP = BARS_A_SHEET * BAR_MM;
const TAB_MM = TAB * MM;
const HIGH = BAND_HEIGHT * MM;
/** From the top of the sheet to each strip, millimetres. */
const TOPS = [26, 118] as const;
const RULER = 100;
const INK = '#15130f';
const PAPER = '#ffffff';

/** One sheet of paper with its part of each band, to scale when printed at 100 %. */
export function BandSheet({
  strips,
  sheet,
  count,
  paper,
}: {
  strips: readonly StripOfSheet[];
  /** From 1. */
  sheet: number;
  count: number;
  paper: Paper;
}) {
  const left = (paper.width - STRIP - TAB_MM) / 2;
  return (
    <svg
      viewBox={`0 0 ${paper.width} ${paper.height}`}
      role="img"
      aria-label={`Sheet ${sheet} of ${count}`}
      data-sheet={sheet}
      className="band-sheet block w-full border border-rule bg-white print:border-0"
      fontFamily="inherit"
    >
      <rect width={paper.width} height={paper.height} fill={PAPER} />
      {strips.map((strip, i) => (
        <g key={strip.band} transform={`translate(${left} ${TOPS[i]!})`} data-band={strip.band}>
          <text y={-4} fontSize={5} fontWeight={600} fill={INK}>
            {strip.band === 'hips' ? 'Hips' : 'Ribs'}, sheet {sheet} of {count}, this side up
          </text>
          <Strip strip={strip} />
        </g>
      ))}
      <g transform={`translate(${left} ${paper.height - 9})`} fill={INK}>
        <path
          d={`M0 -2v4M0 0H${RULER}M${RULER} -2v4`}
          stroke={INK}
          strokeWidth={0.3}
          fill="none"
          data-ruler
        />
        <text x={RULER + 4} y={1.5} fontSize={4}>
          This line is 100 mm long, or the print is not at 100 %.
        </text>
      </g>
    </svg>
  );
}

function Strip({ strip: { bars, ticks, triangle, hasTab } }: { strip: StripOfSheet }) {
  return (
    <>
      {bars.map(({ index, isWhite }, i) => (
        <rect
          key={index}
          x={i * BAR_MM}
          width={BAR_MM}
          height={HIGH}
          fill={isWhite ? PAPER : INK}
          data-bar={index}
        />
      ))}
      <rect width={STRIP} height={HIGH} fill="none" stroke={INK} strokeWidth={0.2} />
      {hasTab && (
        <g>
          <rect
            x={STRIP}
            width={TAB_MM}
            height={HIGH}
            fill={PAPER}
            stroke={INK}
            strokeWidth={0.2}
          />
          <text
            transform={`translate(${STRIP + 6.5} ${HIGH / 2}) rotate(-90)`}
            fontSize={4}
            textAnchor="middle"
            fill={INK}
          >
            glue; the next sheet’s edge on the line
          </text>
        </g>
      )}
      {/* A number stands beside its tick, inside of its own bar. */}
      {ticks.map(({ at, cm, isOnWhite }) => (
        <g key={at} transform={`translate(${at * MM} ${HIGH})`} fill={isOnWhite ? INK : PAPER}>
          <rect x={-0.1} y={cm === null ? -2 : -4} width={0.2} height={cm === null ? 2 : 4} />
          {cm !== null && (
            <text
              x={(at * MM) % BAR_MM > BAR_MM - 7 ? -0.8 : 0.8}
              y={-3}
              fontSize={3}
              textAnchor={(at * MM) % BAR_MM > BAR_MM - 7 ? 'end' : 'start'}
            >
              {cm}
            </text>
          )}
        </g>
      ))}
      {triangle !== null && (
        <path
          d={`M${triangle * MM} 1l5 9h-10z`}
          fill={PAPER}
          stroke={INK}
          strokeWidth={0.8}
          data-triangle
        />
      )}
    </>
  );
}
