'use client';

import {
  MEASURE_GROUPS,
  MEASURE_NAMES,
  type MeasureId,
  type Readings,
} from '@sinew/core/measure/measures/allMeasures';
import { sourceInWords } from '../sources';
import { isAbsent, type Reading } from '@sinew/core/foundation/reading/reading';
import { parts } from '@/manner/manner';

/** Where a strike's readings come from, beyond what each says of itself. */
interface Origin {
  /** What is seen in pictures was found by the body tracker. */
  readonly isTracked: boolean;
  /** Its marks are the program's until the coach confirms it. */
  readonly isAutomatic: boolean;
}

function sourceOf(reading: Reading, { isTracked, isAutomatic }: Origin): string {
  const { source, isElsewhere } = reading;
  if (source === 'eye' && isAutomatic) return 'automatic marks';
  const isOfPoints = !isElsewhere && (source === 'measured-2d' || source === 'measured-3d');
  return isTracked && isOfPoints ? `${sourceInWords(reading)}, tracked` : sourceInWords(reading);
}

/** Every reading with its ±, by what it is about; then what is not there, and why. */
export function ReadingsTable({ readings, origin }: { readings: Readings; origin: Origin }) {
  const groups = MEASURE_GROUPS.map(({ name, ids }) => ({ name, rows: present(readings, ids) }));
  return (
    <>
      <table className="w-full border-collapse">
        <thead>
          <tr className="text-left text-sm text-soft">
            <th className="py-1.5 font-semibold">Reading</th>
            <th className="py-1.5 text-right font-semibold">Value</th>
            <th
              className="py-1.5 pl-2 font-semibold"
              title="The true value lies within in 95 of 100 cases"
            >
              ± (95 %)
            </th>
            <th className="py-1.5 pl-3 font-semibold">From</th>
          </tr>
        </thead>
        {groups.map(({ name, rows }) =>
          rows.length === 0 ? null : (
            <tbody key={name}>
              <tr>
                <th
                  scope="rowgroup"
                  colSpan={4}
                  className="border-b border-ink pt-3 pb-1 text-left font-serif text-lg font-normal"
                >
                  {name}
                </th>
              </tr>
              {rows.map(([id, reading]) => (
                <Row key={id} name={MEASURE_NAMES[id]} reading={reading} origin={origin} />
              ))}
            </tbody>
          ),
        )}
      </table>
      <Lacking readings={readings} />
    </>
  );
}

function present(readings: Readings, ids: readonly MeasureId[]): [MeasureId, Reading][] {
  return ids.flatMap((id) => {
    const reading = readings[id];
    return isAbsent(reading) ? [] : [[id, reading]];
  });
}

function Row({ name, reading, origin }: { name: string; reading: Reading; origin: Origin }) {
  const { value, plusMinus, unit } = parts(reading);
  return (
    <tr className="border-b border-rule">
      <td className="py-1.5">{name}</td>
      <td className="py-1.5 text-right font-semibold">{value}</td>
      <td className="py-1.5 pl-2 whitespace-nowrap text-soft">
        ± {plusMinus} {unit}
      </td>
      <td className="py-1.5 pl-3 whitespace-nowrap text-soft">{sourceOf(reading, origin)}</td>
    </tr>
  );
}

/** What this strike could have and does not, once for each reason. */
function Lacking({ readings }: { readings: Readings }) {
  const byReason = new Map<string, string[]>();
  for (const { ids } of MEASURE_GROUPS) {
    for (const id of ids) {
      const reading = readings[id];
      if (!isAbsent(reading) || reading.isNotApplicable) continue;
      const names = byReason.get(reading.absent) ?? [];
      byReason.set(reading.absent, [...names, MEASURE_NAMES[id]]);
    }
  }
  if (byReason.size === 0) return null;
  return (
    <dl className="mt-6 text-sm">
      {[...byReason].map(([reason, names]) => (
        <div key={reason} className="border-b border-rule py-1.5">
          <dt className="font-semibold">{reason}</dt>
          <dd className="text-soft">{names.join(', ')}</dd>
        </div>
      ))}
    </dl>
  );
}
