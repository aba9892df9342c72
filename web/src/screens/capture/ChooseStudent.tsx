import Link from 'next/link';
import type { Student } from '@/data/student/students';
import { TopBar } from '@/ui/topBar';

/** Whom to film; only those who have agreed to it. */
export function ChooseStudent({
  students,
  asked,
}: {
  students: readonly Student[];
  /** Who was to be filmed and has not agreed yet; null when nobody was named. */
  asked: Student | null;
}) {
  const ready = students.filter((student) => student.consent);
  return (
    <>
      <TopBar>
        <Link href="/" className="text-soft hover:underline">
          Floor
        </Link>
        <span className="font-semibold" aria-current="page">
          Film
        </span>
      </TopBar>
      <main className="mx-auto max-w-3xl px-8 pt-7 pb-16">
        <h1 className="mb-5 font-serif text-[2.6rem] leading-none">Film whom?</h1>
        {asked && (
          <p className="mb-5 border-l-4 border-now pl-3 text-base">
            {asked.name} cannot be filmed yet: {asked.isMinor ? 'a guardian’s consent' : 'consent'}{' '}
            is not recorded.{' '}
            <Link href={`/students/${asked.id}`} className="underline underline-offset-4">
              Record it
            </Link>
          </p>
        )}
        {ready.length === 0 ? (
          <p className="text-base text-soft">
            Nobody on the Floor has agreed to be filmed yet. Record the consent on the student’s
            page first.
          </p>
        ) : (
          <ul className="border-t-2 border-ink">
            {ready.map((student) => (
              <li key={student.id} className="border-b border-rule">
                <Link
                  href={`/capture?student=${student.id}`}
                  className="block py-3 text-xl hover:bg-tint"
                >
                  {student.name}
                </Link>
              </li>
            ))}
          </ul>
        )}
      </main>
    </>
  );
}
