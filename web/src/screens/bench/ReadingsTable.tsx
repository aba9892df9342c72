'use client';

import { MEASURE_IDS, MEASURE_NAMES, type Readings } from '@sinew/core/measures/catalogue';
import { isAbsent, type Source } from '@sinew/core/reading/reading';
import { parts } from '@sinew/core/reading/say';

const SOURCE: Record<Source, string> = {
  'measured-3d': 'two cameras',
  'measured-2d': 'in the picture',
  'estimated-3d': 'estimated',
  eye: 'your marks',
};

/** Every reading with its ±, or why there is none. */
export function ReadingsTable({ readings }: { readings: Readings }) {
  const present = MEASURE_IDS.filter((id) => !isAbsent(readings[id]));
  const lacking = MEASURE_IDS.filter((id) => isAbsent(readings[id]));
  return (
    <>
      <table className="w-full border-collapse">
        <thead>
          <tr className="border-b border-ink text-left text-sm text-soft">
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
        <tbody>
          {present.map((id) => {
            const reading = readings[id];
            if (isAbsent(reading)) return null;
            const { value, plusMinus, unit } = parts(reading);
            return (
              <tr key={id} className="border-b border-rule">
                <td className="py-1.5">{MEASURE_NAMES[id]}</td>
                <td className="py-1.5 text-right font-semibold">{value}</td>
                <td className="py-1.5 pl-2 text-soft">
                  ± {plusMinus} {unit}
                </td>
                <td className="py-1.5 pl-3 text-soft">{SOURCE[reading.source]}</td>
              </tr>
            );
          })}
        </tbody>
      </table>
      {lacking.length > 0 && (
        <dl className="mt-4 text-sm">
          {lacking.map((id) => {
            const reading = readings[id];
            return (
              <div key={id} className="border-b border-rule py-1">
                <dt className="inline font-semibold text-soft">{MEASURE_NAMES[id]}: </dt>
                <dd className="inline text-soft">{isAbsent(reading) && reading.absent}</dd>
              </div>
            );
          })}
        </dl>
      )}
    </>
  );
}
