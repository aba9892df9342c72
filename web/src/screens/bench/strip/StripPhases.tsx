import type { ScaleLinear } from 'd3-scale';
import type { Marks } from '@sinew/core/measure/events/events';
import { useBenchStore } from '../document/benchStore';
import { BAND, FLOOR, TOP } from './lanes';
import { inOneRow, stretchesOf, type Stretch } from './phaseBand';
import { useAnalysis } from '../document/useAnalysis';

/** Widths of letters and gaps of the names, pixels; somewhat more than they take. */
const LETTER = { bold: 7.3, plain: 6.7 };
const GAP = 14;

/**
 * The phases, always: a band over the lanes with each one's name and length, however short it is, and
 * its ground behind the lanes. Where a name finds no room over its stretch a line leads to it.
 */
export function Phases({
  x,
  width,
  marks,
}: {
  x: ScaleLinear<number, number>;
  width: number;
  marks: Marks;
}) {
  const store = useBenchStore();
  const readings = useAnalysis()?.readings ?? null;
  const play = ({ name, from, to }: Stretch) => {
    if (to <= from) return;
    store.getState().setLoop({ name, span: [from, to] });
    store.getState().setPlaying(true);
  };
  const stretches = stretchesOf(marks, readings);
  const shown = stretches.filter(({ from, to }) => x(to) > 0 && x(from) < width);
  const room = [4, width - 4] as const;
  const texts = fitting(shown, room[1] - room[0]);
  const labels = shown.map(({ from, to }, i) => ({
    centre: (Math.max(0, x(from)) + Math.min(width, x(to))) / 2,
    width: widthOf(texts[i]!),
  }));
  const starts = inOneRow(labels, room);
  return (
    <g>
      {shown.map((stretch, i) => {
        const [left, right] = [x(stretch.from), Math.max(x(stretch.from), x(stretch.to))];
        const text = texts[i]!;
        const start = starts[i]!;
        const middle = labels[i]!.centre;
        const under = Math.min(Math.max(middle, start + 8), start + labels[i]!.width - GAP - 8);
        return (
          <g
            key={stretch.id}
            data-phase={stretch.id}
            onPointerDown={(event) => {
              event.stopPropagation();
              play(stretch);
            }}
            className="cursor-pointer"
          >
            <title>{`${stretch.name} ${stretch.value}: a click plays it round and round`}</title>
            <rect
              x={left}
              y={TOP}
              width={right - left}
              height={FLOOR - TOP}
              pointerEvents="none"
              className={i % 2 === 0 ? 'fill-tint' : 'fill-shade'}
            />
            <Bar left={left} right={right} isWhole={stretch.missing.length === 0} />
            <path
              d={`M${under} ${BAND.top - 5}L${middle} ${BAND.top}`}
              className="stroke-soft"
              fill="none"
            />
            <text x={start} y={BAND.top - 8} fontSize={12.5} className="fill-ink">
              <tspan fontWeight={600}>{text.name}</tspan>
              {text.more && <tspan className="fill-soft"> {text.more}</tspan>}
            </text>
          </g>
        );
      })}
    </g>
  );
}

/** Full between two known instants, hollow across an instant that is not known; nothing long is a stroke. */
function Bar({ left, right, isWhole }: { left: number; right: number; isWhole: boolean }) {
  const { top, height } = BAND;
  if (right - left < 1.5) {
    return <path d={`M${left} ${top}v${height}`} strokeWidth={2} className="stroke-ink" />;
  }
  return (
    <rect
      x={left + 0.75}
      y={top}
      width={Math.max(0.5, right - left - 1.5)}
      height={height}
      className={isWhole ? 'fill-ink' : 'fill-paper stroke-soft'}
      strokeDasharray={isWhole ? undefined : '3 3'}
    />
  );
}

interface Text {
  readonly name: string;
  readonly more: string;
}

const widthOf = ({ name, more }: Text) =>
  name.length * LETTER.bold + (more ? (more.length + 1) * LETTER.plain : 0) + GAP;

/** The longest words that all find room in one row. */
function fitting(stretches: readonly Stretch[], room: number): Text[] {
  const ways: ((one: Stretch) => Text)[] = [
    ({ name, value, missing }) => ({
      name,
      more: missing.length > 0 ? `(${missing.join(', ')} not marked)` : value,
    }),
    ({ name, short }) => ({ name, more: short }),
    ({ name }) => ({ name, more: '' }),
  ];
  const texts = ways.map((way) => stretches.map(way));
  const fits = (some: readonly Text[]) =>
    some.reduce((whole, text) => whole + widthOf(text), 0) <= room;
  return texts.find(fits) ?? texts[texts.length - 1]!;
}
