'use client';

import { useState } from 'react';
import { TECHNIQUES, techniqueById } from '@sinew/core/foundation/technique/techniques';
import type { SetSpeed } from '@/data/progress/ledger';
import { pastDay } from '@/data/database/today';
import { fieldUnit, inManner } from '@/manner/manner';
import { Button } from '@/ui/button';
import { measuredIn, Outcome, typed } from './numbers';

interface Rung {
  readonly distance: string;
  readonly form: string;
  readonly speed: string;
  readonly plusMinus: string;
}

const keyOf = ({ clipId, technique }: SetSpeed) => `${clipId} ${technique}`;

function inWords({ technique, day, strikes, value, plusMinus }: SetSpeed): string {
  const of = strikes === 1 ? '1 strike' : `${strikes} strikes`;
  const speed = inManner(`${value.toFixed(1)} ± ${plusMinus.toFixed(1)} m/s`);
  return `${techniqueById(technique).name}, ${pastDay(day)}, ${of}: ${speed}`;
}

/** Centimetres. */
const DISTANCES = [50, 75, 100, 125];
const firstRungs = (): readonly Rung[] =>
  DISTANCES.map((distance) => ({
    distance: fieldUnit('cm').shown(distance),
    form: 'cross',
    speed: '',
    plusMinus: fieldUnit('m/s').shown(0.5),
  }));

export function LadderForm({
  studentId,
  today,
  speeds,
}: {
  studentId: string;
  today: string;
  speeds: readonly SetSpeed[];
}) {
  const [rungs, setRungs] = useState<readonly Rung[]>(firstRungs);
  const [far, fast] = [fieldUnit('cm'), fieldUnit('m/s')];
  const change = (index: number, part: Partial<Rung>) =>
    setRungs((old) => old.map((rung, i) => (i === index ? { ...rung, ...part } : rung)));
  const takeFrom = (index: number, chosen: string) => {
    const set = speeds.find((one) => keyOf(one) === chosen);
    if (!set) return;
    const { technique, value, plusMinus } = set;
    change(index, {
      form: technique,
      speed: measuredIn(fast, value),
      plusMinus: measuredIn(fast, plusMinus),
    });
  };
  const box = 'h-10 border border-soft bg-field px-3';
  return (
    <div className="max-w-3xl">
      <table className="w-full">
        <thead>
          <tr className="border-b border-ink text-left text-sm text-soft">
            <th className="py-1.5 font-semibold">Rear foot to target, {far.unit}</th>
            <th className="font-semibold">Form</th>
            <th className="font-semibold">Speed at contact, {fast.unit}</th>
            <th className="font-semibold">±</th>
            {speeds.length > 0 && <th className="pl-3 font-semibold">From the ledger</th>}
            <th>
              <span className="sr-only">Take out</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {rungs.map((rung, i) => (
            <tr key={i} className="border-b border-rule">
              <td className="py-1.5">
                <input
                  aria-label={`Distance ${i + 1}, ${far.unit}`}
                  inputMode="decimal"
                  value={rung.distance}
                  onChange={(event) => change(i, { distance: event.target.value })}
                  className={`${box} w-28 text-right`}
                />
              </td>
              <td>
                <select
                  aria-label={`Form ${i + 1}`}
                  value={rung.form}
                  onChange={(event) => change(i, { form: event.target.value })}
                  className={`${box} w-48`}
                >
                  {TECHNIQUES.map(({ id, name }) => (
                    <option key={id} value={id}>
                      {name}
                    </option>
                  ))}
                </select>
              </td>
              <td>
                <input
                  aria-label={`Speed ${i + 1}, ${fast.unit}`}
                  inputMode="decimal"
                  value={rung.speed}
                  onChange={(event) => change(i, { speed: event.target.value })}
                  className={`${box} w-28 text-right`}
                />
              </td>
              <td>
                <input
                  aria-label={`Speed ${i + 1}, plus or minus`}
                  inputMode="decimal"
                  value={rung.plusMinus}
                  onChange={(event) => change(i, { plusMinus: event.target.value })}
                  className={`${box} w-20 text-right`}
                />
              </td>
              {speeds.length > 0 && (
                <td>
                  <select
                    aria-label={`Speed ${i + 1} from a set`}
                    value=""
                    onChange={(event) => takeFrom(i, event.target.value)}
                    className={`${box} ml-3 w-28`}
                  >
                    <option value="">a set</option>
                    {speeds.map((set) => (
                      <option key={keyOf(set)} value={keyOf(set)}>
                        {inWords(set)}
                      </option>
                    ))}
                  </select>
                </td>
              )}
              <td className="text-right">
                <Button
                  weight="quiet"
                  className="text-sm"
                  disabled={rungs.length <= 2}
                  onClick={() => setRungs((old) => old.filter((_, k) => k !== i))}
                >
                  Take out
                </Button>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <Button
        className="mt-3"
        onClick={() => setRungs((old) => [...old, old[old.length - 1] ?? firstRungs()[0]!])}
      >
        Another form or distance
      </Button>
      <p className="mt-2 text-sm text-soft">
        Speeds are the bench’s, the median of a set, with their ±; five strikes make a set. Forms
        that cannot be told apart are named together.
      </p>
      <Outcome
        studentId={studentId}
        today={today}
        given={{
          kind: 'ladder',
          rungs: rungs
            .filter(({ speed }) => speed.trim() !== '')
            .map(({ distance, form, speed, plusMinus }) => ({
              distance: far.kept(typed(distance)) / 100,
              form,
              speed: { value: fast.kept(typed(speed)), plusMinus: fast.kept(typed(plusMinus)) },
            })),
        }}
      />
    </div>
  );
}
