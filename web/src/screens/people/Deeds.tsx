'use client';

import Link from 'next/link';
import { DEEDS } from '@/data/access/deedKinds';
import type { Deed } from '@/data/access/deeds';
import { instant } from '@/manner/manner';

/** Who did what, the newest first. */
export function Deeds({ deeds }: { deeds: readonly Deed[] }) {
  return (
    <section aria-label="Who did what" className="lg:col-span-2">
      <h2 className="border-b-2 border-ink pb-1 text-base font-semibold">
        {deeds.length === 0 ? 'Nobody has done anything yet' : 'Who did what'}
      </h2>
      <ul>
        {deeds.map((deed) => (
          <li
            key={deed.id}
            className="grid gap-x-5 border-b border-rule py-1.5 sm:grid-cols-[11rem_1fr]"
          >
            <span className="text-soft" suppressHydrationWarning>
              {instant(deed.at)}
            </span>
            <span>
              <strong>{deed.by}</strong> {DEEDS[deed.what]}
              {deed.detail && `: ${deed.detail}`}
              {deed.student && (
                <>
                  {' · '}
                  <Link
                    href={deed.clipId ? `/bench/${deed.clipId}` : `/students/${deed.studentId}`}
                    className="underline underline-offset-4"
                  >
                    {deed.student}
                  </Link>
                </>
              )}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
