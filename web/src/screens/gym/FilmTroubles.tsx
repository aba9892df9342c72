import Link from 'next/link';
import type { FilmTrouble } from '@/data/maintenance/filmCheck';
import { pastTime } from '@/data/database/today';

const SHOWN = 50;

/** Films that are missing or not as they were, and what to do; nothing when all are sound. */
export function FilmTroubles({ troubles }: { troubles: readonly FilmTrouble[] }) {
  if (troubles.length === 0) return null;
  return (
    <section aria-label="Missing films" className="lg:col-span-2">
      <h2 className="border-b-2 border-ink pb-1 text-base font-semibold">
        Films that are missing or damaged, {troubles.length}
      </h2>
      <p className="py-2 text-soft">
        What was marked and measured is safe. Add the same file again on the student’s page, and it
        takes its place.
      </p>
      <ul>
        {troubles.slice(0, SHOWN).map((one) => (
          <li
            key={one.clipId}
            className="flex flex-wrap items-baseline gap-x-5 gap-y-1 border-b border-rule py-2"
          >
            <span className="w-20 text-soft">
              {one.trouble === 'missing' ? 'missing' : 'damaged'}
            </span>
            <span className="min-w-0 flex-1 truncate font-semibold" title={one.fileName}>
              <bdi>{one.fileName}</bdi>
            </span>
            <Link
              href={`/students/${one.studentId}`}
              className="max-w-72 truncate underline underline-offset-4"
            >
              <bdi>{one.student}</bdi>
            </Link>
            <span className="text-sm text-soft">{pastTime(one.createdAt)}</span>
          </li>
        ))}
      </ul>
      {troubles.length > SHOWN && (
        <p className="py-2 text-soft">And {troubles.length - SHOWN} more.</p>
      )}
    </section>
  );
}
