import { KeyLink } from '@/ui/keyLink';
import { TopBar } from '@/ui/topBar';
import type { Gym } from '@/data/gym';
import type { Student } from '@/data/students';
import Link from 'next/link';
import { FloorTable } from './FloorTable';
import type { FloorRow } from './rows';

/** Who is here and what each needs next. */
export function Floor({
  gym,
  rows,
  headline,
  archived,
}: {
  gym: Gym;
  rows: readonly FloorRow[];
  headline: string;
  archived: readonly Student[];
}) {
  return (
    <>
      <TopBar
        right={
          <span className="text-soft">{[gym.name, gym.className].filter(Boolean).join(', ')}</span>
        }
      >
        <span className="font-semibold" aria-current="page">
          Floor
        </span>
        <Link href="/library" className="text-soft hover:underline">
          Library
        </Link>
      </TopBar>
      <main className="mx-auto max-w-[1280px] px-8 pt-7 pb-12">
        <div className="flex flex-wrap items-end justify-between gap-4">
          <h1 className="font-serif text-[2.6rem] leading-none">
            {rows.length === 0 ? 'An empty Floor.' : headline}
          </h1>
          <KeyLink href="/students/new" weight={rows.length === 0 ? 'main' : 'plain'} hotkey="A">
            Add a student
          </KeyLink>
        </div>
        {rows.length === 0 ? (
          <div className="mt-10 max-w-xl space-y-4 text-base">
            <p>
              Add the first student, record the consent to be filmed, and drop a clip of a punch on
              their page. Sinew opens it on the bench, where you step through it frame by frame.
            </p>
            <p className="text-soft">
              To look around with made-up students and films first, stop this server and run{' '}
              <code className="bg-tint px-1">npm run demo</code>.
            </p>
          </div>
        ) : (
          <FloorTable rows={rows} />
        )}
        {archived.length > 0 && (
          <details className="mt-8 text-sm text-soft">
            <summary className="font-semibold">Archived, {archived.length}</summary>
            <ul className="mt-2 space-y-1">
              {archived.map((student) => (
                <li key={student.id}>
                  <Link href={`/students/${student.id}`} className="underline underline-offset-4">
                    {student.name}
                  </Link>
                </li>
              ))}
            </ul>
          </details>
        )}
      </main>
    </>
  );
}
