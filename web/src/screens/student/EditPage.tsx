import Link from 'next/link';
import type { Student } from '@/data/student/students';
import { TopBar } from '@/ui/topBar';
import { StudentForm } from './StudentForm';

/** The form on a page of its own; without a student it adds one. */
export function EditPage({ student }: { student: Student | null }) {
  return (
    <>
      <TopBar>
        <Link href="/" className="text-soft hover:underline">
          Floor
        </Link>
        <span className="font-semibold" aria-current="page">
          {student?.name ?? 'New student'}
        </span>
      </TopBar>
      <main className="mx-auto max-w-[1280px] px-4 sm:px-8 pt-7 pb-16">
        <h1 className="mb-6 font-serif text-[2.6rem] leading-none">
          {student ? `Change ${student.name}` : 'A new student'}
        </h1>
        <StudentForm student={student} />
        {student && (
          <section aria-label="Everything as one file" className="mt-12 max-w-xl">
            <h2 className="border-b-2 border-ink pb-1 text-base font-semibold">
              Everything as one file
            </h2>
            <p className="py-2 text-soft">
              All that is kept of <bdi>{student.name}</bdi> and of nobody else: consents, injuries,
              body, films, marks, readings, cues, work. To hand over when it is asked for, or to
              take along to another gym, which reads it under <em>Gym</em>.
            </p>
            <a
              href={`/api/students/${student.id}/file`}
              className="inline-flex min-h-9 items-center border border-ink px-3.5 font-semibold hover:bg-tint"
            >
              Save everything
            </a>
          </section>
        )}
      </main>
    </>
  );
}
