import type { ScaleLinear } from 'd3-scale';
import type { Marks } from '@sinew/core/measure/events/events';
import { PHASES } from '@sinew/core/measure/events/phases';
import { isAbsent } from '@sinew/core/foundation/reading/reading';
import { say } from '@sinew/core/foundation/reading/say';
import { FLOOR, TOP } from './lanes';
import { useAnalysis } from '../document/useAnalysis';

/** The four phases behind the lanes, each from one instant to the next, with how long it takes. */
export function Phases({ x, marks }: { x: ScaleLinear<number, number>; marks: Marks }) {
  const analysis = useAnalysis();
  return PHASES.map((phase, index) => {
    const [from, to] = [marks[phase.from], marks[phase.to]];
    const span = analysis?.readings[`phase.${phase.id}`];
    if (!from || !to || !span || isAbsent(span)) return null;
    const [left, right] = [x(from.time), x(to.time)];
    return (
      <g key={phase.id} pointerEvents="none">
        <rect
          x={left}
          y={TOP}
          width={Math.max(0, right - left)}
          height={FLOOR - TOP}
          className={index % 2 === 0 ? 'fill-tint' : 'fill-shade'}
        />
        <PhaseName left={left} right={right} name={phase.name} value={say(span)} />
      </g>
    );
  });
}

/** A phase too short for its name shows it on hover only. */
function PhaseName(props: { left: number; right: number; name: string; value: string }) {
  const { left, right, name, value } = props;
  const room = right - left;
  const needs = (text: string) => text.length * 7.5 + 12;
  const text = [`${name} ${value}`, name].find((one) => needs(one) < room);
  if (!text) return <title>{`${name} ${value}`}</title>;
  return (
    <text x={left + 4} y={TOP - 8} fontSize={12.5} className="fill-ink">
      <tspan fontWeight={600}>{name}</tspan>
      {text !== name && <tspan className="fill-soft"> {value}</tspan>}
    </text>
  );
}
