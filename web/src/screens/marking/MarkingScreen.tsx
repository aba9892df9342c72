import Link from 'next/link';
import { techniqueById } from '@sinew/core/foundation/technique/techniques';
import { quantity } from '@/manner/manner';
import type { MarkingError, StrikeToMark } from '@/data/progress/repeatMarkings';
import { MainBar } from '@/ui/mainBar';
import { StudentBar } from '@/ui/studentBar';

/** The exercise that says how far two markings of one strike differ, and what it has said so far. */
export function MarkingScreen({
  strikes,
  errors,
  fewest,
  student,
}: {
  strikes: readonly StrikeToMark[];
  errors: readonly MarkingError[];
  fewest: number;
  /** Whose ledger one comes from; the way back leads there. */
  student: { readonly id: string; readonly name: string } | null;
}) {
  const done = strikes.filter(({ times }) => times > 0).length;
  return (
    <>
      {student ? <StudentBar student={student} here={null} /> : <MainBar here="Gym" />}
      <main className="mx-auto grid max-w-[1280px] gap-x-12 gap-y-8 px-4 sm:px-8 pt-7 pb-16 lg:grid-cols-2">
        <div className="lg:col-span-2">
          <h1 className="font-serif text-[2.6rem] leading-none">
            {done < fewest ? 'How sure is your eye?' : `${done} strikes marked twice.`}
          </h1>
          <p className="mt-3 max-w-2xl text-base">
            Mark strikes again without sight of your first marks. From {fewest} strikes on, Sinew
            knows how far your own markings differ, and no smaller change is called real.
          </p>
        </div>
        <section aria-label="Strikes">
          <h2 className="border-b-2 border-ink pb-1 text-base font-semibold">To mark again</h2>
          {strikes.length === 0 && (
            <p className="py-2 text-soft">
              No strike is marked from ready to home yet. Mark one on the bench first.
            </p>
          )}
          <ul>
            {strikes.map((one) => (
              <li
                key={one.strikeId}
                className="flex items-baseline gap-4 border-b border-rule py-2"
              >
                <Link
                  href={`/marking/${one.strikeId}${student ? `?student=${student.id}` : ''}`}
                  className="font-semibold underline underline-offset-4"
                >
                  {techniqueById(one.technique).name}, {one.student}
                </Link>
                <span className="text-sm text-soft">{one.fileName}</span>
                <span className="ml-auto text-sm text-soft">
                  {one.times === 0 ? 'once' : `${one.times + 1} times`}
                </span>
              </li>
            ))}
          </ul>
        </section>
        <section aria-label="Errors">
          <h2 className="border-b-2 border-ink pb-1 text-base font-semibold">
            {errors.length === 0 ? 'Not known yet' : 'How far markings differ'}
          </h2>
          {errors.length > 0 && (
            <table className="w-full">
              <thead>
                <tr className="text-right text-sm text-soft">
                  <th className="py-1.5 text-left font-semibold">Reading</th>
                  <th className="font-semibold">Typical error</th>
                  <th className="font-semibold">Smallest change</th>
                  <th className="font-semibold">ICC(2,1)</th>
                  <th className="font-semibold">ICC(3,1)</th>
                </tr>
              </thead>
              <tbody>
                {errors.map((one) => (
                  <tr key={one.id} className="border-b border-rule text-right">
                    <td className="py-1 text-left">{one.name}</td>
                    <td>{quantity(one.typicalError, one.unit)}</td>
                    <td>{quantity(one.smallestChange, one.unit)}</td>
                    <td>{one.icc21.toFixed(2)}</td>
                    <td>{one.icc31.toFixed(2)}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          )}
        </section>
      </main>
    </>
  );
}
