import Link from 'next/link';
import type { ReactNode } from 'react';
import type { Gym } from '@/data/gym/gym';
import type { PlanItem } from '@/data/work/plan';
import type { Student } from '@/data/student/students';
import { KeyLink } from '@/ui/keyLink';
import { MainBar } from '@/ui/mainBar';
import { FloorTable } from './FloorTable';
import type { FloorRow } from './rows';

/** Who is here and what each needs next. */
export function Floor({
  gym,
  rows,
  headline,
  archived,
  today,
  notices,
}: {
  gym: Gym;
  rows: readonly FloorRow[];
  headline: string;
  archived: readonly Student[];
  /** What is planned for today. */
  today: readonly PlanItem[];
  /** What the coach has to decide before Sinew goes on; see `UpkeepNotices`. */
  notices: ReactNode;
}) {
  return (
    <>
      <MainBar
        here="Floor"
        right={
          <span className="text-soft">{[gym.name, gym.className].filter(Boolean).join(', ')}</span>
        }
      />
      <main className="mx-auto max-w-[1280px] px-4 sm:px-8 pt-7 pb-12">
        {notices}
        <div className="flex flex-wrap items-end justify-between gap-4">
          <h1 className="font-serif text-[2.6rem] leading-none">
            {rows.length === 0 ? 'An empty Floor.' : headline}
          </h1>
          <div className="flex flex-wrap gap-3">
            {rows.length > 0 && (
              <KeyLink href="/card" weight="plain" hotkey="C" words="class sheet">
                Class sheet
              </KeyLink>
            )}
            <KeyLink
              href="/students/new"
              weight={rows.length === 0 ? 'main' : 'plain'}
              hotkey="A"
              words="add a student"
            >
              Add a student
            </KeyLink>
          </div>
        </div>
        {today.length > 0 && (
          <p className="mt-3 text-base">
            <Link href="/plan" className="font-semibold hover:underline">
              Today
            </Link>
            : {today.map(inWords).join(', ')}
          </p>
        )}
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

/** "Film again (Ada), filmed". */
function inWords({ title, student, isDone, isFilmed }: PlanItem): string {
  const what = student ? `${title} (${student})` : title;
  return isDone ? `${what}, done` : isFilmed ? `${what}, filmed` : what;
}
