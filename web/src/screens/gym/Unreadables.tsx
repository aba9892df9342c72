import Link from 'next/link';
import type { Unreadable } from '@/data/database/unreadable';

const SHOWN = 50;

/** What is kept and cannot be read; nothing when all can. */
export function Unreadables({ cells }: { cells: readonly Unreadable[] }) {
  if (cells.length === 0) return null;
  return (
    <section aria-label="Not readable" className="lg:col-span-2">
      <h2 className="border-b-2 border-ink pb-1 text-base font-semibold">
        What cannot be read, {cells.length}
      </h2>
      <p className="py-2 text-soft">
        Sinew goes on as if nothing had been said here, and keeps what stands there until you say it
        anew. A backup from before can be gone back to.
      </p>
      <ul>
        {cells.slice(0, SHOWN).map(({ what, of }, i) => (
          <li
            key={i}
            className="flex flex-wrap items-baseline gap-x-5 gap-y-1 border-b border-rule py-2"
          >
            <span className="font-semibold">{what}</span>
            {of && (
              <Link href={of.href} className="max-w-96 truncate underline underline-offset-4">
                <bdi>{of.name}</bdi>
              </Link>
            )}
          </li>
        ))}
      </ul>
      {cells.length > SHOWN && <p className="py-2 text-soft">And {cells.length - SHOWN} more.</p>}
    </section>
  );
}
