'use client';

import { bisectCenter } from 'd3-array';
import type { TurnSeries } from '@sinew/core/reconstruct/motion/turn';
import { useBench } from '../document/benchStore';
import { useRealTimes } from '../document/realTimes';
import { useAnalysis } from '../document/useAnalysis';
import { SOURCE_WORDS } from '../panel/sources';

const DEGREE = Math.PI / 180;
/** A sample as near in time as this stands for the frame in hand, seconds. */
const NEAR = 0.02;
const RADIUS = 44;

/** A direction and how sure it is: radians, 1.96 σ. */
interface Direction {
  readonly yaw: number;
  readonly plusMinus: number;
}

/** Hips and shoulders seen from above on the frame in hand, the target at the top; nothing where nothing tells it. */
export function TurnDial() {
  const turns = useAnalysis()?.turns ?? null;
  const times = useRealTimes();
  const time = times[useBench((state) => state.frame)];
  if (!turns || time === undefined) return null;
  const [hips, shoulders] = [turns.pelvis, turns.trunk].map((one) => at(one, time));
  if (!hips && !shoulders) return null;
  return (
    <figure
      aria-label="Hips and shoulders from above"
      className="absolute top-12 right-3 w-40 bg-paper px-2 pt-1 pb-2 text-sm max-lg:hidden"
    >
      <svg viewBox="-60 -60 120 112" className="w-full" role="img" aria-hidden>
        <path d="M0 -58l6 9h-12z" className="fill-ink" />
        <circle r={RADIUS} fill="none" className="stroke-rule" />
        {/* A southpaw's turns are told as an orthodox student's. */}
        <g transform={turns.isMirrored ? 'scale(-1 1)' : undefined}>
          {hips && <Fan direction={hips} />}
          {shoulders && <Fan direction={shoulders} />}
          {hips && <Line yaw={hips.yaw} width={9} />}
          {shoulders && <Line yaw={shoulders.yaw} width={2.5} hasEnds />}
        </g>
      </svg>
      <figcaption>
        {inWords(hips, shoulders, turns.sign)}{' '}
        <span className="text-soft">({SOURCE_WORDS[turns.source]})</span>
      </figcaption>
    </figure>
  );
}

/** Where the line may be, to both sides of it. */
function Fan({ direction: { yaw, plusMinus } }: { direction: Direction }) {
  const open = Math.min(plusMinus, Math.PI / 2);
  return [0, Math.PI].map((end) => (
    <path key={end} d={wedge(yaw + end, open)} className="fill-shade" />
  ));
}

/** Hips as a bar, shoulders as a line between two dots: paper shows between them where they cross. */
function Line({ yaw, width, hasEnds = false }: { yaw: number; width: number; hasEnds?: boolean }) {
  // The rear side to the right; it goes to the top as it comes forward.
  const [x, y] = [RADIUS * Math.cos(yaw), -RADIUS * Math.sin(yaw)];
  const ends = { x1: -x, y1: -y, x2: x, y2: y };
  return (
    <>
      {hasEnds && <line {...ends} strokeWidth={width + 2} className="stroke-paper" />}
      <line {...ends} strokeWidth={width} className="stroke-ink" />
      {hasEnds &&
        [-1, 1].map((end) => (
          <circle key={end} cx={end * x} cy={end * y} r={5} className="fill-ink" />
        ))}
    </>
  );
}

function wedge(middle: number, open: number): string {
  const point = (angle: number) => `${RADIUS * Math.cos(angle)} ${-RADIUS * Math.sin(angle)}`;
  return `M0 0L${point(middle - open)}A${RADIUS} ${RADIUS} 0 0 0 ${point(middle + open)}Z`;
}

function at(series: TurnSeries | null, time: number): Direction | null {
  if (!series) return null;
  const i = bisectCenter(series.times, time);
  if (!(Math.abs((series.times[i] ?? Infinity) - time) < NEAR)) return null;
  return { yaw: series.yaw[i]!, plusMinus: 1.96 * series.sigma[i]! };
}

/** "Hips 12 ± 8° ahead": farther into the strike. */
function inWords(
  hips: Direction | null | undefined,
  shoulders: Direction | null | undefined,
  sign: 1 | -1,
): string {
  if (!hips) return 'Shoulders only';
  if (!shoulders) return 'Hips only';
  const apart = (sign * (hips.yaw - shoulders.yaw)) / DEGREE;
  const plusMinus = Math.hypot(hips.plusMinus, shoulders.plusMinus) / DEGREE;
  const who = apart < 0 ? 'Shoulders' : 'Hips';
  return `${who} ${Math.abs(apart).toFixed(0)} ± ${plusMinus.toFixed(0)}° ahead`;
}
