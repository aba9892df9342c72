'use client';

import { useRef, useState, type PointerEvent } from 'react';
import { AIMS, BOARD, type AimName } from '@sinew/core/train/progress/fieldTest';
import { fieldUnit, inManner } from '@/manner/manner';
import { Button } from '@/ui/button';
import { SelectField } from '@/ui/field';
import { Outcome, typed } from './numbers';

interface Point {
  readonly across: number;
  readonly up: number;
}

/** Half the board, centimetres. */
const HALF = 100 * BOARD;
/** How exactly a tap says where a fist landed, centimetres. */
const TAP = 1;

/** Where each strike of a set landed, tapped on the pad one after the other. */
export function AimForm({ studentId, today }: { studentId: string; today: string }) {
  const board = useRef<SVGSVGElement>(null);
  const [aim, setAim] = useState<AimName>('chin');
  const [points, setPoints] = useState<readonly Point[]>([]);
  const [plusMinus, setPlusMinus] = useState(() => fieldUnit('cm').shown(TAP));
  const [across, setAcross] = useState('');
  const [up, setUp] = useState('');
  const add = (x: number, y: number) => {
    if (!(Math.abs(x) <= HALF && Math.abs(y) <= HALF)) return;
    // To the millimetre; −0 is 0.
    const metres = (centimetres: number) => Math.round(10 * centimetres) / 1000 + 0;
    setPoints((now) => [...now, { across: metres(x), up: metres(y) }]);
  };
  const tap = (event: PointerEvent) => {
    const box = board.current!.getBoundingClientRect();
    const share = (at: number, from: number, size: number) => (2 * (at - from)) / size - 1;
    add(
      HALF * share(event.clientX, box.left, box.width),
      -HALF * share(event.clientY, box.top, box.height),
    );
  };
  const radius = 100 * AIMS[aim].zone;
  const length = fieldUnit('cm');
  return (
    <div className="grid gap-8 md:grid-cols-[20rem_minmax(0,1fr)]">
      <svg
        ref={board}
        viewBox={`${-HALF} ${-HALF} ${2 * HALF} ${2 * HALF}`}
        className="aspect-square w-full cursor-crosshair touch-none border border-ink bg-tint select-none"
        role="img"
        aria-label={inManner(`The pad, ${2 * HALF} cm wide: tap where each strike landed`)}
        onPointerDown={tap}
      >
        <circle r={radius} className="fill-paper stroke-ink" strokeWidth={0.25} />
        <path d="M-2 0H2M0 -2V2" className="stroke-ink" strokeWidth={0.25} />
        {points.map(({ across: x, up: y }, i) => (
          <g key={i} transform={`translate(${100 * x} ${-100 * y})`} data-landed>
            <rect x={-0.8} y={-0.8} width={1.6} height={1.6} className="fill-now" />
            <text x={1.2} y={0.7} className="fill-ink text-[2.2px]">
              {i + 1}
            </text>
          </g>
        ))}
      </svg>
      <div>
        <div className="grid max-w-md gap-4 sm:grid-cols-2">
          <SelectField
            label="Aimed at"
            value={aim}
            onChange={(event) => setAim(event.target.value as AimName)}
          >
            {Object.entries(AIMS).map(([id, { name, zone }]) => (
              <option key={id} value={id}>
                {name}, {inManner(`${100 * zone} cm`)}
              </option>
            ))}
          </SelectField>
          <label>
            <span className="mb-1 block text-sm font-semibold">
              Each is known to ±, {length.unit}
            </span>
            <input
              inputMode="decimal"
              value={plusMinus}
              onChange={(event) => setPlusMinus(event.target.value)}
              className="h-10 w-full border border-soft bg-field px-3 text-right"
            />
          </label>
        </div>
        <form
          className="mt-3 flex flex-wrap items-center gap-3"
          onSubmit={(event) => {
            event.preventDefault();
            add(length.kept(typed(across)), length.kept(typed(up)));
            setAcross('');
            setUp('');
          }}
        >
          {(
            [
              [`Right of the middle, ${length.unit}`, across, setAcross],
              [`Above it, ${length.unit}`, up, setUp],
            ] as const
          ).map(([label, value, set]) => (
            <input
              key={label}
              aria-label={label}
              placeholder={label}
              inputMode="decimal"
              value={value}
              onChange={(event) => set(event.target.value)}
              className="h-9 w-44 border border-soft bg-field px-3"
            />
          ))}
          <Button type="submit">Add</Button>
          <Button disabled={points.length === 0} onClick={() => setPoints(points.slice(0, -1))}>
            Take the last back
          </Button>
        </form>
        <p className="mt-2 text-sm text-soft">
          On a pad or a bag figure only. Three strikes or more; seen from who strikes.
        </p>
        <Outcome
          studentId={studentId}
          today={today}
          given={{ kind: 'aim', aim, points, plusMinus: length.kept(typed(plusMinus)) / 100 }}
        />
      </div>
    </div>
  );
}
