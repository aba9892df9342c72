'use client';

import { scaleLinear } from 'd3-scale';
import { line } from 'd3-shape';
import { useRef, type PointerEvent } from 'react';
import { max } from 'd3-array';
import type { Technique } from '@sinew/core/foundation/technique/techniques';
import type { FilmOfStrike } from '@/data/finding/comparing';
import { FROM, TO } from './stretch';

const WIDTH = 640;
const LANE = 30;
const LEFT = 74;

/** Both chains over the same time: then dotted, now full; ticks where each link starts. */
export function TwoChains({
  technique,
  then,
  now,
  time,
  onTime,
}: {
  technique: Technique;
  then: FilmOfStrike | null;
  now: FilmOfStrike | null;
  time: number;
  onTime: (time: number) => void;
}) {
  const svg = useRef<SVGSVGElement>(null);
  const x = scaleLinear([FROM, TO], [LEFT, WIDTH]);
  const links = [...technique.chain].reverse();
  const films = [then, now].filter((film) => film !== null);
  if (films.length === 0) return null;
  const height = links.length * LANE + 18;
  const scrub = (event: PointerEvent) => {
    if (event.buttons !== 1) return;
    const box = svg.current!.getBoundingClientRect();
    const at = x.invert(((event.clientX - box.left) / box.width) * WIDTH);
    onTime(at);
  };
  return (
    <figure>
      <figcaption className="text-sm">
        How fast each link moves, ground at the bottom. <strong>Now</strong> is the full line,{' '}
        <span className="text-soft">then the dotted one</span>; ticks are starts.
      </figcaption>
      <svg
        ref={svg}
        viewBox={`0 0 ${WIDTH} ${height}`}
        className="w-full touch-none select-none"
        onPointerDown={scrub}
        onPointerMove={scrub}
        role="img"
        aria-label="Chain strips of both strikes, aligned at contact"
      >
        {links.map((link, i) => {
          const base = (i + 1) * LANE;
          const top = max(films, (film) => max(film.traces[link]?.values ?? [])) ?? 0;
          const y = scaleLinear([0, top || 1], [base, base - LANE + 6]);
          const draw = (film: FilmOfStrike | null) => {
            const trace = film?.traces[link];
            if (!trace) return undefined;
            const points = trace.times
              .map((at, k) => [at, trace.values[k]!] as const)
              .filter(([at]) => at >= FROM && at <= TO);
            return line<readonly [number, number]>(
              ([at]) => x(at),
              ([, value]) => y(Math.max(0, value)),
            )(points);
          };
          return (
            <g key={link}>
              <text x={0} y={base - 4} className="fill-ink text-[13px]">
                {link}
              </text>
              <line x1={LEFT} x2={WIDTH} y1={base} y2={base} className="stroke-rule" />
              <path
                d={draw(then) ?? undefined}
                className="fill-none stroke-soft"
                strokeWidth={1.5}
                strokeDasharray="2 3"
              />
              <path d={draw(now) ?? undefined} className="fill-none stroke-ink" strokeWidth={1.8} />
              {films.map((film) =>
                film.starts
                  .filter((start) => start.link === link && start.time >= FROM && start.time <= TO)
                  .map((start) => (
                    <line
                      key={film === now ? 'now' : 'then'}
                      x1={x(start.time)}
                      x2={x(start.time)}
                      y1={base - 14}
                      y2={base}
                      strokeWidth={film === now ? 3 : 1.5}
                      strokeDasharray={film === now ? undefined : '2 2'}
                      className="stroke-ink"
                    />
                  )),
              )}
            </g>
          );
        })}
        <line
          x1={x(0)}
          x2={x(0)}
          y1={0}
          y2={height - 16}
          className="stroke-ink"
          strokeDasharray="1 2"
        />
        <text x={x(0)} y={height - 3} textAnchor="middle" className="fill-soft text-[12px]">
          contact
        </text>
        <line
          x1={x(time)}
          x2={x(time)}
          y1={0}
          y2={height - 16}
          className="stroke-now"
          strokeWidth={2}
        />
      </svg>
    </figure>
  );
}
