'use client';

import Link from 'next/link';
import { useMemo, useState } from 'react';
import { MEASURE_NAMES } from '@sinew/core/measure/measures/allMeasures';
import { techniqueById } from '@sinew/core/foundation/technique/techniques';
import { pastDay } from '@/data/database/today';
import { inManner, say } from '@/manner/manner';
import type { LedgerPage } from '@/data/progress/ledgerPage';
import type { Dose } from '@/data/work/doses';
import { SelectField } from '@/ui/field';
import { filmOf, Thumb } from '@/ui/thumb';
import { StudentBar } from '@/ui/studentBar';
import { Fatigue } from './Fatigue';
import { FaultHistory } from './FaultHistory';
import { MarkingErrorLine } from './MarkingErrorLine';
import { Notes } from './Notes';
import { TrendChart } from './TrendChart';
import { trackOf, type Alike, type SetPoint, type Track } from '@/data/progress/trends';

/** Readings a coach looks at first. */
const FIRST = ['lead.hipsTrunk', 'speed.contact', 'separation.max', 'momentum'];

export interface LedgerProps extends LedgerPage {
  readonly student: { readonly id: string; readonly name: string };
  readonly today: string;
}

/** A student's record in one technique: where it stood, where it goes, what was worked. */
export function LedgerScreen(props: LedgerProps) {
  const { student, technique, techniques, alike, faults, notes, doses, fatigue, errors, left } =
    props;
  const [key, setKey] = useState(alike[0]?.key ?? '');
  const chosen = alike.find((one) => one.key === key) ?? alike[0];
  const ids = useMemo(() => (chosen ? chosen.values.map(({ id }) => id) : []), [chosen]);
  const usual = FIRST.find((first) => ids.some((id) => id === first));
  const [reading, setReading] = useState<string | undefined>(usual);
  const track = chosen ? (trackOf(chosen, reading) ?? trackOf(chosen, ids[0])) : null;
  const error = errors.find(({ id }) => id === track?.id) ?? null;
  return (
    <>
      <StudentBar student={student} here="Ledger" />
      <main className="mx-auto max-w-[1280px] px-4 sm:px-8 pt-7 pb-16">
        <div className="flex flex-wrap items-end justify-between gap-4">
          <h1 className="font-serif text-[2.6rem] leading-none">
            {technique ? `${techniqueById(technique).name}, so far.` : 'Nothing measured yet.'}
          </h1>
          <div className="flex flex-wrap gap-5">
            <a
              className="inline-flex items-center underline underline-offset-4"
              href={`/api/students/${student.id}/ledger?as=csv`}
            >
              CSV
            </a>
            <a
              className="inline-flex items-center underline underline-offset-4"
              href={`/api/students/${student.id}/ledger?as=json`}
            >
              JSON
            </a>
          </div>
        </div>
        {techniques.length > 1 && (
          <nav aria-label="Techniques" className="mt-4 flex flex-wrap gap-5">
            {techniques.map((id) => (
              <Link
                key={id}
                href={`/students/${student.id}/ledger?technique=${id}`}
                aria-current={id === technique ? 'page' : undefined}
                className="border-b-2 border-transparent font-semibold text-soft aria-[current]:border-ink aria-[current]:text-ink"
              >
                {techniqueById(id).name}
              </Link>
            ))}
          </nav>
        )}
        {left > 0 && (
          <p role="status" className="mt-3 border-l-4 border-now pl-3">
            {left} {left === 1 ? 'strike is' : 'strikes are'} still to be measured.{' '}
            <a href="" className="underline underline-offset-4">
              Go on measuring
            </a>
          </p>
        )}
        <div className="mt-5 grid gap-x-12 gap-y-8 lg:grid-cols-[minmax(0,1fr)_22rem]">
          <div className="space-y-8">
            {chosen && track ? (
              <section aria-label="Trend">
                <div className="mb-4 grid max-w-2xl gap-4 sm:grid-cols-2">
                  <SelectField
                    label="Reading"
                    value={track.id}
                    onChange={(event) => setReading(event.target.value)}
                  >
                    {ids.map((id) => (
                      <option key={id} value={id}>
                        {MEASURE_NAMES[id]}
                      </option>
                    ))}
                  </SelectField>
                  <SelectField
                    label="Filmed alike"
                    value={chosen.key}
                    onChange={(event) => setKey(event.target.value)}
                  >
                    {alike.map((one) => (
                      <option key={one.key} value={one.key}>
                        {one.label} ({one.sets.length})
                      </option>
                    ))}
                  </SelectField>
                </div>
                <TrendChart track={track} typicalError={error?.typicalError ?? null} />
                <MarkingErrorLine error={error} studentId={student.id} />
                <Sets track={track} />
                <Goes goes={chosen.goes} onChoose={setReading} />
              </section>
            ) : (
              <p className="max-w-xl text-base">
                Film a strike, mark it on the bench or confirm what was found, and it stands here;
                from the third set on with a trend.
              </p>
            )}
            {fatigue && <Fatigue {...fatigue} />}
          </div>
          <div className="space-y-8">
            <FaultHistory studentId={student.id} faults={faults} unsaid={props.unsaid} />
            <section aria-label="Work done">
              <h2 className="border-b-2 border-ink pb-1 text-base font-semibold">Work done</h2>
              {doses.length === 0 && <p className="py-2 text-soft">No set logged yet.</p>}
              <ul>
                {doses.map((dose) => (
                  <li
                    key={dose.name}
                    className="flex justify-between gap-4 border-b border-rule py-2"
                  >
                    <span>{dose.name}</span>
                    <span className="text-right whitespace-nowrap text-soft">
                      {[doseInWords(dose), `${dose.days} ${dose.days === 1 ? 'day' : 'days'}`]
                        .filter(Boolean)
                        .join(', ')}
                    </span>
                  </li>
                ))}
              </ul>
            </section>
            <Notes studentId={student.id} notes={notes} technique={technique} today={props.today} />
          </div>
        </div>
      </main>
    </>
  );
}

const benchOf = ({ clipId, strikeId }: SetPoint) => `/bench/${clipId}?strike=${strikeId}`;

/** The sets behind a trend, newest first, each against the newest. */
function Sets({ track }: { track: Track }) {
  const newest = track.points[track.points.length - 1]!;
  const row = (point: SetPoint) => (
    <tr key={point.clipId + point.strikeId} className="border-b border-rule">
      <td className="w-24 py-1.5 pr-4">
        {point.film && (
          <Link href={benchOf(point)} tabIndex={-1} aria-hidden>
            <Thumb film={filmOf(point.clipId)} time={point.film.contactAt} className="w-20" />
          </Link>
        )}
      </td>
      <td className="py-2 pr-6">{pastDay(point.day)}</td>
      <td className="pr-6 text-right">
        {say({ ...point, unit: track.unit, source: 'eye', frames: [] })}
      </td>
      <td className="pr-6 text-soft">
        {point.strikes} {point.strikes === 1 ? 'strike' : 'strikes'}
      </td>
      <td className="text-right">
        {point.film && (
          <Link href={benchOf(point)} className="underline underline-offset-4">
            bench
          </Link>
        )}
        {point !== newest && (
          <Link
            href={`/compare?a=${point.strikeId}&b=${newest.strikeId}`}
            className="ml-5 underline underline-offset-4"
          >
            compare with the newest
          </Link>
        )}
      </td>
    </tr>
  );
  return (
    <table className="mt-3 w-full">
      <thead className="sr-only">
        <tr>
          <th>Picture</th>
          <th>Day</th>
          <th>Median</th>
          <th>Strikes</th>
          <th>Go to</th>
        </tr>
      </thead>
      <tbody>{[...track.points].reverse().slice(0, 8).map(row)}</tbody>
    </table>
  );
}

/** What else goes somewhere. */
function Goes({ goes, onChoose }: { goes: Alike['goes']; onChoose: (id: string) => void }) {
  if (goes.length === 0) return null;
  return (
    <details className="mt-4">
      <summary className="font-semibold">All that goes somewhere, {goes.length}</summary>
      <ul className="mt-1.5">
        {goes.map(({ id, sentence }) => (
          <li key={id}>
            <button
              type="button"
              onClick={() => onChoose(id)}
              className="py-1 text-left underline decoration-rule underline-offset-4 hover:decoration-ink"
            >
              {inManner(sentence)}
            </button>
          </li>
        ))}
      </ul>
    </details>
  );
}

/** Nothing where only days were ticked. */
function doseInWords({ strikes, seconds }: Dose): string {
  if (strikes > 0) return `${strikes} strikes`;
  return seconds > 0 ? `${Math.round(seconds / 60)} min` : '';
}
